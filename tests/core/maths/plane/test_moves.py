"""Laws of similarities: what they keep, what undoes them, what follows on what."""

from __future__ import annotations

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.base.shape import Point
from larch.core.maths.plane import Angle, Circle, Ellipse, Line, NotThere, Path, Spot, moves
from larch.core.maths.plane.forms import outline, span_of
from larch.core.maths.plane.near import distance

coordinate = st.floats(-300, 300, allow_nan=False).map(lambda v: round(v, 2))
place = st.tuples(coordinate, coordinate)
angle = st.integers(-360, 360).map(float)


@given(place, place, place)
def test_reflecting_twice_is_nothing_and_the_mirror_halves_the_way(p: Point, a: Point, b: Point) -> None:
    assume(math.dist(a, b) > 1)
    mirror = moves.reflection(Line(a, b))
    image = mirror.point(p)
    assert mirror.point(image) == pytest.approx(p, abs=1e-7)
    middle = ((p[0] + image[0]) / 2, (p[1] + image[1]) / 2)
    assert distance(Line(a, b, "line"), middle) < 1e-6


@given(place, place, angle, angle)
def test_rotations_add_up(p: Point, centre: Point, one: float, other: float) -> None:
    both = moves.rotation(centre, one).then(moves.rotation(centre, other))
    assert both.point(p) == pytest.approx(moves.rotation(centre, one + other).point(p), abs=1e-7)
    assert math.dist(both.point(p), centre) == pytest.approx(math.dist(p, centre), abs=1e-7)


def test_a_quarter_turn_is_exact_and_counter_clockwise_as_seen() -> None:
    assert moves.rotation((10, 10), 90).point((20, 10)) == (10, 0)  # y points down: up is less
    assert moves.point_reflection((1, 2)).point((4, 6)) == (-2, -2)


@given(place, place, st.sampled_from([-2.0, -1.0, -0.5, 0.25, 3.0]))
def test_enlargements_scale_every_distance(p: Point, centre: Point, factor: float) -> None:
    grow = moves.enlargement(centre, factor)
    assert math.dist(grow.point(p), centre) == pytest.approx(abs(factor) * math.dist(p, centre), abs=1e-7)
    assert grow.point(centre) == pytest.approx(centre, abs=1e-9)
    back = moves.enlargement(centre, 1 / factor)
    assert back.point(grow.point(p)) == pytest.approx(p, abs=1e-6)


FORMS = [
    Spot(3.0, 4.0), Line((0.0, 0.0), (10.0, 5.0), "ray"), Circle((20.0, 10.0), 8.0),
    Circle((5.0, 5.0), 9.0, "sector", 30.0, 100.0), Ellipse((4.0, -6.0), 12.0, 5.0, 35.0),
    Path(((0.0, 0.0), (9.0, 0.0), (4.0, 7.0))), Angle((0.0, 0.0), (9.0, 0.0), (3.0, -8.0), "turn"),
]  # fmt: skip
MOVES = [
    moves.reflection(Line((1.0, 2.0), (7.0, -3.0))), moves.rotation((2.0, 3.0), 50.0), moves.translation((13.0, -7.0)),
    moves.enlargement((0.0, 1.0), -2.0), moves.glide(Line((0.0, 0.0), (3.0, 4.0)), 10.0),
]  # fmt: skip


@pytest.mark.parametrize("form", FORMS, ids=lambda f: type(f).__name__)
@pytest.mark.parametrize("move", MOVES)
def test_the_image_of_a_form_is_the_form_of_its_images(form: object, move: moves.Move) -> None:
    image = move.form(form)  # type: ignore[arg-type, type-var]
    reach = 1e-7
    for point in outline(form):  # type: ignore[arg-type]
        assert distance(image, move.point(point)) < reach * 100
    if isinstance(form, Angle):
        assert span_of(image)[1] == pytest.approx(span_of(form)[1])


@given(place, st.sampled_from(range(len(MOVES))), st.sampled_from(range(len(MOVES))))
def test_then_means_one_after_the_other(p: Point, i: int, j: int) -> None:
    assert MOVES[i].then(MOVES[j]).point(p) == pytest.approx(MOVES[j].point(MOVES[i].point(p)), abs=1e-6)


def test_what_makes_no_move_says_why() -> None:
    with pytest.raises(NotThere, match="no direction"):
        moves.reflection(Line((1, 1), (1, 1)))
    with pytest.raises(NotThere, match="factor"):
        moves.enlargement((0, 0), 0)
