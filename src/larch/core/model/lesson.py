"""A lesson: a frozen value that holds its pages."""

from __future__ import annotations

from typing import Any

import msgspec
from msgspec import Struct

from larch.core.model.page import Page, Paper


class Lesson(Struct, frozen=True, kw_only=True, omit_defaults=True, weakref=True):
    """Pages in order, with a title. `next` numbers the next page's id."""

    title: str = ""
    language: str = "en"
    pages: tuple[Page, ...] = ()
    next: int = 1
    extra: tuple[tuple[str, bytes], ...] = ()

    def replace(self, **changes: Any) -> Lesson:
        return msgspec.structs.replace(self, **changes)

    def page(self, id: str) -> Page | None:
        return next((page for page in self.pages if page.id == id), None)

    def with_page(self, page: Page) -> Lesson:
        """With the page of the same id replaced."""
        return self.replace(pages=tuple(page if old.id == page.id else old for old in self.pages))

    def insert(self, page: Page, at: int | None = None) -> Lesson:
        """With one page more, which gets an id of its own."""
        at = len(self.pages) if at is None else at
        page = page.replace(id=f"p{self.next}")
        return self.replace(pages=(*self.pages[:at], page, *self.pages[at:]), next=self.next + 1)

    def without(self, id: str) -> Lesson:
        return self.replace(pages=tuple(page for page in self.pages if page.id != id))

    def moved(self, id: str, to: int) -> Lesson:
        rest = [page for page in self.pages if page.id != id]
        chosen = self.page(id)
        if chosen is not None:
            rest.insert(to, chosen)
        return self.replace(pages=tuple(rest))


def blank_lesson(seed: int = 0) -> Lesson:
    """One empty squared page. `seed` starts the chance of its page."""
    return Lesson().insert(Page(id="", seed=seed, paper=Paper("squared")))
