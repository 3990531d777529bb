"""Circles, ellipses and regular figures laid through points."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Any, NamedTuple

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]


class Oval(NamedTuple):
    """An ellipse; turn: of the first radius, radians, from the x-axis, clockwise as seen. error: root of the mean squared
    distance, about."""

    x: float
    y: float
    a: float
    b: float
    turn: float
    error: float


def circle_through(points: Array) -> Oval:
    """Least squares in the form x² + y² + dx + ey + f = 0 (Kåsa 1976)."""
    import numpy as np

    x, y = points.T
    matrix = np.column_stack([x, y, np.ones(len(x))])
    (d, e, f), *_rest = np.linalg.lstsq(matrix, -(x * x + y * y), rcond=None)
    cx, cy = -d / 2, -e / 2
    radius = math.sqrt(max(cx * cx + cy * cy - f, 1e-12))
    off = np.hypot(x - cx, y - cy) - radius
    return Oval(float(cx), float(cy), radius, radius, 0.0, float(np.sqrt((off**2).mean())))


def ellipse_through(points: Array) -> Oval | None:
    """The direct least squares fit of Halíř and Flusser (1998), after Fitzgibbon, Pilu and Fisher; None if there is none."""
    import numpy as np

    x, y = points.T
    square = np.column_stack([x * x, x * y, y * y])
    linear = np.column_stack([x, y, np.ones(len(x))])
    s1, s2, s3 = square.T @ square, square.T @ linear, linear.T @ linear
    try:
        t = -np.linalg.solve(s3, s2.T)
        m = s1 + s2 @ t
        m = np.array([m[2] / 2, -m[1], m[0] / 2])
        _values, vectors = np.linalg.eig(m)
    except np.linalg.LinAlgError:
        return None
    vectors = np.real(vectors)
    good = 4 * vectors[0] * vectors[2] - vectors[1] ** 2
    if not (good > 0).any():
        return None
    first = vectors[:, int(np.argmax(good))]
    a, b, c = first
    d, e, f = t @ first
    bend = 4 * a * c - b * b
    cx, cy = (b * e - 2 * c * d) / bend, (b * d - 2 * a * e) / bend
    level = a * cx * cx + b * cx * cy + c * cy * cy + d * cx + e * cy + f
    values, ways = np.linalg.eigh(np.array([[a, b / 2], [b / 2, c]]))
    with np.errstate(all="ignore"):
        radii = np.sqrt(-level / values)
    if not np.isfinite(radii).all() or radii.max() > 50:
        return None
    big = int(np.argmax(radii))
    way = ways[:, big]
    turn = math.atan2(way[1], way[0]) % math.pi
    u = (x - cx) * way[0] + (y - cy) * way[1]
    v = -(x - cx) * way[1] + (y - cy) * way[0]
    long, short = float(radii[big]), float(radii[1 - big])
    share = np.hypot(u / long, v / short)
    off = (share - 1) * np.hypot(u, v) / np.maximum(share, 1e-9)
    return Oval(float(cx), float(cy), long, short, turn, float(np.sqrt((off**2).mean())))


def regular(count: int, way: int = 1, star: float = 0.0) -> Array:
    """A regular figure round 0 as complex numbers; star: its inner radius as a share, between two corners each."""
    import numpy as np

    total = 2 * count if star else count
    radii = np.where(np.arange(total) % 2, star, 1.0) if star else np.ones(total)
    result: Array = radii * np.exp(1j * way * 2 * math.pi * np.arange(total) / total)
    return result


def laid_on(model: Array, corners: Array) -> tuple[Array, float]:
    """A figure (complex numbers) turned, sized and shifted so that it lies nearest to corners, shape (n, 2), and how far off
    it is (root of the mean square)."""
    import numpy as np

    z = corners[:, 0] + 1j * corners[:, 1]
    middle = z.mean()
    own = model - model.mean()
    factor = (np.conj(own) @ (z - middle)) / (np.conj(own) @ own).real
    made = factor * own + middle
    off = float(np.sqrt((np.abs(made - z) ** 2).mean()))
    return np.column_stack([made.real, made.imag]), off
