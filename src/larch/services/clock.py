"""The time of day, in one place, so that tests can hold it still."""

from __future__ import annotations

import time


class Clock:
    """Seconds since 1970, as `time.time` counts them."""

    def now(self) -> float:
        return time.time()


clock = Clock()
