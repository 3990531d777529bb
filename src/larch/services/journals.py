"""The folders of journals: which process has which, and what becomes of those that fit nothing any more.

`file-…` belongs to a lesson's file, `new-…` to none, `demo` to the demo lesson. What no longer fits its file becomes
`aside-…`, a lesson of its own; a copy of what was damaged is put by as `damaged-…`. A note `file-….from` tells where the
edits of a file are that is just being saved in a new place.
"""

from __future__ import annotations

import contextlib
import os
import time
from pathlib import Path
from typing import NamedTuple

from larch.core.base.disk import disk, is_there, keep_bytes
from larch.core.base.words import _
from larch.core.files.journal import generations, holds_work, logs
from larch.services.places import journals_folder, spare_folders

DAMAGED = "damaged-"
ASIDE = "aside-"
FROM = ".from"  # ends the name of a note beside a file's journal: in which journal its edits are until its own has them
MOST_TRIES = 50


class Place(NamedTuple):
    """A journal's folder, and the lock by which this process has it."""

    folder: Path
    lock: int

    def leave(self) -> None:
        disk().unlock(self.lock)


def take(folder: Path, fresh: bool = False) -> Place | None:
    """Locks a journal's folder for this process; None if another has it. fresh: only if it wasn't there. Raises OSError."""
    disk().make_folder(folder, fresh)
    lock = disk().lock(folder / "lock")
    return None if lock is None else Place(folder, lock)


def _names(sort: str) -> list[str]:
    stem = f"{sort}{time.time_ns()}-{os.getpid()}"
    return [stem, *(f"{stem}-{number}" for number in range(1, MOST_TRIES))]  # a clock that stands still gives one name twice


def new_place() -> Place:
    """A folder that nothing else uses, in the first place that can be written. Raises OSError if there is none."""
    for parent in (journals_folder(), *spare_folders()):
        for name in _names("new-"):
            try:
                place = take(parent / name, fresh=True)
            except FileExistsError:
                continue
            except OSError:
                break
            if place is not None and (parent == journals_folder() or disk().is_private(parent)):
                return place
    raise OSError(30, _("no folder can be written"))


def as_own(place: Place) -> Place:
    """Makes a journal that no longer fits its file a lesson of its own. Raises OSError: nothing has changed then."""
    to = next(found for name in _names(ASIDE) if not is_there(found := place.folder.with_name(name)))
    disk().rename(place.folder, to)
    disk().flush_folder(to.parent)
    return Place(to, place.lock)


def put_aside(place: Place) -> Place:
    """The same, and a fresh folder where it was. Raises OSError."""
    as_own(place).leave()
    again = take(place.folder)
    return again if again is not None else new_place()


def with_evidence(place: Place) -> Place:
    """Copies what is damaged to where nothing writes. Returns the place to work in: another one if that can't be done."""
    try:
        to = next(found for name in _names(DAMAGED) if not is_there(found := place.folder.with_name(name)))
        disk().make_folder(to)
        for _number, name in generations(place.folder):
            keep_bytes(to / name, disk().read(place.folder / name))
    except OSError:
        place.leave()
        return new_place()
    return place


def note_origin(folder: Path, of: Path) -> None:
    """To be called before a file is written that `folder` will be the journal of, with the journal `of` what is written.
    Raises OSError."""
    keep_bytes(folder.with_name(folder.name + FROM), str(of).encode("utf-8", "surrogateescape"))


def origin(folder: Path) -> Path | None:
    """The journal that has what a file's own journal may lack, if Larch ended while the file was written."""
    try:
        noted = Path(disk().read(folder.with_name(folder.name + FROM)).decode("utf-8", "surrogateescape"))
    except OSError:
        return None
    return noted if noted in all_folders() else None


def forget_origin(folder: Path) -> None:
    with contextlib.suppress(OSError):
        disk().remove(folder.with_name(folder.name + FROM))


def all_folders() -> list[Path]:
    """Of journals that may hold work, wherever they are."""
    found = []
    for parent in (journals_folder(), *spare_folders()):
        with contextlib.suppress(OSError):
            if parent == journals_folder() or (is_there(parent) and disk().is_private(parent)):
                names = disk().names(parent)
                found += [parent / name for name in names if not name.startswith(DAMAGED) and not name.endswith(FROM)]
    return found


def is_empty(folder: Path) -> bool:
    """Whether a journal says itself that it holds nothing: one that can't be read may hold anything."""
    return not generations(folder) or (bool(logs(folder)) and not holds_work(folder))
