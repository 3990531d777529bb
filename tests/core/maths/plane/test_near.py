"""Nearest places, insides, and parameters that go there and back."""

from __future__ import annotations

import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.plane import Angle, Circle, Ellipse, Line, NotThere, Path, Spot
from larch.core.maths.plane.forms import box_round, outline, sound, span_of
from larch.core.maths.plane.near import on_form, parameter, within

coordinate = st.floats(-200, 200, allow_nan=False).map(lambda v: round(v, 2))
place = st.tuples(coordinate, coordinate)

FORMS = [
    Line((0.0, 0.0), (80.0, 30.0)), Line((10.0, 0.0), (20.0, 50.0), "line"), Line((0.0, 0.0), (5.0, 5.0), "ray"),
    Circle((10.0, -20.0), 60.0), Circle((0.0, 0.0), 50.0, "arc", 40.0, 120.0), Ellipse((5.0, 5.0), 90.0, 30.0, 25.0),
    Path(((0.0, 0.0), (90.0, 10.0), (40.0, 80.0))), Path(((0.0, 0.0), (60.0, 10.0), (20.0, 70.0)), closed=False),
]  # fmt: skip


@pytest.mark.parametrize("form", FORMS, ids=repr)
@given(at=place)
def test_the_nearest_place_is_nearest(form: object, at: tuple) -> None:
    best = math.dist(on_form(form, parameter(form, at)), at)  # type: ignore[arg-type]
    reach = form._replace(a=on_form(form, -9), b=on_form(form, 9), form="segment") if isinstance(form, Line) else form
    samples = outline(reach, 0.5) if not isinstance(form, Line) else [on_form(form, t / 50) for t in range(-400, 401)]
    assert best <= min(math.dist(point, at) for point in samples) + 1e-6


@given(place)
def test_inside_agrees_with_shapely(at: tuple) -> None:
    ring = ((0.0, 0.0), (90.0, 10.0), (40.0, 80.0), (30.0, 30.0))
    area = shapely.Polygon(ring)
    if shapely.distance(area.boundary, shapely.Point(at)) > 1e-6:
        assert within(Path(ring), at) == area.contains(shapely.Point(at))
    sector = Circle((0.0, 0.0), 70.0, "sector", 20.0, 100.0)
    pie = shapely.Polygon(outline(sector, 0.25))
    if shapely.distance(pie.boundary, shapely.Point(at)) > 0.2:
        assert within(sector, at) == pie.contains(shapely.Point(at))


@pytest.mark.parametrize("form", FORMS, ids=repr)
def test_the_box_holds_the_form(form: object) -> None:
    box = box_round(form).grown(1e-9)  # type: ignore[arg-type]
    assert all(box.holds(*point) for point in outline(form))  # type: ignore[arg-type]


def test_angles_open_inwards_outwards_or_by_a_turn() -> None:
    vertex, east, north = (0.0, 0.0), (10.0, 0.0), (0.0, -10.0)
    assert span_of(Angle(vertex, east, north)) == (0, 90)
    assert span_of(Angle(vertex, north, east)) == (0, 90)
    assert span_of(Angle(vertex, east, north, "outer"))[1] == 270
    assert span_of(Angle(vertex, north, east, "turn"))[1] == 270
    with pytest.raises(NotThere, match="coincide"):
        span_of(Angle(vertex, vertex, north))


def test_what_is_too_far_out_or_no_number_is_not_sound() -> None:
    assert sound(Spot(1.0, 2.0))
    assert not sound(Spot(math.nan, 0.0))
    assert not sound(Path(((0.0, 0.0), (1e300, 0.0), (1.0, 1.0))))
