"""Lining up, spreading, stacking and laying out: what comes out is what its name says, for any boxes."""

from __future__ import annotations

import math
from collections.abc import Callable
from itertools import pairwise

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.actions.arrange import align
from larch.core.actions.arrange.arrange import duplicate, forward, group, nudge, same_kind, to_depth
from larch.core.base.shape import Placement
from larch.core.model.edit import Edit
from larch.core.model.page import Page, with_groups
from larch.core.things.numbers.block import Block
from larch.core.things.papers.sheet import Sheet
from larch.core.things.words.text import Text

place = st.tuples(st.floats(-500, 500), st.floats(-500, 500), st.floats(20, 200), st.floats(20, 200))


def sheets(places: list[tuple[float, float, float, float]]) -> Page:
    return Page(id="p").put(*(Sheet(placement=Placement(x, y), width=w, height=h) for x, y, w, h in places))


def after(edit: Edit) -> Page:
    assert isinstance(edit.after, Page)
    return edit.after


@given(st.lists(place, min_size=2, max_size=7), st.sampled_from(list(align.EDGES)))
def test_lined_up_things_share_the_edge_and_keep_the_other_coordinate(places: list, edge: str) -> None:
    page = sheets(places)
    now = after(align.line_up(page, page.things, edge))
    of = align.EDGES[edge]
    values = [of(thing.box()) for thing in now.things]
    assert max(values) - min(values) == pytest.approx(0, abs=1e-6)
    across = edge in ("left", "centre", "right")
    for old, new in zip(page.things, now.things, strict=True):
        assert (new.placement.y if across else new.placement.x) == (old.placement.y if across else old.placement.x)


def test_a_locked_thing_is_what_others_line_up_with() -> None:
    page = sheets([(0, 0, 50, 50), (100, 30, 50, 50), (300, 90, 50, 50)])
    page = page.changing(["t2"], lambda t: t.replace(locked=True))
    now = after(align.line_up(page, page.things, "top"))
    assert [thing.placement.y for thing in now.things] == [30, 30, 30]


@given(st.lists(place, min_size=3, max_size=8), st.booleans())
def test_spread_things_have_equal_gaps_and_the_outermost_stay(places: list, across: bool) -> None:
    page = sheets(places)
    middles = sorted(thing.box().centre[0 if across else 1] for thing in page.things)
    assume(all(b - a > 1 for a, b in pairwise(middles)))
    now = after(align.distribute(page, page.things, across))
    order = sorted(page.things, key=lambda thing: thing.box().centre[0 if across else 1])
    boxes = [now.thing(thing.id).box() for thing in order]  # type: ignore[union-attr]
    spans = [(b.x0, b.x1) if across else (b.y0, b.y1) for b in boxes]
    gaps = [b[0] - a[1] for a, b in pairwise(spans)]
    assert max(gaps) - min(gaps) == pytest.approx(0, abs=1e-6)
    before = [t.box() for t in page.things]
    first = min(before, key=lambda b: b.centre[0 if across else 1])
    assert any(
        (b.x0 if across else b.y0) == pytest.approx(first.x0 if across else first.y0) for b in (t.box() for t in now.things)
    )


@pytest.mark.parametrize("arrange", [align.into_row, align.into_grid, align.into_circle])
@given(places=st.lists(place, min_size=2, max_size=9))
def test_things_laid_out_do_not_overlap(arrange: Callable, places: list) -> None:
    page = sheets(places)
    now = after(arrange(page, page.things))
    boxes = [thing.box().grown(-0.001) for thing in now.things]
    assert not any(a.meets(b) for i, a in enumerate(boxes) for b in boxes[i + 1 :])


def test_groups_are_arranged_as_one() -> None:
    page = sheets([(0, 0, 40, 40), (60, 20, 40, 40), (300, 200, 40, 40)])
    page = after(group(page, page.some(["t1", "t2"])))
    now = after(align.line_up(page, page.things, "top"))
    a, b, c = now.things
    assert (b.placement.x - a.placement.x, b.placement.y - a.placement.y) == (60, 20)
    assert c.box().y0 == a.box().y0 == 0


def test_stacked_things_share_their_middle_and_sizes_become_equal() -> None:
    page = sheets([(0, 0, 40, 60), (200, 20, 80, 20), (300, 200, 10, 10)])
    stacked = after(align.stack(page, page.things))
    assert len({tuple(round(v, 6) for v in t.box().centre) for t in stacked.things}) == 1
    sized = after(align.same_size(page, page.things))
    assert {round(max(t.box().width, t.box().height), 6) for t in sized.things} == {60}
    assert [t.box().centre for t in sized.things] == [pytest.approx(t.box().centre) for t in page.things]


@pytest.mark.parametrize(("typed", "count", "rows"), [("6", 6, 1), ("4 x 3", 12, 3), ("4×3", 12, 3), ("8 round", 8, 0)])
def test_copies_are_laid_out_as_typed(typed: str, count: int, rows: int) -> None:
    page = sheets([(100, 100, 40, 30)])
    edit = align.copies_in(page, page.things, *align.read_copies(typed))
    things = after(edit).things
    assert len(things) == count == len(edit.select or ())
    assert things[0].placement == Placement(100, 100)
    if rows:
        assert len({round(t.placement.y, 6) for t in things}) == rows
    else:
        centre = [math.fsum(t.box().centre[k] for t in things) / count for k in (0, 1)]
        away = [math.dist(t.box().centre, centre) for t in things]
        assert max(away) - min(away) < 1e-6


@pytest.mark.parametrize("typed", ["", "many", "4 x", "x 3"])
def test_what_is_no_count_is_said(typed: str) -> None:
    with pytest.raises(ValueError, match="how many"):
        align.read_copies(typed)


@pytest.mark.parametrize("typed", ["1", "5000", "90 x 90", "0 x 4", "-3 x -2"])
def test_counts_that_make_no_sense_are_refused(typed: str) -> None:
    page = sheets([(0, 0, 40, 30)])
    with pytest.raises(ValueError, match=r"laid out|too many|how many"):
        align.copies_in(page, page.things, *align.read_copies(typed))


def test_duplicating_again_goes_on_as_far() -> None:
    page = sheets([(0, 0, 40, 30)])
    first = duplicate(page, page.things)
    page = after(first)
    assert page.things[-1].placement == Placement(24, 24)
    page = after(nudge(page, page.some(first.select or ()), 76.0, -24.0))  # the copy is moved to (100, 0)
    for k in (2, 3, 4):
        page = after(duplicate(page, page.things[-1:]))
        assert (page.things[-1].placement.x, page.things[-1].placement.y) == (pytest.approx(100 * k), pytest.approx(0))


def test_duplicating_a_copy_whose_original_is_gone_steps_aside() -> None:
    page = sheets([(0, 0, 40, 30)])
    page = after(duplicate(page, page.things)).without(["t1"])
    page = after(duplicate(page, page.things))
    assert page.things[-1].placement == Placement(48, 48)


def test_one_further_up_passes_just_what_overlaps() -> None:
    page = sheets([(0, 0, 50, 50), (500, 0, 50, 50), (20, 20, 50, 50), (30, 30, 50, 50)])
    up = after(forward(page, page.some(["t1"]), 1))
    assert [t.id for t in up.things] == ["t2", "t3", "t1", "t4"]
    assert [t.id for t in after(forward(up, up.some(["t1"]), -1)).things] == ["t2", "t1", "t3", "t4"]
    assert [t.id for t in after(forward(page, page.some(["t4"]), 1)).things] == ["t1", "t2", "t3", "t4"]
    assert [t.id for t in after(to_depth(page, "t4", 0)).things] == ["t4", "t1", "t2", "t3"]


def test_an_opened_group_does_not_hold_together_but_the_one_inside_does() -> None:
    page = sheets([(0, 0, 9, 9)] * 4)
    page = after(group(page, page.some(["t1", "t2"])))
    page = after(group(page, page.some(["t1", "t2", "t3"])))
    outer, inner = page.things[0].groups
    assert with_groups(page, ["t1"]) == ("t1", "t2", "t3")
    assert with_groups(page, ["t1"], outer) == ("t1", "t2")
    assert with_groups(page, ["t3"], outer) == ("t3",)
    assert with_groups(page, ["t1"], inner) == ("t1",)


def test_the_same_kind_leaves_out_what_is_locked_or_hidden() -> None:
    page = Page(id="p").put(Block(), Text(text="a"), Block(locked=True), Block(hidden=True), Block())
    assert same_kind(page, page.some(["t1"])) == ["t1", "t5"]
