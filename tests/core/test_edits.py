"""Edits, history and sessions: nothing changes but by an edit, and every edit goes back."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from larch.core.actions.arrange import arrange
from larch.core.actions.ink import rub
from larch.core.base.shape import Placement
from larch.core.model.action import actions_for
from larch.core.model.capabilities import IsInk
from larch.core.model.edit import Changes, Edit, changes_between
from larch.core.model.lesson import Lesson, blank_lesson
from larch.core.model.page import Page, with_groups
from larch.core.session.session import Session
from larch.core.things.numbers.block import Block
from larch.core.things.words.text import Text
from tests.samples import page_with, sample_things, stroke


class Clock:
    def __init__(self) -> None:
        self.now = 0.0

    def __call__(self) -> float:
        return self.now


def session_with(*things: object) -> tuple[Session, Clock]:
    clock = Clock()
    lesson = blank_lesson(seed=5)
    return Session(lesson.with_page(lesson.pages[0].put(*things)), clock), clock  # type: ignore[arg-type]


def page_of(session: Session) -> Page:
    return session.lesson.pages[0]


steps = st.lists(st.tuples(st.integers(0, 30), st.integers(0, 200)), max_size=25)


@given(steps)
def test_undoing_everything_returns_to_the_start_and_redoing_to_the_end(choices: list[tuple[int, int]]) -> None:
    session, clock = session_with(*sample_things()[:6], stroke())
    start = session.lesson
    for which, what in choices:
        clock.now += 5
        page = page_of(session)
        chosen = page.things[which % len(page.things) :][:3] if page.things else ()
        actions = actions_for(page, chosen)
        if actions:
            session.commit(actions[what % len(actions)].run(page, chosen))
    end = session.lesson
    while session.undo() is not None:
        pass
    assert session.lesson is start
    while session.redo() is not None:
        pass
    assert session.lesson is end


def test_an_empty_edit_leaves_no_step() -> None:
    session, _clock = session_with(Block())
    page = page_of(session)
    session.commit(Edit("nothing", page, page.with_things({})))
    session.commit(rub.wipe(page))
    assert session.undo() is None


def test_quick_nudges_are_one_step_and_slow_ones_are_not() -> None:
    session, clock = session_with(Block())
    for pause in (0.3, 0.3, 5.0):
        clock.now += pause
        page = page_of(session)
        session.commit(arrange.nudge(page, page.things, 2, 0))
    assert len(session.history.done) == 2
    session.undo()
    assert page_of(session).things[0].placement.x == 4


def test_undo_between_nudges_ends_the_merge() -> None:
    session, _clock = session_with(Block())
    for _ in range(2):
        page = page_of(session)
        session.commit(arrange.nudge(page, page.things, 2, 0))
        session.undo()
        session.redo()
        session.undo()
    assert len(session.history.done) == 0


def test_observers_hear_exactly_what_changed() -> None:
    session, _clock = session_with(Block(), Block(), Text(text="a"))
    heard: list[Changes] = []
    stop = session.subscribe(heard.append)
    page = page_of(session)
    session.commit(arrange.recolour(page, page.things[1:2], "moss"))
    session.commit(arrange.to_back(page_of(session), page_of(session).things[2:]))
    assert heard[0].things == {page.id: frozenset({"t2"})}
    assert "t3" in heard[1].things[page.id]
    stop()
    session.undo()
    assert len(heard) == 2


def test_changes_see_pages_come_and_go() -> None:
    lesson = blank_lesson()
    more = lesson.insert(Page(id=""))
    assert changes_between(lesson, more).pages
    renamed = lesson.with_page(lesson.pages[0].replace(title="River"))
    assert changes_between(lesson, renamed).heads == {"p1"}
    assert not changes_between(lesson, lesson)


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
