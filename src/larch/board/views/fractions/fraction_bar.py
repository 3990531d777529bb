"""A bar: parts side by side, those taken tinted; gold is never its colour."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import NEEDLE, colour, tint
from larch.board.views.base import View, badge
from larch.board.views.fractions.parted import hue_of, part_name
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.fractions.fraction_bar import HIGH, LONG, FractionBar

TAKEN, FREE = 0.42, 0.14
BESIDE = 26.0


class FractionBarView(View):
    kind: ClassVar[type[Thing]] = FractionBar
    margin: ClassVar[float] = 150.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, FractionBar)
        hue, filled = hue_of(thing), set(thing.filled)
        edge = QPen(colour(hue).darker(125), 2.4)
        for part in range(thing.parts_count * thing.wholes):
            box = thing.part_box(part)
            painter.setPen(edge)
            painter.setBrush(tint(hue, TAKEN if part in filled else FREE))
            painter.drawRect(QRectF(box.x0, box.y0, box.width, box.height))
            part_name(painter, thing, QPointF(*box.centre), box.width, HIGH, NEEDLE)
        if thing.wholes > 1:
            painter.setPen(QPen(NEEDLE, 4.0))
            for whole in range(1, thing.wholes):
                painter.drawLine(QPointF(whole * LONG, 0), QPointF(whole * LONG, HIGH))

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, FractionBar)
        shown = [fact.text for fact in thing.facts(page) if fact.badge and fact.badge in thing.shown]
        if shown:
            box = self.box(thing)
            text = " = ".join(shown)
            badge(painter, (box.x1 + BESIDE + 8.0 * len(text), box.centre[1]), text, NEEDLE, 28)
