"""How far a place is from a form, and where on the form it is nearest."""

from __future__ import annotations

import math

from larch.core.base.shape import Point
from larch.core.base.words import N_
from larch.core.maths.plane.forms import Angle, Circle, Ellipse, Form, Graph, Line, NotThere, Path, Spot, direction
from larch.core.maths.plane.graphs import graph_parameter


def along(line: Line, at: Point) -> float:
    """The multiple of the line's way, from a, at which a place is nearest; kept within its ends."""
    wx, wy = line.way
    size = wx * wx + wy * wy
    if size == 0:
        return 0.0
    t = ((at[0] - line.a[0]) * wx + (at[1] - line.a[1]) * wy) / size
    low, high = line.bounds()
    return min(max(t, low), high)


def at_share(line: Line, t: float) -> Point:
    return (line.a[0] + t * line.way[0], line.a[1] + t * line.way[1])


def parameter(form: Form, at: Point) -> float:
    """The number that tells where on a form the nearest point to a place is; `on_form` goes back.

    Lines: multiples of their way; circles and ellipses: an angle; paths: number of the side, and the share of it.
    """
    match form:
        case Line():
            return along(form, at)
        case Circle(centre):
            angle = direction(centre, at) if at != centre else form.start
            if form.spans(angle):
                return angle
            first, last = form.at(form.start), form.at(form.start + form.span)
            return form.start if math.dist(at, first) <= math.dist(at, last) else form.start + form.span
        case Ellipse():
            return _on_ellipse(form, at)
        case Path():
            best = min(((math.dist(at_share(side, along(side, at)), at), k) for k, side in enumerate(form.sides())))
            share = along(form.sides()[best[1]], at)
            return best[1] + min(share, 1 - 1e-12)
        case Angle(vertex, first, second):
            arms = (Line(vertex, first, "ray"), Line(vertex, second, "ray"))
            return parameter(min(arms, key=lambda arm: distance(arm, at)), at)
        case Graph():
            return graph_parameter(form, at)
        case Spot():
            return 0.0


def on_form(form: Form, t: float) -> Point:
    """The point of a form at a parameter. Raises NotThere where there is none."""
    match form:
        case Line():
            low, high = form.bounds()
            return at_share(form, min(max(t, low), high))
        case Circle() | Ellipse():
            return form.at(t)
        case Path():
            sides = form.sides()
            if not sides:
                raise NotThere(N_("It has no sides."))
            k = min(max(int(t), 0), len(sides) - 1)
            return at_share(sides[k], min(max(t - k, 0.0), 1.0))
        case Angle(vertex, a, _b):
            return on_form(Line(vertex, a, "ray"), t)
        case Graph():
            return form.place(t)
        case Spot():
            return form


def _on_ellipse(form: Ellipse, at: Point) -> float:
    """The parameter of the nearest point. In the quarter in which the place lies there is just one foot of a normal
    (Eberly, "Distance from a point to an ellipse"); it is found by Newton's steps that fall back on halving."""
    c, s = math.cos(math.radians(form.turn)), math.sin(math.radians(form.turn))
    dx, dy = at[0] - form.centre[0], form.centre[1] - at[1]
    across, up = dx * c + dy * s, -dx * s + dy * c
    u, v = abs(across), abs(up)
    a, b = form.rx, form.ry
    low, high = 0.0, math.pi / 2
    t = math.atan2(a * v, b * u) if u or v else (high if b < a else low)
    for _round in range(80):
        cos, sin = math.cos(t), math.sin(t)
        slope = (b * b - a * a) * sin * cos + a * u * sin - b * v * cos
        bend = (b * b - a * a) * (cos * cos - sin * sin) + a * u * cos + b * v * sin
        low, high = (low, t) if slope > 0 else (t, high)
        fresh = t - slope / bend if bend > 0 else -1.0
        if not low <= fresh <= high:
            fresh = (low + high) / 2
        if abs(fresh - t) < 1e-15:
            break
        t = fresh
    return math.degrees(math.atan2(math.copysign(math.sin(t), up), math.copysign(math.cos(t), across))) % 360


def distance(form: Form, at: Point) -> float:
    """From a place to the line of a form (not its inside)."""
    match form:
        case Spot():
            return math.dist(form, at)
        case Circle(centre, _radius, "sector" | "cap" as kind):
            edges = (
                [form.chord()]
                if kind == "cap"
                else [Line(centre, form.at(form.start)), Line(centre, form.at(form.start + form.span))]
            )
            rim = math.dist(form.at(parameter(form, at)), at)
            return min(rim, *(distance(edge, at) for edge in edges))
        case Angle(vertex, a, b):
            return min(distance(Line(vertex, a, "ray"), at), distance(Line(vertex, b, "ray"), at))
        case Graph():
            return _to_graph(form, at)
        case _:
            return math.dist(on_form(form, parameter(form, at)), at)


def _to_graph(graph: Graph, at: Point) -> float:
    try:
        away = math.dist(graph.place(graph_parameter(graph, at)), at)
    except NotThere:
        return math.inf
    return away


def within(form: Form, at: Point) -> bool:
    """Whether a place lies inside a form that has an inside."""
    from larch.core.maths.geometry import inside

    match form:
        case Circle(centre, radius, "circle"):
            return math.dist(centre, at) <= radius
        case Circle(centre, radius, kind) if kind in ("sector", "cap"):
            from larch.core.maths.plane.forms import outline

            return math.dist(centre, at) <= radius and inside(outline(form), *at)
        case Ellipse(centre, rx, ry, turn):
            c, s = math.cos(math.radians(turn)), math.sin(math.radians(turn))
            dx, dy = at[0] - centre[0], centre[1] - at[1]
            return rx > 0 and ry > 0 and ((dx * c + dy * s) / rx) ** 2 + ((-dx * s + dy * c) / ry) ** 2 <= 1
        case Path(corners, True):
            return inside(corners, *at)
    return False


def drag_two(before: tuple[Point, Point], after: tuple[Point, Point]) -> tuple[float, Point, Point]:
    """What two fingers do to what lies between them: a turn in degrees about a place, and then a shift."""
    (ax, ay), (bx, by) = before
    (cx, cy), (dx, dy) = after
    turn = math.degrees(math.atan2(ay - by, bx - ax))
    now = math.degrees(math.atan2(cy - dy, dx - cx))
    middle = ((ax + bx) / 2, (ay + by) / 2)
    to = ((cx + dx) / 2, (cy + dy) / 2)
    return (now - turn + 180) % 360 - 180, middle, (to[0] - middle[0], to[1] - middle[1])
