"""What the network is shown of a group of strokes: the group by itself, its size and place among others, how it was written.

The same code prepares the training samples (tools/recognition), so that both see alike.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

SIDE = 32  # of a picture
EDGE = 3.0  # left free round a group
AROUND = 3.4  # heights of a usual sign that the place among others shows
RUN = 40  # points of how it was written
FACTS = 6
MOST_AT_ONCE = 1_000_000  # points of all groups together


def pictures(points: Array, owner: Array, groups: Sequence[Sequence[int]], height: float) -> tuple[Array, Array, Array]:
    """For each group of strokes: pictures (n, 3, SIDE, SIDE), runs (n, 5, RUN) and facts (n, FACTS), float32.

    points: all strokes, evenly spaced, shape (m, 2); owner: the stroke that each belongs to; height: of a usual sign.
    """
    import numpy as np

    count = len(groups)
    images = np.zeros((count, 3, SIDE, SIDE), dtype=np.float32)
    runs = np.zeros((count, 5, RUN), dtype=np.float32)
    facts = np.zeros((count, FACTS), dtype=np.float32)
    most = max(1, MOST_AT_ONCE // max(1, len(points)))
    for start in range(0, count, most):
        part = slice(start, start + most)
        images[part], runs[part], facts[part] = _some(points, owner, groups[part], height)
    return images, runs, np.clip(facts, 0, 6)


def _some(points: Array, owner: Array, groups: Sequence[Sequence[int]], height: float) -> tuple[Array, Array, Array]:
    """As `pictures`, of so few groups that all points of all of them are looked at together."""
    import numpy as np

    count = len(groups)
    starts = np.searchsorted(owner, np.arange(owner.max(initial=-1) + 2))
    strokes = np.array([s for group in groups for s in group], dtype=int)
    of_stroke = np.repeat(np.arange(count), [len(group) for group in groups])
    lengths = starts[strokes + 1] - starts[strokes]
    ends = np.cumsum(lengths)
    at = np.arange(ends[-1]) + np.repeat(starts[strokes] - (ends - lengths), lengths)
    own, of = points[at], np.repeat(of_stroke, lengths)
    sizes = np.bincount(of, minlength=count)
    firsts = np.cumsum(sizes) - sizes
    low, high = np.minimum.reduceat(own, firsts), np.maximum.reduceat(own, firsts)
    middle, size = (low + high) / 2, high - low
    large = np.maximum(size.max(axis=1), 0.12 * height)
    wide = SIDE / (AROUND * height)
    centred = own - middle[of]
    images = np.empty((count, 3, SIDE, SIDE), dtype=np.float32)
    images[:, 0] = _ink(of, centred * ((SIDE - 2 * EDGE) / large)[of, None] + SIDE / 2, count)
    images[:, 1] = _ink(of, centred * wide + SIDE / 2, count)
    other = np.ones((count, len(starts) - 1), dtype=bool)
    other[of_stroke, strokes] = False
    reach = SIDE / 2 / wide
    seen = (np.abs(points[:, 0] - middle[:, :1]) <= reach) & (np.abs(points[:, 1] - middle[:, 1:]) <= reach)
    which, place = np.nonzero(other[:, owner] & seen)
    images[:, 2] = _ink(which, (points[place] - middle[which]) * wide + SIDE / 2, count)
    downs = ends - lengths - firsts[of_stroke]  # where in its group each stroke begins
    runs = _runs(centred / large[of, None], firsts, sizes, of_stroke, downs)
    lasts = own[firsts + sizes - 1] - own[firsts]
    facts = np.column_stack([
        size / height, [len(group) for group in groups], size[:, 0] / (size.sum(axis=1) + 1e-9), sizes / 40,
        np.hypot(*lasts.T) / height,
    ])  # fmt: skip
    return images, runs, facts


def _ink(of: Array, places: Array, count: int) -> Array:
    """Each point spread over the four pixels round it, in the picture of its group; no pixel more than black."""
    import numpy as np

    x, y = places.T.copy()
    inside = (x >= 0) & (x < SIDE - 1) & (y >= 0) & (y < SIDE - 1)
    if not inside.all():
        x, y, of = x[inside], y[inside], of[inside]
    column, row = x.astype(int), y.astype(int)
    fx, fy = x - column, y - row
    first = (of * SIDE + row) * SIDE + column
    left, right = 1 - fx, fx * fy
    pixels = np.concatenate([first, first + 1, first + SIDE, first + SIDE + 1])
    shares = np.concatenate([left * (1 - fy), fx - right, left * fy, right])
    flat = np.bincount(pixels, weights=shares, minlength=count * SIDE * SIDE)
    found: Array = np.minimum(1.0, 1.6 * flat).reshape(count, SIDE, SIDE)
    return found


def _runs(own: Array, firsts: Array, sizes: Array, of_stroke: Array, downs: Array) -> Array:
    """x, y, the way it goes (two numbers), and whether the pen has just come down."""
    import numpy as np

    count = len(firsts)
    at = np.arange(RUN) * ((sizes - 1) / (RUN - 1))[:, None]
    at[:, -1] = sizes - 1
    at = at.round().astype(int)
    chosen = own[firsts[:, None] + at]
    step = np.diff(chosen, axis=1, append=chosen[:, -1:])
    runs = np.zeros((count, 5, RUN), dtype=np.float32)
    runs[:, 0:2] = chosen.transpose(0, 2, 1)
    runs[:, 2:4] = (step / (np.hypot(step[..., 0], step[..., 1])[..., None] + 1e-6)).transpose(0, 2, 1)
    runs[of_stroke, 4, (at[of_stroke] < downs[:, None]).sum(axis=1).clip(0, RUN - 1)] = 1.0
    return runs
