"""Edits of the list of pages: what they leave in which order, and that each can be undone."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.model.page_list import PageList
from larch.core.session.session import Session
from larch.desk.overview.page_edits import page_edit
from tests.samples import stroke


def session_of(count: int) -> Session:
    pages = [Page(id=f"p{k + 1}", title=f"page {k + 1}", seed=k).put(stroke()) for k in range(count)]
    return Session(Lesson(pages=PageList.of(pages), next=count + 1), lambda: 0.0)


def titles(session: Session) -> list[str]:
    return [page.title for page in session.lesson.pages]


@pytest.mark.parametrize(
    ("name", "id", "after"),
    [("new", "p2", ["page 1", "page 2", "", "page 3"]),
     ("copy", "p2", ["page 1", "page 2", "page 2", "page 3"]),
     ("sooner", "p2", ["page 2", "page 1", "page 3"]),
     ("later", "p2", ["page 1", "page 3", "page 2"]),
     ("delete", "p2", ["page 1", "page 3"])],
)  # fmt: skip
def test_each_edit_leaves_the_pages_in_this_order(name: str, id: str, after: list[str]) -> None:
    session = session_of(3)
    edit = page_edit(session, name, id)
    assert edit is not None
    session.commit(edit)
    assert titles(session) == after
    session.undo()
    assert titles(session) == ["page 1", "page 2", "page 3"]


@pytest.mark.parametrize(("name", "id"), [("sooner", "p1"), ("later", "p3"), ("copy", "p9"), ("delete", ""), ("sort", "p1")])
def test_what_cannot_be_is_no_edit(name: str, id: str) -> None:
    assert page_edit(session_of(3), name, id) is None


def test_a_new_page_is_blank_and_like_the_one_before_it() -> None:
    session = session_of(1)
    first = session.lesson.pages[0]
    edit = page_edit(session, "new", "p1", seed=7)
    assert edit is not None
    session.commit(edit)
    new = session.lesson.pages[1]
    assert (new.paper, new.size, new.unit, new.things, new.seed) == (first.paper, first.size, first.unit, (), 7)


@given(steps=st.lists(st.tuples(st.sampled_from(["new", "copy", "sooner", "later", "delete"]), st.integers(0, 9))))
def test_ids_stay_single_there_is_always_a_page_and_all_is_undone(steps: list[tuple[str, int]]) -> None:
    session = session_of(3)
    start = session.lesson
    for name, where in steps:
        ids = session.lesson.pages.ids
        edit = page_edit(session, name, ids[where % len(ids)])
        if edit is not None:
            session.commit(edit)
        ids = session.lesson.pages.ids
        assert ids and len(set(ids)) == len(ids)
    while session.undo():
        pass
    assert list(session.lesson.pages) == list(start.pages)
