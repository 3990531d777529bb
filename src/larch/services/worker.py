"""One process of its own for what may run away or needs a heavy package: algebra, recognition, foreign files.

It is started when first needed, bounded in memory, and each request in time of its own (see `spent`): on a busy machine it
may take as much longer as the machine is busy. When it dies, is stopped by somebody or has to be killed, another is started.
Requests wait in a queue; of those with the same key only the newest counts.
"""

from __future__ import annotations

import contextlib
import os
import select
import struct
import subprocess
import sys
import threading
import time
from collections import deque
from collections.abc import Callable
from typing import IO, Any

import msgspec

from larch.services.log import report
from larch.services.spent import Spent

MEMORY = 1500  # MB that it may take
PATIENCE = 0.25  # seconds after which a request is not waited for any more that a newer one has replaced
CLOSING = 2.0  # seconds that closing waits for the thread at most
HEAD = struct.Struct(">I")
LARGEST = 200 * 2**20  # bytes of one message
LOOK = 0.05  # seconds from look to look at how it is getting on
PIECE = 65536  # bytes that a pipe takes at once


class WorkerError(Exception):
    """The work failed: `kind` is the name of what was raised there, or "late", "died", "cancelled"."""

    def __init__(self, kind: str, words: str) -> None:
        super().__init__(words)
        self.kind = kind


class _Stuck(Exception):
    """The process was stopped by somebody, and has been killed."""


class Request:
    """Something that was asked for. `call` names a function of Larch as "module:function"; arguments and result are plain
    values (numbers, texts, bytes, lists, dictionaries)."""

    def __init__(self, call: str, given: tuple[Any, ...], seconds: float, key: str) -> None:
        self.call, self.given, self.seconds, self.key = call, given, seconds, key
        self.result: Any = None
        self.error: WorkerError | None = None
        self.cancelled = False
        self.began = 0.0
        self.ended = threading.Event()
        self._then: Callable[[Request], None] | None = None

    def cancel(self) -> None:
        """Its result is not wanted any more. Where it runs already, it is stopped soon."""
        self.cancelled = True

    def wait(self, seconds: float | None = None) -> Any:
        """The result. Raises WorkerError; also if it has not come after `seconds`."""
        if not self.ended.wait(seconds):
            self.cancel()
            raise WorkerError("late", "It took too long.")
        if self.error is not None:
            raise self.error
        return self.result


class Worker:
    """The process, and the queue before it."""

    def __init__(self, memory: int = MEMORY) -> None:
        self._memory = memory
        self._queue: deque[Request] = deque()
        self._running: Request | None = None
        self._change = threading.Condition()
        self._process: subprocess.Popen[bytes] | None = None
        self._thread: threading.Thread | None = None
        self._closed = False

    def ask(
        self,
        call: str,
        *given: Any,
        seconds: float = 2.0,
        key: str = "",
        then: Callable[[Request], None] | None = None,
    ) -> Request:
        """Asks for a function to be called. `then` is told, from another thread, when there is a result or an error; not
        if the request was cancelled or replaced by a newer one with the same key."""
        request = Request(call, given, seconds, key)
        request._then = then
        with self._change:
            if self._closed:
                request.cancelled, request.error = True, WorkerError("cancelled", "It is not wanted any more.")
                request.ended.set()
                return request
            for older in [r for r in (*self._queue, self._running) if r is not None and key and r.key == key]:
                older.cancel()
            self._queue.append(request)
            if self._thread is None:
                self._thread = threading.Thread(target=self._serve, name="larch worker", daemon=True)
                self._thread.start()
            self._change.notify_all()
        return request

    @property
    def pid(self) -> int | None:
        """Of the process that runs at present."""
        return self._process.pid if self._process is not None and self._process.poll() is None else None

    def close(self) -> None:
        """Ends the process and the thread; what runs or still waits is cancelled and tells nobody."""
        with self._change:
            self._closed = True
            waiting = [*self._queue]
            self._queue.clear()
            for request in (*waiting, self._running):
                if request is not None:
                    request.cancel()
            self._change.notify_all()
        for request in waiting:
            request.error = WorkerError("cancelled", "It is not wanted any more.")
            request.ended.set()
        # The thread closes the pipes that it reads. It is waited for, since an answer told while the interpreter ends would
        # reach objects of Qt that are gone already.
        if (process := self._process) is not None:
            process.kill()
        if self._thread is not None and self._thread is not threading.current_thread():
            self._thread.join(CLOSING)
        self._kill()

    # In the worker's own thread

    def _serve(self) -> None:
        while True:
            with self._change:
                while not self._queue and not self._closed:
                    self._change.wait()
                if self._closed:
                    return
                request = self._queue.popleft()
                self._running = request
            try:
                self._answer(request)
            except WorkerError as error:
                request.error = error
            except Exception as error:
                report(error, "worker")
                request.error = WorkerError("died", "It could not be worked out.")
                self._kill()
            with self._change:
                self._running = None
            request.ended.set()
            if request._then is not None and not request.cancelled:
                try:
                    request._then(request)
                except Exception as error:
                    report(error, "worker's answer")

    def _answer(self, request: Request) -> None:
        if request.cancelled:
            raise WorkerError("cancelled", "It is not wanted any more.")
        try:
            message = msgspec.msgpack.encode([request.call, list(request.given)])
        except UnicodeEncodeError as error:
            raise WorkerError("Unread", "There is half a character in it.") from error
        try:
            body = self._asked(HEAD.pack(len(message)) + message, request)
        except _Stuck:
            try:
                body = self._asked(HEAD.pack(len(message)) + message, request)
            except (_Stuck, BrokenPipeError, EOFError) as gone:
                self._kill()
                raise WorkerError("late", "It took too long.") from gone
        except (BrokenPipeError, EOFError) as gone:
            self._kill()
            raise WorkerError("died", "It needed more than it may have.") from gone
        kind, value = msgspec.msgpack.decode(body)
        if kind:
            raise WorkerError(kind, value)
        request.result = value

    def _asked(self, message: bytes, request: Request) -> bytes:
        """The answer to a message."""
        request.began = time.monotonic()
        pipe, spent = self._sent(message, request)
        size = HEAD.unpack(self._some(pipe, HEAD.size, spent, request))[0]
        if size > LARGEST:
            raise EOFError
        return self._some(pipe, size, spent, request)

    def _sent(self, message: bytes, request: Request) -> tuple[IO[bytes], Spent]:
        """Hands a message to the process, and to a new one if that has died since it was last used; returns where the
        answer will come from, and the time that it spends."""
        for last in (False, True):
            process = self._started()
            assert process.stdin is not None and process.stdout is not None
            spent = Spent(process.pid)
            try:
                self._write(process.stdin.fileno(), message, spent, request)
                return process.stdout, spent
            except BrokenPipeError:
                self._kill()
                if last:
                    raise
        raise BrokenPipeError

    def _write(self, pipe: int, message: bytes, spent: Spent, request: Request) -> None:
        """A pipe holds little, and whoever should empty it may have been stopped."""
        sent = 0
        while sent < len(message):
            if select.select([], [pipe], [], LOOK)[1]:
                with contextlib.suppress(BlockingIOError):
                    sent += os.write(pipe, message[sent : sent + PIECE])
            else:
                self._look(spent, request)

    def _look(self, spent: Spent, request: Request) -> None:
        """Kills the process when its time is up, when it was stopped, or when nobody wants the answer any more."""
        late, gone = spent.look() >= request.seconds, request.cancelled and time.monotonic() - request.began > PATIENCE
        if not (spent.held or late or gone):
            return
        self._kill()
        if gone:
            raise WorkerError("cancelled", "It is not wanted any more.")
        if late and not spent.held:
            raise WorkerError("late", "It took too long.")
        raise _Stuck

    def _some(self, pipe: IO[bytes], count: int, spent: Spent, request: Request) -> bytes:
        """Exactly so many bytes."""
        found = b""
        while len(found) < count:
            if not select.select([pipe], [], [], LOOK)[0]:
                self._look(spent, request)
                continue
            piece = os.read(pipe.fileno(), min(count - len(found), 1 << 20))
            if not piece:
                raise EOFError
            found += piece
        return found

    def _started(self) -> subprocess.Popen[bytes]:
        if self._closed:
            raise WorkerError("cancelled", "It is not wanted any more.")
        if self._process is None or self._process.poll() is not None:
            self._kill()  # of one that has died, the pipes are closed
            command = [sys.executable, "-m", "larch.services.worker_process", str(self._memory)]
            self._process = subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, bufsize=0)
            assert self._process.stdin is not None
            os.set_blocking(self._process.stdin.fileno(), False)
        return self._process

    def _kill(self) -> None:
        process, self._process = self._process, None
        if process is not None:
            process.kill()
            process.wait()
            for pipe in (process.stdin, process.stdout):
                if pipe is not None:
                    with contextlib.suppress(OSError):
                        pipe.close()


_worker: Worker | None = None


def worker() -> Worker:
    """The one worker of this program."""
    global _worker
    if _worker is None:
        import atexit

        _worker = Worker()
        atexit.register(_worker.close)
    return _worker
