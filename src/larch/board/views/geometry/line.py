"""Segments, rays, lines, vectors, and lines of several pieces."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter

from larch.board.look import colour
from larch.board.views.base import Slip
from larch.board.views.figure_view import FigureView, arrow_head, beside, line_pen, shown_facts, unit
from larch.core.base.shape import Box, Point
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.geometry.line import Line

FAR = 3000.0  # page units to which an endless line is drawn
HEAD = 20.0


class LineView(FigureView):
    kind: ClassVar[type[Thing]] = Line
    margin: ClassVar[float] = 70.0

    def reach(self, thing: Thing, page: Page) -> Box:
        assert isinstance(thing, Line)
        if thing.reach in ("segment", "vector"):
            return super().reach(thing, page)
        a, b = drawn_ends(thing)
        return Box(min(a[0], b[0]), min(a[1], b[1]), max(a[0], b[0]), max(a[1], b[1])).grown(self.margin)

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Line)
        a, b = drawn_ends(thing)
        painter.setPen(line_pen(thing, 1.0, thing.dashed))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if thing.reach == "vector" and a != b:
            way = unit(a, b)
            painter.drawLine(QPointF(*a), QPointF(b[0] - way[0] * HEAD * 0.7, b[1] - way[1] * HEAD * 0.7))
            arrow_head(painter, b, way, HEAD, colour(thing.hue))
        else:
            painter.drawLine(QPointF(*a), QPointF(*b))
        self.paint_slips(painter, thing, page)

    def slips(self, thing: Thing, page: Page) -> Iterator[Slip]:
        assert isinstance(thing, Line)
        form = thing.form()
        for fact in shown_facts(thing, page):
            own = fact.unit and fact.unit != "°"
            text = (
                fact.text
                if own or fact.name in ("equation",) or fact.name.startswith("at ")
                else f"{fact.label} {fact.text}"
            )
            yield Slip(text, beside(form.a, form.b), thing.hue, name=fact.name)


def drawn_ends(line: Line) -> tuple[Point, Point]:
    """Between where it is drawn, on the page."""
    form = line.form()
    length = math.dist(form.a, form.b)
    if not length:
        return form.a, form.b
    far = FAR / length
    low = -far if line.reach == "line" else 0.0
    high = far if line.reach in ("line", "ray") else 1.0
    return tuple((form.a[0] + t * form.way[0], form.a[1] + t * form.way[1]) for t in (low, high))  # type: ignore[return-value]
