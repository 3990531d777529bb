"""Trees that vote: trained by tools/recognition/shapes.py, kept as arrays, asked with NumPy alone."""

from __future__ import annotations

from functools import cache
from importlib import resources
from typing import TYPE_CHECKING, Any, NamedTuple

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]


class Forest(NamedTuple):
    """Of every node: feature, bound, left and right child (−1 at a leaf) and, at leaves, the row of `votes`. roots: where
    each tree begins."""

    kinds: tuple[str, ...]
    feature: Array
    bound: Array
    left: Array
    right: Array
    leaf: Array
    votes: Array
    roots: Array

    def ask(self, values: Array) -> Array:
        """The share of votes for each kind."""
        import numpy as np

        node = self.roots.astype(int)
        while True:
            inner = self.left[node] >= 0
            if not inner.any():
                break
            low = values[self.feature[node]] <= self.bound[node]
            node = np.where(inner, np.where(low, self.left[node], self.right[node]), node)
        found: Array = self.votes[self.leaf[node]].astype(np.float64).mean(axis=0)
        result: Array = found / found.sum()
        return result


@cache
def shape_forest() -> Forest:
    import io

    import numpy as np

    data = resources.files("larch").joinpath("assets/recognise/shapes.npz").read_bytes()
    with np.load(io.BytesIO(data), allow_pickle=False) as kept:
        parts = {name: kept[name] for name in kept.files}
    return Forest(tuple(str(kind) for kind in parts["kinds"]), *(parts[name] for name in Forest._fields[1:]))
