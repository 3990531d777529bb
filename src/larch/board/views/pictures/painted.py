"""Painted regions."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPolygonF

from larch.board.look import tint
from larch.board.views.base import View
from larch.core.base.memo import remember
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.pictures.painted import Painted


class PaintedView(View):
    kind: ClassVar[type[Thing]] = Painted

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Painted)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(tint(thing.hue, thing.strength))
        painter.drawPath(_path(thing))


@remember
def _path(thing: Painted) -> QPainterPath:
    path = QPainterPath()
    path.setFillRule(Qt.FillRule.OddEvenFill)
    for ring in thing.rings:
        path.addPolygon(QPolygonF([QPointF(x, y) for x, y in ring]))
        path.closeSubpath()
    return path
