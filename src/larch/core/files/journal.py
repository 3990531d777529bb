"""The journal: every committed edit on disk at once, and back again after a crash.

A journal is a folder. N is a number that grows each time it begins anew:

    N.larch         the lesson that it starts from; N.copy.larch the same again, unless the lesson's file is just that
    N.log           what it belongs to, then one edit a line (see `records`), each flushed; N.mirror the same, not flushed
    N.last          the number of the last line that was flushed, itself not flushed: what is missing behind it is missed
    lock, page      who has it open; which page is open

Lines of logs are numbered on through all N, and the N with the highest line counts, the newest of several. So it does no
harm whatever a new beginning left unfinished while the older went on; only what is whole and flushed takes the older one
away. Since base and log are there twice, any one file may be damaged. A folder that is taken away while it is in use is
made again, with all that the lesson holds by then.
"""

from __future__ import annotations

import contextlib
import queue
import re
import threading
import zlib
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import BinaryIO, NamedTuple

import msgspec
from msgspec import Raw, Struct

from larch.core.base.disk import Disk, DiskFile, NoOrdinaryFile, disk, is_part, keep_bytes
from larch.core.files.lesson_file import LessonFileError, Opened, read_lesson, write_lesson
from larch.core.files.records import NO_STAMP, About, Record, Stamp, body_of, line_of, lines_in, record_of, replayed
from larch.core.model.lesson import Lesson

RETRY_SECONDS = 1.0
SAVING_PATIENCE = 2.0  # seconds that a save waits for the journal
BREATH = 1.0  # seconds for which a start waits for the window to be painted, unless there is an edit to keep
END = 65536  # bytes of a file's end by which it is known again: the directory of a ZIP, with the CRC of all that is in it
LOG = re.compile(r"(\d+)\.(log|mirror)")
OWN = re.compile(r"(\d+)\.(log|mirror|last|larch|copy\.larch)")
LOOK_EVERY = 1.0  # seconds after which it is looked whether the folder is still there, if nothing is written


def stamp_of(path: Path) -> Stamp:
    """By what a file is known again; NO_STAMP if there is none. Raises OSError if it can't be read."""
    try:
        about = disk().stat(path)
        with disk().reader(path) as file:
            return (about.size, about.time, zlib.crc32(_end(file, about.size)))
    except FileNotFoundError:
        return NO_STAMP


def _end(file: BinaryIO, size: int) -> bytes:
    file.seek(max(0, size - END))
    return file.read(END)


class Log:
    """The files of one journal. For one thread at a time; all raises OSError and leaves what was there as it was."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self._log: DiskFile | None = None
        self._mirror: DiskFile | None = None
        self._last: DiskFile | None = None
        self._number = 0  # of the last line
        self._torn = False

    @property
    def begun(self) -> bool:
        return self._log is not None

    def begin(self, lesson: Lesson, about: About, since: Sequence[bytes] = ()) -> None:
        """Begins anew from a lesson, with the bodies of edits made since."""
        disk().make_folder(self.folder)
        new = max([0, *(number for number, _name in generations(self.folder))]) + 1
        base = self.folder / f"{new}.larch"
        write_lesson(lesson, base)
        if about.unsaved or not about.path or stamp_of(Path(about.path)) != about.stamp:
            keep_bytes(self.folder / f"{new}.copy.larch", disk().read(base))
        if not self.begun:
            self._number = max([0, *(max(records) for _n, records in logs(self.folder))])
        head = line_of(self._number, msgspec.json.encode(Record(about=about, since=[Raw(body) for body in since])))
        keep_bytes(self.folder / f"{new}.last", _counted(self._number))
        keep_bytes(self.folder / f"{new}.mirror", head)
        keep_bytes(self.folder / f"{new}.log", head)
        log = disk().append(self.folder / f"{new}.log")
        self.close()
        self._log, self._torn = log, False
        with contextlib.suppress(OSError):
            self._mirror = disk().append(self.folder / f"{new}.mirror")
            self._last = disk().append(self.folder / f"{new}.last")
        clear(self.folder, new)

    @property
    def gone(self) -> bool:
        """Whether somebody has taken its files away: what is written now would be found by nobody."""
        return self._log is not None and disk().is_removed(self._log)

    def append(self, body: bytes) -> None:
        """One more line; it is on disk when this returns. Raises Gone where the files have been taken away."""
        if self.gone:
            raise Gone(2, "the folder of the journal is gone", str(self.folder))
        log = self._log
        if log is None:
            raise OSError(2, "the journal has not begun")
        data = line_of(self._number + 1, body)
        start = log.seek(0, 2)
        try:
            _write(log, b"\n" + data if self._torn else data)
            log.sync()
        except OSError:
            self._torn = True
            with contextlib.suppress(OSError):
                log.truncate(start)  # no torn line may stand before the next attempt
                self._torn = False
            raise
        self._torn = False
        self._number += 1
        if self._mirror is not None:
            try:
                _write(self._mirror, data)
            except OSError:  # a line is missing in it, and counts as one more damage: no more than that
                with contextlib.suppress(OSError):
                    _write(self._mirror, b"\n")
        if self._last is not None:
            with contextlib.suppress(OSError):
                _write(self._last, _counted(self._number))

    def close(self) -> None:
        for file in (self._log, self._mirror, self._last):
            if file is not None:
                with contextlib.suppress(OSError):
                    file.close()
        self._log = self._mirror = self._last = None


def _counted(number: int) -> bytes:
    return b"%d\n" % number


class Gone(OSError):
    """Somebody has taken the journal's folder away while it is in use."""


def _write(file: DiskFile, data: bytes) -> None:
    written = 0
    while written < len(data):
        written += file.write(data[written:])


def generations(folder: Path) -> list[tuple[int, str]]:
    """The number and name of each file of a journal's folder; empty if there is no folder. Raises OSError: what can't be
    seen is not taken for nothing."""
    try:
        names = disk().names(folder)
    except FileNotFoundError:
        return []
    return [(int(match[1]), name) for name in names if (match := OWN.fullmatch(name))]


def clear(folder: Path, keep: int = -1) -> None:
    """Takes away what is left of journals other than `keep`. What can't be taken away does no harm."""
    at: Disk = disk()
    with contextlib.suppress(OSError):
        for name in at.names(folder):
            match = OWN.fullmatch(name)
            if is_part(name) or (match is not None and int(match[1]) != keep):
                at.remove(folder / name)


class Whole(NamedTuple):
    """All that a journal is to hold: the lesson as it is now, what it belongs to, and what is being typed."""

    lesson: Lesson
    about: About
    since: Sequence[bytes] = ()


class Journal:
    """Writes a session's edits to its folder from a thread of its own.

    trouble: called from that thread with the OSError when the disk refuses, and with None when it works again;
    nothing is dropped meanwhile: edits wait in memory and are written in order as soon as that is possible.
    whole: gives all that it is to hold, as `start` takes it, when its folder has been taken away; `trouble` is told with
    `Gone` when that is written again.
    """

    def __init__(self, folder: Path, trouble: Callable[[Exception | None], None] | None = None,
                 whole: Callable[[], Whole] | None = None) -> None:  # fmt: skip
        self.folder = folder
        self._whole = whole
        self.refused = False
        self._trouble = trouble
        self._queue: queue.Queue[Callable[[], None] | None] = queue.Queue()
        self._log = Log(folder)
        self._stopping = threading.Event()
        self._begin = threading.Event()
        self._thread = threading.Thread(target=self._work, name="larch journal", daemon=True)
        self._thread.start()

    def start(self, lesson: Lesson, path: Path | None, unsaved: int = 0, since: Sequence[bytes] = (),
              stamp: Stamp | None = None) -> None:  # fmt: skip
        """Begins anew from this lesson: as opened with some unsaved edits, or as just saved to `path`.

        since: edits after it, as of `body_of`. stamp: of the file as it was then, if that is known.
        """
        known = stamp if stamp is not None else stamp_of(path) if path else NO_STAMP
        about = About(str(path) if path else "", known, lesson.title, unsaved)

        def begin() -> None:
            if not self._log.begun:
                self._log.begin(lesson, about, since)
                return
            with contextlib.suppress(OSError):  # else the older one goes on: it has all of this too
                self._log.begin(lesson, about, since)

        self._queue.put(begin)

    def settle_in(self) -> None:
        """The window has been painted: what was held back for that may be written."""
        self._begin.set()

    def record(self, label: str, before: Lesson, after: Lesson) -> None:
        """Takes an edit; it is on disk a moment later. Raises UnicodeEncodeError."""
        self.take(body_of(record_of(label, before, after)))

    def take(self, body: bytes) -> None:
        self._begin.set()
        self._queue.put(lambda: self._log.append(body))

    def saving(self, stamp: Stamp, behind: bool = False) -> bool:
        """Notes what the lesson's file is about to become, so that it is known again if Larch ends before `start`. behind:
        edits have been made meanwhile."""
        self.take(msgspec.json.encode(Record(saving=stamp, behind=int(behind))))
        return self.flush(SAVING_PATIENCE)

    def flush(self, timeout: float = 10.0) -> bool:
        """Waits until all that was recorded is on disk; False if it could not be."""
        self._begin.set()
        done = threading.Event()
        self._queue.put(done.set)
        while timeout > 0 and self._thread.is_alive():
            if done.wait(min(timeout, 0.01)):
                return True
            timeout -= 0.01
        return done.is_set()

    def close(self) -> None:
        """Writes what is waiting, as far as the disk lets it, and stops."""
        self._begin.set()
        self._stopping.set()
        self._queue.put(None)
        self._thread.join(timeout=10.0)
        self._log.close()

    def _next(self) -> Callable[[], None] | None:
        """What is to be done next; while there is nothing, it is looked after the folder."""
        while True:
            try:
                return self._queue.get(timeout=LOOK_EVERY)
            except queue.Empty:
                if self._log.gone:
                    return self._write_anew

    def _write_anew(self) -> None:
        """All that there is, into a folder that somebody has taken away."""
        if self._whole is None:
            raise Gone(2, "the folder of the journal is gone", str(self.folder))
        whole = self._whole()
        self._log.close()
        self._log.begin(whole.lesson, whole.about, whole.since)
        if self._trouble is not None:
            self._trouble(Gone(2, "the folder of the journal was gone", str(self.folder)))

    def _work(self) -> None:
        self._begin.wait(BREATH)
        while (job := self._next()) is not None:
            while True:
                try:
                    try:
                        job()
                    except Gone:
                        if self._whole is None:
                            raise
                        self._write_anew()  # what the job was to write is in that
                except Exception as error:  # whatever it is, the thread must live on and the edit is not given up
                    if not self.refused and self._trouble is not None:
                        self._trouble(error)
                    self.refused = True
                    if self._stopping.wait(RETRY_SECONDS):
                        break
                else:
                    if self.refused and self._trouble is not None:
                        self._trouble(None)
                    self.refused = False
                    break


class Recovered(Struct, frozen=True):
    """What a journal's folder held: the lesson with all its edits, how many of them its file lacked when it began, what
    it belongs to, and what that file may look like with how many of them. lost: how many parts could not be read."""

    lesson: Lesson
    edits: int
    about: About
    stamps: dict[Stamp, int] = {}
    lost: int = 0


def recover(folder: Path) -> Recovered | None:
    """The lesson as it stood when the journal was last written, or None if there is none to be had. Raises OSError."""
    for number, records in logs(folder):
        first, last = min(records), max(records)
        head = records.pop(first)
        about = head.about or About()
        opened = _base(folder, number, about)
        if opened is None:
            continue
        lesson, stamps, edits, lost = opened.lesson, {about.stamp: 0}, about.unsaved, opened.lost
        if head.about is None:  # the head can't be read: this is an edit
            records[first] = head
            lost += 1
        since = [msgspec.json.decode(raw, type=Record) for raw in head.since]
        following = [*since, *(records.get(n) for n in range(first + (head.about is not None), last + 1))]
        for record in _without_old_drafts(following):
            if record is not None and record.saving is not None:
                stamps[record.saving] = edits - record.behind
                continue
            try:
                if record is None:
                    raise ValueError("a line of the journal is missing")
                lesson = replayed(lesson, record)
            except (ValueError, msgspec.MsgspecError):
                lost += 1
            else:
                edits += 1
        return Recovered(lesson, edits, about, stamps, lost + max(0, max(_counts(folder, number), default=0) - last))
    return _start_alone(folder)


def _start_alone(folder: Path) -> Recovered | None:
    """What a journal began from, where not a line of its logs can be read."""
    for number in sorted({number for number, _name in generations(folder)}, reverse=True):
        opened = _base(folder, number, About())
        if opened is not None:
            counts = _counts(folder, number)
            return Recovered(opened.lesson, 0, About(), {}, opened.lost + max(1, counts[-1] - counts[0] if counts else 1))
    return None


def _without_old_drafts(records: list[Record | None]) -> list[Record | None]:
    """Of what was being typed only the last state counts, and only if nothing was committed after it."""
    last = max((k for k, record in enumerate(records) if record is None or record.saving is None), default=-1)
    return [r for k, r in enumerate(records) if r is None or not r.draft or (k == last and r.pages)]


def logs(folder: Path) -> list[tuple[int, dict[int, Record]]]:
    """The beginnings in a journal's folder with their lines, that first which counts."""
    begun = {number for number, name in generations(folder) if LOG.fullmatch(name)}
    found = [(number, records) for number in begun if (records := _records(folder, number))]
    return sorted(found, key=lambda pair: (max(pair[1]), pair[0]), reverse=True)


def _counts(folder: Path, number: int) -> list[int]:
    """The numbers of the lines that a log had, as far as that is known."""
    try:
        lines = disk().read(folder / f"{number}.last").split(b"\n")[:-1]
        return sorted(int(line) for line in lines if line.isdigit() and len(line) < 12)
    except OSError:
        return []


def _records(folder: Path, number: int) -> dict[int, Record]:
    """Raises OSError if there is something, but none of it can be read."""
    found: dict[int, Record] = {}
    trouble: OSError | None = None
    for ending in ("mirror", "log"):
        try:
            found.update(lines_in(disk().read(folder / f"{number}.{ending}")))
        except (FileNotFoundError, IsADirectoryError, NoOrdinaryFile):  # not there, or not what stood there
            continue
        except OSError as error:
            trouble = error
    if not found and trouble is not None:
        raise trouble
    return found


def _base(folder: Path, number: int, about: About) -> Opened | None:
    """What a journal starts from: the first that is whole, else the one with the fewest losses."""
    places = [folder / f"{number}.larch", folder / f"{number}.copy.larch"]
    with contextlib.suppress(OSError):
        if about.path and not about.unsaved and stamp_of(Path(about.path)) == about.stamp != NO_STAMP:
            places.append(Path(about.path))
    best: Opened | None = None
    for place in places:
        try:
            opened = read_lesson(place)
        except LessonFileError:
            continue
        if best is None or opened.lost < best.lost:
            best = opened
        if not opened.lost:
            break
    return best


def about_of(folder: Path) -> About:
    """What a journal's folder says of itself."""
    for _number, records in logs(folder):
        return records[min(records)].about or About()
    return About()


def holds_work(folder: Path) -> bool:
    """Whether a journal has edits that are in no file."""
    for _number, records in logs(folder):
        kept = _without_old_drafts([records[number] for number in sorted(records)])
        return any(r.saving is None and (r.about is None or r.since or r.about.unsaved) for r in kept if r is not None)
    return False
