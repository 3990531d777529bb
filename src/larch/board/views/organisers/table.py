"""Tables."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QLineF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import PAPER, colour, tint
from larch.board.views.base import View
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.organisers.table import Table

HEAD = 0.24  # strength of the hue in a head


class TableView(View):
    kind: ClassVar[type[Thing]] = Table

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Table)
        box = thing.extent()
        lefts, tops = thing.lefts(), thing.tops()
        painter.fillRect(QRectF(0, 0, box.width, box.height), PAPER)
        if thing.header:
            painter.fillRect(QRectF(0, 0, box.width, tops[1]), tint(thing.hue, HEAD))
        if thing.first:
            painter.fillRect(QRectF(0, 0, lefts[1], box.height), tint(thing.hue, HEAD))
        shade = colour(thing.hue)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(shade, 1.6))
        inner = [QLineF(x, 0, x, box.height) for x in lefts[1:-1]] + [QLineF(0, y, box.width, y) for y in tops[1:-1]]
        if inner:
            painter.drawLines(inner)  # type: ignore[call-overload]
        strong = QPen(shade, 3.2)
        strong.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
        painter.setPen(strong)
        if thing.header:
            painter.drawLine(QLineF(0, tops[1], box.width, tops[1]))
        if thing.first:
            painter.drawLine(QLineF(lefts[1], 0, lefts[1], box.height))
        if not thing.open_frame:
            painter.drawRect(QRectF(0, 0, box.width, box.height))
