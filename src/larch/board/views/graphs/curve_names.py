"""What a curve is called, written at the curve itself where there is room, so that five can be told apart."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QColor, QPainter, QPen

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
# Shares of the visible part of a curve at which its name is tried.
ALONG = (0.88, 0.12, 0.8, 0.2, 0.94, 0.06, 0.72, 0.28, 0.65, 0.35, 0.58, 0.42, 0.5, 0.99, 0.01)
CLEAR = 7.0
CELL, FARTHEST = 4.0, 4000  # page units to a cell, and cells from the corner of the axes
NUMBERS = 40.0  # beside the axes, for their numbers


def paint_names(
    painter: QPainter, axes: Axes, curves: Sequence[tuple[Equation, list[Any]]], drawn: Drawn, written: Sequence[QRectF]
) -> None:
    """One after the other, each at the first of its places that covers no curve, axis or other name; else left out."""
    size = min(SIZE, SHARE * axes.width)
    ox, oy = axes.to_local(0, 0)
    ox, oy = min(max(ox, 0), axes.width), min(max(oy, 0), axes.height)
    taken = [QRectF(ox - NUMBERS, 0, NUMBERS + 4, axes.height), QRectF(0, oy - 4, axes.width, NUMBERS - 8), *written]
    plate = QColor(PAPER)
    plate.setAlphaF(0.82)
    for equation, lines in curves:
        made = _setting(equation.name or equation.seen_source())
        if made is None or made.width * size > WIDEST * axes.width:
            continue
        box = _place(axes, lines, made, size, taken, drawn)
        if box is not None:
            taken.append(box)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
            painter.fillRect(box, plate)  # with soft edges it takes ten times as long, in every frame
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(QPen(text_colour(equation.hue)))
            at = QPointF(box.x() + AIR, box.y() + AIR / 2 + max(made.above, 0.7) * size)
            paint_setting(painter, made, at, size, text_colour(equation.hue))


def _setting(source: str) -> Setting | None:
    try:
        return set_row(look(source))
    except ExpressionError:
        return None


def _place(
    axes: Axes, lines: Sequence[Any], made: Setting, size: float, taken: Sequence[QRectF], drawn: Drawn
) -> QRectF | None:
    """Above or below the curve, to one side, wholly within the window and on nothing that stands there."""
    import numpy as np

    wide, tall = made.width * size + 2 * AIR, (max(made.above, 0.7) + max(made.below, 0.2)) * size + AIR
    points = np.concatenate(lines) if lines else np.empty((0, 2))
    points = points[((points >= 0) & (points <= (axes.width, axes.height))).all(axis=1)]
    if not len(points):
        return None
    beside = [(-wide - CLEAR, -tall - CLEAR), (CLEAR, -tall - CLEAR), (CLEAR, CLEAR), (-wide - CLEAR, CLEAR)]
    at = points[np.minimum(len(points) - 1, np.array(ALONG) * len(points)).astype(int)]
    x, y = (at[:, None, :] + np.array(beside)).reshape(-1, 2).T
    free = (x >= 0) & (y >= 0) & (x + wide <= axes.width) & (y + tall <= axes.height)
    if taken:
        left, top, right, bottom = np.array([(b.left(), b.top(), b.right(), b.bottom()) for b in taken]).T[:, :, None]
        free &= ~((x < right) & (x + wide > left) & (y < bottom) & (y + tall > top)).any(axis=0)
    chosen = np.flatnonzero(free)
    chosen = chosen[~drawn.crossed(x[chosen], y[chosen], wide, tall)]
    return QRectF(float(x[chosen[0]]), float(y[chosen[0]]), wide, tall) if len(chosen) else None


class Drawn:
    """All curves as the cells of a grid that they run through, of which a box is asked at once."""

    def __init__(self, lines: Sequence[Any]) -> None:
        import numpy as np

        pieces = [line for line in lines if len(line)]
        self.cells: Any = None
        if not pieces:
            return
        at = np.floor(along(pieces) / CELL)
        at = at[(np.abs(at) < FARTHEST).all(axis=1)].astype(int)
        if not len(at):
            return
        self.start = at.min(axis=0)
        size = at.max(axis=0) - self.start + 1
        taken = np.zeros(size + 1, dtype=np.int32)
        taken[tuple((at - self.start + 1).T)] = 1
        self.cells = taken.cumsum(axis=0).cumsum(axis=1)  # how many lie before each corner
        self.size = size

    def crosses(self, box: QRectF) -> bool:
        """Whether a curve runs through a box, or within a cell of it; lines are thick."""
        import numpy as np

        return bool(self.crossed(np.array([box.x()]), np.array([box.y()]), box.width(), box.height())[0])

    def crossed(self, x: Any, y: Any, wide: float, tall: float) -> Any:
        """The same of many boxes of one size, whose corners are at x and y."""
        import numpy as np

        if self.cells is None:
            return np.zeros(len(x), dtype=bool)
        (west, north), (across, down) = self.start.tolist(), self.size.tolist()
        column, row = x / CELL - west, y / CELL - north
        left, right = (_cell(column + more / CELL, across) for more in (-2, wide + 2 + CELL))
        top, bottom = (_cell(row + more / CELL, down) for more in (-4, tall + 4 + CELL))
        cells = self.cells
        return cells[right, bottom] - cells[left, bottom] - cells[right, top] + cells[left, top] > 0


def _cell(at: Any, most: int) -> Any:
    """Cells as whole numbers within the grid. (NumPy's clip takes three times as long.)"""
    import numpy as np

    return np.minimum(np.maximum(np.floor(at), 0), most).astype(int)


def along(lines: Sequence[Any]) -> Any:
    """Places on lines no further apart than a cell, their corners among them."""
    import numpy as np

    whole = np.concatenate(lines)
    if len(whole) < 2:
        return whole
    way = np.diff(whole, axis=0)
    way[np.cumsum([len(line) for line in lines[:-1]], dtype=int) - 1] = 0.0  # from one line to the next there is nothing
    parts = np.maximum(np.ceil(np.abs(way).max(axis=1) / CELL), 1.0).astype(int)
    if parts.max() == 1:
        return whole
    of = np.repeat(np.arange(len(way)), parts)
    share = (np.arange(len(of)) - np.repeat(np.cumsum(parts) - parts, parts)) / parts[of]
    return np.concatenate([whole[of] + way[of] * share[:, None], whole[-1:]])
