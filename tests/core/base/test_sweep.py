"""What was being made when a process was killed is removed when its file is written again, and nothing else is."""

from __future__ import annotations

import os
import subprocess
import sys
import time
from pathlib import Path

import pytest

from larch.core.base.disk import Disk, another, sweep
from larch.core.files.lesson_file import read_lesson, write_lesson
from larch.core.model.lesson import blank_lesson

DAYS = 86_400


def dead() -> int:
    """The number of a process that is no more."""
    process = subprocess.Popen([sys.executable, "-c", ""])
    process.wait()
    return process.pid


def left(folder: Path, name: str, days: float) -> Path:
    path = folder / name
    path.write_bytes(b"half")
    os.utime(path, (time.time() - days * DAYS,) * 2)
    return path


def test_parts_of_dead_processes_go_when_the_lesson_is_kept(tmp_path: Path) -> None:
    lesson = tmp_path / "river.larch"
    gone = dead()
    stale = left(tmp_path, f".river.larch.{gone}.0.part", 2)
    others = [
        left(tmp_path, f".river.larch.{gone}.1.part", 0.1),  # perhaps of another machine that shares the folder
        left(tmp_path, f".river.larch.{os.getpid()}.0.part", 9),
        left(tmp_path, f".boats.larch.{gone}.0.part", 9),
        left(tmp_path, ".river.larch.notes.0.part", 9),
        left(tmp_path, f".river.larch.{gone}.0.part.larch", 9),
        left(tmp_path, f"river.larch.{gone}.0.part", 9),
    ]
    write_lesson(blank_lesson(), lesson)
    assert not stale.exists() and all(path.exists() for path in others)
    assert read_lesson(lesson).lesson.pages


class Stubborn(Disk):
    """A folder that can't be listed, or whose files can't be removed."""

    def __init__(self, listing: bool) -> None:
        self.listing = listing

    def names(self, folder: Path) -> list[str]:
        if not self.listing:
            raise PermissionError(13, "no")
        return super().names(folder)

    def remove(self, path: Path) -> None:
        raise PermissionError(13, "no")


@pytest.mark.parametrize("listing", [False, True])
def test_what_can_not_be_removed_stays_and_hinders_nothing(tmp_path: Path, listing: bool) -> None:
    stale = left(tmp_path, f".river.larch.{dead()}.0.part", 2)
    with another(Stubborn(listing)):
        sweep(tmp_path / "river.larch")
    assert stale.exists()
    sweep(tmp_path / "nowhere" / "river.larch")
