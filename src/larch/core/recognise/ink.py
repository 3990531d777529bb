"""Ink as recognisers take it: strokes without what pens and hands add, and what they measure."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

MOST_STROKES, MOST_POINTS = 160, 4000
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


def height_of(boxes: Array) -> float:
    """The height of a usual sign among strokes: the middle one of those that are not much smaller than the rest."""
    import numpy as np

    heights = boxes[:, 3] - boxes[:, 1]
    widths = boxes[:, 2] - boxes[:, 0]
    sizes = np.maximum(heights, 0.0)
    tall = np.sort(sizes[sizes > 0.3 * sizes.max(initial=0.0)]) if len(sizes) else sizes
    if not len(tall) or tall[-1] <= 0:
        return float(max(widths.max(initial=0.0), 1.0))
    return float(tall[len(tall) // 2])


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
