"""Special shapes stay special, wherever a corner is dragged, until they are set free."""

from __future__ import annotations

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.maths import geometry
from larch.core.maths.classify import classify
from larch.core.maths.special import RULES, STARTS, drag, regular_corners, star_corners
from larch.core.model.action import actions_for
from larch.core.model.page import Page
from larch.core.things.geometry.polygon import Polygon
from tests.samples import page_with

ways = st.lists(st.tuples(st.integers(0, 3), st.floats(-300, 500), st.floats(-300, 500)), min_size=1, max_size=6)


def well_shaped(corners: tuple[tuple[float, float], ...]) -> bool:
    """Not so flat that floats could no longer tell what it is, not crossed, and with a true corner at each corner."""
    flat = geometry.area(corners) <= 1e-3 * geometry.perimeter(corners) ** 2
    straight = any(angle is None or abs(angle - 180) < 1e-3 for angle in geometry.interior_angles(corners))
    return not (flat or straight or geometry.crosses_itself(corners))


@pytest.mark.parametrize("name", list(STARTS))
def test_a_shape_on_the_shelf_is_what_it_is_called(name: str) -> None:
    found = classify(STARTS[name][1])
    assert name in (found.kind, *found.also)


@pytest.mark.parametrize("name", list(STARTS))
@given(moves=ways)
def test_a_dragged_corner_leaves_it_what_it_is(name: str, moves: list[tuple[int, float, float]]) -> None:
    """Law: whatever is dragged, in whatever order, a rhombus stays a rhombus."""
    keeps, corners = STARTS[name]
    for i, x, y in moves:
        moved = drag(keeps, corners, i % len(corners), (x, y))
        corners = moved if well_shaped(moved) else corners
    found = classify(corners)
    words = {found.kind, *found.also}
    if name == "kite":  # a tip drawn through makes a dart of it
        words |= {"kite"} if "concave kite" in words else set()
    assert name in words


@pytest.mark.parametrize(
    "name", [name for name, (keeps, _c) in STARTS.items() if keeps not in ("isosceles triangle", "right triangle")]
)
@given(i=st.integers(0, 3), x=st.floats(-300, 500), y=st.floats(-300, 500))
def test_the_corner_goes_where_the_hand_is(name: str, i: int, x: float, y: float) -> None:
    keeps, corners = STARTS[name]
    i %= len(corners)
    moved = drag(keeps, corners, i, (x, y))
    assume(moved != corners)
    assert moved[i] == pytest.approx((x, y), abs=1e-9)


def test_the_right_angle_moves_on_its_circle_and_the_tip_over_its_base() -> None:
    keeps, corners = STARTS["right triangle"]
    moved = drag(keeps, corners, 0, (-50.0, 40.0))
    assert moved[1:] == corners[1:]
    assert geometry.interior_angles(moved)[0] == pytest.approx(90)
    keeps, corners = STARTS["isosceles triangle"]
    moved = drag(keeps, corners, 2, (300.0, -90.0))
    assert moved[2] == pytest.approx((80, -90))


def test_a_drag_onto_another_corner_changes_nothing() -> None:
    for keeps, corners in STARTS.values():
        for j in range(len(corners)):
            made = drag(keeps, corners, 0, corners[j])
            assert all(math.isfinite(v) for corner in made for v in corner)
    square = STARTS["square"][1]
    assert drag("regular", square, 0, (80.0, 80.0)) == square  # its centre: nothing would be left
    assert drag("unheard of", square, 0, (1.0, 2.0))[0] == (1.0, 2.0)


@pytest.mark.parametrize("count", range(3, 21))
def test_a_regular_polygon_has_any_number_of_corners(count: int) -> None:
    polygon = Polygon(vertices=regular_corners(5), keeps="regular")
    facts = {fact.name: fact for fact in polygon.facts(page_with())}
    assert facts["corners"].set is not None
    changed = facts["corners"].set(str(count))
    assert len(changed.vertices) == count
    assert {fact.name: fact for fact in changed.facts(page_with())}["symmetry axes"].value == count
    for typed in ("2", "21", "3.5", "many"):
        with pytest.raises(ValueError, match=r"\.$"):
            facts["corners"].set(typed)


def test_a_typed_side_keeps_it_special_and_set_free_lets_go() -> None:
    keeps, corners = STARTS["rhombus"]
    page = page_with(Polygon(vertices=corners, keeps=keeps))
    side = {fact.name: fact for fact in page.things[0].facts(page)}["AB"]
    assert side.set is not None
    changed = side.set("6 cm").result
    assert classify(changed.vertices).kind in ("rhombus", "square")
    assert page.things[0].stretched(2.0, 1.0) is None
    free = next(a for a in actions_for(page, page.things) if a.name == "set free").run(page, page.things).after
    assert isinstance(free, Page)
    loose = free.things[0].with_handle("0", 5.0, 5.0)
    assert classify(loose.vertices).kind not in ("rhombus", "square")
    assert free.things[0].stretched(2.0, 1.0) is not None
    assert not [a for a in actions_for(free, free.things) if a.name == "set free"]


@pytest.mark.parametrize("points", [3, 5, 6, 12])
def test_stars_fold_on_as_many_lines_as_they_have_points(points: int) -> None:
    polygon = Polygon(vertices=star_corners(points))
    assert {fact.name: fact for fact in polygon.facts(page_with())}["symmetry axes"].value == points


def test_every_rule_has_a_shape_on_the_shelf() -> None:
    assert {keeps for keeps, _corners in STARTS.values()} == set(RULES)


def test_blank_letters_still_give_every_fact_a_name() -> None:
    names = [fact.name for fact in Polygon(letters="   ").facts(page_with())]
    assert len(set(names)) == len(names)
    assert {"AB", "angle C"} <= set(names)
