"""The journal: every committed edit on disk at once, and back again after a crash.

A journal is a folder:

    lesson.larch   the lesson that the log starts from
    log            one record a line: length, CRC-32 and JSON; a torn last line is left out
    about.json     which file it belongs to

A record holds what an edit changed, found by comparing the values before and after by identity.
"""

from __future__ import annotations

import os
import queue
import threading
import zlib
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import msgspec
from msgspec import Raw, Struct

from larch.core.files.codec import page_from_json, page_to_json, thing_from_json, thing_to_json
from larch.core.files.lesson_file import LessonFileError, read_lesson, write_lesson
from larch.core.model.edit import changed_pages
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.model.page_list import PageList, Slot

RETRY_SECONDS = 1.0
BREATH = 1.0  # seconds for which a start waits for the window to be painted, unless there is an edit to keep


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
    label: str = ""
    pages: list[PageRecord] = []
    order: list[str] | None = None
    title: str | None = None
    next: int = 1


class About(Struct, omit_defaults=True):
    """path: of the lesson's file, "" if it has none yet; stamp: size and time of it as the journal knows it.

    unsaved: edits that the journal's lesson already has beyond its file.
    """

    path: str = ""
    stamp: tuple[int, int] = (0, 0)
    title: str = ""
    unsaved: int = 0


def record_of(label: str, before: Lesson, after: Lesson) -> Record:
    """What changed between two lessons that share what did not."""
    pages = [_page_record(was, page) for was, page in changed_pages(before, after)]
    order = list(after.pages.ids)
    same_order = before.pages.ids == after.pages.ids
    title = after.title if after.title != before.title else None
    return Record(label, pages, None if same_order else order, title, after.next)


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
    return lesson.replace(pages=kept, title=title, next=record.next)


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


def packed(record: Record) -> bytes:
    body = msgspec.json.encode(record)
    return b"%d %08x %s\n" % (len(body), zlib.crc32(body), body)


def unpacked(data: bytes) -> Iterator[Record]:
    """The whole records from the start; stops at the first torn or damaged one."""
    at = 0
    while at < len(data):
        try:
            head_end = data.index(b" ", data.index(b" ", at) + 1)
            length, check = data[at:head_end].split(b" ")
            body = data[head_end + 1 : head_end + 1 + int(length)]
            if len(body) != int(length) or zlib.crc32(body) != int(check, 16):
                return
            yield msgspec.json.decode(body, type=Record)
            at = head_end + 2 + int(length)
        except (ValueError, msgspec.MsgspecError):
            return


def stamp_of(path: Path) -> tuple[int, int]:
    try:
        about = path.stat()
    except OSError:
        return (0, 0)
    return (about.st_size, about.st_mtime_ns)


class Journal:
    """Writes a session's edits to its folder from a thread of its own.

    trouble: called from that thread with the OSError when the disk refuses, and with None when it works again;
    nothing is dropped meanwhile: records wait in memory and are written in order as soon as that is possible.
    """

    def __init__(self, folder: Path, trouble: Callable[[OSError | None], None] | None = None) -> None:
        self.folder = folder
        self._trouble = trouble
        self._queue: queue.Queue[Callable[[], None] | None] = queue.Queue()
        self._log: int | None = None
        self._stopping = threading.Event()
        self._begin = threading.Event()
        self._thread = threading.Thread(target=self._work, name="larch journal", daemon=True)
        self._thread.start()

    def start(self, lesson: Lesson, path: Path | None, unsaved: int = 0) -> None:
        """Begins anew from this lesson: as opened with some unsaved edits, or as just saved to `path`."""
        about = About(str(path) if path else "", stamp_of(path) if path else (0, 0), lesson.title, unsaved)
        self._queue.put(lambda: self._restart(lesson, about))

    def settle_in(self) -> None:
        """The window has been painted: what was held back for that may be written."""
        self._begin.set()

    def record(self, label: str, before: Lesson, after: Lesson) -> None:
        """Takes an edit; it is on disk a moment later."""
        data = packed(record_of(label, before, after))
        self._begin.set()
        self._queue.put(lambda: self._append(data))

    def flush(self, timeout: float = 10.0) -> bool:
        """Waits until all that was recorded is on disk; False if it could not be."""
        self._begin.set()
        done = threading.Event()
        self._queue.put(done.set)
        return done.wait(timeout)

    def close(self) -> None:
        """Writes what is waiting, as far as the disk lets it, and stops."""
        self._begin.set()
        self._stopping.set()
        self._queue.put(None)
        self._thread.join(timeout=10.0)
        if self._log is not None:
            os.close(self._log)
            self._log = None

    def _restart(self, lesson: Lesson, about: About) -> None:
        """The new start is complete before the old log goes: a crash in between replays nothing twice."""
        self.folder.mkdir(parents=True, exist_ok=True)
        fresh = self.folder / "next.larch"
        write_lesson(lesson, fresh)
        if self._log is not None:
            os.close(self._log)
            self._log = None
        (self.folder / "about.json.part").write_bytes(msgspec.json.encode(about))
        # Records repeat whole things, so an old log replayed onto the new start would undo it: drop the log first.
        # Killed between these steps, `recover` finds next.larch and prefers it.
        (self.folder / "log").unlink(missing_ok=True)
        os.replace(fresh, self.folder / "lesson.larch")
        os.replace(self.folder / "about.json.part", self.folder / "about.json")
        self._log = self._open_log()

    def _open_log(self) -> int:
        return os.open(self.folder / "log", os.O_WRONLY | os.O_CREAT | os.O_APPEND, 0o600)

    def _append(self, data: bytes) -> None:
        if self._log is None:
            self._log = self._open_log()
        start = os.fstat(self._log).st_size
        try:
            written = 0
            while written < len(data):
                written += os.write(self._log, data[written:])
            os.fsync(self._log)
        except OSError:
            os.ftruncate(self._log, start)  # no torn record may stand before the next attempt
            raise

    def _work(self) -> None:
        self._begin.wait(BREATH)
        while (job := self._queue.get()) is not None:
            refused = False
            while True:
                try:
                    job()
                    break
                except OSError as error:
                    if not refused and self._trouble is not None:
                        self._trouble(error)
                    refused = True
                    if self._stopping.wait(RETRY_SECONDS):
                        break
            if refused and not self._stopping.is_set() and self._trouble is not None:
                self._trouble(None)


class Recovered(Struct, frozen=True):
    """What a journal's folder held: the lesson with all its edits, how many there were, and its file."""

    lesson: Lesson
    edits: int
    about: About


def recover(folder: Path) -> Recovered | None:
    """The lesson as it stood when the journal was last written, or None if there is none to be had."""
    start = folder / "lesson.larch"
    fresh = folder / "next.larch"
    if fresh.exists() and (not start.exists() or not (folder / "log").exists()):
        try:
            about = _about(folder, fresh=True)
            return Recovered(read_lesson(fresh).lesson, about.unsaved, about)
        except LessonFileError:
            pass
    try:
        lesson = read_lesson(start).lesson
    except LessonFileError:
        return None
    about = _about(folder)
    edits = about.unsaved
    try:
        log = (folder / "log").read_bytes()
    except OSError:
        log = b""
    for record in unpacked(log):
        try:
            lesson = replayed(lesson, record)
        except (ValueError, msgspec.MsgspecError):
            break
        edits += 1
    return Recovered(lesson, edits, about)


def _about(folder: Path, fresh: bool = False) -> About:
    names = ("about.json", "about.json.part")
    for name in reversed(names) if fresh else names:
        try:
            data: Any = (folder / name).read_bytes()
            return msgspec.json.decode(data, type=About)
        except (OSError, msgspec.MsgspecError):
            continue
    return About()


def about_of(folder: Path) -> About:
    """What a journal's folder says of itself."""
    return _about(folder, fresh=(folder / "next.larch").exists())


def holds_work(folder: Path) -> bool:
    """Whether a journal has edits that are in no file."""
    try:
        if (folder / "log").stat().st_size > 0:
            return True
    except OSError:
        pass
    return about_of(folder).unsaved > 0
