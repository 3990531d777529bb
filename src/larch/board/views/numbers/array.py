"""An array: dots in the tints of what is multiplied, parted; its products stand beside it with small keys."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFontMetricsF, QPainter, QPen

from larch.board.look import NEEDLE, PAPER, SOFT, colour, page_font, tint
from larch.board.views.base import View, words
from larch.core.base.hues import hue_of_place
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.array import HEAD, SIDE, UNIT, Array, Piece

DOT = 7.0
KEY = 26.0
ROW = 44.0


class ArrayView(View):
    kind: ClassVar[type[Thing]] = Array
    margin: ClassVar[float] = 14.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Array)
        pieces = thing.pieces()
        for piece in pieces:
            self._piece(painter, thing, piece)
        if thing.labelled():
            self._values(painter, thing, pieces)
        for part in ("rows", "columns", "corner"):
            self._grip(painter, QPointF(*thing.part_place(part)), part)

    def _values(self, painter: QPainter, thing: Array, pieces: list[Piece]) -> None:
        self._counts(painter, thing)
        text = f"{thing.rows} × {thing.columns}" + ("" if thing.is_parted() else f" = {thing.worth()}")
        words(painter, QPointF(thing.field().centre[0], thing.extent().y1 - 28), text, NEEDLE, 36, bold=True)
        if thing.is_parted():
            self._products(painter, thing, pieces)

    def _hue(self, thing: Array, piece: Piece) -> str:
        return hue_of_place(piece.place) if thing.is_parted() else thing.hue

    def _piece(self, painter: QPainter, thing: Array, piece: Piece) -> None:
        hue, box = self._hue(thing, piece), piece.box
        painter.setPen(QPen(colour(hue).darker(125), 2.0))
        painter.setBrush(tint(hue, 0.2))
        painter.drawRoundedRect(QRectF(box.x0, box.y0, box.width, box.height), 4, 4)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour(hue))
        for row in range(piece.rows):
            for column in range(piece.columns):
                painter.drawEllipse(QPointF(box.x0 + (column + 0.5) * UNIT, box.y0 + (row + 0.5) * UNIT), DOT, DOT)

    def _counts(self, painter: QPainter, thing: Array) -> None:
        """How many columns and rows each part has, above and beside it."""
        for piece in thing.pieces():
            box = piece.box
            if box.y0 == HEAD:
                words(painter, QPointF(box.centre[0], HEAD - 26), str(piece.columns), NEEDLE, 28, bold=True)
            if box.x0 == SIDE:
                words(painter, QPointF(SIDE - 34, box.centre[1]), str(piece.rows), NEEDLE, 28, bold=True)

    def _products(self, painter: QPainter, thing: Array, pieces: list[Piece]) -> None:
        left, right = thing.field().x1 + 30, thing.extent().x1 - 4
        y = HEAD + ROW / 2
        for piece in pieces:
            self._key(painter, thing, pieces, piece, left, y)
            _ending(painter, right - 62, y, f"{piece.rows} × {piece.columns} =", 26, False)
            _ending(painter, right, y, str(piece.rows * piece.columns), 28, True)
            y += ROW
        painter.setPen(QPen(NEEDLE, 2.0))
        painter.drawLine(QPointF(left, y - ROW / 2 + 2), QPointF(right, y - ROW / 2 + 2))
        _ending(painter, right, y + 4, str(thing.worth()), 36, True)

    def _key(self, painter: QPainter, thing: Array, pieces: list[Piece], one: Piece, x: float, y: float) -> None:
        """A small picture of the parts with this one filled."""
        field = thing.field()
        factor = KEY / max(field.width, field.height)
        for piece in pieces:
            box, hue = piece.box, self._hue(thing, piece)
            painter.setPen(QPen(colour(hue).darker(125), 1.0))
            painter.setBrush(colour(hue) if piece is one else PAPER)
            painter.drawRect(QRectF(x + (box.x0 - field.x0) * factor, y + (box.y0 - field.y0) * factor - KEY / 2,
                                    box.width * factor, box.height * factor))  # fmt: skip

    def _grip(self, painter: QPainter, at: QPointF, part: str) -> None:
        painter.setPen(QPen(SOFT, 2.0))
        painter.setBrush(PAPER)
        radius = 9.0 if part == "corner" else 6.0
        painter.drawEllipse(at, radius, radius)


def _ending(painter: QPainter, right: float, middle: float, text: str, size: float, bold: bool) -> None:
    """Words that end at a place."""
    wide = QFontMetricsF(page_font(size, bold)).horizontalAdvance(text)
    words(painter, QPointF(right - wide / 2, middle), text, NEEDLE, size, bold)
