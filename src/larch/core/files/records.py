"""What an edit changed, as a line of a journal, and the lesson after it again.

A line is `number length CRC-32 JSON`. Each stands alone, so that those after a damaged one are found again. Numbers go on
when a journal begins anew: its head has the number of the last edit that its start already holds.
"""

from __future__ import annotations

import re
import zlib

import msgspec
from msgspec import Raw, Struct

from larch.core.base.signs import Signs
from larch.core.files.codec import page_from_json, page_to_json, thing_from_json, thing_to_json
from larch.core.model.edit import changed_pages
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.model.page_list import PageList, Slot

Stamp = tuple[int, int, int]  # of a file: size, time in ns, CRC-32 of its end
NO_STAMP: Stamp = (0, 0, 0)
HEAD = re.compile(rb"(\d{1,12}) (\d{1,12}) ([0-9a-f]{8}) ")


class About(Struct, omit_defaults=True):
    """path: of the lesson's file, "" if it has none yet; stamp: what that file was when the journal began.

    unsaved: edits that the journal's lesson already has beyond its file.
    """

    path: str = ""
    stamp: Stamp = NO_STAMP
    title: str = ""
    unsaved: int = 0


class PageRecord(Struct, omit_defaults=True):
    """A page after an edit: its head (one or none) if it changed, things put and dropped, their order if it changed."""

    id: str
    head: list[Raw] = []
    next: int = 1
    draws: int = 0
    put: list[Raw] = []
    drop: list[str] = []
    order: list[str] | None = None


class Record(Struct, omit_defaults=True):
    """about, since: of a head, what it belongs to and edits that the start lacks. saving: what the lesson's file is about
    to become, with all edits before but for `behind` of them. draft: what is being typed and not committed yet; the next
    edit or draft takes its place."""

    about: About | None = None
    since: list[Raw] = []
    saving: Stamp | None = None
    behind: int = 0
    label: str = ""
    pages: list[PageRecord] = []
    order: list[str] | None = None
    title: str | None = None
    next: int = 1
    signs: Signs | None = None
    draft: bool = False


def record_of(label: str, before: Lesson, after: Lesson) -> Record:
    """What changed between two lessons that share what did not."""
    pages = [_page_record(was, page) for was, page in changed_pages(before, after)]
    order = list(after.pages.ids)
    same_order = before.pages.ids == after.pages.ids
    signs = after.signs if after.signs != before.signs else None
    title = after.title if after.title != before.title else None
    return Record(None, [], None, 0, label, pages, None if same_order else order, title, after.next, signs)


def _page_record(before: Page | None, after: Page) -> PageRecord:
    if before is None:
        things = [Raw(thing_to_json(thing)) for thing in after.things]
        return PageRecord(after.id, [Raw(page_to_json(after, things=False))], after.next, after.draws, things)
    old = {thing.id: thing for thing in before.things}
    put = [thing for thing in after.things if old.get(thing.id) is not thing]
    drop = list(old.keys() - {thing.id for thing in after.things})
    order = [thing.id for thing in after.things]
    expected = _expected_order([thing.id for thing in before.things], [thing.id for thing in put], set(drop))
    head = [] if _bare(before) == _bare(after) else [Raw(page_to_json(after, things=False))]
    puts = [Raw(thing_to_json(thing)) for thing in put]
    return PageRecord(after.id, head, after.next, after.draws, puts, drop, None if order == expected else order)


def _bare(page: Page) -> Page:
    """A page's head without the counters that almost every edit moves: remembered arrangements in it can be large."""
    return page.replace(things=(), next=1, draws=0)


def _expected_order(before: list[str], put: list[str], drop: set[str]) -> list[str]:
    stay = set(before)
    return [id for id in before if id not in drop] + [id for id in put if id not in stay]


def replayed(lesson: Lesson, record: Record) -> Lesson:
    """The lesson after a record. Raises ValueError (CodecError, MsgspecError) if it makes no sense."""
    slots = {slot.id: slot for slot in lesson.pages.slots}
    order = list(lesson.pages.ids) if record.order is None else record.order
    for change in record.pages:
        was = slots[change.id].page() if change.id in slots else None
        slots[change.id] = Slot(change.id, None, _replayed_page(was, change))
    title = lesson.title if record.title is None else record.title
    kept = PageList(slots[id] for id in order if id in slots)
    signs = lesson.signs if record.signs is None else record.signs
    return lesson.replace(pages=kept, title=title, next=record.next, signs=signs)


def _replayed_page(page: Page | None, change: PageRecord) -> Page:
    things = {thing.id: thing for thing in page.things} if page is not None else {}
    for raw in change.put:
        thing = thing_from_json(bytes(raw))
        things[thing.id] = thing
    for id in change.drop:
        things.pop(id, None)
    for head in change.head:
        page = page_from_json(bytes(head))
    if page is None:
        raise ValueError("a record speaks of a page that is not there")
    order = list(things) if change.order is None else [id for id in change.order if id in things]
    return page.replace(things=tuple(things[id] for id in order), next=change.next, draws=change.draws)


def body_of(record: Record) -> bytes:
    """Raises UnicodeEncodeError where a text can't be written."""
    return msgspec.json.encode(record)


def line_of(number: int, body: bytes) -> bytes:
    return b"%d %d %08x %s\n" % (number, len(body), _check(number, body), body)


def _check(number: int, body: bytes) -> int:
    return zlib.crc32(body, number & 0xFFFFFFFF)


def lines_in(data: bytes) -> dict[int, Record]:
    """All whole records by their numbers, also those behind what can't be read."""
    found: dict[int, Record] = {}
    at = 0
    while at < len(data):
        read = _line(data, at)
        if read is None:
            at = data.find(b"\n", at) + 1
            if at == 0:
                break
        else:
            number, found[number], at = read
    return found


def _line(data: bytes, at: int) -> tuple[int, Record, int] | None:
    head = HEAD.match(data, at)
    if head is None:
        return None
    number, size, check = int(head[1]), int(head[2]), int(head[3], 16)
    body = data[head.end() : head.end() + size]
    if len(body) != size or _check(number, body) != check:
        return None
    try:
        return number, msgspec.json.decode(body, type=Record), head.end() + size + 1
    except (ValueError, msgspec.MsgspecError, RecursionError):
        return None
