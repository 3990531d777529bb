"""Outlines that are to be filled."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QPainter, QPainterPath, QPen

from larch.board.look import colour
from larch.board.views.base import View, badge
from larch.board.views.figure_view import polygon_of, wash
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.geometry.silhouette import FULL, Silhouette, covered


class SilhouetteView(View):
    kind: ClassVar[type[Thing]] = Silhouette
    margin: ClassVar[float] = 64.0

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Silhouette)
        path = QPainterPath()
        path.addPolygon(polygon_of(thing.vertices))
        path.closeSubpath()
        painter.setPen(QPen(colour(thing.hue), 3 / thing.placement.scale))
        painter.setBrush(wash(thing.hue, 46))
        painter.drawPath(path)

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Silhouette)
        if "covered" not in thing.shown and "area" not in thing.shown:
            return
        box = self.box(thing)
        facts = {fact.name: fact for fact in thing.facts(page)}
        at = box.y1 + 34
        for name in ("covered", "area"):
            if name in thing.shown:
                share, _pieces, over = covered(thing, page) if name == "covered" else (0.0, 0, 0)
                hue = "moss" if share >= FULL and not over else thing.hue
                slip = badge(painter, (box.centre[0], at), facts[name].text, colour(hue))
                if hue == "moss":
                    painter.drawText(QPointF(slip.right() + 8, slip.bottom() - 8), "✓")
                at += 40
