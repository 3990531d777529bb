"""What a teacher keeps on the shelf for other lessons: small lessons of one page in an open folder."""

from __future__ import annotations

import re
from collections.abc import Sequence
from functools import lru_cache
from pathlib import Path

from larch.core.actions.arrange.arrange import taken_along
from larch.core.base.words import N_, _
from larch.core.files.lesson_file import LessonFileError, read_lesson, write_lesson
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing
from larch.services.places import kept_folder

MOST = 400
WHOLE = "whole"  # marks a kept page among kept things


def keep(page: Page, things: Sequence[Thing], name: str, whole: bool = False) -> Path:
    """Writes some things, or a whole page with its paper, as a file of its own. Raises OSError.

    A name that is taken already gets a number.
    """
    folder = kept_folder()
    folder.mkdir(parents=True, exist_ok=True)
    stem = " ".join(re.sub(r"[^\w \-().,]+", " ", name).split())[:60] or _("kept")
    path = folder / f"{stem}.larch"
    number = 2
    while path.exists():
        path = folder / f"{stem} {number}.larch"
        number += 1
    alone = (
        page if whole else Page(id="", unit=page.unit, scale=page.scale, things=tuple(taken_along(things)), next=page.next)
    )
    extra = ((WHOLE, b"true"),) if whole else ()
    write_lesson(Lesson(title=name.strip()[:200], extra=extra).insert(alone), path)
    return path


def items() -> list[ShelfItem]:
    """The entries, the newest first. Files that can't be read are passed over."""
    try:
        paths = [path for path in kept_folder().glob("*.larch") if not path.name.startswith(".")]
        stamped = sorted(((path.stat().st_mtime_ns, path) for path in paths), reverse=True)
    except OSError:
        return []
    found = [_item(path, stamp) for stamp, path in stamped[:MOST]]
    return [item for item in found if item is not None]


@lru_cache(MOST)
def _item(path: Path, stamp: int) -> ShelfItem | None:
    try:
        lesson = read_lesson(path).lesson
    except LessonFileError:
        return None
    things = lesson.pages[0].things
    if not things:
        return None
    sort = "page" if dict(lesson.extra).get(WHOLE) == b"true" else "kept"
    return ShelfItem(f"{sort} {path.stem}", path.stem, N_("Kept"), lambda: things[0], _("own mine"), lambda: things)


def page_of(item: ShelfItem) -> Page | None:
    """The page that an entry of the shelf stands for; None for entries that are things."""
    if item.tray != "Kept" or not item.name.startswith("page "):
        return None
    try:
        return read_lesson(kept_folder() / f"{item.label}.larch").lesson.pages[0]
    except LessonFileError:
        return None


def forget(name: str) -> bool:
    """Takes an entry off the shelf, into a folder beside it from where it can be brought back by hand."""
    path = kept_folder() / f"{name}.larch"
    gone = kept_folder() / "taken off"
    try:
        gone.mkdir(exist_ok=True)
        path.rename(gone / path.name)
    except OSError:
        return False
    return True
