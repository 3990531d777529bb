"""What figures measure: sides, angles, perimeter, area, centroid; circles and ellipses too."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import TYPE_CHECKING, Any

from larch.core.base.shape import Point
from larch.core.maths import geometry
from larch.core.maths.classify import classify

if TYPE_CHECKING:
    from larch.core.maths.svg_shapes import Outline, Round

ROUND = 1e-9  # relative difference of half axes up to which an ellipse is a circle


def measured(shape: Outline | Round) -> dict[str, Any]:
    """The measures of a shape under the keys that `larch measure --json` prints."""
    from larch.core.maths.svg_shapes import Round  # an XML parser, which figures of a page do without

    return _round(shape) if isinstance(shape, Round) else _outline(shape)


def _outline(shape: Outline) -> dict[str, Any]:
    points = [(x + 0.0, y + 0.0) for x, y in shape.points]
    return _closed(shape.id, points) if shape.closed and len(points) > 2 else _open(shape.id, points)


def _closed(id: str, points: list[Point]) -> dict[str, Any]:
    sort = classify(points)
    crossed = sort.kind.startswith("crossed")
    found: dict[str, Any] = {
        "id": id,
        "kind": sort.kind,
        "vertices": [list(point) for point in points],
        "sides": geometry.sides(points),
        "angles": [None] * len(points) if crossed else geometry.interior_angles(points),
        "perimeter": geometry.perimeter(points),
        "area": None if crossed else geometry.area(points),
        "centroid": None if crossed else list(centroid(points)),
    }
    return found | ({"also": list(sort.also)} if sort.also else {}) | ({"why": sort.why} if sort.why else {})


def _open(id: str, points: list[Point]) -> dict[str, Any]:
    lengths = [math.dist(a, b) for a, b in pairwise(points)]
    angles = [None, *(_between(points[i - 1], points[i], points[i + 1]) for i in range(1, len(points) - 1)), None]
    total = math.fsum(lengths)
    middles = [((a[0] + b[0]) / 2, (a[1] + b[1]) / 2) for a, b in pairwise(points)]
    at = points[0] if not total else (
        math.fsum(m[0] * s for m, s in zip(middles, lengths, strict=True)) / total,
        math.fsum(m[1] * s for m, s in zip(middles, lengths, strict=True)) / total,
    )  # fmt: skip
    return {
        "id": id, "kind": "segment" if len(points) == 2 else "point" if len(points) == 1 else "polyline",
        "vertices": [list(point) for point in points], "sides": lengths, "angles": angles[: len(points)],
        "perimeter": total, "area": 0.0, "centroid": list(at),
    }  # fmt: skip


def _between(a: Point, at: Point, b: Point) -> float | None:
    """The angle at a corner of an open line, 0 to 180; None where a side has no length."""
    if a == at or b == at:
        return None
    ux, uy, vx, vy = a[0] - at[0], a[1] - at[1], b[0] - at[0], b[1] - at[1]
    return math.degrees(abs(math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)))


def centroid(points: Sequence[Point]) -> Point:
    """The centre of mass of the area inside; of the corners where that is nothing. Taken from the first corner."""
    ox, oy = points[0]
    twice, sx, sy = [], [], []
    for (ax, ay), (bx, by) in geometry.pairs(points):
        cross = (ax - ox) * (by - oy) - (bx - ox) * (ay - oy)
        twice.append(cross)
        sx.append((ax + bx - 2 * ox) * cross)
        sy.append((ay + by - 2 * oy) * cross)
    area = math.fsum(twice)
    size = max(math.dist(points[0], point) for point in points) ** 2
    if abs(area) <= 1e-14 * size or not area:
        return (math.fsum(x for x, _y in points) / len(points), math.fsum(y for _x, y in points) / len(points))
    return (ox + math.fsum(sx) / (3 * area), oy + math.fsum(sy) / (3 * area))


def _round(shape: Round) -> dict[str, Any]:
    long, short = half_axes(shape.first, shape.second)
    found: dict[str, Any] = {
        "id": shape.id, "kind": "ellipse", "vertices": [], "sides": [], "angles": [],
        "perimeter": ellipse_perimeter(long, short), "area": math.pi * long * short, "centroid": list(shape.centre),
    }  # fmt: skip
    if math.isclose(long, short, rel_tol=ROUND):
        return found | {"kind": "circle", "perimeter": 2 * math.pi * long, "radius": long}
    return found | {"radii": [long, short]}


def half_axes(first: Point, second: Point) -> tuple[float, float]:
    """Half axes of the ellipse with two conjugate half diameters: the singular values of the matrix they make."""
    total = math.hypot(first[0] + second[1], first[1] - second[0])
    apart = math.hypot(first[0] - second[1], first[1] + second[0])
    return ((total + apart) / 2, abs(total - apart) / 2)


def ellipse_perimeter(long: float, short: float) -> float:
    """By the arithmetic-geometric mean (Gauss; Abramowitz and Stegun 17.6), to the last digit of a float64."""
    if short == 0:
        return 4 * long
    a, b, weight = 1.0, short / long, 1.0
    c = math.sqrt(max(0.0, 1 - b * b))
    sum_ = c * c / 2
    while abs(c) > 1e-10:  # its square is what counts, and each round squares it
        a, b, c = (a + b) / 2, math.sqrt(a * b), (a - b) / 2
        sum_ += weight * c * c
        weight *= 2
    return long * 4 * (math.pi / (2 * a)) * (1 - sum_)
