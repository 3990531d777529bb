"""Column arithmetic on squared paper: printed digits dark, written ones in its hue, what is to be written as empty cells."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QLineF, QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen

from larch.board.gestures.base import Gesture, Stage
from larch.board.look import HAIRLINE, NEEDLE, PAPER, RIGHT, WRONG, text_colour
from larch.board.pointer import Sample
from larch.board.views.base import View, words
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.column_sum import CELL, ColumnSum

DIGIT, TINY = 42.0, 22.0


class ColumnSumView(View):
    kind: ClassVar[type[Thing]] = ColumnSum
    margin: ClassVar[float] = 64.0

    def gesture(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        return _Write(stage, sample, thing) if part else None

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, ColumnSum)
        box = thing.extent()
        painter.fillRect(QRectF(0, 0, box.width, box.height), PAPER)
        digits, wrong = thing.digits(), set(thing.wrong()) if thing.check else set()
        lines, wide = thing.lines(), thing.width()
        for row, line in enumerate(lines):
            size = TINY if line.small else DIGIT
            for column in range(wide):
                cell = thing.cell_box(row, column)
                area = QRectF(cell.x0, cell.y0, cell.width, cell.height)
                painter.setPen(QPen(HAIRLINE, 1))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRect(area)
                at = QPointF(*cell.centre)
                if column in line.printed:
                    if line.printed[column] == ")":
                        self._bracket(painter, area, box.width)
                    else:
                        words(painter, at, line.printed[column], NEEDLE, size, bold=True)
                elif (row, column) in digits:
                    shade = text_colour(thing.hue)
                    words(painter, at, digits[row, column], shade, size, bold=not line.small)
                    if (row, column) in wrong:
                        pen = QPen(WRONG, 4)
                        pen.setDashPattern([2.0, 1.2])
                        painter.setPen(pen)
                        painter.drawLine(QLineF(cell.x0 + 8, cell.y1 - 5, cell.x1 - 8, cell.y1 - 5))
            if line.ruled is not None:
                first, last = line.ruled
                painter.setPen(QPen(NEEDLE, 3))
                y = thing.row_top(row)
                painter.drawLine(QLineF(CELL * first + 4, y, CELL * (last + 1) - 4, y))
        painter.setPen(QPen(HAIRLINE, 1.6))
        painter.drawRect(QRectF(0, 0, box.width, box.height))
        if thing.check and thing.is_done():
            self._done(painter, QPointF(box.width + 34, box.height - 30))

    def _bracket(self, painter: QPainter, area: QRectF, right: float) -> None:
        """Of a long division: round the divisor's end and over the dividend."""
        painter.setPen(QPen(NEEDLE, 3))
        path = QPainterPath(QPointF(area.center().x() - 6, area.bottom() - 4))
        path.quadTo(QPointF(area.right() - 4, area.center().y()), QPointF(area.center().x() - 6, area.top() + 1))
        path.lineTo(right - 4, area.top() + 1)
        painter.drawPath(path)

    def _done(self, painter: QPainter, at: QPointF) -> None:
        painter.setPen(QPen(RIGHT, 3))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(at, 21, 21)
        tick = QPainterPath(at + QPointF(-9, 1))
        tick.lineTo(at + QPointF(-2, 8))
        tick.lineTo(at + QPointF(10, -7))
        painter.setPen(QPen(RIGHT, 4, cap=Qt.PenCapStyle.RoundCap))
        painter.drawPath(tick)


class _Write(Gesture):
    """A tap on a cell: it is written in."""

    def __init__(self, stage: Stage, sample: Sample, thing: Thing) -> None:
        self.stage, self.id, self.at = stage, thing.id, sample.page_pos

    def move(self, sample: Sample) -> None:
        pass

    def release(self, sample: Sample) -> None:
        thing = self.stage.page.thing(self.id)
        if thing is not None:
            self.stage.edit_at = self.at
            self.stage.edit_thing(thing)

    def cancel(self) -> None:
        pass
