"""Lines between things."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFontMetricsF, QPainter, QPainterPath, QPen

from larch.board.look import NEEDLE, PAPER, colour, page_font
from larch.board.views.figure_view import FigureView, arrow_head, polygon_of, unit
from larch.core.base.shape import Point
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.organisers.connector import Connector

LINE, HEAD, LETTER = 3.2, 17.0, 30.0
BULGE = 0.16  # how far a curved line of one piece swings aside, of its length


class ConnectorView(FigureView):
    kind: ClassVar[type[Thing]] = Connector
    margin: ClassVar[float] = 80.0

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Connector)
        points = list(thing.form().corners)
        if len(points) < 2 or math.dist(points[0], points[-1]) < 1e-6:
            return
        pen = QPen(colour(thing.hue), LINE)
        pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
        pen.setCapStyle(Qt.PenCapStyle.RoundCap)
        painter.setPen(pen)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        ends = {"end": (False, True), "both": (True, True), "none": (False, False)}[thing.arrows]
        if thing.style == "curved":
            path = _curve(points)
            first, last = path.pointAtPercent(0.04), path.pointAtPercent(0.96)
            towards = ((first.x(), first.y()), (last.x(), last.y()))
            middle = path.pointAtPercent(0.5)
            centre = (middle.x(), middle.y())
            painter.drawPath(path)
        else:
            towards = (points[1], points[-2])
            centre = _halfway(points)
            short = _shortened(points, ends)
            painter.drawPolyline(polygon_of(short))
        for wanted, tip, back in zip(ends, (points[0], points[-1]), towards, strict=True):
            if wanted and tip != back:
                arrow_head(painter, tip, unit(back, tip), HEAD, colour(thing.hue))
        if thing.words:
            _words(painter, centre, thing.words)


def _shortened(points: Sequence[Point], ends: tuple[bool, bool]) -> list[Point]:
    """So that the line does not show before the tips of its arrows."""
    found = list(points)
    for wanted, k, inner in ((ends[0], 0, 1), (ends[1], -1, -2)):
        if wanted and math.dist(found[k], found[inner]) > HEAD:
            wx, wy = unit(found[k], found[inner])
            found[k] = (found[k][0] + wx * HEAD * 0.6, found[k][1] + wy * HEAD * 0.6)
    return found


def _halfway(points: Sequence[Point]) -> Point:
    """The place halfway along."""
    lengths = [math.dist(a, b) for a, b in pairwise(points)]
    left = math.fsum(lengths) / 2
    for (a, b), length in zip(pairwise(points), lengths, strict=True):
        if left <= length and length > 0:
            return (a[0] + (b[0] - a[0]) * left / length, a[1] + (b[1] - a[1]) * left / length)
        left -= length
    return points[0]


def _curve(points: Sequence[Point]) -> QPainterPath:
    path = QPainterPath(QPointF(*points[0]))
    if len(points) == 2:
        (ax, ay), (bx, by) = points
        mx, my = (ax + bx) / 2 + (by - ay) * BULGE, (ay + by) / 2 - (bx - ax) * BULGE
        path.quadTo(QPointF(mx, my), QPointF(bx, by))
        return path
    for k in range(1, len(points) - 1):
        corner, after = points[k], points[k + 1]
        end = after if k == len(points) - 2 else ((corner[0] + after[0]) / 2, (corner[1] + after[1]) / 2)
        path.quadTo(QPointF(*corner), QPointF(*end))
    return path


def _words(painter: QPainter, at: Point, text: str) -> None:
    font = page_font(LETTER, False)
    wide = QFontMetricsF(font).horizontalAdvance(text)
    slip = QRectF(at[0] - wide / 2 - 7, at[1] - LETTER * 0.7, wide + 14, LETTER * 1.4)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(PAPER)
    painter.drawRoundedRect(slip, 4, 4)
    painter.setFont(font)
    painter.setPen(NEEDLE)
    painter.drawText(slip, Qt.AlignmentFlag.AlignCenter, text)
