"""Tiles, and outlines to be filled."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import GOLD, colour
from larch.board.views.base import View
from larch.board.views.figure_view import polygon_of, wash
from larch.core.model.page import Page
from larch.core.model.thing import Thing
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
