"""A number line: ticks and numbers that never collide, marks as dots, jumps as arcs with their size on a badge."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen, QPolygonF

from larch.board.look import GOLD, NEEDLE, PAPER, colour, text_colour, tint
from larch.board.typeset.boxes import paint_setting
from larch.board.typeset.mathset import set_row
from larch.board.views.base import View, badge, words
from larch.board.views.fractions.parted import stacked
from larch.core.base.hues import hue_of_number
from larch.core.maths.layout.reading import look
from larch.core.model.fact import number_text
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.number_line import END, FOOT, RISE, STRIP, NumberLine, as_fraction, signed, tidy

HEAD = 12.0
BAR = 44.0  # above the line, where a statement is true
TALL = 62.0  # of the highest jump


class NumberLineView(View):
    kind: ClassVar[type[Thing]] = NumberLine
    margin: ClassVar[float] = 30.0

    def touches(self, thing: Thing, x: float, y: float, slack: float) -> bool:
        assert isinstance(thing, NumberLine)
        low = RISE - 30 if not thing.jumps else 0.0
        return thing.extent().grown(slack).holds(x, y) and y >= low - slack

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, NumberLine)
        if thing.window:
            self._window(painter, thing)
        self._line(painter, thing)
        every, ticks = thing.named_every(), thing.ticks()
        zero = next((k for k, tick in enumerate(ticks) if tick == 0), 0)
        for k, tick in enumerate(ticks):
            x, named = thing.x_of(tick), (k - zero) % every == 0
            if thing.step:
                long = 14.0 if named else 8.0
                painter.setPen(QPen(NEEDLE, 2.4 if named else 1.6))
                painter.drawLine(QPointF(x, RISE - long), QPointF(x, RISE + long))
            if thing.named == "fractions" and named:
                _fraction(painter, QPointF(x, RISE + 36), tick)
            at_end = k in (0, len(ticks) - 1)
            if (thing.named == "all" and named) or (thing.named == "ends" and at_end):
                bold = any(math.isclose(tick, mark, abs_tol=1e-9) for mark in (*thing.marks, *self._landed(thing)))
                words(painter, QPointF(x, RISE + 34), number_text(tick, 9), NEEDLE, 26, bold=bold)

    def _window(self, painter: QPainter, thing: NumberLine) -> None:
        """A frame on the line, and below it the same part ten times finer."""
        start = thing.window_from()
        left, right = thing.x_of(start), thing.x_of(start + thing.window)
        top, bottom = RISE + FOOT + 8, RISE + FOOT + STRIP - 4
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(tint("straw", 0.14))
        painter.drawPolygon(QPolygonF([QPointF(left, RISE + 50), QPointF(right, RISE + 50), QPointF(END + thing.long, top),
                                       QPointF(END, top)]))  # fmt: skip
        painter.setPen(QPen(GOLD, 2.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRoundedRect(QRectF(left, RISE - 20, right - left, 70), 6, 6)
        painter.setBrush(PAPER)
        painter.drawRoundedRect(QRectF(END, top, thing.long, bottom - top), 8, 8)
        y = top + 34
        painter.setPen(QPen(NEEDLE, 3.0))
        painter.drawLine(QPointF(thing.strip_x(start), y), QPointF(thing.strip_x(start + thing.window), y))
        for k in range(11):
            value = tidy(start + thing.window * k / 10, thing.window / 10)
            x = thing.strip_x(value)
            painter.setPen(QPen(NEEDLE, 2.4))
            painter.drawLine(QPointF(x, y - 12), QPointF(x, y + 12))
            text = number_text(value, 9)
            wide = 15.0 * len(text)
            if k in (0, 10) or (thing.long - 60) / 10 > wide + 8:
                words(painter, QPointF(x, y + 34), text, NEEDLE, 24, bold=k in (0, 10))
        for number in (*thing.marks, *self._landed(thing)):
            if start <= number <= start + thing.window:
                painter.setPen(QPen(NEEDLE, 2.6))
                painter.setBrush(NEEDLE)
                painter.drawEllipse(QPointF(thing.strip_x(number), y), 8, 8)

    def _landed(self, thing: NumberLine) -> list[float]:
        return thing.landings() if thing.jumps else []

    def _line(self, painter: QPainter, thing: NumberLine) -> None:
        painter.setPen(QPen(NEEDLE, 3.2))
        right = END + thing.long + END - 4
        painter.drawLine(QPointF(4, RISE), QPointF(right - HEAD, RISE))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NEEDLE)
        painter.drawPolygon(QPolygonF([QPointF(right, RISE), QPointF(right - HEAD - 4, RISE - 8),
                                       QPointF(right - HEAD - 4, RISE + 8)]))  # fmt: skip

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, NumberLine)
        painter.save()
        painter.translate(thing.placement.x, thing.placement.y)
        painter.scale(thing.placement.scale, thing.placement.scale)
        self._statement(painter, thing)
        landings = self._landed(thing)
        widest = max((abs(thing.x_of(b) - thing.x_of(a)) for a, b in pairwise(landings)), default=1.0)
        for k, jump in enumerate(thing.jumps):
            self._jump(painter, thing, landings[k], jump, widest)
        for number in thing.marks:
            self._dot(painter, thing.x_of(number), ringed=False)
            if not self._is_named(thing, number):
                words(painter, QPointF(thing.x_of(number), RISE - 30), number_text(number, 9), NEEDLE, 26, bold=True)
        if landings:
            self._dot(painter, thing.x_of(landings[0]), ringed=False)
            for landing in landings[1:]:
                self._dot(painter, thing.x_of(landing), ringed=True)
                if not self._is_named(thing, landing):
                    words(painter, QPointF(thing.x_of(landing), RISE + 34), number_text(landing, 9), NEEDLE, 26, bold=True)
        painter.restore()

    def _statement(self, painter: QPainter, thing: NumberLine) -> None:
        """A bar above the line for each interval: a full ring at an end that belongs to it, an empty one at one that
        doesn't, an arrow where it goes on."""
        shade = colour(thing.hue if thing.hue != "needle" else "lake")
        y = RISE - BAR
        for one in thing.true_on():
            left = END - 14 if one.low < thing.first else thing.x_of(one.low)
            right = END + thing.long + 8 if one.high > thing.last else thing.x_of(one.high)
            painter.setPen(QPen(shade, 6, cap=Qt.PenCapStyle.FlatCap))
            painter.drawLine(QPointF(left, y), QPointF(right, y))
            for value, at, inside, way in ((one.low, left, one.low_in, -1), (one.high, right, one.high_in, 1)):
                painter.setPen(QPen(shade, 3.2))
                if not thing.first <= value <= thing.last:
                    painter.setBrush(shade)
                    painter.drawPolygon(QPolygonF([QPointF(at + way * 12, y), QPointF(at, y - 8), QPointF(at, y + 8)]))
                else:
                    painter.setBrush(shade if inside else PAPER)
                    painter.drawEllipse(QPointF(at, y), 9, 9)
                    painter.drawLine(QPointF(at, y + 9), QPointF(at, RISE))
        if thing.statement and thing.true_on():
            made = set_row(look(thing.statement))
            paint_setting(painter, made, QPointF(END, RISE - BAR - 20), 30, shade)

    def _is_named(self, thing: NumberLine, value: float) -> bool:
        """Whether its number is written at the line anyway."""
        ticks, every = thing.ticks(), thing.named_every()
        zero = next((k for k, tick in enumerate(ticks) if tick == 0), 0)
        found = next((k for k, tick in enumerate(ticks) if math.isclose(tick, value, abs_tol=1e-9)), None)
        if found is None or thing.named == "none":
            return False
        if thing.named == "fractions":
            return (found - zero) % every == 0
        return found in (0, len(ticks) - 1) if thing.named == "ends" else (found - zero) % every == 0

    def _jump(self, painter: QPainter, thing: NumberLine, start: float, jump: float, widest: float) -> None:
        a, b = thing.x_of(start), thing.x_of(start + jump)
        if a == b:
            return
        hue = hue_of_number(max(2, round(abs(jump)))) if abs(jump) < 1e9 else "lake"
        high = max(26.0, TALL * math.sqrt(abs(b - a) / widest))
        path = QPainterPath(QPointF(a, RISE - 8))
        path.cubicTo(QPointF(a, RISE - 8 - 1.33 * high), QPointF(b, RISE - 8 - 1.33 * high), QPointF(b, RISE - 12))
        pen = QPen(colour(hue), 4.0)
        painter.setPen(pen)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPath(path)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour(hue))
        painter.drawPolygon(QPolygonF([QPointF(b, RISE - 6), QPointF(b - 7, RISE - 21), QPointF(b + 7, RISE - 21)]))
        badge(painter, ((a + b) / 2, RISE - 8 - high), signed(jump), text_colour(hue), 24)

    def _dot(self, painter: QPainter, x: float, ringed: bool) -> None:
        painter.setPen(QPen(NEEDLE, 2.6))
        painter.setBrush(PAPER if ringed else NEEDLE)
        painter.drawEllipse(QPointF(x, RISE), 9, 9)
        if ringed:
            painter.setBrush(NEEDLE)
            painter.drawEllipse(QPointF(x, RISE), 4, 4)


def _fraction(painter: QPainter, at: QPointF, value: float) -> None:
    """A whole number, a fraction, or both beside each other."""
    whole, above, below = as_fraction(value)
    if not above:
        words(painter, QPointF(at.x(), RISE + 34), number_text(whole, 0), NEEDLE, 26, bold=True)
        return
    shift = 0.0
    if whole:
        shift = 12.0
        words(painter, QPointF(at.x() - 10, at.y()), number_text(whole, 0), NEEDLE, 24, bold=True)
    stacked(painter, QPointF(at.x() + shift, at.y()), number_text(above, 0), str(below), 18.0, NEEDLE)
