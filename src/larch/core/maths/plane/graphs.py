"""Graphs of functions as forms: what meets them, and where on them a place is nearest."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from itertools import pairwise

from larch.core.base.shape import Point
from larch.core.base.words import N_
from larch.core.maths.plane.forms import SAME, Angle, Circle, Ellipse, Form, Graph, Line, NotThere, Path, Spot, direction

CLOSE = 1e-7  # page units within which a curve that does not cross touches
NEAR = 0.01  # page units: when the end of a branch is asked whether it lies on the other
THERE = 1e-5  # page units within which what changes its sign meets; a pole or a jump does so, too, and does not
MOST_MEETINGS = 40
EDGE = 1e-9

Off = Callable[[Sequence[Point]], Sequence[float]]


def graph_meetings(graph: Graph, other: Form) -> list[Point]:
    """Where a graph meets another form, branch by branch along it. Raises NotThere with the reason if nowhere.

    The sign of the other's equation is looked at along the samples of the graph, and every change bisected on the
    function itself; where it comes near nothing without changing, golden-section search tells whether they touch.
    """
    found: list[Point] = []
    why: NotThere | None = None
    parts: list[Form] = list(_parts(other))
    for part in parts:
        off, held = _off(part), _holder(part)
        try:
            points = _along(_shared(graph, part), off, part)
        except NotThere as reason:
            why = reason
            continue
        kept = [p for p in points if held(p)]
        if points and not kept:
            why = NotThere(N_("They end before they meet."))
        for p in kept:
            if all(math.dist(p, q) > 1e-6 for q in found):
                found.append(p)
    if not found:
        raise why if why is not None and len(parts) == 1 else NotThere(N_("They do not meet."))
    return found[:MOST_MEETINGS]


def _shared(graph: Graph, other: Form) -> Graph:
    """For two graphs along the same letter: the stretches on which both are unbroken, with the samples of both, so that
    nothing is looked for across a pole or a jump of the other. Else the graph as it is."""
    if not (isinstance(other, Graph) and graph.along and graph.along == other.along):
        return graph
    runs: list[tuple[float, ...]] = []
    points: list[tuple[Point, ...]] = []
    for ts, at in zip(graph.ts, graph.points, strict=True):
        known = dict(zip(ts, at, strict=True))
        for us in other.ts:
            low, high = max(ts[0], us[0]), min(ts[-1], us[-1])
            if low >= high:
                continue
            both = sorted({t for t in (*ts, *us) if low <= t <= high})
            runs.append(tuple(both))
            points.append(tuple(known.get(t) or graph.place(t) for t in both))
    return graph._replace(ts=tuple(runs), points=tuple(points))


def _parts(form: Form) -> Sequence[Form]:
    match form:
        case Path():
            return form.sides()
        case Angle(vertex, a, b):
            return [Line(vertex, a, "ray"), Line(vertex, b, "ray")]
        case Spot():
            raise NotThere(N_("A point does not meet anything."))
    return [form]


def _off(form: Form) -> Off:
    """A function that is nothing on the form and changes its sign across it."""
    match form:
        case Line(a):
            wx, wy = form.way
            size = math.hypot(wx, wy)
            if size == 0:
                raise NotThere(N_("Two points coincide, so there is no line."))
            return lambda points: [((x - a[0]) * wy - (y - a[1]) * wx) / size for x, y in points]
        case Circle(centre, radius):
            if radius <= 0:
                raise NotThere(N_("The circle has no size."))
            return lambda points: [math.dist(p, centre) - radius for p in points]
        case Ellipse(centre, rx, ry, turn):
            if min(rx, ry) <= 0:
                raise NotThere(N_("The ellipse has no size."))
            c, s = math.cos(math.radians(turn)), math.sin(math.radians(turn))
            cx, cy = centre

            def squeezed(p: Point) -> float:
                dx, dy = p[0] - cx, p[1] - cy
                return (math.hypot((dx * c - dy * s) / rx, (dx * s + dy * c) / ry) - 1) * min(rx, ry)

            return lambda points: [squeezed(p) for p in points]
        case Graph():
            return form.offs
    raise NotThere(N_("A point does not meet anything."))


def _holder(form: Form) -> Callable[[Point], bool]:
    """Whether a place on the whole line or circle belongs to the part of it that there is."""
    match form:
        case Line(a):
            wx, wy = form.way
            low, high = form.bounds()
            size = wx * wx + wy * wy
            return lambda p: low - EDGE <= ((p[0] - a[0]) * wx + (p[1] - a[1]) * wy) / size <= high + EDGE
        case Circle(centre):
            return lambda p: p == centre or form.spans(direction(centre, p), 1e-7)
        case Graph():
            return form.window
    return lambda p: True


def _along(graph: Graph, off: Off, other: Form) -> list[Point]:
    """The places of a graph at which a function of the place is nothing."""
    found: list[float] = []
    together = False
    for all_ts, all_points in zip(graph.ts, graph.points, strict=True):
        ts, points = _thinned(all_ts, all_points)
        heights = off(points)
        level = [abs(h) < SAME for h in heights]
        flat = [a and b for a, b in pairwise(level)]  # stretches on which they lie on each other
        together = together or any(flat[k] and flat[k + 1] for k in range(len(flat) - 1))
        for k, (before, after) in enumerate(pairwise(heights)):
            if flat[k]:
                continue
            if before == 0 and k > 0 and not flat[k - 1]:
                found.append(ts[k])
            elif before * after < 0:
                found += _root(graph, off, ts[k], ts[k + 1])
        found += _touches(graph, off, ts, heights)
        found += [
            t
            for k, by in ((0, 0), (-1, -1))
            if not flat[by] and abs(heights[k]) < NEAR
            for t in _at_end(graph, off, other, ts[k])
        ]
        if len(found) > 4 * MOST_MEETINGS:
            break
    places = [graph.place(t) for t in sorted(found)]
    if not places:
        raise NotThere(N_("They lie on each other.") if together else N_("They do not meet."))
    return places


def _thinned(ts: Sequence[float], points: Sequence[Point]) -> tuple[list[float], list[Point]]:
    """Without the samples that crowd where a branch comes near a break: between them there are only rounding errors."""
    least = 1e-7 * (ts[-1] - ts[0])
    kept = [0]
    for k in range(1, len(ts) - 1):
        if ts[k] - ts[kept[-1]] > least and ts[-1] - ts[k] > least:
            kept.append(k)
    kept.append(len(ts) - 1)
    return [ts[k] for k in kept], [points[k] for k in kept]


def _at_end(graph: Graph, off: Off, other: Form, t: float) -> list[float]:
    """A branch is only known to come as near as 1e-11 to where it begins, as at a jump; whether that place belongs to it is
    asked of the function itself, at the round number that is meant."""
    exact = round(t, 8)
    try:
        if isinstance(other, Graph) and other.along == graph.along:
            other.place(exact)
        rest, here = off([graph.place(exact), graph.place(t)])
    except NotThere:
        return []
    return [exact] if abs(rest) < EDGE else [t] if abs(here) < EDGE else []


def _root(graph: Graph, off: Off, low: float, high: float) -> list[float]:
    """False position, held to the bracket by halving the kept end's weight (the Illinois method); nothing if the sign
    changes without passing zero."""
    try:
        t = _crossing(graph, off, low, high)
        (rest,) = off([graph.place(t)])
    except NotThere:
        return []
    return [t] if abs(rest) < THERE else []


def _crossing(graph: Graph, off: Off, low: float, high: float) -> float:
    a, b = off([graph.place(low), graph.place(high)])
    for _round in range(80):
        t = (low * b - high * a) / (b - a)
        if not low < t < high:
            t = (low + high) / 2
        (c,) = off([graph.place(t)])
        if c == 0 or high - low < 1e-14 * max(1.0, abs(t)):
            return t
        if (c < 0) == (b < 0):
            high, b, a = t, c, a / 2
        else:
            low, a, b = t, c, b / 2
        if abs(c) < 1e-12:
            return t
    return (low + high) / 2


def _touches(graph: Graph, off: Off, ts: Sequence[float], heights: Sequence[float]) -> list[float]:
    found = []
    for k in range(1, len(ts) - 1):
        before, here, after = heights[k - 1 : k + 2]
        if abs(before) < SAME and abs(after) < SAME:
            continue  # they lie on each other
        same = (before > 0) == (here > 0) == (after > 0) and here != 0
        rise = max(abs(before), abs(after)) - abs(here)
        if not (same and abs(here) <= abs(before) and abs(here) <= abs(after) and abs(here) <= 2 * rise):
            continue  # what hardly rises to both sides does not fall to nothing in between
        low, high = ts[k - 1], ts[k + 1]
        across: float | None = None
        for _round in range(60):
            third = (high - low) * 0.381966
            left, right = off([graph.place(low + third), graph.place(high - third)])
            if (left > 0) != (here > 0) or (right > 0) != (here > 0):  # it does cross, between the samples
                beyond, at = (left, low + third) if (left > 0) != (here > 0) else (right, high - third)
                across = at if abs(beyond) > EDGE else None  # or only touches, but for the last digits
                break
            if abs(left) < abs(right):
                high -= third
            else:
                low += third
        if across is not None:
            found += [*_root(graph, off, ts[k - 1], across), *_root(graph, off, across, ts[k + 1])]
            continue
        middle = (low + high) / 2
        (least,) = off([graph.place(middle)])
        if abs(least) < CLOSE:
            found.append(_lowest(graph, off, middle, (ts[k + 1] - ts[k - 1]) / 128))
    return found


def _lowest(graph: Graph, off: Off, t: float, h: float) -> float:
    """Search by values alone knows a turning place to half the digits only: the vertex of a parabola through three
    places is nearer, and what is left of its error goes with the square of their distance (Richardson)."""
    nearer: list[float] = []
    for step in (h, 2 * h):
        try:
            left, here, right = off([graph.place(t - step), graph.place(t), graph.place(t + step)])
        except NotThere:
            return t
        bend = right - 2 * here + left
        if bend == 0 or abs(right - left) > abs(bend):
            return t
        nearer.append(t - step * (right - left) / (2 * bend))
    return (4 * nearer[0] - nearer[1]) / 3


def graph_parameter(graph: Graph, at: Point) -> float:
    """The parameter whose place on the graph is nearest."""
    best = (math.inf, 0.0)
    for ts, points in zip(graph.ts, graph.points, strict=True):
        for k, (p, q) in enumerate(pairwise(points)):
            wx, wy = q[0] - p[0], q[1] - p[1]
            size = wx * wx + wy * wy
            share = min(1.0, max(0.0, ((at[0] - p[0]) * wx + (at[1] - p[1]) * wy) / size)) if size else 0.0
            away = math.hypot(p[0] + share * wx - at[0], p[1] + share * wy - at[1])
            if away < best[0]:
                best = (away, ts[k] + share * (ts[k + 1] - ts[k]))
    if best[0] == math.inf:
        raise NotThere(N_("The graph is not to be seen on these axes."))
    return best[1]
