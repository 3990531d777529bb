"""Shapes that stay what they are: where the other corners go when one is dragged.

Each rule takes the corners, the number of the one that is dragged and where it is dragged to, and returns corners of the
same kind. What a hand would expect to stay where it is, stays: the opposite corner, the centre or the base.
"""

from __future__ import annotations

import math
from collections.abc import Callable

from larch.core.base.shape import Point
from larch.core.base.words import N_

Corners = tuple[Point, ...]
Rule = Callable[[Corners, int, Point], Corners]


def drag(kind: str, corners: Corners, i: int, to: Point) -> Corners:
    """The corners after a drag; as they were where the shape would vanish. Unknown kinds are free."""
    rule = RULES.get(kind)
    if rule is None:
        return (*corners[:i], to, *corners[i + 1 :])
    made = rule(corners, i, to)
    smallest = 1e-9 * max(math.dist(corners[0], corner) for corner in corners)
    sound = all(math.isfinite(v) for corner in made for v in corner)
    apart = all(math.dist(a, b) > smallest for a, b in zip(made, (*made[1:], made[0]), strict=True))
    return made if sound and apart else corners


def _add(a: Point, b: Point, k: float = 1.0) -> Point:
    return (a[0] + k * b[0], a[1] + k * b[1])


def _from(a: Point, b: Point) -> Point:
    """The way from a to b."""
    return (b[0] - a[0], b[1] - a[1])


def _dot(a: Point, b: Point) -> float:
    return a[0] * b[0] + a[1] * b[1]


def _cross(a: Point, b: Point) -> float:
    return a[0] * b[1] - a[1] * b[0]


def _unit(a: Point) -> Point:
    size = math.hypot(*a)
    return (a[0] / size, a[1] / size) if size else (1.0, 0.0)


def _square(a: Point) -> Point:
    """Turned by a right angle."""
    return (-a[1], a[0])


def _middle(a: Point, b: Point) -> Point:
    return ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)


def _mirrored(point: Point, a: Point, b: Point) -> Point:
    """Over the line ab."""
    way = _unit(_from(a, b))
    return _add(_add(a, way, 2 * _dot(_from(a, point), way)), _from(a, point), -1.0)


def _placed(corners: Corners, **new: Point) -> Corners:
    changed = {int(name[1:]): point for name, point in new.items()}
    return tuple(changed.get(k, corner) for k, corner in enumerate(corners))


def _numbered(corners: Corners, i: int, points: list[Point]) -> Corners:
    """Points given from corner i on, put back in their order."""
    count = len(corners)
    return tuple(points[(k - i) % count] for k in range(count))


def _regular(corners: Corners, i: int, to: Point) -> Corners:
    """The centre stays; all turn and grow alike."""
    centre = (sum(x for x, _y in corners) / len(corners), sum(y for _x, y in corners) / len(corners))
    old, new = _from(centre, corners[i]), _from(centre, to)
    size = _dot(old, old)
    c, s = _dot(old, new) / size, _cross(old, new) / size
    ways = (_from(centre, corner) for corner in corners)
    return tuple((centre[0] + c * x - s * y, centre[1] + s * x + c * y) for x, y in ways)


def _rectangle(corners: Corners, i: int, to: Point) -> Corners:
    """The opposite corner and the directions of the sides stay."""
    fixed = corners[(i + 2) % 4]
    across = _unit(_from(fixed, corners[(i + 1) % 4]))
    diagonal = _from(fixed, to)
    along = _dot(diagonal, across)
    second = _add(fixed, across, along)
    return _numbered(corners, i, [to, second, fixed, _add(to, _from(second, fixed))])


def _rhombus(corners: Corners, i: int, to: Point) -> Corners:
    """The opposite corner and the length of the other diagonal stay."""
    fixed = corners[(i + 2) % 4]
    half = math.dist(corners[(i + 1) % 4], corners[(i + 3) % 4]) / 2
    way = _unit(_from(fixed, to))
    sense = 1.0 if _cross(_from(fixed, corners[i]), _from(fixed, corners[(i + 1) % 4])) > 0 else -1.0
    middle = _middle(fixed, to)
    side = _square(way)
    return _numbered(corners, i, [to, _add(middle, side, sense * half), fixed, _add(middle, side, -sense * half)])


def _parallelogram(corners: Corners, i: int, to: Point) -> Corners:
    """The next two corners stay."""
    one, two = corners[(i + 1) % 4], corners[(i + 2) % 4]
    return _numbered(corners, i, [to, one, two, _add(to, _from(one, two))])


def _kite(corners: Corners, i: int, to: Point) -> Corners:
    """Corners 0 and 2 lie on its fold line; the two beside it are each other's mirror images."""
    if i % 2:
        return _numbered(corners, i, [to, corners[(i + 1) % 4], _mirrored(to, corners[0], corners[2]), corners[(i + 3) % 4]])
    other = corners[(i + 2) % 4]
    old, new = _unit(_from(other, corners[i])), _unit(_from(other, to))
    wing = _from(other, corners[(i + 1) % 4])
    along, aside = _dot(wing, old), _dot(wing, _square(old))
    foot = _add(other, new, along)
    side = _square(new)
    return _numbered(corners, i, [to, _add(foot, side, aside), other, _add(foot, side, -aside)])


def _trapezium(corners: Corners, i: int, to: Point) -> Corners:
    """Sides 0–1 and 2–3 stay parallel: the other end of the side that is dragged keeps its distance."""
    mate = {0: 1, 1: 0, 2: 3, 3: 2}[i]
    moved = _add(to, _from(corners[i], corners[mate]))
    return tuple(to if k == i else moved if k == mate else corner for k, corner in enumerate(corners))


def _even_trapezium(corners: Corners, i: int, to: Point) -> Corners:
    """The other base stays, and with it the fold line across both."""
    mate = {0: 1, 1: 0, 2: 3, 3: 2}[i]
    a, b = (corners[k] for k in range(4) if k not in (i, mate))
    middle = _middle(a, b)
    moved = _mirrored(to, middle, _add(middle, _square(_from(a, b))))
    return tuple(to if k == i else moved if k == mate else corner for k, corner in enumerate(corners))


def _isosceles(corners: Corners, i: int, to: Point) -> Corners:
    """Corner 2 is the tip, over the middle of the base; a dragged end of the base takes the tip along."""
    if i == 2:
        middle = _middle(corners[0], corners[1])
        up = _unit(_square(_from(corners[0], corners[1])))
        return _placed(corners, _2=_add(middle, up, _dot(_from(middle, to), up)))
    base = (to, corners[1]) if i == 0 else (corners[0], to)
    old = _unit(_square(_from(corners[0], corners[1])))
    height = _dot(_from(_middle(corners[0], corners[1]), corners[2]), old)
    return (*base, _add(_middle(*base), _unit(_square(_from(*base))), height))


def _right(corners: Corners, i: int, to: Point) -> Corners:
    """The right angle is at corner 0; it moves on the circle over the longest side, the others turn about it."""
    if i == 0:
        middle = _middle(corners[1], corners[2])
        radius = math.dist(middle, corners[1])
        return _placed(corners, _0=_add(middle, _unit(_from(middle, to)), radius))
    other = 3 - i
    sense = 1.0 if _cross(_from(corners[0], corners[i]), _from(corners[0], corners[other])) > 0 else -1.0
    leg = math.dist(corners[0], corners[other])
    moved = _add(corners[0], _square(_unit(_from(corners[0], to))), sense * leg)
    return tuple(to if k == i else moved if k == other else corner for k, corner in enumerate(corners))


RULES: dict[str, Rule] = {
    "regular": _regular, "rectangle": _rectangle, "rhombus": _rhombus, "parallelogram": _parallelogram, "kite": _kite,
    "trapezium": _trapezium, "isosceles trapezium": _even_trapezium, "isosceles triangle": _isosceles,
    "right triangle": _right,
}  # fmt: skip


def regular_corners(count: int, radius: float = 96.0) -> Corners:
    """A regular polygon standing on a side, its box from the origin."""
    start = math.pi / 2 + math.pi / count
    round_ = [(radius * math.cos(start + 2 * math.pi * k / count), radius * math.sin(start + 2 * math.pi * k / count))
              for k in range(count)]  # fmt: skip
    left, top = min(x for x, _y in round_), min(y for _x, y in round_)
    return tuple((x - left, y - top) for x, y in round_)


def star_corners(points: int, radius: float = 104.0, share: float = 0.42) -> Corners:
    """A star with a number of points, one of them up."""
    made = []
    for k in range(2 * points):
        r, turn = radius * (share if k % 2 else 1.0), math.pi * k / points - math.pi / 2
        made.append((radius + r * math.cos(turn), radius + r * math.sin(turn)))
    return tuple(made)


STARTS: dict[str, tuple[str, Corners]] = {
    N_("equilateral triangle"): ("regular", regular_corners(3)),
    N_("isosceles triangle"): ("isosceles triangle", ((0.0, 192.0), (160.0, 192.0), (80.0, 0.0))),
    N_("right triangle"): ("right triangle", ((0.0, 128.0), (0.0, 0.0), (192.0, 128.0))),
    N_("square"): ("regular", ((0.0, 160.0), (160.0, 160.0), (160.0, 0.0), (0.0, 0.0))),
    N_("rectangle"): ("rectangle", ((0.0, 128.0), (224.0, 128.0), (224.0, 0.0), (0.0, 0.0))),
    N_("rhombus"): ("rhombus", ((96.0, 256.0), (192.0, 128.0), (96.0, 0.0), (0.0, 128.0))),
    N_("parallelogram"): ("parallelogram", ((0.0, 128.0), (192.0, 128.0), (256.0, 0.0), (64.0, 0.0))),
    N_("kite"): ("kite", ((96.0, 256.0), (192.0, 80.0), (96.0, 0.0), (0.0, 80.0))),
    N_("trapezium"): ("trapezium", ((0.0, 128.0), (256.0, 128.0), (192.0, 0.0), (32.0, 0.0))),
    N_("isosceles trapezium"): ("isosceles trapezium", ((0.0, 128.0), (256.0, 128.0), (192.0, 0.0), (64.0, 0.0))),
}
