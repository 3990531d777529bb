"""A number on a flag: its pole ends in a point on the line; checked, a ring at it says how it stands."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from larch.board.look import PAPER, RIGHT, WRONG, colour, text_colour
from larch.board.views.base import View, words
from larch.core.base.shape import Box
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.number_flag import POLE, NumberFlag

SIGN = 15.0  # radius of the ring that says how it stands


class NumberFlagView(View):
    kind: ClassVar[type[Thing]] = NumberFlag
    margin: ClassVar[float] = SIGN + 2

    def extent(self, thing: Thing) -> Box:
        assert isinstance(thing, NumberFlag)
        return thing.extent()

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, NumberFlag)
        shade, cloth = colour(thing.hue), thing.cloth()
        painter.setPen(QPen(shade, 4.0, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        painter.drawLine(QPointF(0, -POLE), QPointF(0, -6))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(shade)
        painter.drawPolygon(QPolygonF([QPointF(0, 0), QPointF(-7, -13), QPointF(7, -13)]))
        painter.setPen(QPen(shade, 3.0))
        painter.setBrush(PAPER)
        painter.drawRoundedRect(QRectF(cloth.x0, cloth.y0, cloth.width, cloth.height), 8, 8)
        middle = QPointF(*cloth.centre)
        words(painter, middle, thing.text, text_colour(thing.hue), 36, bold=True)
        right = thing.stands_right(page) if thing.check else None
        if right is not None:
            _sign(painter, QPointF(cloth.x1 - 2, cloth.y0 + 2), right)


def _sign(painter: QPainter, at: QPointF, right: bool) -> None:
    shade = RIGHT if right else WRONG
    painter.setPen(QPen(shade, 2.4))
    painter.setBrush(PAPER)
    painter.drawEllipse(at, SIGN, SIGN)
    pen = QPen(shade, 3.2, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap, Qt.PenJoinStyle.RoundJoin)
    painter.setPen(pen)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    if right:
        painter.drawPolyline(QPolygonF([at + QPointF(-6, 0), at + QPointF(-1.5, 5), at + QPointF(7, -6)]))
    else:  # a turning-back arrow
        painter.drawArc(QRectF(at.x() - 6, at.y() - 5, 12, 11), -150 * 16, 260 * 16)
        painter.drawPolyline(QPolygonF([at + QPointF(-10, 0), at + QPointF(-5.5, 4.5), at + QPointF(-1.5, -0.5)]))
