"""Things as discs in groups; groups that are taken are solid, the others pale; the sentence below."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import NEEDLE, PAPER, colour, tint
from larch.board.views.base import View, words
from larch.core.base.hues import hue_of_number
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.fractions.fraction_set import ACROSS, DOT, FOOT, FractionSet


class FractionSetView(View):
    kind: ClassVar[type[Thing]] = FractionSet

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, FractionSet)
        hue, filled = hue_of_number(thing.groups_count), set(thing.filled)
        shade, across = colour(hue), min(thing.size(), ACROSS)
        for k in range(thing.groups_count):
            box = thing.group_box(k)
            taken = k in filled
            painter.setPen(QPen(shade.darker(125), 2.4))
            painter.setBrush(tint(hue, 0.2) if taken else PAPER)
            painter.drawRoundedRect(QRectF(box.x0, box.y0, box.width, box.height), 10, 10)
            painter.setPen(QPen(shade.darker(125), 1.6))
            painter.setBrush(shade if taken else tint(hue, 0.14))
            for one in range(thing.size()):
                x = box.x0 + 6 + (one % across + 0.5) * DOT
                y = box.y0 + 6 + (one // across + 0.5) * DOT
                painter.drawEllipse(QPointF(x, y), 0.4 * DOT, 0.4 * DOT)
        whole = thing.extent()
        if thing.labelled():
            words(painter, QPointF(whole.width / 2, whole.y1 - FOOT / 2 + 4), thing.sentence(), NEEDLE, 34, bold=True)
