"""A tree of two draws with a fraction on each branch, or a table with sums; at each end how often it came and its chance."""

from __future__ import annotations

from fractions import Fraction
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import NEEDLE, PAPER, SOFT, colour, tint
from larch.board.views.base import View, words
from larch.board.views.fractions.parted import stacked
from larch.core.base.hues import hue_in_order
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.chance.two_draws import CELL, FOOT, ROW, WIDE, TwoDraws

FIRST, SECOND, END = 200.0, 460.0, 575.0  # where the draws stand, and what came of them
HALF = 56.0  # of a slip with a name
TALL = 0.6 * CELL


class TwoDrawsView(View):
    kind: ClassVar[type[Thing]] = TwoDraws
    margin: ClassVar[float] = 12.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, TwoDraws)
        if thing.form == "table":
            self._table(painter, thing)
        else:
            self._tree(painter, thing)
        box, trials = thing.extent(), sum(thing.tally)
        text = _("{n} trials").format(n=trials) if trials else _("tap to draw twice")
        words(painter, QPointF(box.width / 2, box.y1 - FOOT / 2), text, NEEDLE if trials else SOFT, 26, bold=bool(trials))

    # The tree

    def _tree(self, painter: QPainter, thing: TwoDraws) -> None:
        n = len(thing.counts)
        middle = n * n * ROW / 2
        for first in thing.sorts():
            at = QPointF(FIRST, (first * n + n / 2) * ROW)
            self._branch(painter, QPointF(20, middle), at, thing.chance_first(first))
            for second in thing.sorts():
                end = QPointF(SECOND, (first * n + second + 0.5) * ROW)
                self._branch(painter, at + QPointF(HALF, 0), end, thing.chance_second(first, second))
                self._slip(painter, thing, end, second)
                count, chance = thing.times(first, second), thing.chance_of(first, second)
                words(painter, QPointF(END + 20, end.y()), str(count), NEEDLE, 30, bold=True)
                words(painter, QPointF(END + 110, end.y()), _("chance"), SOFT, 20)
                _fraction(painter, QPointF(WIDE - 24, end.y()), chance, 20)
            self._slip(painter, thing, at, first)
        painter.setPen(QPen(NEEDLE, 2.4))
        painter.setBrush(NEEDLE)
        painter.drawEllipse(QPointF(20, middle), 7, 7)

    def _branch(self, painter: QPainter, start: QPointF, end: QPointF, chance: Fraction) -> None:
        painter.setPen(QPen(NEEDLE, 2.4 if chance else 1.0))
        stop = end - QPointF(HALF, 0)
        painter.drawLine(start, stop)
        at = start + (stop - start) * 0.76
        painter.fillRect(QRectF(at.x() - 15, at.y() - 22, 30, 44), PAPER)
        _fraction(painter, at, chance, 19)

    def _slip(self, painter: QPainter, thing: TwoDraws, at: QPointF, sort: int) -> None:
        hue = hue_in_order(sort)
        painter.setPen(QPen(colour(hue).darker(125), 2.4))
        painter.setBrush(tint(hue, 0.42))
        painter.drawRoundedRect(QRectF(at.x() - HALF, at.y() - 19, 2 * HALF, 38), 8, 8)
        name = thing.sort_name(sort)
        words(painter, at, name, NEEDLE, min(26.0, 1.6 * 2 * HALF / max(1, len(name))), bold=True)

    # The table

    def _table(self, painter: QPainter, thing: TwoDraws) -> None:
        n = len(thing.counts)
        for row in range(n + 2):
            for column in range(n + 2):
                rect = QRectF(column * CELL, row * TALL, CELL, TALL)
                head = row == 0 or column == 0
                total = n + 1 in (row, column)
                painter.setPen(QPen(NEEDLE, 1.6))
                painter.setBrush(tint("slate", 0.2) if head else tint("slate", 0.1) if total else PAPER)
                painter.drawRect(rect)
                text = self._cell(thing, row, column, n)
                size = min(28.0, 1.5 * CELL / max(1, len(text)))
                words(painter, rect.center(), text, NEEDLE, size, bold=not head or total)
        words(painter, QPointF(CELL / 2, TALL * 0.3), _("1st ↓"), SOFT, 20)
        words(painter, QPointF(CELL / 2, TALL * 0.7), _("2nd →"), SOFT, 20)

    def _cell(self, thing: TwoDraws, row: int, column: int, n: int) -> str:
        if row == 0 and column == 0:
            return ""
        if row == 0 or column == 0:
            k = max(row, column)
            return _("sum") if k == n + 1 else thing.sort_name(k - 1)
        rows = thing.sorts() if row == n + 1 else [row - 1]
        columns = thing.sorts() if column == n + 1 else [column - 1]
        return str(sum(thing.times(first, second) for first in rows for second in columns))


def _fraction(painter: QPainter, at: QPointF, value: Fraction, size: float) -> None:
    if value.denominator == 1:
        words(painter, at, str(value.numerator), NEEDLE, size + 4, bold=True)
    else:
        stacked(painter, at, str(value.numerator), str(value.denominator), size, NEEDLE)
