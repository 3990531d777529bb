"""Where a graph swings faster than a line can show, as sin(1/x) does near 0: its whole reach there, column by column."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from larch.core.maths.expression import values
from larch.core.maths.expression.tree import Call, Node, children
from larch.core.maths.graph import Curve
from larch.core.things.graphs.axes import Axes

SWINGS = frozenset({"sin", "cos", "tan", "cot", "sec", "csc"})
COLUMN, SAMPLES = 3.0, 24  # page units to a column, and places at which it is looked into
TURNS = 2  # in three columns, from which the strokes of a line leave no gap
LEAST = 4  # columns


def swings(node: Node) -> bool:
    """Whether it holds a function that goes to and fro."""
    return (isinstance(node, Call) and node.function in SWINGS) or any(map(swings, children(node)))


@lru_cache(64)
def bands(axes: Axes, curve: Curve) -> list[Any]:
    """The parts that can't be followed, as arrays of shape (n, 3) in the axes' own coordinates: how far along the axis, and
    from where to where across it."""
    import numpy as np

    if curve.along not in ("x", "y") or axes.has_log() or not swings(curve.formula):
        return []
    upright = curve.along == "x"
    size, unit = (axes.width, axes.units()[0]) if upright else (axes.height, axes.units()[1])
    edges = np.arange(0.0, size, COLUMN)
    # No even steps: they could beat with the swinging itself.
    share = (np.arange(SAMPLES) + 0.4 + 0.3 * np.sin(12.9898 * np.arange(SAMPLES))) / SAMPLES
    at = edges[None, :] + share[:, None] * COLUMN  # a column of samples each, down which sums are quick
    plane = axes.x_min + at / unit if upright else axes.y_max - at / unit
    with np.errstate(all="ignore"):
        height = values(curve.formula, **{curve.along: plane.ravel()}).reshape(plane.shape)
    across = (axes.y_max - height) * axes.units()[1] if upright else (height - axes.x_min) * axes.units()[0]
    far = 2 * (axes.width + axes.height)
    known = np.isfinite(across)
    across = np.clip(np.where(known, across, 0.0), -far, far)
    steps = np.diff(across, axis=0)
    turns = (steps[1:] * steps[:-1] < 0).sum(axis=0)
    together = np.convolve(turns, np.ones(3, dtype=int), mode="same")
    wild = (together >= TURNS) & known.all(axis=0)
    if np.count_nonzero(wild) < LEAST:
        return []
    low = _widest(np.where(known, across, far).min(axis=0), np.min)
    high = _widest(np.where(known, across, -far).max(axis=0), np.max)
    runs = np.flatnonzero(np.diff(np.concatenate([[0], wild.astype(np.int8), [0]])))
    found = []
    for start, stop in runs.reshape(-1, 2):
        if stop - start >= LEAST:
            middle = edges[start:stop] + COLUMN / 2
            found.append(np.column_stack([middle, low[start:stop], high[start:stop]]))
    return found


def _widest(reach: Any, edge: Any) -> Any:
    """Of a column and those beside it: samples seldom come upon the very top."""
    import numpy as np

    padded = np.pad(reach, 1, mode="edge")
    return edge(np.stack([padded[k : k + len(reach)] for k in range(3)]), axis=0)


def outside(lines: list[Any], found: list[Any], upright: bool) -> list[Any]:
    """Lines without what lies in bands."""
    import numpy as np

    k = 0 if upright else 1
    for band in found:
        a, b = band[0, 0] - COLUMN / 2, band[-1, 0] + COLUMN / 2
        kept = []
        for line in lines:
            clear = (line[:, k] <= a) | (line[:, k] >= b)
            cuts = np.flatnonzero(np.diff(np.concatenate([[0], clear.astype(np.int8), [0]])))
            kept += [line[start:stop] for start, stop in cuts.reshape(-1, 2) if stop - start > 1]
        lines = kept
    return lines
