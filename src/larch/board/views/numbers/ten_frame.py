"""A frame of cells with counters, and the sum of both sides below."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import NEEDLE, PAPER
from larch.board.views.base import View, words
from larch.board.views.numbers.counter import paint_counter
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.counter import ACROSS
from larch.core.things.numbers.ten_frame import CELL, FOOT, ROW, TenFrame


class TenFrameView(View):
    kind: ClassVar[type[Thing]] = TenFrame

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, TenFrame)
        painter.setBrush(PAPER)
        for k in range(len(thing.cells)):
            box = thing.cell_box(k)
            painter.setPen(QPen(NEEDLE, 2.0))
            painter.drawRect(QRectF(box.x0, box.y0, box.width, box.height))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(NEEDLE, 4.0))
        for first in range(0, len(thing.cells), 2 * ROW):
            top = thing.cell_box(first)
            last = thing.cell_box(min(first + 2 * ROW, len(thing.cells)) - 1)
            painter.drawRect(QRectF(top.x0, top.y0, last.x1 - top.x0, last.y1 - top.y0))
        for k, cell in enumerate(thing.cells):
            if cell:
                paint_counter(painter, QPointF(*thing.cell_box(k).centre), ACROSS / 2, cell == 2, thing.hue)
        for _cell, what, x, y in thing.lifted:
            paint_counter(painter, QPointF(x, y - 8), ACROSS / 2, what == 2, thing.hue)
        frame = thing.frame()
        if thing.labelled():
            words(painter, QPointF(ROW * CELL / 2, frame.y1 + FOOT / 2), thing.sum_text(page), NEEDLE, 40, bold=True)
