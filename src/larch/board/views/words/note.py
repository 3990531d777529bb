"""Sticky notes: a sheet with one corner lifted, or the tab it is folded to."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFontMetricsF, QPainter, QPen, QPolygonF, QTextDocument

from larch.board.look import NEEDLE, colour, page_font, tint
from larch.board.typeset.rich_text import document_of, paint_document, rise_of
from larch.board.views.base import View, transform
from larch.board.views.ink.ink import paint_ink
from larch.core.base.memo import remember_in_thread
from larch.core.base.shape import Box
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.words.note import INSET, LEAST, TAB_HEIGHT, TAB_SIZE, Note

SHEET, EDGE = 0.3, 0.62  # strength of the hue in the sheet and in its darker foot
CURL = 26.0  # side of the lifted corner
SIGN = 26  # side of the sign on a tab


class NoteView(View):
    kind: ClassVar[type[Thing]] = Note

    def waits(self, thing: Thing) -> bool:
        assert isinstance(thing, Note)
        return bool(thing.strokes) and not thing.folded

    def extent(self, thing: Thing) -> Box:
        assert isinstance(thing, Note)
        if thing.folded:
            wide = QFontMetricsF(page_font(TAB_SIZE, True)).horizontalAdvance(thing.tab_words())
            return Box(0, 0, max(LEAST, wide + 2 * INSET + SIGN + 10), TAB_HEIGHT)
        words = laid_out(thing).size().height() if thing.text else 0.0
        return Box(0, 0, thing.width, max(thing.height, words + 2 * INSET))

    def touches(self, thing: Thing, x: float, y: float, slack: float) -> bool:
        return self.extent(thing).grown(slack).holds(x, y)

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Note)
        box = self.extent(thing)
        if thing.folded:
            _tab(painter, thing, box)
            return
        _sheet(painter, thing, box)
        if thing.text:
            paint_document(painter, laid_out(thing), QPointF(INSET, INSET - rise_of(thing)))
        for stroke in thing.strokes:
            painter.save()
            painter.setTransform(transform(stroke.placement), True)
            paint_ink(painter, stroke)
            painter.restore()


@remember_in_thread
def laid_out(note: Note) -> QTextDocument:
    return document_of(note, max(1.0, note.width - 2 * INSET))


def _sheet(painter: QPainter, note: Note, box: Box) -> None:
    corners = [(0, 0), (box.x1, 0), (box.x1, box.y1 - CURL), (box.x1 - CURL, box.y1), (0, box.y1)]
    painter.setPen(QPen(tint(note.hue, EDGE), 1.4))
    painter.setBrush(tint(note.hue, SHEET))
    painter.drawPolygon(QPolygonF([QPointF(x, y) for x, y in corners]))
    painter.setBrush(tint(note.hue, EDGE))
    lifted = [(box.x1, box.y1 - CURL), (box.x1 - CURL, box.y1), (box.x1 - CURL, box.y1 - CURL)]
    painter.drawPolygon(QPolygonF([QPointF(x, y) for x, y in lifted]))


def _tab(painter: QPainter, note: Note, box: Box) -> None:
    painter.setPen(QPen(tint(note.hue, EDGE), 1.4))
    painter.setBrush(tint(note.hue, SHEET))
    painter.drawRect(QRectF(0, 0, box.x1, box.y1))
    painter.fillRect(QRectF(0, 0, 8, box.y1), colour(note.hue))
    painter.setFont(page_font(TAB_SIZE, True))
    painter.setPen(NEEDLE)
    room = QRectF(INSET, 0, box.x1 - 2 * INSET - SIGN, box.y1)
    painter.drawText(room, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft, note.tab_words())
    middle = QPointF(box.x1 - INSET / 2 - SIGN / 2, box.y1 / 2)
    painter.setPen(QPen(NEEDLE, 2.6, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
    for way in (-1, 1):  # two arrowheads apart: it opens
        tip = middle + QPointF(0, 12 * way)
        painter.drawPolyline(QPolygonF([tip - QPointF(7, 7 * way), tip, tip + QPointF(7, -7 * way)]))
