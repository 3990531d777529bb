"""Frost: a pale sheet of crystals with what has been rubbed off cut out of it."""

from __future__ import annotations

import math
import random
from functools import lru_cache
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPainterPath, QPainterPathStroker, QPen, QPixmap

from larch.board.look import tint
from larch.board.paint import painting
from larch.board.views.base import View
from larch.core.page import Page
from larch.core.thing import Thing
from larch.core.things.frost import Frost

TILE = 160
PALE = QColor("#E6EEF0")
CRYSTAL = QColor(255, 255, 255, 170)


class FrostView(View):
    kind: ClassVar[type[Thing]] = Frost

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Frost)
        frame = QRectF(0, 0, thing.width, thing.height)
        if thing.melted:
            painter.setPen(QPen(tint(thing.hue, 0.4), 1.2, Qt.PenStyle.DotLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(frame, 10, 10)
            return
        whole = QPainterPath()
        whole.addRoundedRect(frame, 10, 10)
        left = whole - _rubbed(thing.rubs) if thing.rubs else whole
        painter.save()
        painter.setPen(Qt.PenStyle.NoPen)
        painter.fillPath(left, PALE)
        painter.setClipPath(left, Qt.ClipOperation.IntersectClip)
        painter.drawTiledPixmap(frame, _crystals())
        painter.restore()
        painter.setPen(QPen(tint(thing.hue, 0.34), 1.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPath(left)


@lru_cache(16)
def _rubbed(rubs: tuple[object, ...]) -> QPainterPath:
    found = QPainterPath()
    found.setFillRule(Qt.FillRule.WindingFill)
    for rub in rubs:
        points = rub.points  # type: ignore[attr-defined]
        radius = rub.radius  # type: ignore[attr-defined]
        if len(points) == 1:
            found.addEllipse(QPointF(*points[0]), radius, radius)
            continue
        line = QPainterPath(QPointF(*points[0]))
        for point in points[1:]:
            line.lineTo(QPointF(*point))
        stroker = QPainterPathStroker()
        stroker.setWidth(2 * radius)
        stroker.setCapStyle(Qt.PenCapStyle.RoundCap)
        stroker.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
        found = found.united(stroker.createStroke(line).simplified())
    return found


@lru_cache(1)
def _crystals() -> QPixmap:
    """Little six-pointed stars, the same each time; those at the edges go over to the other side."""
    picture = QPixmap(TILE, TILE)
    picture.fill(Qt.GlobalColor.transparent)
    rnd = random.Random(6)
    with painting(picture) as painter:
        for _k in range(26):
            x, y, size, turn = rnd.uniform(0, TILE), rnd.uniform(0, TILE), rnd.uniform(3, 12), rnd.uniform(0, 60)
            pen = QPen(CRYSTAL, 1.4)
            pen.setCapStyle(Qt.PenCapStyle.RoundCap)
            painter.setPen(pen)
            for across in (-TILE, 0, TILE):
                for down in (-TILE, 0, TILE):
                    for spoke in range(3):
                        a = math.radians(turn + 60 * spoke)
                        dx, dy = size * math.cos(a), size * math.sin(a)
                        at = QPointF(x + across, y + down)
                        painter.drawLine(at - QPointF(dx, dy), at + QPointF(dx, dy))
    return picture
