"""Compasses: needle, knob, pencil."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.gestures.base import Gesture, Stage
from larch.board.gestures.instruments import Foot, Swing, pen_on_compasses
from larch.board.look import NEEDLE, PAPER, colour
from larch.board.pointer import Sample
from larch.board.views.base import View, badge
from larch.board.views.figure_view import polygon_of
from larch.core.model.nibs import Pen as InkPen
from larch.core.model.page import Page
from larch.core.model.scale import length_fact
from larch.core.model.thing import Thing
from larch.core.things.instruments.compasses import Compasses

LEG = 13.0


class CompassesView(View):
    kind: ClassVar[type[Thing]] = Compasses
    margin: ClassVar[float] = 44.0

    def gesture(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        assert isinstance(thing, Compasses)
        if part == "swing":
            return Swing(stage, sample, thing)
        return Foot(stage, sample, thing, part) if part in [handle.name for handle in thing.handles()] else None

    def pen_gesture(self, stage: Stage, sample: Sample, thing: Thing, pen: InkPen) -> Gesture | None:
        assert isinstance(thing, Compasses)
        return pen_on_compasses(stage, sample, thing, pen)

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Compasses)
        x, y = thing.knob()
        shade = colour(thing.hue)
        painter.setPen(QPen(shade.darker(125), 1.2))
        for foot in (0.0, thing.opening):
            length = math.hypot(x - foot, y)
            ux, uy = (foot - x) / length, -y / length
            tip = (foot - ux * 26, -uy * 26)
            wide, thin = LEG / 2, LEG / 4
            painter.setBrush(shade)
            top = [(x - uy * wide, y + ux * wide), (x + uy * wide, y - ux * wide)]
            low = [(tip[0] + uy * thin, tip[1] - ux * thin), (tip[0] - uy * thin, tip[1] + ux * thin)]
            painter.drawPolygon(polygon_of([*top, *low]))
            painter.setBrush(NEEDLE)
            point = 1.2 if foot == 0 else 3.2
            painter.drawPolygon(
                polygon_of(
                    [(tip[0] - uy * point, tip[1] + ux * point), (tip[0] + uy * point, tip[1] - ux * point), (foot, 0.0)]
                )
            )
        painter.setBrush(PAPER)
        painter.setPen(QPen(shade.darker(125), 3))
        painter.drawEllipse(QPointF(x, y), 15, 15)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawLine(QPointF(x, y - 15), QPointF(x, y - 32))

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Compasses)
        pen = QPen(colour(thing.hue), 1.4, Qt.PenStyle.DashLine)
        painter.setPen(pen)
        a, b = thing.needle(), thing.pencil()
        painter.drawLine(QPointF(*a), QPointF(*b))
        text = length_fact(page, "", thing.opening * thing.placement.scale).text
        badge(painter, ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2 + 26), text, colour(thing.hue), 19)
