"""What the views of all figures share: slips with measures, and fading when a figure is not there."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from functools import lru_cache
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPen, QPolygonF

from larch.board.look import colour
from larch.board.views.base import Slip, View
from larch.board.views.measure_labels import FURTHEST, lay, paint_slips, slips_of
from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.thing import Thing

LINE = 3.5
FADED = 0.22
INHERITED = N_("What it hangs on is not there.")


class FigureView(View):
    """Paints a figure; one that is not there is faint, with the reason where it last was."""

    margin: ClassVar[float] = 96.0

    def paint_whole(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Figure)
        if not thing.why:
            super().paint_whole(painter, thing, page)
            return
        if _nowhere(thing):
            return
        painter.save()
        painter.setOpacity(painter.opacity() * FADED)
        super().paint_whole(painter, thing.replace(shown=()), page)
        painter.restore()
        if thing.why != INHERITED:
            at = self.box(thing).centre
            spots = [(at[0], at[1] + 34), (at[0], at[1] - 34)]
            paint_slips(painter, lay([Slip(_(thing.why), spots, "slate", bare=True, size=20.0)], []))

    def reach(self, thing: Thing, page: Page) -> Box:
        return super().reach(thing, page).grown(FURTHEST if thing.shown else 0.0)

    def slips(self, thing: Thing, page: Page) -> Iterator[Slip]:
        """The measures that are shown, with the places where each may lie."""
        centre = self.box(thing).centre
        for fact in shown_facts(thing, page):
            yield Slip(f"{fact.label} {fact.text}", stacked(centre), thing.hue, name=fact.name)

    def kept_free(self, thing: Thing) -> list[Box]:
        """Where no slip should lie, since letters stand there."""
        return []

    def paint_slips(self, painter: QPainter, thing: Thing, page: Page) -> None:
        if thing.shown:
            paint_slips(painter, slips_of(thing, self, page))


def _nowhere(figure: Figure) -> bool:
    """Whether it has never been anywhere yet."""
    return bool(figure.rule) and figure.form() == type(figure)().form()


def shown_facts(thing: Thing, page: Page) -> list[Fact]:
    """The facts that are shown on it, in their order."""
    return [fact for fact in thing.facts(page) if fact.badge and fact.badge in thing.shown and fact.value is not None]


def stacked(at: Point) -> list[Point]:
    """A place, and those just below and above it."""
    return [(at[0], at[1] + k * 37) for k in (0, 1, -1)]


def beside(a: Point, b: Point, away: float = 34.0) -> list[Point]:
    """Places on a side, from its middle, then beside it."""
    length = math.dist(a, b) or 1.0
    nx, ny = (b[1] - a[1]) / length, (a[0] - b[0]) / length
    on = [(a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t) for t in (0.5, 0.36, 0.64, 0.24, 0.76)]
    off = [(x + side * away * nx, y + side * away * ny) for side in (1, -1) for x, y in on[:3]]
    return [*on, *off]


def line_pen(thing: Thing, scale: float = 1.0, dashed: bool = False) -> QPen:
    return _line_pen(thing.hue, scale, dashed)


@lru_cache(256)
def _line_pen(hue: str, scale: float, dashed: bool) -> QPen:
    pen = QPen(colour(hue), LINE / scale)
    pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
    pen.setCapStyle(Qt.PenCapStyle.RoundCap)
    if dashed:
        pen.setStyle(Qt.PenStyle.CustomDashLine)
        pen.setDashPattern([2.5, 3.0])
    return pen


def wash(hue: str, strength: int = 28) -> QColor:
    """A hue as a thin fill."""
    fill = QColor(colour(hue))
    fill.setAlpha(strength)
    return fill


def paint_arc(painter: QPainter, at: Point, radius: float, start: float, span: float) -> None:
    """Part of a circle; degrees, counter-clockwise."""
    box = QRectF(at[0] - radius, at[1] - radius, 2 * radius, 2 * radius)
    painter.drawArc(box, round(start * 16), round(span * 16))


def paint_right_angle(painter: QPainter, at: Point, a: Point, b: Point, size: float) -> None:
    """The little square in a right angle."""
    u, v = unit(at, a), unit(at, b)
    points = [(u, (0.0, 0.0)), (u, v), ((0.0, 0.0), v)]
    painter.drawPolyline(QPolygonF([QPointF(at[0] + (p[0] + q[0]) * size, at[1] + (p[1] + q[1]) * size) for p, q in points]))


def unit(a: Point, b: Point) -> Point:
    length = math.dist(a, b) or 1.0
    return ((b[0] - a[0]) / length, (b[1] - a[1]) / length)


def arrow_head(painter: QPainter, tip: Point, way: Point, size: float, shade: QColor) -> None:
    """A filled head at the tip of an arrow that goes a way (of length 1)."""
    wx, wy = way
    back = (tip[0] - wx * size, tip[1] - wy * size)
    corners = [
        tip,
        (back[0] - wy * size * 0.42, back[1] + wx * size * 0.42),
        (back[0] + wy * size * 0.42, back[1] - wx * size * 0.42),
    ]
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(shade)
    painter.drawPolygon(QPolygonF([QPointF(*corner) for corner in corners]))


def polygon_of(points: Sequence[Point]) -> QPolygonF:
    return QPolygonF([QPointF(x, y) for x, y in points])
