"""Constructions do what their names say, checked against SymPy and by what must hold of them."""

from __future__ import annotations

import math

import pytest
import sympy
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.base.shape import Point
from larch.core.maths.plane import Circle, Line, NotThere, construct
from larch.core.maths.plane.forms import direction
from larch.core.maths.plane.near import distance

coordinate = st.floats(-300, 300, allow_nan=False).map(lambda v: round(v, 2))
place = st.tuples(coordinate, coordinate)


def thick(a: Point, b: Point, c: Point) -> bool:
    """Whether three points make a triangle that is not a needle."""
    area = abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]))
    return area > 200 and min(math.dist(a, b), math.dist(b, c), math.dist(c, a)) > 5


@given(place, place)
def test_the_perpendicular_bisector_is_as_far_from_both(a: Point, b: Point) -> None:
    assume(math.dist(a, b) > 1)
    line = construct.perpendicular_bisector(a, b)
    for at in (line.a, line.b):
        assert math.dist(at, a) == pytest.approx(math.dist(at, b), rel=1e-9)


@given(place, place, place)
def test_foot_and_perpendicular_make_right_angles(p: Point, a: Point, b: Point) -> None:
    assume(math.dist(a, b) > 1)
    line = Line(a, b, "line")
    foot = construct.foot(p, line)
    assert distance(line, foot) < 1e-6
    assert (foot.x - p[0]) * line.way[0] + (foot.y - p[1]) * line.way[1] == pytest.approx(0, abs=1e-5 * math.dist(a, b))
    upright = construct.perpendicular(p, line)
    assert upright.way[0] * line.way[0] + upright.way[1] * line.way[1] == pytest.approx(0, abs=1e-6)
    beside = construct.parallel(p, line)
    assert beside.way[0] * line.way[1] - beside.way[1] * line.way[0] == pytest.approx(0, abs=1e-6)


@given(place, place, place)
def test_the_circle_through_three_points(a: Point, b: Point, c: Point) -> None:
    assume(thick(a, b, c))
    circle = construct.circle_through(a, b, c)
    for p in (a, b, c):
        assert math.dist(p, circle.centre) == pytest.approx(circle.radius, rel=1e-8)
    arc = construct.arc_through(a, b, c)
    assert arc.spans(direction(arc.centre, b))
    ends = {tuple(round(v, 4) for v in arc.at(angle)) for angle in (arc.start, arc.start + arc.span)}
    assert ends == {tuple(round(v, 4) for v in a), tuple(round(v, 4) for v in c)} or arc.span == pytest.approx(360)


@pytest.mark.parametrize("corners", [((0, 0), (12, 0), (3, 8)), ((-5, 2), (9, 1), (4, -11)), ((0, 0), (4, 0), (0, 3))])
def test_triangle_centres_are_those_of_sympy(corners: tuple) -> None:
    exact = sympy.Triangle(*corners)
    for name in ("centroid", "circumcentre", "incentre", "orthocentre"):
        found = construct.triangle_centre(name, *corners)
        theirs = getattr(exact, name.replace("centre", "center"))
        assert (found.x, found.y) == pytest.approx((float(theirs.x), float(theirs.y)), rel=1e-9, abs=1e-9)
    inner = construct.incircle(*corners)
    assert inner.radius == pytest.approx(abs(float(exact.inradius)), rel=1e-9)


@given(place, place, st.floats(2, 150))
def test_tangents_touch(p: Point, centre: Point, radius: float) -> None:
    circle = Circle(centre, radius)
    if math.dist(p, centre) < radius * (1 - 1e-8):
        with pytest.raises(NotThere, match="inside"):
            construct.tangents(p, circle)
        return
    for line in construct.tangents(p, circle):
        foot = construct.foot(centre, line)
        assert math.dist(foot, centre) == pytest.approx(radius, rel=1e-6)
        assert distance(line._replace(form="line"), p) < 1e-6 * (1 + math.dist(p, centre))


@pytest.mark.parametrize(("apart", "count"), [(100, 4), (40, 3), (30, 2), (20, 1)])
def test_common_tangents_of_two_circles(apart: float, count: int) -> None:
    one, other = Circle((0.0, 0.0), 30.0), Circle((apart, 0.0), 10.0)
    found = construct.common_tangents(one, other)
    distinct = {
        tuple(sorted(round(math.dist(construct.foot(c.centre, t), c.centre), 6) for c in (one, other))) for t in found
    }
    assert distinct == {(10.0, 30.0)}
    assert (
        len({(round(construct.foot((500, 77), t).x, 4), round(construct.foot((500, 77), t).y, 4)) for t in found}) == count
    )
    with pytest.raises(NotThere):
        construct.common_tangents(one, Circle((5.0, 0.0), 10.0))


def test_bisectors_halve_angles() -> None:
    ray = construct.angle_bisector((0, 0), (10, 0), (0, -10))
    assert direction(ray.a, ray.b) == pytest.approx(45)
    one, other = construct.line_bisectors(Line((0, 0), (1, 0)), Line((0, 0), (0, -1)))
    assert sorted(direction(line.a, line.b) % 180 for line in (one, other)) == pytest.approx([45, 135])


@pytest.mark.parametrize(
    "make",
    [
        lambda: construct.circle_through((0, 0), (1, 1), (2, 2)),
        lambda: construct.circle_through((0, 0), (0, 0), (2, 2)),
        lambda: construct.perpendicular_bisector((3, 3), (3, 3)),
        lambda: construct.perpendicular((0, 0), Line((1, 1), (1, 1))),
        lambda: construct.angle_bisector((0, 0), (0, 0), (1, 0)),
        lambda: construct.triangle_centre("incentre", (1, 1), (1, 1), (1, 1)),
        lambda: construct.triangle_centre("circumcentre", (0, 0), (1, 0), (2, 0)),
        lambda: construct.incircle((0, 0), (1, 0), (2, 0)),
        lambda: construct.tangents((0, 0), Circle((5, 5), 0)),
    ],
)
def test_degenerate_cases_say_why(make: object) -> None:
    with pytest.raises(NotThere, match=r"\.$"):
        make()  # type: ignore[operator]
