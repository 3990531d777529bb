"""A chip on the page: one press confirms what a gesture has prepared."""

from __future__ import annotations

from PyQt6.QtCore import QSize
from PyQt6.QtWidgets import QPushButton

from larch.board.canvas import Canvas
from larch.board.look import icon
from larch.board.stage import Offer
from larch.core.base.hues import PAPER
from larch.desk.style import lift


class Chip(QPushButton):
    """Hangs at its place of the page; a press anywhere else on the page withdraws the offer."""

    def __init__(self, canvas: Canvas, offer: Offer) -> None:
        super().__init__(icon(offer.icon, PAPER), offer.text, canvas)
        self.canvas = canvas
        self.offer = offer
        self.setObjectName("strong")
        self.setAccessibleName(offer.text)
        self.setIconSize(QSize(24, 24))
        self.setMinimumHeight(56 if canvas.at_board else 46)
        lift(self)
        self.clicked.connect(lambda: canvas.withdraw(accepted=True))
        canvas.viewed.connect(self.place)
        self.adjustSize()
        self.place()
        self.show()
        self.raise_()
        self.setFocus()

    def place(self) -> None:
        x, y = self.canvas.camera.to_view(*self.offer.at)
        bottom = self.canvas.height() - self.canvas.covered.below - self.height() - 8
        across = max(8, min(x - self.width() / 2, self.canvas.width() - self.width() - 8))
        self.move(int(across), int(max(8, min(y + 10, bottom))))
