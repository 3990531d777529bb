"""A line of mathematics on a card of its own, made smaller where it would run out of it."""

from __future__ import annotations

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QColor, QPainter

from larch.board.typeset.boxes import paint_setting
from larch.board.typeset.mathset import set_row
from larch.core.base.shape import Box
from larch.core.maths.layout.rows import Row

PAD = 0.2  # em at the left and the right, and together above and below


def paint_row_card(painter: QPainter, row: Row, card: Box, em: float, shade: QColor) -> None:
    """At the left of a card, in the middle of its height; em: page units, where there is room for it."""
    made = set_row(row)
    size = min(em, (card.width - 2 * PAD * em) / max(0.1, made.width))
    size = min(size, (card.height - PAD * em) / max(0.1, made.above + made.below))
    middle = card.y0 + card.height / 2 + (made.above - made.below) / 2 * size
    paint_setting(painter, made, QPointF(card.x0 + PAD * em, middle), size, shade)
