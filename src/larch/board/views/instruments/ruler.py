"""Ruler and set squares: clear strips with engraved marks."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QLineF, QPointF, QRectF
from PyQt6.QtGui import QColor, QPainter, QPen

from larch.board.gestures.base import Gesture, Stage
from larch.board.gestures.instruments import TurnInstrument, pen_on_edge
from larch.board.look import NEEDLE, PAPER, colour, icon
from larch.board.pointer import Sample
from larch.board.views.base import View, words
from larch.core.model.fact import number_text
from larch.core.model.nibs import Pen as InkPen
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.instruments.ruler import END, HEIGHT, Ruler

BODY = 158  # how much of what lies under it is covered, of 255


def glass(hue: str) -> QColor:
    """A body that lets what lies under it be seen."""
    shade, paper = colour(hue), PAPER
    mixed = QColor(*(round(p + (s - p) * 0.22) for s, p in zip(shade.getRgb()[:3], paper.getRgb()[:3], strict=True)))
    mixed.setAlpha(BODY)
    return mixed


def turn_ring(painter: QPainter, x: float, y: float, shade: QColor) -> None:
    """The sign of the place by which an instrument is turned."""
    painter.setPen(QPen(shade, 2))
    painter.setBrush(PAPER)
    painter.drawEllipse(QPointF(x, y), 13, 13)
    icon("rotate-cw", shade.name()).paint(painter, round(x) - 8, round(y) - 8, 16, 16)


class RulerView(View):
    kind: ClassVar[type[Thing]] = Ruler
    margin: ClassVar[float] = 14.0

    def gesture(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        assert isinstance(thing, Ruler)
        return TurnInstrument(stage, sample, thing) if part == "turn about" else None

    def pen_gesture(self, stage: Stage, sample: Sample, thing: Thing, pen: InkPen) -> Gesture | None:
        assert isinstance(thing, Ruler)
        return pen_on_edge(stage, sample, thing, pen)

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Ruler)
        painter.setPen(QPen(colour(thing.hue).darker(130), 1.4))
        painter.setBrush(glass(thing.hue))
        painter.drawRoundedRect(QRectF(-16, 0, thing.length + 16 + END, HEIGHT), 4, 4)
        painter.setPen(QPen(NEEDLE, 1.3))
        marks, tenth = [], page.unit / 10
        count = int(thing.length / tenth + 1e-6)
        for k in range(count + 1):
            if tenth < 2 and k % 5:
                continue
            size = 20.0 if k % 10 == 0 else 14.0 if k % 5 == 0 else 8.0
            marks.append(QLineF(k * tenth, 0, k * tenth, size))
        painter.drawLines(marks)  # type: ignore[call-overload]
        step = max(1, math.ceil(26 / page.unit))
        for k in range(0, count // 10 + 1, step):
            text = number_text(k * page.scale.per, 3)
            words(painter, QPointF(k * page.unit, 33), text, NEEDLE, 17)
        words(
            painter, QPointF(min(thing.length / 2, 260), 52), page.scale.unit, colour(thing.hue).darker(150), 15, bold=True
        )
        turn_ring(painter, thing.length + END - 20, HEIGHT - 20, colour(thing.hue).darker(130))
