"""Edits: the only way anything changes. A value before, a value after, and a label."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from msgspec import Struct

from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.model.thing import Thing


class Edit(Struct, frozen=True):
    """A change of one page or of the lesson. Values share what did not change.

    merge: edits that follow each other within a second with the same key become one step of undo.
    said: a sentence about what was done, for whoever did it.
    select: the ids that a person will expect to be selected afterwards; None leaves it as it is.
    """

    label: str
    before: Page | Lesson
    after: Page | Lesson
    merge: str = ""
    select: tuple[str, ...] | None = None
    said: str = ""

    def is_empty(self) -> bool:
        return self.before is self.after or self.before == self.after

    def apply(self, lesson: Lesson) -> Lesson:
        """The lesson after this edit. Raises LookupError if its page is gone."""
        if isinstance(self.after, Lesson):
            return self.after
        if lesson.page(self.after.id) is None:
            raise LookupError(f"page {self.after.id} is gone")
        return lesson.with_page(self.after)


def replaced_by(page: Page, instead: Mapping[str, Sequence[Thing]], label: str, said: str = "") -> Edit:
    """Some things replaced by others, each at its depth; what came is selected."""
    after = page.exchange(instead)
    old = {thing.id for thing in page.things}
    ids = tuple(thing.id for thing in after.things if thing.id in instead or thing.id not in old)
    return Edit(label, page, after, select=ids, said=said)


class Changes(Struct, frozen=True):
    """What differs between two lessons: thing ids by page id, pages whose head changed, whether the list did, and
    whether mathematics is written otherwise."""

    things: dict[str, frozenset[str]]
    heads: frozenset[str]
    pages: bool
    signs: bool = False

    def __bool__(self) -> bool:
        return bool(self.things or self.heads or self.pages or self.signs)


def page_head(page: Page) -> Page:
    """A page without its things."""
    return page.replace(things=())


def changed_pages(before: Lesson, after: Lesson) -> Iterator[tuple[Page | None, Page]]:
    """The pages of a lesson that are not those of another one, each with what it was there, if it was there at all.

    Pages that nobody has made yet are the same in both, and are not made for this.
    """
    old = {slot.id: slot for slot in before.pages.slots}
    for slot in after.pages.slots:
        was = old.get(slot.id)
        if was is None:
            yield None, slot.page()
        elif not was.is_same(slot):
            yield was.page(), slot.page()


def changes_between(before: Lesson, after: Lesson) -> Changes:
    """Compares by identity, so unchanged pages and things cost next to nothing."""
    things: dict[str, frozenset[str]] = {}
    heads: set[str] = set()
    for was, page in changed_pages(before, after):
        if was is None:
            continue
        if was.things is not page.things:
            things[page.id] = changed_things(was, page)
        if page_head(was) != page_head(page):
            heads.add(page.id)
    listed = before.pages.ids != after.pages.ids
    listed = listed or before.title != after.title
    return Changes(things, frozenset(heads), listed, before.signs != after.signs)


def changed_things(before: Page, after: Page) -> frozenset[str]:
    """Ids of things that came, went, changed or lie at another depth among those that stayed."""
    old = {thing.id: thing for thing in before.things}
    new = {thing.id: thing for thing in after.things}
    changed = {id for id, thing in new.items() if old.get(id) is not thing}
    changed |= old.keys() - new.keys()
    stayed_before = [id for id in old if id in new]
    stayed_after = [id for id in new if id in old]
    if stayed_before != stayed_after:
        changed |= {a for a, b in zip(stayed_before, stayed_after, strict=True) if a != b}
    return frozenset(changed)
