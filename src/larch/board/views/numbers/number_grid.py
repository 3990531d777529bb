"""A grid of numbers: the first multiples tinted with a corner, the second ringed, the third with a bar; covers are frost."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from larch.board.look import NEEDLE, PAPER, colour, tint
from larch.board.views.base import View, words
from larch.core.base.hues import hue_of_number
from larch.core.base.shape import Box
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.number_grid import CELL, FOOT, NumberGrid

MARK = "straw"


class NumberGridView(View):
    kind: ClassVar[type[Thing]] = NumberGrid

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, NumberGrid)
        marked, covered = set(thing.marked), set(thing.covered)
        longest = max(len(thing.text(0)), len(thing.text(thing.count() - 1)), len(thing.text(thing.count() // 2)))
        size = 28.0 if longest <= 2 else 26.0 if longest == 3 else 84.0 / longest
        line = QPen(NEEDLE, 1.4)
        for cell in range(thing.count()):
            box = thing.cell_box(cell)
            rect = QRectF(box.x0, box.y0, CELL, CELL)
            painter.setPen(line)
            painter.setBrush(tint("sky", 0.5) if cell in covered else tint(MARK, 0.42) if cell in marked else PAPER)
            painter.drawRect(rect)
            if cell in covered:
                words(painter, rect.center(), "?", NEEDLE, 26, bold=True)
                continue
            signs = [k for k, of in enumerate(thing.multiples) if thing.is_multiple(cell, of)]
            for k in signs:
                _sign(painter, box, k, hue_of_number(thing.multiples[k]))
            words(painter, rect.center(), thing.text(cell), NEEDLE, size, bold=bool(signs) or cell in marked)
        grid = thing.grid()
        painter.setPen(QPen(NEEDLE, 3.0))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(QRectF(0, 0, grid.width, grid.height))
        if thing.multiples:
            self._legend(painter, thing, grid.y1 + FOOT / 2)

    def _legend(self, painter: QPainter, thing: NumberGrid, y: float) -> None:
        words(painter, QPointF(74, y), _("multiples of"), NEEDLE, 26)
        for k, of in enumerate(thing.multiples):
            x = 190.0 + 110 * k
            box = Box(x - 16, y - 16, x + 16, y + 16)
            painter.setPen(QPen(NEEDLE, 1.0))
            painter.setBrush(PAPER)
            painter.drawRect(QRectF(box.x0, box.y0, 32, 32))
            _sign(painter, box, k, hue_of_number(of))
            words(painter, QPointF(x + 40, y), str(of), NEEDLE, 28, bold=True)


def _sign(painter: QPainter, box: Box, k: int, hue: str) -> None:
    """Of the first, second and third set: told apart without their colours."""
    shade, side = colour(hue), box.width
    if k == 0:
        painter.fillRect(QRectF(box.x0 + 1, box.y0 + 1, side - 2, side - 2), tint(hue, 0.42))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(shade)
        corner = 0.22 * side
        painter.drawPolygon(QPolygonF([QPointF(box.x0 + 1, box.y0 + 1), QPointF(box.x0 + corner, box.y0 + 1),
                                       QPointF(box.x0 + 1, box.y0 + corner)]))  # fmt: skip
    elif k == 1:
        painter.setPen(QPen(shade, 3.0))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(QPointF(*box.centre), 0.41 * side, 0.41 * side)
    else:
        painter.fillRect(QRectF(box.x0 + 0.2 * side, box.y1 - 0.17 * side, 0.6 * side, 0.09 * side), shade)
