"""The exact figure that lies nearest to what was drawn, once its kind is known."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Any

from larch.core.recognise.shapes.features import Fits, angles_of, arrow, sides_of
from larch.core.recognise.shapes.fits import laid_on, regular
from larch.core.recognise.shapes.path import line_through

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

TRIANGLES = ("triangle_scalene", "triangle_isosceles", "triangle_right", "triangle_equilateral")
QUADS = ("square", "rectangle", "rhombus", "parallelogram", "trapezium", "kite")
COUNTS = {"pentagon": 5, "hexagon": 6, "octagon": 8} | dict.fromkeys(TRIANGLES, 3) | dict.fromkeys(QUADS, 4)
REGULAR = 0.05  # of the size: as near as this to a regular figure, it is one


def vertices(kind: str, fits: Fits) -> Array | None:
    """The places that make it, in the frame of the outline, in the order in which it was drawn; None where it has none."""
    if kind in COUNTS:
        ring = fits.rings.get(COUNTS[kind])
        return None if ring is None else _from_start(_exact(kind, ring), fits)
    match kind:
        case "line":
            return fits.ends[1]
        case "arrow":
            return _arrow(fits)
        case "arc":
            return _arc(fits)
        case "angle":
            return fits.ends.get(2)
        case "star":
            return _star(fits)
    return None


def _from_start(ring: Array, fits: Fits) -> Array:
    """Begun at the corner nearest to where the pen came down."""
    import numpy as np

    start = int(np.hypot(*(ring - fits.outline.points[0]).T).argmin())
    return np.roll(ring, -start, axis=0)


def _exact(kind: str, ring: Array) -> Array:
    import numpy as np

    z = ring[:, 0] + 1j * ring[:, 1]
    match kind:
        case "triangle_equilateral" | "square":
            return _laid(ring)
        case "pentagon" | "hexagon" | "octagon":
            made = _laid(ring)
            return made if np.sqrt(((made - ring) ** 2).sum(axis=1).mean()) < REGULAR else ring
        case "triangle_isosceles":
            return _isosceles(ring)
        case "triangle_right":
            return _right(ring)
        case "rectangle" | "rhombus":
            return _crossed(z, kind == "rhombus")
        case "parallelogram":
            half, other, middle = (z[2] - z[0]) / 2, (z[3] - z[1]) / 2, z.mean()
            return _plane(np.array([middle - half, middle - other, middle + half, middle + other]))
        case "kite":
            return _kite(z)
        case "trapezium":
            return _trapezium(z)
    return ring


def _plane(z: Array) -> Array:
    import numpy as np

    return np.column_stack([z.real, z.imag])


def _laid(ring: Array) -> Array:
    tries = [laid_on(regular(len(ring), way), ring) for way in (1, -1)]
    return min(tries, key=lambda one: one[1])[0]


def _isosceles(ring: Array) -> Array:
    import numpy as np

    sides = sides_of(ring)  # from corner k to the next
    apex = min(range(3), key=lambda k: abs(sides[k] - sides[k - 1]))
    z = ring[:, 0] + 1j * ring[:, 1]
    top, left, right = z[apex], z[(apex + 1) % 3], z[(apex + 2) % 3]
    middle = (left + right) / 2
    base, height = right - left, top - middle
    sign = 1j if (height / base).imag > 0 else -1j
    way = base / abs(base) * abs(base) + height / sign / abs(height) * abs(height)
    way /= abs(way)
    made = np.empty(3, dtype=complex)
    made[apex] = middle + (height / (way * sign)).real * way * sign
    made[(apex + 1) % 3], made[(apex + 2) % 3] = middle - way * abs(base) / 2, middle + way * abs(base) / 2
    return _plane(made)


def _right(ring: Array) -> Array:
    import numpy as np

    corner = int(np.abs(angles_of(ring) - 90).argmin())
    z = ring[:, 0] + 1j * ring[:, 1]
    at, one, other = z[corner], z[(corner + 1) % 3], z[(corner + 2) % 3]
    a, b = one - at, other - at
    sign = 1j if (b / a).imag > 0 else -1j
    way = a / abs(a) * abs(a) + b / sign / abs(b) * abs(b)
    way /= abs(way)
    made = z.copy()
    made[(corner + 1) % 3], made[(corner + 2) % 3] = at + way * abs(a), at + way * sign * abs(b)
    made += (z - made).mean()
    return _plane(made)


def _crossed(z: Array, diagonals: bool) -> Array:
    """A rectangle by its sides, a rhombus by its diagonals, which are at right angles."""
    import numpy as np

    a, b = ((z[2] - z[0]), (z[3] - z[1])) if diagonals else ((z[1] - z[0] + z[2] - z[3]), (z[2] - z[1] + z[3] - z[0]))
    sign = 1j if (b / a).imag > 0 else -1j
    way = a + b / sign
    way /= abs(way)
    one, other = way * abs(a) / (2 if diagonals else 4), way * sign * abs(b) / (2 if diagonals else 4)
    middle = z.mean()
    if diagonals:
        return _plane(np.array([middle - one, middle - other, middle + one, middle + other]))
    return _plane(np.array([middle - one - other, middle + one - other, middle + one + other, middle - one + other]))


def _kite(z: Array) -> Array:
    """Symmetrical to the diagonal to which it nearly is."""
    sides = abs(_next(z) - z)
    start = (
        0 if abs(sides[0] - sides[3]) + abs(sides[1] - sides[2]) < abs(sides[0] - sides[1]) + abs(sides[2] - sides[3]) else 1
    )
    made = z.copy()
    a, b, c, d = (int((start + k) % 4) for k in range(4))  # the axis goes from a to c
    axis, across = z[c] - z[a], z[d] - z[b]
    sign = 1j if (across / axis).imag > 0 else -1j
    way = axis + across / sign
    way /= abs(way)
    middle = (z[b] + z[d]) / 2
    shift = middle + (((z[a] + z[c]) / 2 - middle) / way).real * way
    half = abs(axis) / 2
    made[a], made[c] = shift - way * half, shift + way * half
    made[b], made[d] = middle - way * sign * abs(across) / 2, middle + way * sign * abs(across) / 2
    return _plane(made)


def _next(z: Array) -> Array:
    import numpy as np

    return np.roll(z, -1)


def _trapezium(z: Array) -> Array:
    """With the two sides that nearly are so parallel."""
    ways = _next(z) - z
    off = [
        abs((math.degrees(math.atan2((ways[k + 2] / ways[k]).imag, (ways[k + 2] / ways[k]).real)) + 270) % 180 - 90)
        for k in (0, 1)
    ]
    k = 0 if off[0] < off[1] else 1
    a, b, c, d = k, k + 1, (k + 2) % 4, (k + 3) % 4
    one, other = z[b] - z[a], z[c] - z[d]
    way = one + other
    way /= abs(way)
    made = z.copy()
    for first, second, side in ((a, b, one), (d, c, other)):
        middle = (z[first] + z[second]) / 2
        made[first], made[second] = middle - way * abs(side) / 2, middle + way * abs(side) / 2
    return _plane(made)


def _arrow(fits: Fits) -> Array:
    import numpy as np

    shaft = arrow(fits)[0]
    if shaft is None:
        return fits.ends[1]
    tail, tip = shaft
    points = fits.outline.points
    way = (tip - tail) / (np.hypot(*(tip - tail)) + 1e-9)
    off = np.abs((points - tail) @ np.array([-way[1], way[0]]))
    on = points[off < 0.05]
    if len(on) > 5:
        middle, line = line_through(on)
        line = line if np.dot(line, way) > 0 else -line
        along = (on - middle) @ line
        return np.array([middle + along.min() * line, middle + along.max() * line])
    return np.array([tail, tip])


def _arc(fits: Fits) -> Array:
    import numpy as np

    circle, points = fits.circle, fits.outline.points
    angle = np.unwrap(np.arctan2(points[:, 1] - circle.y, points[:, 0] - circle.x))
    chosen = np.array([angle[0], (angle[0] + angle[-1]) / 2, angle[-1]])
    return np.column_stack([circle.x + circle.a * np.cos(chosen), circle.y + circle.a * np.sin(chosen)])


def _star(fits: Fits) -> Array | None:
    """Its five tips, in the order in which they lie round it."""
    import numpy as np

    five, ten = fits.rings.get(5), fits.rings.get(10)
    crossed = five is not None and np.abs(angles_of(five) - 36).max() < 25
    if crossed:
        tips = five
    elif ten is not None:
        radii = np.hypot(*(ten - ten.mean(axis=0)).T)
        tips = ten[::2] if radii[::2].mean() > radii[1::2].mean() else ten[1::2]
    else:
        return None
    assert tips is not None
    middle = tips.mean(axis=0)
    order = np.argsort(np.arctan2(tips[:, 1] - middle[1], tips[:, 0] - middle[0]))
    tips = tips[order]
    made = _laid(tips)
    return made if np.sqrt(((made - tips) ** 2).sum(axis=1).mean()) < 1.5 * REGULAR else tips
