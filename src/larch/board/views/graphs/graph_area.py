"""The card of an area: the integral and what it comes to, in type. The area itself is shaded on its axes."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtGui import QPainter

from larch.board.look import text_colour
from larch.board.typeset.card import paint_row_card
from larch.board.views.base import View
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.graph_area import GraphArea


class GraphAreaView(View):
    kind: ClassVar[type[Thing]] = GraphArea
    needs_numpy: ClassVar[bool] = True

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, GraphArea)
        paint_row_card(painter, thing.row(page), thing.extent(), thing.size, text_colour(thing.hue))
