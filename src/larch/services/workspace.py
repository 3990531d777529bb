"""Opening lessons so that nothing is lost: which journal belongs to what, and who is using it now."""

from __future__ import annotations

import contextlib
import fcntl
import os
import shutil
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from larch.core.base.words import _, many
from larch.core.files.journal import Journal, Recovered, about_of, holds_work, recover, stamp_of
from larch.core.files.lesson_file import read_lesson
from larch.core.model.lesson import Lesson
from larch.services.places import journal_for, journals_folder

PAGE = "page"  # in a journal's folder: the id of the page that is open


class OpenLesson:
    """A lesson opened for work.

    path: its file, or None before it has one. brought_back: edits found in the journal that the file lacks.
    notes: sentences to tell the person about the opening. page: the id of the page that was open, "" if not known.
    """

    def __init__(self, lesson: Lesson, path: Path | None, folder: Path, lock: int) -> None:
        self.lesson = lesson
        self.path = path
        self.folder = folder
        self.lock = lock
        self.brought_back = 0
        self.notes: list[str] = []
        self.page = _page_left(folder)

    def note_page(self, id: str) -> None:
        """Remembers which page is open, for when the work is taken up again. Not worth a word if it can't be."""
        with contextlib.suppress(OSError):
            (self.folder / PAGE).write_text(id)

    def journal(self, trouble: Callable[[OSError | None], None]) -> Journal:
        """Starts the journal from the lesson as it is now."""
        journal = Journal(self.folder, trouble)
        journal.start(self.lesson, self.journal_path(), self.brought_back)
        return journal

    def journal_path(self) -> Path | None:
        """The file that the journal names as its own: none, if another window's journal is that of the file."""
        return self.path if self.path is not None and self.folder == journal_for(self.path) else None

    def release(self) -> None:
        os.close(self.lock)

    def discard(self) -> None:
        """Gives up the journal's folder: what it held is in a file now."""
        shutil.rmtree(self.folder, ignore_errors=True)
        os.close(self.lock)


def _page_left(folder: Path) -> str:
    """The page that was open when the work of a folder was left; "" if that is not known."""
    try:
        return (folder / PAGE).read_text()[:60]
    except (OSError, UnicodeDecodeError):
        return ""


def fresh_seed() -> int:
    """Where the chance of a new page starts: from the system, since two lessons should not roll alike."""
    return int.from_bytes(os.urandom(4), "big")


def _take(folder: Path) -> int | None:
    """Locks a journal's folder for this process; None if another has it or it can't be written."""
    try:
        folder.mkdir(parents=True, exist_ok=True)
        lock = os.open(folder / "lock", os.O_RDWR | os.O_CREAT, 0o600)
    except OSError:
        return None
    try:
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        os.close(lock)
        return None
    return lock


def _new_folder() -> tuple[Path, int]:
    name = f"new-{time.time_ns()}-{os.getpid()}"
    for place in (journals_folder(), Path(tempfile.gettempdir()) / f"larch-{os.getuid()}"):
        lock = _take(place / name)
        if lock is not None:
            return place / name, lock
    raise OSError("no folder can be written")


def open_file(path: Path) -> OpenLesson:
    """Opens a lesson's file with whatever its journal holds beyond it. Raises LessonFileError."""
    opened = read_lesson(path)
    folder = journal_for(path)
    lock = _take(folder)
    if lock is None:
        work = open_new(opened.lesson)
        work.path = path
        work.notes = work.notes or [_("This lesson is open in another window too; save under another name to keep both.")]
        return work
    work = OpenLesson(opened.lesson, path, folder, lock)
    work.notes = list(opened.losses)
    found = recover(folder) if holds_work(folder) else None  # else the file alone is read
    if found is not None and found.edits:
        if found.about.stamp == stamp_of(path):
            work.lesson, work.brought_back = found.lesson, found.edits
            work.notes.append(_brought_back(found.edits))
        else:
            _keep_aside(folder, found)
            work.notes.append(_("The file was changed elsewhere; your unsaved work on it was kept as a lesson of its own."))
    return work


def _brought_back(edits: int) -> str:
    return many("Brought back 1 change that was not saved.", "Brought back {n} changes that were not saved.", edits)


def _keep_aside(folder: Path, found: Recovered) -> None:
    """Turns a journal that no longer fits its file into an unsaved lesson of its own."""
    aside, lock = _new_folder()
    try:
        journal = Journal(aside)
        journal.start(found.lesson, None, found.edits)
        journal.flush()
        journal.close()
    finally:
        os.close(lock)
    for name in ("log", "lesson.larch", "about.json", "next.larch"):
        (folder / name).unlink(missing_ok=True)


def claim_journal(path: Path) -> tuple[Path, int] | None:
    """The journal that belongs to a file just written; None if another window is using it."""
    folder = journal_for(path)
    lock = _take(folder)
    return None if lock is None else (folder, lock)


def open_new(lesson: Lesson) -> OpenLesson:
    """Opens a lesson that has no file yet."""
    folder, lock = _new_folder()
    work = OpenLesson(lesson, None, folder, lock)
    if folder.parent != journals_folder():
        text = _("Larch's folder can't be written; changes are kept in {folder} and may be lost when this machine restarts.")
        work.notes = [text.format(folder=folder)]
    return work


def open_demo(fresh: Callable[[], Lesson], anew: bool = False) -> OpenLesson:
    """The demo lesson with the work done on it last time; `anew` puts that aside as an unsaved lesson."""
    folder = journals_folder() / "demo"
    lock = _take(folder)
    if lock is None:
        return open_new(fresh())
    found = recover(folder) if holds_work(folder) else None
    work = OpenLesson(fresh(), None, folder, lock)
    if found is not None and anew:
        _keep_aside(folder, found)
    elif found is not None:
        work.lesson, work.brought_back = found.lesson, found.edits
        work.notes = [_brought_back(found.edits)]
    return work


def unsaved_folders() -> list[Path]:
    """Journals that hold work which is in no file and that nobody has open, newest first."""
    found = []
    for folder in journals_folder().glob("*"):
        lock = _take(folder)
        if lock is None:
            continue
        if holds_work(folder):
            found.append(folder)
        elif folder.name.startswith("new-"):
            shutil.rmtree(folder, ignore_errors=True)
        os.close(lock)
    return sorted(found, key=_last_written, reverse=True)


def _last_written(folder: Path) -> int:
    return max((path.stat().st_mtime_ns for path in folder.iterdir() if path.name not in ("lock", PAGE)), default=0)


def last_worked_at(folder: Path) -> float:
    """When a journal was last written to, in seconds since 1970."""
    return _last_written(folder) / 1e9


def open_unsaved(folder: Path) -> OpenLesson | None:
    """Opens what a journal holds as it was left, with its file if it has one; None if it can't be had."""
    about = about_of(folder)
    if about.path and Path(about.path).is_file():
        return open_file(Path(about.path))
    found = recover(folder)
    if found is None:
        return None
    lock = _take(folder)
    if lock is None:
        return None
    work = OpenLesson(found.lesson, None, folder, lock)
    work.brought_back = found.edits
    work.notes = [_brought_back(found.edits)] if found.edits else []
    return work
