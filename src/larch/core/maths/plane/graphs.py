"""Graphs of functions as forms: what meets them, and where on them a place is nearest."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from itertools import pairwise

from larch.core.base.shape import Point
from larch.core.base.words import N_
from larch.core.maths.plane.forms import SAME, Angle, Circle, Ellipse, Form, Graph, Line, NotThere, Path, Spot, direction

CLOSE = 1e-7  # page units within which a curve that does not cross touches
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
            points = _along(graph, off)
        except NotThere as reason:
            why = reason
            continue
        kept = [p for p in points if held(p)]
        if points and not kept:
            why = NotThere(N_("They end before they meet."))
        found += [p for p in kept if all(math.dist(p, q) > 1e-6 for q in found)]
    if not found:
        raise why if why is not None and len(parts) == 1 else NotThere(N_("They do not meet."))
    return found[:MOST_MEETINGS]


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


def _along(graph: Graph, off: Off) -> list[Point]:
    """The places of a graph at which a function of the place is nothing."""
    found: list[float] = []
    flat = 0
    count = 0
    for ts, points in zip(graph.ts, graph.points, strict=True):
        heights = off(points)
        flat += sum(abs(h) < SAME for h in heights)
        count += len(heights)
        if flat > 20 and flat == count:
            continue
        for k, (before, after) in enumerate(pairwise(heights)):
            if before == 0:
                found.append(ts[k])
            elif before * after < 0:
                found.append(_root(graph, off, ts[k], ts[k + 1]))
        if heights[-1] == 0:
            found.append(ts[-1])
        found += _touches(graph, off, ts, heights)
        if len(found) > 4 * MOST_MEETINGS:
            break
    if flat > 20 and flat == count:
        raise NotThere(N_("They lie on each other."))
    places = [graph.place(t) for t in sorted(found)]
    if not places:
        raise NotThere(N_("They do not meet."))
    return places


def _root(graph: Graph, off: Off, low: float, high: float) -> float:
    """False position, held to the bracket by halving the kept end's weight (the Illinois method)."""
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
        same = (before > 0) == (here > 0) == (after > 0) and here != 0
        if not (same and abs(here) <= abs(before) and abs(here) <= abs(after) and abs(here) < 2.0):
            continue
        low, high = ts[k - 1], ts[k + 1]
        for _round in range(60):
            third = (high - low) * 0.381966
            left, right = off([graph.place(low + third), graph.place(high - third)])
            if (left > 0) != (here > 0) or (right > 0) != (here > 0):
                break  # it does cross, between the samples
            if abs(left) < abs(right):
                high -= third
            else:
                low += third
        middle = (low + high) / 2
        (least,) = off([graph.place(middle)])
        if (least > 0) != (here > 0) and least != 0:
            found += [_root(graph, off, ts[k - 1], middle), _root(graph, off, middle, ts[k + 1])]
        elif abs(least) < CLOSE:
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
