"""The worker's process: results, bounds, cancelling, the newest request, dying and starting again."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import threading
import time
from collections.abc import Iterator

import pytest

from larch.services.spent import Spent
from larch.services.worker import Request, Worker, WorkerError

CALLED = "larch.services.worker_trials"


@pytest.fixture
def worker() -> Iterator[Worker]:
    made = Worker(memory=700)
    yield made
    made.close()


def test_it_is_started_when_first_needed_and_answers_in_order(worker: Worker) -> None:
    assert worker.pid is None
    asked = [worker.ask(f"{CALLED}:doubled", k, seconds=20) for k in range(5)]
    assert [request.wait(30) for request in asked] == [0, 2, 4, 6, 8]
    assert worker.pid is not None and worker.pid != os.getpid()


def test_what_is_raised_there_is_raised_here_by_name(worker: Worker) -> None:
    with pytest.raises(WorkerError, match="no such lantern") as found:
        worker.ask(f"{CALLED}:refused", seconds=20).wait(30)
    assert found.value.kind == "LookupError"
    with pytest.raises(WorkerError, match="only functions of Larch"):
        worker.ask("os:system", "true", seconds=20).wait(30)


def test_what_runs_away_is_stopped_and_the_next_is_answered(worker: Worker) -> None:
    assert worker.ask(f"{CALLED}:doubled", 1, seconds=20).wait(30) == 2
    began = time.monotonic()
    with pytest.raises(WorkerError) as late:
        worker.ask(f"{CALLED}:endless", seconds=0.5).wait(20)
    assert late.value.kind == "late" and time.monotonic() - began < 5
    assert worker.ask(f"{CALLED}:doubled", 4, seconds=20).wait(30) == 8


def test_what_takes_too_much_memory_is_refused(worker: Worker) -> None:
    with pytest.raises(WorkerError) as died:
        worker.ask(f"{CALLED}:greedy", seconds=20).wait(30)
    assert died.value.kind == "died"
    assert worker.ask(f"{CALLED}:doubled", 2, seconds=20).wait(30) == 4


def test_a_killed_process_is_started_again(worker: Worker) -> None:
    assert worker.ask(f"{CALLED}:doubled", 1, seconds=20).wait(30) == 2
    first = worker.pid
    assert first is not None
    os.kill(first, signal.SIGKILL)
    while worker.pid == first:
        time.sleep(0.01)
    assert worker.ask(f"{CALLED}:doubled", 3, seconds=20).wait(30) == 6
    assert worker.pid != first


def test_of_the_same_key_only_the_newest_counts(worker: Worker) -> None:
    told: list[int] = []
    ended = threading.Event()

    def then(request: Request) -> None:
        told.append(request.result)
        ended.set()

    old = worker.ask(f"{CALLED}:endless", seconds=30, key="ink", then=then)
    middle = worker.ask(f"{CALLED}:doubled", 1, seconds=20, key="ink", then=then)
    newest = worker.ask(f"{CALLED}:doubled", 2, seconds=20, key="ink", then=then)
    assert newest.wait(30) == 4
    assert ended.wait(10)
    assert old.cancelled and middle.cancelled and told == [4]


def test_a_cancelled_request_is_not_told_of(worker: Worker) -> None:
    told: list[Request] = []
    blocking = worker.ask(f"{CALLED}:slept", 0.3, seconds=20)
    waiting = worker.ask(f"{CALLED}:doubled", 1, seconds=20, then=told.append)
    waiting.cancel()
    blocking.wait(30)
    with pytest.raises(WorkerError):
        waiting.wait(30)
    assert not told


def test_closing_ends_thread_and_process_and_tells_nobody() -> None:
    worker, told = Worker(memory=700), []
    assert worker.ask(f"{CALLED}:doubled", 1, seconds=20).wait(30) == 2
    pid = worker.pid
    running = worker.ask(f"{CALLED}:endless", seconds=20, then=told.append)
    waiting = worker.ask(f"{CALLED}:doubled", 2, seconds=20, then=told.append)
    worker.close()
    assert worker._thread is not None and not worker._thread.is_alive() and worker.pid is None
    assert pid is not None
    with pytest.raises(ProcessLookupError):
        os.kill(pid, 0)
    for request in (running, waiting, worker.ask(f"{CALLED}:doubled", 3, then=told.append)):
        with pytest.raises(WorkerError):
            request.wait(1)
    assert told == []


def test_one_that_was_stopped_is_replaced_while_a_message_is_sent(worker: Worker) -> None:
    assert worker.ask(f"{CALLED}:doubled", 1, seconds=20).wait(30) == 2
    first = worker.pid
    assert first is not None
    os.kill(first, signal.SIGSTOP)
    long = "a" * 3_000_000  # more than a pipe holds
    assert worker.ask(f"{CALLED}:length", long, seconds=20).wait(30) == len(long)
    assert worker.pid != first


def test_one_that_is_stopped_at_work_is_replaced_and_asked_again(worker: Worker) -> None:
    request = worker.ask(f"{CALLED}:slept", 0.4, seconds=20)
    while worker.pid is None or request.began == 0.0:
        time.sleep(0.005)
    first = worker.pid
    os.kill(first, signal.SIGSTOP)
    request.wait(30)
    assert request.error is None and worker.pid != first


def test_what_sleeps_for_ever_is_ended_too(worker: Worker) -> None:
    assert worker.ask(f"{CALLED}:doubled", 1, seconds=20).wait(30) == 2
    with pytest.raises(WorkerError) as late:
        worker.ask(f"{CALLED}:slept", 60.0, seconds=0.4).wait(20)
    assert late.value.kind == "late"


def test_waiting_for_a_processor_is_not_time_of_its_own() -> None:
    """Four that never rest on one processor: each has had a quarter of the time that went by."""
    before = os.sched_getaffinity(0)
    started = []
    try:
        os.sched_setaffinity(0, {min(before)})
        started = [subprocess.Popen([sys.executable, "-c", "while True: pass"]) for _k in range(4)]
        watched = [Spent(process.pid) for process in started]
        end = time.monotonic() + 2.0
        while time.monotonic() < end:
            for one in watched:
                one.look()
            threading.Event().wait(0.02)
        own = [one.look() for one in watched]
    finally:
        os.sched_setaffinity(0, before)
        for process in started:
            process.kill()
            process.wait()
    assert sum(own) < 3.0 and max(own) < 1.4, own  # not two seconds each


def test_half_a_character_is_said_not_logged(worker: Worker) -> None:
    with pytest.raises(WorkerError, match="half a character"):
        worker.ask(f"{CALLED}:length", "\ud800", seconds=20).wait(30)
    assert worker.ask(f"{CALLED}:doubled", 2, seconds=20).wait(30) == 4
