"""Curves that an equation in x and y describes without being solved for either, and the regions of inequalities.

Contours on a grid find them; every corner is then brought onto the curve by Newton's iteration along the gradient, and what
does not come to lie on it (a pole or a jump, where the sign changes too) is left out.
"""

from __future__ import annotations

from functools import lru_cache
from itertools import pairwise
from typing import TYPE_CHECKING, Any

from larch.core.maths.expression import Node, values

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

GRID = 240  # cells across the window
FEW = 40  # places at which small pieces are looked for
STEPS = 16  # of Newton's iteration
TURN = 0.35  # of a cell: how far a corner may be moved, else it belongs to a break
SETTLED = 1e-8  # of the window: a step shorter than this is the last
AROUND = ((0, 1), (0, -1), (1, 0), (-1, 0), (1, 1), (1, -1), (-1, 1), (-1, -1))
Window = tuple[float, float, float, float]  # x_min, x_max, y_min, y_max


def gradient(formula: Node, x: Array, y: Array, window: Window) -> tuple[Array, Array]:
    """By differences in the middle, with steps of a millionth of the window."""
    return _with_gradient(formula, x, y, window)[1:]


def _with_gradient(formula: Node, x: Array, y: Array, window: Window) -> tuple[Array, Array, Array]:
    """The value, and by how much it changes along x and along y; asked all at once, since each asking has its price."""
    import numpy as np

    h, k = (window[1] - window[0]) * 1e-6, (window[3] - window[2]) * 1e-6
    found = values(formula, x=np.concatenate([x, x + h, x - h, x, x]), y=np.concatenate([y, y, y, y + k, y - k]))
    here, right, left, above, below = found.reshape(5, -1)
    return here, (right - left) / (2 * h), (above - below) / (2 * k)


def nearer(formula: Node, points: Array, window: Window, steps: int = STEPS) -> Array:
    """Places, shape (n, 2), brought onto the curve; measured with the window as a square, so that no axis counts more."""
    import numpy as np

    wide, high = window[1] - window[0], window[3] - window[2]
    found = np.array(points, dtype=float)
    moving = np.arange(len(found))
    with np.errstate(all="ignore"):
        for _step in range(steps):
            x, y = found[moving].T
            off, across, down = _with_gradient(formula, x, y, window)
            across, down = across * wide, down * high
            size = across * across + down * down
            move = np.where(size > 0, off / size, 0.0)
            move = np.where(np.isfinite(move), move, 0.0)
            found[moving, 0] -= move * across * wide
            found[moving, 1] -= move * down * high
            # The error of a step goes with the square of its length.
            moving = moving[np.abs(move) * np.sqrt(size) > SETTLED]
            if not len(moving):
                break
    return found


def _grid(window: Window, cells: int) -> tuple[Array, Array]:
    import numpy as np

    # Not on round numbers: there curves cross each other and lie on the grid's own lines.
    a, b, c, d = window
    dx, dy = (b - a) / cells * 0.00137, (d - c) / cells * 0.00291
    return np.linspace(a - dx, b + dx * 1.7, cells + 1), np.linspace(c - dy, d + dy * 1.3, cells + 1)


@lru_cache(maxsize=48)
def _heights(formula: Node, window: Window, cells: int) -> tuple[Array, Array, Array]:
    import numpy as np

    x, y = _grid(window, cells)
    across, down = np.meshgrid(x, y)
    return x, y, values(formula, x=across, y=down)


@lru_cache(maxsize=48)
def traced(formula: Node, window: Window, cells: int = GRID) -> tuple[Array, ...]:
    """Where a formula of x and y is zero in a window (x_min, x_max, y_min, y_max): runs of shape (n, 2) in its units."""
    import numpy as np
    from contourpy import contour_generator

    x, y, height = _heights(formula, window, cells)
    if not np.isfinite(height).any():
        return ()
    lines: Any = contour_generator(x=x, y=y, z=_masked(height), corner_mask=True).lines(0.0)
    found: list[Array] = []
    for line in [*lines, *_small(formula, window, x, y, height)]:
        if len(line) < 2:
            continue
        near = nearer(formula, line, window)
        for run in _runs(_lies(formula, line, near, window, cells)):
            if run.stop - run.start > 1:
                found.append(near[run])
    return tuple(found)


def _masked(height: Array) -> Any:
    """Without what has no value; that there is none is quickly seen, and spares contouring a mask."""
    import numpy as np

    return height if np.isfinite(height).all() else np.ma.masked_invalid(height)


def _small(formula: Node, window: Window, x: Array, y: Array, height: Array) -> list[Array]:
    """Pieces smaller than a cell: looked for where the height is least among its neighbours without changing its sign."""
    import numpy as np
    from contourpy import contour_generator

    size = np.where(np.isfinite(height), np.abs(height), np.inf)
    inner = size[1:-1, 1:-1]
    least = np.isfinite(inner)
    for dy, dx in AROUND:
        least &= inner < size[1 + dy : size.shape[0] - 1 + dy, 1 + dx : size.shape[1] - 1 + dx]
    found: list[Array] = []
    tried = 0
    for row, column in np.argwhere(least):
        signs = np.sign(height[row : row + 3, column : column + 3])
        if not (signs == signs[1, 1]).all():
            continue
        tried += 1
        if tried > FEW:
            break
        px = np.linspace(x[column], x[column + 2], 41)
        py = np.linspace(y[row], y[row + 2], 41)
        across, down = np.meshgrid(px, py)
        closer = values(formula, x=across, y=down)
        if np.nanmin(closer) < 0 < np.nanmax(closer):
            made: Any = contour_generator(x=px, y=py, z=_masked(closer)).lines(0.0)
            found += made
    return found


def _lies(formula: Node, before: Array, after: Array, window: Window, cells: int) -> Array:
    """Which corners lie on the curve. Where it has a cusp, Newton's iteration hardly moves: there it is enough that the
    value is small against those around, which at a pole or a jump it is not."""
    import numpy as np

    cell = np.array([window[1] - window[0], window[3] - window[2]]) / cells
    moved = np.abs((after - before) / cell).max(axis=1)
    with np.errstate(all="ignore"):
        here = np.abs(values(formula, x=after[:, 0], y=after[:, 1]))
        around = [
            np.abs(values(formula, x=after[:, 0] + i * cell[0], y=after[:, 1] + k * cell[1]))
            for i in (-1, 1)
            for k in (-1, 1)
        ]
        small = here < 0.02 * np.max(np.nan_to_num(np.array(around)), axis=0)
        across, down = gradient(formula, after[:, 0], after[:, 1], window)
        settled = here < 0.05 * np.hypot(across * cell[0], down * cell[1])
    on = (_distance(formula, after, window) < 1e-9) | (small & settled)
    return np.asarray(on & (moved < 1 + TURN))


def _distance(formula: Node, points: Array, window: Window) -> Array:
    """How far places lie from the curve, as a share of the window; infinite where the formula has no value."""
    import numpy as np

    x, y = points[:, 0], points[:, 1]
    with np.errstate(all="ignore"):
        off, across, down = _with_gradient(formula, x, y, window)
        size = np.hypot(across * (window[1] - window[0]), down * (window[3] - window[2]))
        # Where a curve crosses itself there is no gradient; there the value itself has to be nothing.
        scale = np.nanmax(np.where(np.isfinite(size), size, 0.0)) if len(size) else 0.0
        away = np.abs(off) / np.where(size > 1e-6 * scale, size, max(scale, 1e-300))
    return np.where(np.isfinite(away), away, np.inf)


def _runs(fits: Array) -> list[slice]:
    import numpy as np

    edges = np.flatnonzero(np.diff(np.concatenate([[0], fits.astype(np.int8), [0]])))
    return [slice(int(start), int(stop)) for start, stop in edges.reshape(-1, 2)]


@lru_cache(maxsize=48)
def filled(formula: Node, op: str, window: Window, cells: int = GRID) -> tuple[Array, ...]:
    """The region in which formula op 0 holds, op one of < > ≤ ≥: rings of shape (n, 2), filled by the odd-even rule."""
    import numpy as np
    from contourpy import FillType, contour_generator

    x, y, height = _heights(formula, window, cells)
    if not np.isfinite(height).any():
        return ()
    bound = float(np.nanmax(np.abs(height))) * 2 + 1
    made = contour_generator(x=x, y=y, z=_masked(height), corner_mask=True, fill_type=FillType.OuterOffset)
    low, high = (-bound, 0.0) if op in "<≤" else (0.0, bound)
    regions: Any = made.filled(low, high)
    points, offsets = regions
    found: list[Array] = []
    for ring, starts in zip(points, offsets, strict=True):
        if ring is None or starts is None:
            continue
        found += [ring[a:b] for a, b in pairwise(starts) if b - a > 2]
    return tuple(found)
