"""Keeps Python's garbage collector from making the hand stumble: a full collection of a large lesson takes longer than a
frame, so it is done while nothing is being touched."""

from __future__ import annotations

import gc
import time
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject

from larch.board.timers import timer

if TYPE_CHECKING:
    from larch.desk.window import Window

YOUNG, MIDDLE, OLD = 20_000, 20, 100_000  # so high that the oldest generation is never collected by itself
LOOK_EVERY = 5_000  # ms
AT_REST = 3.0  # seconds without a repaint of the page
APART = 60.0  # seconds between two full collections


def calm() -> None:
    """From now on the oldest generation is left alone. What there is already is not looked at again."""
    gc.freeze()
    gc.set_threshold(YOUNG, MIDDLE, OLD)


class Quiet(QObject):
    """Collects while nothing on the page has moved for a while."""

    def __init__(self, window: Window) -> None:
        super().__init__(window)
        self._window = window
        self._collected = time.monotonic()
        self._timer = timer(self, self.look, LOOK_EVERY)
        calm()
        self._timer.start()

    def look(self) -> None:
        now, canvas = time.monotonic(), self._window.canvas
        resting = not canvas.pointers.busy and now - canvas.painted_at > AT_REST
        if resting and now - self._collected > APART:
            gc.collect()
            self._collected = now
