"""Sums of dice: the ways are all ways, and throws follow them."""

from __future__ import annotations

from collections import Counter as Tally
from itertools import product

from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.page import Page
from larch.core.things.chance.dice_sum import ACTIONS, DiceSum, ways


@given(st.integers(1, 3), st.integers(2, 7))
def test_every_way_is_counted_once(dice: int, faces: int) -> None:
    tried = Tally(sum(throw) for throw in product(range(1, faces + 1), repeat=dice))
    assert ways(dice, faces) == tuple(tried[total] for total in range(dice, dice * faces + 1))


@given(st.integers(1, 6), st.integers(2, 20), st.integers(0, 10**6))
def test_a_throw_is_counted_at_its_sum(dice: int, faces: int, seed: int) -> None:
    page = Page(id="p1", seed=seed).put(DiceSum(count=dice, faces=faces))
    edit = ACTIONS[0].run(page, page.things)
    thrown = edit.after.things[0]  # type: ignore[union-attr]
    assert isinstance(thrown, DiceSum)
    assert thrown.tally[thrown.worth() - dice] == 1 == sum(thrown.tally)  # type: ignore[operator]
    assert ACTIONS[0].run(page, page.things).after == edit.after


def test_a_thousand_throws_follow_the_ways() -> None:
    page = Page(id="p1", seed=3).put(DiceSum())
    thrown = ACTIONS[1].run(page, page.things).after.things[0]  # type: ignore[union-attr]
    assert isinstance(thrown, DiceSum)
    number = ways(2, 6)
    chi = sum((n - 1000 * w / 36) ** 2 / (1000 * w / 36) for n, w in zip(thrown.tally, number, strict=True))
    assert sum(thrown.tally) == 1000 and chi < 29.6  # 99.9 % of chi-squared with 10 degrees of freedom
    known = {fact.name: fact.value for fact in thrown.facts(page)}
    assert known["chance 7"] == "1/6"
