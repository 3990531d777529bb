"""A month: weekends on stone, marked days framed and tinted, the span between them in words below."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import HAIRLINE, NEEDLE, PAPER, STONE, colour, text_colour, tint
from larch.board.views.base import View, words
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.time.calendar import CELL, DAYS, FOOT, HEAD, Calendar


class CalendarView(View):
    kind: ClassVar[type[Thing]] = Calendar

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Calendar)
        words(painter, QPointF(3.5 * CELL, 28), thing.head(), NEEDLE, 36, bold=True)
        for k, name in enumerate(DAYS):
            words(painter, QPointF((k + 0.5) * CELL, HEAD - 20), _(name), NEEDLE, 26, bold=True)
        low, high = (thing.marked[0], thing.marked[-1]) if thing.marked else (0, 0)
        for row in range(thing.weeks()):
            for column in range(7):
                rect = QRectF(column * CELL, HEAD + row * CELL, CELL, CELL)
                painter.fillRect(rect, STONE if column > 4 else PAPER)
                painter.setPen(QPen(HAIRLINE, 1.2))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRect(rect)
        for day in range(1, thing.days() + 1):
            box = thing.day_box(day)
            rect = QRectF(box.x0, box.y0, CELL, CELL)
            if low < day < high:
                painter.fillRect(rect.adjusted(1, 1, -1, -1), tint(thing.hue, 0.2))
            if day in thing.marked:
                painter.setPen(QPen(colour(thing.hue).darker(125), 3.0))
                painter.setBrush(tint(thing.hue, 0.42))
                painter.drawRoundedRect(rect.adjusted(3, 3, -3, -3), 6, 6)
            words(painter, rect.center(), str(day), NEEDLE, 28, bold=day in thing.marked)
        if thing.span_text():
            y = HEAD + thing.weeks() * CELL + FOOT / 2
            words(painter, QPointF(3.5 * CELL, y), thing.span_text(), text_colour(thing.hue), 30, bold=True)
