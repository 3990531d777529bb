"""Paths that points trace."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QPainter

from larch.board.views.figure_view import (
    FigureView,
    line_pen,
    polygon_of,
)
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.geometry.locus import Locus


class LocusView(FigureView):
    kind: ClassVar[type[Thing]] = Locus
    margin: ClassVar[float] = 6.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Locus)
        painter.setPen(line_pen(thing, thing.placement.scale))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for line in thing.lines:
            painter.drawPolyline(polygon_of(line))
