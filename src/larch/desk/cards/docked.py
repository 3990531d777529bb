"""A card at a side of the page, which makes room for it."""

from __future__ import annotations

from PyQt6.QtGui import QHideEvent, QShowEvent
from PyQt6.QtWidgets import QFrame

from larch.board.canvas import Canvas
from larch.desk.style import lift

GAP = 12  # pixels between the card and the edge of the view


class Docked(QFrame):
    """side: "left" or "right"; wide: pixels."""

    side = "left"
    wide = 300

    def __init__(self, canvas: Canvas) -> None:
        super().__init__(canvas)
        self.canvas = canvas
        self.setObjectName("card")
        lift(self)

    def dock(self, high: int = 10000) -> None:
        """Lies down at its side, at most so high."""
        free = self.canvas.height() - self.canvas.covered.below - 2 * GAP
        x = GAP if self.side == "left" else self.canvas.width() - self.wide - GAP
        self.setGeometry(x, GAP, self.wide, max(120, min(free, high)))
        self.raise_()

    def showEvent(self, event: QShowEvent | None) -> None:
        super().showEvent(event)
        self.canvas.cover(**{self.side: self.wide + 2 * GAP})

    def hideEvent(self, event: QHideEvent | None) -> None:
        super().hideEvent(event)
        self.canvas.cover(**{self.side: 0})
