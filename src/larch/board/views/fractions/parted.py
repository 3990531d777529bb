"""What the views of fractions have in common: a fraction written with a bar, in the room there is."""

from __future__ import annotations

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QColor, QFontMetricsF, QPainter, QPen

from larch.board.look import page_font
from larch.board.views.base import words
from larch.core.things.fractions.parted import Parted

LARGEST, LEAST = 30.0, 9.0


def hue_of(thing: Parted) -> str:
    from larch.core.base.hues import hue_of_number

    return thing.hue or hue_of_number(thing.parts_count)


def part_name(painter: QPainter, thing: Parted, at: QPointF, wide: float, high: float, shade: QColor) -> None:
    """The name of a part, as large as fits; nothing where it would be too small to be read."""
    text = thing.part_text()
    if not text:
        return
    above, slash, below = text.partition("/")
    if thing.parts_count == 1 and slash:
        words(painter, at, "1", shade, min(LARGEST, 0.7 * high), bold=True)
        return
    longest = max((above, below), key=len) if slash else text
    size = min(LARGEST, (0.36 if slash else 0.6) * high)
    fits = QFontMetricsF(page_font(100.0, True)).horizontalAdvance(longest) / 100.0
    size = min(size, 0.86 * wide / fits)
    if size < LEAST:
        return
    if not slash:
        words(painter, at, text, shade, size, bold=True)
        return
    stacked(painter, at, above, below, size, shade)


def stacked(painter: QPainter, at: QPointF, above: str, below: str, size: float, shade: QColor) -> None:
    """A fraction with its bar through a place."""
    words(painter, QPointF(at.x(), at.y() - 0.58 * size), above, shade, size, bold=True)
    words(painter, QPointF(at.x(), at.y() + 0.62 * size), below, shade, size, bold=True)
    painter.setPen(QPen(shade, max(1.2, 0.08 * size)))
    longest = max((above, below), key=len)
    half = 0.62 * QFontMetricsF(page_font(size, True)).horizontalAdvance(longest) + 1
    painter.drawLine(QPointF(at.x() - half, at.y()), QPointF(at.x() + half, at.y()))
