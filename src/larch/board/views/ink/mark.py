"""Marks that are stamped, cut from one piece of coloured paper each."""

from __future__ import annotations

import math
from functools import cache
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen, QPolygonF

from larch.board.look import PAPER, colour
from larch.board.views.base import View
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.ink.mark import Mark

LINES = {"tick": 0.17, "cross": 0.16, "ring": 0.13}  # width of the line over the size


class MarkView(View):
    kind: ClassVar[type[Thing]] = Mark

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Mark)
        paint_mark(painter, thing.shape, thing.size, thing.hue)


def paint_mark(painter: QPainter, shape: str, size: float, hue: str) -> None:
    """A mark about the origin. An unknown shape is a dot."""
    shade = colour(hue)
    painter.save()
    painter.scale(size, size)
    if shape in LINES:
        pen = QPen(shade, LINES[shape], Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap, Qt.PenJoinStyle.RoundJoin)
        painter.setPen(pen)
        painter.setBrush(Qt.BrushStyle.NoBrush)
    else:
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(shade)
    painter.drawPath(_path(shape))
    if shape == "lantern":
        painter.setPen(QPen(PAPER, 0.03))
        for x in (-0.11, 0.11):
            painter.drawLine(QPointF(x, -0.24), QPointF(x * 1.25, 0.28))
    painter.restore()


@cache
def _path(shape: str) -> QPainterPath:
    """In a square of side 1 about the origin."""
    path = QPainterPath()
    if shape == "tick":
        path.addPolygon(QPolygonF([QPointF(-0.36, 0.04), QPointF(-0.1, 0.32), QPointF(0.38, -0.32)]))
    elif shape == "cross":
        for turn in (1, -1):
            path.moveTo(-0.3, -0.3 * turn)
            path.lineTo(0.3, 0.3 * turn)
    elif shape == "ring":
        path.addEllipse(QPointF(0, 0), 0.4, 0.4)
    elif shape == "star":
        path.addPolygon(QPolygonF([_spoke(k) for k in range(10)]))
        path.closeSubpath()
    elif shape == "lantern":
        body = [(-0.17, -0.28), (0.17, -0.28), (0.33, 0.02), (0.2, 0.32), (-0.2, 0.32), (-0.33, 0.02)]
        path.addPolygon(QPolygonF([QPointF(x, y) for x, y in body]))
        path.closeSubpath()
        path.addRect(QRectF(-0.1, -0.37, 0.2, 0.06))
        path.addRect(QRectF(-0.02, -0.48, 0.04, 0.12))
        path.addRect(QRectF(-0.12, 0.35, 0.24, 0.05))
    else:
        path.addEllipse(QPointF(0, 0), 0.42, 0.42)
    return path


def _spoke(k: int) -> QPointF:
    radius = 0.48 if k % 2 == 0 else 0.2
    angle = math.radians(-90 + 36 * k)
    return QPointF(radius * math.cos(angle), radius * math.sin(angle))
