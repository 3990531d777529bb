"""What went wrong and was not foreseen: its traceback goes into a bounded file under the state folder."""

from __future__ import annotations

import sys
import threading
from collections.abc import Callable
from pathlib import Path
from types import TracebackType
from typing import TYPE_CHECKING

from larch.services.places import state_folder

if TYPE_CHECKING:
    import logging

SIZE, KEPT = 256 * 1024, 3  # bytes of a file; older files beside it

_listeners: list[Callable[[BaseException], None]] = []


def log_file() -> Path:
    return state_folder() / "log" / "larch.log"


def _logger() -> logging.Logger:
    """The logger of unforeseen errors; where the folder is now, which tests move about."""
    import logging
    from logging.handlers import RotatingFileHandler

    logger = logging.getLogger("larch.unforeseen")
    wanted = str(log_file())
    for handler in list(logger.handlers):
        if isinstance(handler, RotatingFileHandler) and handler.baseFilename == wanted:
            return logger
        logger.removeHandler(handler)
        handler.close()
    logger.propagate = False
    try:
        log_file().parent.mkdir(parents=True, exist_ok=True)
        handler = RotatingFileHandler(wanted, maxBytes=SIZE, backupCount=KEPT, encoding="utf-8", delay=True)
        handler.setFormatter(logging.Formatter("%(asctime)s %(threadName)s: %(message)s"))
        logger.addHandler(handler)
    except OSError:
        logger.addHandler(logging.StreamHandler())
    return logger


def report(error: BaseException, where: str, quietly: bool = False) -> None:
    """Writes the traceback of an error into the log and, unless quietly, tells those who listen. Never raises."""
    try:
        _logger().error(where, exc_info=(type(error), error, error.__traceback__))
    except Exception:
        print(f"larch: {where}: {error!r}", file=sys.stderr)
    for listener in () if quietly else list(_listeners):
        listener(error)


def listen(listener: Callable[[BaseException], None]) -> Callable[[], None]:
    """Has somebody told of every report, from whatever thread; returns what ends that."""
    _listeners.append(listener)
    return lambda: _listeners.remove(listener) if listener in _listeners else None


def watch_threads() -> None:
    """Errors that end a thread are reported."""

    def ended(given: threading.ExceptHookArgs) -> None:
        if given.exc_value is not None and not isinstance(given.exc_value, SystemExit):
            report(given.exc_value, f"thread {given.thread.name if given.thread else '?'}")

    threading.excepthook = ended


def watch_python(then: Callable[[type[BaseException], BaseException, TracebackType | None], None]) -> None:
    """Errors that nothing has caught are reported; then `then` is called with them."""

    def stumble(kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        if issubclass(kind, Exception):
            report(error, "unforeseen")
        then(kind, error, trace)

    sys.excepthook = stumble


def newest(most: int = 60_000) -> str:
    """The end of the log; "" if nothing was written."""
    try:
        data = log_file().read_bytes()
    except OSError:
        return ""
    return data[-most:].decode("utf-8", "replace")
