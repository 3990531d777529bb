"""Fractions: decimals are exact, cutting and joining parts keeps the amount, and each part is where it is touched."""

from __future__ import annotations

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.base.number_words import decimal_text
from larch.core.model.page import Page
from larch.core.things.fractions.fraction_bar import LONG, FractionBar
from larch.core.things.fractions.fraction_circle import FractionCircle
from larch.core.things.fractions.parted import ACTIONS, Parted

KINDS = [FractionBar, FractionCircle]
CUT, JOIN = ACTIONS[1], ACTIONS[2]


def read_recurring(text: str) -> Fraction:
    """Of "0.1(6)", by the sum of the series."""
    head, _, rest = text.partition("(")
    whole, _, fixed = head.partition(".")
    value = Fraction(int(whole)) + (Fraction(int(fixed), 10 ** len(fixed)) if fixed else 0)
    cycle = rest.rstrip(")")
    return value + (Fraction(int(cycle), (10 ** len(cycle) - 1) * 10 ** len(fixed)) if cycle else 0)


@given(st.integers(0, 500), st.integers(1, 120))
def test_a_decimal_is_the_fraction(above: int, below: int) -> None:
    assert read_recurring(decimal_text(Fraction(above, below))) == Fraction(above, below)


@pytest.mark.parametrize(("above", "below", "text"), [(3, 8, "0.375"), (1, 3, "0.(3)"), (1, 6, "0.1(6)"), (5, 1, "5"),
                                                      (1, 7, "0.(142857)")])  # fmt: skip
def test_decimals_are_written_as_in_class(above: int, below: int, text: str) -> None:
    assert decimal_text(Fraction(above, below)) == text


@pytest.mark.parametrize("kind", KINDS)
@given(st.integers(1, 24), st.data())
def test_facts_agree_and_parts_lie_where_they_are_touched(kind: type[Parted], parts: int, data: st.DataObject) -> None:
    taken = data.draw(st.integers(0, 2 * parts))
    page = Page(id="p1").put(kind(parts_count=parts))
    facts = {fact.name: fact for fact in page.things[0].facts(page)}
    assert facts["taken"].set is not None
    thing = facts["taken"].set(str(taken))
    known = {fact.name: fact.value for fact in thing.facts(page)}
    assert known["value"] == f"{taken}/{parts}"
    assert Fraction(known["simplest"]) == Fraction(taken, parts) == thing.fraction()
    assert read_recurring(known["decimal"]) == Fraction(taken, parts)
    assert known["percent"] == pytest.approx(100 * taken / parts)
    for part in thing.parts():
        assert thing.part_at(*thing.part_place(part), 0) == part
    tapped = thing.tap_part("0", (0, 0))
    assert abs(len(tapped.filled) - taken) == 1
    assert tapped.tap_part("0", (0, 0)) == thing


@pytest.mark.parametrize("kind", KINDS)
@given(st.integers(1, 50), st.data())
def test_cut_and_joined_the_amount_stays(kind: type[Parted], parts: int, data: st.DataObject) -> None:
    taken = data.draw(st.integers(0, parts))
    page = Page(id="p1").put(kind(parts_count=parts, filled=tuple(range(taken))))
    cut = CUT.run(page, page.things).after
    assert isinstance(cut, Page) and isinstance(cut.things[0], kind)
    assert cut.things[0].fraction() == Fraction(taken, parts)
    assert JOIN.run(cut, cut.things).after == page


def test_bars_fall_edge_to_edge_with_their_starts_level() -> None:
    page = Page(id="p1").put(FractionBar())
    lower = FractionBar(parts_count=8).moved(4, 60)
    snap = lower.snap(page, list(page.things), 11)
    assert snap is not None and (snap.dx, snap.dy) == (-4, 4)
    assert FractionBar(parts_count=3).extent().width == LONG
