"""The card of a staircase: its members in type. The steps themselves are drawn on its axes."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QPainter

from larch.board.look import text_colour
from larch.board.typeset.boxes import Setting, paint_setting
from larch.board.typeset.mathset import set_row
from larch.board.views.base import View
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.staircase import TALL, WIDE, Staircase

PAD = 0.2  # em


class StaircaseView(View):
    kind: ClassVar[type[Thing]] = Staircase

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Staircase)
        made: Setting = set_row(thing.row(page))
        size = min(thing.size, (WIDE - 2 * PAD) * thing.size / max(0.1, made.width))
        middle = TALL * thing.size / 2 + (made.above - made.below) / 2 * size
        paint_setting(painter, made, QPointF(PAD * thing.size, middle), size, text_colour(thing.hue))
