"""A card with the name that was picked, and below it who still comes, or the groups."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QFontMetricsF, QPainter, QPen

from larch.board.look import NEEDLE, PAPER, SOFT, colour, page_font, tint
from larch.board.views.base import View, words
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.chance.picker import HEAD, LINE, WIDE, Picker


class PickerView(View):
    kind: ClassVar[type[Thing]] = Picker

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Picker)
        high = thing.extent().height
        painter.setPen(QPen(colour(thing.hue).darker(125), 2.4))
        painter.setBrush(PAPER)
        painter.drawRoundedRect(QRectF(1, 1, WIDE - 2, high - 2), 12, 12)
        painter.setBrush(tint(thing.hue, 0.2))
        painter.drawRoundedRect(QRectF(10, 10, WIDE - 20, HEAD - 20), 8, 8)
        text = thing.current() or _("tap to pick")
        self._fitting(painter, QPointF(WIDE / 2, HEAD / 2), text, 56.0 if thing.current() else 28.0, bool(thing.current()))
        for k, row in enumerate(thing.rows()):
            self._fitting(painter, QPointF(WIDE / 2, HEAD + LINE * (k + 0.5)), row, 26.0, bool(thing.dealt))

    def _fitting(self, painter: QPainter, at: QPointF, text: str, size: float, strong: bool) -> None:
        wide = QFontMetricsF(page_font(size, strong)).horizontalAdvance(text)
        room = WIDE - 40
        words(painter, at, text, NEEDLE if strong else SOFT, size if wide <= room else size * room / wide, bold=strong)
