"""A bar model: the whole on slate, the parts in order of hues, what is asked on paper with a dashed edge."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFontMetricsF, QPainter, QPen

from larch.board.look import NEEDLE, PAPER, colour, page_font, tint
from larch.board.views.base import View, words
from larch.core.base.hues import hue_in_order
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.bar_model import ASKED, GAP, HIGH, BarModel


class BarModelView(View):
    kind: ClassVar[type[Thing]] = BarModel

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, BarModel)
        self._bar(painter, thing, QRectF(0, 0, thing.long, HIGH), thing.whole, "slate")
        x = 0.0
        for k, (word, share) in enumerate(zip(thing.parts, thing.sizes(), strict=True)):
            wide = share * thing.long
            self._bar(painter, thing, QRectF(x, HIGH + GAP, wide, HIGH), word, hue_in_order(k))
            x += wide

    def _bar(self, painter: QPainter, thing: BarModel, rect: QRectF, word: str, hue: str) -> None:
        asked = word == ASKED
        painter.setPen(QPen(colour(hue).darker(125), 2.4, Qt.PenStyle.DashLine if asked else Qt.PenStyle.SolidLine))
        painter.setBrush(PAPER if asked else tint(hue, 0.42))
        painter.drawRect(rect.adjusted(1, 1, -1, -1))
        text = thing.word_text(word)
        wide = QFontMetricsF(page_font(40, True)).horizontalAdvance(text)
        size = min(40.0, 40.0 * max(rect.width() - 8, 4.0) / wide)
        words(painter, QPointF(rect.center()), text, NEEDLE, max(size, 4.0), bold=True)
