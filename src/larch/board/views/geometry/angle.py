"""Angles with their arcs; loci."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import colour
from larch.board.views.base import Slip
from larch.board.views.figure_view import (
    FigureView,
    line_pen,
    paint_arc,
    paint_right_angle,
    polygon_of,
    shown_facts,
    wash,
)
from larch.core.maths.plane.forms import NotThere, span_of, towards
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.geometry.angle import ARC, Angle


class AngleView(FigureView):
    kind: ClassVar[type[Thing]] = Angle
    margin: ClassVar[float] = 60.0

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Angle)
        form = thing.form()
        if not thing.rule:
            painter.setPen(line_pen(thing))
            for arm in (form.a, form.b):
                painter.drawLine(QPointF(*form.vertex), QPointF(*arm))
        try:
            start, span = span_of(form)
        except NotThere:
            return
        painter.setPen(QPen(colour(thing.hue), 2.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if abs(span - 90) < 1e-7:
            paint_right_angle(painter, form.vertex, form.a, form.b, ARC * 0.6)
        else:
            painter.save()
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(wash(thing.hue, 40))
            box = polygon_of([(form.vertex[0] - ARC, form.vertex[1] - ARC), (form.vertex[0] + ARC, form.vertex[1] + ARC)])
            painter.drawPie(box.boundingRect(), round(start * 16), round(span * 16))
            painter.restore()
            paint_arc(painter, form.vertex, ARC, start, span)
        self.paint_slips(painter, thing, page)

    def slips(self, thing: Thing, page: Page) -> Iterator[Slip]:
        assert isinstance(thing, Angle)
        form = thing.form()
        try:
            start, span = span_of(form)
        except NotThere:
            return
        away = min(110.0, max(ARC + 28, 34 / max(0.2, math.sin(math.radians(min(span, 180)) / 2))))
        spots = [towards(form.vertex, start + span / 2, away + step) for step in (0, 20, 44, -away - 44)]
        for fact in shown_facts(thing, page):
            yield Slip(fact.text, spots, thing.hue, bare=True, size=25.0, name=fact.name)
