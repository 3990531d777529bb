"""A line to order: each number hangs on it by a thread, with a dot where it stands right and a ring where it doesn't yet."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QColor, QPainter, QPen, QPolygonF

from larch.board.look import NEEDLE, PAPER, WRONG
from larch.board.views.base import View
from larch.core.base import hues
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.order_line import LINE, OrderLine

GOOD = QColor(hues.GOOD)
DOT = 10.0


class OrderLineView(View):
    kind: ClassVar[type[Thing]] = OrderLine
    margin: ClassVar[float] = 120.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, OrderLine)
        painter.setPen(QPen(NEEDLE, 3.2))
        painter.drawLine(QPointF(6, LINE), QPointF(thing.long - 14, LINE))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NEEDLE)
        painter.drawPolygon(QPolygonF([QPointF(thing.long, LINE), QPointF(thing.long - 16, LINE - 8),
                                       QPointF(thing.long - 16, LINE + 8)]))  # fmt: skip
        for one in thing.standing(page):
            box = one.thing.box()
            x, y = thing.placement.to_local(box.centre[0], box.y1)
            painter.setPen(QPen(NEEDLE, 1.6, Qt.PenStyle.DotLine))
            painter.drawLine(QPointF(x, min(y, LINE)), QPointF(x, LINE))
            if one.right:
                painter.setPen(QPen(GOOD, 2.4))
                painter.setBrush(GOOD)
            else:
                painter.setPen(QPen(WRONG, 2.6, Qt.PenStyle.DashLine))
                painter.setBrush(PAPER)
            painter.drawEllipse(QPointF(x, max(LINE, y) + DOT + 6), DOT, DOT)  # below it, where it can be seen
