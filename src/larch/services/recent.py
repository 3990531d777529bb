"""Lessons opened lately, newest first, in the state folder."""

from __future__ import annotations

from pathlib import Path

import msgspec

from larch.services.places import state_folder

MOST = 12


def recent_lessons() -> list[Path]:
    """Those that still exist."""
    try:
        names = msgspec.json.decode((state_folder() / "recent.json").read_bytes(), type=list[str])
    except (OSError, msgspec.MsgspecError):
        return []
    return [Path(name) for name in names if Path(name).is_file()]


def remember_lesson(path: Path) -> None:
    """Puts a file at the head of the list. A list that can't be kept is not worth stopping for."""
    listed = [path.resolve(), *(old for old in recent_lessons() if old != path.resolve())]
    try:
        state_folder().mkdir(parents=True, exist_ok=True)
        fresh = state_folder() / "recent.json.part"
        fresh.write_bytes(msgspec.json.encode([str(name) for name in listed[:MOST]]))
        fresh.replace(state_folder() / "recent.json")
    except OSError:
        pass
