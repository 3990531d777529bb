"""Boxes with words."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPolygonF, QTextDocument

from larch.board.gestures.base import Gesture, Stage
from larch.board.gestures.grow import Grow
from larch.board.look import PAPER, colour, tint
from larch.board.pointer import Sample
from larch.board.typeset.rich_text import document_of, paint_document, rise_of
from larch.board.views.base import View
from larch.core.base.memo import remember_in_thread
from larch.core.base.shape import Box
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.organisers.box import REACH, WordBox

TINT = 0.2


class WordBoxView(View):
    kind: ClassVar[type[Thing]] = WordBox

    def gesture(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        return Grow(stage, sample, thing, part.removeprefix("grow ")) if part.startswith("grow ") else None

    def extent(self, thing: Thing) -> Box:
        assert isinstance(thing, WordBox)
        if not thing.text:
            return Box(0, 0, thing.width, thing.height)
        words = laid_out(thing)
        return Box(0, 0, thing.width, thing.height_for(words.idealWidth(), words.size().height()))

    def hang(self, thing: Thing) -> Box:
        """The marks that grow boxes stay free."""
        box = self.box(thing)
        return box._replace(y0=box.y0 - REACH - 16.0, y1=box.y1 + REACH + 16.0)

    def touches(self, thing: Thing, x: float, y: float, slack: float) -> bool:
        return self.extent(thing).grown(slack).holds(x, y)

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, WordBox)
        box = self.extent(thing)
        frame = QRectF(0, 0, box.width, box.height)
        if thing.shape != "bare":
            painter.setPen(QPen(colour(thing.hue), 3.0))
            painter.setBrush(tint(thing.hue, TINT) if thing.filled else PAPER)
            _paint_shape(painter, thing.shape, frame)
        if thing.text:
            words = laid_out(thing)
            top = (box.height - words.size().height()) / 2
            paint_document(painter, words, QPointF(thing.inset(), top - rise_of(thing)))


def _paint_shape(painter: QPainter, shape: str, frame: QRectF) -> None:
    if shape == "oval":
        painter.drawEllipse(frame)
    elif shape == "diamond":
        middle = frame.center()
        corners = [
            (middle.x(), frame.top()),
            (frame.right(), middle.y()),
            (middle.x(), frame.bottom()),
            (frame.left(), middle.y()),
        ]
        pen = painter.pen()
        pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
        painter.setPen(pen)
        painter.drawPolygon(QPolygonF([QPointF(x, y) for x, y in corners]))
    else:
        corner = 14.0 if shape == "round" else 2.0
        painter.drawRoundedRect(frame, corner, corner)


@remember_in_thread
def laid_out(box: WordBox) -> QTextDocument:
    return document_of(box, max(24.0, box.width - 2 * box.inset()))
