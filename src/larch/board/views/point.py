"""Points with their letters. One that is free is full, one that follows is a ring."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache
from typing import ClassVar

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QPainter, QPen

from larch.board.figure_view import FigureView, shown_facts
from larch.board.look import NEEDLE, PAPER, colour
from larch.board.slips import Slip
from larch.board.views.base import words
from larch.core.page import Page
from larch.core.shape import Box
from larch.core.thing import Thing
from larch.core.things.point import DOT, Point

LETTER = 28.0
AWAY = (17.0, -19.0)


RIM = QPen(PAPER, 1.5)


@lru_cache(64)
def _ring_pen(hue: str) -> QPen:
    return QPen(colour(hue), 3)


class PointView(FigureView):
    kind: ClassVar[type[Thing]] = Point
    margin: ClassVar[float] = 60.0

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Point)
        at = QPointF(thing.placement.x, thing.placement.y)
        shade = colour(thing.hue)
        slides = thing.rule in ("on", "plotted")
        if thing.rule and not slides:
            painter.setPen(_ring_pen(thing.hue))
            painter.setBrush(PAPER)
            painter.drawEllipse(at, DOT - 2.0, DOT - 2.0)
        else:
            painter.setPen(RIM)
            painter.setBrush(shade)
            painter.drawEllipse(at, DOT, DOT)
        if thing.name.strip():
            words(painter, QPointF(at.x() + AWAY[0], at.y() + AWAY[1]), thing.name, NEEDLE, LETTER, bold=True)
        self.paint_slips(painter, thing, page)

    def kept_free(self, thing: Thing) -> list[Box]:
        x, y = thing.placement.x, thing.placement.y
        return [Box(x - 9, y - 34, x + 30, y + 9)]

    def slips(self, thing: Thing, page: Page) -> Iterator[Slip]:
        x, y = thing.placement.x, thing.placement.y
        spots = [(x + 58, y + 26), (x - 58, y + 26), (x + 62, y - 36), (x - 62, y - 30), (x, y + 44)]
        for fact in shown_facts(thing, page):
            yield Slip(fact.text, spots, thing.hue)
