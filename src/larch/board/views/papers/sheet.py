"""Sheets of paper."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import HAIRLINE
from larch.board.papers import paint_paper
from larch.board.views.base import View
from larch.core.base.shape import Box
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.papers.sheet import Sheet

SHARPEST = 60.0  # pixels to a unit beyond which no device draws finer


class SheetView(View):
    kind: ClassVar[type[Thing]] = Sheet

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Sheet)
        rect = QRectF(0, 0, thing.width, thing.height)
        onto = painter.combinedTransform()
        scale = min(SHARPEST, max(1e-6, (onto.m11() ** 2 + onto.m12() ** 2) ** 0.5))
        painter.save()
        painter.setClipRect(rect, Qt.ClipOperation.IntersectClip)
        seen = painter.clipBoundingRect()
        box = Box(seen.left(), seen.top(), seen.right(), seen.bottom())
        paint_paper(painter, thing.paper, (thing.width, thing.height), box, scale)
        painter.restore()
        painter.setPen(QPen(HAIRLINE, max(1.0, 1.0 / scale)))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(rect)
