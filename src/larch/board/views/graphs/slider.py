"""A slider: its letter and value at the left, the line with ticks, and the thumb with the letter on it."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QLineF, QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import NEEDLE, PAPER, colour, text_colour, tint
from larch.board.typeset.boxes import paint_setting
from larch.board.typeset.mathset import set_row
from larch.board.views.base import View, words
from larch.core.base.shape import Box
from larch.core.maths.layout.rows import Sign, signs
from larch.core.model.fact import number_text
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.slider import LONG, THUMB, TRACK, Slider

MOST_TICKS = 60
SIZE = 44.0
BESIDE = 24.0


class SliderView(View):
    kind: ClassVar[type[Thing]] = Slider
    margin: ClassVar[float] = 6.0

    def reach(self, thing: Thing, page: Page) -> Box:
        reach = super().reach(thing, page)
        return reach._replace(x0=reach.x0 - 260 * thing.placement.scale)

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Slider)
        shade = colour(thing.hue)
        here = thing.x_of(thing.value)
        for left, right, ink in ((THUMB, here, shade), (here, LONG - THUMB, tint(thing.hue, 0.4))):
            painter.setPen(QPen(ink, 8, cap=Qt.PenCapStyle.RoundCap))
            painter.drawLine(QLineF(left, TRACK, right, TRACK))
        count = round((thing.high - thing.low) / thing.step)
        painter.setPen(QPen(NEEDLE, 2))
        for k in range(count + 1 if count <= MOST_TICKS else 0):
            value = thing.low + k * thing.step
            long = abs(value - round(value)) < 1e-9
            x = thing.x_of(value)
            painter.drawLine(QLineF(x, TRACK + 14, x, TRACK + (26 if long else 20)))
        for value in (thing.low, thing.high):
            words(painter, QPointF(thing.x_of(value), TRACK + 42), number_text(value, 6), NEEDLE, 24)
        painter.setPen(QPen(shade, 4))
        painter.setBrush(PAPER)
        painter.drawEllipse(QPointF(here, TRACK), THUMB - 2, THUMB - 2)
        letter = set_row((Sign(thing.letter),))
        at = QPointF(here - letter.width * 16, TRACK + (letter.above - letter.below) * 16)
        paint_setting(painter, letter, at, 32, text_colour(thing.hue))
        made = set_row((Sign(thing.letter), Sign("="), *signs(thing.value_text())))
        paint_setting(painter, made, QPointF(-BESIDE - made.width * SIZE, TRACK + 14), SIZE, text_colour(thing.hue))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if thing.going:
            painter.setPen(QPen(shade, 2))
            painter.drawEllipse(QRectF(here - THUMB - 4, TRACK - THUMB - 4, 2 * THUMB + 8, 2 * THUMB + 8))
