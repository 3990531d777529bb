"""Remembered values."""

from __future__ import annotations

import gc
import weakref

from larch.core.base.memo import once_a_page, remember
from larch.core.model.page import Page


def test_remembered_values_go_with_what_they_came_from() -> None:
    calls = []

    @remember
    def compute(page: Page) -> int:
        calls.append(page.id)
        return len(calls)

    page = Page(id="a")
    assert (compute(page), compute(page)) == (1, 1)
    assert compute(Page(id="a")) == 2  # an equal value is another value
    del page
    gc.collect()
    assert compute(Page(id="b")) == 3


def test_what_is_asked_once_a_page_holds_no_page() -> None:
    calls = []

    @once_a_page
    def compute(thing: Page, page: Page) -> int:
        calls.append((thing.id, page.id))
        return len(calls)

    thing, page = Page(id="t"), Page(id="a")
    assert (compute(thing, page), compute(thing, page)) == (1, 1)
    assert compute(Page(id="t"), page) == 2
    assert compute(thing, Page(id="a")) == 3
    assert compute(thing, page) == 4
    gone = weakref.ref(page)
    del page
    gc.collect()
    assert gone() is None
