"""Text, laid out by Qt's own engine in any script and direction."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QPainter, QTextDocument

from larch.board.typeset.rich_text import document_of, paint_document, rise_of
from larch.board.views.base import View
from larch.core.base.memo import remember_in_thread
from larch.core.base.shape import Box
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.words.text import Text


class TextView(View):
    kind: ClassVar[type[Thing]] = Text

    def extent(self, thing: Thing) -> Box:
        assert isinstance(thing, Text)
        size = laid_out(thing).size()
        return Box(0, 0, thing.width or max(size.width(), thing.size * 0.5), size.height())

    def touches(self, thing: Thing, x: float, y: float, slack: float) -> bool:
        return self.extent(thing).grown(slack).holds(x, y)

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Text)
        if thing.text:
            paint_document(painter, laid_out(thing), QPointF(0, -rise_of(thing)))


@remember_in_thread
def laid_out(text: Text) -> QTextDocument:
    return document_of(text)
