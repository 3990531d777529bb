"""Value cards, rods, dials, counting lines and lines to order."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.page import Page
from larch.core.things.numbers.block import Block
from larch.core.things.numbers.column_dials import NAMES, ColumnDials
from larch.core.things.numbers.counter import Counter
from larch.core.things.numbers.counting_line import CountingLine
from larch.core.things.numbers.order_line import OrderLine, longest_rising
from larch.core.things.numbers.rod import UNIT, Rod
from larch.core.things.numbers.value_card import ValueCard
from larch.core.things.words.text import Text


def fact(thing, page: Page, name: str):  # type: ignore[no-untyped-def]
    return next(one for one in thing.facts(page) if one.name == name)


@given(st.lists(st.tuples(st.integers(1, 9), st.integers(-3, 5)), min_size=1, max_size=6, unique_by=lambda t: t[1]))
def test_cards_that_lie_together_are_one_number(cards: list[tuple[int, int]]) -> None:
    page = Page(id="p1")
    for digit, power in sorted(cards, key=lambda card: -card[1]):
        card = ValueCard(digit=digit, power=power).moved(300, 200)
        if page.things:
            first = page.things[0]
            assert isinstance(first, ValueCard)
            near = card.moved(300 + first.anchor() - card.anchor() - card.placement.x + 7, 4)
            snap = near.snap(page, list(page.things), 11)
            assert snap is not None
            card = near.moved(snap.dx, snap.dy)
        page = page.put(card)
    total = sum(digit * 10.0**power for digit, power in cards)
    assert fact(page.things[-1], page, "number").value == pytest.approx(total)
    assert sum(map(float, fact(page.things[0], page, "expanded").value.split(" + "))) == pytest.approx(total)


def test_a_card_is_typed() -> None:
    page = Page(id="p1").put(ValueCard())
    setter = fact(page.things[0], page, "value").set
    assert (setter("900").digit, setter("900").power) == (9, 2)
    assert (setter("0.04").digit, setter("0.04").power) == (4, -2)
    for typed in ("21", "0", "-5", "lantern"):
        with pytest.raises(ValueError, match=r"\.$"):
            setter(typed)


@given(st.integers(1, 20), st.integers(1, 20), st.floats(-8, 8), st.floats(-8, 8))
def test_rods_fall_end_to_end(one: int, other: int, dx: float, dy: float) -> None:
    page = Page(id="p1").put(Rod(length=one))
    rod = Rod(length=other).moved(one * UNIT + dx, dy)
    snap = rod.snap(page, list(page.things), 11)
    assert snap is not None
    assert (rod.placement.x + snap.dx, rod.placement.y + snap.dy) == pytest.approx((one * UNIT, 0))


@given(st.integers(0, 9999), st.integers(0, 3), st.integers(1, 25))
def test_a_dial_past_nine_turns_the_next(number: int, place: int, steps: int) -> None:
    dials = ColumnDials(number=number, places=4)
    x, y = dials.middle(place)
    part = NAMES[place]
    start = dials.part_place(part)
    angle = math.atan2(start[0] - x, y - start[1])
    at = start
    for k in range(1, 3 * steps + 1):
        turned = angle + math.tau * k / 30
        to = (x + 60 * math.sin(turned), y - 60 * math.cos(turned))
        dials = dials.drag_part(part, at, to)
        at = to
    dials = dials.part_let_go(part)
    assert dials.turning == 0
    assert dials.number == min(number + steps * 10**place, 9999) or number + steps * 10**place > 9999 - 10**place


def test_buttons_and_the_mark_of_the_dials() -> None:
    dials = ColumnDials(number=199)
    more = dials.tap_part("ones +", dials.part_place("ones +"))
    assert more is not None and more.number == 200
    assert ColumnDials().tap_part("tens −", (0, 0)) == ColumnDials()
    for part in dials.parts():
        assert dials.part_at(*dials.part_place(part), 0) == part
    middle = (30 + (3 * 180 - 60) / 2, dials.line_y())
    assert dials.drag_part("mark", dials.part_place("mark"), middle).number == 500


@given(st.integers(0, 12), st.integers(0, 12))
def test_what_is_over_the_line_is_counted(over: int, before: int) -> None:
    page = Page(id="p1").put(CountingLine().moved(300, 100))
    page = page.put(*(Counter().moved(360 + 40 * k, 150 + 12 * k) for k in range(over)))
    page = page.put(*(Counter().moved(10 + 20 * k, 150) for k in range(before)))
    assert fact(page.things[0], page, "value").value == over


@given(st.lists(st.integers(-20, 20), max_size=9))
def test_the_fewest_have_to_move(values: list[int]) -> None:
    keep = longest_rising([float(v) for v in values])
    kept = [v for k, v in enumerate(values) if k in keep]
    assert kept == sorted(kept)
    best = max((len(run) for bits in range(1 << len(values))
                if (run := [v for k, v in enumerate(values) if bits >> k & 1]) == sorted(run)), default=0)  # fmt: skip
    assert len(keep) == best


def test_typed_numbers_and_blocks_stand_in_order() -> None:
    page = Page(id="p1").put(OrderLine().moved(100, 300))
    page = page.put(*(Text(text=text).moved(150 + 150 * k, 320) for k, text in enumerate(("1/2", "0,7", "lantern", "0.6"))))
    page = page.put(Block(value=1).moved(900, 350))
    line = page.things[0]
    assert fact(line, page, "order").value == "0.5; 0.7; 0.6; 1"
    assert (fact(line, page, "in order").value, fact(line, page, "right").value) == (False, 3)
    sorted_page = page.with_things({"t3": page.things[2].moved(320, 0)})
    assert fact(line, sorted_page, "in order").value is True
