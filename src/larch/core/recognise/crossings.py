"""Which strokes cross each other, and which hang together by it: they are seldom of two signs."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

FINE = 60  # points of a stroke that are looked at


def crossing(strokes: Sequence[Array], boxes: Array) -> Array:
    """Shape (n, n), symmetric: true where two strokes cross. boxes: theirs, shape (n, 4)."""
    return _ties(strokes, boxes, 0.0, _cross)


def touching(strokes: Sequence[Array], boxes: Array, near: float) -> Array:
    """Shape (n, n), symmetric: true where two strokes come as near as that."""
    return _ties(strokes, boxes, near, lambda one, other: bool(_squares(one, other).min() <= near * near))


def hanging(joined: Array) -> list[tuple[int, ...]]:
    """Strokes in groups of those that hang together, also by way of others. joined: shape (n, n)."""
    left = set(range(len(joined)))
    found: list[tuple[int, ...]] = []
    while left:
        group, edge = set[int](), {min(left)}
        while edge:
            group |= edge
            edge = {other for one in edge for other in joined[one].nonzero()[0].tolist()} - group
        found.append(tuple(sorted(group)))
        left -= group
    return found


def _ties(strokes: Sequence[Array], boxes: Array, near: float, tied: Callable[[Array, Array], bool]) -> Array:
    """Asks only of those whose boxes are as near as that."""
    import numpy as np

    found = np.zeros((len(strokes), len(strokes)), dtype=bool)
    coarse = [_thinned(stroke) for stroke in strokes]
    meet = (boxes[:, None, :2] <= boxes[None, :, 2:] + near).all(axis=2)
    for i, j in np.argwhere(np.triu(meet & meet.T, 1)).tolist():
        found[i, j] = found[j, i] = tied(coarse[i], coarse[j])
    return found


def _squares(one: Array, other: Array) -> Array:
    """Squares of the distances between points."""
    apart = one[:, None] - other[None]
    found: Array = (apart**2).sum(axis=2)
    return found


def _thinned(stroke: Array) -> Array:
    import numpy as np

    if len(stroke) <= FINE:
        return stroke
    found: Array = stroke[np.linspace(0, len(stroke) - 1, FINE).astype(int)]
    return found


def _cross(one: Array, other: Array) -> bool:
    """Whether a piece of one has its ends on either side of a piece of the other, and the other way round."""
    if len(one) < 2 or len(other) < 2:
        return False
    a, b = one[:-1, None], one[1:, None]
    c, d = other[None, :-1], other[None, 1:]
    return bool((_sides(a, b, c, d) & _sides(c, d, a, b)).any())


def _sides(a: Array, b: Array, c: Array, d: Array) -> Array:
    """Whether c and d lie on either side of the line through a and b."""
    along = b - a
    first, second = c - a, d - a
    made: Array = (along[..., 0] * first[..., 1] - along[..., 1] * first[..., 0]) * (
        along[..., 0] * second[..., 1] - along[..., 1] * second[..., 0]
    ) < 0
    return made
