"""Ten frames and counters: what lies in a frame is counted, whatever way it came there."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.page import Page
from larch.core.things.numbers.counter import Counter
from larch.core.things.numbers.ten_frame import CELL, TenFrame

CELLS = st.sampled_from([5, 10, 20]).flatmap(lambda n: st.lists(st.integers(0, 2), min_size=n, max_size=n).map(tuple))


@given(CELLS, st.data())
def test_a_counter_dragged_to_another_cell_is_still_one(cells: tuple[int, ...], data: st.DataObject) -> None:
    frame = TenFrame(cells=cells)
    start, end = (data.draw(st.integers(0, len(cells) - 1)) for _ in range(2))
    moved = frame.drag_part(str(start), frame.part_place(str(start)), frame.part_place(str(end)))
    assert moved.worth() == frame.worth()
    settled = moved.part_let_go(str(start))
    assert settled.lifted == ()
    assert sorted(settled.cells) == sorted(cells)
    if cells[start] and not cells[end]:
        assert settled.cells[end] == cells[start]


def test_out_of_the_frame_it_goes_away() -> None:
    frame = TenFrame(cells=(1,) + (0,) * 9)
    gone = frame.drag_part("0", (20, 20), (20, -3 * CELL)).part_let_go("0")
    assert gone.worth() == 0
    back = frame.drag_part("0", (20, 20), (20, -10)).part_let_go("0")
    assert back == frame


@given(CELLS)
def test_a_tap_lays_and_turns(cells: tuple[int, ...]) -> None:
    frame = TenFrame(cells=cells)
    once = frame.tap_part("0", (0, 0))
    assert once.cells[0] in (1, 2) and once.cells[0] != cells[0]
    assert frame.sum_text(Page(id="p1").put(frame)).endswith(str(frame.worth()))


def test_loose_counters_fall_into_free_cells_and_count() -> None:
    page = Page(id="p1").put(TenFrame(cells=(1,) + (0,) * 9).moved(100, 100))
    frame = page.things[0]
    assert isinstance(frame, TenFrame)
    x, y = frame.placement.to_page(*frame.part_place("1"))
    counter = Counter(second=True).moved(x - 30 + 9, y - 30 - 12)
    snap = counter.snap(page, [frame], 11)
    assert snap is not None and (snap.dx, snap.dy) == pytest.approx((-9, 12))
    page = page.put(counter.moved(snap.dx, snap.dy))
    known = {fact.name: fact.value for fact in frame.facts(page)}
    assert (known["value"], known["first"], known["second"], known["sum"]) == (2, 1, 1, "1 + 1 = 2")
    again = Counter().moved(x - 30, y - 30).snap(page, [frame], 11)
    assert again is None or abs(again.dx) + abs(again.dy) > 30  # that cell is taken
