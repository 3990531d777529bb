"""All checks in one command: lint, types, layers, tests. What `larch test` and CI run."""

from __future__ import annotations

import os
import subprocess
import sys
import time
from collections.abc import Sequence
from pathlib import Path

HOME = Path(__file__).resolve().parents[2]


FEW = "8"  # examples of each law that hypothesis tries in a fast run
MOST_AT_ONCE = 4  # processes that run tests; each has a window of its own


def run_checks(extra: Sequence[str]) -> int:
    """Runs everything; with --fast what takes under a minute: lint, layers, and the core's tests with few examples; or only
    pytest with the given arguments. Returns the first failure's exit code and says how long it took."""
    began = time.monotonic()
    os.chdir(HOME)
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    binaries = Path(sys.executable).parent
    at_once = ["-n", str(min(MOST_AT_ONCE, os.cpu_count() or 1)), "--dist", "loadfile", "--max-worker-restart", "1"]
    lint = ("lint", [str(binaries / "ruff"), "check", "."])
    layers = ("layers", [str(binaries / "lint-imports")])
    tests = [sys.executable, "-m", "pytest", *at_once]
    if list(extra) == ["--fast"]:
        os.environ["LARCH_EXAMPLES"] = FEW
        steps = [lint, layers, ("tests of the core", [*tests, "tests/core", "tests/services"])]
    elif extra:
        steps = [("tests", [sys.executable, "-m", "pytest", *extra])]
    else:
        steps = [
            lint,
            ("format", [str(binaries / "ruff"), "format", "--check", "."]),
            ("types", [str(binaries / "mypy"), "--strict", "src/larch"]),
            layers,
            ("tests", tests),
        ]
    code = next((code for name, command in steps if (code := _step(name, command))), 0)
    minutes, seconds = divmod(round(time.monotonic() - began), 60)
    print(f"— {'failed' if code else 'passed'} after {minutes}:{seconds:02d} minutes", flush=True)
    return code


def _step(name: str, command: list[str]) -> int:
    print(f"— {name}", flush=True)
    return subprocess.run(command, check=False).returncode
