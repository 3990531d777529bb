"""The forms of plane geometry as plain values."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import NamedTuple

from larch.core.base.shape import Box, Point, box_of
from larch.core.base.words import N_

SAME = 1e-9  # relative; what differs by less coincides
FAR = 1e7  # page units; what is constructed further out than this is said not to be there


class NotThere(ValueError):
    """What was asked for does not exist; the message is a sentence that says why (untranslated)."""


class Spot(NamedTuple):
    """A point."""

    x: float
    y: float


class Line(NamedTuple):
    """Through a and b. form: "segment" from a to b, "vector" likewise, "ray" from a through b, "line" both ways."""

    a: Point
    b: Point
    form: str = "segment"

    @property
    def way(self) -> Point:
        return (self.b[0] - self.a[0], self.b[1] - self.a[1])

    def bounds(self) -> tuple[float, float]:
        """Between which multiples of its way it runs, counted from a."""
        ends = {"line": (-math.inf, math.inf), "ray": (0.0, math.inf)}
        return ends.get(self.form, (0.0, 1.0))


class Circle(NamedTuple):
    """A circle or a part of one. form: "circle", "arc", "sector", "cap" (the segment that a chord cuts off).

    A part begins at the angle `start` and runs on over `span`, 0 to 360.
    """

    centre: Point
    radius: float
    form: str = "circle"
    start: float = 0.0
    span: float = 360.0

    def at(self, angle: float) -> Point:
        """The point at an angle."""
        turn = math.radians(angle)
        return (self.centre[0] + self.radius * math.cos(turn), self.centre[1] - self.radius * math.sin(turn))

    def spans(self, angle: float, slack: float = 1e-9) -> bool:
        """Whether the direction lies on the part."""
        if self.form == "circle":
            return True
        off = (angle - self.start) % 360
        return off <= self.span + slack or off >= 360 - slack

    def chord(self) -> Line:
        return Line(self.at(self.start), self.at(self.start + self.span))


class Ellipse(NamedTuple):
    """rx along the direction `turn`, ry across it."""

    centre: Point
    rx: float
    ry: float
    turn: float = 0.0

    def at(self, angle: float) -> Point:
        """The point of a parameter (the eccentric angle)."""
        t = math.radians(angle)
        c, s = math.cos(math.radians(self.turn)), math.sin(math.radians(self.turn))
        u, v = self.rx * math.cos(t), self.ry * math.sin(t)
        return (self.centre[0] + u * c - v * s, self.centre[1] - u * s - v * c)


class Path(NamedTuple):
    """Straight sides through corners, in order; closed: a polygon."""

    corners: tuple[Point, ...]
    closed: bool = True

    def sides(self) -> list[Line]:
        ends = zip(self.corners, self.corners[1:], strict=False)
        found = [Line(a, b) for a, b in ends]
        return [*found, Line(self.corners[-1], self.corners[0])] if self.closed else found


class Angle(NamedTuple):
    """From the arm through a, counter-clockwise, to the arm through b; or the smaller of the two ways round."""

    vertex: Point
    a: Point
    b: Point
    way_round: str = "inner"  # "inner" 0 to 180, "outer" 180 to 360, "turn" counter-clockwise from a to b


class Graph(NamedTuple):
    """The graph of a function: branches as samples, with the function itself between them.

    ts: the parameters of the samples of each branch; points: where they lie. place: the place of a parameter, raising
    NotThere outside. offs: how far places lie to the one side of the graph. window: whether a place can be seen. along: the
    letter that the parameter is ("x" or "y"), or "" where it is none.
    """

    ts: tuple[tuple[float, ...], ...]
    points: tuple[tuple[Point, ...], ...]
    place: Callable[[float], Point]
    offs: Callable[[Sequence[Point]], Sequence[float]]
    window: Callable[[Point], bool]
    along: str = ""


Form = Spot | Line | Circle | Ellipse | Path | Angle | Graph


def direction(a: Point, b: Point) -> float:
    """The angle of the way from a to b, 0 to 360. Raises NotThere if they coincide."""
    if a == b:
        raise NotThere(N_("Two points coincide."))
    return math.degrees(math.atan2(a[1] - b[1], b[0] - a[0])) % 360


def towards(a: Point, angle: float, distance: float) -> Point:
    """From a point, so far in a direction."""
    turn = math.radians(angle)
    return (a[0] + distance * math.cos(turn), a[1] - distance * math.sin(turn))


def span_of(angle: Angle) -> tuple[float, float]:
    """Where an angle begins and how far it opens, degrees. Raises NotThere without two arms."""
    first, second = direction(angle.vertex, angle.a), direction(angle.vertex, angle.b)
    opening = (second - first) % 360
    if opening > 360 - 1e-11:  # a hair short of nothing
        opening = 0.0
    if angle.way_round == "turn" or (angle.way_round == "inner") == (opening <= 180):
        return first, opening
    return second, (360 - opening) % 360 if angle.way_round == "inner" else 360 - opening


def box_round(form: Form) -> Box:
    """The smallest upright box; of a line or a ray, that of its two points."""
    match form:
        case Spot(x, y):
            return Box(x, y, x, y)
        case Line(a, b):
            return box_of([a, b])
        case Circle(centre, radius, "circle"):
            return Box(centre[0] - radius, centre[1] - radius, centre[0] + radius, centre[1] + radius)
        case Circle():
            points = [form.at(form.start), form.at(form.start + form.span)]
            points += [form.at(quarter) for quarter in (0, 90, 180, 270) if form.spans(quarter)]
            return box_of([*points, form.centre] if form.form == "sector" else points)
        case Ellipse(centre, rx, ry, turn):
            c, s = math.cos(math.radians(turn)), math.sin(math.radians(turn))
            w, h = math.hypot(rx * c, ry * s), math.hypot(rx * s, ry * c)
            return Box(centre[0] - w, centre[1] - h, centre[0] + w, centre[1] + h)
        case Path(corners):
            return box_of(corners)
        case Angle(vertex, a, b):
            return box_of([vertex, a, b])
        case Graph(_ts, points):
            return box_of([point for run in points for point in run])


def outline(form: Form, fineness: float = 2.0) -> list[Point]:
    """A form as a run of points, at most `fineness` degrees of arc apart; closed forms end where they began."""
    match form:
        case Spot():
            return [form]
        case Line(a, b):
            return [a, b]
        case Path(corners, closed):
            return [*corners, corners[0]] if closed else list(corners)
        case Circle():
            count = max(2, math.ceil(form.span / fineness))
            arc = [form.at(form.start + form.span * k / count) for k in range(count + 1)]
            if form.form == "sector":
                return [form.centre, *arc, form.centre]
            return [*arc, arc[0]] if form.form == "cap" else arc
        case Ellipse():
            count = math.ceil(360 / fineness)
            return [form.at(360 * k / count) for k in range(count + 1)]
        case Angle(vertex, a, b):
            return [a, vertex, b]
        case Graph(_ts, points):
            return [point for run in points for point in run]


def sound(form: Form) -> bool:
    """Whether every number in it is finite and lies where it can be computed with."""
    match form:
        case Spot(x, y):
            return abs(x) <= FAR and abs(y) <= FAR
        case Line((ax, ay), (bx, by)):
            return abs(ax) <= FAR and abs(ay) <= FAR and abs(bx) <= FAR and abs(by) <= FAR
        case Circle((x, y), radius, _form, start, span):
            return abs(x) <= FAR and abs(y) <= FAR and 0 <= radius <= FAR and abs(start) <= FAR and 0 <= span <= 360
        case Ellipse((x, y), rx, ry, turn):
            return abs(x) <= FAR and abs(y) <= FAR and 0 < rx <= FAR and 0 < ry <= FAR and abs(turn) <= FAR
        case Path(corners):
            return all(abs(x) <= FAR and abs(y) <= FAR for x, y in corners)
        case Angle(vertex, a, b):
            return all(abs(x) <= FAR and abs(y) <= FAR for x, y in (vertex, a, b))
        case Graph():
            return True
