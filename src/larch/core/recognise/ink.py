"""Ink as recognisers take it: strokes without what pens and hands add, and what they measure."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from larch.core.recognise.crossings import crossing, hanging, touching

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

MOST_STROKES, MOST_POINTS = 160, 4000
TOWERING = 2.4  # times as high as usual signs
TOUCH = 0.12  # of the height of strokes, within which they touch
EVEN = 0.04  # of the height of a line of writing: how far apart points are made


def clean(strokes: Sequence[Any]) -> list[Array]:
    """Strokes of shape (n, 2), without what is no number and without points that lie on each other; thinned where they have
    far more points than any hand makes. Empty ones stay, so that their numbers do."""
    import numpy as np

    found: list[Array] = []
    for stroke in strokes:
        points = np.asarray(stroke, dtype=float).reshape(-1, 2)
        points = points[np.isfinite(points).all(axis=1)]
        points = points[(np.abs(points) < 1e9).all(axis=1)]
        if len(points) > MOST_POINTS:
            points = points[np.linspace(0, len(points) - 1, MOST_POINTS).astype(int)]
        if len(points) > 1:
            apart = np.append(True, (np.diff(points, axis=0) != 0).any(axis=1))
            points = points[apart]
        found.append(points)
    return found


def boxes_of(strokes: Sequence[Array]) -> Array:
    """x0, y0, x1, y1 of each stroke, shape (n, 4)."""
    import numpy as np

    return np.array([[*stroke.min(axis=0), *stroke.max(axis=0)] for stroke in strokes]).reshape(-1, 4)


def height_of(strokes: Sequence[Array], boxes: Array, across: Array | None = None) -> float:
    """The height of a usual sign: the middle one of those that are not much smaller than the rest, strokes that touch taken
    for one sign. Brackets round several rows say nothing of it. across: which strokes cross, where that is known."""
    across = crossing(strokes, boxes) if across is None else across
    usual = across.any(axis=1) | ~_towering(boxes)
    strokes, boxes = [stroke for stroke, is_usual in zip(strokes, usual, strict=True) if is_usual], boxes[usual]
    heights = boxes[:, 3] - boxes[:, 1]
    first = _usual(heights)
    if first <= 0:
        return float(max((boxes[:, 2] - boxes[:, 0]).max(initial=0.0), 1.0))
    return _usual(_joined_heights(strokes, boxes, TOUCH * first, 0.3 * first))


def _towering(boxes: Array) -> Array:
    """Which strokes are upright and much higher than what else is written."""
    import numpy as np

    wide, high = boxes[:, 2] - boxes[:, 0], boxes[:, 3] - boxes[:, 1]
    narrow = wide < 0.42 * high
    others = high[~narrow & (high > 0.4 * wide)]
    others = others[others > 0.4 * others.max(initial=0.0)]  # without commas and dots
    if len(others) < 2:
        return np.zeros(len(boxes), dtype=bool)
    found: Array = narrow & (high > TOWERING * np.median(others))
    if found.sum() > len(others):  # not brackets round others, but what is usual here
        return np.zeros(len(boxes), dtype=bool)
    return found


def _usual(heights: Array) -> float:
    import numpy as np

    tall = np.sort(heights[heights > 0.3 * heights.max(initial=0.0)])
    return float(tall[len(tall) // 2]) if len(tall) else 0.0


def _joined_heights(strokes: Sequence[Array], boxes: Array, near: float, flat: float) -> Array:
    """Heights of groups of strokes that touch; level ones, such as bars, touch nothing."""
    import numpy as np

    wide, high = boxes[:, 2] - boxes[:, 0], boxes[:, 3] - boxes[:, 1]
    standing = high > flat
    free = standing | (wide <= 4 * flat)
    joined = touching(strokes, boxes, near) & (standing[:, None] | standing[None]) & free[:, None] & free[None]
    groups = [list(group) for group in hanging(joined)]
    return np.array([boxes[own, 3].max() - boxes[own, 1].min() for own in groups])


def evenly(stroke: Array, step: float) -> Array:
    """Points about `step` apart along a stroke, its ends among them."""
    import numpy as np

    if len(stroke) < 2:
        return stroke
    lengths = np.hypot(*np.diff(stroke, axis=0).T)
    along = np.concatenate([[0.0], np.cumsum(lengths)])
    count = int(min(600, max(2, round(along[-1] / step) + 1)))
    at = np.linspace(0.0, along[-1], count)
    return np.column_stack([np.interp(at, along, stroke[:, k]) for k in (0, 1)])
