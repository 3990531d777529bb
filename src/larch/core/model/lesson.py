"""A lesson: a frozen value that holds its pages."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

import msgspec
from msgspec import Struct

from larch.core.base.signs import AS_WRITTEN, Signs
from larch.core.model.page import Page, Paper
from larch.core.model.page_list import PageList, Slot


class Lesson(Struct, frozen=True, kw_only=True, omit_defaults=True, weakref=True):
    """Pages in order, with a title. `next` numbers the next page's id; signs: how mathematics is written in it. Pages may be
    given as any sequence."""

    title: str = ""
    language: str = "en"
    pages: PageList = PageList(())
    next: int = 1
    signs: Signs = AS_WRITTEN
    extra: tuple[tuple[str, bytes], ...] = ()

    def __post_init__(self) -> None:
        if not isinstance(self.pages, PageList):
            msgspec.structs.force_setattr(self, "pages", PageList.of(self.pages))

    def replace(self, **changes: Any) -> Lesson:
        return msgspec.structs.replace(self, **changes)

    def index(self, id: str) -> int | None:
        """The place of a page, from 0."""
        return self.pages.ids.index(id) if id in self.pages.ids else None

    def page(self, id: str) -> Page | None:
        at = self.index(id)
        return None if at is None else self.pages[at]

    def _with(self, slots: Iterable[Slot], **changes: Any) -> Lesson:
        return self.replace(pages=PageList(slots), **changes)

    def with_page(self, page: Page) -> Lesson:
        """With the page of the same id replaced."""
        return self._with(Slot(page.id, None, page) if slot.id == page.id else slot for slot in self.pages.slots)

    def insert(self, page: Page, at: int | None = None) -> Lesson:
        """With one page more, which gets an id of its own."""
        slots = self.pages.slots
        at = len(slots) if at is None else at
        page = page.replace(id=f"p{self.next}")
        return self._with((*slots[:at], Slot(page.id, None, page), *slots[at:]), next=self.next + 1)

    def without(self, id: str) -> Lesson:
        return self._with(slot for slot in self.pages.slots if slot.id != id)

    def moved(self, id: str, to: int) -> Lesson:
        rest = [slot for slot in self.pages.slots if slot.id != id]
        chosen = [slot for slot in self.pages.slots if slot.id == id]
        return self._with((*rest[:to], *chosen, *rest[to:]))


def blank_lesson(seed: int = 0) -> Lesson:
    """One empty squared page. `seed` starts the chance of its page."""
    return Lesson().insert(Page(id="", seed=seed, paper=Paper("squared")))
