"""Base-ten blocks, flat as cut paper, ruled into ones."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QLineF, QPointF, QRectF
from PyQt6.QtGui import QColor, QPainter, QPen, QPolygonF

from larch.board.look import colour, tint
from larch.board.views.base import View, badge
from larch.core.base.shape import Box
from larch.core.model.fact import number_text
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.block import DEPTH, UNIT, Block

BELOW = 24.0  # from the block to the middle of its value


class BlockView(View):
    kind: ClassVar[type[Thing]] = Block
    shown_below: ClassVar[float] = BELOW + 18

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Block)
        shade = colour(thing.colour())
        ruling = QPen(tint(thing.colour(), 0.25), 1.0)
        edge = QPen(shade.darker(135), 1.0)
        top = 0.0
        n = thing.base
        if thing.value == 1000:
            top = DEPTH
            self._sides(painter, shade, edge, n * UNIT)
        across, down = {1: (1, 1), 10: (1, n), 100: (n, n), 1000: (n, n)}[thing.value]
        face = QRectF(0, top, across * UNIT, down * UNIT)
        painter.fillRect(face, shade)
        painter.setPen(ruling)
        lines = [QLineF(k * UNIT, top, k * UNIT, top + face.height()) for k in range(1, across)]
        lines += [QLineF(0, top + k * UNIT, face.width(), top + k * UNIT) for k in range(1, down)]
        if lines:
            painter.drawLines(lines)  # type: ignore[call-overload]
        painter.setPen(edge)
        painter.setBrush(QColor(0, 0, 0, 0))
        painter.drawRect(face.adjusted(0.5, 0.5, -0.5, -0.5))

    def reach(self, thing: Thing, page: Page) -> Box:
        box = super().reach(thing, page)
        return box.grown(BELOW + 24) if thing.shown else box

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Block)
        if "value" in thing.shown:
            box = self.box(thing)
            badge(painter, (box.centre[0], box.y1 + BELOW), number_text(thing.worth(), 3), colour(thing.colour()))

    def _sides(self, painter: QPainter, shade: QColor, edge: QPen, side: float) -> None:
        painter.setPen(edge)
        painter.setBrush(shade.lighter(125))
        lid = [(0, DEPTH), (DEPTH, 0), (side + DEPTH, 0), (side, DEPTH)]
        painter.drawPolygon(QPolygonF([QPointF(x, y) for x, y in lid]))
        painter.setBrush(shade.darker(120))
        flank = [(side, DEPTH), (side + DEPTH, 0), (side + DEPTH, side), (side, side + DEPTH)]
        painter.drawPolygon(QPolygonF([QPointF(x, y) for x, y in flank]))
