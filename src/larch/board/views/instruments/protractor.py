"""Protractors: degrees both ways round, and what they read."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QLineF, QPointF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.gestures.base import Gesture, Stage
from larch.board.gestures.instruments import TurnInstrument, pen_on_protractor
from larch.board.look import NEEDLE, SOFT, colour
from larch.board.pointer import Sample
from larch.board.views.base import View, badge, words
from larch.board.views.figure_view import paint_arc, polygon_of
from larch.board.views.instruments.ruler import glass, turn_ring
from larch.core.model.fact import number_text
from larch.core.model.nibs import Pen as InkPen
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.instruments.protractor import FOOT, RADIUS, Protractor, reading


class ProtractorView(View):
    kind: ClassVar[type[Thing]] = Protractor
    margin: ClassVar[float] = 20.0

    def gesture(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        assert isinstance(thing, Protractor)
        return TurnInstrument(stage, sample, thing) if part == "turn about" else None

    def pen_gesture(self, stage: Stage, sample: Sample, thing: Thing, pen: InkPen) -> Gesture | None:
        assert isinstance(thing, Protractor)
        return pen_on_protractor(stage, sample, thing, pen)

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Protractor)
        shade = colour(thing.hue).darker(130)
        painter.setPen(QPen(shade, 1.4))
        painter.setBrush(glass(thing.hue))
        painter.drawPolygon(polygon_of(thing.outline()))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        end = 360 if thing.full else 180
        marks = []
        for t in range(end + (0 if thing.full else 1)):
            c, s = math.cos(math.radians(t)), -math.sin(math.radians(t))
            size = 20.0 if t % 10 == 0 else 14.0 if t % 5 == 0 else 8.0
            marks.append(QLineF(RADIUS * c, RADIUS * s, (RADIUS - size) * c, (RADIUS - size) * s))
        painter.setPen(QPen(NEEDLE, 1.0))
        painter.drawLines(marks)  # type: ignore[call-overload]
        painter.setPen(QPen(shade, 1.2))
        painter.drawLine(QLineF(-RADIUS, 0, RADIUS, 0))
        painter.drawLine(QLineF(0, -14, 0, 14 if thing.full else FOOT))
        paint_arc(painter, (0, 0), RADIUS - 78, 0, end)
        for t in range(0, end + (0 if thing.full else 1), 10 if not thing.full else 30):
            self._number(painter, t, RADIUS - 32, str(t), 15 if t % 30 else 17)
            if not thing.full and t % 30 == 0:
                self._number(painter, t, RADIUS - 60, str(180 - t), 13)
        turn_ring(painter, RADIUS + 4, 0, shade)

    def _number(self, painter: QPainter, t: int, radius: float, text: str, size: float) -> None:
        """Upright to the rim, as engraved."""
        painter.save()
        painter.rotate(-t)
        painter.translate(radius, 0)
        painter.rotate(90)
        words(painter, QPointF(0, 0), text, NEEDLE if size > 14 else SOFT, size)
        painter.restore()

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Protractor)
        found = reading(thing, page)
        if found is None:
            return
        painter.setPen(QPen(colour("clay"), 4))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        paint_arc(painter, thing.centre(), RADIUS - 78, found.first + thing.placement.turn, found.angle)
        middle = math.radians(found.first + thing.placement.turn + found.angle / 2)
        at = (thing.centre()[0] + 76 * math.cos(middle), thing.centre()[1] - 76 * math.sin(middle))
        badge(painter, at, f"{number_text(found.angle, page.scale.places)}°", colour("clay"), 24)
