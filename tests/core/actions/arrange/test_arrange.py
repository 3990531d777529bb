"""What can be done with anything."""

from __future__ import annotations

from larch.core.actions.arrange import arrange
from larch.core.actions.ink import rub
from larch.core.base.shape import Placement
from larch.core.model.capabilities import IsInk
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page, with_groups
from larch.core.things.numbers.block import Block
from larch.core.things.words.text import Text
from tests.samples import page_with, sample_things, stroke


def test_set_out_again_restores_the_things_and_leaves_the_ink() -> None:
    page = page_with(Block(), Text(text="Count"))
    page = arrange.set_out(page).after  # type: ignore[assignment]
    before = page.things
    page = page.put(stroke(), Block(value=10)).without(["t1"])
    page = page.changing(["t2"], lambda t: t.moved(300, 300))
    again = arrange.set_out_again(page).after
    assert isinstance(again, Page)
    assert tuple(t for t in again.things if not isinstance(t, IsInk)) == before
    assert sum(isinstance(t, IsInk) for t in again.things) == 1


def test_wipe_takes_ink_and_only_ink() -> None:
    page = page_with(*sample_things(), stroke())
    wiped = rub.wipe(page).after
    assert isinstance(wiped, Page)
    assert wiped.things == tuple(t for t in page.things if not isinstance(t, IsInk))


def test_groups_hold_groups_and_come_apart_in_turn() -> None:
    page = page_with(Block(), Block(), Block())
    page = arrange.group(page, page.things[:2]).after  # type: ignore[assignment]
    page = arrange.group(page, (page.things[0], page.things[2])).after  # type: ignore[assignment]
    assert with_groups(page, ["t3"]) == ("t1", "t2", "t3")
    page = arrange.ungroup(page, page.things[:1]).after  # type: ignore[assignment]
    assert with_groups(page, ["t3"]) == ("t3",)
    assert with_groups(page, ["t1"]) == ("t1", "t2")


def test_delete_spares_what_is_locked() -> None:
    page = page_with(Block(locked=True), Block())
    left = arrange.delete(page, page.things).after
    assert [t.id for t in left.things] == ["t1"]  # type: ignore[union-attr]


def test_duplicates_of_linked_things_stay_linked_to_each_other() -> None:
    from larch.core.things.graphs.axes import Axes
    from larch.core.things.graphs.equation import Equation

    page = page_with(Axes(), Equation(axes="t1"))
    after = arrange.duplicate(page, page.things).after
    assert isinstance(after, Page)
    assert after.things[3].axes == "t3"  # type: ignore[attr-defined]


def test_depth_order_keeps_everything() -> None:
    page = page_with(*(Block(placement=Placement(i, 0)) for i in range(5)))
    front = arrange.to_front(page, page.things[1:3]).after
    assert [t.id for t in front.things] == ["t1", "t4", "t5", "t2", "t3"]  # type: ignore[union-attr]
    back = arrange.to_back(page, page.things[3:4]).after
    assert [t.id for t in back.things] == ["t4", "t1", "t2", "t3", "t5"]  # type: ignore[union-attr]


def test_ids_are_never_given_twice() -> None:
    page = page_with(Block(), Block()).without(["t2"]).put(Block())
    assert [t.id for t in page.things] == ["t1", "t3"]
    lesson = Lesson().insert(Page(id="")).without("p1").insert(Page(id=""))
    assert [p.id for p in lesson.pages] == ["p2"]
