"""Polygons: facts in centimetres, names, and typed lengths."""

from __future__ import annotations

import pytest

from larch.core.base.shape import Placement
from larch.core.model.fact import Fact, Told
from larch.core.model.page import Page
from larch.core.things.geometry.polygon import Polygon, polygon_on


def facts(polygon: Polygon, unit: float = 32.0) -> dict[str, Fact]:
    page = Page(id="p", unit=unit).put(polygon)
    return {fact.name: fact for fact in page.things[0].facts(page)}


RIGHT = Polygon(vertices=((0.0, 96.0), (128.0, 96.0), (128.0, 0.0)))


def test_a_three_four_five_triangle() -> None:
    known = facts(RIGHT)
    assert [known[name].value for name in ("AB", "BC", "CA")] == [4, 3, 5]
    assert known["angle B"].value == 90
    assert known["area"].value == 6
    assert known["perimeter"].text == "12 cm"
    assert known["sort"].text == "right triangle; also scalene triangle"


def test_the_scale_of_page_and_thing_count() -> None:
    larger = RIGHT.replace(placement=Placement(10, 10, 33, 2.0))
    assert facts(larger)["CA"].value == pytest.approx(10)
    assert facts(RIGHT, unit=64)["area"].value == pytest.approx(1.5)


def test_a_typed_side_of_a_triangle_keeps_the_two_others_and_says_what_moved() -> None:
    setter = facts(RIGHT)["AB"].set
    assert setter is not None
    told = setter("7 cm")
    assert isinstance(told, Told)
    assert told.said == "B and C moved."
    known = facts(told.result)
    assert [known[name].value for name in ("AB", "BC", "CA")] == pytest.approx([7, 3, 5])
    with pytest.raises(ValueError, match="longer"):
        setter("0")
    with pytest.raises(ValueError, match="Sides 3, 5, 9 can't close"):
        setter("9")


def test_a_typed_side_of_another_shape_moves_its_second_end() -> None:
    four = Polygon(vertices=((0.0, 0.0), (96.0, 0.0), (128.0, 96.0), (0.0, 64.0)))
    setter = facts(four)["AB"].set
    assert setter is not None
    told = setter("4")
    assert told.said == "B moved."
    assert told.result.vertices == ((0.0, 0.0), (128.0, 0.0), (128.0, 96.0), (0.0, 64.0))


def test_crossing_sides_are_said_and_not_measured() -> None:
    bow = Polygon(vertices=((0.0, 0.0), (100.0, 100.0), (100.0, 0.0), (0.0, 100.0)))
    known = facts(bow)
    assert known["area"].value is None
    assert known["area"].text == "its sides cross"
    assert known["sort"].text == "Its sides cross"
    assert known["AB"].value is not None


def test_dented_shapes_have_a_reflex_angle() -> None:
    arrow = Polygon(vertices=((0.0, 0.0), (100.0, 0.0), (25.0, 25.0), (0.0, 100.0)))
    angle = facts(arrow)["angle C"].value
    assert isinstance(angle, float)
    assert 180 < angle < 360
    assert facts(arrow)["sort"].text == "dart; also concave kite"


def test_own_origin_is_its_corner_on_the_page() -> None:
    made = polygon_on(Page(id="p"), [(100.0, 50.0), (200.0, 50.0), (150.0, 10.0)])
    assert made.placement == Placement(100, 10)
    assert [made.placement.to_page(*v) for v in made.vertices] == [(100, 50), (200, 50), (150, 10)]


@pytest.mark.parametrize("vertices", [(), ((0.0, 0.0), (1.0, 1.0)), ((0.0, 0.0), (1.0, float("nan")), (2.0, 2.0))])
def test_what_is_no_polygon_is_refused(vertices: tuple[tuple[float, float], ...]) -> None:
    with pytest.raises(ValueError, match="corner"):
        Polygon(vertices=vertices)
