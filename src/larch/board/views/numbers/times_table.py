"""A times table: factors on tinted heads, products in squares; a lit product has its row and column tinted."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import HAIRLINE, NEEDLE, PAPER, tint
from larch.board.views.base import View, words
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.times_table import CELL, TimesTable


class TimesTableView(View):
    kind: ClassVar[type[Thing]] = TimesTable

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, TimesTable)
        whole, covered = thing.extent(), set(thing.covered)
        lit = thing.factors(thing.at) if thing.at >= 0 else (0, 0)
        painter.fillRect(QRectF(0, 0, whole.width, whole.height), PAPER)
        painter.fillRect(QRectF(0, 0, whole.width, CELL), tint(thing.hue, 0.2))
        painter.fillRect(QRectF(0, 0, CELL, whole.height), tint(thing.hue, 0.2))
        words(painter, QPointF(CELL / 2, CELL / 2), "×", NEEDLE, 30, bold=True)
        for k in range(1, thing.columns + 1):
            words(painter, QPointF((k + 0.5) * CELL, CELL / 2), str(k), NEEDLE, 28, bold=True)
        for k in range(1, thing.rows + 1):
            words(painter, QPointF(CELL / 2, (k + 0.5) * CELL), str(k), NEEDLE, 28, bold=True)
        for cell in range(thing.rows * thing.columns):
            row, column = thing.factors(cell)
            box = thing.cell_box(cell)
            rect = QRectF(box.x0, box.y0, CELL, CELL)
            in_sight = (row == lit[0] and column <= lit[1]) or (column == lit[1] and row <= lit[0])
            if cell in covered:
                painter.fillRect(rect, tint("sky", 0.5))
                words(painter, rect.center(), "?", NEEDLE, 24, bold=True)
            else:
                if in_sight:
                    painter.fillRect(rect, tint("straw", 0.42 if cell == thing.at else 0.2))
                product = str(row * column)
                words(painter, rect.center(), product, NEEDLE, 26 if len(product) < 3 else 23, bold=cell == thing.at)
            painter.setPen(QPen(HAIRLINE, 1.2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(rect)
        painter.setPen(QPen(NEEDLE, 2.4))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(QRectF(0, 0, whole.width, whole.height))
        painter.drawLine(QPointF(CELL, 0), QPointF(CELL, whole.height))
        painter.drawLine(QPointF(0, CELL), QPointF(whole.width, CELL))
