"""A task: a card with a sentence and a button. Right closes a ring with a tick; not yet is dashed and says what is there."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QFontMetricsF, QPainter, QPen, QPolygonF

from larch.board.look import HAIRLINE, NEEDLE, PAPER, SOFT, WRONG, page_font
from larch.board.views.base import View, words
from larch.core.actions.asking import verdict
from larch.core.base import hues
from larch.core.base.shape import Box
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.asking.task import LINE, PAD, SAID_LINE, SAID_SIZE, SIZE, WIDE, Task

ROUND = 14.0
GOOD = QColor(hues.GOOD)
GOOD_GROUND, WRONG_GROUND = QColor(hues.mixed(hues.PAPER, hues.GOOD, 0.14)), QColor(hues.mixed(hues.PAPER, hues.WRONG, 0.1))
RING = 15.0


class TaskView(View):
    kind: ClassVar[type[Thing]] = Task

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Task)
        if thing.at_once and thing.state == "asked" and verdict(page, thing)[0]:
            self._paint(painter, thing.replace(state="right"))
        else:
            self._paint(painter, thing)

    def _paint(self, painter: QPainter, thing: Task) -> None:
        _card(painter, thing)
        for k, line in enumerate(thing.lines()):
            _left(painter, PAD, PAD + LINE * (k + 0.5), line, SIZE, NEEDLE, bold=True)
        box = thing.said_box()
        if thing.state == "right":
            _ground(painter, box, GOOD_GROUND)
            _ring(painter, QPointF(box.x0 + 34, box.y0 + 28), GOOD, tick=True)
            _left(painter, box.x0 + 64, box.y0 + 28, _right(thing), 30.0, GOOD, bold=True)
        elif thing.state == "not yet":
            _ground(painter, box, WRONG_GROUND)
            _ring(painter, QPointF(box.x0 + 34, box.y0 + 28), WRONG, tick=False)
            _left(painter, box.x0 + 64, box.y0 + 28, _("Not yet"), 30.0, WRONG, bold=True)
            for k, line in enumerate(thing.said_lines()):
                _left(painter, box.x0 + 14, box.y0 + 48 + SAID_LINE * (k + 0.4), line, SAID_SIZE, NEEDLE)
        if thing.button().height:
            _button(painter, thing)
        if thing.place().height:
            _place(painter, thing.place())


def _right(task: Task) -> str:
    return _("Right: {answer}").format(answer=task.said) if task.said else _("Right")


def _card(painter: QPainter, task: Task) -> None:
    shade, wide, style = {
        "asked": (HAIRLINE, 1.6, Qt.PenStyle.SolidLine),
        "right": (GOOD, 3.4, Qt.PenStyle.SolidLine),
        "not yet": (WRONG, 2.6, Qt.PenStyle.DashLine),
    }[task.state]
    painter.setPen(QPen(shade, wide, style))
    painter.setBrush(PAPER)
    half = wide / 2
    painter.drawRoundedRect(QRectF(half, half, WIDE - wide, task.extent().height - wide), ROUND, ROUND)


def _ground(painter: QPainter, box: Box, shade: QColor) -> None:
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(shade)
    painter.drawRoundedRect(QRectF(box.x0, box.y0, box.width, box.height), 8, 8)


def _ring(painter: QPainter, at: QPointF, shade: QColor, tick: bool) -> None:
    """Closed with a tick, or dashes without one: told apart without any colour."""
    pen = QPen(shade, 3.0, Qt.PenStyle.SolidLine if tick else Qt.PenStyle.DashLine)
    painter.setPen(pen)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawEllipse(at, RING, RING)
    if tick:
        tick_way = [QPointF(at.x() - 7, at.y()), QPointF(at.x() - 2, at.y() + 6), QPointF(at.x() + 8, at.y() - 6)]
        painter.drawPolyline(QPolygonF(tick_way))


def _button(painter: QPainter, task: Task) -> None:
    box, again = task.button(), task.state == "not yet"
    painter.setPen(QPen(NEEDLE, 2.0))
    painter.setBrush(PAPER if again else NEEDLE)
    painter.drawRoundedRect(QRectF(box.x0, box.y0, box.width, box.height), 10, 10)
    text = _("Try again") if again else _("Check")
    words(painter, QPointF(*box.centre), text, NEEDLE if again else PAPER, 28.0, bold=True)


def _place(painter: QPainter, box: Box) -> None:
    """Where a number is to be written."""
    painter.setPen(QPen(NEEDLE, 2.0, Qt.PenStyle.DashLine))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawRoundedRect(QRectF(box.x0, box.y0, box.width, box.height), 10, 10)
    _left(painter, box.x0 + 14, box.y1 - 20, _("Write a number here."), SAID_SIZE, SOFT)


def _left(painter: QPainter, x: float, middle: float, text: str, size: float, shade: QColor, bold: bool = False) -> None:
    """Words that begin at x; squeezed where they would leave the card."""
    font = page_font(size, bold)
    metrics = QFontMetricsF(font)
    room, wide = WIDE - PAD - x + 12, metrics.horizontalAdvance(text)
    if wide > room:
        font = page_font(size * room / wide, bold)
        metrics = QFontMetricsF(font)
    painter.setFont(font)
    painter.setPen(shade)
    painter.drawText(QPointF(x, middle + metrics.capHeight() / 2), text)
