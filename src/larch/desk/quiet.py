"""Python's garbage is collected in the interface's thread, and while nothing is being touched.

By itself Python collects in whatever thread happens to make an object: a widget that is garbage would be taken apart beside
the journal, which Qt forbids, and anything may come of it. And a full collection of a large lesson takes longer than a
frame, which the hand would feel.
"""

from __future__ import annotations

import gc
import time
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject

from larch.board.timers import timer

if TYPE_CHECKING:
    from larch.desk.window import Window

YOUNG = 20_000  # objects made since the last look that are worth one: about 2 ms
CROWD = 400_000  # of them, at which it is time whatever is painted
LOOK_EVERY = 1_000  # ms
PAUSE = 0.2  # seconds without a repaint of the page, in which the young are looked at
AT_REST = 3.0  # and all
APART = 60.0  # seconds between two full collections
AT_LAST = 600.0  # after which one is made though a clock on the page never rests


def calm() -> None:
    """From now on nothing is collected by itself. What there is already is not looked at again."""
    gc.freeze()
    gc.disable()


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
        canvas = self._window.canvas
        if canvas.pointers.busy:
            return
        now = time.monotonic()
        still, apart, young = now - canvas.painted_at, now - self._collected, gc.get_count()[0]
        if (still > AT_REST and apart > APART) or apart > AT_LAST:
            gc.collect()
            self._collected = now
        elif (still > PAUSE and young > YOUNG) or young > CROWD:
            gc.collect(0)
