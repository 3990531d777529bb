"""A rod: a bar in the hue of its number, with unit marks on its lower edge."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import NEEDLE, colour, tint
from larch.board.views.base import View, words
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.rod import HIGH, UNIT, Rod


class RodView(View):
    kind: ClassVar[type[Thing]] = Rod

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Rod)
        shade = colour(thing.colour()).darker(125)
        wide = thing.length * UNIT
        painter.setPen(QPen(shade, 2.4))
        painter.setBrush(tint(thing.colour(), 0.42))
        painter.drawRoundedRect(QRectF(1, 1, wide - 2, HIGH - 2), 5, 5)
        painter.setPen(QPen(shade, 2.0))
        for k in range(1, thing.length):
            painter.drawLine(QPointF(k * UNIT, HIGH - 9), QPointF(k * UNIT, HIGH - 2))
        words(painter, QPointF(wide / 2, HIGH / 2), str(thing.length), NEEDLE, 28, bold=True)
