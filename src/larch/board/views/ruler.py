"""Ruler and set squares: clear strips with engraved marks."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QLineF, QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPainterPath, QPen

from larch.board.figure_view import polygon_of
from larch.board.look import NEEDLE, PAPER, colour, icon
from larch.board.views.base import View, words
from larch.core.model.fact import number_text
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.instruments.ruler import END, HEIGHT, Ruler, SetSquare

BODY = 158  # how much of what lies under it is covered, of 255


def glass(hue: str) -> QColor:
    """A body that lets what lies under it be seen."""
    shade, paper = colour(hue), PAPER
    mixed = QColor(*(round(p + (s - p) * 0.22) for s, p in zip(shade.getRgb()[:3], paper.getRgb()[:3], strict=True)))
    mixed.setAlpha(BODY)
    return mixed


def turn_ring(painter: QPainter, x: float, y: float, shade: QColor) -> None:
    """The sign of the place by which an instrument is turned."""
    painter.setPen(QPen(shade, 2))
    painter.setBrush(PAPER)
    painter.drawEllipse(QPointF(x, y), 13, 13)
    icon("rotate-cw", shade.name()).paint(painter, round(x) - 8, round(y) - 8, 16, 16)


class RulerView(View):
    kind: ClassVar[type[Thing]] = Ruler
    margin: ClassVar[float] = 14.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Ruler)
        painter.setPen(QPen(colour(thing.hue).darker(130), 1.4))
        painter.setBrush(glass(thing.hue))
        painter.drawRoundedRect(QRectF(-16, 0, thing.length + 16 + END, HEIGHT), 4, 4)
        painter.setPen(QPen(NEEDLE, 1.3))
        marks, tenth = [], page.unit / 10
        count = int(thing.length / tenth + 1e-6)
        for k in range(count + 1):
            if tenth < 2 and k % 5:
                continue
            size = 20.0 if k % 10 == 0 else 14.0 if k % 5 == 0 else 8.0
            marks.append(QLineF(k * tenth, 0, k * tenth, size))
        painter.drawLines(marks)
        step = max(1, math.ceil(26 / page.unit))
        for k in range(0, count // 10 + 1, step):
            text = number_text(k * page.scale.per, 3)
            words(painter, QPointF(k * page.unit, 33), text, NEEDLE, 17)
        words(
            painter, QPointF(min(thing.length / 2, 260), 52), page.scale.unit, colour(thing.hue).darker(150), 15, bold=True
        )
        turn_ring(painter, thing.length + END - 20, HEIGHT - 20, colour(thing.hue).darker(130))


class SetSquareView(View):
    kind: ClassVar[type[Thing]] = SetSquare
    margin: ClassVar[float] = 16.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, SetSquare)
        ring = thing.outline()
        across, up = thing.legs()
        path = QPainterPath()
        path.addPolygon(polygon_of(ring))
        path.closeSubpath()
        inset = 0.3
        middle = (across * inset, -up * inset)
        hole = [(middle[0] + (x - across / 3) * 0.42, middle[1] + (y + up / 3) * 0.42) for x, y in ring]
        path.addPolygon(polygon_of(hole))
        path.closeSubpath()
        path.setFillRule(Qt.FillRule.OddEvenFill)
        painter.setPen(QPen(colour(thing.hue).darker(130), 1.4))
        painter.setBrush(glass(thing.hue))
        painter.drawPath(path)
        painter.setPen(QPen(NEEDLE, 1.2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPolyline(polygon_of([(18, 0), (18, -18), (0, -18)]))
        lean = math.degrees(math.atan2(up, across))
        words(painter, QPointF(across * 0.74, -13), f"{lean:.0f}°", NEEDLE, 19, bold=True)
        words(painter, QPointF(24, -up * 0.7), f"{90 - lean:.0f}°", NEEDLE, 19, bold=True)
        turn_ring(painter, across + 4, 0, colour(thing.hue).darker(130))
