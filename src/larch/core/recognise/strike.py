"""A stroke to and fro over something: it is struck out."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

from larch.core.base.shape import Box, Point, box_of

LEAST_TURNS = 4  # times that the hand turns back
STRAIGHT = 0.55  # of a leg's way, how far apart its ends are at least
FLAT = 0.15  # of the width, how high it is at least: a line drawn twice strikes nothing
OVER = 0.6  # of a thing's box that is covered, for it to be struck out


def strikes_out(stroke: Sequence[Point]) -> bool:
    """Whether it goes to and fro, as a hand does that strikes something out."""
    points = [p for k, p in enumerate(stroke) if k == 0 or p != stroke[k - 1]]
    if len(points) < 8:
        return False
    box = box_of(points)
    size = max(box.width, box.height)
    if size <= 0 or min(box.width, box.height) < 0.02 * size:
        return False
    ax, ay = _way(points, box)
    along = [x * ax + y * ay for x, y in points]
    span = max(along) - min(along)
    turns = _turns(along, 0.3 * span)
    if len(turns) - 2 < LEAST_TURNS:
        return False
    long = sum(math.dist(a, b) for a, b in pairwise(points))
    legs = sum(math.dist(points[a], points[b]) for a, b in pairwise(turns))
    return legs > STRAIGHT * long and long > 3.5 * size


def struck(stroke: Sequence[Point], boxes: Sequence[Box]) -> list[int]:
    """Which of these boxes it covers; none where it strikes nothing out."""
    if not strikes_out(stroke):
        return []
    own = box_of(stroke)
    found = []
    for k, box in enumerate(boxes):
        across = min(own.x1, box.x1) - max(own.x0, box.x0)
        down = min(own.y1, box.y1) - max(own.y0, box.y0)
        if across < 0 or down < 0:
            continue
        wide, tall = max(box.width, 1e-6), max(box.height, 1e-6)
        # Nobody strikes out over the whole height of a sign: half of it is enough where the middle is met.
        middle = own.grown(0.08 * own.height).holds(*box.centre)
        if middle and across >= OVER * wide and (down >= 0.2 * tall or tall < own.height):
            found.append(k)
    return found


def _way(points: Sequence[Point], box: Box) -> Point:
    """The direction in which it goes to and fro: that in which most of the way lies."""
    xx = yy = xy = 0.0
    for (x0, y0), (x1, y1) in pairwise(points):
        dx, dy = x1 - x0, y1 - y0
        long = math.hypot(dx, dy) or 1.0
        xx, yy, xy = xx + dx * dx / long, yy + dy * dy / long, xy + dx * dy / long
    turn = 0.5 * math.atan2(2 * xy, xx - yy)
    return math.cos(turn), math.sin(turn)


def _turns(along: Sequence[float], least: float) -> list[int]:
    """Where it turns back, its beginning and its end among them; smaller waverings than `least` are none."""
    found, best, way = [0], 0, 0
    for k, value in enumerate(along):
        if way >= 0 and value > along[best]:
            best, way = k, way or (1 if value - along[found[-1]] > least else 0)
        elif way <= 0 and value < along[best]:
            best, way = k, way or (-1 if along[found[-1]] - value > least else 0)
        elif way and abs(value - along[best]) > least:
            found.append(best)
            best, way = k, -way
    return [*found, len(along) - 1]
