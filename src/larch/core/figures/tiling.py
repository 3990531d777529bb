"""Which shapes tile the plane, by which moves; and why one does not.

Three- and four-sided shapes always do, by half turns about the middles of their sides. A regular polygon does if its
angle divides a full turn. Any other shape is tried for a boundary that can be split as translations or half turns need
it: two or three pairs of translated pieces (Beauquier and Nivat 1991), or Conway's criterion (Schattschneider 1980);
then for quarter, third and sixth turns and glide reflections (`larch.core.maths.heesch`).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache

from larch.core.base.shape import Box, Point, box_of
from larch.core.base.words import _
from larch.core.figures.sort_names import sort_name
from larch.core.maths import geometry
from larch.core.maths.classify import classify, polygon_name
from larch.core.maths.heesch import Tiling as Tiling
from larch.core.maths.heesch import unit_of
from larch.core.maths.plane.moves import Move, point_reflection, translation
from larch.core.model.fact import number_text

MOST_CORNERS = 24
FINEST = 40  # sides, when they are divided into equal ones
SAME = 1e-7
MOST_TILES = 1500

Ring = Sequence[Point]


class Cannot(ValueError):
    """The shape does not tile, or not as far as is known here; the message says why in one sentence."""


def tiling_of(ring: Ring) -> Tiling:
    """How a shape tiles the plane. Raises Cannot with the reason."""
    found = _tiling_of(tuple(ring))
    if isinstance(found, str):
        raise Cannot(found)
    return found


@lru_cache(64)
def _tiling_of(ring: tuple[Point, ...]) -> Tiling | str:
    """Kept, with the reason where there is none: facts ask again whenever they are shown."""
    try:
        return _sought(ring)
    except Cannot as reason:
        return str(reason)


def _sought(corners: tuple[Point, ...]) -> Tiling:
    sort = classify(corners)
    if sort.why:
        raise Cannot(_("It is no shape: {why}").format(why=_(sort.why)))
    if len(corners) in (3, 4):
        return _half_turned(corners)
    if sort.kind.startswith("regular") and len(corners) != 6:
        angle = 180 * (len(corners) - 2) / len(corners)
        words = _("The angle of a regular {shape} is {angle}°, and no whole number of those makes 360°.")
        raise Cannot(words.format(shape=sort_name(polygon_name(len(corners))), angle=number_text(angle, 1)))
    if len(corners) > MOST_CORNERS:
        raise Cannot(_("It has too many corners to be tried here."))
    found = _translated(corners) or _conway(corners) or _by_heesch(corners)
    if found is None:
        finer = _subdivided(corners)
        found = (_translated(finer) or _conway(finer) or _by_heesch(finer)) if finer else None
    if found is None:
        raise Cannot(_("Its outline can't be split into pieces that fit each other by translations, turns or reflections."))
    return found


def _by_heesch(ring: tuple[Point, ...]) -> Tiling | None:
    unit = unit_of(ring)
    return unit._replace(how=_(unit.how)) if unit is not None else None


def _subdivided(ring: tuple[Point, ...]) -> tuple[Point, ...]:
    """With corners of 180° put in, so that all sides are equally long: pieces that fit may begin within a side. Empty if
    the lengths have no common measure that is coarse enough."""
    lengths = geometry.sides(ring)
    unit = min(lengths)
    for parts in (1, 2, 3):
        measure = unit / parts
        counts = [length / measure for length in lengths]
        if all(abs(n - round(n)) < 1e-6 for n in counts) and sum(map(round, counts)) <= FINEST:
            return tuple(
                (a[0] + (b[0] - a[0]) * k / round(n), a[1] + (b[1] - a[1]) * k / round(n))
                for (a, b), n in zip(geometry.pairs(ring), counts, strict=True)
                for k in range(round(n))
            )
    return ()


def _half_turned(ring: tuple[Point, ...]) -> Tiling:
    """A shape and its half turn about the middle of a side make a unit that repeats by two translations."""
    if len(ring) == 3:
        a, b, c = ring
        turn = point_reflection(((b[0] + c[0]) / 2, (b[1] + c[1]) / 2))
        return Tiling((Move(), turn), _way(a, b), _way(a, c), _("half turns about the middles of its sides"))
    a, b, c, d = ring
    turn = point_reflection(((a[0] + b[0]) / 2, (a[1] + b[1]) / 2))
    how = _("half turns about the middles of its sides")
    if _near(_way(a, b), _way(d, c), ring):
        return Tiling((Move(),), _way(a, b), _way(a, d), _("translations along its sides"))
    return Tiling((Move(), turn), _way(a, c), _way(b, d), how)


def _way(a: Point, b: Point) -> Point:
    return (b[0] - a[0], b[1] - a[1])


def _near(p: Point, q: Point, ring: Ring) -> bool:
    return math.dist(p, q) <= SAME * _size(ring)


def _size(ring: Ring) -> float:
    return max(math.dist(ring[0], point) for point in ring)


def _steps(ring: Ring) -> list[Point]:
    """The sides as ways."""
    return [_way(a, b) for a, b in geometry.pairs(ring)]


def _opposite(ring: Ring, steps: list[Point], i: int, j: int, length: int) -> bool:
    """Whether the piece of `length` sides from i comes back as that from j, run through the other way round."""
    count = len(steps)
    size = SAME * _size(ring)
    for k in range(length):
        ux, uy = steps[(i + k) % count]
        vx, vy = steps[(j + length - 1 - k) % count]
        if math.hypot(ux + vx, uy + vy) > size:
            return False
    return True


def _translated(ring: tuple[Point, ...]) -> Tiling | None:
    """The boundary as A B C A' B' C', each piece coming back shifted; C may be empty."""
    steps, count = _steps(ring), len(ring)
    if count % 2:
        return None
    half = count // 2
    for start in range(half):
        for first in range(1, half):
            for second in range(1, half - first + 1):
                third = half - first - second
                marks = (start, start + first, start + first + second, start + half)
                lengths = (first, second, third)
                if all(_opposite(ring, steps, marks[k], marks[k] + half, n) for k, n in enumerate(lengths) if n):
                    # A piece comes back shifted by the way from its end to where its partner begins.
                    u = _way(ring[marks[0] % count], ring[(marks[0] + half + first) % count])
                    v = _way(ring[marks[1] % count], ring[(marks[1] + half + second) % count])
                    if abs(u[0] * v[1] - u[1] * v[0]) > 1e-6 * geometry.area(ring):
                        return Tiling((Move(),), u, v, _("translations: opposite sides fit"))
    return None


def _central(ring: Ring, steps: list[Point], i: int, length: int) -> bool:
    """Whether a piece fits itself after a half turn about its middle."""
    count = len(steps)
    size = SAME * _size(ring)
    return all(math.dist(steps[(i + k) % count], steps[(i + length - 1 - k) % count]) <= size for k in range(length))


def _conway(ring: tuple[Point, ...]) -> Tiling | None:
    """Conway's criterion: the boundary as A B C A' D E, where A' is A shifted and B, C, D, E each fit themselves after a
    half turn; some may be empty. The shape and one half turn of it make the unit."""
    steps, count = _steps(ring), len(ring)
    for start in range(count):
        for a in range(1, count - 1):
            for gap in range(1, count - 2 * a + 1):
                back = start + a + gap
                rest = count - 2 * a - gap
                if rest < 0 or not _opposite(ring, steps, start, back, a):
                    continue
                middle = _two_central(ring, steps, start + a, gap)
                end = _two_central(ring, steps, back + a, rest)
                if middle is None or end is None:
                    continue
                found = _conway_unit(ring, start, a, gap, back, middle, end, rest)
                if found is not None:
                    return found
    return None


def _two_central(ring: Ring, steps: list[Point], i: int, length: int) -> int | None:
    """Where a stretch of the boundary parts into two pieces that each fit themselves; the length of the first."""
    for first in range(length + 1):
        if _central(ring, steps, i, first) and _central(ring, steps, i + first, length - first):
            return first
    return None


def _conway_unit(
    ring: tuple[Point, ...], start: int, a: int, gap: int, back: int, middle: int, end: int, rest: int
) -> Tiling | None:
    """The half turns about the middles of the pieces, and the translation, generate the group of the tiling."""
    count = len(ring)

    def centre(i: int, length: int) -> Point:
        p, q = ring[i % count], ring[(i + length) % count]
        return ((p[0] + q[0]) / 2, (p[1] + q[1]) / 2)

    pieces = [(start + a, middle), (start + a + middle, gap - middle), (back + a, end), (back + a + end, rest - end)]
    centres = [centre(i, length) for i, length in pieces if length]
    shift = _way(ring[start % count], ring[(back + a) % count])
    ways = [shift] + [(2 * (c[0] - centres[0][0]), 2 * (c[1] - centres[0][1])) for c in centres[1:]]
    basis = _basis(ways, geometry.area(ring) * (2 if centres else 1), _size(ring))
    if basis is None:
        return None
    tiles = (Move(), point_reflection(centres[0])) if centres else (Move(),)
    return Tiling(tiles, *basis, _("translations and half turns"))


def _basis(ways: Sequence[Point], area: float, size: float) -> tuple[Point, Point] | None:
    """Two of some ways, or sums of them, whose parallelogram has the area of the unit."""
    extended = [
        *ways,
        *((p[0] + q[0], p[1] + q[1]) for p in ways for q in ways),
        *((p[0] - q[0], p[1] - q[1]) for p in ways for q in ways),
    ]
    useful = [w for w in extended if math.hypot(*w) > SAME * size]
    for i, p in enumerate(useful):
        for q in useful[i + 1 :]:
            if abs(abs(p[0] * q[1] - p[1] * q[0]) - area) <= 1e-6 * area:
                return p, q
    return None


def placements(ring: Ring, tiling: Tiling, room: Box) -> list[tuple[Move, int]]:
    """The moves whose tiles meet a box, nearest to its middle first; at most MOST_TILES. With each a number that tells
    it from its neighbours: of the tile in its unit, or odd and even units by turns."""
    own = box_of(ring)
    (ux, uy), (vx, vy) = tiling.u, tiling.v
    cross = ux * vy - uy * vx
    if cross == 0:
        return []
    spread = room.grown(max(own.width, own.height) * 2 + abs(ux) + abs(uy) + abs(vx) + abs(vy))
    corners = [(x - own.centre[0], y - own.centre[1]) for x, y in spread.corners()]
    is_ = [(x * vy - y * vx) / cross for x, y in corners]
    js = [(ux * y - uy * x) / cross for x, y in corners]
    if (max(is_) - min(is_)) * (max(js) - min(js)) > 40 * MOST_TILES:
        raise Cannot(_("The tile is too small for that much room."))
    found: list[tuple[float, Move, int]] = []
    for i in range(math.floor(min(is_)), math.ceil(max(is_)) + 1):
        for j in range(math.floor(min(js)), math.ceil(max(js)) + 1):
            shift = translation((i * ux + j * vx, i * uy + j * vy))
            for number, tile in enumerate(tiling.tiles):
                colour = number if len(tiling.tiles) > 1 else (i + j) % 2
                move = tile.then(shift)
                moved = [move.point(p) for p in ring]
                box = box_of(moved)
                if box.meets(room):
                    found.append((math.dist(box.centre, room.centre), move, colour))
    found.sort(key=lambda pair: (round(pair[0], 6), pair[1].b.real, pair[1].b.imag))
    return [(move, colour) for _away, move, colour in found[:MOST_TILES]]
