"""The pages of a lesson, in order, each made when it is first wanted: a file of a hundred pages opens with its first."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterable, Iterator, Sequence
from typing import overload

from larch.core.model.page import Page


class Slot:
    """A page, or the way to make it. raw: as it stood in its file, for as long as nobody has asked for it."""

    __slots__ = ("_lock", "_make", "_page", "id", "raw")

    def __init__(self, id: str, make: Callable[[], Page] | None, page: Page | None = None, raw: bytes | None = None) -> None:
        self.id = id
        self.raw = raw
        self._make = make
        self._page = page
        self._lock = threading.Lock() if make is not None else None

    @property
    def ready(self) -> bool:
        return self._page is not None

    def page(self) -> Page:
        """The page itself; made by whichever thread asks first."""
        if self._page is None:
            assert self._lock is not None
            with self._lock:
                if self._page is None:
                    assert self._make is not None
                    self._page = self._make()
                    self._make = self.raw = None
        return self._page

    def is_same(self, other: Slot) -> bool:
        """Whether it is the very same page, made or not; makes none."""
        return self is other or (self._page is not None and self._page is other._page)


class PageList(Sequence[Page]):
    """An immutable sequence of pages. To go through it makes them all; `ids`, `slots` and `ready` make none."""

    __slots__ = ("ids", "slots")

    def __init__(self, slots: Iterable[Slot]) -> None:
        self.slots = tuple(slots)
        self.ids = tuple(slot.id for slot in self.slots)

    @classmethod
    def of(cls, pages: Iterable[Page]) -> PageList:
        return pages if isinstance(pages, PageList) else cls(Slot(page.id, None, page) for page in pages)

    def ready(self) -> list[Page]:
        """Those that have been made."""
        return [slot.page() for slot in self.slots if slot.ready]

    def __len__(self) -> int:
        return len(self.slots)

    @overload
    def __getitem__(self, at: int) -> Page: ...

    @overload
    def __getitem__(self, at: slice) -> tuple[Page, ...]: ...

    def __getitem__(self, at: int | slice) -> Page | tuple[Page, ...]:
        return tuple(slot.page() for slot in self.slots[at]) if isinstance(at, slice) else self.slots[at].page()

    def __iter__(self) -> Iterator[Page]:
        return (slot.page() for slot in self.slots)

    def __eq__(self, other: object) -> bool:
        if isinstance(other, tuple):
            return tuple(self) == other
        if not isinstance(other, PageList):
            return NotImplemented
        if self.ids != other.ids:
            return False
        pairs = zip(self.slots, other.slots, strict=True)
        return all(a.is_same(b) or a.page() == b.page() for a, b in pairs)

    def __hash__(self) -> int:
        return hash(self.ids)
