"""Frost: a pale sheet of crystals with what has been rubbed off cut out of it."""

from __future__ import annotations

import math
import random
import threading
from collections import OrderedDict
from collections.abc import Sequence
from functools import lru_cache
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QBrush, QColor, QImage, QPainter, QPainterPath, QPainterPathStroker, QPen, QPolygonF

from larch.board.gestures.base import RUB, Gesture, Stage
from larch.board.gestures.rub_frost import RubFrost
from larch.board.look import tint
from larch.board.paint import painting
from larch.board.pointer import Sample
from larch.board.vector.engine import engine_of
from larch.board.views.base import View
from larch.core.base.shape import Point
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.pictures.frost import Frost, Rub

TILE = 160
MOST_SIDE = 3000.0  # pixels along a side of what is held painted
LAYERS = 6
FORMAT = QImage.Format.Format_ARGB32_Premultiplied
PALE = QColor("#E6EEF0")
CRYSTAL = QColor(255, 255, 255, 170)


class FrostView(View):
    kind: ClassVar[type[Thing]] = Frost

    def gesture(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        assert isinstance(thing, Frost)
        return RubFrost(stage, sample, thing) if part == RUB or (not part and stage.at_board) else None

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Frost)
        frame = QRectF(0, 0, thing.width, thing.height)
        if thing.melted:
            painter.setPen(QPen(tint(thing.hue, 0.4), 1.2, Qt.PenStyle.DotLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(frame, 10, 10)
            return
        drawing = engine_of(painter)
        if drawing is not None:
            drawing.cover(_left(thing))
        if not thing.rubs:
            _paint_whole(painter, frame, thing.hue)
            return
        onto = painter.deviceTransform()
        scale = min((onto.m11() ** 2 + onto.m12() ** 2) ** 0.5, MOST_SIDE / max(thing.width, thing.height))
        layer = _layer(thing.width, thing.height, thing.hue, thing.rubs, scale)
        if onto.m12():  # upright, its pixels fall on those of the view, and smoothing them would only cost time
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.drawImage(frame, layer, QRectF(layer.rect()))


def _left(thing: Frost) -> QPainterPath:
    """The area of what has not been rubbed off."""
    whole = QPainterPath()
    whole.addRoundedRect(QRectF(0, 0, thing.width, thing.height), 10, 10)
    stroker = QPainterPathStroker()
    stroker.setCapStyle(Qt.PenCapStyle.RoundCap)
    stroker.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
    for rub in thing.rubs:
        line = QPainterPath(QPointF(*rub.points[0]))
        for point in rub.points[1:] or [(rub.points[0][0] + 0.01, rub.points[0][1])]:
            line.lineTo(QPointF(*point))
        stroker.setWidth(2 * rub.radius)
        whole = whole.subtracted(stroker.createStroke(line))
    return whole


def _paint_whole(painter: QPainter, frame: QRectF, hue: str) -> None:
    whole = QPainterPath()
    whole.addRoundedRect(frame, 10, 10)
    painter.fillPath(whole, PALE)
    painter.fillPath(whole, QBrush(_crystals()))
    painter.setPen(QPen(tint(hue, 0.34), 1.6))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawPath(whole)


_layers: OrderedDict[tuple[object, ...], QImage] = OrderedDict()


def _layer(width: float, height: float, hue: str, rubs: tuple[Rub, ...], scale: float) -> QImage:
    """The frost with holes. While a finger rubs, only what it does now is taken off what was left before."""
    about = (width, height, hue, round(scale, 4), threading.get_ident())
    found = _layers.get((*about, rubs))
    if found is not None:
        return found
    before = _layers.get((*about, rubs[:-1]))
    if before is None:
        before = QImage(max(1, math.ceil(width * scale)), max(1, math.ceil(height * scale)), FORMAT)
        before.fill(Qt.GlobalColor.transparent)
        with painting(before) as painter:
            painter.scale(before.width() / width, before.height() / height)
            _paint_whole(painter, QRectF(0, 0, width, height), hue)
            _clear(painter, rubs[:-1])
        _hold((*about, rubs[:-1]), before)
    else:
        _layers.move_to_end((*about, rubs[:-1]))  # it is wanted for as long as the finger rubs
    return _rubbed_on((*about, rubs[:-1]), before, rubs[-1], width, height)


_live: dict[tuple[object, ...], tuple[tuple[Point, ...], QImage]] = {}  # of the one rub that goes on: as far as it is drawn


def _rubbed_on(key: tuple[object, ...], before: QImage, rub: Rub, width: float, height: float) -> QImage:
    """With the newest rub taken off. One that only went on since it was painted last is gone on with."""
    drawn, layer = _live.get(key, ((), before))
    same = next((k for k, (p, q) in enumerate(zip(drawn, rub.points, strict=False)) if p != q), len(drawn))
    if len(rub.points) < max(2, len(drawn)) or same < max(1, len(drawn) - 1):  # the last point moves along with the finger
        same, layer = 1, before.copy()
    with painting(layer) as painter:
        painter.scale(layer.width() / width, layer.height() / height)
        _clear(painter, [Rub(rub.points[same - 1 :], rub.radius)])
    _live.clear()
    _live[key] = (rub.points, layer)
    return layer


def _hold(key: tuple[object, ...], layer: QImage) -> None:
    _layers[key] = layer
    while len(_layers) > LAYERS:
        _layers.popitem(last=False)


def _clear(painter: QPainter, rubs: Sequence[Rub]) -> None:
    painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_Clear)
    for rub in rubs:
        pen = QPen(Qt.GlobalColor.black, 2 * rub.radius)
        pen.setCapStyle(Qt.PenCapStyle.RoundCap)
        pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
        painter.setPen(pen)
        if len(rub.points) == 1:
            painter.drawPoint(QPointF(*rub.points[0]))
        else:
            painter.drawPolyline(QPolygonF([QPointF(*point) for point in rub.points]))


@lru_cache(1)
def _crystals() -> QImage:
    """Little six-pointed stars, the same each time; those at the edges go over to the other side."""
    picture = QImage(TILE, TILE, FORMAT)
    picture.fill(Qt.GlobalColor.transparent)
    rnd = random.Random(6)
    with painting(picture) as painter:
        for _k in range(26):
            x, y, size, turn = rnd.uniform(0, TILE), rnd.uniform(0, TILE), rnd.uniform(3, 12), rnd.uniform(0, 60)
            pen = QPen(CRYSTAL, 1.4)
            pen.setCapStyle(Qt.PenCapStyle.RoundCap)
            painter.setPen(pen)
            for across in (-TILE, 0, TILE):
                for down in (-TILE, 0, TILE):
                    for spoke in range(3):
                        a = math.radians(turn + 60 * spoke)
                        dx, dy = size * math.cos(a), size * math.sin(a)
                        at = QPointF(x + across, y + down)
                        painter.drawLine(at - QPointF(dx, dy), at + QPointF(dx, dy))
    return picture
