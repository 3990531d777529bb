"""Each scenario once to count its operations; then each of them fails, is torn, is the last of a process, or the last before
a power cut. Whatever Larch has said is kept is found again.

Here each operation goes wrong in one of these ways, the next in the next; `larch attack` has each go wrong in all of them.
"""

from __future__ import annotations

import os
import threading

import pytest

from tests.faults.memory_disk import Fault, MemoryDisk
from tests.faults.scenarios import SCENARIOS, everything, run

WAYS = [
    ("io", False, False), ("full", False, False), ("killed", False, True), ("permission", False, False),
    ("torn", False, False), ("killed", False, False), ("cut", False, True), ("cut", False, False), ("full", True, False),
]  # fmt: skip
ALL = bool(os.environ.get("LARCH_ALL_FAULTS"))


@pytest.fixture(autouse=True)
def silent_threads(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(threading, "excepthook", lambda *_args: None)  # a killed process says nothing


def check(scenario, number: int, kind: str, stays: bool, power_cut: bool) -> list[str]:  # type: ignore[no-untyped-def]
    disk = MemoryDisk(fault=Fault(number, kind, stays))
    person = run(scenario, disk)
    found = everything(disk.after(power_cut))
    where = f"{scenario.__name__} {number} {kind}{' stays' if stays else ''}{' power cut' if power_cut else ''}"
    missing = []
    if kind in ("io", "full", "permission", "torn"):  # it was said where the work is; it may be in several lessons
        found = [set().union(*found)]
    for kept in (person.kept, getattr(person, "kept_before", set())):
        if kept and not any(kept <= words for words in found):
            missing.append(f"{where}: of {len(kept)} found {max((len(kept & words) for words in found), default=0)}")
    return missing


@pytest.mark.parametrize("scenario", SCENARIOS, ids=lambda scenario: scenario.__name__)
def test_nothing_is_lost_whichever_operation_goes_wrong(scenario) -> None:  # type: ignore[no-untyped-def]
    disk = MemoryDisk()
    whole = run(scenario, disk)
    assert whole.kept
    assert check(scenario, 0, "", False, False) == []
    assert check(scenario, 0, "", False, True) == []
    lost = []
    for number in range(1, disk.count + 1):
        for way in WAYS if ALL else [WAYS[number % len(WAYS)]]:
            lost += check(scenario, number, *way)
    print(f"\nfaults {scenario.__name__} {disk.count * (len(WAYS) if ALL else 1)} {len(lost)}")
    assert lost == []
