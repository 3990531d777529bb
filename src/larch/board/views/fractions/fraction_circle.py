"""A circle of parts; in percent, with a ring of a hundred marks, 0 at the top."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import NEEDLE, colour, tint
from larch.board.views.base import View, badge, words
from larch.board.views.fractions.fraction_bar import FREE, TAKEN
from larch.board.views.fractions.parted import hue_of, part_name
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.fractions.fraction_circle import RADIUS, FractionCircle

BESIDE = 24.0


class FractionCircleView(View):
    kind: ClassVar[type[Thing]] = FractionCircle
    margin: ClassVar[float] = 50.0
    shown_below: ClassVar[float] = BESIDE + 24

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, FractionCircle)
        for whole in range(thing.wholes):
            self._whole(painter, thing, whole)

    def _whole(self, painter: QPainter, thing: FractionCircle, whole: int) -> None:
        cx, cy = thing.middle(whole)
        disc, n, hue = QRectF(cx - RADIUS, cy - RADIUS, 2 * RADIUS, 2 * RADIUS), thing.parts_count, hue_of(thing)
        filled, edge = set(thing.filled), QPen(colour(hue).darker(125), 2.4)
        for k in range(n):
            painter.setPen(edge)
            painter.setBrush(tint(hue, TAKEN if whole * n + k in filled else FREE))
            if n == 1:
                painter.drawEllipse(disc)
            else:
                painter.drawPie(disc, round(16 * (90 - 360 * k / n)), round(-16 * 360 / n))
        for k in range(n):
            x, y = thing.part_place(str(whole * n + k))
            wide = 2 * 0.6 * RADIUS * math.sin(math.pi / n) if n > 2 else RADIUS
            part_name(painter, thing, QPointF(x, y), wide, min(78.0, 1.5 * wide), NEEDLE)
        if thing.labels == "percent":
            self._hundred(painter, cx, cy)

    def _hundred(self, painter: QPainter, cx: float, cy: float) -> None:
        for mark in range(100):
            angle = math.tau * mark / 100
            long = 12.0 if mark % 10 == 0 else 8.0 if mark % 5 == 0 else 5.0
            s, c = math.sin(angle), math.cos(angle)
            painter.setPen(QPen(NEEDLE, 2.0 if mark % 5 == 0 else 1.2))
            a, b = RADIUS + 3, RADIUS + 3 + long
            painter.drawLine(QPointF(cx + a * s, cy - a * c), QPointF(cx + b * s, cy - b * c))
        for mark in (0, 25, 50, 75):
            angle, away = math.tau * mark / 100, RADIUS + 26
            words(painter, QPointF(cx + away * math.sin(angle), cy - away * math.cos(angle)), str(mark), NEEDLE, 22)

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, FractionCircle)
        shown = [fact.text for fact in thing.facts(page) if fact.badge and fact.badge in thing.shown]
        if shown:
            box = self.box(thing)
            badge(painter, (box.centre[0], box.y1 + BESIDE), " = ".join(shown), NEEDLE, 28)
