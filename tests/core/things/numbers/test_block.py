"""Base-ten blocks: exchanging never changes the number."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.actions.arrange.arrange import total
from larch.core.base.shape import Placement
from larch.core.model.page import Page
from larch.core.things.numbers.block import UNIT, Block, break_up, full_tens, gather
from tests.samples import page_with

values = st.lists(st.sampled_from([1, 1, 1, 10, 10, 100, 1000]), min_size=1, max_size=45)


def worth(page: Page) -> int:
    return sum(thing.worth() or 0 for thing in page.things)


@given(values)
def test_exchanging_either_way_keeps_the_number(listed: list[int]) -> None:
    page = page_with(*(Block(value=v, placement=Placement(20 * i, 0)) for i, v in enumerate(listed)))
    for exchange in (gather, break_up):
        after = exchange(page, page.things).after
        assert isinstance(after, Page)
        assert worth(after) == worth(page)


def test_ten_ones_become_a_ten_where_they_stood() -> None:
    page = page_with(*(Block(placement=Placement(100 + 15 * i, 200)) for i in range(13)))
    edit = gather(page, page.things)
    assert isinstance(edit.after, Page)
    made = edit.after.things[-1]
    assert (made.worth(), made.placement) == (10, Placement(100, 200))
    assert len(edit.after.things) == 4
    assert edit.select is not None and made.id in edit.select


@pytest.mark.parametrize("value", [10, 100])
def test_breaking_up_lays_the_parts_exactly_where_the_block_was(value: int) -> None:
    page = page_with(Block(value=value, placement=Placement(50, 60)))
    after = break_up(page, page.things).after
    assert isinstance(after, Page)
    boxes = [thing.box() for thing in after.things]
    whole = page.things[0].box()
    assert (min(b.x0 for b in boxes), max(b.x1 for b in boxes)) == pytest.approx((whole.x0, whole.x1))
    assert sum(b.width * b.height for b in boxes) == pytest.approx(whole.width * whole.height)


def test_locked_blocks_and_supplies_are_not_spent() -> None:
    blocks = [Block(locked=i == 0, supply=i == 1) for i in range(11)]
    assert full_tens(page_with(*blocks).things) == []


def test_blocks_snap_side_by_side_and_say_so() -> None:
    left = Block(value=10, placement=Placement(100, 100))
    page = page_with(left)
    moving = Block(value=10, placement=Placement(100 + UNIT + 4, 97))
    snap = moving.snap(page, list(page.things), 8)
    assert snap is not None
    assert moving.moved(snap.dx, snap.dy).placement == Placement(100 + UNIT, 100)
    assert snap.reason == "side by side"
    assert moving.moved(40, 0).snap(page, list(page.things), 8) is None


def test_a_selection_states_its_total() -> None:
    page = page_with(Block(value=100), Block(value=10), Block())
    assert total(page.things) == 111
    assert total(page.things[:1]) is None


def test_what_is_one_can_be_chosen() -> None:
    page = page_with(*(Block(value=10, unit=-1) for _ in range(10)))
    assert total(page.things) == 10
    whole = gather(page, page.things).after
    assert isinstance(whole, Page)
    (hundred,) = whole.things
    assert isinstance(hundred, Block)
    assert (hundred.value, hundred.unit, hundred.worth()) == (100, -1, 10)
    tenth = Block(value=1, unit=-1)
    assert (tenth.worth(), tenth.colour()) == (0.1, "straw")
    mixed = page_with(*(Block(value=1, unit=-(k % 2)) for k in range(12)))
    assert full_tens(mixed.things) == []  # tenths and ones are no ten of a kind
    assert total(mixed.things) == 6.6


@given(st.integers(2, 12))
def test_in_another_base_so_many_make_one_of_the_next(base: int) -> None:
    page = page_with(*(Block(base=base) for _ in range(base)))
    after = gather(page, page.things).after
    assert isinstance(after, Page)
    (rod,) = after.things
    assert isinstance(rod, Block)
    assert (rod.value, rod.worth(), rod.extent().height) == (10, base, base * UNIT)
    cube = Block(value=1000, base=base)
    assert cube.worth() == base**3
    parts = break_up(page_with(cube), page_with(cube).things).after
    assert isinstance(parts, Page)
    assert len(parts.things) == base and total(parts.things) == base**3
