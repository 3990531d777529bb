"""An abacus: a dark frame, beads as flat pills; those that are up are solid, those that are down pale."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import NEEDLE, PAPER, colour, tint
from larch.board.views.base import View, badge, words
from larch.core.base.hues import hue_of_place
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.abacus import BEAD, EDGE, FOOT, GAP, HEAD, WIDE, Abacus

PALE = 0.2  # of its hue, in a bead that does not count
BESIDE = 20.0  # from the frame to the middle of the value


class AbacusView(View):
    kind: ClassVar[type[Thing]] = Abacus
    margin: ClassVar[float] = 44.0
    shown_below: ClassVar[float] = BESIDE + 28

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Abacus)
        frame = thing.frame()
        painter.setPen(QPen(NEEDLE, EDGE))
        painter.setBrush(PAPER)
        inset = EDGE / 2
        painter.drawRoundedRect(QRectF(inset, frame.y0 + inset, frame.width - EDGE, frame.height - EDGE), 9, 9)
        for rod in range(len(thing.counts)):
            self._rod(painter, thing, rod, hue_of_place(len(thing.counts) - 1 - rod))

    def _rod(self, painter: QPainter, thing: Abacus, rod: int, hue: str) -> None:
        frame, x, shade = thing.frame(), thing.rod_x(rod), colour(hue)
        painter.setPen(QPen(NEEDLE, 3))
        painter.drawLine(QPointF(x, frame.y0 + EDGE), QPointF(x, frame.y1 - EDGE))
        painter.setPen(QPen(shade.darker(125), 2.0))
        pale, last = tint(hue, PALE), None
        for bead, at in enumerate(thing.beads(rod)):
            up = at - bead > GAP / 2
            if up is not last:
                painter.setBrush(shade if up else pale)
                last = up
            y = thing.bead_y(bead, at)
            painter.drawRoundedRect(QRectF(x - WIDE / 2, y - BEAD / 2 + 1, WIDE, BEAD - 2), BEAD / 2, BEAD / 2)
        count = thing.shown_counts()[rod]
        if thing.labelled():
            words(painter, QPointF(x, HEAD / 2), str(count), shade, 60, bold=True)
        place = 10 ** (len(thing.counts) - 1 - rod)
        size = 32.0 if place < 10_000 else 22.0
        words(painter, QPointF(x, frame.y1 + FOOT / 2), f"{place:,}".replace(",", "\u2009"), NEEDLE, size)

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Abacus)
        if "value" in thing.shown:
            box = self.box(thing)
            badge(painter, (box.centre[0], box.y1 + BESIDE), str(thing.worth()), NEEDLE, 28)
