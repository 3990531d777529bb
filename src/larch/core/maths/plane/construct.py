"""Classical constructions. Each takes points and forms and returns forms, or raises `NotThere` with the reason."""

from __future__ import annotations

import math

from larch.core.base.shape import Point
from larch.core.base.words import N_
from larch.core.maths.plane.forms import SAME, Angle, Circle, Line, NotThere, Spot, direction, span_of, towards
from larch.core.maths.plane.near import along, at_share


def midpoint(a: Point, b: Point) -> Spot:
    return Spot((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)


def foot(point: Point, line: Line) -> Spot:
    """Where the perpendicular from a point meets the whole line."""
    _directed(line)
    return Spot(*at_share(line, along(line._replace(form="line"), point)))


def perpendicular(point: Point, line: Line) -> Line:
    """The line through a point, square to another."""
    _directed(line)
    wx, wy = line.way
    return Line(point, (point[0] + wy, point[1] - wx), "line")


def parallel(point: Point, line: Line) -> Line:
    """The line through a point that runs alongside another."""
    _directed(line)
    return Line(point, (point[0] + line.way[0], point[1] + line.way[1]), "line")


def perpendicular_bisector(a: Point, b: Point) -> Line:
    """All that is as far from a as from b."""
    if a == b:
        raise NotThere(N_("The two points coincide."))
    return perpendicular(midpoint(a, b), Line(a, b))


def angle_bisector(vertex: Point, a: Point, b: Point) -> Line:
    """The ray that halves the angle between 0° and 180°."""
    first, opening = span_of(Angle(vertex, a, b))
    reach = math.dist(vertex, a)
    return Line(vertex, towards(vertex, first + opening / 2, reach), "ray")


def line_bisectors(one: Line, other: Line) -> tuple[Line, Line]:
    """The two lines that halve the angles between two lines."""
    from larch.core.maths.plane.meet import meetings

    _directed(one)
    _directed(other)
    at = meetings(one._replace(form="line"), other._replace(form="line"))[0]
    middle = (direction(*one[:2]) + direction(*other[:2])) / 2
    return Line(at, towards(at, middle, 100.0), "line"), Line(at, towards(at, middle + 90, 100.0), "line")


def circle_through(a: Point, b: Point, c: Point) -> Circle:
    """Through three points. Raises NotThere if they lie in a line or coincide."""
    if a in (b, c) or b == c:
        raise NotThere(N_("Two of the three points coincide."))
    bx, by, cx, cy = b[0] - a[0], b[1] - a[1], c[0] - a[0], c[1] - a[1]
    cross = bx * cy - by * cx
    if abs(cross) <= SAME * math.hypot(bx, by) * math.hypot(cx, cy):
        raise NotThere(N_("The three points lie in a line."))
    bb, cc = bx * bx + by * by, cx * cx + cy * cy
    ux, uy = (cy * bb - by * cc) / (2 * cross), (bx * cc - cx * bb) / (2 * cross)
    return Circle((a[0] + ux, a[1] + uy), math.hypot(ux, uy))


def circle_on_diameter(a: Point, b: Point) -> Circle:
    return Circle(midpoint(a, b), math.dist(a, b) / 2)


def arc_from(centre: Point, a: Point, b: Point, form: str) -> Circle:
    """Part of the circle about a centre through a: counter-clockwise from a to the direction of b."""
    start = direction(centre, a)
    span = (direction(centre, b) - start) % 360
    return Circle(centre, math.dist(centre, a), form, start, span or 360.0)


def arc_through(a: Point, b: Point, c: Point) -> Circle:
    """The arc from a over b to c."""
    whole = circle_through(a, b, c)
    first, middle, last = (direction(whole.centre, p) for p in (a, b, c))
    span = (last - first) % 360
    if (middle - first) % 360 > span:  # the other way round
        first, span = last, 360 - span
    return whole._replace(form="arc", start=first, span=span)


def tangents(point: Point, circle: Circle) -> list[Line]:
    """The lines through a point that touch a circle: two from outside, one on the rim."""
    if circle.radius <= 0:
        raise NotThere(N_("The circle has no size."))
    apart = math.dist(point, circle.centre)
    if abs(apart - circle.radius) <= SAME * circle.radius:
        return [perpendicular(point, Line(circle.centre, point))]
    if apart < circle.radius:
        raise NotThere(N_("No tangent passes through a point inside the circle."))
    lean = math.degrees(math.acos(circle.radius / apart))
    towards_it = direction(circle.centre, point)
    return [Line(point, circle.at(towards_it + turn), "line") for turn in (lean, -lean)]


def common_tangents(one: Circle, other: Circle) -> list[Line]:
    """Lines that touch both circles: first those outside, then those that cross between them."""
    apart = math.dist(one.centre, other.centre)
    if min(one.radius, other.radius) <= 0:
        raise NotThere(N_("The circle has no size."))
    if apart <= SAME * max(one.radius, other.radius):
        raise NotThere(N_("The circles have the same centre."))
    base = direction(one.centre, other.centre)
    found = []
    for sign in (1, -1):
        ratio = (one.radius - sign * other.radius) / apart
        if abs(ratio) > 1 + SAME:
            continue
        if abs(ratio) >= 1 - SAME:  # they touch: two tangents have become one
            turns = [0.0 if ratio > 0 else 180.0]
        else:
            lean = math.degrees(math.acos(ratio))
            turns = [lean, -lean]
        for turn in turns:
            a, b = one.at(base + turn), towards(other.centre, base + turn, sign * other.radius)
            if math.dist(a, b) > SAME * apart:
                found.append(Line(a, b, "line"))
            else:
                found.append(perpendicular(a, Line(one.centre, a)))
    if not found:
        raise NotThere(N_("One circle lies inside the other."))
    return found


def triangle_centre(name: str, a: Point, b: Point, c: Point) -> Spot:
    """ "centroid", "circumcentre", "incentre" or "orthocentre"."""
    if name == "centroid":
        return Spot((a[0] + b[0] + c[0]) / 3, (a[1] + b[1] + c[1]) / 3)
    if name == "incentre":
        sides = (math.dist(b, c), math.dist(c, a), math.dist(a, b))
        around = math.fsum(sides)
        if around == 0:
            raise NotThere(N_("The three points coincide."))
        return Spot(*(math.fsum(w * p[k] for w, p in zip(sides, (a, b, c), strict=True)) / around for k in (0, 1)))
    o = circle_through(a, b, c).centre
    if name == "circumcentre":
        return Spot(*o)
    return Spot(a[0] + b[0] + c[0] - 2 * o[0], a[1] + b[1] + c[1] - 2 * o[1])


def incircle(a: Point, b: Point, c: Point) -> Circle:
    centre = triangle_centre("incentre", a, b, c)
    radius = math.dist(centre, foot(centre, Line(a, b)))
    if radius <= SAME * math.dist(a, b):
        raise NotThere(N_("The three points lie in a line."))
    return Circle(centre, radius)


def _directed(line: Line) -> None:
    if line.a == line.b:
        raise NotThere(N_("The line has no direction: its two points coincide."))
