"""Falling into line while dragged, and how things may be moved."""

from __future__ import annotations

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.actions.arrange.common_facts import common_facts
from larch.core.actions.arrange.guides import guide
from larch.core.actions.arrange.holds import ALONG, BOARD, TURN, allowed, direction_of, hold, hold_fact, said, untouchable
from larch.core.base.shape import Box
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page, Paper
from larch.core.things.numbers.block import Block

PLAIN = Page(id="p")
numbers = st.floats(-400, 400)


@given(numbers, numbers, st.floats(-6, 6), st.floats(-6, 6))
def test_what_is_near_in_line_falls_into_it_and_says_why(x: float, y: float, dx: float, dy: float) -> None:
    other = Box(x, y, x + 80, y + 50)
    box = Box(x + dx, y + 300 + dy, x + 80 + dx, y + 350 + dy)
    snap = guide(PLAIN, box, [other], 7.0)
    assert snap is not None and snap.reason == "middle"
    assert box.moved(snap.dx, snap.dy).centre[0] == pytest.approx(other.centre[0], abs=1e-9)
    assert snap.dy == 0 and snap.line is not None


@given(st.lists(st.tuples(numbers, numbers, st.floats(5, 90), st.floats(5, 90)), max_size=6), numbers, numbers)
def test_a_shift_is_never_longer_than_the_reach(places: list, x: float, y: float) -> None:
    others = [Box(a, b, a + w, b + h) for a, b, w, h in places]
    snap = guide(PLAIN, Box(x, y, x + 40, y + 30), others, 6.0)
    if snap is not None:
        assert abs(snap.dx) <= 6.0 and abs(snap.dy) <= 6.0 and snap.reason


def test_equal_gaps_in_a_row_and_between_two() -> None:
    row = [Box(0, 0, 50, 50), Box(80, 0, 130, 50)]
    third = guide(PLAIN, Box(157, 3, 207, 53), row, 6.0)
    assert third is not None and (third.dx, third.dy) == (pytest.approx(3), pytest.approx(-3))
    assert "equal gaps" in third.reason and "middle" in third.reason
    apart = [Box(0, 0, 50, 50), Box(250, 0, 300, 50)]
    between = guide(PLAIN, Box(123, 11, 173, 61), apart, 6.0)
    assert between is not None and between.dx == pytest.approx(2) and "equal gaps" in between.reason


def test_the_lines_of_the_paper_hold_too() -> None:
    squared = Page(id="p", paper=Paper("squared", step=32.0))
    snap = guide(squared, Box(33, 61, 70, 90), [], 6.0)
    assert snap is not None and (snap.dx, snap.dy) == (-1, 3) and snap.reason == "on the paper"
    ruled = Page(id="p", paper=Paper("ruled", step=72.0))
    snap = guide(ruled, Box(10, 100, 50, 141), [], 6.0)
    assert snap is not None and snap.dy == 3 and snap.reason == "on the line"
    assert guide(PLAIN, Box(33, 61, 70, 90), [], 6.0) is None


@given(st.floats(-180, 360), numbers, numbers)
def test_along_a_line_only_the_part_along_it_remains(angle: float, dx: float, dy: float) -> None:
    thing = Block(hold=f"{ALONG}{angle}")
    x, y = allowed(thing, dx, dy)
    way = (math.cos(math.radians(angle)), -math.sin(math.radians(angle)))
    assert x * way[1] - y * way[0] == pytest.approx(0, abs=1e-6)  # on the line
    assert (dx - x) * way[0] + (dy - y) * way[1] == pytest.approx(0, abs=1e-6)  # the rest is square to it


def test_ways_to_hold_and_their_words() -> None:
    assert allowed(Block(hold=TURN), 5, 7) == (0, 0)
    assert allowed(Block(hold=f"{ALONG}0"), 5, 7) == (5, 0)
    assert allowed(Block(hold=f"{ALONG}90"), 5, 7) == (0, 7)
    assert allowed(Block(), 5, 7) == allowed(Block(hold=BOARD), 5, 7) == allowed(Block(hold="along mud"), 5, 7) == (5, 7)
    assert direction_of(Block(hold="along inf")) is None
    assert said(Block(hold=f"{ALONG}30")) == "only along 30°"
    assert untouchable(Block(locked=True)) and untouchable(Block(hold=BOARD))
    assert not untouchable(Block(locked=True, supply=True))


def test_holding_twice_sets_free() -> None:
    page = Page(id="p").put(Block(), Block())
    held = hold(page, page.things, TURN).after
    assert all(thing.hold == TURN for thing in held.things)  # type: ignore[union-attr]
    assert not any(thing.hold for thing in hold(held, held.things, TURN).after.things)  # type: ignore[arg-type, union-attr]


@pytest.mark.parametrize(
    ("typed", "hold_is", "locked"),
    [
        ("locked", "", True),
        ("board", "board", False),
        ("", "", False),
        ("30", "along 30", False),
        ("270°", "along 90", False),
    ],
)
def test_how_it_moves_can_be_chosen_or_typed(typed: str, hold_is: str, locked: bool) -> None:
    fact = hold_fact(Block())
    assert fact.set is not None
    changed = fact.set(typed)
    assert (changed.hold, changed.locked) == (hold_is, locked)


@given(st.text(max_size=20))
def test_anything_typed_is_taken_or_answered_with_a_sentence(typed: str) -> None:
    lesson = Lesson().insert(PLAIN)
    page = PLAIN.put(Block(supply=True, limit=3))
    for fact in common_facts(lesson, page, page.things):
        assert fact.set is not None
        try:
            changed = fact.set(typed)
        except ValueError as error:
            assert str(error).endswith((".", ".”", "circle."))
        else:
            assume(changed is not None)


def test_a_supply_tells_how_many_are_left() -> None:
    page = PLAIN.put(Block(supply=True, limit=3), Block(copy_of="t1"), Block(copy_of="t1"), Block())
    facts = {fact.name: fact for fact in common_facts(Lesson(), page, page.things[:1])}
    assert facts["limit"].text == "3, 1 left"
    assert facts["limit"].set is not None
    assert facts["limit"].set("12").limit == 12
    with pytest.raises(ValueError, match="whole number"):
        facts["limit"].set("2.5")
