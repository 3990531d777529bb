"""What a person types about a shape comes true, is said, or is explained."""

from __future__ import annotations

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.base.shape import Placement
from larch.core.figures.settle import settle
from larch.core.figures.wishes import set_angle, set_area, set_height, set_perimeter, set_side, triangle_from
from larch.core.maths import geometry
from larch.core.maths.classify import classify
from larch.core.maths.special import STARTS
from larch.core.model.fact import Told
from larch.core.model.page import Page
from larch.core.model.scale import Scale
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.line import Line
from larch.core.things.geometry.point import Point
from larch.core.things.geometry.polygon import Polygon

coordinate = st.floats(-300, 300, allow_nan=False).map(lambda v: round(v, 2))
place = st.tuples(coordinate, coordinate)
NAMES = "ABCDEFGH"


@given(place, place, place, st.floats(0.3, 1.8))
def test_a_side_of_a_triangle_is_set_and_the_others_stay(a: tuple, b: tuple, c: tuple, factor: float) -> None:
    corners = (a, b, c)
    sides = geometry.sides(corners)
    assume(geometry.area(corners) > 100)
    wanted = sides[0] * factor
    try:
        made = set_side(corners, "", 0, wanted, NAMES).corners
    except ValueError as error:
        assert "can't close" in str(error)
        assert 2 * max(wanted, *sides[1:]) >= (wanted + sides[1] + sides[2]) * (1 - 1e-9)
        return
    assert geometry.sides(made) == pytest.approx([wanted, *sides[1:]], rel=1e-6)
    assert (geometry.signed_area(made) > 0) == (geometry.signed_area(corners) > 0)  # it was not turned over


@given(place, place, place, st.floats(5, 170), st.integers(0, 2))
def test_an_angle_of_a_triangle_is_set(a: tuple, b: tuple, c: tuple, degrees: float, i: int) -> None:
    corners = (a, b, c)
    assume(geometry.area(corners) > 200)
    made = set_angle(corners, "", i, degrees, NAMES)
    assert geometry.interior_angles(made.corners)[i] == pytest.approx(degrees, abs=1e-5)
    assert made.said.endswith("moved.") or made.said == "Nothing had to move."


@pytest.mark.parametrize("name", sorted(STARTS))
def test_special_shapes_stay_special_under_every_wish(name: str) -> None:
    keeps, corners = STARTS[name]
    kind = classify(corners)
    longer = set_side(corners, keeps, 1, 1.3 * geometry.sides(corners)[1], NAMES).corners
    assert geometry.sides(longer)[1] == pytest.approx(1.3 * geometry.sides(corners)[1], rel=1e-6)
    assert kind.kind in (classify(longer).kind, *classify(longer).also)
    larger = set_area(corners, 5000.0, NAMES).corners
    assert geometry.area(larger) == pytest.approx(5000)
    assert classify(larger) == kind
    try:
        opened = set_angle(corners, keeps, 0, 65.0, NAMES).corners
    except ValueError as error:
        assert str(error).endswith("first.") or str(error).endswith("change that.")
    else:
        assert geometry.interior_angles(opened)[0] == pytest.approx(65, abs=1e-5)
        assert kind.kind in (classify(opened).kind, *classify(opened).also)


def test_area_perimeter_and_height() -> None:
    corners = ((0.0, 0.0), (100.0, 0.0), (40.0, 80.0))
    assert geometry.perimeter(set_perimeter(corners, 500, NAMES).corners) == pytest.approx(500)
    raised = set_height(corners, 0, 120.0, NAMES)
    assert raised.corners == ((0.0, 0.0), (100.0, 0.0), (40.0, 120.0))
    assert raised.said == "C moved."
    with pytest.raises(ValueError, match="in a line"):
        set_area(((0.0, 0.0), (1.0, 0.0), (2.0, 0.0)), 5, NAMES)


@pytest.mark.parametrize(
    ("typed", "sides"),
    [
        ("3 4 5", (3, 4, 5)), ("5; 60°; 5", (5, 5, 5)), ("3, 90°, 4", (3, 5, 4)), ("60° 5 60°", (5, 5, 5)),
        ("5 60° 60°", (5, 5, 5)), ("60° 60° 5", (5, 5, 5)),
    ],
)  # fmt: skip
def test_a_triangle_from_three_sizes(typed: str, sides: tuple) -> None:
    corners, said = triangle_from(typed, 1.0)
    assert sorted(geometry.sides(corners)) == pytest.approx(sorted(sides))
    assert not said


@pytest.mark.parametrize(
    ("typed", "why"),
    [
        ("2 3 7", "Sides 2, 3, 7 can't close"), ("60° 60° 60°", "leave the size open"), ("5 6", "three sizes"),
        ("100° 5 90°", "180°"), ("2 9 80°", "too short"), ("0 1 1", "more than nothing"), ("a b c", "not a number"),
    ],
)  # fmt: skip
def test_impossible_triangles_are_explained(typed: str, why: str) -> None:
    with pytest.raises(ValueError, match=why):
        triangle_from(typed, 1.0)


def test_two_sides_and_an_angle_across_may_mean_two_triangles() -> None:
    corners, said = triangle_from("4 5 40°", 1.0)
    assert "Two triangles" in said
    sides = geometry.sides(corners)
    assert any(math.isclose(s, 4, rel_tol=1e-9) for s in sides) and any(math.isclose(s, 5, rel_tol=1e-9) for s in sides)


def facts(page: Page, id: str) -> dict:
    return {fact.name: fact for fact in page.thing(id).facts(page)}


def test_a_segment_between_points_is_set_by_moving_its_second_point() -> None:
    page = settle(Page(id="p", scale=Scale("m", 2.0)).put(
        Point(name="A", placement=Placement(0, 0)), Point(name="B", placement=Placement(96, 0)),
        Line(rule="segment", of=("t1", "t2")), Circle(rule="circle", of=("t1", "t2")),
        Polygon(rule="polygon", of=("t1", "t2", "t6")), Point(name="C", placement=Placement(0, 96)),
    ))  # fmt: skip
    known = facts(page, "t3")["AB"]
    assert known.text == "6 m"
    after = known.set("10 m")
    assert isinstance(after, Page)
    assert after.thing("t2").placement.x == 160
    grown = facts(page, "t4")["radius"].set("400 cm")
    assert grown.thing("t2").placement.x == pytest.approx(64)
    told = facts(page, "t5")["angle B"].set("60")
    assert isinstance(told, Told) and told.said == "C moved."
    assert facts(told.result, "t5")["angle B"].value == pytest.approx(60)
    locked = page.with_things({"t2": page.thing("t2").replace(rule="midpoint", of=("t1", "t6"))})
    with pytest.raises(ValueError, match="follows from A, B"):
        facts(settle(locked), "t3")["AB"].set("10")


DENTED = ((0.0, 0.0), (100.0, 0.0), (100.0, 100.0), (60.0, 20.0), (0.0, 100.0))
LEANING = ((0.0, 128.0), (256.0, 128.0), (192.0, 0.0), (64.0, 0.0))


@pytest.mark.parametrize("keeps", ["", "isosceles trapezium"])
def test_a_typed_angle_leaves_no_crossing_shape(keeps: str) -> None:
    made = set_angle(LEANING, keeps, 2, 60.0, "ABCD").corners
    assert geometry.interior_angles(made)[2] == pytest.approx(60)
    assert not geometry.crosses_itself(made)


@given(st.integers(0, 4), st.floats(1, 300))
def test_a_typed_side_comes_true_without_a_crossing_or_is_refused(i: int, length: float) -> None:
    try:
        made = set_side(DENTED, "", i, length, "ABCDE").corners
    except ValueError as error:
        assert "cross" in str(error)
        return
    assert geometry.sides(made)[i] == pytest.approx(length)
    assert not geometry.crosses_itself(made)


def test_a_side_that_would_cross_another_says_so() -> None:
    with pytest.raises(ValueError, match=r"cross.*\."):
        set_side(DENTED, "", 0, 20.0, "ABCDE")
