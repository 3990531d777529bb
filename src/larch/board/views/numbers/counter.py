"""A counter: its first side plain and solid, its second pale with a ring and a dot."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import colour, tint
from larch.board.views.base import View
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.counter import ACROSS, Counter

SECOND = "berry"


def paint_counter(painter: QPainter, at: QPointF, radius: float, second: bool, hue: str = "lake") -> None:
    """One side of a counter, round a place."""
    hue = SECOND if second else hue
    shade = colour(hue)
    painter.setPen(QPen(shade.darker(125), max(1.5, 0.08 * radius)))
    painter.setBrush(tint(hue, 0.2) if second else shade)
    painter.drawEllipse(at, radius - 1, radius - 1)
    if second:
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(shade, max(1.2, 0.07 * radius)))
        painter.drawEllipse(at, 0.68 * radius, 0.68 * radius)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(shade)
        painter.drawEllipse(at, 0.3 * radius, 0.3 * radius)


class CounterView(View):
    kind: ClassVar[type[Thing]] = Counter

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Counter)
        paint_counter(painter, QPointF(ACROSS / 2, ACROSS / 2), ACROSS / 2, thing.second, thing.hue)

    def motion(self, before: Thing, after: Thing) -> int:
        assert isinstance(before, Counter) and isinstance(after, Counter)
        return 260 if before.second != after.second else 0

    def paint_motion(self, painter: QPainter, before: Thing, after: Thing, page: Page, t: float) -> None:
        """It turns over on its upright axis."""
        centre = self.box(after).centre
        painter.save()
        painter.translate(*centre)
        painter.scale(max(0.04, abs(1 - 2 * t)), 1.0)
        painter.translate(-centre[0], -centre[1])
        self.paint(painter, before if t < 0.5 else after, page)
        painter.restore()
