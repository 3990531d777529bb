"""The card of a staircase: its members in type. The steps themselves are drawn on its axes."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtGui import QPainter

from larch.board.look import text_colour
from larch.board.typeset.card import paint_row_card
from larch.board.views.base import View
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.staircase import Staircase


class StaircaseView(View):
    kind: ClassVar[type[Thing]] = Staircase

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Staircase)
        paint_row_card(painter, thing.row(page), thing.extent(), thing.size, text_colour(thing.hue))
