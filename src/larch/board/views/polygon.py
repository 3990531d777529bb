"""Polygons with their corners' letters and their measures."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPen, QPolygonF

from larch.board.look import NEEDLE, colour
from larch.board.views.base import View, badge, words
from larch.core import geometry
from larch.core.fact import Fact
from larch.core.hues import hex_of
from larch.core.page import Page
from larch.core.shape import Point
from larch.core.thing import Thing
from larch.core.things.polygon import Polygon

LETTER = 30.0
ARC = 34.0
CLAY = "clay"


class PolygonView(View):
    kind: ClassVar[type[Thing]] = Polygon
    margin: ClassVar[float] = 84.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Polygon)
        shade = colour(thing.hue)
        fill = QColor(shade)
        fill.setAlpha(28)
        pen = QPen(shade, 3.5 / thing.placement.scale)
        pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
        painter.setPen(pen)
        painter.setBrush(fill)
        painter.drawPolygon(QPolygonF([QPointF(x, y) for x, y in thing.vertices]))

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Polygon)
        if len(thing.vertices) > 12:
            return
        corners = [thing.placement.to_page(*vertex) for vertex in thing.vertices]
        names = thing.corner_names()
        facts = {fact.name: fact for fact in thing.facts(page)} if thing.shown else {}
        outward = [_outward(corners, i) for i in range(len(corners))] if any(map(str.strip, names)) else []
        if "angles" in thing.shown:
            self._angles(painter, thing, corners, thing.fact_names(), facts)
        if "sides" in thing.shown:
            self._sides(painter, thing, corners, thing.fact_names(), facts)
        for corner, name, (ox, oy) in zip(corners, names, outward, strict=False):
            if name.strip():
                words(painter, QPointF(corner[0] + ox * 27, corner[1] + oy * 27), name, NEEDLE, LETTER, bold=True)
        middle = (sum(x for x, _y in corners) / len(corners), sum(y for _x, y in corners) / len(corners))
        for i, name in enumerate(n for n in thing.shown if n in facts):
            fact = facts[name]
            badge(painter, (middle[0], middle[1] + i * 34), f"{fact.label} {fact.text}", colour(thing.hue))

    def _sides(
        self, painter: QPainter, thing: Polygon, corners: list[Point], names: list[str], facts: dict[str, Fact]
    ) -> None:
        for i, (a, b) in enumerate(geometry.pairs(corners)):
            fact = facts[names[i] + names[(i + 1) % len(names)]]
            badge(painter, ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2), fact.text, colour(thing.hue))

    def _angles(
        self, painter: QPainter, thing: Polygon, corners: list[Point], names: list[str], facts: dict[str, Fact]
    ) -> None:
        shade = QColor(hex_of(CLAY if thing.hue != CLAY else "slate"))
        turn = 1 if geometry.signed_area(corners) >= 0 else -1
        for i, corner in enumerate(corners):
            fact = facts[f"angle {names[i]}"]
            if fact.value is None:
                continue
            angle = float(fact.value)
            after = corners[(i + 1) % len(corners)]
            before = corners[i - 1]
            room = min(math.dist(corner, after), math.dist(corner, before)) * 0.42
            radius = min(ARC, room)
            start = math.degrees(math.atan2(corner[1] - after[1], after[0] - corner[0]))
            painter.setPen(QPen(shade, 2.2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            middle = math.radians(start - turn * angle / 2)
            if abs(angle - 90) < 1e-6:
                self._square(painter, corner, after, before, radius * 0.62)
            else:
                box = QRectF(corner[0] - radius, corner[1] - radius, 2 * radius, 2 * radius)
                painter.drawArc(box, round(start * 16), round(-turn * angle * 16))
            away = max(radius + 26, min(96.0, 36 / max(0.2, math.sin(math.radians(min(angle, 180)) / 2))))
            spot = QPointF(corner[0] + away * math.cos(middle), corner[1] - away * math.sin(middle))
            words(painter, spot, fact.text, shade, 24, bold=True)

    def _square(self, painter: QPainter, corner: Point, after: Point, before: Point, size: float) -> None:
        u, v = _unit(corner, after), _unit(corner, before)
        points = [
            QPointF(corner[0] + (p * u[0] + q * v[0]) * size, corner[1] + (p * u[1] + q * v[1]) * size)
            for p, q in ((1, 0), (1, 1), (0, 1))
        ]
        painter.drawPolyline(QPolygonF(points))


def _unit(a: Point, b: Point) -> Point:
    length = math.dist(a, b) or 1.0
    return ((b[0] - a[0]) / length, (b[1] - a[1]) / length)


def _outward(corners: list[Point], i: int) -> Point:
    """The direction away from the shape at a corner, halving its outer angle."""
    u, v = _unit(corners[i], corners[i - 1]), _unit(corners[i], corners[(i + 1) % len(corners)])
    x, y = -(u[0] + v[0]), -(u[1] + v[1])
    size = math.hypot(x, y)
    if size < 1e-6:
        return (u[1], -u[0])
    turn = geometry.signed_area(corners)
    cross = u[0] * v[1] - u[1] * v[0]
    flip = -1 if cross * turn > 0 else 1  # a dent points inwards
    return (flip * x / size, flip * y / size)
