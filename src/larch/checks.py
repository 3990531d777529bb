"""All checks in one command: lint, types, layers, tests. What `larch test` and CI run."""

from __future__ import annotations

import os
import subprocess
import sys
from collections.abc import Sequence
from pathlib import Path

HOME = Path(__file__).resolve().parents[2]


MOST_AT_ONCE = 4  # processes that run tests; each has a window of its own


def run_checks(extra: Sequence[str]) -> int:
    """Runs everything, or only pytest with the given arguments. Returns the first failure's exit code."""
    os.chdir(HOME)
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    if extra:
        return _step("tests", [sys.executable, "-m", "pytest", *extra])
    binaries = Path(sys.executable).parent
    steps = [
        ("lint", [str(binaries / "ruff"), "check", "."]),
        ("format", [str(binaries / "ruff"), "format", "--check", "."]),
        ("types", [str(binaries / "mypy"), "--strict", "src/larch"]),
        ("layers", [str(binaries / "lint-imports")]),
        ("tests", [sys.executable, "-m", "pytest", "-n", str(min(MOST_AT_ONCE, os.cpu_count() or 1)), "--dist", "loadfile"]),
    ]
    for name, command in steps:
        if code := _step(name, command):
            return code
    return 0


def _step(name: str, command: list[str]) -> int:
    print(f"— {name}", flush=True)
    return subprocess.run(command, check=False).returncode
