"""What marks a polygon deserves: which sides are equal, which run alongside each other, where it folds onto itself."""

from __future__ import annotations

import math

from larch.core.base.memo import remember
from larch.core.base.shape import Point
from larch.core.maths import geometry
from larch.core.things.geometry.cornered import Cornered

SAME = 1e-9
MOST = 40
BEYOND = 0.03  # of its size, by which a fold line reaches beyond the shape


@remember
def equal_sides(polygon: Cornered) -> list[list[int]]:
    """Numbers of sides that are as long as another, by groups."""
    lengths = geometry.sides(polygon.vertices) if len(polygon.vertices) <= MOST else []
    groups: list[list[int]] = []
    for i, length in enumerate(lengths):
        for group in groups:
            if math.isclose(lengths[group[0]], length, rel_tol=SAME):
                group.append(i)
                break
        else:
            groups.append([i])
    return [group for group in groups if len(group) > 1]


@remember
def alongside(polygon: Cornered) -> list[list[int]]:
    """Numbers of sides that are parallel to another, by groups; none if that holds of nearly every side."""
    corners = polygon.vertices
    if not 4 <= len(corners) <= 8:
        return []
    ways = [(b[0] - a[0], b[1] - a[1]) for a, b in geometry.pairs(corners)]
    groups: list[list[int]] = []
    for i, (x, y) in enumerate(ways):
        for group in groups:
            u, v = ways[group[0]]
            if abs(u * y - v * x) <= SAME * math.hypot(u, v) * math.hypot(x, y):
                group.append(i)
                break
        else:
            groups.append([i])
    return [group for group in groups if len(group) > 1]


@remember
def fold_axes(polygon: Cornered) -> list[tuple[Point, Point]]:
    """The mirror axes, from edge to edge and a little beyond; own coordinates.

    Corner i is laid on corner k - i: the axis halves the way between them.
    """
    corners = polygon.vertices
    count = len(corners)
    if count > MOST:
        return []
    size = max(math.dist(a, corners[0]) for a in corners)
    centre = (sum(x for x, _y in corners) / count, sum(y for _x, y in corners) / count)
    found = []
    for k in range(count):
        partners = [(corners[i], corners[(k - i) % count]) for i in range(count)]
        way = _axis_way(partners, centre, size)
        if way is None or not all(_mirrored(a, b, centre, way, size) for a, b in partners):
            continue
        along = [(x - centre[0]) * way[0] + (y - centre[1]) * way[1] for x, y in corners]
        low, high = min(along) - BEYOND * size, max(along) + BEYOND * size
        ends = tuple((centre[0] + t * way[0], centre[1] + t * way[1]) for t in (low, high))
        found.append((ends[0], ends[1]))
    return found


def _axis_way(partners: list[tuple[Point, Point]], centre: Point, size: float) -> Point | None:
    apart = max(partners, key=lambda pair: math.dist(*pair))
    length = math.dist(*apart)
    if length > 1e-6 * size:
        return ((apart[0][1] - apart[1][1]) / length, (apart[1][0] - apart[0][0]) / length)
    return None


def _mirrored(a: Point, b: Point, centre: Point, way: Point, size: float) -> bool:
    x, y = a[0] - centre[0], a[1] - centre[1]
    along = x * way[0] + y * way[1]
    image = (centre[0] + 2 * along * way[0] - x, centre[1] + 2 * along * way[1] - y)
    return math.dist(image, b) <= 1e-8 * size
