"""Shapes that are told by a rule of their own: tables, braces, ticks, and lines of several straight pieces."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import TYPE_CHECKING, Any, NamedTuple

from larch.core.maths.geometry import crossing_pieces
from larch.core.recognise.shapes.path import corners, outline_of, straight_pieces

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

STRAIGHT = 0.03  # of the size, how far a line of a table strays at most
UPRIGHT = 14.0  # degrees from level or upright
TOGETHER = 0.09  # of the size, within which lines of a table are one
REACHES = 0.62  # of the table that a line in it crosses
MOST_LINES = 24
BENT = 0.013  # of the size, how far the pieces of a bent line are off
MOST_PIECES = 8
LEAST_PIECE = 0.09  # of the size
SHARPEST, LEAST_TURN = 38.0, 18.0  # degrees between two pieces, and by which they turn at least


class GridLines(NamedTuple):
    """Where the lines of a table stand, from left to right and from the top down."""

    xs: list[float]
    ys: list[float]


def table_of(strokes: Sequence[Array]) -> GridLines | None:
    """A frame with lines in it; None for anything else. A frame alone is a rectangle."""
    import numpy as np

    if not 2 <= len(strokes) <= MOST_LINES:
        return None
    whole = np.concatenate(strokes)
    low, high = whole.min(axis=0), whole.max(axis=0)
    size = float(np.hypot(*(high - low)))
    if size <= 0:
        return None
    level: list[tuple[float, float, float]] = []
    upright: list[tuple[float, float, float]] = []
    for stroke in strokes:
        sides = _sides(stroke, size)
        if sides is None:
            return None
        for a, b in sides:
            dx, dy = abs(b[0] - a[0]), abs(b[1] - a[1])
            if dy <= dx * math.tan(math.radians(UPRIGHT)):
                level.append(((a[1] + b[1]) / 2, min(a[0], b[0]), max(a[0], b[0])))
            elif dx <= dy * math.tan(math.radians(UPRIGHT)):
                upright.append(((a[0] + b[0]) / 2, min(a[1], b[1]), max(a[1], b[1])))
            else:
                return None
    ys, xs = _lines(level, size, float(high[0] - low[0])), _lines(upright, size, float(high[1] - low[1]))
    if ys is None or xs is None or len(xs) < 2 or len(ys) < 2 or len(xs) + len(ys) < 5:
        return None
    edge = 1.5 * TOGETHER * size
    framed = abs(xs[0] - low[0]) < edge and abs(xs[-1] - high[0]) < edge
    if not framed or abs(ys[0] - low[1]) > edge or abs(ys[-1] - high[1]) > edge:
        return None
    return GridLines(xs, ys)


def _sides(stroke: Array, size: float) -> list[tuple[Array, Array]] | None:
    """The straight pieces of a stroke; None where it bends. What is too short to be a line is left out."""
    import numpy as np

    outline = outline_of([stroke])
    if outline is None:
        return []
    for pieces in straight_pieces(outline.points, 5):
        if pieces.error * outline.size <= STRAIGHT * size:
            ends = outline.back(outline.points[pieces.cuts])
            return [(a, b) for a, b in pairwise(ends) if float(np.hypot(*(b - a))) > 0.08 * size]
    return None


def _lines(found: list[tuple[float, float, float]], size: float, length: float) -> list[float] | None:
    """The places of lines that go through, those that lie together taken for one; None where one stops short."""
    groups: list[list[tuple[float, float, float]]] = []
    for one in sorted(found):
        if groups and one[0] - groups[-1][-1][0] < TOGETHER * size:
            groups[-1].append(one)
        else:
            groups.append([one])
    places = []
    for group in groups:
        if max(b for _p, _a, b in group) - min(a for _p, a, _b in group) < REACHES * length:
            return None
        places.append(sum(place for place, _a, _b in group) / len(group))
    return places


def bends_of(strokes: Sequence[Array]) -> Array | None:
    """The corners of a line of three or more straight pieces, its ends among them, in the units of the ink; None where it
    bends softly, turns back on itself as scribbles do, or crosses itself."""
    import numpy as np

    outline = outline_of(strokes)
    if outline is None or outline.jumps > 0.1 or outline.gap < 0.06:
        return None
    for pieces in straight_pieces(outline.points, MOST_PIECES)[2:]:
        if pieces.error > BENT:
            continue
        places = corners(outline.points, pieces, closed=False)
        steps = np.diff(places, axis=0)
        if float(np.hypot(*steps.T).min()) < LEAST_PIECE:
            return None
        ways = np.degrees(np.unwrap(np.arctan2(steps[:, 1], steps[:, 0])))
        turns = np.abs(np.diff(ways))
        if turns.min() < LEAST_TURN or turns.max() > 180 - SHARPEST or len(crossing_pieces(places)):
            return None
        return outline.back(places)
    return None


def tick_of(strokes: Sequence[Array]) -> Array | None:
    """The ends and the corner of a check: a short piece down to the right, a long one up to the right."""
    outline = outline_of(strokes)
    if outline is None or len(strokes) > 1:
        return None
    two = straight_pieces(outline.points, 2)
    if len(two) < 2 or two[1].error > 0.03:
        return None
    a, b, c = corners(outline.points, two[1], closed=False)
    if a[0] > c[0]:
        a, c = c, a
    short, long = math.dist(a, b), math.dist(b, c)
    falls, rises = b[1] - a[1] > 0.3 * short, b[1] - c[1] > 0.35 * long
    if not (falls and rises and a[0] < b[0] < c[0] and 0.15 * long < short < 0.75 * long):
        return None
    import numpy as np

    return outline.back(np.array([a, b, c]))


def brace_of(strokes: Sequence[Array]) -> Array | None:
    """One end, the tip and the other end of a curly brace; None where it is none."""
    import numpy as np

    outline = outline_of(strokes)
    if outline is None or len(strokes) > 2:
        return None
    points = outline.points
    a, b = points[0], points[-1]
    span = float(np.hypot(*(b - a)))
    if span < 0.6:
        return None
    ux, uy = (b - a) / span
    along = ((points - a) @ np.array([ux, uy])) / span
    off = (points - a) @ np.array([-uy, ux])
    depth = float(off[np.abs(off).argmax()])
    if not 0.04 * span < abs(depth) < 0.45 * span:
        return None
    high = off / depth

    def level(low: float, top: float) -> float:
        near = high[(along >= low) & (along <= top)]
        return float(near.mean()) if len(near) else 0.0

    tip = float(along[np.abs(off).argmax()])
    before, after = level(0.3 * tip, 0.75 * tip), level(1 - 0.75 * (1 - tip), 1 - 0.3 * (1 - tip))
    rest = 1 - tip
    slopes = max(
        level(0.6 * tip, 0.75 * tip) - level(0.25 * tip, 0.4 * tip),
        level(1 - 0.75 * rest, 1 - 0.6 * rest) - level(1 - 0.4 * rest, 1 - 0.25 * rest),
    )
    steep = min(1.0 - level(tip - 0.2, tip - 0.1), 1.0 - level(tip + 0.1, tip + 0.2))
    if not 0.3 < tip < 0.7 or not all(0.25 < side < 0.72 for side in (before, after)):
        return None
    if steep < 0.2 or slopes > 0.22:  # level on both sides of the tip, and steep at it
        return None
    return outline.back(np.array([a, points[np.abs(off).argmax()], b]))
