"""Kills of the real window on a real screen, at random moments while it is worked at by mouse and keys.

What was left (Esc) half a second before, and what had been typed two seconds before, must be there when the lesson is opened
again, after every further kill too.
"""

from __future__ import annotations

import json
import os
import random
import signal
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import NamedTuple

from larch.attack.display import screen
from larch.attack.real import FOLDERS, SIZE, Program

LEFT_FOR, TYPED_FOR = 0.5, 2.0  # seconds after which it must be kept
LETTERS = "abcdefghijklmnopqrstuvwxyz"
FIRST, ACROSS = (260, 190), 3  # where the first word is written on the screen, and how many stand beside each other


class Kills(NamedTuple):
    """kills: how many; typing: how many of them while something was being typed; words: how many had to be there after
    them; lost: which were not."""

    kills: int
    typing: int
    words: int
    lost: list[str]


def word_of(number: int) -> str:
    """A word of its own for each number, of letters alone: "lantern" and the number in letters."""
    return "lantern" + "".join(LETTERS[int(digit)] for digit in str(number))


def found_in(path: str) -> None:
    """Prints all words of a lesson with what its journal holds beyond it, and what was lost of that."""
    from larch.services.workspace import open_file

    work = open_file(Path(path))
    texts = [getattr(thing, "text", "") for page in work.lesson.pages for thing in page.things]
    print(json.dumps([texts, work.notes]))
    work.close()


class Worker:
    """Writes one word after the other into a lesson, as a hand would; knows which of them must be there."""

    def __init__(self, rnd: random.Random, folder: Path) -> None:
        self.rnd, self.folder = rnd, folder
        self.path = folder / "river.larch"
        self.number = 0
        self.sure: set[str] = set()  # what must be found

    def work(self, program: Program, words: int) -> bool:
        """Writes some words; then the last is being typed. Returns whether it is still being typed when this ends."""
        hand = program.hand
        hand.key("Control_L+Shift_L+n")  # each start has a page of its own
        program.has_answered()
        for k in range(words):
            self.number += 1
            hand.key("Escape")
            hand.key("t")
            program.has_answered()
            hand.click(FIRST[0] + 260 * (k % ACROSS), FIRST[1] + 58 * (k // ACROSS))
            program.has_answered()
            hand.type(word_of(self.number))
            program.has_answered()
            if k == words - 1:
                return self._end(program)
            hand.key("Escape")
            if self.rnd.random() < 0.3:
                hand.key("Control_L+s")
            program.has_answered()
            time.sleep(LEFT_FOR)
            self.sure.add(word_of(self.number))
        return False

    def _end(self, program: Program) -> bool:
        """The last word: left, typed long ago, or just now."""
        how = self.rnd.choice(("left", "long ago", "long ago", "saved", "just now"))
        if how == "left":
            program.hand.key("Escape")
            program.has_answered()
            time.sleep(LEFT_FOR)
        elif how == "long ago":
            time.sleep(TYPED_FOR)
        elif how == "saved":
            program.hand.key("Control_L+s")
            program.has_answered()
            time.sleep(LEFT_FOR)
        else:
            time.sleep(self.rnd.random() * TYPED_FOR)
        if how != "just now":
            self.sure.add(word_of(self.number))
        return how not in ("left", "saved")

    def missing(self) -> list[str]:
        """Of what must be there, what a new start does not find."""
        environment = {**os.environ, **dict.fromkeys(FOLDERS, str(self.folder))}
        command = [sys.executable, "-m", "larch.attack.kills", str(self.path)]
        told = subprocess.run(command, capture_output=True, text=True, env=environment, check=False)
        try:
            texts, _notes = json.loads(told.stdout.splitlines()[-1])
        except (IndexError, ValueError):
            return [f"it can't be opened: {told.stderr[-600:]}"]
        return sorted(self.sure - set(texts))


def run(count: int, seed: int, seconds: float = 1e9) -> Kills:
    """Kills so many times, one window after the other on the same lesson, or for so long."""
    from larch.core.files.lesson_file import write_lesson
    from larch.core.model.lesson import blank_lesson

    rnd, end = random.Random(seed), time.monotonic() + seconds
    kills = typing = 0
    lost: list[str] = []
    with screen(SIZE) as display, tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as folder:
        worker = Worker(rnd, Path(folder))
        write_lesson(blank_lesson(), worker.path)
        while kills < count and time.monotonic() < end:
            program = Program(display, Path(folder), str(worker.path))
            try:
                if not program.came_up():
                    return Kills(kills, typing, len(worker.sure), [*lost, f"it did not come up: {program.told()[-800:]}"])
                program.has_answered()
                typing += worker.work(program, rnd.randint(1, 4))
                program.process.send_signal(signal.SIGKILL)
            finally:
                program.close()
            kills += 1
            if gone := worker.missing():
                lost.append(f"after kill {kills}: {', '.join(gone)}")
                worker.sure -= set(gone)
    return Kills(kills, typing, len(worker.sure), lost)


if __name__ == "__main__":
    found_in(sys.argv[1])
