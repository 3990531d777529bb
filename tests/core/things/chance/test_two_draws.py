"""Two draws: chances along a branch multiply, all add up to one, and trials follow them."""

from __future__ import annotations

import math

from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.page import Page
from larch.core.things.chance.two_draws import ACTIONS, TwoDraws

COUNTS = st.lists(st.integers(1, 6), min_size=1, max_size=4).filter(lambda counts: sum(counts) > 1).map(tuple)


@given(COUNTS, st.booleans())
def test_all_chances_are_one(counts: tuple[int, ...], back: bool) -> None:
    draws = TwoDraws(counts=counts, back=back)
    assert sum(draws.chance_of(a, b) for a in draws.sorts() for b in draws.sorts()) == 1
    for first in draws.sorts():
        assert sum(draws.chance_second(first, b) for b in draws.sorts()) == 1
        assert all(0 <= draws.chance_second(first, b) <= 1 for b in draws.sorts())
    if not back:  # either order is as likely
        assert all(draws.chance_of(a, b) == draws.chance_of(b, a) for a in draws.sorts() for b in draws.sorts())


@given(COUNTS, st.booleans(), st.integers(0, 10**6))
def test_each_trial_is_one_pair(counts: tuple[int, ...], back: bool, seed: int) -> None:
    page = Page(id="p1", seed=seed).put(TwoDraws(counts=counts, back=back))
    for _ in range(3):
        page = ACTIONS[0].run(page, page.things).after  # type: ignore[assignment]
    draws = page.things[0]
    assert isinstance(draws, TwoDraws)
    assert sum(draws.tally) == 3
    assert all(draws.chance_of(a, b) > 0 or not draws.times(a, b) for a in draws.sorts() for b in draws.sorts())


def test_a_thousand_follow_the_tree() -> None:
    page = Page(id="p1", seed=8).put(TwoDraws(counts=(3, 2), back=False))
    draws = ACTIONS[1].run(page, page.things).after.things[0]  # type: ignore[union-attr]
    assert isinstance(draws, TwoDraws)
    for a in draws.sorts():
        for b in draws.sorts():
            chance = float(draws.chance_of(a, b))
            assert abs(draws.times(a, b) - 1000 * chance) < 4.5 * math.sqrt(1000 * chance * (1 - chance))
