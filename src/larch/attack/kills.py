"""Kills of the real window at random moments: whatever it had said was on disk is there when it starts again."""

from __future__ import annotations

import contextlib
import os
import random
import signal
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import NamedTuple


class Kills(NamedTuple):
    kills: int
    edits: int
    lost: list[str]


def worker(path: str) -> None:
    """Opens the lesson in a window, says which edits it finds, and edits and saves until it is killed."""
    from larch.core.things.words.text import Text
    from larch.desk.app import application, work_to_open
    from larch.desk.window import Window

    app = application()
    window = Window(work_to_open(Path(path) if Path(path).exists() else None, demo=False))
    window.show()
    window.canvas.still = True
    app.processEvents()
    words = {thing.text for page in window.session.lesson.pages for thing in page.things if isinstance(thing, Text)}
    numbers = sorted(int(word) for word in words if word.isdecimal())
    print("found", *numbers, flush=True)
    number = max(numbers, default=0)
    while True:
        number += 1
        page = window.canvas.page
        from larch.core.model.action import put

        window.canvas.commit(put(page, [Text(text=str(number))], "write"))
        if number % 40 == 0:  # pages stay small
            window.pages.new()
        if number % 3 == 0 and window.files.journal.flush():
            print("kept", number, flush=True)
        if number % 17 == 0:
            window.files.save_to(Path(path))
        app.processEvents()


def run(count: int, seed: int, seconds: float = 1e9) -> Kills:
    """Kills so many times, one window after the other on the same lesson, or for so long."""
    rnd = random.Random(seed)
    kept, lost, kills = 0, [], 0
    end = time.monotonic() + seconds
    with tempfile.TemporaryDirectory() as folder:
        path = str(Path(folder) / "river.larch")
        names = ("XDG_STATE_HOME", "XDG_DATA_HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME")
        environment = {**os.environ, "QT_QPA_PLATFORM": "offscreen", **dict.fromkeys(names, folder)}
        while kills < count and time.monotonic() < end:
            command = [sys.executable, "-m", "larch.attack.kills", path]
            lines = _until_killed(command, environment, rnd.choice((0.05, 0.4, 0.9, 1.6)) + rnd.random() * 0.6)
            kills += 1
            for line in lines:
                word, *numbers = line.split()
                if word == "found" and line.endswith("\n"):
                    missing = set(range(1, kept + 1)) - set(map(int, numbers))
                    if missing:
                        lost.append(f"after kill {kills}: {len(missing)} of {kept}, from {min(missing)}")
                        kept = min(missing) - 1
                elif word == "kept" and line.endswith("\n"):
                    kept = max(kept, int(numbers[0]))
    return Kills(kills, kept, lost)


def _until_killed(command: list[str], environment: dict[str, str], seconds: float) -> list[str]:
    """What a window said before it was killed, so many seconds after its start."""
    with tempfile.TemporaryFile("w+") as said:
        with subprocess.Popen(command, stdout=said, stderr=subprocess.DEVNULL, env=environment) as process:
            with contextlib.suppress(subprocess.TimeoutExpired):
                process.wait(seconds)
            process.send_signal(signal.SIGKILL)
        said.seek(0)
        return said.readlines()


if __name__ == "__main__":
    worker(sys.argv[1])
