"""How long another process has been at something, however busy the machine is."""

from __future__ import annotations

import os
import time
from pathlib import Path

TICKS = os.sysconf("SC_CLK_TCK")  # a second of a processor's time, as Linux counts it
HELD = "Tt"  # states of a process that somebody has stopped
FIELD_STATE, FIELD_USER, FIELD_SYSTEM = 0, 11, 12  # of /proc/PID/stat, behind the name


def state_of(pid: int) -> tuple[str, float]:
    """The state of a process as one letter, and the seconds of processor time that it has used; ("X", 0) if it is gone."""
    try:
        fields = Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()
        return fields[FIELD_STATE], (int(fields[FIELD_USER]) + int(fields[FIELD_SYSTEM])) / TICKS
    except (OSError, IndexError, ValueError):
        return "X", 0.0


class Spent:
    """The time that a process has worked or slept. What it spends waiting for a processor, because others have them all, is
    not its own and doesn't count."""

    def __init__(self, pid: int) -> None:
        self._pid = pid
        self._seen = time.monotonic()
        self._used = state_of(pid)[1]
        self.seconds = 0.0
        self.held = False  # whether it was found stopped

    def look(self) -> float:
        """Seconds so far; to be called often, since what it was in between is not known."""
        now = time.monotonic()
        state, used = state_of(self._pid)
        own = max(0.0, used - self._used)
        self.seconds += own if state == "R" else max(own, now - self._seen)
        self._seen, self._used, self.held = now, used, state in HELD
        return self.seconds
