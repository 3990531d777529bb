"""What is measured of an outline, for the forest that tells its kind: how well lines, polygons and ovals fit, and what their
angles and sides are like. All without unit."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Any, NamedTuple

from larch.core.maths.geometry import crossing_pieces
from larch.core.recognise.shapes.fits import Oval, circle_through, ellipse_through, laid_on, regular
from larch.core.recognise.shapes.path import Outline, Pieces, corners, following, preceding, rolled, straight_pieces, turns

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

RINGS = (3, 4, 5, 6, 8, 10)


class Fits(NamedTuple):
    """All that was laid through an outline. open, ring: straight pieces of it as it is, and as a closed line; ring_points:
    those that `ring` counts; rings: corners by their number; ends: corners of the open fits by the number of pieces."""

    outline: Outline
    open: list[Pieces]
    ring: list[Pieces]
    ring_points: Array
    rings: dict[int, Array]
    ends: dict[int, Array]
    circle: Oval
    oval: Oval | None


def fits_of(outline: Outline) -> Fits:
    points = outline.points
    ring_points = rolled(points)
    open_, ring = straight_pieces(points, 6), straight_pieces(ring_points)
    rings = {k: corners(ring_points, ring[k - 1], True) for k in RINGS if k <= len(ring)}
    ends = {k: corners(points, open_[k - 1], False) for k in (1, 2, 3, 4, 5) if k <= len(open_)}
    return Fits(outline, open_, ring, ring_points, rings, ends, circle_through(points), ellipse_through(points))


def features(fits: Fits) -> Array:
    import numpy as np

    outline = fits.outline
    points = outline.points
    length = float(np.hypot(*np.diff(points, axis=0).T).sum())
    turn = turns(points, False)[5:-5:5]
    found: list[float] = [
        outline.gap, outline.jumps, min(outline.strokes, 6), length,
        float(np.abs(turn).sum() / (2 * math.pi)), float(turn.sum() / (2 * math.pi)), float(crossings(points)),
    ]  # fmt: skip
    found += _errors([piece.error for piece in fits.open], 6) + _errors([piece.error for piece in fits.ring], 10)
    oval = fits.oval
    found += [fits.circle.error, min(fits.circle.a, 5.0), _sweep(points, fits.circle)]
    found += [oval.error, oval.b / oval.a, min(oval.a, 5.0), _sweep(points, oval)] if oval else [1.0, 0.0, 5.0, 0.0]
    found += _triangle(fits.rings.get(3)) + _quad(fits.rings.get(4))
    for count in (5, 6, 8):
        found += _regular(fits.rings.get(count), count)
    found += _star(fits.rings.get(10)) + _pentagram(fits.rings.get(5))
    found += _ends(fits) + _arrow(fits)
    return np.nan_to_num(np.array(found, dtype=np.float32), nan=9.0, posinf=9.0, neginf=-9.0)


def _errors(errors: list[float], count: int) -> list[float]:
    padded = [*errors[:count], *[errors[-1]] * (count - len(errors))]
    return [*padded, *(padded[k + 1] / (padded[k] + 1e-4) for k in range(count - 1))]


def crossings(points: Array) -> int:
    """How often a line of points crosses itself, at most 30."""
    return min(30, len(crossing_pieces(points[:: max(1, len(points) // 60)])))


def _sweep(points: Array, oval: Oval) -> float:
    """Over how much of an oval its points lie, turns."""
    import numpy as np

    angle = np.unwrap(np.arctan2(points[:, 1] - oval.y, points[:, 0] - oval.x))
    return float(abs(angle[-1] - angle[0]) / (2 * math.pi))


def sides_of(ring: Array) -> Array:
    """Lengths of the sides of a closed figure."""
    import numpy as np

    result: Array = np.hypot(*(following(ring) - ring).T)
    return result


def angles_of(ring: Array) -> Array:
    """Angles at its corners, degrees, 0 to 180."""
    import numpy as np

    one, two = preceding(ring) - ring, following(ring) - ring
    cross = one[:, 0] * two[:, 1] - one[:, 1] * two[:, 0]
    result: Array = np.degrees(np.abs(np.arctan2(cross, (one * two).sum(axis=1))))
    return result


def _triangle(ring: Array | None) -> list[float]:
    import numpy as np

    if ring is None:
        return [0.0] * 8
    sides, angles = np.sort(sides_of(ring)), np.sort(angles_of(ring))
    most = sides[2] + 1e-9
    return [*angles.tolist(), float(np.abs(angles - 90).min()), float((sides[1] - sides[0]) / most),
            float((sides[2] - sides[1]) / most), float((sides[2] - sides[0]) / most),
            float(min(angles[1] - angles[0], angles[2] - angles[1]))]  # fmt: skip


def _quad(ring: Array | None) -> list[float]:
    import numpy as np

    if ring is None:
        return [0.0] * 14
    sides, angles = sides_of(ring), angles_of(ring)
    mean = float(sides.mean()) + 1e-9
    ways = following(ring) - ring
    slopes = np.degrees(np.arctan2(ways[:, 1], ways[:, 0]))
    parallel = sorted(abs((slopes[k] - slopes[k + 2] + 180 + 90) % 180 - 90) for k in (0, 1))
    opposite = sorted(abs(float(sides[k] - sides[k + 2])) / mean for k in (0, 1))
    beside = [abs(float(sides[k] - sides[(k + 1) % 4])) / mean for k in range(4)]
    kite = min(max(beside[0], beside[2]), max(beside[1], beside[3]))
    diagonals = (ring[2] - ring[0], ring[3] - ring[1])
    sizes = [float(np.hypot(*d)) + 1e-9 for d in diagonals]
    square = abs(float(np.dot(*diagonals)) / (sizes[0] * sizes[1]))
    cross = ways[:, 0] * following(ways)[:, 1] - ways[:, 1] * following(ways)[:, 0]
    convex = float(abs(np.sign(cross).sum()) == 4)
    return [float(np.abs(angles - 90).mean()), float(np.abs(angles - 90).max()), *parallel, *opposite, kite,
            float(sides.std() / mean), float(sides.max() / (sides.min() + 1e-9)) if sides.min() > 0.02 else 20.0, square,
            abs(sizes[0] - sizes[1]) / max(sizes), convex, float(angles.min()), float(angles.max())]  # fmt: skip


def _regular(ring: Array | None, count: int) -> list[float]:

    if ring is None:
        return [1.0, 1.0, 90.0]
    sides, angles = sides_of(ring), angles_of(ring)
    off = min(laid_on(regular(count, way), ring)[1] for way in (1, -1))
    return [off, float(sides.std() / (sides.mean() + 1e-9)), float(angles.std())]


def _star(ring: Array | None) -> list[float]:
    """Radii in turn long and short."""
    import numpy as np

    if ring is None:
        return [0.0, 1.0]
    radii = np.hypot(*(ring - ring.mean(axis=0)).T)
    one, two = radii[::2], radii[1::2]
    long, short = (one, two) if one.mean() > two.mean() else (two, one)
    return [float(short.mean() / (long.mean() + 1e-9)), float(min(long.min() - short.max(), 1.0))]


def _pentagram(ring: Array | None) -> list[float]:
    """Five corners joined over one another: round twice."""
    import numpy as np

    if ring is None:
        return [0.0, 180.0]
    ways = following(ring) - ring
    after = following(ways)
    turned = np.arctan2(ways[:, 0] * after[:, 1] - ways[:, 1] * after[:, 0], (ways * after).sum(axis=1))
    return [float(abs(turned.sum()) / (2 * math.pi)), float(np.abs(angles_of(ring) - 36).max())]


def _ends(fits: Fits) -> list[float]:
    """Of the open fits: how its pieces compare, and the angle of two."""
    import numpy as np

    found: list[float] = []
    two = fits.ends.get(2)
    if two is None or len(two) < 3:
        found += [180.0, 1.0]
    else:
        one, other = two[0] - two[1], two[2] - two[1]
        cross = one[0] * other[1] - one[1] * other[0]
        found.append(float(np.degrees(abs(math.atan2(cross, np.dot(one, other))))))
        a, b = np.hypot(*one), np.hypot(*other)
        found.append(float(min(a, b) / (max(a, b) + 1e-9)))
    for count in (3, 4, 5):
        ring = fits.ends.get(count)
        if ring is None or len(ring) < count + 1:
            found += [0.0, 0.0, 0.0]
            continue
        lengths = np.hypot(*np.diff(ring, axis=0).T)
        found += (np.sort(lengths / (lengths.max() + 1e-9))[:3]).tolist()
    return found


def _arrow(fits: Fits) -> list[float]:
    _shaft, *found = arrow(fits)
    return found


def arrow(fits: Fits) -> tuple[tuple[Array, Array] | None, float, float, float]:
    """The shaft, tail and tip, whose head lies nearest to its tip; how far the head reaches back, how far it stands off to
    both sides, and what share of the ink it is."""
    import numpy as np

    best: tuple[tuple[Array, Array] | None, float, float, float] = (None, 9.0, 0.0, 0.0)
    points = fits.outline.points
    for tail, tip in shafts(fits):
        way = tip - tail
        length = float(np.hypot(*way)) + 1e-9
        along, across = (points - tail) @ way / length**2, (points - tail) @ np.array([-way[1], way[0]]) / length**2
        off = np.abs(across) > 0.035
        if not off.any() or off.mean() > 0.6:
            continue
        spread = float((1 - along[off]).max())
        both = float(min(max(across.max(), 0.0), max(-across.min(), 0.0)))
        if spread < best[1]:
            best = ((tail, tip), spread, both, float(off.mean()))
    return best


def shafts(fits: Fits) -> list[tuple[Array, Array]]:
    """The longest piece of the fits by 3 and 4 pieces, as tail and tip, both ways round."""
    import numpy as np

    found = []
    for count in (3, 4, 5):
        ring = fits.ends.get(count)
        if ring is None or len(ring) < 2:
            continue
        lengths = np.hypot(*np.diff(ring, axis=0).T)
        k = int(lengths.argmax())
        found += [(ring[k], ring[k + 1]), (ring[k + 1], ring[k])]
    return found
