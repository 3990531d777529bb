"""What a polygon is, as precisely as it is true, and what else it is.

Everything is decided from squared lengths, dot products and cross products, so that exact coordinates give exact
answers. Definitions are inclusive: a square is also a rectangle, a rhombus and a kite.
"""

from __future__ import annotations

from collections.abc import Sequence
from decimal import localcontext
from typing import NamedTuple

from larch.core.base.words import N_
from larch.core.maths.exact import PRECISION, Scalar, alike, is_zero

ExactPoint = tuple[Scalar, Scalar]
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
    """Differences, squared lengths and products of a polygon, computed once."""

    def __init__(self, points: Sequence[ExactPoint]) -> None:
        flat = alike([_number(v) for point in points for v in point])
        self.points = list(zip(flat[0::2], flat[1::2], strict=True))
        count = len(self.points)
        following = [self.points[(i + 1) % count] for i in range(count)]
        self.ways = [(b[0] - a[0], b[1] - a[1]) for a, b in zip(self.points, following, strict=True)]
        self.squares = [dx * dx + dy * dy for dx, dy in self.ways]
        self.size = max(self.squares)
        # At corner i, between the side that comes in and the side that goes out.
        self.cross = [_cross(self.ways[i - 1], self.ways[i]) for i in range(count)]
        self.dot = [_dot(self.ways[i - 1], self.ways[i]) for i in range(count)]

    def nothing(self, value: Scalar) -> bool:
        return is_zero(value, self.size)

    def equal(self, a: Scalar, b: Scalar) -> bool:
        return is_zero(a - b, self.size)

    def parallel(self, i: int, j: int) -> bool:
        return self.nothing(_cross(self.ways[i], self.ways[j]))

    def fits(self, order: range, mirrored: bool = False) -> bool:
        """Whether the corners, taken in another order, have the same sides and angles."""
        count = len(self.points)
        for i, k in enumerate(order):
            side = self.squares[(k - 1) % count] if mirrored else self.squares[k % count]
            corner = k % count
            if not (self.equal(self.squares[i], side) and self.equal(self.dot[i], self.dot[corner])):
                return False
            if not self.equal(self.cross[i], self.cross[corner]):
                return False
        return True

    def sort(self) -> Sort:
        if any(self.nothing(square) for square in self.squares):
            return Sort("degenerate", why=N_("Two corners that follow each other coincide."))
        if all(self.nothing(cross) for cross in self.cross):
            return Sort("degenerate", why=N_("The corners lie in a line."))
        count = len(self.points)
        if self.crossed():
            return Sort(f"crossed {polygon_name(count)}", why=N_("Its sides cross."))
        if any(self.nothing(cross) for cross in self.cross):
            return self._straightened()
        if count == 3:
            return self.triangle()
        return self.quadrilateral() if count == 4 else self.many()

    def _straightened(self) -> Sort:
        """A corner of 180° is none: the shape is what it is without it."""
        kept = [point for point, cross in zip(self.points, self.cross, strict=True) if not self.nothing(cross)]
        found = _Shape(kept).sort()
        return Sort(found.kind, (*found.also, f"{polygon_name(len(self.points))} with a straight angle"), found.why)

    def crossed(self) -> bool:
        from larch.core.maths.geometry import crosses_itself

        return crosses_itself([(float(x), float(y)) for x, y in self.points])

    def triangle(self) -> Sort:
        a, b, c = self.squares
        equal = [self.equal(a, b), self.equal(b, c), self.equal(c, a)]
        # The ways of two sides at a corner run on, so a right angle is a dot product of nothing and a blunt one is positive.
        by_angle = "right" if any(map(self.nothing, self.dot)) else "obtuse" if any(d > 0 for d in self.dot) else "acute"
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
        s = self.squares
        kite = (equal(s[0], s[1]) and equal(s[2], s[3])) or (equal(s[1], s[2]) and equal(s[3], s[0]))
        if one and other:
            right, sides = self.nothing(self.dot[0]), equal(s[0], s[1])
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
            legs = (s[1], s[3]) if one else (s[0], s[2])
            if equal(*legs):
                return Sort("isosceles trapezium", ("trapezium",))
            return Sort("trapezium", ("right trapezium",) if any(map(self.nothing, self.dot)) else ())
        return Sort(
            "quadrilateral" if self.convex() else "concave quadrilateral", () if self.convex() else ("quadrilateral",)
        )

    def many(self) -> Sort:
        name = polygon_name(len(self.points))
        even = all(self.equal(self.squares[0], square) for square in self.squares)
        turning = all(self.equal(self.cross[0], c) for c in self.cross) and all(self.equal(self.dot[0], d) for d in self.dot)
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
    from fractions import Fraction

    return Fraction(value) if isinstance(value, int) else value


def _cross(a: ExactPoint, b: ExactPoint) -> Scalar:
    return a[0] * b[1] - a[1] * b[0]


def _dot(a: ExactPoint, b: ExactPoint) -> Scalar:
    return a[0] * b[0] + a[1] * b[1]
