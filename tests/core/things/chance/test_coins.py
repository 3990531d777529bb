"""Coins: what is tossed is counted, the same seed tosses the same, and theory is met."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.page import Page
from larch.core.things.chance.coins import Coins, toss, toss_often


def after(page: Page, times: int, how=toss) -> Coins:  # type: ignore[no-untyped-def]
    for _ in range(times):
        edit = how(page, [page.things[0]])
        assert isinstance(edit.after, Page)
        page = edit.after
    coins = page.things[0]
    assert isinstance(coins, Coins)
    return coins


@given(st.integers(1, 200), st.integers(0, 2**32), st.integers(1, 4))
def test_every_toss_is_counted_and_can_be_had_again(count: int, seed: int, times: int) -> None:
    page = Page(id="p1", seed=seed).put(Coins(count=count))
    coins = after(page, times)
    assert coins.tosses == count * times
    assert len(coins.up) == count
    assert coins.up.count("h") <= coins.heads <= coins.tosses
    assert after(page, times) == coins


def test_many_tosses_come_near_to_a_half() -> None:
    coins = after(Page(id="p1", seed=1).put(Coins(count=100)), 3, toss_often)
    assert coins.tosses == 300_000
    assert abs(coins.heads - 150_000) < 4 * (300_000 / 4) ** 0.5  # four standard deviations


def test_another_count_begins_with_coins_that_do_not_lie_yet() -> None:
    page = Page(id="p1").put(Coins(count=3))
    coins = after(page, 2)
    fact = next(fact for fact in coins.facts(page) if fact.name == "count")
    assert fact.set is not None
    fewer = fact.set("2")
    assert (fewer.count, fewer.up, fewer.tosses) == (2, "", 6)
