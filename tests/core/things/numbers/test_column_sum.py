"""Column arithmetic: what belongs into the cells is what comes out, for any numbers."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.page import Page
from larch.core.things.numbers.column_sum import ACTIONS, ColumnSum

NUMBERS = st.integers(0, 10**6)


def row_text(thing: ColumnSum, row: int) -> str:
    return "".join(digit for _column, digit in sorted(thing.lines()[row].wanted.items()))


@given(st.lists(NUMBERS, min_size=2, max_size=6))
def test_sums(numbers: list[int]) -> None:
    thing = ColumnSum(op="+", numbers=tuple(map(str, numbers)))
    assert row_text(thing, len(thing.lines()) - 1) == str(sum(numbers))


@given(NUMBERS, NUMBERS)
def test_differences_and_products(a: int, b: int) -> None:
    a, b = max(a, b), min(a, b)
    difference = ColumnSum(op="−", numbers=(str(a), str(b)))
    assert row_text(difference, len(difference.lines()) - 1) == str(a - b)
    product = ColumnSum(op="×", numbers=(str(a), str(b % 1000)))
    rows = [row_text(product, k) for k in range(3, len(product.lines()))]
    assert rows[-1] == str(a * (b % 1000))
    assert len(rows) == 1 or sum(map(int, rows[:-1])) == a * (b % 1000)


@given(NUMBERS, st.integers(1, 999))
def test_long_division_brings_down_every_digit(a: int, b: int) -> None:
    thing = ColumnSum(op="÷", numbers=(str(a), str(b)))
    assert int(row_text(thing, 0)) == a // b
    lines = thing.lines()
    if len(lines) > 2:
        assert int(row_text(thing, len(lines) - 1)) == a % b
    taken = [int(row_text(thing, k)) for k in range(2, len(lines) - 1, 2)]
    left = [int(row_text(thing, k)) for k in range(3, len(lines), 2)]
    for before, product in zip(left, taken[1:], strict=False):
        assert 0 <= before - product < b


@given(st.sampled_from(["275 + 148", "952 ÷ 7", "46 * 23", "703 - 58", "804/4"]), st.data())
def test_digits_that_stand_wrong_are_told(typed: str, data: st.DataObject) -> None:
    page = Page(id="p1").put(ColumnSum())
    facts = {fact.name: fact for fact in page.things[0].facts(page)}
    assert facts["task"].set is not None
    thing = facts["task"].set(typed)
    assert isinstance(thing, ColumnSum)
    for cell, digit in thing.wanted().items():
        thing = thing.with_digit(cell, digit)
    assert thing.is_done() and thing.wrong() == ()
    solved = ACTIONS[1].run(page.with_things({"t1": thing.replace(written=())}), [thing.replace(written=())]).after
    assert isinstance(solved, Page) and solved.things[0] == thing
    cell = data.draw(st.sampled_from(sorted(thing.wanted())))
    other = thing.with_digit(cell, str((int(thing.wanted()[cell]) + 1) % 10))
    assert other.wrong() == (cell,) and not other.is_done()
    for part in thing.parts():
        assert thing.part_at(*thing.part_place(part), 0) == part


@pytest.mark.parametrize("typed", ["12", "3 + x", "1 - 2", "5 ÷ 0", "1 + 2 − 3", "1.5 + 2"])
def test_what_can_not_be_laid_out_is_refused(typed: str) -> None:
    page = Page(id="p1").put(ColumnSum())
    facts = {fact.name: fact for fact in page.things[0].facts(page)}
    assert facts["task"].set is not None
    with pytest.raises(ValueError, match=r"\.$"):
        facts["task"].set(typed)
