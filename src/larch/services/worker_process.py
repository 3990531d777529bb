"""What runs in the worker's process: calls functions of Larch, one by one, within its bounds."""

from __future__ import annotations

import contextlib
import ctypes
import importlib
import os
import resource
import signal
import sys
from typing import IO, Any

import msgspec

from larch.services.worker import HEAD

DIES_WITH_PARENT = 1  # PR_SET_PDEATHSIG


def main(memory: int) -> None:
    """Reads requests from standard input and answers on standard output, until that ends."""
    with contextlib.suppress(OSError, AttributeError):
        ctypes.CDLL(None).prctl(DIES_WITH_PARENT, signal.SIGKILL)
    resource.setrlimit(resource.RLIMIT_AS, (memory * 2**20, memory * 2**20))
    source, answers = sys.stdin.buffer, os.fdopen(os.dup(1), "wb")
    os.dup2(2, 1)  # what a library prints must not stand among the answers
    while (head := source.read(HEAD.size)) and len(head) == HEAD.size:
        call, given = msgspec.msgpack.decode(_exactly(source, HEAD.unpack(head)[0]))
        body = msgspec.msgpack.encode(_called(call, given))
        answers.write(HEAD.pack(len(body)) + body)
        answers.flush()


def _exactly(source: IO[bytes], count: int) -> bytes:
    body = source.read(count)
    if len(body) < count:
        raise SystemExit(0)
    return body


def _called(call: str, given: list[Any]) -> tuple[str, Any]:
    """The name of what was raised and its words, or "" and the result."""
    module, _colon, name = call.partition(":")
    try:
        if not module.startswith("larch."):
            raise ValueError("only functions of Larch are called")
        return "", getattr(importlib.import_module(module), name)(*given)
    except MemoryError:
        os._exit(3)  # the process may be of no more use
    except RecursionError:
        return "RecursionError", "It is nested too deeply."
    except Exception as error:
        return type(error).__name__, str(error)


if __name__ == "__main__":
    main(int(sys.argv[1]))
