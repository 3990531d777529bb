"""A bounded pool of threads for work off the interface's thread. They end with the program and never hold it up."""

from __future__ import annotations

import queue
import threading
from collections.abc import Callable

from larch.services.log import report

MOST = 6  # threads; more work waits for one of them

_waiting: queue.SimpleQueue[Callable[[], None]] = queue.SimpleQueue()
_lock = threading.Lock()
_threads: list[threading.Thread] = []
_idle = 0


def run_in_pool(work: Callable[[], None]) -> None:
    """Has work done by a thread of the pool. What it raises is logged."""
    global _idle
    with _lock:
        _waiting.put(work)
        if _idle < _waiting.qsize() and len(_threads) < MOST:
            thread = threading.Thread(target=_serve, name=f"larch pool {len(_threads) + 1}", daemon=True)
            _threads.append(thread)
            thread.start()


def _serve() -> None:
    global _idle
    while True:
        with _lock:
            _idle += 1
        work = _waiting.get()
        with _lock:
            _idle -= 1
        try:
            work()
        except BaseException as error:  # the thread must live on
            report(error, "pool")
        del work  # while the thread waits, it must not keep alive what the work was about
