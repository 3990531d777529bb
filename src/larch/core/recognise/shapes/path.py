"""A rough outline as one path: strokes chained end to end, evenly spaced, and the straight pieces that fit it best."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import TYPE_CHECKING, Any, NamedTuple

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

POINTS = 80  # of an outline
MOST_SIDES = 10
CUT = 0.12  # of a side at each of its ends, left out when its line is fitted: hands round corners
SOFT = 5  # points over which a turn is measured


class Outline(NamedTuple):
    """points: evenly spaced, shape (n, 2), in a frame of the middle 0 and the size 1; middle, size: of that frame. gap: from
    the end to the beginning as a share of the length; jumps: the widest way in the air between strokes, as a share of the
    size."""

    points: Array
    middle: Array
    size: float
    gap: float
    jumps: float
    strokes: int

    def back(self, points: Array) -> Array:
        """Places of the frame in the units of the ink."""
        result: Array = points * self.size + self.middle
        return result


def outline_of(strokes: Sequence[Array]) -> Outline | None:
    """None where there is nothing that has a size."""
    import numpy as np

    kept = [stroke for stroke in strokes if len(stroke)]
    if not kept:
        return None
    whole = np.concatenate(kept)
    low, high = whole.min(axis=0), whole.max(axis=0)
    size = float(np.hypot(*(high - low)))
    if not size > 0 or not math.isfinite(size):
        return None
    chained, jumps = chain([(stroke - (low + high) / 2) / size for stroke in kept])
    points = spaced(chained, POINTS)
    length = float(np.hypot(*np.diff(points, axis=0).T).sum())
    gap = float(np.hypot(*(points[-1] - points[0]))) / max(length, 1e-9)
    return Outline(points, (low + high) / 2, size, gap, jumps, len(kept))


def chain(strokes: list[Array]) -> tuple[Array, float]:
    """One after the other, each begun at the end that is nearer; and the widest way in the air."""
    import numpy as np

    rest = sorted(strokes, key=lambda stroke: -float(np.hypot(*np.diff(stroke, axis=0).T).sum()) if len(stroke) > 1 else 0.0)
    made, widest = rest.pop(0), 0.0
    while rest:
        best: tuple[float, int, bool, bool] | None = None
        for k, stroke in enumerate(rest):
            for at_end in (True, False):
                for turned in (False, True):
                    near = stroke[-1 if turned else 0]
                    away = float(np.hypot(*(near - made[-1 if at_end else 0])))
                    if best is None or away < best[0]:
                        best = (away, k, at_end, turned)
        assert best is not None
        away, k, at_end, turned = best
        stroke = rest.pop(k)
        stroke = stroke[::-1] if turned else stroke
        made = np.concatenate([made, stroke]) if at_end else np.concatenate([stroke[::-1], made])
        widest = max(widest, away)
    return made, widest


def spaced(points: Array, count: int) -> Array:
    import numpy as np

    if len(points) < 2:
        return np.repeat(points, count, axis=0)[:count]
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    at = np.linspace(0, along[-1], count)
    return np.column_stack([np.interp(at, along, points[:, k]) for k in (0, 1)])


def turns(points: Array, closed: bool) -> Array:
    """By how much it turns at each point, radians, counted clockwise as seen; over `SOFT` points to both sides."""
    import numpy as np

    if closed:
        before, after = np.roll(points, SOFT, axis=0), np.roll(points, -SOFT, axis=0)
    else:
        index = np.arange(len(points))
        before, after = points[np.maximum(index - SOFT, 0)], points[np.minimum(index + SOFT, len(points) - 1)]
    one, two = points - before, after - points
    cross = one[:, 0] * two[:, 1] - one[:, 1] * two[:, 0]
    result: Array = np.arctan2(cross, (one * two).sum(axis=1))
    return result


class Pieces(NamedTuple):
    """cuts: where the pieces meet, as point numbers (n + 1 of them); error: root of the mean squared distance."""

    cuts: list[int]
    error: float


def straight_pieces(points: Array, most: int = MOST_SIDES) -> list[Pieces]:
    """The best fits by 1, 2, … straight pieces, each the least over all places of the cuts (dynamic programming)."""
    import numpy as np

    cost = _costs(points)
    count = len(points)
    best = cost[0].copy()
    trace: list[Array] = []
    found = [Pieces([0, count - 1], math.sqrt(max(best[-1], 0.0) / count))]
    cost[np.tri(count, k=1, dtype=bool)] = np.inf  # a further piece has three points at least
    for _piece in range(1, most):
        through = best[:, None] + cost
        which = through.argmin(axis=0)
        best = through[which, np.arange(count)]
        trace.append(which)
        if not math.isfinite(best[-1]):
            break
        cuts = [count - 1]
        for back in reversed(trace):
            cuts.append(int(back[cuts[-1]]))
        found.append(
            Pieces([0, *cuts[:0:-1], count - 1] if len(cuts) > 1 else [0, count - 1], math.sqrt(max(best[-1], 0.0) / count))
        )
    return found


def _costs(points: Array) -> Array:
    """The squared distances of points i to j from their best line, summed, for all i < j; else infinite."""
    import numpy as np

    count = len(points)
    x, y = points.T
    sums = np.zeros((6, count + 1))
    for k, values in enumerate((np.ones(count), x, y, x * x, y * y, x * y)):
        sums[k, 1:] = np.cumsum(values)
    n, sx, sy, sxx, syy, sxy = (sums[k][None, 1:] - sums[k][:-1, None] for k in range(6))
    with np.errstate(all="ignore"):
        a, b, c = sxx - sx * sx / n, syy - sy * sy / n, sxy - sx * sy / n
        least = (a + b) / 2 - np.sqrt(((a - b) / 2) ** 2 + c * c)
    return np.where(np.arange(count)[None] > np.arange(count)[:, None], np.maximum(least, 0.0), np.inf)


def line_through(points: Array) -> tuple[Array, Array]:
    """The middle and the direction of the best line."""
    import numpy as np

    middles, ways = _lines(points, np.array([0]), np.array([len(points)]))
    return middles[0], ways[0]


def corners(points: Array, pieces: Pieces, closed: bool) -> Array:
    """Where the lines of neighbouring pieces meet; of an open outline also its ends, brought onto their lines."""
    import numpy as np

    starts, stops = np.array(pieces.cuts[:-1]), np.array(pieces.cuts[1:]) + 1
    trims = (CUT * (stops - starts)).astype(int)
    trims[stops - starts - 2 * trims < 3] = 0
    middles, ways = _lines(points, starts + trims, stops - trims)
    cuts = points[pieces.cuts[1:]]
    if closed:
        return _meetings(middles, ways, following(middles), following(ways), cuts)
    met = _meetings(middles[:-1], ways[:-1], middles[1:], ways[1:], cuts[:-1])
    ends = [middles[k] + float((points[k] - middles[k]) @ ways[k]) * ways[k] for k in (0, -1)]
    return np.concatenate([ends[:1], met, ends[1:]])


def _lines(points: Array, starts: Array, stops: Array) -> tuple[Array, Array]:
    """The middles and the directions of the best lines through points from `starts` up to `stops`; shapes (n, 2)."""
    import numpy as np

    middle = points.sum(axis=0) / len(points)  # about which sums of squares lose nothing
    x, y = (points - middle).T
    sums = np.zeros((len(points) + 1, 5))
    np.cumsum(np.column_stack([x, y, x * x, y * y, x * y]), axis=0, out=sums[1:])
    sx, sy, sxx, syy, sxy = ((sums[stops] - sums[starts]) / (stops - starts)[:, None]).T
    turn = np.arctan2(2.0 * (sxy - sx * sy), sxx - sx * sx - syy + sy * sy) / 2.0
    ways = np.column_stack([np.cos(turn), np.sin(turn)])
    backward = ((points[stops - 1] - points[starts]) * ways).sum(axis=1) < 0
    ways[backward] *= -1
    return np.column_stack([sx, sy]) + middle, ways


def _meetings(a: Array, u: Array, b: Array, v: Array, near: Array) -> Array:
    """Where lines meet, all of shape (n, 2); the places `near` where they hardly do, or far from them."""
    import numpy as np

    cross = u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0]
    level = np.abs(cross) < 0.08
    away = b - a
    t = (away[:, 0] * v[:, 1] - away[:, 1] * v[:, 0]) / np.where(level, 1.0, cross)
    met: Array = a + t[:, None] * u
    off = met - near
    return np.where((level | (np.hypot(off[:, 0], off[:, 1]) >= 0.22))[:, None], near, met)


def following(ring: Array) -> Array:
    """The next of each, round a ring."""
    import numpy as np

    return np.concatenate([ring[1:], ring[:1]])


def preceding(ring: Array) -> Array:
    """The one before each, round a ring."""
    import numpy as np

    return np.concatenate([ring[-1:], ring[:-1]])


def rolled(points: Array) -> Array:
    """A closed outline begun at its sharpest corner, so that no side is cut in two."""
    import numpy as np

    start = int(np.abs(turns(points, True)).argmax())
    ring = np.roll(points, -start, axis=0)
    return np.concatenate([ring, ring[:1]])
