"""Dials: a ring of ten parts, as many filled as the digit says; − and + below; a line with the mark, figures and words."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFontMetricsF, QPainter, QPainterPath, QPen, QPolygonF

from larch.board.look import NEEDLE, PAPER, colour, page_font, tint
from larch.board.views.base import View, badge, words
from larch.core.base.hues import hue_of_place
from larch.core.base.number_words import in_words
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.column_dials import ACROSS, BUTTON, NAMES, RING, STEP, ColumnDials

HANDLE = 15.0


class ColumnDialsView(View):
    kind: ClassVar[type[Thing]] = ColumnDials
    margin: ClassVar[float] = 20.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, ColumnDials)
        for place in range(thing.places):
            self._dial(painter, thing, place)
        if thing.labelled():
            self._line(painter, thing)

    def _dial(self, painter: QPainter, thing: ColumnDials, place: int) -> None:
        x, y = thing.middle(place)
        hue, digit = hue_of_place(place), thing.digit(place)
        shade = colour(hue)
        outer = QRectF(x - ACROSS / 2, y - ACROSS / 2, ACROSS, ACROSS)
        inner = outer.adjusted(RING, RING, -RING, -RING)
        painter.setPen(QPen(PAPER, 2.0))
        for k in range(10):
            path = QPainterPath()
            path.arcMoveTo(outer, 90 - 36 * k)
            path.arcTo(outer, 90 - 36 * k, -36)
            path.arcTo(inner, 54 - 36 * k, 36)
            path.closeSubpath()
            painter.setBrush(shade if k < digit else tint(hue, 0.2))
            painter.drawPath(path)
        painter.setPen(QPen(shade.darker(125), 2.0))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(outer)
        hx, hy = thing.part_place(NAMES[place])
        painter.setBrush(PAPER)
        painter.setPen(QPen(shade.darker(125), 3.0))
        painter.drawEllipse(QPointF(hx, hy), HANDLE, HANDLE)
        words(painter, QPointF(x, y), str(digit), NEEDLE, 60, bold=True)
        name = _(NAMES[place])
        size = min(28.0, 28.0 * (STEP - 14) / QFontMetricsF(page_font(28, True)).horizontalAdvance(name))
        words(painter, QPointF(x, 18), name, NEEDLE, size, bold=True)
        for more in (False, True):
            bx, by = thing.button(place, more)
            painter.setPen(QPen(NEEDLE, 2.0))
            painter.setBrush(PAPER)
            painter.drawEllipse(QPointF(bx, by), BUTTON / 2 - 2, BUTTON / 2 - 2)
            words(painter, QPointF(bx, by), "+" if more else "−", NEEDLE, 34)

    def _line(self, painter: QPainter, thing: ColumnDials) -> None:
        y, right = thing.line_y() + 16, thing.places * STEP - 30
        painter.setPen(QPen(NEEDLE, 3.0))
        painter.drawLine(QPointF(30, y), QPointF(right, y))
        most = 10**thing.places
        for k in range(11):
            x = 30 + (right - 30) * k / 10
            painter.setPen(QPen(NEEDLE, 2.0))
            painter.drawLine(QPointF(x, y - 8), QPointF(x, y + 8))
            if k in (0, 5, 10):
                words(painter, QPointF(x, y + 26), str(most * k // 10), NEEDLE, 24)
        x = thing.mark_x()
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NEEDLE)
        painter.drawPolygon(QPolygonF([QPointF(x, y - 2), QPointF(x - 9, y - 18), QPointF(x + 9, y - 18)]))
        badge(painter, (x, y - 38), str(thing.number), NEEDLE, 26)
        text = in_words(thing.number)
        room = thing.places * STEP
        wide = QFontMetricsF(page_font(28, True)).horizontalAdvance(text)
        words(painter, QPointF(room / 2, y + 56), text, NEEDLE, min(28.0, 28.0 * room / wide), bold=True)
