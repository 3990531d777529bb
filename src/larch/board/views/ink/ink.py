"""Ink as a smooth filled outline; the highlighter lets through what it covers."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import (
    QColor,
    QImage,
    QPainter,
    QPainterPath,
    QPainterPathStroker,
    QPolygonF,
    QTransform,
)

from larch.board.ink.strokes import Round, Track, dashed, grained, head, ribbon, smoothed
from larch.board.look import colour
from larch.board.vector.engine import engine_of, layered
from larch.board.views.base import View
from larch.core.base.memo import remember
from larch.core.model.nibs import NIBS
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.ink.ink import Ink, head_length, track

if TYPE_CHECKING:
    from numpy.typing import NDArray

MOST_PIXELS = 64_000_000  # of a layer; a larger highlighter is painted translucent instead
MOST_POINTS = 600  # of a highlighter's path where it is one outline: its cost grows with their square
LONG = 48  # pieces from which it is worth asking which are seen
LIGHT, CLEAR = 0.76, 1.6  # lightness of a highlighter's colour, and how much stronger it is than the hue
WASH = 0.5  # how opaque it is where its layer would be too large


class InkView(View):
    kind: ClassVar[type[Thing]] = Ink
    needs_numpy: ClassVar[bool] = True
    keeps_state: ClassVar[bool] = True

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Ink)
        paint_ink(painter, thing)


def paint_ink(painter: QPainter, ink: Ink) -> None:
    """A stroke in its own coordinates."""
    painter.setPen(Qt.PenStyle.NoPen)
    if ink.nib == "highlighter":
        _highlight(painter, ink)
        return
    painter.setBrush(colour(ink.hue))
    _paint_body(painter, ink)


def _seen(painter: QPainter, ink: Ink) -> list[QPolygonF]:
    """The pieces of a long stroke that lie in what is being painted: a small part of the view, mostly."""
    if not painter.hasClipping():
        return outline(ink)[0]
    part = painter.clipBoundingRect()
    boxes = _boxes(ink)
    met = (boxes[:, 0] <= part.right()) & (boxes[:, 2] >= part.left())
    met &= (boxes[:, 1] <= part.bottom()) & (boxes[:, 3] >= part.top())
    polygons = outline(ink)[0]
    return [polygons[i] for i in met.nonzero()[0].tolist()]


@remember
def _boxes(ink: Ink) -> NDArray[Any]:
    """Left, top, right and bottom of each piece; shape (n, 4)."""
    import numpy as np

    rects = [polygon.boundingRect() for polygon in outline(ink)[0]]
    return np.array([(r.left(), r.top(), r.right(), r.bottom()) for r in rects])


def wash(hue: str) -> QColor:
    """What a highlighter of a hue lays over white: the same hue, bright and clear."""
    h, s, _lightness, _alpha = colour(hue).getHslF()
    return QColor.fromHslF(max(0.0, h or 0.0), min(1.0, (s or 0.0) * CLEAR), LIGHT)


def _highlight(painter: QPainter, ink: Ink) -> None:
    """A stroke that crosses itself is no darker there, and what it covers is seen through it."""
    if engine_of(painter) is not None:
        painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_Multiply)
        with layered(painter):
            painter.setBrush(wash(ink.hue))
            _paint_body(painter, ink)
        return
    onto = painter.combinedTransform()
    box = ink.extent()
    room = onto.mapRect(QRectF(box.x0, box.y0, box.width, box.height))
    device = painter.device()
    ratio = device.devicePixelRatioF() if device is not None else 1.0
    if painter.hasClipping():
        room = room.intersected(onto.mapRect(painter.clipBoundingRect()))
    elif device is not None:
        room = room.intersected(QRectF(0, 0, device.width() / ratio, device.height() / ratio))
    area = room.adjusted(-1, -1, 1, 1).toAlignedRect()
    if room.isEmpty():
        return
    if area.width() * area.height() * ratio * ratio > MOST_PIXELS:
        _translucent(painter, ink)
        return
    layer = QImage(area.size() * ratio, QImage.Format.Format_ARGB32_Premultiplied)
    layer.setDevicePixelRatio(ratio)
    layer.fill(Qt.GlobalColor.transparent)
    inner = QPainter(layer)
    inner.setRenderHint(QPainter.RenderHint.Antialiasing)
    inner.setClipRect(QRectF(0, 0, area.width(), area.height()))
    inner.translate(-area.x(), -area.y())
    inner.setTransform(onto, True)
    inner.setPen(Qt.PenStyle.NoPen)
    inner.setBrush(wash(ink.hue))
    _paint_body(inner, ink)
    inner.end()
    painter.save()
    painter.setWorldTransform(QTransform())
    painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_Multiply)
    painter.drawImage(area.topLeft(), layer)
    painter.restore()


def _translucent(painter: QPainter, ink: Ink) -> None:
    """As one outline that can be seen through: where its layer would be too large."""
    shade = wash(ink.hue)
    shade.setAlphaF(WASH)
    painter.setBrush(shade)
    painter.drawPath(_one_path(ink))


def _paint_body(painter: QPainter, ink: Ink) -> None:
    polygons, rounds = outline(ink)
    if len(polygons) > LONG:
        polygons = _seen(painter, ink)
    for polygon in polygons:
        painter.drawPolygon(polygon, Qt.FillRule.WindingFill)
    for centre, radius in rounds:
        painter.drawEllipse(centre, radius, radius)


@remember
def _one_path(ink: Ink) -> QPainterPath:
    """All that the nib touched as one outline; a long stroke by fewer points."""
    line = QPainterPath()
    whole, _drawn = _centre(ink)
    for part in dashed(whole, ink.dash, ink.width):
        points = part.along[:: max(1, len(part.along) // MOST_POINTS)].tolist()
        line.moveTo(QPointF(*points[0]))
        for point in points[1:] if len(points) > 1 else [(points[0][0] + 0.01, points[0][1])]:
            line.lineTo(QPointF(*point))
    stroker = QPainterPathStroker()
    stroker.setWidth(ink.width)
    stroker.setCapStyle(Qt.PenCapStyle.RoundCap)
    stroker.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
    body = stroker.createStroke(line)
    body.setFillRule(Qt.FillRule.WindingFill)
    return body


def _centre(ink: Ink) -> tuple[Track, Track]:
    """The centre line as it is painted, and as it was drawn."""
    import numpy as np

    data = np.frombuffer(track(ink), dtype="<f4").reshape(-1, 4).astype(np.float64)
    if not len(data):
        data = np.zeros((1, 4))
    least = NIBS[ink.nib].least if ink.nib in NIBS else NIBS["pen"].least
    half = ink.width / 2 * (least + (1 - least) * np.clip(data[:, 2], 0, 1))
    drawn = Track(data[:, :2], half)
    return (smoothed(*drawn) if ink.form == "free" else drawn), drawn


@remember
def outline(ink: Ink) -> tuple[list[QPolygonF], list[Round]]:
    """Polygons and rounds that make up the stroke, in its own coordinates."""
    whole, drawn = _centre(ink)
    spread = drawn.along.max(axis=0) - drawn.along.min(axis=0)
    if len(drawn.along) < 2 or spread.sum() < 1e-6:
        return [], [(QPointF(*drawn.along[0]), float(drawn.radius[0]) if ink.points else 0.0)]
    polygons: list[QPolygonF] = []
    rounds: list[Round] = []
    for part in dashed(whole, ink.dash, ink.width):
        for piece in grained(part, ink.width) if ink.nib == "crayon" else [part]:
            made, corners = ribbon(piece.along, piece.radius)
            polygons += made
            rounds += corners
            if ink.nib != "crayon" or not made:
                rounds += [(QPointF(*piece.along[i]), float(piece.radius[i])) for i in (0, -1)]
    for at_start in (True, False):
        if ink.ends in ("both", "start" if at_start else "end"):
            sides, tips = head(whole, head_length(ink), at_start)
            polygons += sides
            rounds += tips
    return polygons, rounds
