"""Random numbers on cards."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QRectF
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import NEEDLE, colour, tint
from larch.board.views.base import View, words
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.chance.random_numbers import RandomNumbers


class RandomNumbersView(View):
    kind: ClassVar[type[Thing]] = RandomNumbers

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, RandomNumbers)
        for k in range(thing.count):
            box = thing.place(k)
            rect = QRectF(box.x0 + 1, box.y0 + 1, box.width - 2, box.height - 2)
            painter.setPen(QPen(colour(thing.hue).darker(125), 2.4))
            painter.setBrush(tint(thing.hue, 0.2))
            painter.drawRoundedRect(rect, 9, 9)
            text = str(thing.values[k]) if thing.values else "?"
            words(painter, rect.center(), text, NEEDLE, min(60.0, 180.0 / len(text)), bold=True)
