"""`larch attack`: all of it, for as long as one likes, and what came of it in figures."""

from __future__ import annotations

import os
import random
import subprocess
import sys
import time
from pathlib import Path

from larch.attack import display, fuzz, kills, monkeys, real

HOME = Path(__file__).resolve().parents[3]
FINDS = Path("larch-finds")  # what did harm, in the folder that it was started in
ROUND = {"expression": 4000, "html": 2000, "ink": 2000, "page": 2000, "svg": 150}  # inputs in a turn
SHARES = {"faults": 0.15, "fuzz": 0.25, "kills": 0.2, "monkeys": 0.15, "real": 0.25}
STEPS = 1500  # of a monkey
THOROUGH = 240.0  # seconds from which on every operation of the disk is made to fail in every way
COLUMNS = ("tries", "lost", "crashes", "hangs", "raised")


def attack(minutes: float = 10.0, seed: int | None = None) -> int:
    """Prints figures; 1 if anything was lost, crashed, hung or raised. Without a seed, another one each time."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from larch.desk.app import application

    app = application()
    assert app is not None  # it lives as long as this runs
    seed = random.SystemRandom().randrange(10**8) if seed is None else seed
    seconds = 60.0 * minutes
    print(f"seed {seed} (larch attack --seed {seed} tries the same again), {minutes:g} minutes", flush=True)
    print(f"{'what':44}" + "".join(f"{word:>9}" for word in COLUMNS), flush=True)
    bad = _faults(seconds * SHARES["faults"])
    bad += _fuzz(seconds * SHARES["fuzz"], seed)
    bad += _monkeys(seconds * SHARES["monkeys"], seed)
    if missing := display.missing():
        print(f"no real window here: apt-get install {' '.join(missing)}")
        return 1 if bad else 0
    bad += _kills(seconds * SHARES["kills"], seed)
    bad += _real(seconds * SHARES["real"], seed)
    return 1 if bad else 0


def _line(what: str, tries: int, lost: int = 0, crashes: int = 0, hangs: int = 0, raised: int = 0) -> None:
    print(f"{what:44}" + "".join(f"{count:>9}" for count in (tries, lost, crashes, hangs, raised)), flush=True)


def _say(found: list[str]) -> int:
    for one in found:
        print("   " + one.replace("\n", "\n   "))
    return len(found)


def _counted(what: str, tries: int, found: list[str]) -> int:
    """A line for what was found, each told by how it begins."""
    crashes, hangs = (sum(word in one.split("\n")[0] for one in found) for word in ("crash", "hang"))
    _line(what, tries, 0, crashes, hangs, len(found) - crashes - hangs)
    return _say(found)


def _faults(seconds: float) -> int:
    """Every operation of every scenario: these are tests, and need them to be there."""
    tests = HOME / "tests" / "faults" / "test_every_operation.py"
    if not tests.exists():
        print("the scenarios of the disk are not here: they come with the source")
        return 0
    environment = {**os.environ, **({"LARCH_ALL_FAULTS": "1"} if seconds >= THOROUGH else {})}
    command = [
        sys.executable,
        "-m",
        "pytest",
        "-q",
        "-s",
        "-p",
        "no:cacheprovider",
        "-n",
        "0",
        "-o",
        "faulthandler_timeout=0",
    ]
    with subprocess.Popen([*command, str(tests)], stdout=subprocess.PIPE, text=True, env=environment, cwd=HOME) as process:
        try:
            told, _none = process.communicate(timeout=max(seconds, 5.0))
            ended = process.returncode
        except subprocess.TimeoutExpired:
            process.kill()
            told, _none = process.communicate()
            ended = 0
    counts = [line.split() for line in told.splitlines() if line.startswith("faults ")]
    tries, lost = sum(int(words[2]) for words in counts), sum(int(words[3]) for words in counts)
    _line(f"faults of the disk, {len(counts)} scenarios", tries, lost)
    return _say([told[-3000:]] if ended else [])


def _fuzz(seconds: float, seed: int) -> int:
    """Turn after turn, each sort of input for its part of the time."""
    bad = 0
    for kind, count in ROUND.items():
        end = time.monotonic() + seconds / len(ROUND)
        tries, turn = 0, 0
        found: list[fuzz.Found] = []
        while turn == 0 or time.monotonic() < end:
            report = fuzz.run(kind, seed + turn, count, max(1.0, end - time.monotonic()))
            tries, turn, found = tries + report.tries, turn + 1, found + report.found
        what = [one.what for one in found]
        hangs, crashes = what.count("hang") + what.count("slow"), what.count("crash")
        _line(f"hostile input: {kind}", tries, 0, crashes, hangs, len(what) - hangs - crashes)
        bad += _say(_kept(kind, found))
    return bad


def _kept(kind: str, found: list[fuzz.Found]) -> list[str]:
    """Puts one input of each sort of trouble beside where this was started, as small as may be."""
    told: dict[str, str] = {}
    for one in found:
        key = f"{one.what} {one.about.strip().splitlines()[-1] if one.about.strip() else ''}"
        if key in told:
            continue
        data = fuzz.smaller(kind, one) if one.what not in ("crash", "hang", "slow") else one.data
        place = FINDS / f"{kind}-{abs(hash(data)) % 10**8:08d}.{fuzz.ENDINGS[kind]}"
        FINDS.mkdir(exist_ok=True)
        place.write_bytes(data)
        told[key] = f"{one.what}: {place}\n{one.about[-1200:]}"
    return list(told.values())


def _monkeys(seconds: float, seed: int) -> int:
    end = time.monotonic() + seconds
    went: list[monkeys.Went] = []
    while not went or time.monotonic() < end - 10.0:
        went.append(monkeys.run(seed + len(went), STEPS, max(10.0, end - time.monotonic())))
    found = [f"{one.trouble.splitlines()[0]}, seed {seed + k}\n{one.trouble}" for k, one in enumerate(went) if one.trouble]
    grown = sorted(one.grown for one in went if one.grown is not None)
    memory = f", memory x{grown[len(grown) // 2]:.2f} in the second half" if grown else ""
    return _counted(f"monkeys ({len(went)} seeds{memory})", sum(one.steps for one in went), found)


def _kills(seconds: float, seed: int) -> int:
    done = kills.run(10**6, seed, seconds)
    _line(f"kills of a real window ({done.typing} while typing, {done.words} words)", done.kills, len(done.lost))
    return _say(done.lost)


def _real(seconds: float, seed: int) -> int:
    end = time.monotonic() + seconds
    went: list[real.Went] = []
    while not went or time.monotonic() < end - 10.0:
        went.append(real.run(seed + len(went), STEPS, max(10.0, end - time.monotonic())))
    memory = max(one.memory for one in went)
    what = f"monkeys at a real window ({len(went)} seeds, up to {memory:.0f} MB)"
    return _counted(what, sum(one.steps for one in went), [found for one in went for found in one.trouble])
