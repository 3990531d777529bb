"""One monkey in a process of its own, which says how it went."""

from __future__ import annotations

import contextlib
import faulthandler
import gc
import json
import os
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import NamedTuple

from larch.services.spent import Spent

LESSON = 400  # steps after which another lesson is opened: nothing of the one before may stay in memory
PATIENCE = 180.0  # seconds in which nothing has moved: it hangs, on however slow a machine


class Went(NamedTuple):
    """steps; trouble: what was raised, or "crash" or "hang" with where, "" if nothing; grown: memory at the end to that
    half way, None if it did not get so far."""

    steps: int
    trouble: str = ""
    grown: float | None = None


def _memory() -> float:
    gc.collect()
    with open("/proc/self/statm") as file:
        return float(file.read().split()[1])


def work(seed: int, steps: int, seconds: float) -> None:
    faulthandler.enable()
    faulthandler.dump_traceback_later(PATIENCE, exit=True)
    from larch.attack.monkey import Monkey, Stumble
    from larch.attack.watching import Watching
    from larch.core.model import guarded
    from larch.desk.app import application, work_to_open
    from larch.desk.quiet import Quiet
    from larch.desk.window import Window

    guarded.strict = True
    app = Watching(sys.argv[:1])
    application()
    window = Window(work_to_open(None, demo=True))
    window.canvas.still = True
    window.show()
    Quiet(window)
    app.processEvents()
    app.processEvents()
    monkey = Monkey(window, seed)
    done, early, trouble = 0, 0.0, ""
    end = time.monotonic() + seconds
    while done < steps and not trouble and time.monotonic() < end:
        faulthandler.dump_traceback_later(PATIENCE, exit=True)
        part = min(50, steps - done)
        try:
            monkey.run(part)
        except Stumble as error:
            trouble = str(error)
        trouble = trouble or "".join(app.faults[:1])
        done += part
        if done % LESSON == 0:
            window.files.demo_afresh()
            app.processEvents()
        if not early and done >= steps / 2:
            early = _memory()
        app.processEvents()
    print(json.dumps([len(monkey.steps), trouble, _memory() / early if early and done >= steps else None]), flush=True)
    os._exit(0)


def run(seed: int, steps: int, seconds: float = 1e9) -> Went:
    """So many steps, or for so long."""
    with tempfile.TemporaryDirectory() as folder:
        names = ("XDG_STATE_HOME", "XDG_DATA_HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME", "HOME")
        environment = {**os.environ, "QT_QPA_PLATFORM": "offscreen", **dict.fromkeys(names, folder)}
        command = [sys.executable, "-m", "larch.attack.monkeys", str(seed), str(steps), str(seconds)]
        with (Path(folder) / "said").open("w+") as said, (Path(folder) / "errors").open("w+") as errors:
            # files, not pipes: something that it started and that outlives it would keep a pipe open for ever
            with subprocess.Popen(command, stdout=said, stderr=errors, env=environment) as process:
                spent, far = Spent(process.pid), PATIENCE + 0.4 * steps
                while process.poll() is None:
                    if spent.look() > far:
                        process.kill()
                    with contextlib.suppress(subprocess.TimeoutExpired):
                        process.wait(0.1)
            said.seek(0)
            errors.seek(0)
            lines, trouble = said.read().strip().splitlines(), errors.read()
    try:
        return Went(*json.loads(lines[-1]))
    except (IndexError, ValueError):
        what = "hang" if "Timeout (" in trouble or process.returncode == -9 else "crash"
        trouble = "\n".join(line for line in trouble.splitlines() if "This plugin" not in line)
        at = max(trouble.find("Fatal Python error"), 0)
        where = trouble.find("Current thread", at) if what == "crash" else trouble.rfind("most recent call first")
        return Went(0, f"{what}\n{trouble[at : at + 200]}\n{trouble[max(at, where) :][:3000]}")


if __name__ == "__main__":
    work(int(sys.argv[1]), int(sys.argv[2]), float(sys.argv[3]))
