"""Coins in rows, in order of tossing: heads solid with a hole, tails hollow with a wave; a strip below shows their share."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen

from larch.board.look import NEEDLE, PAPER, SOFT, colour, tint
from larch.board.views.base import View, words
from larch.core.base.words import _
from larch.core.model.fact import number_text
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.chance.coins import STEP, Coins

ROUND = 14.0
STRIP = 18.0


class CoinsView(View):
    kind: ClassVar[type[Thing]] = Coins

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Coins)
        box, shade, across = thing.coins_box(), colour(thing.hue), thing.across()
        edge, wave = QPen(shade.darker(125), 2.0), QPen(shade.darker(110), 2.0)
        for k in range(thing.count):
            centre = QPointF(box.x0 + (k % across + 0.5) * STEP, box.y0 + (k // across + 0.5) * STEP)
            side = thing.up[k] if thing.up else ""
            painter.setPen(edge)
            painter.setBrush(shade if side == "h" else PAPER if side else tint(thing.hue, 0.2))
            painter.drawEllipse(centre, ROUND, ROUND)
            if side == "h":
                painter.setPen(Qt.PenStyle.NoPen)
                painter.setBrush(PAPER)
                painter.drawEllipse(centre, 5, 5)
            elif side:
                painter.setPen(wave)
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawPath(_wave(centre))
        if thing.labelled():
            self._strip(painter, thing)

    def _strip(self, painter: QPainter, coins: Coins) -> None:
        whole = coins.extent()
        box, shade = coins.coins_box(), colour(coins.hue)
        wide, top = whole.width, box.y1 + 8
        heads = coins.up.count("h") if coins.up else 0
        painter.setPen(QPen(NEEDLE, 1.6))
        painter.setBrush(PAPER)
        painter.drawRect(QRectF(0, top, wide, STRIP))
        if coins.up:
            painter.fillRect(QRectF(1, top + 1, (wide - 2) * heads / coins.count, STRIP - 2), shade)
            words(painter, QPointF(wide / 4, top + 38), _("{n} heads").format(n=heads), NEEDLE, 26, bold=True)
            words(
                painter, QPointF(3 * wide / 4, top + 38), _("{n} tails").format(n=coins.count - heads), NEEDLE, 26, bold=True
            )
            share = _("{n} % heads").format(n=number_text(100 * heads / coins.count, 1))
            words(painter, QPointF(wide / 2, top + 68), share, SOFT, 24)
        else:
            words(painter, QPointF(wide / 2, top + 42), _("tap to toss"), SOFT, 24)
        painter.setPen(QPen(NEEDLE, 3))
        painter.drawLine(QPointF(wide / 2, top - 4), QPointF(wide / 2, top + STRIP + 4))


def _wave(at: QPointF) -> QPainterPath:
    path = QPainterPath(QPointF(at.x() - 8, at.y() + 2))
    path.quadTo(QPointF(at.x() - 4, at.y() - 7), QPointF(at.x(), at.y()))
    path.quadTo(QPointF(at.x() + 4, at.y() + 7), QPointF(at.x() + 8, at.y() - 2))
    return path
