"""Random numbers and fractions of a set."""

from __future__ import annotations

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.page import Page
from larch.core.things.chance.random_numbers import ACTIONS, RandomNumbers
from larch.core.things.fractions.fraction_set import FractionSet


@given(st.integers(-50, 50), st.integers(1, 60), st.integers(1, 30), st.booleans(), st.integers(0, 10**6))
def test_numbers_lie_in_their_range(low: int, span: int, count: int, different: bool, seed: int) -> None:
    if different and count > span + 1:
        with pytest.raises(ValueError):
            RandomNumbers(low=low, high=low + span, count=count, different=True)
        return
    page = Page(id="p1", seed=seed).put(RandomNumbers(low=low, high=low + span, count=count, different=different))
    after = ACTIONS[0].run(page, page.things).after
    assert isinstance(after, Page)
    numbers = after.things[0]
    assert isinstance(numbers, RandomNumbers)
    assert len(numbers.values) == count and all(low <= value <= low + span for value in numbers.values)
    assert not different or len(set(numbers.values)) == count
    assert ACTIONS[0].run(page, page.things).after == after


@given(st.integers(1, 12), st.integers(1, 8), st.data())
def test_a_fraction_of_a_set_is_so_many(groups: int, size: int, data: st.DataObject) -> None:
    taken = data.draw(st.integers(0, groups))
    things = FractionSet(count=groups * size, groups_count=groups, filled=tuple(range(taken)))
    assert things.part() == Fraction(taken, groups) * things.count
    for part in things.parts():
        assert things.part_at(*things.part_place(part), 0) == part
    facts = {fact.name: fact for fact in things.facts(Page(id="p1"))}
    assert facts["value"].set is not None and facts["count"].set is not None
    assert facts["value"].set(f"{groups}/{groups}").part() == things.count
    if groups > 1:
        with pytest.raises(ValueError, match=r"\.$"):
            facts["count"].set(str(groups * size + 1))
