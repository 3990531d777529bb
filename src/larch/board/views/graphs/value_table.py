"""A table of values: two columns, the letters above them, each own y beside an equation with its sign."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QLineF, QPointF, QRectF
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from larch.board.gestures.base import Gesture, Stage
from larch.board.look import HAIRLINE, NEEDLE, PAPER, RIGHT, STONE, WRONG, text_colour
from larch.board.pointer import Sample
from larch.board.typeset.boxes import paint_setting
from larch.board.typeset.mathset import set_row
from larch.board.views.base import View
from larch.core.maths.layout.reading import look
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.value_table import COLUMN, ROW, ValueTable

NUMBER, NAME = 36.0, 36.0
PAD = 14.0


class ValueTableView(View):
    kind: ClassVar[type[Thing]] = ValueTable
    margin: ClassVar[float] = 4.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, ValueTable)
        box = thing.extent()
        painter.setPen(QPen(HAIRLINE, 1.4))
        painter.setBrush(PAPER)
        painter.drawRoundedRect(QRectF(0, 0, box.width, box.height), 6, 6)
        painter.fillRect(QRectF(1, 1, box.width - 2, ROW - 1), STONE)
        for column, name in enumerate((thing.x_name, thing.y_name)):
            _fitting(painter, name, QRectF(column * COLUMN, 0, COLUMN, ROW), NAME, "needle")
        painter.setPen(QPen(HAIRLINE, 1.2))
        painter.drawLine(QLineF(COLUMN, 0, COLUMN, box.height))
        for y in range(1, thing.count() + 1):
            painter.drawLine(QLineF(0, y * ROW, box.width, y * ROW))
        for k, row in enumerate(thing.rows(page)):
            for column, text in enumerate((row.x, row.y)):
                cell = thing.cell_box(k, column)
                area = QRectF(cell.x0, cell.y0, cell.width, cell.height)
                if column == 1 and row.right is not None:
                    _sign(painter, area, row.right)
                    area.setRight(area.right() - 34)
                if text:
                    _fitting(painter, text, area, NUMBER, "needle" if column == 0 else thing.hue)

    def gesture(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        return _Write(stage, sample, thing) if part else None


class _Write(Gesture):
    """A tap on a cell: it is written in. A drag moves the table, as by its names."""

    def __init__(self, stage: Stage, sample: Sample, thing: Thing) -> None:
        self.stage, self.id, self.at = stage, thing.id, sample.page_pos

    def release(self, sample: Sample) -> None:
        thing = self.stage.page.thing(self.id)
        if thing is not None:
            self.stage.edit_at = self.at
            self.stage.edit_thing(thing)


def _fitting(painter: QPainter, text: str, area: QRectF, size: float, hue: str) -> None:
    """In the middle of a cell, as large as it has room."""
    made = set_row(look(text))
    tall = max(0.7, made.above) + max(0.1, made.below)
    fits = min(size, (area.width() - 2 * PAD) / max(0.2, made.width), (area.height() - 8) / tall)
    at = QPointF(area.center().x() - made.width * fits / 2, area.center().y() + (made.above - made.below) / 2 * fits)
    paint_setting(painter, made, at, fits, NEEDLE if hue == "needle" else text_colour(hue))


def _sign(painter: QPainter, area: QRectF, right: bool) -> None:
    """A check, or an arrow that turns back."""
    x, y = area.right() - 22, area.center().y()
    painter.setPen(QPen(RIGHT if right else WRONG, 3.4))
    if right:
        painter.drawPolyline(QPolygonF([QPointF(x - 9, y), QPointF(x - 3, y + 7), QPointF(x + 9, y - 8)]))
    else:
        painter.drawArc(QRectF(x - 9, y - 9, 18, 18), -60 * 16, 270 * 16)
        painter.drawPolyline(QPolygonF([QPointF(x - 2, y + 13), QPointF(x + 5, y + 8), QPointF(x + 8, y + 16)]))
