"""Opening lessons so that nothing is lost: which journal belongs to what, and what it brings back."""

from __future__ import annotations

import contextlib
import os
from collections.abc import Callable
from pathlib import Path

from larch.core.base.disk import disk, is_there
from larch.core.base.words import _, many
from larch.core.files.journal import Recovered, about_of, generations, holds_work, logs, recover, stamp_of
from larch.core.files.lesson_file import LessonFileError, Opened, read_lesson
from larch.core.files.records import Stamp
from larch.core.model.lesson import Lesson
from larch.services.journals import Place, all_folders, as_own, is_empty, new_place, origin, put_aside, take, with_evidence
from larch.services.places import journal_for, journals_folder
from larch.services.work import OpenLesson


def fresh_seed() -> int:
    """Where the chance of a new page starts: from the system, since two lessons should not roll alike."""
    return int.from_bytes(os.urandom(4), "big")


def _brought_back(edits: int) -> list[str]:
    if not edits:
        return []
    return [many("Brought back 1 change that was not saved.", "Brought back {n} changes that were not saved.", edits)]


def _lost(found: Recovered) -> list[str]:
    if not found.lost:
        return []
    return [many("What Larch had kept was damaged: 1 part could not be read. A copy of what is damaged is kept.",
                 "What Larch had kept was damaged: {n} parts could not be read. A copy of what is damaged is kept.",
                 found.lost)]  # fmt: skip


def _elsewhere(folder: Path) -> list[str]:
    if folder.parent == journals_folder():
        return []
    text = _("Larch's folder can't be written; what you do is kept in {folder} and found there next time.")
    return [text.format(folder=folder.parent)]


def _taken(folder: Path) -> Place | None:
    """The folder, or another where it can't be written; None if another window has it. Raises OSError if there is none."""
    try:
        return take(folder)
    except OSError:
        return new_place()


def open_file(path: Path) -> OpenLesson:
    """Opens a lesson's file with whatever its journal holds beyond it. Raises LessonFileError, OSError."""
    place = _taken(journal_for(path))
    if place is None:
        stamp = stamp_of(path)
        opened = read_lesson(path)
        work = OpenLesson(opened.lesson, path, new_place())
        work.stamp = stamp
        work.notes = [_("This lesson is open in another window too; who saves later saves beside it."), *opened.losses]
        return work
    try:
        work = _open_with(path, place)
    except BaseException:
        place.leave()
        raise
    work.notes += _elsewhere(work.folder)
    return work


def _open_with(path: Path, place: Place) -> OpenLesson:
    stamp = stamp_of(path)
    failed: LessonFileError | None = None
    opened = Opened(Lesson())
    try:
        opened = read_lesson(path)
    except LessonFileError as error:
        failed = error
    worked = holds_work(place.folder)
    found = recover(place.folder) if worked or failed is not None or opened.lost else None
    if failed is not None:
        if found is None or not is_there(path):
            raise failed
        work = OpenLesson(found.lesson, None, as_own(place))
        work.brought_back = max(1, found.edits)
        work.notes = [str(failed), _("This is what Larch had kept of it; save it under a new name."), *_lost(found)]
        return work
    work = OpenLesson(opened.lesson, path, place)
    work.stamp = stamp
    work.notes = list(opened.losses)
    work.lacks = opened.lost > 0
    later = _made_while_saving(place.folder, stamp)
    if found is None:
        if worked or (generations(place.folder) and not logs(place.folder)):
            work.place = with_evidence(place)
            work.notes.append(_("What Larch had kept beside it can't be read; a copy of what is damaged is kept."))
        if later is not None:
            work.lesson, work.brought_back = later.lesson, later.edits - later.stamps[stamp]
            work.notes += [*_brought_back(work.brought_back), *_lost(later)]
        return work
    edits = found.edits - found.stamps.get(stamp, 0)
    if stamp in found.stamps and (edits or found.lost < opened.lost):
        work.lesson, work.brought_back = found.lesson, max(edits, 1 if opened.lost else 0)
        work.lacks = found.lost > 0
        work.notes = [*_brought_back(edits), *_lost(found)]
        if found.lost:
            work.place = with_evidence(place)
    elif found.edits and stamp not in found.stamps:
        work.place = put_aside(place)
        work.notes.append(_("The file was changed elsewhere; your unsaved work on it was kept as a lesson of its own."))
    return work


def _made_while_saving(folder: Path, stamp: Stamp) -> Recovered | None:
    """What another journal has beyond a file that was written from it, where Larch ended before the file's own had it."""
    other = origin(folder)
    if other is None:
        return None
    with contextlib.suppress(OSError):
        place = take(other)
        if place is not None:
            try:
                found = recover(other)
            finally:
                place.leave()
            if found is not None and found.edits > found.stamps.get(stamp, found.edits):
                return found
    return None


def open_new(lesson: Lesson) -> OpenLesson:
    """Opens a lesson that has no file yet. Raises OSError if no folder anywhere can be written."""
    work = OpenLesson(lesson, None, new_place())
    work.notes = _elsewhere(work.folder)
    return work


def open_demo(fresh: Callable[[], Lesson], anew: bool = False) -> OpenLesson:
    """The demo lesson with the work done on it last time; `anew` puts that aside as an unsaved lesson."""
    place = _taken(journals_folder() / "demo")
    if place is None or place.folder.name != "demo":
        if place is not None:
            place.leave()
        return open_new(fresh())
    worked = holds_work(place.folder)
    found = recover(place.folder) if worked and not anew else None
    if worked and anew:
        place = put_aside(place)
    elif (found is not None and found.lost) or (found is None and not is_empty(place.folder)):
        place = with_evidence(place)
    work = OpenLesson(fresh() if found is None else found.lesson, None, place)
    if found is not None:
        work.brought_back = found.edits
        work.notes = [*_brought_back(found.edits), *_lost(found)]
    return work


def unsaved_folders() -> list[Path]:
    """Journals that hold work which is in no file and that nobody has open, newest first."""
    found = []
    for folder in all_folders():
        with contextlib.suppress(OSError):
            place = take(folder)
            if place is None:
                continue
            damaged = folder.name.startswith("new-") and bool(generations(folder)) and not logs(folder)
            if holds_work(folder) or damaged:
                found.append(folder)
            elif folder.name.startswith("new-") and is_empty(folder):
                disk().remove_folder(folder)
            place.leave()
    return sorted(found, key=last_worked_at, reverse=True)


def last_worked_at(folder: Path) -> float:
    """When a journal was last written to, in seconds since 1970."""
    times = [0]
    for _number, name in generations(folder):
        with contextlib.suppress(OSError):
            times.append(disk().stat(folder / name).time)
    return max(times) / 1e9


def open_unsaved(folder: Path) -> OpenLesson | None:
    """Opens what a journal holds as it was left, with its file if it has one; None if it can't be had."""
    path = Path(about_of(folder).path)
    try:
        if path.name and is_there(path) and journal_for(path) == folder:
            return open_file(path)
        place = take(folder)
    except (LessonFileError, OSError):
        return None
    if place is None:
        return None
    found = recover(folder)
    if found is None:
        place.leave()
        return None
    work = OpenLesson(found.lesson, None, with_evidence(place) if found.lost else place)
    work.brought_back = max(1, found.edits)
    work.notes = [*_brought_back(found.edits), *_lost(found)]
    return work
