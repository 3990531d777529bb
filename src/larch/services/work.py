"""A lesson that is being worked at: its journal, and saving it."""

from __future__ import annotations

import contextlib
import threading
from collections.abc import Callable
from pathlib import Path
from typing import NamedTuple

from larch.core.base.disk import Stat, disk, is_there, keep_bytes, usual_mode
from larch.core.base.words import _, many
from larch.core.files.journal import Journal, Whole, stamp_of
from larch.core.files.lesson_file import Picture, write_lesson
from larch.core.files.records import NO_STAMP, About, Stamp, body_of, record_of
from larch.core.media.store import store
from larch.core.model.lesson import Lesson
from larch.services.journals import Place, forget_origin, is_empty, note_origin, put_aside, take
from larch.services.places import journal_for

MOVING_PATIENCE = 10.0  # seconds that a save in another place waits for the new journal
BEGINNING = "beginning"  # there while what has been opened is not yet shown
PAGE = "page"  # in a journal's folder: the id of the page that is open
Trouble = Callable[[Exception | None], None]


class Saved(NamedTuple):
    """Where a lesson has been saved, and sentences about it."""

    path: Path
    notes: list[str]


class OpenLesson:
    """A lesson opened for work.

    path: its file, or None before it has one; stamp: what that file was when it was last read or written here.
    brought_back: edits found in the journal that the file lacks. notes: sentences to tell the person about the opening.
    lacks: some of what is in the file could not be read. careful: it was not shown when it was last opened; Larch ended.
    page: the id of the page that was open, "" if not known. lesson: as opened; `latest` is as it is now.
    """

    def __init__(self, lesson: Lesson, path: Path | None, place: Place) -> None:
        self.lesson = lesson
        self.latest = lesson
        self.path = path
        self.place = place
        self.stamp: Stamp = NO_STAMP
        self.brought_back = 0
        self.notes: list[str] = []
        self.lacks = False
        self.careful = _is_there(place.folder / BEGINNING)
        self.page = _page_left(place.folder)
        self._journal: Journal | None = None
        self._next: Journal | None = None  # of the file that it is being saved as, while that is not sure yet
        self._trouble: Trouble | None = None
        self._unsaved = 0  # edits that the file lacks
        self._page_open = ""
        self._draft: bytes | None = None  # what is being typed, as the journals know it
        self._order = threading.Lock()  # edits reach the journals in the order in which they are made

    @property
    def folder(self) -> Path:
        return self.place.folder

    @property
    def journal(self) -> Journal:
        assert self._journal is not None
        return self._journal

    def page_to_open(self) -> str:
        """The page that was open when unsaved work was left; else the first."""
        ids = self.lesson.pages.ids
        return self.page if self.brought_back and self.page in ids else ids[0]

    def note_page(self, id: str) -> None:
        """Remembers which page is open, for when the work is taken up again. Not worth a word if it can't be."""
        self._page_open = id
        with contextlib.suppress(OSError, UnicodeEncodeError):
            (self.folder / PAGE).write_text(id)

    def begin(self, trouble: Trouble | None = None, lesson: Lesson | None = None) -> Journal:
        """Starts the journal from the lesson as it was opened. trouble: see `Journal`. lesson: the same as it is worked at,
        settled."""
        self._trouble = trouble
        with contextlib.suppress(OSError):
            (self.folder / BEGINNING).write_bytes(b"")
        self._journal = Journal(self.folder, trouble, self._whole)
        self.latest, self._unsaved = lesson or self.lesson, self.brought_back
        self._journal.start(self.lesson, self._journal_path(), self.brought_back, stamp=self.stamp)
        return self._journal

    def shown(self) -> None:
        """It has been painted, and Larch is still there."""
        with contextlib.suppress(OSError):
            (self.folder / BEGINNING).unlink(missing_ok=True)

    def _whole(self) -> Whole:
        """All that a journal is to hold whose folder was taken away, in a folder that is this process's again. Raises
        OSError."""
        disk().make_folder(self.folder)
        lock = disk().lock(self.folder / "lock")
        if lock is None:
            raise OSError(11, _("another window has taken its place"), str(self.folder))
        disk().unlock(self.place.lock)
        self.place = Place(self.folder, lock)
        store.write_again()
        with self._order:
            lesson, unsaved, draft = self.latest, self._unsaved, self._draft
        self.note_page(self._page_open)
        path = self._journal_path()
        about = About(str(path) if path else "", self.stamp if path else NO_STAMP, lesson.title, unsaved)
        return Whole(lesson, about, [] if draft is None else [draft])

    def _journal_path(self) -> Path | None:
        """The file that the journal names as its own: none, if another window's journal is that of the file."""
        return self.path if self.path is not None and self.folder == journal_for(self.path) else None

    def record(self, label: str, before: Lesson, after: Lesson) -> None:
        """Takes an edit. Raises UnicodeEncodeError, and has not taken it, where a text can't be written."""
        body = body_of(record_of(label, before, after))
        with self._order:
            self.latest, self._draft, self._unsaved = after, None, self._unsaved + 1
            self._take(body)

    def draft(self, before: Lesson, after: Lesson) -> None:
        """Takes what would be committed if typing ended now; `after` is `before` if that is nothing. Raises
        UnicodeEncodeError."""
        record = record_of("", before, after)
        record.draft = True
        body = body_of(record)
        with self._order:
            if body != self._draft and (record.pages or self._draft is not None):
                self._draft = body
                self._take(body)

    def _take(self, body: bytes) -> None:
        self.journal.take(body)
        if self._next is not None:
            self._next.take(body)

    def save(self, lesson: Lesson, path: Path, picture: Picture | None = None) -> Saved:
        """Writes the lesson, as it was at some moment, to a file; what was done since stays in the journal. To be called
        off the interface's thread. Raises OSError: nothing has changed then.

        Someone else's work is not written over: if the lesson's own file is not what it was, it is saved beside it.
        """
        notes = []
        own = self.path is not None and path.resolve() == self.path.resolve()
        if own and is_there(path) and self.stamp not in (NO_STAMP, stamp_of(path)):
            path, own = _beside(path), False
            text = _("Someone else has saved this lesson meanwhile. Yours is now {name}; both are kept.")
            notes.append(text.format(name=path.name))
        if own and self.lacks and is_there(path):
            kept = _beside(path)
            keep_bytes(kept, disk().read(path), usual_mode(path))
            notes.append(_("The file as it was, with what could not be read, is kept as {name}.").format(name=kept.name))
        stamp = NO_STAMP

        def before(made: Stat, part: Path) -> None:
            nonlocal stamp
            stamp = stamp_of(part)
            self.journal.saving(stamp, behind=self.latest is not lesson)
            if not own:
                with contextlib.suppress(OSError):
                    note_origin(journal_for(path), self.folder)

        missing = write_lesson(lesson, path, picture, before)
        if missing:
            notes.append(many("1 picture is nowhere to be found and is not in the file.",
                              "{n} pictures are nowhere to be found and are not in the file.", len(missing)))  # fmt: skip
        self.stamp, self.lacks, self._unsaved = stamp, False, int(self.latest is not lesson)
        if own:
            with self._order:
                self.journal.start(lesson, self._journal_path(), 0, self._since(lesson), stamp)
        else:
            self._move(lesson, path, stamp)
            self.path = path
        return Saved(path, notes)

    def _since(self, lesson: Lesson) -> list[bytes]:
        edits = [body_of(record_of("", lesson, self.latest))] if self.latest is not lesson else []
        return edits if self._draft is None else [*edits, self._draft]

    def _move(self, lesson: Lesson, path: Path, stamp: Stamp) -> None:
        """From now on the journal is that of the new file, so that opening the file finds it. The old one goes when the new
        one has all that it has; if that can't be, the old one stays."""
        place = _claimed(path)
        if place is None or place.folder == self.folder:
            return
        new = Journal(place.folder, self._trouble, self._whole)
        with self._order:
            new.start(lesson, path, 0, self._since(lesson), stamp)
            self._next = new
        kept = new.flush(MOVING_PATIENCE)
        with self._order:
            self._next = None
            if kept:
                old, self._journal = self.journal, new
        if not kept:
            new.close()
            place.leave()
            return
        old.close()
        forget_origin(place.folder)
        left, self.place = self.place, place
        with contextlib.suppress(OSError):
            disk().remove_folder(left.folder)
        left.leave()

    def close(self) -> None:
        """Ends the work. What is not in a file stays in the journal."""
        self.shown()
        if self._journal is not None:
            self._journal.close()
        self.place.leave()


def _page_left(folder: Path) -> str:
    """The page that was open when the work of a folder was left; "" if that is not known."""
    try:
        return (folder / PAGE).read_text()[:60]
    except (OSError, UnicodeDecodeError):
        return ""


def _is_there(path: Path) -> bool:
    try:
        return path.exists()
    except OSError:
        return False


def _beside(path: Path) -> Path:
    number = 2
    while is_there(found := path.with_name(f"{path.stem} {number}{path.suffix}")):
        number += 1
    return found


def _claimed(path: Path) -> Place | None:
    """The journal that belongs to a file just written; None if another window is using it. Work that it holds, on what was
    there before, becomes a lesson of its own."""
    try:
        place = take(journal_for(path))
        return put_aside(place) if place is not None and not is_empty(place.folder) else place
    except OSError:
        return None
