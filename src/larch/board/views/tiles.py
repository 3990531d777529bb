"""Tiles, and outlines to be filled."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen

from larch.board.figure_view import polygon_of, wash
from larch.board.look import GOLD, colour
from larch.board.views.base import View, badge
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.geometry.silhouette import FULL, Silhouette, covered
from larch.core.things.geometry.tiles import BASES, Tiles, hue_of, tiles_of

STRENGTH = 92


class TilesView(View):
    kind: ClassVar[type[Thing]] = Tiles

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Tiles)
        painter.save()
        room = QRectF(0, 0, thing.width, thing.height)
        painter.setClipRect(room, Qt.ClipOperation.IntersectClip)
        for ring, k in tiles_of(thing):
            hue = hue_of(thing, ring, k)
            painter.setPen(QPen(colour(hue), 1.6))
            painter.setBrush(wash(hue, STRENGTH))
            painter.drawPolygon(polygon_of(ring))
        if thing.pattern in BASES and not thing.ring:
            painter.setPen(QPen(GOLD, 3))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawPolygon(polygon_of(thing.tile()))
        painter.restore()
        painter.setPen(QPen(colour(thing.hue), 1.2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(room)


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
