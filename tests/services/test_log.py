"""The log of what went wrong: bounded, rotated, never in the way."""

from __future__ import annotations

import threading
from pathlib import Path

import pytest

from larch.services import log
from larch.services.threads import MOST, run_in_pool


def fail(words: str) -> None:
    raise KeyError(words)


def test_a_traceback_is_kept_and_told_of() -> None:
    told: list[BaseException] = []
    stop = log.listen(told.append)
    try:
        fail("lantern")
    except KeyError as error:
        log.report(error, "here")
    stop()
    log.report(ValueError("later"), "there")
    text = log.newest()
    assert "in fail" in text and "KeyError: 'lantern'" in text and len(told) == 1


def test_it_stays_bounded() -> None:
    for k in range(60):
        log.report(ValueError("x" * 20_000), f"number {k}")
    files = list(log.log_file().parent.iterdir())
    assert len(files) <= log.KEPT + 1
    assert sum(file.stat().st_size for file in files) <= (log.KEPT + 1) * (log.SIZE + 30_000)
    assert "number 59" in log.newest()


def test_a_folder_that_cannot_be_written_stops_nothing(own_folders: Path) -> None:
    log.log_file().parent.parent.mkdir(parents=True)
    log.log_file().parent.write_text("a file where the folder should be")
    log.report(ValueError("unheard"), "here")
    assert log.newest() == ""


def test_an_error_that_ends_a_thread_is_logged(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(threading, "excepthook", threading.excepthook)
    log.watch_threads()
    thread = threading.Thread(target=fail, args=("in a thread",), name="larch test")
    thread.start()
    thread.join()
    assert "in a thread" in log.newest() and "larch test" in log.newest()


def test_the_pool_is_bounded_and_outlives_errors() -> None:
    gate, names, lock = threading.Event(), set(), threading.Lock()
    done = threading.Semaphore(0)

    def work() -> None:
        with lock:
            names.add(threading.current_thread().name)
        gate.wait(10)
        done.release()

    for _ in range(3 * MOST):
        run_in_pool(work)
    run_in_pool(lambda: fail("in the pool"))
    gate.set()
    for _ in range(3 * MOST):
        assert done.acquire(timeout=10)
    ended = threading.Event()
    run_in_pool(ended.set)
    assert ended.wait(10) and 1 <= len(names) <= MOST
