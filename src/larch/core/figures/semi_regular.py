"""Tilings by regular polygons that are the same round every corner (Kepler 1619; Grünbaum and Shephard 1987).

One cell of each is grown outwards from a corner, then repeated by two translations.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache
from typing import NamedTuple

from larch.core.base.shape import Box, Point, box_of
from larch.core.base.words import _
from larch.core.figures.tiling import MOST_TILES, Cannot

SEMI_REGULAR: dict[str, tuple[int, ...]] = {  # the regular ones among them
    "3.3.3.3.3.3": (3,) * 6,
    "4.4.4.4": (4,) * 4,
    "6.6.6": (6,) * 3,
    "3.3.3.4.4": (3, 3, 3, 4, 4), "3.3.4.3.4": (3, 3, 4, 3, 4), "3.4.6.4": (3, 4, 6, 4), "3.6.3.6": (3, 6, 3, 6),
    "3.3.3.3.6": (3, 3, 3, 3, 6), "4.8.8": (4, 8, 8), "3.12.12": (3, 12, 12), "4.6.12": (4, 6, 12),
}  # fmt: skip


def regular_ring(count: int, a: Point, b: Point) -> tuple[Point, ...]:
    """The regular polygon whose first side runs from a to b, to its left where y points up."""
    step = complex(*b) - complex(*a)
    turn = complex(math.cos(2 * math.pi / count), math.sin(2 * math.pi / count))
    corners, at = [], complex(*a)
    for _k in range(count):
        corners.append((at.real, at.imag))
        at += step
        step *= turn
    return tuple(corners)


class Cell(NamedTuple):
    """The polygons of one cell of a tiling, with sides of length 1, and the translations by which it is repeated."""

    rings: tuple[tuple[Point, ...], ...]
    u: Point
    v: Point


@lru_cache(16)
def cell(name: str) -> Cell:
    """One cell of a tiling by regular polygons that is the same round every corner."""
    if name == "3.3.4.3.4":
        return _snub_square()
    if name == "3.12.12":
        return _truncated_hexagons()
    grower = _Grower(SEMI_REGULAR[name], 1.0, Box(-3.2, -3.2, 3.2, 3.2) if "12" not in name else Box(-5, -5, 5, 5))
    rings = grower.grown()
    u, v = grower.lattice()
    return Cell(_one_cell(rings, u, v), u, v)


def _snub_square() -> Cell:
    """Two squares, leaning 15° to either side, and four triangles round one of them."""

    def e(angle: float, length: float = 1.0) -> Point:
        return (length * math.cos(math.radians(angle)), length * math.sin(math.radians(angle)))

    first, second = regular_ring(4, (0.0, 0.0), e(15)), regular_ring(4, (0.0, 0.0), e(165))
    middle = e(60, math.sqrt(0.5))
    way = complex(*e(210, math.sqrt(0.5))) - complex(*middle)
    u, v = way * (1 + 1j), way * (1 - 1j)
    triangle = regular_ring(3, (0.0, 0.0), e(105))
    turned = [tuple(_turned(p, middle, 90.0 * k) for p in triangle) for k in range(4)]
    return Cell((first, second, *turned), (u.real, u.imag), (v.real, v.imag))


def _close(one: list[tuple[int, int]], other: list[tuple[int, int]]) -> bool:
    """Whether two lists of directions (tenths of a degree) and kinds are the same to rounding."""
    return all(any(n == m and abs((a - b + 1800) % 3600 - 1800) <= 2 for b, m in other) for a, n in one)


def _truncated_hexagons() -> Cell:
    """A twelve-sided polygon, which meets others of its kind at every second side, and two triangles at sides between."""
    ring = regular_ring(12, (0.0, 0.0), (1.0, 0.0))
    triangles = [regular_ring(3, ring[k + 1], ring[k]) for k in (1, 3)]
    apart = 2 + math.sqrt(3)
    u, v = ((apart * math.cos(math.radians(a)), apart * math.sin(math.radians(a))) for a in (-90, -30))
    return Cell((ring, *triangles), u, v)


def _turned(p: Point, about: Point, degrees: float) -> Point:
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    x, y = p[0] - about[0], p[1] - about[1]
    return (about[0] + c * x - s * y, about[1] + s * x + c * y)


def _one_cell(rings: Sequence[tuple[Point, ...]], u: Point, v: Point) -> tuple[tuple[Point, ...], ...]:
    """Of each polygon and all that are it shifted by the translations, the one nearest the middle."""
    cross = u[0] * v[1] - u[1] * v[0]
    found: list[tuple[float, float, tuple[Point, ...]]] = []
    for ring in sorted(rings, key=lambda ring: math.hypot(*box_of(ring).centre)):
        x, y = (math.fsum(p[k] for p in ring) / len(ring) for k in (0, 1))
        i, j = (x * v[1] - y * v[0]) / cross, (u[0] * y - u[1] * x) / cross
        if not any(len(r) == len(ring) and _whole(i - a) and _whole(j - b) for a, b, r in found):
            found.append((i, j, ring))
    return tuple(ring for _i, _j, ring in found)


def _whole(number: float) -> bool:
    return abs(number - round(number)) < 1e-3


def semi_regular(name: str, side: float, room: Box) -> list[tuple[Point, ...]]:
    """The polygons of a tiling by regular polygons that meet a box. Raises Cannot if they are too many."""
    made = cell(name)
    (ux, uy), (vx, vy) = ((side * w[0], side * w[1]) for w in (made.u, made.v))
    cross = ux * vy - uy * vx
    ways = [(x - room.centre[0], y - room.centre[1]) for x, y in room.grown(6 * side).corners()]
    is_ = [(x * vy - y * vx) / cross for x, y in ways]
    js = [(ux * y - uy * x) / cross for x, y in ways]
    if (max(is_) - min(is_)) * (max(js) - min(js)) * len(made.rings) > 4 * MOST_TILES:
        raise Cannot(_("The tile is too small for that much room."))
    ox, oy = room.centre
    found = []
    for i in range(math.floor(min(is_)), math.ceil(max(is_)) + 1):
        for j in range(math.floor(min(js)), math.ceil(max(js)) + 1):
            dx, dy = ox + i * ux + j * vx, oy + i * uy + j * vy
            for ring in made.rings:
                moved = tuple((side * x + dx, side * y + dy) for x, y in ring)
                if box_of(moved).meets(room):
                    found.append(moved)
    return found


class _Grower:
    """Surrounds corner after corner. Corners are told apart on a fine grid."""

    def __init__(self, around: tuple[int, ...], side: float, room: Box) -> None:
        self.around, self.side, self.room = around, side, room
        self.rings: dict[tuple[int, int, int], tuple[Point, ...]] = {}
        self.at_corner: dict[tuple[int, int], list[tuple[float, int]]] = {}  # direction in which each begins, and its kind

    def _key(self, p: Point) -> tuple[int, int]:
        return (round(p[0] / self.side * 1000), round(p[1] / self.side * 1000))

    def grown(self) -> list[tuple[Point, ...]]:
        start = self.room.centre
        angle = 0.0
        for count in self.around:
            self._add(start, angle, count)
            angle += 180 - 360 / count
        waiting = [start]
        seen = {self._key(start)}
        while waiting and len(self.rings) < MOST_TILES:
            corner = waiting.pop(0)
            if not self._surround(corner):
                continue
            for ring in self._rings_at(corner):
                for p in ring:
                    if self._key(p) not in seen and self.room.holds(*p):
                        seen.add(self._key(p))
                        waiting.append(p)
        return list(self.rings.values())

    def lattice(self) -> tuple[Point, Point]:
        """The two shortest translations between corners that are surrounded alike, in the same directions."""
        whole = [(key, sorted((round(a * 10) % 3600, n) for a, n in there)) for key, there in self.at_corner.items()
                 if len(there) == len(self.around)]  # fmt: skip
        middle = self._key(self.room.centre)
        like = next(surrounded for key, surrounded in whole if key == middle)
        same = [key for key, surrounded in whole if key != middle and _close(surrounded, like)]
        ways = sorted(((x - middle[0]) / 1000, (y - middle[1]) / 1000) for x, y in same)
        ways.sort(key=lambda w: math.hypot(*w))
        first = ways[0]
        second = next(w for w in ways if abs(first[0] * w[1] - first[1] * w[0]) > 0.1)
        return self._exact(first), self._exact(second)

    def _exact(self, way: Point) -> Point:
        """The translation from its rounded ends back to the corners that have them."""
        middle = self.room.centre
        corners = (p for ring in self.rings.values() for p in ring)
        to = min(corners, key=lambda p: math.dist(p, (middle[0] + way[0], middle[1] + way[1])))
        return (to[0] - middle[0], to[1] - middle[1])

    def _rings_at(self, corner: Point) -> list[tuple[Point, ...]]:
        key = self._key(corner)
        return [ring for ring in self.rings.values() if any(self._key(p) == key for p in ring)]

    def _add(self, corner: Point, angle: float, count: int) -> None:
        """A polygon with a corner there, whose first side leaves it in a direction (y upwards)."""
        turn = math.radians(angle)
        b = (corner[0] + self.side * math.cos(turn), corner[1] + self.side * math.sin(turn))
        ring = regular_ring(count, corner, b)
        middle = self._key((sum(x for x, _y in ring) / count, sum(y for _x, y in ring) / count))
        if (*middle, count) in self.rings:
            return
        self.rings[(*middle, count)] = ring
        for k, p in enumerate(ring):
            q = ring[(k + 1) % count]
            way = math.degrees(math.atan2(q[1] - p[1], q[0] - p[0])) % 360
            self.at_corner.setdefault(self._key(p), []).append((way, count))

    def _surround(self, corner: Point) -> bool:
        """Fills what is missing round a corner, in the one way that fits; False if more than one does so far."""
        there = self.at_corner.get(self._key(corner), [])
        choices = []
        for order in (self.around, self.around[::-1]):
            count = len(order)
            for shift in range(count):
                turned = [order[(shift + k) % count] for k in range(count)]
                for way, kind in there[:1]:
                    if kind != turned[0]:
                        continue
                    angles, at = [], way
                    for n in turned:
                        angles.append((at % 360, n))
                        at += 180 - 360 / n
                    if all(any(n == m and abs((a - b + 180) % 360 - 180) < 0.01 for b, m in angles) for a, n in there):
                        choices.append(angles)
        distinct = {tuple(sorted((round(a, 2) % 360, n) for a, n in angles)): angles for angles in choices}
        fitting = [angles for angles in distinct.values() if self._clear(corner, angles)]
        if not fitting:
            return False
        for angle, n in fitting[0]:
            self._add(corner, angle, n)
        return True

    def _clear(self, corner: Point, angles: list[tuple[float, int]]) -> bool:
        """Whether the new polygons agree with those at their other corners: no angle there beyond a full turn, and no
        kinds that the pattern does not have."""
        for angle, n in angles:
            turn = math.radians(angle)
            b = (corner[0] + self.side * math.cos(turn), corner[1] + self.side * math.sin(turn))
            ring = regular_ring(n, corner, b)
            middle = self._key((sum(x for x, _y in ring) / n, sum(y for _x, y in ring) / n))
            if (*middle, n) in self.rings:
                continue
            for k, p in enumerate(ring):
                others = self.at_corner.get(self._key(p), [])
                kinds = sorted([m for _a, m in others] + [n])
                if any(kinds.count(kind) > self.around.count(kind) for kind in kinds):
                    return False
                q = ring[(k + 1) % n]
                way = math.degrees(math.atan2(q[1] - p[1], q[0] - p[0])) % 360
                if not self._fits_round([*others, (way, n)]):
                    return False
        return True

    def _fits_round(self, there: list[tuple[float, int]]) -> bool:
        """Whether polygons round a corner can be part of the pattern, in one of its orders."""
        for order in (self.around, self.around[::-1]):
            count = len(order)
            for shift in range(count):
                if order[shift] != there[0][1]:
                    continue
                at, angles = there[0][0], []
                for k in range(count):
                    n = order[(shift + k) % count]
                    angles.append((at % 360, n))
                    at += 180 - 360 / n
                if all(any(n == m and abs((a - b + 180) % 360 - 180) < 0.01 for b, m in angles) for a, n in there):
                    return True
        return False
