"""What is known of any selection, whatever is in it: how it may be moved, where it leads, how many a supply gives."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from larch.core.actions.arrange.align import copies_in, read_copies
from larch.core.actions.arrange.arrange import taken_from
from larch.core.actions.arrange.holds import hold_fact
from larch.core.actions.links import link_of, page_link, read_link, said
from larch.core.base.words import _, many
from larch.core.model.fact import Fact, read_number
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.model.thing import Thing

MOST_GIVEN = 1000


def common_facts(lesson: Lesson, page: Page, things: Sequence[Thing]) -> Iterator[Fact]:
    if not things:
        return
    yield _copies(page, things)
    if len(things) > 1:
        return
    thing = things[0]
    yield hold_fact(thing)
    yield _link(lesson, thing)
    if thing.supply:
        yield _limit(page, thing)


def _copies(page: Page, things: Sequence[Thing]) -> Fact:
    def put(typed: str) -> Page:
        if not typed.strip():
            return page
        edit = copies_in(page, things, *read_copies(typed))
        assert isinstance(edit.after, Page)
        return edit.after

    return Fact("copies", "", text="", label=_("lay out"), set=put, hint=_("such as 4 x 3"), part="doing")


def _link(lesson: Lesson, thing: Thing) -> Fact:
    """Pages are given by their number, all else as it is written."""

    def put(typed: str) -> Thing:
        words = typed.strip().lower().removeprefix(_("page")).strip()
        link = page_link(lesson, int(words)) if words.isdecimal() and len(words) < 6 else read_link(typed)
        changed: Thing = thing.replace(link=link)
        return changed

    link = link_of(thing.link)
    text = said(thing.link)
    if link is not None and link.sort == "page":
        at = lesson.index(link.to)
        number = 0 if at is None else at + 1
        text = _("page {n}").format(n=number) if number else _("a page that is gone")
    return Fact("link", thing.link, text=text, label=_("leads to"), set=put, hint=_("such as page 3"), part="doing")


def _limit(page: Page, thing: Thing) -> Fact:
    def put(typed: str) -> Thing:
        if typed.strip().lower() in ("", "0", _("no end")):
            endless: Thing = thing.replace(limit=0)
            return endless
        count = read_number(typed.split()[0])
        if count != int(count) or not 1 <= count <= MOST_GIVEN:
            raise ValueError(_("A supply gives a whole number of things, up to {most}.").format(most=MOST_GIVEN))
        changed: Thing = thing.replace(limit=int(count))
        return changed

    left = max(0, thing.limit - taken_from(page, thing))
    text = many("1, {{left}} left", "{n}, {{left}} left", thing.limit).format(left=left) if thing.limit else _("no end")
    return Fact("limit", thing.limit, text=text, label=_("gives"), set=put, part="doing")
