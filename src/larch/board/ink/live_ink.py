"""Strokes being drawn: each newest piece is painted once, into a transparent picture over the page."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

from PyQt6.QtCore import QLineF, QPointF, QRect, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPen, QPixmap

from larch.board.ink.strokes import BRISTLES, DASH, DASH_GAP, DOT_GAP, GRAIN, bristle_at, scatter
from larch.board.look import colour
from larch.board.pointer import Sample
from larch.core.base.shape import Point
from larch.core.model.nibs import Pen, breadth

TURNS = 3  # widths along one smoothing curve
BRISTLE_TABLE = [bristle_at(k) for k in range(BRISTLES)]


class _Tail(NamedTuple):
    """The end of a stroke that is still to be smoothed: painted over the picture, not into it."""

    start: Point
    end: Point
    width: float
    shade: QColor


class InkLayer:
    """One transparent picture. `multiply`: what is painted darkens the page instead of covering it."""

    def __init__(self, multiply: bool = False) -> None:
        self.multiply = multiply
        self.picture: QPixmap | None = None
        self.strokes: dict[object, QRect] = {}
        self._size = (QSize(1, 1), 1.0)
        self._tails: dict[object, _Tail] = {}
        self._lengths: dict[object, float] = {}

    def resize(self, size: QSize, ratio: float) -> None:
        self._size = (size, ratio)
        self.picture = None

    def _picture(self) -> QPixmap:
        """Made when the first stroke begins: most pages are never highlighted."""
        if self.picture is None:
            size, ratio = self._size
            self.picture = QPixmap(max(1, round(size.width() * ratio)), max(1, round(size.height() * ratio)))
            self.picture.setDevicePixelRatio(ratio)
            self.picture.fill(Qt.GlobalColor.transparent)
        return self.picture

    def extend(self, owner: object, samples: Sequence[Sample], pressures: Sequence[float], pen: Pen, scale: float) -> QRect:
        """Paints the newest piece; returns what has to be shown anew."""
        from larch.board.views.ink.ink import wash

        points = [sample.view_pos for sample in samples[-3:]]
        widths = [pen.width * scale * breadth(pen.nib, p) for p in pressures[-3:]]
        shade = wash(pen.hue) if pen.nib == "highlighter" else colour(pen.hue)
        painter = QPainter(self._picture())
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if len(samples) == 1:
            self._lengths[owner] = 0.0
            if pen.nib != "crayon":
                _line(painter, shade, widths[-1], points[-1], points[-1])
        else:
            ends = [points[0], _middle(points[0], points[1])] if len(samples) == 2 else _curve(points)
            self._piece(painter, owner, shade, pen, scale, ends, widths)
        painter.end()
        if len(points) > 1 and not pen.dash and pen.nib != "crayon":
            self._tails[owner] = _Tail(_middle(points[-2], points[-1]), points[-1], widths[-1], shade)
        reach = max(widths) / 2 + 3
        xs, ys = [p[0] for p in points], [p[1] for p in points]
        rect = QRectF(min(xs) - reach, min(ys) - reach, max(xs) - min(xs) + 2 * reach, max(ys) - min(ys) + 2 * reach)
        aligned = rect.toAlignedRect()
        self.strokes[owner] = self.strokes.get(owner, aligned).united(aligned)
        return aligned

    def _piece(
        self, painter: QPainter, owner: object, shade: QColor, pen: Pen, scale: float, ends: list[Point], widths: list[float]
    ) -> None:
        """A few short steps; the length so far tells where a dash or a grain is."""
        steps = len(ends) - 1
        for k in range(steps):
            t = (k + 1) / steps
            if len(widths) == 3:
                width = (1 - t) * (widths[0] + widths[1]) / 2 + t * (widths[1] + widths[2]) / 2
            else:
                width = widths[-1]
            before = self._lengths.get(owner, 0.0)
            self._lengths[owner] = before + math.dist(ends[k], ends[k + 1]) / scale
            if pen.nib == "crayon":
                _grain(painter, shade, width, pen.width, before, ends[k], ends[k + 1])
            elif not pen.dash or _is_drawn(pen, before):
                _line(painter, shade, max(0.5, width), ends[k], ends[k + 1])

    def paint(self, painter: QPainter, rect: QRect) -> None:
        if not self.strokes or self.picture is None:
            return
        painter.save()
        if self.multiply:
            painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_Multiply)
        ratio = self.picture.devicePixelRatio()
        source = QRectF(rect.x() * ratio, rect.y() * ratio, rect.width() * ratio, rect.height() * ratio)
        painter.drawPixmap(QRectF(rect), self.picture, source)
        if not self.multiply:
            for tail in self._tails.values():
                _line(painter, tail.shade, tail.width, tail.start, tail.end)
        painter.restore()

    def end(self, owner: object) -> QRect:
        """Takes a stroke away; returns where it was. Other live strokes that it crossed keep their pixels."""
        rect = self.strokes.pop(owner, QRect())
        self._tails.pop(owner, None)
        self._lengths.pop(owner, None)
        if not rect.isEmpty() and not any(other.intersects(rect) for other in self.strokes.values()):
            painter = QPainter(self._picture())
            painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_Clear)
            painter.fillRect(rect, Qt.GlobalColor.transparent)
            painter.end()
        return rect


def _middle(a: Point, b: Point) -> Point:
    return ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)


def _curve(points: list[Point]) -> list[Point]:
    """From the middle of one step to the middle of the next, bent at the point between."""
    a, b, c = _middle(points[0], points[1]), points[1], _middle(points[1], points[2])
    made = [a]
    for k in range(1, TURNS + 1):
        t = k / TURNS
        u = 1 - t
        made.append((u * u * a[0] + 2 * u * t * b[0] + t * t * c[0], u * u * a[1] + 2 * u * t * b[1] + t * t * c[1]))
    return made


def _line(painter: QPainter, shade: QColor, width: float, start: Point, end: Point) -> None:
    painter.setPen(QPen(shade, width, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
    if start == end:
        painter.drawPoint(QPointF(*start))
    else:
        painter.drawLine(QPointF(*start), QPointF(*end))


def _is_drawn(pen: Pen, length: float) -> bool:
    on, off = (DASH, DASH_GAP) if pen.dash == "dash" else (0.3, DOT_GAP)
    return length / pen.width % (on + off) < on


def _grain(painter: QPainter, shade: QColor, width: float, nominal: float, length: float, start: Point, end: Point) -> None:
    """The bristles that leave a grain here."""
    dx, dy = end[0] - start[0], end[1] - start[1]
    size = math.hypot(dx, dy)
    if size == 0:
        return
    across, down = -dy / size * width / 2, dx / size * width / 2
    cell = int(length / max(1.0, GRAIN * nominal))
    painter.setPen(QPen(shade, width * 1.35 / BRISTLES, Qt.PenStyle.SolidLine, Qt.PenCapStyle.FlatCap))
    lines = [
        QLineF(start[0] + across * place, start[1] + down * place, end[0] + across * place, end[1] + down * place)
        for bristle, (place, share) in enumerate(BRISTLE_TABLE)
        if scatter(bristle, cell) < share
    ]
    if lines:
        painter.drawLines(lines)  # type: ignore[call-overload]


class LiveInk:
    """The layers of live ink, each stroke in the one that suits its nib."""

    def __init__(self) -> None:
        self.layers = (InkLayer(multiply=True), InkLayer())

    @property
    def strokes(self) -> dict[object, QRect]:
        """Where each live stroke has been painted."""
        return self.layers[0].strokes | self.layers[1].strokes

    def resize(self, size: QSize, ratio: float) -> None:
        for layer in self.layers:
            layer.resize(size, ratio)

    def extend(self, owner: object, samples: Sequence[Sample], pressures: Sequence[float], pen: Pen, scale: float) -> QRect:
        return self.layers[pen.nib != "highlighter"].extend(owner, samples, pressures, pen, scale)

    def paint(self, painter: QPainter, rect: QRect) -> None:
        for layer in self.layers:
            layer.paint(painter, rect)

    def end(self, owner: object) -> QRect:
        return next((layer.end(owner) for layer in self.layers if owner in layer.strokes), QRect())
