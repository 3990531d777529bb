"""What is live above the page at rest: strokes being drawn, things being dragged, motions."""

from __future__ import annotations

import time
from collections.abc import Sequence

from PyQt6.QtCore import QPointF, QRect, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPen, QPixmap

from larch.board.camera import Camera
from larch.board.look import colour
from larch.board.paint import painting
from larch.board.pointer import Sample
from larch.board.views import view_of
from larch.board.views.ink import breadth
from larch.core.page import Page
from larch.core.shape import Box, Point
from larch.core.thing import Thing

FEW = 12  # so many dragged things are painted afresh each frame; more are carried as one picture
TURNS = 3  # widths along one smoothing curve


class InkLayer:
    """Transparent picture over the page into which each newest piece of a live stroke is painted once."""

    def __init__(self) -> None:
        self.picture = QPixmap(1, 1)
        self.strokes: dict[object, QRect] = {}
        self._tails: dict[object, tuple[Point, Point, float, str]] = {}

    def resize(self, size: QSize, ratio: float) -> None:
        self.picture = QPixmap(max(1, round(size.width() * ratio)), max(1, round(size.height() * ratio)))
        self.picture.setDevicePixelRatio(ratio)
        self.picture.fill(Qt.GlobalColor.transparent)

    def extend(
        self, owner: object, samples: Sequence[Sample], pressures: Sequence[float], width: float, hue: str, scale: float
    ) -> QRect:
        """Paints the newest piece; returns what has to be shown anew."""
        points = [sample.view_pos for sample in samples[-3:]]
        widths = [width * scale * breadth(p) for p in pressures[-3:]]
        painter = QPainter(self.picture)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        pen = QPen(colour(hue), widths[-1], Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap)
        if len(samples) == 1:
            painter.setPen(pen)
            painter.drawPoint(QPointF(*points[-1]))
        elif len(samples) == 2:
            painter.setPen(pen)
            painter.drawLine(QPointF(*points[0]), QPointF(*_middle(points[0], points[1])))
        else:
            self._curve(painter, pen, points, widths)
        painter.end()
        if len(points) > 1:
            self._tails[owner] = (_middle(points[-2], points[-1]), points[-1], widths[-1], hue)
        reach = max(widths) / 2 + 3
        xs, ys = [p[0] for p in points], [p[1] for p in points]
        rect = QRectF(min(xs) - reach, min(ys) - reach, max(xs) - min(xs) + 2 * reach, max(ys) - min(ys) + 2 * reach)
        aligned = rect.toAlignedRect()
        self.strokes[owner] = self.strokes.get(owner, aligned).united(aligned)
        return aligned

    def _curve(self, painter: QPainter, pen: QPen, points: list[Point], widths: list[float]) -> None:
        a, b, c = _middle(points[0], points[1]), points[1], _middle(points[1], points[2])
        before = QPointF(*a)
        for k in range(1, TURNS + 1):
            t = k / TURNS
            u = 1 - t
            here = QPointF(*(u * u * p + 2 * u * t * q + t * t * r for p, q, r in zip(a, b, c, strict=True)))
            pen.setWidthF(max(0.5, u * (widths[0] + widths[1]) / 2 + t * (widths[1] + widths[2]) / 2))
            painter.setPen(pen)
            painter.drawLine(before, here)
            before = here

    def paint(self, painter: QPainter, rect: QRect) -> None:
        if not self.strokes:
            return
        ratio = self.picture.devicePixelRatio()
        source = QRectF(rect.x() * ratio, rect.y() * ratio, rect.width() * ratio, rect.height() * ratio)
        painter.drawPixmap(QRectF(rect), self.picture, source)
        for start, end, width, hue in self._tails.values():
            painter.setPen(QPen(colour(hue), width, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
            painter.drawLine(QPointF(*start), QPointF(*end))

    def end(self, owner: object) -> QRect:
        """Takes a stroke away; returns where it was. Other live strokes that it crossed keep their pixels."""
        rect = self.strokes.pop(owner, QRect())
        self._tails.pop(owner, None)
        if not rect.isEmpty() and not any(other.intersects(rect) for other in self.strokes.values()):
            painter = QPainter(self.picture)
            painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_Clear)
            painter.fillRect(rect, Qt.GlobalColor.transparent)
            painter.end()
        return rect


def _middle(a: Point, b: Point) -> Point:
    return ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)


class Lift:
    """Things taken off the page at rest by one gesture, and how they look meanwhile."""

    def __init__(self) -> None:
        self.things: dict[str, Thing] = {}
        self.new: list[Thing] = []
        self.hidden: set[str] = set()
        self.shift = (0.0, 0.0)
        self.picture: QPixmap | None = None
        self.corner = (0.0, 0.0)  # page position of the picture's corner
        self.scale = 1.0
        self._waiting: list[Thing] = []

    def carry(self, things: Sequence[Thing], page: Page, camera: Camera, seen: Box, ratio: float) -> None:
        """Prepares to carry things: a few are painted each frame, many become one picture."""
        self.things = {thing.id: thing for thing in things}
        self.hidden = set(self.things)
        if len(things) <= FEW:
            return
        boxes = [view_of(thing).reach(thing, page) for thing in things]
        area = Box(min(b.x0 for b in boxes), min(b.y0 for b in boxes), max(b.x1 for b in boxes), max(b.y1 for b in boxes))
        near = seen.grown(max(seen.width, seen.height) / 2)
        x0, y0, x1, y1 = max(area.x0, near.x0), max(area.y0, near.y0), min(area.x1, near.x1), min(area.y1, near.y1)
        width, height = max(1, int((x1 - x0) * camera.scale) + 2), max(1, int((y1 - y0) * camera.scale) + 2)
        picture = QPixmap(round(width * ratio), round(height * ratio))
        picture.setDevicePixelRatio(ratio)
        picture.fill(Qt.GlobalColor.transparent)
        self.picture, self.corner, self.scale = picture, (x0, y0), camera.scale
        self._waiting = list(reversed(things))
        self.hidden = set()

    @property
    def gathering(self) -> bool:
        """Whether some carried things have still to be taken into the picture."""
        return bool(self._waiting)

    def advance(self, page: Page, budget: float) -> bool:
        """Takes waiting things into the picture for `budget` ms; True if any were. Till then they lie where they lay."""
        if self.picture is None or not self._waiting:
            return False
        end = time.perf_counter() + budget / 1000
        with painting(self.picture) as painter:
            painter.scale(self.scale, self.scale)
            painter.translate(-self.corner[0], -self.corner[1])
            while self._waiting and time.perf_counter() < end:
                thing = self._waiting.pop()
                view_of(thing).paint(painter, thing, page)
                self.hidden.add(thing.id)
        return True

    def paint(self, painter: QPainter, page: Page, camera: Camera) -> None:
        if self.picture is not None:
            x, y = camera.to_view(self.corner[0] + self.shift[0], self.corner[1] + self.shift[1])
            painter.drawPixmap(QPointF(x, y), self.picture)
            return
        painter.save()
        painter.translate(camera.dx, camera.dy)
        painter.scale(camera.scale, camera.scale)
        painter.translate(*self.shift)
        for thing in [*self.things.values(), *self.new]:
            view_of(thing).paint(painter, thing, page)
        painter.restore()


class Motion:
    """A short motion that explains a change; what it shows was decided before it began."""

    def __init__(self, before: Thing, after: Thing, length: int) -> None:
        self.before = before
        self.after = after
        self.length = length / 1000
        self.began = time.perf_counter()

    def progress(self) -> float:
        return min(1.0, (time.perf_counter() - self.began) / self.length)
