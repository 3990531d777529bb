"""What a polygon is, as precisely as it is true, and what else it is.

Everything is decided from squared lengths, dot products and cross products, so that exact coordinates give exact
answers. Definitions are inclusive: a square is also a rectangle, a rhombus and a kite.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from decimal import localcontext
from fractions import Fraction
from typing import NamedTuple

from larch.core.base.words import N_
from larch.core.maths.exact import MEASURED, PRECISION, Scalar, alike, is_zero
from larch.core.maths.geometry import segments_meet
from larch.core.maths.geometry import side_of as _side

ExactPoint = tuple[Scalar, Scalar]
DIGITS = 4e-15  # of the longest side: what a float coordinate can be off by
NAMES = {
    3: "triangle", 4: "quadrilateral", 5: "pentagon", 6: "hexagon", 7: "heptagon", 8: "octagon", 9: "nonagon",
    10: "decagon", 11: "hendecagon", 12: "dodecagon",
}  # fmt: skip


class Sort(NamedTuple):
    """kind: the most precise word; also: further words that are true; why: what is wrong with a shape that is none."""

    kind: str
    also: tuple[str, ...] = ()
    why: str = ""


class Symmetry(NamedTuple):
    """axes: number of mirror lines; turns: in how many positions it fits itself within one full turn."""

    axes: int
    turns: int


def polygon_name(corners: int) -> str:
    return NAMES.get(corners, f"{corners}-gon")


def classify(points: Sequence[ExactPoint]) -> Sort:
    """Says what the closed polygon through the points is.

    Coordinates may be Fraction, Decimal, float or int. Equality of floats is to one part in 10^9. Never fails: a shape
    without area, or with corners that coincide, is "degenerate" and says why.
    """
    if len(points) < 3:
        return Sort("degenerate", why=N_("A polygon has at least three corners."))
    with localcontext() as context:
        context.prec = PRECISION
        shape = _Shape(points)
        return shape.sort()


def symmetry(points: Sequence[ExactPoint]) -> Symmetry:
    """The symmetries of a polygon, found by laying its sides and angles over themselves."""
    with localcontext() as context:
        context.prec = PRECISION
        shape = _Shape(points)
        count = len(shape.points)
        turns = sum(shape.fits(range(k, k + count)) for k in range(count))
        axes = sum(shape.fits(range(k, k - count, -1), mirrored=True) for k in range(count))
        return Symmetry(axes, turns)


class _Shape:
    """Differences, squared lengths and products of a polygon, computed once.

    What is nothing, and what is equal, is decided beside the sides that went into it: a rectangle of 100 by 0.0000001 is
    one. Of floats, besides, no more is believed than their digits give.
    """

    def __init__(self, points: Sequence[ExactPoint]) -> None:
        flat = alike([_number(v) for point in points for v in point])
        self.points = list(zip(flat[0::2], flat[1::2], strict=True))
        count = len(self.points)
        following = [self.points[(i + 1) % count] for i in range(count)]
        self.ways = [(b[0] - a[0], b[1] - a[1]) for a, b in zip(self.points, following, strict=True)]
        self.squares = [dx * dx + dy * dy for dx, dy in self.ways]
        self.size = max(self.squares)
        self.measured = isinstance(flat[0], float)
        self.lengths = [math.sqrt(square) for square in self.squares] if self.measured else []
        self.noise = DIGITS * max(self.lengths) if self.measured else 0.0
        self._told: list[ExactPoint] = []
        # At corner i, between the side that comes in and the side that goes out.
        self.cross = [_cross(self.ways[i - 1], self.ways[i]) for i in range(count)]
        self.dot = [_dot(self.ways[i - 1], self.ways[i]) for i in range(count)]

    def _slack(self, i: int, j: int) -> float:
        """What a product of two sides can be off by, of floats."""
        one, other = self.lengths[i], self.lengths[j]
        return MEASURED * one * other + self.noise * (one + other)

    def nothing(self, value: Scalar, i: int, j: int) -> bool:
        """Whether a product of two sides is nothing."""
        if self.measured:
            return bool(abs(value) <= self._slack(i, j))
        return is_zero(value, self.size)

    def straight(self, i: int) -> bool:
        return self.nothing(self.cross[i], i - 1, i)

    def right(self, i: int) -> bool:
        return self.nothing(self.dot[i], i - 1, i)

    def coincide(self, i: int) -> bool:
        """Whether corner i and the next lie on one spot."""
        return self.lengths[i] <= 4 * self.noise if self.measured else is_zero(self.squares[i], self.size)

    def equal(self, i: int, j: int) -> bool:
        """Whether two sides are equally long."""
        if not self.measured:
            return is_zero(self.squares[i] - self.squares[j], self.size)
        return abs(self.lengths[i] - self.lengths[j]) <= MEASURED * max(self.lengths[i], self.lengths[j]) + 2 * self.noise

    def same_corner(self, i: int, k: int, of: Sequence[Scalar]) -> bool:
        """Whether the cross or dot products at two corners are equal."""
        if not self.measured:
            return is_zero(of[i] - of[k], self.size)
        return bool(abs(of[i] - of[k]) <= self._slack(i - 1, i) + self._slack(k - 1, k))

    def parallel(self, i: int, j: int) -> bool:
        return self.nothing(_cross(self.ways[i], self.ways[j]), i, j)

    def fits(self, order: range, mirrored: bool = False) -> bool:
        """Whether the corners, taken in another order, have the same sides and angles."""
        count = len(self.points)
        for i, k in enumerate(order):
            corner = k % count
            side = (k - 1) % count if mirrored else corner
            if not (self.equal(i, side) and self.same_corner(i, corner, self.dot)):
                return False
            if not self.same_corner(i, corner, self.cross):
                return False
        return True

    def sort(self) -> Sort:
        count = len(self.points)
        if any(map(self.coincide, range(count))):
            return Sort("degenerate", why=N_("Two corners that follow each other coincide."))
        if all(map(self.straight, range(count))):
            return Sort("degenerate", why=N_("The corners lie in a line."))
        if self.crossed():
            return Sort(f"crossed {polygon_name(count)}", why=N_("Its sides cross."))
        if any(map(self.straight, range(count))):
            return self._straightened()
        if count == 3:
            return self.triangle()
        return self.quadrilateral() if count == 4 else self.many()

    def _straightened(self) -> Sort:
        """A corner of 180° is none: the shape is what it is without it."""
        kept = [point for i, point in enumerate(self.points) if not self.straight(i)]
        found = _Shape(kept).sort()
        return Sort(found.kind, (*found.also, f"{polygon_name(len(self.points))} with a straight angle"), found.why)

    def crossed(self) -> bool:
        """Whether two sides that don't follow each other meet, or two that do run back over each other; exactly, where the
        coordinates are exact: floats decide only what they can tell for certain."""
        count = len(self.points)
        if count > 3 and any(self._runs_back(i) for i in range(count)):
            return True
        x0, y0 = (0.0, 0.0) if self.measured else self.points[0]
        near = [(float(x - x0), float(y - y0)) for x, y in self.points]
        scale = max(max(abs(x), abs(y)) for x, y in near)
        unsure = 1e-13 * scale * scale
        for i in range(count):
            a, b = near[i], near[(i + 1) % count]
            left, right = min(a[0], b[0]), max(a[0], b[0])
            low, high = min(a[1], b[1]), max(a[1], b[1])
            for j in range(i + 2, count - (i == 0)):
                c, d = near[j], near[(j + 1) % count]
                aside = max(c[0], d[0]) < left or min(c[0], d[0]) > right or max(c[1], d[1]) < low or min(c[1], d[1]) > high
                if aside and not self._boxes_touch(near, i, j, 1e-12 * scale):
                    continue
                signs = _side(c, d, a), _side(c, d, b), _side(a, b, c), _side(a, b, d)
                certain = min(map(abs, signs)) > unsure
                if segments_meet(a, b, c, d) if certain else self._meet(i, j):
                    return True
        return False

    def told(self) -> list[ExactPoint]:
        """The points without any rounding: floats are fractions as well."""
        if not self.measured:
            return self.points
        if not self._told:
            self._told = [(Fraction(x), Fraction(y)) for x, y in self.points]
        return self._told

    def _runs_back(self, i: int) -> bool:
        if not self.straight(i) or self.dot[i] >= 0:
            return False
        points = self.told()
        return self._sign(points[i - 1], points[i], points[(i + 1) % len(points)]) == 0

    def _boxes_touch(self, near: Sequence[tuple[float, float]], i: int, j: int, slack: float) -> bool:
        count = len(near)
        a, b, c, d = near[i], near[(i + 1) % count], near[j], near[(j + 1) % count]
        return all(max(min(a[k], b[k]), min(c[k], d[k])) <= min(max(a[k], b[k]), max(c[k], d[k])) + slack for k in (0, 1))

    def _meet(self, i: int, j: int) -> bool:
        """Whether sides i and j share a point, by the coordinates themselves."""
        count, points = len(self.points), self.told()
        a, b, c, d = points[i], points[(i + 1) % count], points[j], points[(j + 1) % count]
        signs = [self._sign(*three) for three in ((c, d, a), (c, d, b), (a, b, c), (a, b, d))]
        if signs[0] * signs[1] < 0 and signs[2] * signs[3] < 0:
            return True
        touching = ((signs[0], c, d, a), (signs[1], c, d, b), (signs[2], a, b, c), (signs[3], a, b, d))
        return any(sign == 0 and self._between(p, q, r) for sign, p, q, r in touching)

    def _sign(self, a: ExactPoint, b: ExactPoint, p: ExactPoint) -> int:
        value = _cross((b[0] - a[0], b[1] - a[1]), (p[0] - a[0], p[1] - a[1]))
        return 0 if is_zero(value, self.size) else 1 if value > 0 else -1

    def _between(self, a: ExactPoint, b: ExactPoint, p: ExactPoint) -> bool:
        """Whether a point of the line through a and b lies between them."""
        share = _dot((p[0] - a[0], p[1] - a[1]), (b[0] - a[0], b[1] - a[1]))
        whole = _dot((b[0] - a[0], b[1] - a[1]), (b[0] - a[0], b[1] - a[1]))
        within = 0 <= share <= whole
        return bool(within or is_zero(share, self.size) or is_zero(share - whole, self.size))

    def triangle(self) -> Sort:
        equal = [self.equal(0, 1), self.equal(1, 2), self.equal(2, 0)]
        # The ways of two sides at a corner run on, so a right angle is a dot product of nothing and a blunt one is positive.
        right, blunt = any(map(self.right, range(3))), any(d > 0 for d in self.dot)
        by_angle = "right" if right else "obtuse" if blunt else "acute"
        if all(equal):
            return Sort("equilateral triangle", ("isosceles triangle", "acute triangle"))
        if not any(equal):
            return Sort(f"{by_angle} triangle", ("scalene triangle",))
        if by_angle == "right":
            return Sort("isosceles right triangle", ("right triangle", "isosceles triangle"))
        return Sort("isosceles triangle", (f"{by_angle} triangle",))

    def convex(self) -> bool:
        return all(cross > 0 for cross in self.cross) or all(cross < 0 for cross in self.cross)

    def quadrilateral(self) -> Sort:
        one, other = self.parallel(0, 2), self.parallel(1, 3)
        equal = self.equal
        kite = (equal(0, 1) and equal(2, 3)) or (equal(1, 2) and equal(3, 0))
        if one and other:
            right, sides = self.right(0), equal(0, 1)
            if right and sides:
                return Sort("square", ("rectangle", "rhombus", "kite", "parallelogram", "isosceles trapezium", "trapezium"))
            if right:
                return Sort("rectangle", ("parallelogram", "isosceles trapezium", "trapezium"))
            return (
                Sort("rhombus", ("kite", "parallelogram", "trapezium")) if sides else Sort("parallelogram", ("trapezium",))
            )
        if kite:
            return Sort("kite") if self.convex() else Sort("dart", ("concave kite",))
        if one or other:
            if equal(1, 3) if one else equal(0, 2):
                return Sort("isosceles trapezium", ("trapezium",))
            return Sort("trapezium", ("right trapezium",) if any(map(self.right, range(4))) else ())
        return Sort(
            "quadrilateral" if self.convex() else "concave quadrilateral", () if self.convex() else ("quadrilateral",)
        )

    def many(self) -> Sort:
        name = polygon_name(len(self.points))
        corners = range(len(self.points))
        even = all(self.equal(0, i) for i in corners)
        turning = all(self.same_corner(0, i, self.cross) and self.same_corner(0, i, self.dot) for i in corners)
        if even and turning:
            return Sort(f"regular {name}", (f"equilateral {name}", f"equiangular {name}"))
        also = [f"equilateral {name}"] if even else []
        also += [f"equiangular {name}"] if self._equiangular() else []
        return Sort(f"{'convex' if self.convex() else 'concave'} {name}", tuple(also))

    def _equiangular(self) -> bool:
        """All corners turn alike: cross over dot is the same everywhere, and so are their signs."""
        c0, d0 = self.cross[0], self.dot[0]
        scale = self.size * self.size
        return all(
            is_zero(c * d0 - d * c0, scale) and (c > 0) == (c0 > 0) and (d > 0) == (d0 > 0)
            for c, d in zip(self.cross, self.dot, strict=True)
        )


def _number(value: object) -> Scalar:
    return Fraction(value) if isinstance(value, int) else value


def _cross(a: ExactPoint, b: ExactPoint) -> Scalar:
    return a[0] * b[1] - a[1] * b[0]


def _dot(a: ExactPoint, b: ExactPoint) -> Scalar:
    return a[0] * b[0] + a[1] * b[1]
