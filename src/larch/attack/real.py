"""A monkey at the real window on a real screen: the program as it is started by anyone, driven from outside by mouse and
keys of the X server. It must not end, and must go on answering."""

from __future__ import annotations

import contextlib
import os
import random
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from pathlib import Path
from typing import NamedTuple

from larch.attack.display import LEFT, RIGHT, WHEEL_DOWN, WHEEL_UP, Hand, screen
from larch.attack.started import BEAT
from larch.services.spent import Spent

SIZE = (1280, 800)
PAGES = 30  # of the demo
HANG = 20.0  # seconds of the program's own time without a heartbeat
PAUSE = 0.03  # seconds from step to step; a person's hand is slower, but then a machine has an hour, not a year
SETTLED = 150_000_000  # ns: a beat after this long was not begun before
FOLDERS = ("XDG_STATE_HOME", "XDG_DATA_HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME", "HOME")
KEYS = (
    "Escape", "Return", "Tab", "Shift_L+Tab", "Delete", "BackSpace", "Up", "Down", "Left", "Right", "Home", "End", "space",
    "F2", "F5", "F6", "Menu", "Prior", "Next", "Control_L+z", "Control_L+s", "Control_L+k", "Control_L+a", "Control_L+c",
    "Control_L+v", "Control_L+d", "Control_L+g", "Control_L+0", *"abcdefghijklmnoprstuvwxyz0123456789",
)  # fmt: skip
WORDS = ("3", "345", "lantern", "x", "12", "abc", "2x", "area")


class Went(NamedTuple):
    """steps; trouble: each time that it ended or hung, and where; memory: the most it took, MB."""

    steps: int
    trouble: tuple[str, ...] = ()
    memory: float = 0.0


class Monkey:
    """Works with a seed. What it does depends on nothing but the seed; what comes of it, on the program's pace too."""

    def __init__(self, hand: Hand, rnd: random.Random) -> None:
        self.hand, self.rnd = hand, rnd
        self.last = (SIZE[0] // 2, SIZE[1] // 2)
        self.steps: list[str] = []
        self._ways = (
            self.click, self.click, self.click, self.double, self.drag, self.drag, self.wheel, self.right, self.key,
            self.key, self.type,
        )  # fmt: skip

    def place(self) -> tuple[int, int]:
        """Anywhere; often near the place before, where a tag, a card or a menu may have opened."""
        if self.rnd.random() < 0.45:
            spread = self.rnd.choice((6, 40, 120))
            x, y = (v + self.rnd.randint(-spread, spread) for v in self.last)
        else:
            x, y = self.rnd.randrange(SIZE[0]), self.rnd.randrange(SIZE[1])
        self.last = (min(max(x, 0), SIZE[0] - 1), min(max(y, 34), SIZE[1] - 1))  # not on the frame: it closes
        return self.last

    def step(self) -> None:
        way = self.rnd.choice(self._ways)
        self.steps.append(f"{way.__name__} {way()}")

    def click(self) -> object:
        self.hand.click(*self.place(), LEFT)
        return self.last

    def double(self) -> object:
        self.hand.click(*self.place(), LEFT, 2)
        return self.last

    def right(self) -> object:
        self.hand.click(*self.place(), RIGHT)
        return self.last

    def wheel(self) -> object:
        self.hand.click(*self.place(), self.rnd.choice((WHEEL_UP, WHEEL_DOWN)), self.rnd.randint(1, 3))
        return self.last

    def drag(self) -> object:
        start = self.place()
        self.hand.drag(start, self.place())
        return start, self.last

    def key(self) -> str:
        name: str = self.rnd.choice(KEYS)
        self.hand.key(name)
        return name

    def type(self) -> str:
        words: str = self.rnd.choice(WORDS)
        self.hand.type(words)
        return words


class Program:
    """Larch with the demo lesson on a screen, in folders of its own."""

    def __init__(self, display: str, folder: Path, *given: str) -> None:
        self.folder = folder
        self.hand = Hand(display)
        self._beat = folder / "beat"
        self._errors = (folder / "errors").open("a+")
        environment = {**os.environ, "DISPLAY": display, "QT_QPA_PLATFORM": "xcb", "PYTHONFAULTHANDLER": "1",
                       "MALLOC_PERTURB_": "165", BEAT: str(self._beat), **dict.fromkeys(FOLDERS, str(folder))}  # fmt: skip
        self.process = subprocess.Popen(
            [sys.executable, "-m", "larch.attack.started", *(given or ("demo",))],
            stdout=self._errors, stderr=self._errors, env=environment, cwd=folder,
        )  # fmt: skip
        self._spent = Spent(self.process.pid)
        self._heard, self._at = 0, 0.0  # the newest beat, and the program's own time then

    def came_up(self) -> bool:
        return self.hand.wait_for("Larch", self.process)

    def has_answered(self, seconds: float = 90.0) -> bool:
        """Waits until what was sent so far has been handled, however slow the machine is; False if that takes too long."""
        sent, end = time.time_ns(), time.monotonic() + seconds
        while time.monotonic() < end and self.process.poll() is None:
            with contextlib.suppress(OSError):
                if self._beat.stat().st_mtime_ns > sent + SETTLED:
                    return True
            time.sleep(0.02)
        return False

    def memory(self) -> float:
        """Resident, in MB; 0 if it has ended."""
        try:
            words = Path(f"/proc/{self.process.pid}/statm").read_text().split()
            return int(words[1]) * os.sysconf("SC_PAGE_SIZE") / 1e6
        except (OSError, IndexError):
            return 0.0

    def trouble(self) -> str:
        """What happened, a crash or a hang, and where; "" while it lives, or if it was closed as one closes it."""
        code = self.process.poll()
        if code not in (None, 0):
            return f"crash ({code})\n{self.told()}"
        with contextlib.suppress(OSError):
            beat = self._beat.stat().st_mtime_ns
            if beat != self._heard:
                self._heard, self._at = beat, self._spent.look()
        if code is None and self._spent.look() - self._at > HANG:
            return f"hang\n{self.told()}"
        return ""

    def told(self) -> str:
        """What it printed, without what Qt says of missing sound and video."""
        self._errors.seek(0)
        lines = self._errors.read().splitlines()
        return "\n".join(line for line in lines if not line.startswith(("qt.", "Pulse", "QSound")))

    def close(self) -> None:
        self.process.kill()
        self.process.wait(20)
        self._errors.close()
        self.hand.close()


@contextlib.contextmanager
def running(display: str, *given: str) -> Iterator[Program]:
    """The program for as long as the block lasts; then it is killed."""
    with tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as folder:
        program = Program(display, Path(folder), *given)
        try:
            yield program
        finally:
            program.close()


def run(seed: int, steps: int, seconds: float = 1e9) -> Went:
    """So many steps or seconds. Where it was closed, or ended, it is started again."""
    rnd, end = random.Random(seed), time.monotonic() + seconds
    done, trouble, memory = 0, [], 0.0
    with screen(SIZE) as display:
        while done < steps and time.monotonic() < end:
            with running(display) as program:
                made, found = _played(program, rnd, steps - done, end)
                done += made
                memory = max(memory, program.memory())
                trouble += [f"seed {seed}: {found}"] if found else []
                if not made:
                    break
    return Went(done, tuple(trouble), memory)


def _played(program: Program, rnd: random.Random, steps: int, end: float) -> tuple[int, str]:
    """How many steps were made until it was closed or met trouble, and which."""
    if not program.came_up():
        return 0, f"crash: it did not come up\n{program.told()[-2000:]}"
    time.sleep(1.0)
    monkey = Monkey(program.hand, rnd)
    for _turn in range(rnd.randrange(PAGES)):
        program.hand.key("Next")
        time.sleep(0.05)
    for done in range(1, steps + 1):
        monkey.step()
        time.sleep(PAUSE)
        if trouble := program.trouble():
            return done, f"{trouble[-6000:]}\nafter: {' · '.join(monkey.steps[-14:])}"
        if program.process.poll() is not None or time.monotonic() >= end:
            return done, ""
    return steps, ""


if __name__ == "__main__":
    went = run(int(sys.argv[1]), int(sys.argv[2]))
    print(sys.argv[1], went.steps, round(went.memory), *went.trouble)
