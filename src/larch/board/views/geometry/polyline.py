"""Lines of several pieces."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QPainter

from larch.board.views.figure_view import FigureView, line_pen, polygon_of
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.geometry.polyline import Polyline


class PolylineView(FigureView):
    kind: ClassVar[type[Thing]] = Polyline

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Polyline)
        painter.setPen(line_pen(thing, thing.placement.scale))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPolyline(polygon_of(thing.vertices))

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        self.paint_slips(painter, thing, page)
