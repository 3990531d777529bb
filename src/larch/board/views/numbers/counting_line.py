"""A counting line: a double line; what is beyond it has its number below it; the whole stands large at the right."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFontMetricsF, QPainter, QPen

from larch.board.look import NEEDLE, PAPER, page_font
from larch.board.views.base import View, words
from larch.core.base.number_words import in_words
from larch.core.base.shape import Box
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.counting_line import AT, FIGURE, CountingLine

RING = 20.0


class CountingLineView(View):
    kind: ClassVar[type[Thing]] = CountingLine
    margin: ClassVar[float] = 60.0

    def _rim(self, painter: QPainter, thing: CountingLine) -> None:
        """What things are dragged over or into."""
        room = thing.room()
        rect = QRectF(room.x0, room.y0, room.width, room.height)
        painter.setPen(QPen(NEEDLE, 6.0))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if thing.form == "tray":
            painter.drawRoundedRect(rect, 22, 22)
        elif thing.form == "ring":
            painter.drawEllipse(rect)
        else:
            painter.drawLine(QPointF(AT, 3), QPointF(AT, thing.height - 3))
            painter.setPen(QPen(NEEDLE, 2.0))
            painter.drawLine(QPointF(AT + 9, 3), QPointF(AT + 9, thing.height - 3))

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, CountingLine)
        self._rim(painter, thing)
        over = thing.over(page)
        for number, one in enumerate(over, 1):
            box: Box = one.box()
            x, y = thing.placement.to_local(box.centre[0], box.y1)
            at = QPointF(x, min(y + RING + 8, thing.height - RING - 2))
            painter.setPen(QPen(NEEDLE, 2.0))
            painter.setBrush(PAPER)
            painter.drawEllipse(at, RING, RING)
            words(painter, at, str(number), NEEDLE, 26, bold=True)
        if not thing.labelled():
            return
        x = thing.width - FIGURE / 2
        words(painter, QPointF(x, thing.height / 2 - 24), str(len(over)), NEEDLE, 120, bold=True)
        text = in_words(len(over))
        wide = QFontMetricsF(page_font(42, True)).horizontalAdvance(text)
        words(painter, QPointF(x, thing.height / 2 + 66), text, NEEDLE, min(42.0, 42.0 * (FIGURE - 10) / wide), bold=True)
