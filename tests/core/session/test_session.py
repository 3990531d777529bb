"""Commits, undo, merging, and what observers hear."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from larch.core.actions.arrange import arrange
from larch.core.actions.ink import rub
from larch.core.model.action import actions_for
from larch.core.model.edit import Changes, Edit, changes_between
from larch.core.model.lesson import blank_lesson
from larch.core.model.page import Page
from larch.core.session.session import Session
from larch.core.things.numbers.block import Block
from larch.core.things.words.text import Text
from tests.samples import sample_things, stroke

steps = st.lists(st.tuples(st.integers(0, 30), st.integers(0, 200)), max_size=25)


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
