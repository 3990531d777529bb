"""Dice in a row with their sum, and a bar for each sum; a dash over each says what theory expects."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import NEEDLE, SOFT, colour, tint
from larch.board.views.base import View, words
from larch.board.views.chance.bars import number_over
from larch.board.views.chance.die import PIPS
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.chance.dice_sum import HEAD, SIDE, TALL, DiceSum, ways


class DiceSumView(View):
    kind: ClassVar[type[Thing]] = DiceSum
    margin: ClassVar[float] = 8.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, DiceSum)
        whole = thing.extent()
        for k in range(thing.count):
            self._die(painter, thing, k)
        if thing.values:
            x = thing.count * (SIDE + 12) + 36
            words(painter, QPointF(min(x, whole.width - 40), SIDE / 2 + 2), str(sum(thing.values)), NEEDLE, 60, bold=True)
        self._bars(painter, thing)

    def _die(self, painter: QPainter, thing: DiceSum, k: int) -> None:
        x, shade = k * (SIDE + 12), colour(thing.hue)
        painter.setPen(QPen(shade.darker(130), 2.0))
        painter.setBrush(tint(thing.hue, 0.16))
        painter.drawRoundedRect(QRectF(x + 2, 2, SIDE - 4, SIDE - 4), 13, 13)
        value = thing.values[k] if thing.values else 0
        if thing.faces == 6 and value:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(shade)
            for px, py in PIPS[value]:
                painter.drawEllipse(QPointF(x + px * SIDE, py * SIDE), 7, 7)
        elif value:
            words(painter, QPointF(x + SIDE / 2, SIDE / 2), str(value), NEEDLE, 34, bold=True)

    def _bars(self, painter: QPainter, thing: DiceSum) -> None:
        wide, counts = thing.bar(), thing.counts()
        rolls, number, floor = sum(counts), ways(thing.count, thing.faces), HEAD + TALL
        whole = sum(number)
        theory = [rolls * n / whole for n in number] if rolls else [n / max(number) for n in number]
        most = max(*counts, *theory, 1.0)
        left = (thing.extent().width - wide * len(counts)) / 2
        for k, count in enumerate(counts):
            x, high = left + k * wide, (TALL - 26) * count / most
            if count:
                painter.setPen(QPen(colour(thing.hue).darker(125), 1.6))
                painter.setBrush(tint(thing.hue, 0.42))
                painter.drawRect(QRectF(x + 2, floor - high, wide - 4, high))
            painter.setPen(QPen(NEEDLE, 2.0, Qt.PenStyle.DashLine))
            y = floor - (TALL - 26) * theory[k] / most
            painter.drawLine(QPointF(x, y), QPointF(x + wide, y))
            size = min(24.0, 0.62 * wide)
            words(painter, QPointF(x + wide / 2, floor + 18), str(thing.count + k), NEEDLE, size)
            if count and wide > 26:
                label = str(count)
                fits = min(22.0, 1.5 * wide / len(label))
                number_over(painter, x + wide / 2, floor - high, y, label, fits)
        painter.setPen(QPen(NEEDLE, 2.0))
        painter.drawLine(QPointF(left, floor), QPointF(left + wide * len(counts), floor))
        text = _("{n} throws").format(n=rolls) if rolls else _("tap to throw")
        words(painter, QPointF(thing.extent().width / 2, floor + 58), text, NEEDLE if rolls else SOFT, 26, bold=bool(rolls))
