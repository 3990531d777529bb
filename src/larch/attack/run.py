"""`larch attack`: all of it, for as long as one likes, and what came of it in figures."""

from __future__ import annotations

import os
import subprocess
import sys
import time
from pathlib import Path

from larch.attack import fuzz, kills, monkeys

HOME = Path(__file__).resolve().parents[3]
CORPUS = HOME / "tests" / "faults" / "corpus"
ROUND = {"expression": 4000, "html": 2000, "ink": 2000, "page": 2000, "svg": 150}  # inputs in a turn
SHARES = {"faults": 0.2, "fuzz": 0.3, "kills": 0.2, "monkeys": 0.3}
STEPS = 1500  # of a monkey
SEED = 20261125


def attack(minutes: float = 10.0, seed: int = SEED) -> int:
    """Prints figures; 1 if anything was lost, crashed, hung or raised."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from larch.desk.app import application

    app = application()
    assert app is not None  # it lives as long as this runs
    bad = 0
    seconds = 60.0 * minutes
    print(f"{'what':34}{'tries':>9}{'lost':>7}{'crashes':>9}{'hangs':>7}{'raised':>8}", flush=True)
    bad += _faults()
    bad += _fuzz(seconds * SHARES["fuzz"], seed)
    done = kills.run(10**6, seed, seconds * SHARES["kills"])
    _line(f"kills of the window ({done.edits} edits)", done.kills, len(done.lost))
    bad += _say(done.lost)
    bad += _monkeys(seconds * SHARES["monkeys"], seed)
    return 1 if bad else 0


def _line(what: str, tries: int, lost: int = 0, crashes: int = 0, hangs: int = 0, raised: int = 0) -> None:
    print(f"{what:34}{tries:>9}{lost:>7}{crashes:>9}{hangs:>7}{raised:>8}", flush=True)


def _say(found: list[str]) -> int:
    for one in found:
        print("   " + one.replace("\n", "\n   "))
    return len(found)


def _faults() -> int:
    """Every operation of every scenario, in all ways: these are tests, and need them to be there."""
    tests = HOME / "tests" / "faults" / "test_every_operation.py"
    if not tests.exists():
        print("the scenarios of the disk are not here: they come with the source")
        return 0
    environment = {**os.environ, "LARCH_ALL_FAULTS": "1"}
    done = subprocess.run([sys.executable, "-m", "pytest", "-q", "-s", "-p", "no:cacheprovider", "-n", "0",
                           "-o", "faulthandler_timeout=0", str(tests)],
                          capture_output=True, text=True, env=environment, cwd=HOME)  # fmt: skip
    counts = [line.split() for line in done.stdout.splitlines() if line.startswith("faults ")]
    tries, lost = sum(int(words[2]) for words in counts), sum(int(words[3]) for words in counts)
    _line(f"faults of the disk, {len(counts)} scenarios", tries, lost)
    return _say([done.stdout[-3000:]] if done.returncode else [])


def _fuzz(seconds: float, seed: int) -> int:
    end = time.monotonic() + seconds
    tries = dict.fromkeys(ROUND, 0)
    found: dict[str, list[fuzz.Found]] = {kind: [] for kind in ROUND}
    turn = 0
    while turn == 0 or time.monotonic() < end:
        for kind, count in ROUND.items():
            report = fuzz.run(kind, seed + turn, count)
            tries[kind] += report.tries
            found[kind] += report.found
        turn += 1
    bad = 0
    for kind in ROUND:
        what = [one.what for one in found[kind]]
        hangs = what.count("hang") + what.count("slow")
        crashes = what.count("crash")
        _line(f"hostile input: {kind}", tries[kind], 0, crashes, hangs, len(what) - hangs - crashes)
        bad += _say(_kept(kind, found[kind]))
    return bad


def _kept(kind: str, found: list[fuzz.Found]) -> list[str]:
    """Puts one input of each sort of trouble into the corpus, as small as may be."""
    told: dict[str, str] = {}
    for one in found:
        key = f"{one.what} {one.about.strip().splitlines()[-1] if one.about.strip() else ''}"
        if key in told:
            continue
        data = fuzz.smaller(kind, one) if one.what not in ("crash", "hang", "slow") else one.data
        name = f"{kind}-{abs(hash(data)) % 10**8:08d}.{fuzz.ENDINGS[kind]}"
        if CORPUS.is_dir():
            (CORPUS / name).write_bytes(data)
        told[key] = f"{one.what}: {name}\n{one.about[-1200:]}"
    return list(told.values())


def _monkeys(seconds: float, seed: int) -> int:
    end = time.monotonic() + seconds
    went: list[monkeys.Went] = []
    while len(went) < 2 or time.monotonic() < end:
        went.append(monkeys.run(seed + len(went), STEPS))
    trouble = [f"seed {seed + k}: {one.trouble}" for k, one in enumerate(went) if one.trouble]
    crashes = sum(one.trouble.startswith("crash") for one in went)
    hangs = sum(one.trouble.startswith("hang") for one in went)
    grown = sorted(one.grown for one in went)[len(went) // 2]
    _line(f"monkeys ({len(went)} seeds, memory x{grown:.2f})", sum(one.steps for one in went), 0, crashes, hangs,
          len(trouble) - crashes - hangs)  # fmt: skip
    return _say(trouble)
