"""Equations set in type; what can't be read stays as it was typed, with the place marked."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar, NamedTuple

from PyQt6.QtCore import QLineF, QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.gestures.base import Gesture, Stage
from larch.board.gestures.steer import SteerGraph
from larch.board.in_hand import PREFIX
from larch.board.look import WRONG, text_colour
from larch.board.pointer import Sample
from larch.board.typeset.boxes import Setting, paint_setting
from larch.board.typeset.mathset import set_row
from larch.board.vector.engine import read_as
from larch.board.views.base import View
from larch.board.views.graphs.graph_facts import graph_facts
from larch.board.views.graphs.working import ROOM, paint_beside
from larch.core.actions.equations.working import chain
from larch.core.base.memo import remember
from larch.core.base.shape import Box
from larch.core.maths.expression import ExpressionError
from larch.core.maths.layout.asked import STANDS_FOR, plainly
from larch.core.maths.layout.latex import looks_like_latex
from larch.core.maths.layout.reading import look, meaning
from larch.core.maths.layout.rows import Sign
from larch.core.maths.layout.to_tree import NotRead, read_row
from larch.core.model.fact import MINUS, Fact
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.equation import CHECK, HIDDEN, Equation

PAD = 0.18
TYPED = str.maketrans(STANDS_FOR)  # a class knows what they mean, so nothing is marked


class EquationView(View):
    kind: ClassVar[type[Thing]] = Equation

    def extent(self, thing: Thing) -> Box:
        assert isinstance(thing, Equation)
        made, _error = read(thing)
        above, below = max(made.above, 0.7), max(made.below, 0.2)
        return Box(0, 0, (made.width + 2 * PAD) * thing.size, (above + below + 2 * PAD) * thing.size)

    def reach(self, thing: Thing, page: Page) -> Box:
        assert isinstance(thing, Equation)
        reach = super().reach(thing, page)
        if thing.reason or CHECK in thing.shown:
            size = thing.size * thing.placement.scale
            right = max(reach.x1, *(self.box(line).x1 for line in chain(page, thing)))
            reach = Box(reach.x0, reach.y0 - size, right + ROOM * size, reach.y1 + 1.5 * size)
        return reach

    def awaits(self, thing: Thing) -> bool:
        return CHECK in thing.shown

    def touches(self, thing: Thing, x: float, y: float, slack: float) -> bool:
        return self.extent(thing).grown(slack).holds(x, y)

    def gesture(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        if part.startswith(PREFIX) and stage.may("move"):
            return SteerGraph(stage, sample, thing.id, part.removeprefix(PREFIX))
        return None

    def stated(self, thing: Thing, page: Page) -> Iterator[Fact]:
        assert isinstance(thing, Equation)
        return graph_facts(thing, page)

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Equation)
        made, error = read(thing)
        size = thing.size
        at = QPointF(PAD * size, (max(made.above, 0.7) + PAD) * size)
        box = self.extent(thing)
        plain = thing.plain_text().replace("-", MINUS)
        with read_as(painter, plain, QRectF(0, 0, box.width, box.height), size):
            paint_setting(painter, made, at, size, text_colour(thing.hue))
        if error is not None and thing.source.strip():
            _mark(painter, made, error, at, size)
        if thing.reason or CHECK in thing.shown:
            ends = [self.box(line).x1 for line in chain(page, thing)]
            lines_right = (max(ends) - thing.placement.x) / thing.placement.scale
            paint_beside(painter, thing, page, box.width, lines_right, at.y())


def _mark(painter: QPainter, made: Setting, error: Unread, at: QPointF, size: float) -> None:
    """A dashed line under the place that can't be read."""
    stops = {(stop.path, stop.part): stop for stop in made.stops}
    start = stops.get((error.path, error.part)) or stops.get((error.path, max(0, error.part - 1)))
    if start is None:
        return
    end = stops.get((error.path, error.part + 1))
    x = at.x() + start.x * size
    wide = max(0.4 * size, (end.x - start.x) * size if end is not None else 0.0)
    y = at.y() + (min(start.bottom, max(made.below, 0.2)) + 0.08) * size
    painter.setPen(QPen(WRONG, 0.09 * size, Qt.PenStyle.CustomDashLine))
    pen = painter.pen()
    pen.setDashPattern([2.0, 1.2])
    painter.setPen(pen)
    painter.drawLine(QLineF(x, y, x + wide, y))


class Unread(NamedTuple):
    """Where an equation can't be read: the part of the row at `path`."""

    path: tuple[tuple[int, int], ...]
    part: int


@remember
def read(equation: Equation) -> tuple[Setting, Unread | None]:
    """The equation in type, and where it can't be read."""
    source = equation.seen_source()
    row = look(source)
    if HIDDEN in equation.shown:
        at = next((k for k, item in enumerate(row) if item == Sign("=")), -1)
        return set_row((*row[: at + 1], Sign("?"))), None
    if outcome := equation.outcome():
        row = (*row, *(() if row[-1:] == (Sign("="),) else (Sign("="),)), *look(outcome))
    made = set_row(row) if row else set_row((Sign(" "),))
    try:
        read_row(plainly(row)) if looks_like_latex(source) else meaning(source.translate(TYPED))
    except NotRead as error:
        return made, Unread(error.path, error.position)
    except ExpressionError as error:
        before = source[: error.position]
        return made, Unread((), sum(not c.isspace() for c in before))
    return made, None
