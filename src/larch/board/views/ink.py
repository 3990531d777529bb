"""Ink as a smooth filled outline."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, ClassVar

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter, QPolygonF

from larch.board.look import colour
from larch.board.views.base import View
from larch.core.memo import remember
from larch.core.page import Page
from larch.core.thing import Thing
from larch.core.things.ink import Ink

if TYPE_CHECKING:
    from numpy.typing import NDArray

PIECE = 32  # outlines are filled in pieces: the cost of one grows faster than its length
OVERLAP = 2
STEPS = 4  # points on each smoothing curve
SHARP = 0.4  # cosine of the turn beyond which a corner gets a round of its own


def breadth(pressure: float) -> float:
    """Line width over the nominal width, by pressure."""
    return 0.4 + 0.6 * min(1.0, max(0.0, pressure))


class InkView(View):
    kind: ClassVar[type[Thing]] = Ink
    needs_numpy: ClassVar[bool] = True

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Ink)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour(thing.hue))
        polygons, rounds = outline(thing)
        for polygon in polygons:
            painter.drawPolygon(polygon, Qt.FillRule.WindingFill)
        for centre, radius in rounds:
            painter.drawEllipse(centre, radius, radius)


@remember
def outline(ink: Ink) -> tuple[list[QPolygonF], list[tuple[QPointF, float]]]:
    """Polygons and rounds that make up the stroke, in its own coordinates."""
    import numpy as np

    data = np.frombuffer(ink.points, dtype="<f4").reshape(-1, 4).astype(np.float64)
    half = ink.width / 2 * (0.4 + 0.6 * np.clip(data[:, 2], 0, 1))
    if len(data) < 2 or np.ptp(data[:, 0]) + np.ptp(data[:, 1]) < 1e-6:
        first = QPointF(float(data[0, 0]), float(data[0, 1])) if len(data) else QPointF()
        return [], [(first, float(half[0]) if len(data) else 0.0)]
    along, radius = smoothed(data[:, :2], half)
    rounds = [(QPointF(*along[i]), float(radius[i])) for i in (0, -1)]
    polygons, corners = ribbon(along, radius)
    return polygons, rounds + corners


def ribbon(along: NDArray[Any], radius: NDArray[Any]) -> tuple[list[QPolygonF], list[tuple[QPointF, float]]]:
    """A line of varying half width as polygons, and rounds for its sharp corners. Far faster than a thick pen."""
    import numpy as np

    steps = np.diff(along, axis=0)
    length = np.hypot(steps[:, 0], steps[:, 1])
    keep = np.append(True, length > 1e-9)
    along, radius = along[keep], radius[keep]
    if len(along) < 2:
        return [], []
    way = np.gradient(along, axis=0)
    size = np.hypot(way[:, 0], way[:, 1])
    size[size == 0] = 1
    normal = np.column_stack([-way[:, 1], way[:, 0]]) / size[:, None] * radius[:, None]
    left, right = along + normal, along - normal
    polygons = []
    for start in range(0, len(along) - 1, PIECE):
        stop = min(len(along), start + PIECE + OVERLAP)
        polygons.append(polygon_of(np.concatenate([left[start:stop], right[start:stop][::-1]])))
    return polygons, _corner_rounds(along, radius)


def smoothed(points: NDArray[Any], half: NDArray[Any]) -> tuple[NDArray[Any], NDArray[Any]]:
    """Quadratic curves from the middle of each step to the middle of the next, as the live stroke is drawn."""
    import numpy as np

    if len(points) < 3:
        return points, half
    values = np.column_stack([points, half])
    middles = (values[:-1] + values[1:]) / 2
    t = (np.arange(STEPS) / STEPS)[None, :, None]
    a, b, c = middles[:-1, None, :], values[1:-1, None, :], middles[1:, None, :]
    curve = ((1 - t) ** 2 * a + 2 * t * (1 - t) * b + t * t * c).reshape(-1, 3)
    whole = np.concatenate([values[:1], curve, middles[-1:], values[-1:]])
    return whole[:, :2], whole[:, 2]


def _corner_rounds(along: NDArray[Any], radius: NDArray[Any]) -> list[tuple[QPointF, float]]:
    import numpy as np

    steps = np.diff(along, axis=0)
    size = np.hypot(steps[:, 0], steps[:, 1])
    cosine = (steps[:-1] * steps[1:]).sum(axis=1) / (size[:-1] * size[1:] + 1e-30)
    return [(QPointF(*along[i + 1]), float(radius[i + 1])) for i in np.flatnonzero(cosine < SHARP)]


def polygon_of(points: NDArray[Any]) -> QPolygonF:
    """An array of shape (n, 2) as a QPolygonF, without a Python loop."""
    import numpy as np

    polygon = QPolygonF()
    polygon.resize(len(points))
    buffer = polygon.data()
    assert buffer is not None
    buffer.setsize(len(points) * 16)
    np.frombuffer(buffer, dtype=np.float64).reshape(-1, 2)[:] = points
    return polygon
