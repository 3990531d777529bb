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
from larch.core.things.fractions.fraction_piece import HIGH, RADIUS, FractionPiece

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
        at, wide, high = QPointF(*box.centre), box.width, HIGH
        if thing.form == "bar":
            painter.drawRoundedRect(QRectF(1, 1, box.width - 2, box.height - 2), 4, 4)
        elif n == 1:
            painter.drawEllipse(QRectF(1, 1, box.width - 2, box.height - 2))
        else:
            x, y = thing.tip()
            disc = QRectF(x - RADIUS, y - RADIUS, 2 * RADIUS, 2 * RADIUS)
            half = thing.half_angle()
            painter.drawPie(disc, round(16 * (90 - half)), round(32 * half))
            away = 0.62 if n > 3 else 0.5
            at = QPointF(x, y - away * RADIUS)
            wide, high = (2 * away * RADIUS * math.tan(math.radians(half)) if n > 4 else RADIUS), 90.0
        self._name(painter, thing, at, wide, high)

    def _name(self, painter: QPainter, thing: FractionPiece, at: QPointF, wide: float, high: float) -> None:
        if thing.parts_count == 1:
            words(painter, at, "1", NEEDLE, LARGEST, bold=True)
            return
        size = min(LARGEST, 0.36 * high, 0.8 * wide / (0.72 * len(str(thing.parts_count))))
        if size >= LEAST:
            stacked(painter, at, "1", str(thing.parts_count), size, NEEDLE)

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        shown = [fact.text for fact in thing.facts(page) if fact.badge and fact.badge in thing.shown]
        if shown:
            box = self.box(thing)
            badge(painter, (box.centre[0], box.y1 + BESIDE), " = ".join(shown), NEEDLE, 26)
