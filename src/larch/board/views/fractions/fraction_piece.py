"""A loose piece: as strong in colour as what is taken, a little see-through, so that what lies under it can be told."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import NEEDLE, colour, tint
from larch.board.views.base import View, badge, words
from larch.board.views.fractions.parted import LARGEST, stacked
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.fractions.fraction_piece import RADIUS, FractionPiece

STRONG = 0.58
LEAST = 9.0  # a smaller number could not be read
BESIDE = 22.0


class FractionPieceView(View):
    kind: ClassVar[type[Thing]] = FractionPiece
    shown_below: ClassVar[float] = BESIDE + 20

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, FractionPiece)
        painter.setPen(QPen(colour(thing.colour()).darker(125), 2.4))
        painter.setBrush(tint(thing.colour(), STRONG))
        box, n = thing.extent(), thing.parts_count
        if thing.form == "bar":
            painter.drawRoundedRect(QRectF(1, 1, box.width - 2, box.height - 2), 4, 4)
        elif n == 1:
            painter.drawEllipse(QRectF(1, 1, box.width - 2, box.height - 2))
        else:
            x, y = thing.tip()
            half = thing.half_angle()
            disc = QRectF(x - RADIUS, y - RADIUS, 2 * RADIUS, 2 * RADIUS)
            painter.drawPie(disc, round(16 * (90 - half)), round(32 * half))

    def _named_at(self, thing: FractionPiece) -> tuple[tuple[float, float], float, float]:
        """Where its name stands, in its own coordinates, and the room it has there, across and down."""
        box, n = thing.extent(), thing.parts_count
        if thing.form == "bar" or n == 1:
            upright = abs(thing.placement.turn % 180 - 90) > 45
            return box.centre, *((box.width, box.height) if upright else (box.height, box.width))
        away = 0.62 if n > 3 else 0.5
        wide = 2 * away * RADIUS * math.tan(math.radians(thing.half_angle())) if n > 4 else RADIUS
        x, y = thing.tip()
        return (x, y - away * RADIUS), wide, 90.0

    def _name(self, painter: QPainter, thing: FractionPiece, at: QPointF, wide: float, high: float) -> None:
        if thing.parts_count == 1:
            words(painter, at, "1", NEEDLE, LARGEST * thing.placement.scale, bold=True)
            return
        size = min(LARGEST * thing.placement.scale, 0.36 * high, 0.8 * wide / (0.72 * len(str(thing.parts_count))))
        if size >= LEAST:
            stacked(painter, at, "1", str(thing.parts_count), size, NEEDLE)

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, FractionPiece)
        at, wide, high = self._named_at(thing)
        scale = thing.placement.scale
        self._name(painter, thing, QPointF(*thing.placement.to_page(*at)), scale * wide, scale * high)
        shown = [fact.text for fact in thing.facts(page) if fact.badge and fact.badge in thing.shown]
        if shown:
            box = self.box(thing)
            badge(painter, (box.centre[0], box.y1 + BESIDE), " = ".join(shown), NEEDLE, 26)
