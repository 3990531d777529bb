"""Text, laid out by Qt's own engine in any script."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QPainter, QTextLayout, QTextOption

from larch.board.look import colour, page_font
from larch.board.views.base import View
from larch.core.memo import remember_in_thread
from larch.core.page import Page
from larch.core.shape import Box
from larch.core.thing import Thing
from larch.core.things.text import LINE, Text


class TextView(View):
    kind: ClassVar[type[Thing]] = Text

    def extent(self, thing: Thing) -> Box:
        assert isinstance(thing, Text)
        _layouts, width, height = laid_out(thing)
        return Box(0, 0, width, height)

    def touches(self, thing: Thing, x: float, y: float, slack: float) -> bool:
        return self.extent(thing).grown(slack).holds(x, y)

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Text)
        painter.setPen(colour(thing.hue))
        for layout, top in laid_out(thing)[0]:
            layout.draw(painter, QPointF(0, top))


@remember_in_thread
def laid_out(text: Text) -> tuple[list[tuple[QTextLayout, float]], float, float]:
    """One layout per paragraph with its top, and the size of the whole."""
    font = page_font(text.size, text.bold)
    option = QTextOption()
    option.setWrapMode(QTextOption.WrapMode.WrapAtWordBoundaryOrAnywhere if text.width else QTextOption.WrapMode.NoWrap)
    layouts = []
    top = widest = 0.0
    for paragraph in text.text.split("\n"):
        layout = QTextLayout(paragraph or " ", font)
        layout.setTextOption(option)
        layout.setCacheEnabled(True)
        layout.beginLayout()
        height = 0.0
        while (line := layout.createLine()).isValid():
            line.setLineWidth(text.width or 1e6)
            line.setPosition(QPointF(0, height + (text.size * LINE - line.height()) / 2))
            height += text.size * LINE
            widest = max(widest, line.naturalTextWidth())
        layout.endLayout()
        layouts.append((layout, top))
        top += height
    return layouts, text.width or max(widest, text.size * 0.5), max(top, text.size * LINE)
