"""A labelled box in the place of something this version cannot show."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import SOFT, STONE
from larch.board.views.base import View, words
from larch.core.model.page import Page
from larch.core.model.thing import Thing, Unknown


class UnknownView(View):
    kind: ClassVar[type[Thing]] = Unknown

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        box = thing.extent()
        painter.setBrush(STONE)
        painter.setPen(QPen(SOFT, 1.5, Qt.PenStyle.DashLine))
        painter.drawRect(QRectF(0, 0, box.width, box.height))
        words(painter, QPointF(*box.centre), thing.label(page), SOFT, 18)
