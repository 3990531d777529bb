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


def pictures(points: Array, owner: Array, groups: Sequence[Sequence[int]], height: float) -> tuple[Array, Array, Array]:
    """For each group of strokes: pictures (n, 3, SIDE, SIDE), runs (n, 5, RUN) and facts (n, FACTS), float32.

    points: all strokes, evenly spaced, shape (m, 2); owner: the stroke that each belongs to; height: of a usual sign.
    """
    import numpy as np

    count = len(groups)
    images = np.zeros((count, 3, SIDE, SIDE), dtype=np.float32)
    runs = np.zeros((count, 5, RUN), dtype=np.float32)
    facts = np.zeros((count, FACTS), dtype=np.float32)
    starts = np.searchsorted(owner, np.arange(owner.max(initial=-1) + 2))
    for k, group in enumerate(groups):
        parts = [points[starts[s] : starts[s + 1]] for s in group]
        own = np.concatenate(parts)
        low, high = own.min(axis=0), own.max(axis=0)
        middle, size = (low + high) / 2, high - low
        scale = (SIDE - 2 * EDGE) / max(size.max(), 0.12 * height)
        _ink(images[k, 0], (own - middle) * scale + SIDE / 2)
        wide = SIDE / (AROUND * height)
        around = (points - middle) * wide + SIDE / 2
        _ink(images[k, 1], (own - middle) * wide + SIDE / 2)
        other = np.ones(len(points), dtype=bool)
        for s in group:
            other[starts[s] : starts[s + 1]] = False
        _ink(images[k, 2], around[other])
        _run(runs[k], parts, middle, max(size.max(), 0.12 * height))
        facts[k] = (size[0] / height, size[1] / height, len(group), size[0] / (size.sum() + 1e-9), len(own) / 40,
                    float(np.hypot(*(own[0] - own[-1]))) / height)  # fmt: skip
    return images, runs, np.clip(facts, 0, 6)


def _ink(image: Array, places: Array) -> None:
    """Each point spread over the four pixels round it; no pixel more than black."""
    import numpy as np

    inside = ((places >= 0) & (places < SIDE - 1)).all(axis=1)
    places = places[inside]
    whole = places.astype(int)
    share = places - whole
    x, y = whole.T
    fx, fy = share.T
    flat = np.zeros(SIDE * SIDE)
    for dy, dx, part in ((0, 0, (1 - fx) * (1 - fy)), (0, 1, fx * (1 - fy)), (1, 0, (1 - fx) * fy), (1, 1, fx * fy)):
        flat += np.bincount((y + dy) * SIDE + x + dx, weights=part, minlength=SIDE * SIDE)
    image[:] = np.minimum(1.0, 1.6 * flat).reshape(SIDE, SIDE)


def _run(run: Array, parts: Sequence[Array], middle: Array, size: float) -> None:
    """x, y, the way it goes (two numbers), and whether the pen has just come down."""
    import numpy as np

    whole = np.concatenate(parts)
    begins = np.concatenate([[1.0, *np.zeros(len(part) - 1)] for part in parts])
    at = np.linspace(0, len(whole) - 1, RUN).round().astype(int)
    chosen = (whole[at] - middle) / size
    run[0:2] = chosen.T
    step = np.diff(chosen, axis=0, append=chosen[-1:])
    run[2:4] = (step / (np.hypot(*step.T)[:, None] + 1e-6)).T
    downs = np.flatnonzero(begins)
    run[4, np.searchsorted(at, downs).clip(0, RUN - 1)] = 1.0
