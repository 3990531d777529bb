"""Plane geometry of polygons. Plain float64; y may point either way, since only shapes are measured."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

from larch.core.base.shape import Point

Vertices = Sequence[Point]


def sides(vertices: Vertices) -> list[float]:
    """Lengths of the sides; side i joins vertex i to the next."""
    return [math.dist(a, b) for a, b in pairs(vertices)]


def pairs(vertices: Vertices) -> list[tuple[Point, Point]]:
    """The sides as pairs of their ends."""
    return [(vertices[i], vertices[(i + 1) % len(vertices)]) for i in range(len(vertices))]


def perimeter(vertices: Vertices) -> float:
    return math.fsum(sides(vertices))


def signed_area(vertices: Vertices) -> float:
    """Shoelace formula, taken from the first vertex so that far-away shapes keep their digits.

    Positive if the vertices run counter-clockwise in axes whose y points upwards.
    """
    if len(vertices) < 3:
        return 0.0
    ox, oy = vertices[0]
    terms = []
    for (ax, ay), (bx, by) in pairs(vertices):
        terms += [(ax - ox) * (by - oy), -((bx - ox) * (ay - oy))]
    return math.fsum(terms) / 2


def area(vertices: Vertices) -> float:
    return abs(signed_area(vertices))


def interior_angles(vertices: Vertices) -> list[float | None]:
    """Interior angle at each vertex in degrees, 0 to 360; over 180 where the shape is dented.

    None at a vertex that coincides with a neighbour. Meaningful for shapes whose sides don't cross.
    """
    turn = 1.0 if signed_area(vertices) >= 0 else -1.0
    count = len(vertices)
    angles: list[float | None] = []
    for i, here in enumerate(vertices):
        before, after = vertices[i - 1], vertices[(i + 1) % count]
        ux, uy = after[0] - here[0], after[1] - here[1]
        vx, vy = before[0] - here[0], before[1] - here[1]
        if (ux == 0 and uy == 0) or (vx == 0 and vy == 0):
            angles.append(None)
            continue
        cross, dot = turn * (ux * vy - uy * vx), ux * vx + uy * vy
        angle = math.degrees(math.atan2(cross, dot))
        angles.append(angle + 360 if angle < 0 else angle)
    return angles


def crosses_itself(vertices: Vertices) -> bool:
    """Whether two sides that don't follow each other meet, or two that do run back over each other."""
    edges = pairs(vertices)
    count = len(edges)
    for i in range(count):
        for j in range(i + 1, count):
            neighbours = j == i + 1 or (i == 0 and j == count - 1)
            if not neighbours and segments_meet(*edges[i], *edges[j]):
                return True
    return any(_runs_back(vertices, i) for i in range(count)) if count > 3 else False


def _runs_back(vertices: Vertices, i: int) -> bool:
    (ax, ay), (bx, by), (cx, cy) = vertices[i - 1], vertices[i], vertices[(i + 1) % len(vertices)]
    cross = (bx - ax) * (cy - by) - (by - ay) * (cx - bx)
    return cross == 0 and (bx - ax) * (cx - bx) + (by - ay) * (cy - by) < 0


def side_of(a: Point, b: Point, p: Point) -> float:
    """On which side of the way from a to b a point lies: twice the signed area of the triangle."""
    return (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])


def _between(a: Point, b: Point, p: Point) -> bool:
    return min(a[0], b[0]) <= p[0] <= max(a[0], b[0]) and min(a[1], b[1]) <= p[1] <= max(a[1], b[1])


def segments_meet(a: Point, b: Point, c: Point, d: Point) -> bool:
    """Whether segments ab and cd share a point."""
    d1, d2, d3, d4 = side_of(c, d, a), side_of(c, d, b), side_of(a, b, c), side_of(a, b, d)
    if ((d1 > 0 and d2 < 0) or (d1 < 0 and d2 > 0)) and ((d3 > 0 and d4 < 0) or (d3 < 0 and d4 > 0)):
        return True
    touching = ((d1, c, d, a), (d2, c, d, b), (d3, a, b, c), (d4, a, b, d))
    return any(side == 0 and _between(p, q, r) for side, p, q, r in touching)


def inside(vertices: Vertices, x: float, y: float) -> bool:
    """Whether a point lies within, by the even-odd rule."""
    within = False
    for (ax, ay), (bx, by) in pairs(vertices):
        if (ay > y) != (by > y) and x < (bx - ax) * (y - ay) / (by - ay) + ax:
            within = not within
    return within


def distance_to_side(a: Point, b: Point, x: float, y: float) -> float:
    """From a point to the segment ab."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    length = dx * dx + dy * dy
    t = 0.0 if length == 0 else max(0.0, min(1.0, ((x - a[0]) * dx + (y - a[1]) * dy) / length))
    return math.hypot(x - a[0] - t * dx, y - a[1] - t * dy)


def crossing_pieces(points: Any) -> Any:
    """Which pieces of a polyline, shape (n, 2), cross which others, as pairs of their numbers, the smaller first; neighbours
    never do."""
    import numpy as np

    a, way = points[:-1], np.diff(points, axis=0)
    with np.errstate(all="ignore"):
        cross = way[:, None, 0] * way[None, :, 1] - way[:, None, 1] * way[None, :, 0]
        gap = a[None, :] - a[:, None]
        one = (gap[..., 0] * way[None, :, 1] - gap[..., 1] * way[None, :, 0]) / cross
        other = (gap[..., 0] * way[:, None, 1] - gap[..., 1] * way[:, None, 0]) / cross
        meet = (one >= 0) & (one < 1) & (other >= 0) & (other < 1)
    return np.argwhere(np.triu(meet, 2))
