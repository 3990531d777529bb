"""Points with their letters. One that is free is full, one that follows is a ring."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPixmap

from larch.board.look import NEEDLE, PAPER, colour
from larch.board.paint import painting
from larch.board.views.base import Slip, words
from larch.board.views.figure_view import FigureView, shown_facts
from larch.core.base.shape import Box
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.geometry.point import DOT, Point

LETTER = 28.0
SPAN = DOT + 2.0
SMOOTH = QPainter.RenderHint.Antialiasing
AWAY = (17.0, -19.0)


RIM = QPen(PAPER, 1.5)


@lru_cache(64)
def _ring_pen(hue: str) -> QPen:
    return QPen(colour(hue), 3)


def paint_dot(painter: QPainter, at: QPointF, hue: str, ring: bool) -> None:
    if ring:
        painter.setPen(_ring_pen(hue))
        painter.setBrush(PAPER)
        painter.drawEllipse(at, DOT - 2.0, DOT - 2.0)
    else:
        painter.setPen(RIM)
        painter.setBrush(colour(hue))
        painter.drawEllipse(at, DOT, DOT)


@lru_cache(64)
def _dot(hue: str, ring: bool, scale: float) -> tuple[QPixmap, QRectF]:
    """A point as a picture, which is put down three times as fast as it is drawn."""
    side = max(2, round(2 * SPAN * scale))
    picture = QPixmap(side, side)
    picture.fill(Qt.GlobalColor.transparent)
    with painting(picture) as painter:
        painter.scale(side / (2 * SPAN), side / (2 * SPAN))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_dot(painter, QPointF(SPAN, SPAN), hue, ring)
    return picture, QRectF(picture.rect())


class PointView(FigureView):
    kind: ClassVar[type[Thing]] = Point
    margin: ClassVar[float] = 60.0

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Point)
        at = QPointF(thing.placement.x, thing.placement.y)
        ring = bool(thing.rule) and thing.rule not in ("on", "plotted")
        if painter.testRenderHint(SMOOTH):
            paint_dot(painter, at, thing.hue, ring)
        else:  # in a hurry, as while many things follow a drag
            picture, whole = _dot(thing.hue, ring, painter.deviceTransform().m11())
            painter.drawPixmap(QRectF(at.x() - SPAN, at.y() - SPAN, 2 * SPAN, 2 * SPAN), picture, whole)
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
            yield Slip(fact.text, spots, thing.hue, name=fact.name)
