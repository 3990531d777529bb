"""Set squares: clear plates with engraved angles."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen

from larch.board.gestures.base import Gesture, Stage
from larch.board.gestures.instruments import TurnInstrument, pen_on_edge
from larch.board.look import NEEDLE, colour
from larch.board.pointer import Sample
from larch.board.views.base import View, words
from larch.board.views.figure_view import polygon_of
from larch.board.views.instruments.ruler import glass, turn_ring
from larch.core.model.nibs import Pen as InkPen
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.instruments.set_square import SetSquare


class SetSquareView(View):
    kind: ClassVar[type[Thing]] = SetSquare
    margin: ClassVar[float] = 16.0

    def gesture(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        assert isinstance(thing, SetSquare)
        return TurnInstrument(stage, sample, thing) if part == "turn about" else None

    def pen_gesture(self, stage: Stage, sample: Sample, thing: Thing, pen: InkPen) -> Gesture | None:
        assert isinstance(thing, SetSquare)
        return pen_on_edge(stage, sample, thing, pen)

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
