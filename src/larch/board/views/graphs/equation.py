"""Equations set in type; what can't be read stays as it was typed, with the place marked."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QLineF, QPointF, QRectF
from PyQt6.QtGui import QFontMetricsF, QPainter, QPen

from larch.board.look import WRONG, page_font, text_colour
from larch.board.typeset.boxes import Setting, paint_setting
from larch.board.typeset.mathset import set_row
from larch.board.vector.engine import read_as
from larch.board.views.base import View
from larch.core.base.memo import remember
from larch.core.base.shape import Box
from larch.core.maths.expression import ExpressionError
from larch.core.maths.layout.reading import look, meaning
from larch.core.model.fact import MINUS
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.equation import Equation

PAD = 0.18


class EquationView(View):
    kind: ClassVar[type[Thing]] = Equation

    def extent(self, thing: Thing) -> Box:
        assert isinstance(thing, Equation)
        made, _error = read(thing)
        if made is None:
            wide = QFontMetricsF(page_font(thing.size)).horizontalAdvance(thing.source or " ")
            return Box(0, 0, wide + 2 * PAD * thing.size, 1.5 * thing.size)
        above, below = max(made.above, 0.7), max(made.below, 0.2)
        return Box(0, 0, (made.width + 2 * PAD) * thing.size, (above + below + 2 * PAD) * thing.size)

    def touches(self, thing: Thing, x: float, y: float, slack: float) -> bool:
        return self.extent(thing).grown(slack).holds(x, y)

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Equation)
        made, error = read(thing)
        size = thing.size
        if made is not None:
            at = QPointF(PAD * size, (max(made.above, 0.7) + PAD) * size)
            box = self.extent(thing)
            plain = thing.source.replace("-", MINUS)
            with read_as(painter, plain, QRectF(0, 0, box.width, box.height), size):
                paint_setting(painter, made, at, size, text_colour(thing.hue))
            return
        font = page_font(size)
        painter.setFont(font)
        painter.setPen(text_colour(thing.hue))
        painter.drawText(QPointF(PAD * size, 1.1 * size), thing.source)
        metrics = QFontMetricsF(font)
        place = error.position if error is not None else 0
        x = PAD * size + metrics.horizontalAdvance(thing.source[:place])
        wide = max(0.4 * size, metrics.horizontalAdvance(thing.source[place : place + 1]))
        painter.setPen(QPen(WRONG, 3))
        painter.drawLine(QLineF(x, 1.28 * size, x + wide, 1.28 * size))


@remember
def read(equation: Equation) -> tuple[Setting | None, ExpressionError | None]:
    """The equation in type, or why it can't be."""
    try:
        meaning(equation.source)
        return set_row(look(equation.source)), None
    except ExpressionError as error:
        return None, error.with_traceback(None)  # else it keeps alive whatever was at work
