"""Remembered values."""

from __future__ import annotations

import gc

from larch.core.base.memo import remember
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
