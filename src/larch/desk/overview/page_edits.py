"""Edits of the list of pages. No Qt."""

from __future__ import annotations

from larch.core.base.words import _
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.session.session import Session


def page_edit(session: Session, name: str, id: str, seed: int = 0) -> Edit | None:
    """An edit of the list of pages: new (after the page), copy, sooner, later, delete. None where it can't be."""
    lesson = session.lesson
    page = lesson.page(id)
    if page is None:
        return None
    where = lesson.pages.ids.index(id)
    if name == "new":
        blank = Page(id="", paper=page.paper, size=page.size, unit=page.unit, seed=seed or page.seed + 1)
        return Edit(_("New page"), lesson, lesson.insert(blank, where + 1))
    if name == "copy":
        return Edit(_("Copy page"), lesson, lesson.insert(page, where + 1))
    if name in ("sooner", "later"):
        to = where + (1 if name == "later" else -1)
        return Edit(_("Move page"), lesson, lesson.moved(id, to)) if 0 <= to < len(lesson.pages) else None
    if name == "delete":
        left = lesson.without(id)
        return Edit(_("Delete page"), lesson, left if left.pages else left.insert(Page(id="", paper=page.paper)))
    return None
