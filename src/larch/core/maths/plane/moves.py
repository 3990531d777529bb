"""Similarities of the plane: reflections, rotations, translations, enlargements, and what follows on each other."""

from __future__ import annotations

import cmath
import math
from typing import NamedTuple, TypeVar

from larch.core.base.shape import Point
from larch.core.base.words import N_
from larch.core.maths.plane.forms import Angle, Circle, Ellipse, Form, Graph, Line, NotThere, Path, Spot

F = TypeVar("F", bound=Form)


class Move(NamedTuple):
    """z becomes a·z + b, or a·z̄ + b if it turns the plane over. Complex numbers x + iy, y downwards."""

    a: complex = 1 + 0j
    b: complex = 0j
    over: bool = False

    def point(self, p: Point) -> Point:
        z = self.a * complex(p[0], -p[1] if self.over else p[1]) + self.b
        return (z.real, z.imag)

    def then(self, other: Move) -> Move:
        """First this one, then the other."""
        if other.over:
            return Move(other.a * self.a.conjugate(), other.a * self.b.conjugate() + other.b, not self.over)
        return Move(other.a * self.a, other.a * self.b + other.b, self.over)

    def inverse(self) -> Move:
        """What undoes it. Raises ZeroDivisionError for an enlargement to nothing, which is never made."""
        a, b = 1 / self.a, -self.b / self.a
        return Move(a.conjugate(), b.conjugate(), True) if self.over else Move(a, b)

    @property
    def factor(self) -> float:
        return abs(self.a)

    def angle(self, degrees: float) -> float:
        """Where a direction is carried to."""
        turn = -math.degrees(cmath.phase(self.a))
        return ((-degrees if self.over else degrees) + turn) % 360

    def form(self, form: Form) -> Form:
        """The image of a form."""
        match form:
            case Spot():
                return Spot(*self.point(form))
            case Line(a, b, kind):
                return Line(self.point(a), self.point(b), kind)
            case Path(corners, closed):
                return Path(tuple(self.point(corner) for corner in corners), closed)
            case Circle(centre, radius, kind, start, span):
                first = self.angle(start + span if self.over else start) if kind != "circle" else 0.0
                return Circle(self.point(centre), radius * self.factor, kind, first, span)
            case Ellipse(centre, rx, ry, turn):
                return Ellipse(self.point(centre), rx * self.factor, ry * self.factor, self.angle(turn))
            case Graph():
                raise NotThere(N_("A graph keeps to its axes."))
            case Angle(vertex, a, b, way_round):
                if self.over and way_round == "turn":
                    a, b = b, a
                return Angle(self.point(vertex), self.point(a), self.point(b), way_round)


def reflection(line: Line) -> Move:
    """In a line. Raises NotThere if its two points coincide."""
    way = complex(*line.way)
    if way == 0:
        raise NotThere(N_("The mirror line has no direction: its two points coincide."))
    way /= abs(way)
    a = way * way
    origin = complex(*line.a)
    return Move(a, origin - a * origin.conjugate(), True)


def rotation(centre: Point, degrees: float) -> Move:
    """About a point, counter-clockwise as seen; exact at quarter turns."""
    exact = {0.0: 1 + 0j, 90.0: -1j, 180.0: -1 + 0j, 270.0: 1j}
    a = exact.get(degrees % 360, cmath.exp(complex(0, -math.radians(degrees))))
    origin = complex(*centre)
    return Move(a, origin - a * origin)


def point_reflection(centre: Point) -> Move:
    return rotation(centre, 180)


def translation(way: Point) -> Move:
    return Move(1 + 0j, complex(*way))


def enlargement(centre: Point, factor: float) -> Move:
    """From a centre; a negative factor turns it round as well. Raises NotThere for a factor of nothing."""
    if factor == 0 or not math.isfinite(factor):
        raise NotThere(N_("An enlargement needs a factor other than nothing."))
    origin = complex(*centre)
    return Move(complex(factor), origin - factor * origin)


def glide(line: Line, distance: float) -> Move:
    """Reflected in a line and moved along it."""
    mirror = reflection(line)
    way = complex(*line.way)
    return mirror.then(Move(1 + 0j, way / abs(way) * distance))
