"""What was nearly true of a drawn shape becomes true, and is said."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.actions.ink.near_truth import circle_near, levelled, line_near
from larch.core.actions.ink.readings import shaped
from larch.core.base.shape import Placement
from larch.core.model.page import Page
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.line import Line
from larch.core.things.geometry.point import Point
from larch.core.things.geometry.polygon import Polygon, polygon_on
from larch.core.things.ink.ink import ink_from

PAGE = Page(id="p1")


def point(x: float, y: float) -> Point:
    return Point(placement=Placement(x, y))


def off(line: list[tuple[float, float]], spot: tuple[float, float]) -> float:
    (ax, ay), (bx, by) = line
    return abs((bx - ax) * (spot[1] - ay) - (by - ay) * (spot[0] - ax)) / math.dist((ax, ay), (bx, by))


def test_a_line_from_corner_to_corner() -> None:
    page = PAGE.put(polygon_on(PAGE, [(0, 0), (200, 0), (200, 120)]))
    ends, said = line_near(page, [(6, -5), (195, 112)])
    assert ends == [(0, 0), (200, 120)] and said


@given(st.floats(-9, 9), st.floats(-60, 60))
def test_a_line_that_goes_by_a_point_goes_through_it_and_keeps_its_direction(aside: float, along: float) -> None:
    page = PAGE.put(point(100 + along, 50 + 0.6 * along + aside))
    drawn = [(0.0, -10.0), (200.0, 110.0)]
    ends, said = line_near(page, drawn)
    assert off(ends, (100 + along, 50 + 0.6 * along + aside)) < 1e-9 and said
    assert (ends[1][0] - ends[0][0], ends[1][1] - ends[0][1]) == pytest.approx((200, 120))


def test_a_line_that_begins_at_a_point_is_turned_through_another() -> None:
    page = PAGE.put(point(0, 0), point(100, 58))
    ends, _said = line_near(page, [(4, 3), (200, 110)])
    assert ends[0] == (0, 0) and off(ends, (100, 58)) < 1e-9
    assert math.dist(*ends) == pytest.approx(math.dist((0, 0), (200, 110)), rel=0.05)


def test_what_is_far_from_all_stays_as_drawn() -> None:
    page = PAGE.put(point(100, 300))
    assert line_near(page, [(0, 0), (200, 120)]) == ([(0, 0), (200, 120)], "")
    ends, _said = line_near(page, [(0, 0), (200, 8)])
    assert ends[0][1] == pytest.approx(ends[1][1])  # almost level


def test_a_circle_about_a_point_and_through_one() -> None:
    page = PAGE.put(point(100, 100), point(160, 100))
    made, said = circle_near(page, Circle(radius=54.0, placement=Placement(105, 94)))
    assert (made.placement.x, made.placement.y, made.radius) == pytest.approx((100, 100, 60)) and "," in said
    alone, nothing = circle_near(PAGE, Circle(radius=54.0, placement=Placement(105, 94)))
    assert alone.radius == 54 and nothing == ""


@given(st.lists(st.tuples(st.floats(0, 300), st.floats(0, 300)), min_size=3, max_size=6, unique=True))
def test_levelling_turns_and_nothing_else(places: list[tuple[float, float]]) -> None:
    made = levelled(places)
    for k in range(len(places)):
        assert math.dist(made[k], made[k - 1]) == pytest.approx(math.dist(places[k], places[k - 1]), abs=1e-6)


def trued(kind: str, vertices: list[tuple[float, float]]) -> tuple[Polygon | Line, str]:
    page = PAGE.put(ink_from([(0.0, 0.0, 0.7, 0.0), (50.0, 50.0, 0.7, 0.0)]))
    edit = shaped(page, [page.things[0]], {"kind": kind, "vertices": vertices})  # type: ignore[list-item]
    return edit.after.things[0], edit.said  # type: ignore[union-attr,return-value]


def test_what_was_assumed_is_shown_on_the_shape_and_said() -> None:
    square, said = trued("square", [(0, 0), (100, 0), (100, 100), (0, 100)])
    assert "marks" in square.shown and "square" in said
    right, _said = trued("triangle_right", [(0, 0), (120, 0), (0, 90)])
    assert right.shown == ("angle A",)
    scalene, _said = trued("triangle_scalene", [(0, 0), (130, 10), (40, 90)])
    assert scalene.shown == ()
    line, said = trued("line", [(0, 0), (130, 90)])
    assert isinstance(line, Line) and said == ""
