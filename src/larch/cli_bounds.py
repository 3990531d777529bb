"""What holds for every headless command: an answer is JSON or one sentence, in bounded time, whatever comes in."""

from __future__ import annotations

import contextlib
import json
import signal
import sys
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from larch.refused import Refused

SECONDS = 2.0  # of processor time, for what only looks at something


class _TimeIsUp(BaseException):
    """No Exception, so that nothing on the way takes it for a mistake of its own."""


@contextlib.contextmanager
def bounded(sentence: str, seconds: float = SECONDS) -> Iterator[None]:
    """Ends what takes more of the processor's time. Raises Refused with the sentence."""
    began = time.process_time()

    def up(_signal: int, _frame: object) -> None:
        raise _TimeIsUp

    before = signal.signal(signal.SIGPROF, up)
    signal.setitimer(signal.ITIMER_PROF, seconds, 1.0)  # again: the first may come where nothing can be raised
    try:
        yield
    except (_TimeIsUp, MemoryError) as error:
        raise Refused(sentence) from error
    finally:
        signal.setitimer(signal.ITIMER_PROF, 0)
        signal.signal(signal.SIGPROF, before)
    if time.process_time() - began > seconds + 0.5:  # it was swallowed on the way
        raise Refused(sentence)


def contents(path: Path, most: int) -> bytes:
    """All of an ordinary file of so many bytes at most. Raises Refused."""
    from larch.core.base.disk import read_bounded

    try:
        return read_bounded(path, most)
    except OSError as error:
        raise Refused(f"{path} can't be read: {error.strerror}.") from error


def in_json(value: Any, indent: int | None = None) -> str:
    """As JSON that can be printed: half characters, and what the terminal has no letters for, are escaped."""
    text = json.dumps(value, ensure_ascii=False, indent=indent)
    try:
        text.encode(sys.stdout.encoding or "utf-8")
    except UnicodeEncodeError:
        return json.dumps(value, indent=indent)
    return text


def printable(text: str) -> str:
    """What can't be printed is shown as its number."""
    coding = sys.stdout.encoding or "utf-8"
    return text.encode(coding, "backslashreplace").decode(coding)


def unforeseen(error: Exception) -> str:
    """One sentence about a mistake of ours; where it is stands in the log."""
    from larch.services.log import report

    if isinstance(error, RecursionError):
        return "It is nested too deeply."
    if isinstance(error, UnicodeError):
        return "There is half a character in it."
    report(error, "headless")
    return f"This could not be worked out ({type(error).__name__})."
