"""A brace: two bows from its ends that meet in the tip, and the words there, always upright."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen

from larch.board.look import colour, text_colour
from larch.board.views.base import View, words
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.organisers.brace import SIZE, Brace

WIDTH = 4.0


class BraceView(View):
    kind: ClassVar[type[Thing]] = Brace
    margin: ClassVar[float] = WIDTH

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Brace)
        painter.setPen(QPen(colour(thing.hue), WIDTH, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPath(brace_path(thing.long, thing.deep))
        if thing.text:
            painter.save()
            painter.translate(*thing.words_box().centre)
            painter.rotate(thing.placement.turn)
            words(painter, QPointF(0, 0), thing.text, text_colour(thing.hue), SIZE)
            painter.restore()


def brace_path(long: float, deep: float) -> QPainterPath:
    """From end to end, the bows half as deep as the tip."""
    bow, half = min(0.9 * deep, long / 4), deep / 2
    path = QPainterPath(QPointF(0, 0))
    path.quadTo(QPointF(0, half), QPointF(bow, half))
    path.lineTo(QPointF(long / 2 - bow, half))
    path.quadTo(QPointF(long / 2, half), QPointF(long / 2, deep))
    path.quadTo(QPointF(long / 2, half), QPointF(long / 2 + bow, half))
    path.lineTo(QPointF(long - bow, half))
    path.quadTo(QPointF(long, half), QPointF(long, 0))
    return path
