"""A calculator: a card with its tape, the newest row at the bottom, and below it the gold line that is written on."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QFontMetricsF, QPainter, QPen

from larch.board.gestures.base import DRAG_START, Gesture, Stage, nothing
from larch.board.gestures.part import DragPart
from larch.board.look import GOLD, HAIRLINE, NEEDLE, PAPER, SOFT, STONE, WRONG, page_font
from larch.board.pointer import Sample
from larch.board.typeset.boxes import Setting, paint_setting
from larch.board.typeset.mathset import set_row
from larch.board.views import view_of
from larch.board.views.base import View
from larch.core.base.shape import Placement
from larch.core.base.signs import signs_in_use
from larch.core.base.words import _
from larch.core.maths.layout.reading import look
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.calculator import HEAD, LINE, ROW, WIDE, Calculator, outcome, put_out
from larch.core.things.graphs.equation import Equation

ASKED, RESULT, BELOW = 28.0, 36.0, 21.0
PAD = 20.0


class CalculatorView(View):
    kind: ClassVar[type[Thing]] = Calculator
    margin: ClassVar[float] = 4.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Calculator)
        box = thing.extent()
        painter.setPen(QPen(HAIRLINE, 1.4))
        painter.setBrush(PAPER)
        painter.drawRoundedRect(QRectF(0, 0, box.width, box.height), 8, 8)
        painter.setPen(NEEDLE)
        painter.setFont(page_font(22, True))
        painter.drawText(QPointF(PAD, 30), _("Calculator"))
        rows = thing.rows()
        for k, row in enumerate(rows):
            self._row(painter, thing, row, k, k == len(rows) - 1 - thing.chosen)
        x, y = thing.line_place()
        painter.setPen(QPen(GOLD, 2.5))
        painter.setBrush(PAPER)
        painter.drawRoundedRect(QRectF(8, HEAD + ROW * len(rows) + 4, WIDE - 16, LINE - 4), 6, 6)
        if thing.line:
            _fitting(painter, set_row(look(thing.line)), QPointF(x, y - 10), ASKED + 4, WIDE - 2 * PAD, LINE - 16)

    def gesture(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        if part == "line":
            return _Write(stage, sample, thing)
        return _TakeOut(stage, sample, thing, part) if part.startswith("row ") else None

    def _row(self, painter: QPainter, thing: Calculator, row: str, k: int, chosen: bool) -> None:
        box, found = thing.row_box(k), outcome(row)
        if chosen and len(thing.rows()) > 1:
            painter.fillRect(QRectF(box.x0, box.y0, box.width, box.height), STONE)
        painter.setPen(QPen(HAIRLINE, 1.2))
        painter.drawLine(QPointF(box.x0, box.y0), QPointF(box.x1, box.y0))
        shown = found.decimal if thing.decimals or not found.exact else found.exact
        right = 0.0
        if shown:
            made = set_row(look(shown))
            right = min(made.width * RESULT, 0.5 * WIDE)
            _fitting(painter, made, QPointF(WIDE - PAD - right, box.y0 + 46), RESULT, right, ROW - 16)
        _fitting(painter, set_row(look(row)), QPointF(PAD, box.y0 + 33), ASKED, WIDE - 2 * PAD - right - 14, 52.0)
        painter.setFont(page_font(BELOW))
        painter.setPen(WRONG if found.why else SOFT)
        below = found.why or f"{'≈' if found.rounded else '='} {signs_in_use().number(found.decimal)}"
        if thing.decimals and found.exact and not found.why:
            below = f"= {found.exact}"
        metrics = QFontMetricsF(painter.font())
        wide = metrics.horizontalAdvance(below)
        if wide > WIDE - 2 * PAD:
            painter.setFont(page_font(max(11.0, BELOW * (WIDE - 2 * PAD) / wide)))
        painter.drawText(QPointF(PAD, box.y1 - 10), below)


class _Write(Gesture):
    """A tap on the gold line: it is written on."""

    def __init__(self, stage: Stage, sample: Sample, thing: Thing) -> None:
        self.stage, self.id = stage, thing.id

    def move(self, sample: Sample) -> None:
        pass

    def release(self, sample: Sample) -> None:
        thing = self.stage.page.thing(self.id)
        if thing is not None:
            self.stage.edit_thing(thing)

    def cancel(self) -> None:
        pass


class _TakeOut(DragPart):
    """A row dragged out of the tape becomes an equation of the page; by its right half, the result. A tap chooses it."""

    def __init__(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> None:
        super().__init__(stage, sample, thing, part)
        assert isinstance(thing, Calculator)
        k = int(part.split()[1])
        self.result = thing.placement.to_local(*sample.page_pos)[0] > WIDE / 2
        self.row = thing.rows()[k]
        self.over = True

    def move(self, sample: Sample) -> None:
        if not self.dragging and math.dist(sample.view_pos, self.start.view_pos) < DRAG_START:
            return
        self.dragging = True
        thing = self.stage.page.thing(self.id)
        self.over = thing is None or thing.box().holds(*sample.page_pos)
        self.stage.preview(self, nothing, [self._made(thing, sample)] if isinstance(thing, Calculator) else [])

    def _made(self, thing: Calculator, sample: Sample) -> Equation:
        made = put_out(thing, self.row, self.result)
        box = view_of(made).box(made)
        x, y = sample.page_pos
        placed: Equation = made.replace(placement=Placement(x - box.width / 2, y - box.height / 2))
        return placed

    def release(self, sample: Sample) -> None:
        thing = self.stage.page.thing(self.id)
        if not self.dragging or not isinstance(thing, Calculator):
            return super().release(sample)
        self.stage.end_preview(self)
        if not self.over:
            page = self.stage.page
            after = page.put(self._made(thing, sample))
            self.stage.commit(Edit(_("To the page"), page, after, select=(after.things[-1].id,)))


def _fitting(painter: QPainter, made: Setting, at: QPointF, size: float, room: float, tall: float) -> None:
    """As large as its room allows. at: its left end, half way up."""
    fits = min(size, room / max(0.1, made.width), tall / max(0.8, made.above + made.below))
    paint_setting(painter, made, at + QPointF(0, (made.above - made.below) / 2 * fits), fits, NEEDLE)
