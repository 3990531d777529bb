"""Where forms meet: anything with anything, in an order that does not jump while they are moved."""

from __future__ import annotations

import math
from collections.abc import Callable

from larch.core.base.shape import Point
from larch.core.base.words import N_
from larch.core.maths.plane.forms import SAME, Angle, Circle, Ellipse, Form, Graph, Line, NotThere, Path, Spot, direction
from larch.core.maths.plane.graphs import graph_meetings

SAMPLES = 720  # of an ellipse, between which its meetings with another curve are looked for
NEAR = 1e-9  # share of their size within which two meetings are one
EDGE = 1e-9  # share of a segment by which a meeting may miss its end


def meetings(one: Form, other: Form) -> list[Point]:
    """All points that two forms share. Raises NotThere, with the reason, if there are none or endlessly many.

    Two circles: first the meeting to the left of the way from the one centre to the other. A line and a curve: in the
    order in which the line is run through. Paths: side by side.
    """
    if isinstance(one, Graph):
        return graph_meetings(one, other)
    if isinstance(other, Graph):
        return graph_meetings(other, one)
    parts = _parts(one), _parts(other)
    if len(parts[0]) + len(parts[1]) > 2:
        return _of_parts(*parts)
    a, b = _lines(one), _lines(other)
    if a is not None and b is not None:
        return _gathered([(s, t) for s in a for t in b], _line_line)
    if a is not None:
        return _gathered([(s, other) for s in a], _line_curve)
    if b is not None:
        return _gathered([(s, one) for s in b], _line_curve)
    if isinstance(one, Circle) and isinstance(other, Circle):
        return _on_parts(_circle_circle(one, other), one, other)
    if isinstance(one, Ellipse) or isinstance(other, Ellipse):
        return _ellipse_curve(one, other)
    raise NotThere(N_("A point does not meet anything."))


def _parts(form: Form) -> list[Form]:
    """A sector as its arc and its two straight edges, a cap as its arc and its chord; anything else as it is."""
    if not isinstance(form, Circle) or form.form not in ("sector", "cap"):
        return [form]
    arc = form._replace(form="arc")
    ends = form.at(form.start), form.at(form.start + form.span)
    if form.form == "cap":
        return [arc, Line(*ends)]
    return [arc, Line(form.centre, ends[0]), Line(form.centre, ends[1])]


def _of_parts(ones: list[Form], others: list[Form]) -> list[Point]:
    """The meetings of all parts of two forms, each place once; if there are none, the reason of the first two."""
    found: list[Point] = []
    why: NotThere | None = None
    for one in ones:
        for other in others:
            try:
                points = meetings(one, other)
            except NotThere as reason:
                why = why or reason
                continue
            found += [p for p in points if all(math.dist(p, q) > NEAR * max(1.0, *map(abs, q)) for q in found)]
    if not found:
        raise why or NotThere(N_("They do not meet."))
    return found


def _lines(form: Form) -> list[Line] | None:
    match form:
        case Line():
            return [form]
        case Path():
            return form.sides()
        case Angle(vertex, a, b):
            return [Line(vertex, a, "ray"), Line(vertex, b, "ray")]
        case Spot():
            return None
    return None


def _gathered(pairs: list[tuple[Line, Form]], find: Callable[[Line, Form], list[Point]]) -> list[Point]:
    """The meetings of all pairs, each place once; if there are none, the last reason."""
    found: list[Point] = []
    why: NotThere | None = None
    for line, other in pairs:
        try:
            points = find(line, other)
        except NotThere as reason:
            why = reason if why is None or len(pairs) == 1 else NotThere(N_("They do not meet."))
            continue
        size = max(abs(v) for point in (line.a, line.b) for v in point) or 1.0
        found += [p for p in points if all(math.dist(p, q) > 1e-9 * size for q in found)]
    if not found:
        raise why or NotThere(N_("They do not meet."))
    return found


def _line_line(one: Line, other: Form) -> list[Point]:
    assert isinstance(other, Line)
    (ux, uy), (vx, vy) = one.way, other.way
    u, v = math.hypot(ux, uy), math.hypot(vx, vy)
    if u == 0 or v == 0:
        raise NotThere(N_("Two points coincide, so there is no line."))
    wx, wy = other.a[0] - one.a[0], other.a[1] - one.a[1]
    cross = ux * vy - uy * vx
    if abs(cross) <= SAME * 1e-3 * u * v:
        if abs(wx * uy - wy * ux) <= SAME * u * max(math.hypot(wx, wy), u):
            return _on_one_line(one, other)
        raise NotThere(N_("They are parallel."))
    s, t = (wx * vy - wy * vx) / cross, (wx * uy - wy * ux) / cross
    if not (_held(one, s) and _held(other, t)):
        raise NotThere(N_("They end before they meet."))
    # From the nearer end, so that no digits are lost far from it.
    return [(one.a[0] + s * ux, one.a[1] + s * uy)]


def _on_one_line(one: Line, other: Line) -> list[Point]:
    """Two that lie on one line meet where the one ends and the other begins; they may also lie apart, or on each other."""
    (ux, uy), size = one.way, math.hypot(*one.way)
    shares = [((x - one.a[0]) * ux + (y - one.a[1]) * uy) / size**2 for x, y in (other.a, other.b)]
    span = shares[1] - shares[0]
    low, high = one.bounds()
    ends = sorted(shares[0] + t * span if math.isfinite(t) else math.copysign(math.inf, t * span) for t in other.bounds())
    first, last = max(low, ends[0]), min(high, ends[1])
    slack = EDGE * max(1.0, abs(span))
    if first > last + slack:
        raise NotThere(N_("They lie on one line, apart from each other."))
    if last - first > slack:
        raise NotThere(N_("They lie on each other."))
    return [(one.a[0] + first * ux, one.a[1] + first * uy)]


def _held(line: Line, share: float) -> bool:
    low, high = line.bounds()
    return low - EDGE <= share <= high + EDGE


def _line_curve(line: Line, other: Form) -> list[Point]:
    if isinstance(other, Circle):
        found = _line_circle(line, other)
        rim = [p for p in found if other.spans(direction(other.centre, p), 1e-7)]
        if not rim:
            raise NotThere(N_("The arc ends before they meet."))
        return rim
    if isinstance(other, Ellipse):
        return _line_ellipse(line, other)
    raise NotThere(N_("A point does not meet anything."))


def _line_circle(line: Line, circle: Circle) -> list[Point]:
    wx, wy = line.way
    size = math.hypot(wx, wy)
    if size == 0:
        raise NotThere(N_("Two points coincide, so there is no line."))
    if circle.radius <= 0:
        raise NotThere(N_("The circle has no size."))
    ux, uy = wx / size, wy / size
    fx, fy = circle.centre[0] - line.a[0], circle.centre[1] - line.a[1]
    foot, off = fx * ux + fy * uy, fx * uy - fy * ux
    rest = circle.radius**2 - off * off
    touch = 1e-11 * max(circle.radius**2, off * off)
    if rest < -touch:
        raise NotThere(N_("The line passes the circle by."))
    half = math.sqrt(max(0.0, rest)) if rest > touch else 0.0
    shares = [foot - half, foot + half] if half else [foot]
    inside = [s for s in shares if _held(line, s / size)]
    if not inside:
        raise NotThere(N_("They end before they meet."))
    return [(line.a[0] + s * ux, line.a[1] + s * uy) for s in inside]


def _line_ellipse(line: Line, ellipse: Ellipse) -> list[Point]:
    """The ellipse is squeezed to a circle of radius 1, where shares of the line stay what they are."""
    if ellipse.rx <= 0 or ellipse.ry <= 0:
        raise NotThere(N_("The ellipse has no size."))
    squeeze = _squeezer(ellipse)
    flat = Line(squeeze(line.a), squeeze(line.b), line.form)
    try:
        points = _line_circle(flat, Circle((0.0, 0.0), 1.0))
    except NotThere as reason:
        raise NotThere(str(reason).replace("circle", "ellipse")) from None
    (wx, wy), way = flat.way, line.way
    shares = [((x - flat.a[0]) * wx + (y - flat.a[1]) * wy) / (wx * wx + wy * wy) for x, y in points]
    return [(line.a[0] + s * way[0], line.a[1] + s * way[1]) for s in shares]


def _squeezer(ellipse: Ellipse) -> Callable[[Point], Point]:
    c, s = math.cos(math.radians(ellipse.turn)), math.sin(math.radians(ellipse.turn))

    def squeeze(p: Point) -> Point:
        dx, dy = p[0] - ellipse.centre[0], p[1] - ellipse.centre[1]
        return ((dx * c - dy * s) / ellipse.rx, (dx * s + dy * c) / ellipse.ry)

    return squeeze


def _circle_circle(one: Circle, other: Circle) -> list[Point]:
    if one.radius <= 0 or other.radius <= 0:
        raise NotThere(N_("The circle has no size."))
    dx, dy = other.centre[0] - one.centre[0], other.centre[1] - one.centre[1]
    apart = math.hypot(dx, dy)
    most = max(one.radius, other.radius)
    if apart <= SAME * most:
        same = abs(one.radius - other.radius) <= SAME * most
        raise NotThere("They are the same circle." if same else "The circles have the same centre.")
    if apart > (one.radius + other.radius) * (1 + 1e-11):
        raise NotThere(N_("The circles lie apart."))
    if apart < abs(one.radius - other.radius) * (1 - 1e-11):
        raise NotThere(N_("One circle lies inside the other."))
    foot = (apart + (one.radius - other.radius) * (one.radius + other.radius) / apart) / 2
    rest = (one.radius - foot) * (one.radius + foot)
    half = math.sqrt(max(0.0, rest)) if rest > 1e-11 * most * most else 0.0
    ux, uy = dx / apart, dy / apart
    mx, my = one.centre[0] + foot * ux, one.centre[1] + foot * uy
    if half == 0:
        return [(mx, my)]
    return [(mx + half * uy, my - half * ux), (mx - half * uy, my + half * ux)]


def _on_parts(points: list[Point], *circles: Circle) -> list[Point]:
    kept = [p for p in points if all(c.spans(direction(c.centre, p), 1e-7) for c in circles)]
    if not kept:
        raise NotThere(N_("The arc ends before they meet."))
    return kept


def _ellipse_curve(one: Form, other: Form) -> list[Point]:
    """An ellipse with an ellipse or a circle: signs of the one's equation along the other, then bisection.

    Touching curves, whose sign does not change, are found where the equation comes nearest to nothing.
    """
    first, second = (one, other) if isinstance(one, Ellipse) else (other, one)
    assert isinstance(first, Ellipse)
    if isinstance(second, Spot):
        raise NotThere(N_("A point does not meet anything."))
    round_one = Ellipse(second.centre, second.radius, second.radius) if isinstance(second, Circle) else second
    assert isinstance(round_one, Ellipse)
    if min(first.rx, first.ry, round_one.rx, round_one.ry) <= 0:
        raise NotThere(N_("The ellipse has no size."))
    squeeze = _squeezer(round_one)

    def off(t: float) -> float:
        x, y = squeeze(first.at(t))
        return x * x + y * y - 1

    step = 360 / SAMPLES
    values = [off(k * step) for k in range(SAMPLES)]
    if all(abs(v) < 1e-9 for v in values):
        raise NotThere(N_("They lie on each other."))
    found = [_root(off, k * step, (k + 1) * step) for k in range(SAMPLES) if _crosses(values[k], values[(k + 1) % SAMPLES])]
    found += [t for t in _touches(off, values, step) if all(abs((t - u + 180) % 360 - 180) > 1e-5 for u in found)]
    points = _apart([first.at(t) for t in found], max(first.rx, first.ry))
    if isinstance(second, Circle):
        points = [p for p in points if second.spans(direction(second.centre, p), 1e-7)]
    if not points:
        raise NotThere(N_("They do not meet."))
    return points


def _apart(points: list[Point], size: float) -> list[Point]:
    """Without those found twice: where the curves touch, a sample that lies just there is seen from both sides."""
    kept: list[Point] = []
    for point in points:
        if all(math.dist(point, other) > 1e-6 * size for other in kept):
            kept.append(point)
    return kept


def _crosses(a: float, b: float) -> bool:
    return (a < 0 <= b) or (b < 0 <= a)


def _root(off: Callable[[float], float], low: float, high: float) -> float:
    rising = off(low) < 0
    for _round in range(60):
        middle = (low + high) / 2
        if (off(middle) < 0) == rising:
            low = middle
        else:
            high = middle
    return (low + high) / 2


def _touches(off: Callable[[float], float], values: list[float], step: float) -> list[float]:
    """Where the equation has a least size between samples that is nothing: golden-section search."""
    found = []
    count = len(values)
    for k in range(count):
        before, here, after = abs(values[k - 1]), abs(values[k]), abs(values[(k + 1) % count])
        if here <= before and here < after and here < 1e-3:
            low, high = (k - 1) * step, (k + 1) * step
            for _round in range(80):
                third = (high - low) * 0.381966
                if abs(off(low + third)) < abs(off(high - third)):
                    high -= third
                else:
                    low += third
            if abs(off((low + high) / 2)) < 1e-9:
                found.append((low + high) / 2)
    return found
