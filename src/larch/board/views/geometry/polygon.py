"""Polygons with their corners' letters, their measures, marks and fold lines."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QColor, QPainter, QPainterPath, QPen

from larch.board.look import NEEDLE
from larch.board.views.base import Slip, fitting_slip, words
from larch.board.views.figure_view import (
    FigureView,
    beside,
    line_pen,
    paint_arc,
    paint_right_angle,
    polygon_of,
    stacked,
    unit,
    wash,
)
from larch.core.base.hues import hex_of
from larch.core.base.shape import Box, Point
from larch.core.maths import geometry
from larch.core.maths.measure import centroid
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.geometry.cornered import sorted_out
from larch.core.things.geometry.figure_marks import alongside, equal_sides, fold_axes
from larch.core.things.geometry.polygon import Polygon

LETTER = 30.0
LETTER_AWAY = 27.0
ARC = 34.0
CLAY = "clay"
MOST_LETTERED = 12


class PolygonView(FigureView):
    kind: ClassVar[type[Thing]] = Polygon
    margin: ClassVar[float] = 96.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Polygon)
        painter.setPen(line_pen(thing, thing.placement.scale))
        painter.setBrush(wash(thing.hue, 72 if thing.part is not None else 28))
        if not thing.holes:
            painter.drawPolygon(polygon_of(thing.vertices))
            return
        path = QPainterPath()
        for ring in (thing.vertices, *thing.holes):
            path.addPolygon(polygon_of(ring))
            path.closeSubpath()
        path.setFillRule(Qt.FillRule.OddEvenFill)
        painter.drawPath(path)

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Polygon)
        corners = [thing.placement.to_page(*vertex) for vertex in thing.vertices]
        if "fold lines" in thing.shown:
            self._fold_lines(painter, thing)
        if "marks" in thing.shown:
            self._marks(painter, thing, corners)
        if len(corners) <= MOST_LETTERED and not thing.drawn and thing.part is None:
            names = thing.corner_names()
            if any(map(str.strip, names)) and thing.rule != "polygon":  # points on its corners have letters
                for name, spot in zip(names, letter_spots(corners), strict=False):
                    if name.strip():
                        words(painter, QPointF(*spot), name, NEEDLE, LETTER, bold=True)
            self._arcs(painter, thing, corners)
        self.paint_slips(painter, thing, page)

    def kept_free(self, thing: Thing) -> list[Box]:
        assert isinstance(thing, Polygon)
        if len(thing.vertices) > MOST_LETTERED:
            return []
        corners = [thing.placement.to_page(*vertex) for vertex in thing.vertices]
        kept = [Box(x - 6, y - 6, x + 6, y + 6) for x, y in corners]
        if any(map(str.strip, thing.corner_names())):
            kept += [Box(x - 11, y - 13, x + 11, y + 13) for x, y in letter_spots(corners)]
        return kept

    def slips(self, thing: Thing, page: Page) -> Iterator[Slip]:
        assert isinstance(thing, Polygon)
        corners = [thing.placement.to_page(*vertex) for vertex in thing.vertices]
        names = thing.fact_names()
        shown = set(thing.all_shown())
        sides = {names[i] + names[(i + 1) % len(names)]: i for i in range(len(names))}
        angles = {f"angle {name}": i for i, name in enumerate(names)}
        middle = (sum(x for x, _y in corners) / len(corners), sum(y for _x, y in corners) / len(corners))
        for fact in thing.facts(page):
            if fact.badge not in shown or fact.value is None or fact.name == "symmetry axes":
                continue
            if fact.name in sides:
                i = sides[fact.name]
                yield Slip(fact.text, beside(corners[i], corners[(i + 1) % len(corners)]), thing.hue, name=fact.name)
            elif fact.name in angles:
                spots = angle_spots(corners, angles[fact.name], float(fact.value))
                yield Slip(fact.text, spots, _angle_hue(thing), bare=True, size=24.0, name=fact.name)
            elif fact.name == "share":
                share = share_slip(fact.text, corners, thing.hue)
                if share is not None:
                    yield share
            else:
                yield Slip(f"{fact.label} {fact.text}", stacked(middle), thing.hue, name=fact.name)

    def _arcs(self, painter: QPainter, thing: Polygon, corners: list[Point]) -> None:
        """An arc in each corner whose angle is shown, a little square in a right one."""
        shown = set(thing.all_shown())
        wanted = {i for i, name in enumerate(thing.fact_names()) if f"angle {name}" in shown}
        if not wanted or sorted_out(thing).kind.startswith("crossed"):
            return
        turn = 1 if geometry.signed_area(corners) >= 0 else -1
        painter.setPen(QPen(QColor(hex_of(_angle_hue(thing))), 2.2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for i, angle in enumerate(geometry.interior_angles(corners)):
            if i not in wanted or angle is None:
                continue
            before, corner, after = corners[i - 1], corners[i], corners[(i + 1) % len(corners)]
            radius = min(ARC, min(math.dist(corner, after), math.dist(corner, before)) * 0.42)
            start = math.degrees(math.atan2(corner[1] - after[1], after[0] - corner[0]))
            if abs(angle - 90) < 1e-6:
                paint_right_angle(painter, corner, after, before, radius * 0.62)
            else:
                paint_arc(painter, corner, radius, start, -turn * angle)

    def _marks(self, painter: QPainter, thing: Polygon, corners: list[Point]) -> None:
        """Ticks across equal sides, arrows along parallel ones, squares in right angles."""
        painter.setPen(QPen(NEEDLE, 2.4))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        count, sides = len(corners), marked_sides(thing, corners)
        for number, group in enumerate(equal_sides(thing), 1):
            for i in group:
                self._ticks(painter, *sides[i], number)
        for number, group in enumerate(alongside(thing), 1):
            for i in group:
                self._arrows(painter, *sides[i], number)
        for i, angle in enumerate(geometry.interior_angles(corners)):
            if angle is not None and abs(angle - 90) < 1e-6:
                room = min(math.dist(corners[i], corners[i - 1]), math.dist(corners[i], corners[(i + 1) % count]))
                paint_right_angle(painter, corners[i], corners[(i + 1) % count], corners[i - 1], min(22.0, room * 0.3))

    def _ticks(self, painter: QPainter, a: Point, b: Point, number: int) -> None:
        (wx, wy), at = unit(a, b), (a[0] * 0.62 + b[0] * 0.38, a[1] * 0.62 + b[1] * 0.38)
        for k in range(number):
            shift = (k - (number - 1) / 2) * 7
            x, y = at[0] + wx * shift, at[1] + wy * shift
            painter.drawLine(QPointF(x - wy * 9, y + wx * 9), QPointF(x + wy * 9, y - wx * 9))

    def _arrows(self, painter: QPainter, a: Point, b: Point, number: int) -> None:
        (wx, wy), at = unit(a, b), (a[0] * 0.3 + b[0] * 0.7, a[1] * 0.3 + b[1] * 0.7)
        for k in range(number):
            x, y = at[0] + wx * 8 * k, at[1] + wy * 8 * k
            wings = [(x - wx * 9 - wy * 8, y - wy * 9 + wx * 8), (x, y), (x - wx * 9 + wy * 8, y - wy * 9 - wx * 8)]
            painter.drawPolyline(polygon_of(wings))

    def _fold_lines(self, painter: QPainter, thing: Polygon) -> None:
        pen = QPen(QColor(hex_of("berry")), 2.6, Qt.PenStyle.CustomDashLine, Qt.PenCapStyle.RoundCap)
        pen.setDashPattern([5, 3.2])
        painter.setPen(pen)
        for a, b in fold_axes(thing):
            painter.drawLine(QPointF(*thing.placement.to_page(*a)), QPointF(*thing.placement.to_page(*b)))


def marked_sides(thing: Polygon, corners: list[Point]) -> list[tuple[Point, Point]]:
    """Each side from end to end, parallel ones in one direction: ticks stand in its first half and arrows in its second."""
    sides = geometry.pairs(corners)
    for group in alongside(thing):
        first = unit(*sides[group[0]])
        for i in group:
            way = unit(*sides[i])
            if way[0] * first[0] + way[1] * first[1] < 0:
                sides[i] = sides[i][::-1]
    return sides


def share_slip(text: str, corners: list[Point], hue: str) -> Slip | None:
    """A fraction in the middle of its part, as large as it finds room there; none where it could not be read."""
    x, y = centroid(corners)
    room = min(geometry.distance_to_side(a, b, x, y) for a, b in geometry.pairs(corners))
    if not geometry.inside(corners, x, y):
        return None
    return fitting_slip(text, (x, y), room, hue)


def _angle_hue(thing: Thing) -> str:
    return CLAY if thing.hue != CLAY else "slate"


def letter_spots(corners: list[Point]) -> list[Point]:
    """Where the letters stand: outside, on the line that halves each corner."""
    outward = [_outward(corners, i) for i in range(len(corners))]
    return [(x + ox * LETTER_AWAY, y + oy * LETTER_AWAY) for (x, y), (ox, oy) in zip(corners, outward, strict=True)]


def angle_spots(corners: list[Point], i: int, angle: float) -> list[Point]:
    """Places for the size of an angle, on the line that halves it."""
    corner, after = corners[i], corners[(i + 1) % len(corners)]
    turn = 1 if geometry.signed_area(corners) >= 0 else -1
    start = math.degrees(math.atan2(corner[1] - after[1], after[0] - corner[0]))
    room = min(math.dist(corner, after), math.dist(corner, corners[i - 1])) * 0.42
    middle = math.radians(start - turn * angle / 2)
    away = max(min(ARC, room) + 26, min(96.0, 36 / max(0.2, math.sin(math.radians(min(angle, 180)) / 2))))
    steps = (0.0, 16.0, 34.0, -2 * away, 56.0)
    return [(corner[0] + (away + k) * math.cos(middle), corner[1] - (away + k) * math.sin(middle)) for k in steps]


def _outward(corners: list[Point], i: int) -> Point:
    """The direction away from the shape at a corner, halving its outer angle."""
    u, v = unit(corners[i], corners[i - 1]), unit(corners[i], corners[(i + 1) % len(corners)])
    x, y = -(u[0] + v[0]), -(u[1] + v[1])
    size = math.hypot(x, y)
    if size < 1e-6:
        return (u[1], -u[0])
    turn = geometry.signed_area(corners)
    cross = u[0] * v[1] - u[1] * v[0]
    flip = -1 if cross * turn > 0 else 1  # a dent points inwards
    return (flip * x / size, flip * y / size)
