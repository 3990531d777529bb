"""A place-value chart: heads in the hues of their places; below, digits, expanded form, figures and words."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFontMetricsF, QPainter, QPen

from larch.board.look import NEEDLE, PAPER, page_font, text_colour, tint
from larch.board.views.base import View, words
from larch.core.base.hues import hue_of_place
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.place_value_chart import BODY, HEAD, WIDE, PlaceValueChart


class PlaceValueChartView(View):
    kind: ClassVar[type[Thing]] = PlaceValueChart

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, PlaceValueChart)
        body, counted = thing.body(), thing.counted(page)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(PAPER)
        painter.drawRoundedRect(QRectF(0, 0, body.width, body.height), 6, 6)
        for power in counted:
            left, hue = (thing.high - power) * WIDE, hue_of_place(power)
            painter.fillRect(QRectF(left, 0, WIDE, HEAD), tint(hue, 0.2))
            _squeezed(painter, QPointF(left + WIDE / 2, HEAD / 2), thing.head(power), 28.0, WIDE - 12)
            if power == -1:  # the point stands before the tenths
                painter.setPen(Qt.PenStyle.NoPen)
                painter.setBrush(NEEDLE)
                painter.drawEllipse(QPointF(left, HEAD + BODY - 10), 6, 6)
        painter.setPen(QPen(NEEDLE, 2.0))
        for k in range(1, thing.count()):
            painter.drawLine(QPointF(k * WIDE, 0), QPointF(k * WIDE, body.height))
        painter.drawLine(QPointF(0, HEAD), QPointF(body.width, HEAD))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRoundedRect(QRectF(0, 0, body.width, body.height), 6, 6)
        if thing.digits:
            for power, n in counted.items():
                box = thing.column(power)
                words(painter, QPointF(*box.centre), str(n), text_colour(hue_of_place(power)), 120, bold=True)
        if thing.labelled():
            self._below(painter, thing, page, counted)

    def _below(self, painter: QPainter, thing: PlaceValueChart, page: Page, counted: dict[int, int]) -> None:
        body = thing.body()
        y = body.y1 + 38
        if "digits" in thing.shows and not thing.digits:
            for power, n in counted.items():
                at = QPointF((thing.high - power + 0.5) * WIDE, y)
                words(painter, at, str(n), text_colour(hue_of_place(power)), 60, bold=True)
            y += 58
        if "expanded" in thing.shows:
            _squeezed(painter, QPointF(body.width / 2, y), thing.expanded(page), 36.0, body.width)
            y += 48
        if "words" in thing.shows:
            _squeezed(painter, QPointF(body.width / 2, y), f"{thing.text(page)}   {thing.words(page)}", 32.0, body.width)


def _squeezed(painter: QPainter, at: QPointF, text: str, size: float, room: float) -> None:
    """Words as large as their room allows."""
    wide = QFontMetricsF(page_font(size, True)).horizontalAdvance(text)
    words(painter, at, text, NEEDLE, size if wide <= room else max(9.0, size * room / wide), bold=True)
