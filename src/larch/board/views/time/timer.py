"""A timer: a candle that burns down beside its marks, the burnt part dashed; the time below. A stopwatch is its time."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen

from larch.board.look import NEEDLE, PAPER, colour, tint
from larch.board.views.base import View, words
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.time.timer import CANDLE, FOOT, WIDE, Timer, duration_text

TOP, BOTTOM = 34.0, CANDLE - 14.0  # of the whole candle
LEFT, RIGHT = 104.0, 164.0


class TimerView(View):
    kind: ClassVar[type[Thing]] = Timer

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Timer)
        if thing.length:
            self._candle(painter, thing)
        y = (CANDLE if thing.length else 0.0) + FOOT / 2
        text = duration_text(thing.shown_seconds())
        words(painter, QPointF(WIDE / 2 - 22, y), text, NEEDLE, 56 if len(text) < 6 else 44, bold=True)
        self._sign(painter, QPointF(WIDE - 34, y), bool(thing.going) and not (thing.length and not thing.left()))

    def _sign(self, painter: QPainter, at: QPointF, going: bool) -> None:
        """What a tap does: a triangle starts it, two bars pause it."""
        painter.setPen(QPen(NEEDLE, 2.0))
        painter.setBrush(PAPER)
        painter.drawEllipse(at, 26, 26)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NEEDLE)
        if going:
            painter.drawRect(QRectF(at.x() - 9, at.y() - 11, 6, 22))
            painter.drawRect(QRectF(at.x() + 3, at.y() - 11, 6, 22))
        else:
            path = QPainterPath(QPointF(at.x() - 7, at.y() - 11))
            path.lineTo(at.x() + 12, at.y())
            path.lineTo(at.x() - 7, at.y() + 11)
            path.closeSubpath()
            painter.drawPath(path)

    def _candle(self, painter: QPainter, thing: Timer) -> None:
        shade, share = colour(thing.hue), thing.left() / thing.length
        top = BOTTOM - (BOTTOM - TOP) * share
        painter.setPen(QPen(NEEDLE, 1.4, Qt.PenStyle.DashLine))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(QRectF(LEFT, TOP, RIGHT - LEFT, BOTTOM - TOP))
        painter.setPen(QPen(shade.darker(125), 2.0))
        painter.setBrush(tint(thing.hue, 0.42))
        painter.drawRect(QRectF(LEFT, top, RIGHT - LEFT, BOTTOM - top))
        middle = (LEFT + RIGHT) / 2
        painter.setPen(QPen(NEEDLE, 2.4))
        painter.drawLine(QPointF(middle, top), QPointF(middle, top - 7))
        if thing.left() > 0:
            flame = QPainterPath(QPointF(middle, top - 32))
            flame.cubicTo(QPointF(middle + 14, top - 16), QPointF(middle + 9, top - 5), QPointF(middle, top - 5))
            flame.cubicTo(QPointF(middle - 9, top - 5), QPointF(middle - 14, top - 16), QPointF(middle, top - 32))
            painter.setPen(QPen(colour("clay").darker(125), 1.6))
            painter.setBrush(tint("clay", 0.42 if thing.going else 0.14))
            painter.drawPath(flame)
        painter.setPen(QPen(NEEDLE, 2.0))
        painter.drawLine(QPointF(LEFT - 26, BOTTOM), QPointF(RIGHT + 12, BOTTOM))
        step, unit = (60.0, 60.0) if thing.length > 60 else (10.0, 1.0)
        while thing.length / step > 6:
            step *= 5 if step in (60.0, 600.0) else 2
        mark = 0.0
        while mark <= thing.length + 1e-6:
            y = BOTTOM - (BOTTOM - TOP) * mark / thing.length
            painter.setPen(QPen(NEEDLE, 2.0))
            painter.drawLine(QPointF(LEFT - 26, y), QPointF(LEFT - 12, y))
            words(painter, QPointF(LEFT - 46, y), f"{mark / unit:g}", NEEDLE, 24)
            mark += step
