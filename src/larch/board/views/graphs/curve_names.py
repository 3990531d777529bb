"""What a curve is called, written at the curve itself where there is room, so that five can be told apart."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import lru_cache
from typing import Any

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import PAPER, text_colour
from larch.board.typeset.boxes import Setting, paint_setting
from larch.board.typeset.mathset import set_row
from larch.core.maths.expression import ExpressionError
from larch.core.maths.layout.reading import look
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation

SIZE = 38.0  # on large axes; smaller on smaller ones
SHARE = 1 / 17  # of the width of the axes
WIDEST = 0.45  # of the axes
AIR = 5.0
ALONG = (
    0.88,
    0.12,
    0.8,
    0.2,
    0.94,
    0.06,
    0.72,
    0.28,
    0.65,
    0.35,
    0.58,
    0.42,
    0.5,
    0.99,
    0.01,
)  # shares of the visible part of a curve at which its name is tried
CLEAR = 7.0
NUMBERS = 40.0  # beside the axes, for their numbers


def paint_names(
    painter: QPainter, axes: Axes, curves: Sequence[tuple[Equation, list[Any]]], drawn: Drawn, written: Sequence[QRectF]
) -> None:
    """One after the other, each at the first of its places that covers no curve, axis or other name; else left out."""
    size = min(SIZE, SHARE * axes.width)
    ox, oy = axes.to_local(0, 0)
    ox, oy = min(max(ox, 0), axes.width), min(max(oy, 0), axes.height)
    taken = [QRectF(ox - NUMBERS, 0, NUMBERS + 4, axes.height), QRectF(0, oy - 4, axes.width, NUMBERS - 8), *written]
    for equation, lines in curves:
        made = _setting(equation.name or equation.seen_source())
        if made is None or made.width * size > WIDEST * axes.width:
            continue
        for box in _places(axes, lines, made, size):
            if any(box.intersects(other) for other in taken):
                continue
            if drawn.crosses(box):
                continue
            taken.append(box)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(PAPER)
            painter.setOpacity(0.82)
            painter.drawRoundedRect(box, 4, 4)
            painter.setOpacity(1.0)
            painter.setPen(QPen(text_colour(equation.hue)))
            at = QPointF(box.x() + AIR, box.y() + AIR / 2 + max(made.above, 0.7) * size)
            paint_setting(painter, made, at, size, text_colour(equation.hue))
            break


@lru_cache(256)
def _setting(source: str) -> Setting | None:
    try:
        return set_row(look(source))
    except ExpressionError:
        return None


def _places(axes: Axes, lines: Sequence[Any], made: Setting, size: float) -> Iterator[QRectF]:
    """Above and below the curve, to both sides, wholly within the window."""
    import numpy as np

    wide, tall = made.width * size + 2 * AIR, (max(made.above, 0.7) + max(made.below, 0.2)) * size + AIR
    window = QRectF(0, 0, axes.width, axes.height)
    inside = [line[(line[:, 0] >= 0) & (line[:, 0] <= axes.width) & (line[:, 1] >= 0) & (line[:, 1] <= axes.height)]
              for line in lines]  # fmt: skip
    points = np.concatenate(inside) if inside else np.empty((0, 2))
    if not len(points):
        return
    for share in ALONG:
        x, y = points[min(len(points) - 1, int(share * len(points)))]
        for dx, dy in ((-wide - CLEAR, -tall - CLEAR), (CLEAR, -tall - CLEAR), (CLEAR, CLEAR), (-wide - CLEAR, CLEAR)):
            box = QRectF(float(x) + dx, float(y) + dy, wide, tall)
            if window.contains(box):
                yield box


class Drawn:
    """All curves as one row of stretches, of which a box is asked at once."""

    def __init__(self, lines: Sequence[Any]) -> None:
        import numpy as np

        whole = [line for line in lines if len(line)]
        self.points = np.concatenate(whole) if whole else np.empty((0, 2))
        joined = np.ones(max(0, len(self.points) - 1), dtype=bool)
        joined[np.cumsum([len(line) for line in whole], dtype=int)[:-1] - 1] = False
        self.joined = joined
        self.x, self.y = self.points[:, 0].copy(), self.points[:, 1].copy()

    def crosses(self, box: QRectF) -> bool:
        """Whether a curve runs through a box; lines are thick, and between its points one is straight."""
        import numpy as np

        left, right, top, bottom = box.left() - 2, box.right() + 2, box.top() - 4, box.bottom() + 4
        x, y = self.x, self.y
        west, east, north, south = x < left, x > right, y < top, y > bottom
        if not (west | east | north | south).all():
            return True
        beside = (west[:-1] & west[1:]) | (east[:-1] & east[1:]) | (north[:-1] & north[1:]) | (south[:-1] & south[1:])
        near = np.flatnonzero(self.joined & ~beside)
        if not len(near):
            return False
        (ax, ay), (bx, by) = self.points[near].T, self.points[near + 1].T
        sides = [(bx - ax) * (v - ay) - (by - ay) * (u - ax) for u in (left, right) for v in (top, bottom)]
        low, high = np.minimum.reduce(sides), np.maximum.reduce(sides)
        return bool(((low < 0) & (high > 0)).any())
