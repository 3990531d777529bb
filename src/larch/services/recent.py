"""Lessons opened lately, newest first, in the state folder."""

from __future__ import annotations

from pathlib import Path

import msgspec

from larch.core.base.disk import disk, keep_bytes
from larch.services.places import state_folder

MOST = 12


def recent_lessons() -> list[Path]:
    """Those that still exist."""
    try:
        names = msgspec.json.decode(disk().read(state_folder() / "recent.json"), type=list[str])
    except (OSError, msgspec.MsgspecError):
        return []
    return [Path(name) for name in names if Path(name).is_file()]


def remember_lesson(path: Path) -> None:
    """Puts a file at the head of the list. A list that can't be kept is not worth stopping for."""
    listed = [path.resolve(), *(old for old in recent_lessons() if old != path.resolve())]
    try:
        disk().make_folder(state_folder())
        keep_bytes(state_folder() / "recent.json", msgspec.json.encode([str(name) for name in listed[:MOST]]), sure=False)
    except (OSError, UnicodeEncodeError):
        pass
