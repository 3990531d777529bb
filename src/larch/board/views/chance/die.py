"""Dice: pips on six faces, a numeral on all others, and the tally below."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from larch.board.look import NEEDLE, SOFT, colour, tint
from larch.board.views.base import View, words
from larch.board.views.chance.bars import number_over
from larch.core.base.shape import Box
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.chance.die import SIDE, Die

SETTLE = 360  # ms
LOW, MID, HIGH = 0.26, 0.5, 0.74
PIPS = {
    1: [(MID, MID)],
    2: [(LOW, HIGH), (HIGH, LOW)],
    3: [(LOW, HIGH), (MID, MID), (HIGH, LOW)],
    4: [(LOW, LOW), (HIGH, LOW), (LOW, HIGH), (HIGH, HIGH)],
    5: [(LOW, LOW), (HIGH, LOW), (MID, MID), (LOW, HIGH), (HIGH, HIGH)],
    6: [(x, y) for x in (LOW, HIGH) for y in (0.22, MID, 0.78)],
}
TEN = ((0.5, 0.01), (0.99, 0.4), (0.99, 0.58), (0.5, 0.99), (0.01, 0.58), (0.01, 0.4))
BAR = 22.0  # width of one face's column in the tally
TALL = 64.0


class DieView(View):
    kind: ClassVar[type[Thing]] = Die

    def reach(self, thing: Thing, page: Page) -> Box:
        assert isinstance(thing, Die)
        box = super().reach(thing, page).grown(22)
        wide = BAR * thing.faces
        x = self.box(thing).centre[0]
        return Box(min(box.x0, x - wide / 2), box.y0, max(box.x1, x + wide / 2), box.y1 + TALL + 40)

    def hang(self, thing: Thing) -> Box:
        box = self.box(thing)
        return Box(box.x0, box.y0, box.x1, box.y1 + TALL + 36) if "tally" in thing.shown else box

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Die)
        shade = colour(thing.hue)
        painter.setPen(QPen(shade.darker(130), 1.4))
        painter.setBrush(tint(thing.hue, 0.16))
        box = QRectF(1, 1, SIDE - 2, SIDE - 2)
        if thing.faces == 2:  # a disc with two sides
            painter.drawEllipse(box)
            words(painter, QPointF(SIDE / 2, SIDE / 2), str(thing.value), shade.darker(115), 34, bold=True)
        elif thing.faces == 6:
            painter.drawRoundedRect(box, 15, 15)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(shade)
            for x, y in PIPS[thing.value]:
                painter.drawEllipse(QPointF(x * SIDE, y * SIDE), 8, 8)
        else:
            painter.drawPolygon(_silhouette(thing.faces))
            for a, b in _edges(thing.faces):
                painter.drawLine(a, b)
            low = 8 if thing.faces == 4 else 0
            words(painter, QPointF(SIDE / 2, SIDE / 2 + low), str(thing.value), shade.darker(115), 34, bold=True)

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Die)
        if "tally" not in thing.shown:
            return
        box = self.box(thing)
        left, floor = box.centre[0] - BAR * thing.faces / 2, box.y1 + 12 + TALL
        most, rolls = max(5, *thing.counts()), sum(thing.counts())
        expected = floor - (TALL - 18) * rolls / thing.faces / most
        for face, count in enumerate(thing.counts(), 1):
            x = left + (face - 1) * BAR
            height = (TALL - 18) * count / most
            painter.fillRect(QRectF(x + 3, floor - height, BAR - 6, height), colour(thing.hue))
            words(painter, QPointF(x + BAR / 2, floor + 12), str(face), SOFT, 18)
            if count:
                number_over(painter, x + BAR / 2, floor - height, expected, str(count), 17)
        painter.setPen(QPen(NEEDLE, 1.2))
        painter.drawLine(QPointF(left, floor), QPointF(left + BAR * thing.faces, floor))
        if rolls:  # what theory expects
            painter.setPen(QPen(NEEDLE, 1.6, Qt.PenStyle.DashLine))
            painter.drawLine(QPointF(left, expected), QPointF(left + BAR * thing.faces, expected))

    def motion(self, before: Thing, after: Thing) -> int:
        assert isinstance(before, Die) and isinstance(after, Die)
        return SETTLE if before.tally != after.tally and after.tally else 0

    def paint_motion(self, painter: QPainter, before: Thing, after: Thing, page: Page, t: float) -> None:
        """Tumbles over a few faces and settles on its own; what it shows is decided before it starts."""
        assert isinstance(after, Die)
        centre = self.box(after).centre
        left = (1 - t) ** 2
        face = after.value if t > 0.7 else 1 + (int(t * 9) * 5 + after.value) % after.faces
        tumbling = after.replace(value=face, placement=after.placement.turned(left * 200, centre))
        hop = 16 * abs(math.sin(math.pi * 1.5 * t)) * (1 - t)
        painter.save()
        painter.translate(0, -hop)
        self.paint(painter, tumbling, page)
        painter.restore()


def _silhouette(faces: int) -> QPolygonF:
    """The outline of a die seen towards a face; the one of 10 is a kite between two shoulders, unlike the diamond of 8."""
    if faces == 10:
        return QPolygonF([QPointF(x * SIDE, y * SIDE) for x, y in TEN])
    corners = {4: 3, 8: 4, 12: 5, 20: 6}.get(faces, 4 if faces < 4 else min(faces, 16))
    radius = SIDE / 2 - 1
    points = []
    for k in range(corners):
        angle = math.pi / 2 + k * math.tau / corners
        points.append(QPointF(SIDE / 2 + radius * math.cos(angle), SIDE / 2 - radius * math.sin(angle)))
    return QPolygonF(points)


def _edges(faces: int) -> list[tuple[QPointF, QPointF]]:
    """Edges within the outline that tell the dice apart."""
    lines = {
        10: [((0.5, 0.86), (0.5, 0.99)), ((0.5, 0.86), (0.84, 0.6)), ((0.5, 0.86), (0.16, 0.6)), ((0.84, 0.6), (0.99, 0.58)),
             ((0.16, 0.6), (0.01, 0.58)), ((0.84, 0.6), (0.5, 0.01)), ((0.16, 0.6), (0.5, 0.01))],
        8: [((0.02, 0.5), (0.5, 0.82)), ((0.98, 0.5), (0.5, 0.82)), ((0.5, 0.82), (0.5, 0.98))],
    }  # fmt: skip
    return [(QPointF(*a) * SIDE, QPointF(*b) * SIDE) for a, b in lines.get(faces, [])]
