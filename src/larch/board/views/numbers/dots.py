"""Dots on a card; covered, a card with a question mark."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import NEEDLE, PAPER, colour, tint
from larch.board.views.base import View, badge, words
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.dots import DOT, SIDE, Dots

BESIDE = 20.0


class DotsView(View):
    kind: ClassVar[type[Thing]] = Dots
    margin: ClassVar[float] = 44.0
    shown_below: ClassVar[float] = BESIDE + 26

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Dots)
        painter.setPen(QPen(colour(thing.hue).darker(125), 2.4))
        painter.setBrush(tint("sky", 0.5) if thing.closed else PAPER)
        painter.drawRoundedRect(QRectF(2, 2, SIDE - 4, SIDE - 4), 14, 14)
        if thing.closed:
            words(painter, QPointF(SIDE / 2, SIDE / 2), "?", NEEDLE, 90, bold=True)
            return
        places = thing.places()
        apart = min(
            (abs(a[0] - b[0]) + abs(a[1] - b[1]) for k, a in enumerate(places) for b in places[:k]), default=2.4 * DOT
        )
        radius = max(4.0, min(DOT, 0.36 * apart))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour(thing.hue))
        for x, y in places:
            painter.drawEllipse(QPointF(x, y), radius, radius)

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Dots)
        if "value" in thing.shown and not thing.closed:
            box = self.box(thing)
            badge(painter, (box.centre[0], box.y1 + BESIDE), str(thing.number), NEEDLE, 28)
