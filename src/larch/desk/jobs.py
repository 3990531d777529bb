"""Work off the interface's thread: reading, writing, exporting, thumbnails."""

from __future__ import annotations

import threading
from collections.abc import Callable
from typing import Any

from PyQt6 import sip
from PyQt6.QtCore import QObject, pyqtSignal

from larch.core.base.foreseen import Foreseen
from larch.services.log import report
from larch.services.threads import run_in_pool

FORESEEN = (OSError, ValueError, Foreseen)  # a full disk, a file that is none: whoever asked says so


class Job(QObject):
    """One piece of work in a thread of the pool. Signals arrive on the interface's thread.

    What goes wrong unforeseen is logged, and said on the screen; so is what nobody answers (`answered`).
    """

    finished = pyqtSignal(object)
    failed = pyqtSignal(object)
    progressed = pyqtSignal(int, int)
    _ended = pyqtSignal()

    running: set[Job] = set()  # keeps a job alive while its thread is; emptied as they end

    def __init__(self, work: Callable[[Job], Any]) -> None:
        super().__init__()
        self._work = work
        self._cancelled = threading.Event()
        self.answered = False
        self._ended.connect(self._release)
        self._done = threading.Event()

    def start(self) -> Job:
        Job.running.add(self)
        run_in_pool(self._run)
        return self

    def cancel(self) -> None:
        self._cancelled.set()

    @property
    def cancelled(self) -> bool:
        return self._cancelled.is_set()

    def progress(self, done: int, count: int) -> bool:
        """Told by the work from its thread; False asks it to stop."""
        self.progressed.emit(done, count)
        return not self.cancelled

    def wait(self, seconds: float) -> bool:
        """Waits for the work to end, when the program ends; False if it is still under way."""
        return self._done.wait(seconds)

    def _run(self) -> None:
        try:
            result = self._work(self)
        except Exception as error:
            if not isinstance(error, FORESEEN) or not self.answered:
                report(error, "job")
            self.failed.emit(error)
        else:
            self.finished.emit(result)
        finally:
            self._done.set()
        self._ended.emit()

    def _release(self) -> None:
        Job.running.discard(self)


def in_background(
    owner: QObject,
    work: Callable[[Job], Any],
    done: Callable[[Any], None],
    failed: Callable[[Exception], None] | None = None,
) -> Job:
    """Starts work; `done` or `failed` is called on the interface's thread, unless `owner` is gone by then."""
    job = Job(work)
    job.finished.connect(_while_alive(owner, done))
    if failed is not None:
        job.answered = True
        job.failed.connect(_while_alive(owner, failed))
    return job.start()


def _while_alive(owner: QObject, call: Callable[[Any], None]) -> Callable[[Any], None]:
    def perhaps(result: Any) -> None:
        if not sip.isdeleted(owner):
            call(result)

    return perhaps
