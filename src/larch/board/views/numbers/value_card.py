"""A value card: digits at their places, tinted by the place of its own."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import NEEDLE, colour, tint
from larch.board.views.base import View, words
from larch.core.base.hues import hue_of_place
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.value_card import DIGIT, HIGH, POINT, ValueCard


class ValueCardView(View):
    kind: ClassVar[type[Thing]] = ValueCard

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, ValueCard)
        hue, box = thing.hue or hue_of_place(thing.power), thing.extent()
        painter.setPen(QPen(colour(hue).darker(125), 2.4))
        painter.setBrush(tint(hue, 0.2))
        painter.drawRoundedRect(QRectF(1, 1, box.width - 2, HIGH - 2), 9, 9)
        before = thing.before_point()
        for k in range(before):
            digit = str(thing.digit) if thing.power >= 0 and k == 0 else "0"
            words(painter, QPointF((k + 0.5) * DIGIT, HIGH / 2), digit, NEEDLE, 72, bold=True)
        if thing.power < 0:
            words(painter, QPointF(thing.anchor() + POINT / 2, HIGH / 2 + 12), ".", NEEDLE, 72, bold=True)
            for k in range(-thing.power):
                digit = str(thing.digit) if k == -thing.power - 1 else "0"
                x = thing.anchor() + POINT + (k + 0.5) * DIGIT
                words(painter, QPointF(x, HIGH / 2), digit, NEEDLE, 72, bold=True)
