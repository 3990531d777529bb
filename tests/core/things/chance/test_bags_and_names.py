"""Bags and pickers: nothing is drawn that is not in it, and nobody comes twice before all have come."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.page import Page
from larch.core.things.chance.bag import Bag, draw
from larch.core.things.chance.die import Die, roll_often
from larch.core.things.chance.picker import Picker, deal, pick

COUNTS = st.lists(st.integers(0, 5), min_size=1, max_size=5).filter(sum).map(tuple)


@given(COUNTS, st.integers(0, 10**6))
def test_without_putting_back_all_comes_out_once(counts: tuple[int, ...], seed: int) -> None:
    page = Page(id="p1", seed=seed).put(Bag(counts=counts, back=False))
    for _ in range(sum(counts)):
        page = draw(page, page.things).after  # type: ignore[assignment]
    bag = page.things[0]
    assert isinstance(bag, Bag)
    assert tuple(bag.drawn.count(sort) for sort in range(len(counts))) == counts
    with pytest.raises(ValueError, match=r"empty\.$"):
        draw(page, page.things)


@given(COUNTS, st.integers(0, 10**6))
def test_what_is_put_back_stays_in_it(counts: tuple[int, ...], seed: int) -> None:
    page = Page(id="p1", seed=seed).put(Bag(counts=counts))
    for _ in range(8):
        page = draw(page, page.things).after  # type: ignore[assignment]
    bag = page.things[0]
    assert isinstance(bag, Bag)
    assert bag.left() == counts and len(bag.drawn) == 8
    assert all(counts[sort] for sort in bag.drawn)


@given(st.integers(1, 12), st.integers(0, 10**6))
def test_all_have_a_turn_in_every_round(count: int, seed: int) -> None:
    page = Page(id="p1", seed=seed).put(Picker(names=tuple(f"n{k}" for k in range(count))))
    rounds: list[list[str]] = [[], []]
    for turn in range(2 * count):
        page = pick(page, page.things).after  # type: ignore[assignment]
        picker = page.things[0]
        assert isinstance(picker, Picker)
        rounds[turn // count].append(picker.current())
    assert all(len(set(names)) == count for names in rounds)
    if count > 1:
        assert rounds[0][-1] != rounds[1][0]


@given(st.integers(1, 30), st.integers(1, 8), st.integers(0, 10**6))
def test_groups_differ_by_one_at_most(count: int, groups: int, seed: int) -> None:
    names = tuple(f"n{k}" for k in range(count))
    page = Page(id="p1", seed=seed).put(Picker(names=names, groups_of=min(groups, count)))
    picker = deal(page, page.things).after.things[0]  # type: ignore[union-attr]
    assert isinstance(picker, Picker)
    sizes = [len(group) for group in picker.parties()]
    assert max(sizes) - min(sizes) <= 1
    assert sorted(name for group in picker.parties() for name in group) == sorted(names)


def test_a_thousand_rolls_at_a_press_are_all_counted() -> None:
    page = Page(id="p1", seed=2).put(Die(faces=12))
    die = roll_often(page, page.things).after.things[0]  # type: ignore[union-attr]
    assert isinstance(die, Die)
    assert sum(die.counts()) == 1000
    assert sum((n - 1000 / 12) ** 2 / (1000 / 12) for n in die.counts()) < 31.3  # 99.9 % of chi-squared
