"""What the worker is tried with: functions that answer, refuse, never end, or want too much."""

from __future__ import annotations

import time


def doubled(value: int) -> int:
    return 2 * value


def refused() -> None:
    raise LookupError("no such lantern")


def endless() -> None:
    while True:
        pass


def greedy() -> int:
    return len(bytes(8 * 2**30))


def slept(seconds: float) -> None:
    time.sleep(seconds)


def length(text: str) -> int:
    return len(text)
