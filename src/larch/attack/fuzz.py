"""The fuzzer: a child process that tries input after input, and a parent that keeps what made it crash, hang or stumble."""

from __future__ import annotations

import contextlib
import faulthandler
import json
import os
import random
import subprocess
import sys
import tempfile
import time
import traceback
from collections.abc import Iterator
from pathlib import Path
from typing import Any, NamedTuple

from larch.services.spent import Spent

SECONDS = 2.0  # an input may take
PATIENCE = 30.0  # of its own time, after which a child is taken for hung
ENDINGS = {"svg": "svg", "html": "html", "expression": "txt", "ink": "json", "page": "json"}
ENOUGH = 8  # children that ended badly, after which it is given up
MEMORY = 3000  # MB that a child may have


class Found(NamedTuple):
    """What an input did: "crash", "hang", "slow" or the name of what was raised; and more about it."""

    what: str
    data: bytes
    about: str = ""


class Report(NamedTuple):
    tries: int
    found: list[Found]


def inputs(kind: str, seed: int) -> Iterator[bytes]:
    """Without end; the same for the same seed."""
    from larch.attack.grammar import GRAMMARS, page

    rnd = random.Random(f"{kind} {seed}")
    pages: list[Any] = []
    if kind == "page":
        from larch.core.files.codec import page_to_json
        from larch.demo import demo_lesson

        pages = [json.loads(page_to_json(one)) for one in demo_lesson().pages]
    while True:
        made = page(rnd, pages) if kind == "page" else GRAMMARS[kind](rnd)
        yield made if isinstance(made, bytes) else made.encode("utf-8", "surrogatepass")


def try_one(kind: str, data: bytes) -> Found | None:
    """In this process."""
    from larch.attack.targets import TARGETS

    began = time.process_time()  # of its own: a slow machine is no slow input
    try:
        TARGETS[kind](data)
    except Exception as error:
        return Found(type(error).__name__, data, traceback.format_exc(limit=-6))
    taken = time.process_time() - began
    return Found("slow", data, f"{taken:.1f} s") if taken > SECONDS else None


def child(kind: str, seed: int, count: int, place: str) -> None:
    """Tries inputs; says on standard output what each of the others did. The one it is at lies in the file `place`."""
    import resource

    faulthandler.enable()
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY * 2**20, MEMORY * 2**20))
    from larch.desk.app import application

    app = application()
    assert app is not None  # it lives as long as this process
    for number, data in enumerate(inputs(kind, seed)):
        if number == count:
            break
        Path(place).write_bytes(data)
        found = try_one(kind, data)
        if found is not None:
            print(json.dumps([number, found.what, found.about]), flush=True)
        if number % 50 == 49:
            print(json.dumps([number + 1, "", ""]), flush=True)


def run(kind: str, seed: int, count: int, seconds: float = 1e9) -> Report:
    """Tries `count` inputs of a kind in a child process, or for so long; after a crash or a hang, a new one goes on with
    another seed."""
    tries, found = 0, []
    end = time.monotonic() + seconds
    with tempfile.TemporaryDirectory() as folder:
        place = Path(folder) / "at"
        while tries < count:
            said, errors, ended = _watched(kind, seed, count - tries, place, end)
            at = max((number for number, _what, _about in said), default=0)
            found += [Found(what, _nth(kind, seed, number), about) for number, what, about in said if what]
            if ended == "":
                return Report(count, found)
            if ended == "late":
                return Report(tries + at, found)
            found.append(Found(ended, place.read_bytes() if place.exists() else b"", errors[-1500:]))
            tries, seed = tries + at + 1, seed + 100_003
            if sum(one.what in ("crash", "hang") for one in found) >= ENOUGH:  # it may not even start
                break
    return Report(tries, found)


def _watched(kind: str, seed: int, count: int, place: Path, end: float) -> tuple[list[tuple[int, str, str]], str, str]:
    """What a child said, what it printed as errors, and how it ended: "" if well, "late" if the time was up."""
    folder = place.parent
    environment = {**os.environ, "QT_QPA_PLATFORM": "offscreen", "XDG_STATE_HOME": str(folder), "XDG_DATA_HOME": str(folder)}
    command = [sys.executable, "-m", "larch.attack.fuzz", kind, str(seed), str(count), str(place)]
    hung = late = False
    with (folder / "said").open("w+") as said, (folder / "errors").open("w+") as errors:
        with subprocess.Popen(command, stdout=said, stderr=errors, env=environment) as process:
            spent, moved, at = Spent(process.pid), 0, 0.0
            while process.poll() is None:
                now = place.stat().st_mtime_ns if place.exists() else 0
                if now != moved:
                    moved, at = now, spent.look()
                hung, late = spent.look() - at > PATIENCE, time.monotonic() > end
                if hung or late:
                    process.kill()
                with contextlib.suppress(subprocess.TimeoutExpired):
                    process.wait(0.1)
        said.seek(0)
        errors.seek(0)
        lines = [json.loads(line) for line in said if line.endswith("\n")]
        ended = "hang" if hung else "late" if late else "crash" if process.returncode else ""
        return [(n, what, about) for n, what, about in lines], errors.read(), ended


def _nth(kind: str, seed: int, number: int) -> bytes:
    for k, data in enumerate(inputs(kind, seed)):
        if k == number:
            return data
    return b""


def smaller(kind: str, found: Found, seconds: float = 20.0) -> bytes:
    """An input that does the same and is as short as could be found in some seconds; for what this process outlives."""
    data, size = found.data, max(1, len(found.data) // 2)
    end = time.monotonic() + seconds
    while size >= 1 and time.monotonic() < end:
        at, shorter = 0, False
        while at < len(data) and time.monotonic() < end:
            part = data[:at] + data[at + size :]
            again = try_one(kind, part)
            if again is not None and again.what == found.what:
                data, shorter = part, True
            else:
                at += size
        size = size if shorter and size > 1 else size // 2
    return data


if __name__ == "__main__":
    child(sys.argv[1], int(sys.argv[2]), int(sys.argv[3]), sys.argv[4])
