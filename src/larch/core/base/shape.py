"""Boxes and placements: where a thing is on its page. Page units, y downwards."""

import math
from collections.abc import Iterable
from typing import NamedTuple

from msgspec import Struct

Point = tuple[float, float]

FARTHEST = 1e9  # page units; beyond this, float64 can no longer tell a thousandth of a unit


class Box(NamedTuple):
    """An upright rectangle: left, top, right, bottom."""

    x0: float
    y0: float
    x1: float
    y1: float

    @property
    def width(self) -> float:
        return self.x1 - self.x0

    @property
    def height(self) -> float:
        return self.y1 - self.y0

    @property
    def centre(self) -> Point:
        return ((self.x0 + self.x1) / 2, (self.y0 + self.y1) / 2)

    def corners(self) -> tuple[Point, Point, Point, Point]:
        """From the top left, clockwise on the page."""
        return ((self.x0, self.y0), (self.x1, self.y0), (self.x1, self.y1), (self.x0, self.y1))

    def grown(self, by: float) -> "Box":
        return Box(self.x0 - by, self.y0 - by, self.x1 + by, self.y1 + by)

    def moved(self, dx: float, dy: float) -> "Box":
        return Box(self.x0 + dx, self.y0 + dy, self.x1 + dx, self.y1 + dy)

    def holds(self, x: float, y: float) -> bool:
        return self.x0 <= x <= self.x1 and self.y0 <= y <= self.y1

    def meets(self, other: "Box") -> bool:
        return self.x0 <= other.x1 and other.x0 <= self.x1 and self.y0 <= other.y1 and other.y0 <= self.y1

    def covers(self, other: "Box") -> bool:
        return self.x0 <= other.x0 and self.y0 <= other.y0 and other.x1 <= self.x1 and other.y1 <= self.y1


def along(start: Point, end: Point, stride: float) -> list[Point]:
    """Places on the way, both ends among them, no further apart than `stride`: a step of a drag may be long."""
    count = max(1, math.ceil(math.dist(start, end) / stride))
    dx, dy = (end[0] - start[0]) / count, (end[1] - start[1]) / count
    return [(start[0] + dx * k, start[1] + dy * k) for k in range(count + 1)]


def box_of(points: Iterable[Point]) -> Box:
    """The smallest box round the points; an empty box at the origin for none."""
    listed = list(points)
    if not listed:
        return Box(0, 0, 0, 0)
    xs = [p[0] for p in listed]
    ys = [p[1] for p in listed]
    return Box(min(xs), min(ys), max(xs), max(ys))


def union(boxes: Iterable[Box]) -> Box:
    return box_of(p for box in boxes for p in ((box.x0, box.y0), (box.x1, box.y1)))


class Placement(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True, gc=False):
    """Carries a thing's own coordinates onto the page: scale, then turn, then shift.

    `turn` is in degrees, counter-clockwise as seen. Raises ValueError on numbers that are not
    finite or too far out to be computed with.
    """

    x: float = 0.0
    y: float = 0.0
    turn: float = 0.0
    scale: float = 1.0

    def __post_init__(self) -> None:
        if not (abs(self.x) <= FARTHEST and abs(self.y) <= FARTHEST and abs(self.turn) <= FARTHEST):
            raise ValueError("a placement must lie on the page")
        if not 1e-6 <= self.scale <= 1e6:
            raise ValueError("a scale must lie between a millionth and a million")

    def to_page(self, x: float, y: float) -> Point:
        c, s = turn_factors(self.turn)
        x, y = x * self.scale, y * self.scale
        return (self.x + c * x + s * y, self.y - s * x + c * y)

    def to_local(self, x: float, y: float) -> Point:
        c, s = turn_factors(self.turn)
        x, y = x - self.x, y - self.y
        return ((c * x - s * y) / self.scale, (s * x + c * y) / self.scale)

    def box_on_page(self, local: Box) -> Box:
        if not self.turn and self.scale == 1.0:
            return local.moved(self.x, self.y)
        return box_of(self.to_page(*corner) for corner in local.corners())

    def moved(self, dx: float, dy: float) -> "Placement":
        return Placement(self.x + dx, self.y + dy, self.turn, self.scale)

    def on(self, outer: "Placement") -> "Placement":
        """This placement, given in the coordinates of something placed by `outer`, as one on the page."""
        x, y = outer.to_page(self.x, self.y)
        return Placement(x, y, (self.turn + outer.turn) % 360, self.scale * outer.scale)

    def within(self, outer: "Placement") -> "Placement":
        """The inverse of `on`: this placement on the page as one in the coordinates of what `outer` places."""
        x, y = outer.to_local(self.x, self.y)
        return Placement(x, y, (self.turn - outer.turn) % 360, self.scale / outer.scale)

    def turned(self, degrees: float, centre: Point) -> "Placement":
        """Turned about a point of the page, counter-clockwise as seen."""
        c, s = turn_factors(degrees)
        x, y = self.x - centre[0], self.y - centre[1]
        turn = (self.turn + degrees) % 360
        return Placement(centre[0] + c * x + s * y, centre[1] - s * x + c * y, turn, self.scale)

    def enlarged(self, factor: float, centre: Point) -> "Placement":
        x, y = centre[0] + (self.x - centre[0]) * factor, centre[1] + (self.y - centre[1]) * factor
        return Placement(x, y, self.turn, self.scale * factor)


def turn_factors(degrees: float) -> tuple[float, float]:
    """Cosine and sine of an angle in degrees, exact at quarter turns."""
    quarter = {0.0: (1.0, 0.0), 90.0: (0.0, 1.0), 180.0: (-1.0, 0.0), 270.0: (0.0, -1.0)}.get(degrees % 360)
    if quarter is not None:
        return quarter
    angle = math.radians(degrees)
    return (math.cos(angle), math.sin(angle))
