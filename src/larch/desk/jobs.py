"""Work off the interface's thread: reading, writing, exporting, thumbnails."""

from __future__ import annotations

import threading
from collections.abc import Callable
from typing import Any

from PyQt6 import sip
from PyQt6.QtCore import QObject, pyqtSignal


class Job(QObject):
    """One piece of work in a thread of its own. Signals arrive on the interface's thread."""

    finished = pyqtSignal(object)
    failed = pyqtSignal(object)
    progressed = pyqtSignal(int, int)
    _ended = pyqtSignal()

    running: set[Job] = set()  # keeps a job alive while its thread is; emptied as they end

    def __init__(self, work: Callable[[Job], Any]) -> None:
        super().__init__()
        self._work = work
        self._cancelled = threading.Event()
        self._ended.connect(self._release)
        self._thread = threading.Thread(target=self._run, name="larch job", daemon=True)

    def start(self) -> Job:
        Job.running.add(self)
        self._thread.start()
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
        """Waits for the thread, when the program ends; False if it is still running."""
        self._thread.join(seconds)
        return not self._thread.is_alive()

    def _run(self) -> None:
        try:
            result = self._work(self)
        except Exception as error:
            self.failed.emit(error)
        else:
            self.finished.emit(result)
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
        job.failed.connect(_while_alive(owner, failed))
    return job.start()


def _while_alive(owner: QObject, call: Callable[[Any], None]) -> Callable[[Any], None]:
    def perhaps(result: Any) -> None:
        if not sip.isdeleted(owner):
            call(result)

    return perhaps
