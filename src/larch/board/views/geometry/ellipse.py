"""Ellipses."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter

from larch.board.views.figure_view import FigureView, line_pen, wash
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.geometry.ellipse import Ellipse


class EllipseView(FigureView):
    kind: ClassVar[type[Thing]] = Ellipse

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Ellipse)
        painter.setPen(line_pen(thing, thing.placement.scale))
        painter.setBrush(Qt.BrushStyle.NoBrush if thing.rule else wash(thing.hue))
        painter.drawEllipse(QPointF(0, 0), thing.rx, thing.ry)

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        self.paint_slips(painter, thing, page)
