"""A curve that a letter of its own runs through, on its axes, as a form that can be met and constructed on."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from larch.core.base.shape import Point
from larch.core.maths.graph import Curve
from larch.core.maths.parametric import places, sampled
from larch.core.maths.plane.forms import Graph, NotThere
from larch.core.things.graphs.plane import OUTSIDE, Plane, window_of

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

COARSE = 2000  # places looked at first for the one that is nearest
NEWTON = 12
STEP = 1e-6  # of a piece, for its direction


def run_form(curve: Curve, axes: Plane) -> Graph:
    """The parameter is that of the curve; offs are distances from the nearest place of it, on its left or right."""
    low, high = curve.span
    slack = 1e-9 * (high - low)
    pieces = sampled(curve)

    def on_page(found: Array) -> Array:
        return _on_page(axes, found)

    def place(t: float) -> Point:
        import numpy as np

        if not low - slack <= t <= high + slack:
            raise NotThere(OUTSIDE)
        x, y = on_page(places(curve, np.array([t])))[0].tolist()
        if not (math.isfinite(x) and math.isfinite(y)):
            raise NotThere(OUTSIDE)
        return x, y

    def offs(points: Sequence[Point]) -> list[float]:
        import numpy as np

        queries = np.array(points, dtype=float).reshape(-1, 2)
        best = np.full(len(queries), np.inf)
        for ts, found in pieces:
            off = _beside(curve, on_page, ts, found, queries)
            best = np.where(np.abs(off) < np.abs(best), off, best)
        result: list[float] = best.tolist()
        return result

    seen = window_of(axes, slack=1e-9 * max(axes.x_max - axes.x_min, axes.y_max - axes.y_min))
    all_ts: list[tuple[float, ...]] = []
    runs: list[tuple[Point, ...]] = []
    for ts, found in pieces:
        inside = (found[:, 0] >= axes.x_min) & (found[:, 0] <= axes.x_max)
        inside &= (found[:, 1] >= axes.y_min) & (found[:, 1] <= axes.y_max)
        for start, stop in _stretches(inside):
            all_ts.append(tuple(ts[start:stop].tolist()))
            runs.append(tuple(map(tuple, on_page(found[start:stop]).tolist())))
    return Graph(tuple(all_ts), tuple(runs), place, offs, seen)


def _on_page(axes: Plane, found: Array) -> Array:
    """Coordinates as places of the page."""
    import numpy as np

    if axes.has_log():
        return np.array([axes.page_of((x, y)) for x, y in found.tolist()]).reshape(-1, 2)
    corner, right, up = (np.array(axes.page_of(at)) for at in ((0.0, 0.0), (1.0, 0.0), (0.0, 1.0)))
    result: Array = found[:, :1] * (right - corner) + found[:, 1:] * (up - corner) + corner
    return result


def _stretches(inside: Array) -> list[tuple[int, int]]:
    """Where a run of samples is inside, each with one sample beyond its ends."""
    import numpy as np

    near = inside.copy()
    near[:-1] |= inside[1:]
    near[1:] |= inside[:-1]
    edges = np.flatnonzero(np.diff(np.concatenate([[0], near.astype(np.int8), [0]])))
    return [(int(a), int(b)) for a, b in edges.reshape(-1, 2) if b - a > 1]


def _beside(curve: Curve, on_page: Any, ts: Array, found: Array, queries: Array) -> Array:
    """How far places of the page lie from one piece, left of it or right of it; from an end of it, if that is nearest."""
    import numpy as np

    skip = max(1, len(ts) // COARSE)
    coarse = on_page(found[::skip])
    apart = (queries[:, :1] - coarse[None, :, 0]) ** 2 + (queries[:, 1:] - coarse[None, :, 1]) ** 2
    t = ts[::skip][apart.argmin(axis=1)]
    low, high = ts[0], ts[-1]
    h = (high - low) * STEP
    reach = (high - low) / len(ts) * skip
    with np.errstate(all="ignore"):
        for _step in range(NEWTON):
            here, before, after = (on_page(places(curve, np.clip(t + by, low, high))) for by in (0.0, -h, h))
            way, bend = (after - before) / (2 * h), (after - 2 * here + before) / h**2
            away = here - queries
            slope = (away * way).sum(axis=1)
            steep = (way * way + away * bend).sum(axis=1)
            steep = np.where(steep > 0, steep, (way * way).sum(axis=1))
            move = np.where(steep > 0, np.clip(slope / steep, -reach, reach), 0.0)
            fresh = np.clip(t - np.nan_to_num(move), low, high)
            if np.abs(fresh - t).max(initial=0.0) < 1e-15 * (1 + abs(high)):
                break
            t = fresh
        at = on_page(places(curve, t))
        before, after = (on_page(places(curve, np.clip(t + by, low, high))) for by in (-h, h))
        way = after - before
        size = np.hypot(way[:, 0], way[:, 1])
        away = queries - at
        side = (way[:, 0] * away[:, 1] - way[:, 1] * away[:, 0]) / np.where(size > 0, size, np.nan)
    distance = np.hypot(away[:, 0], away[:, 1])
    ended = (t <= low) | (t >= high)
    result: Array = np.where(ended | ~np.isfinite(side), np.copysign(distance, np.nan_to_num(side)), side)
    return result
