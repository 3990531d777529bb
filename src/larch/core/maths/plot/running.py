"""What stands out on curves that are no functions: (f(t), g(t)), r = f(θ), and equations in x and y."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any, NamedTuple

from larch.core.maths.expression.derive import derivative
from larch.core.maths.expression.exactly import Undefined
from larch.core.maths.expression.precise import Value, as_float, decimal
from larch.core.maths.expression.tree import Name, Node
from larch.core.maths.geometry import crossing_pieces
from larch.core.maths.graph import Curve
from larch.core.maths.hand.slots import replaced
from larch.core.maths.implicit import traced
from larch.core.maths.parametric import coordinates, places, sampled
from larch.core.maths.plot.breaks import slowly, zeros_on
from larch.core.maths.plot.curve import ZERO, turns

SAME = 1e-7  # of its size, by which places differ that are told apart
COARSE = 500  # pieces among which crossings of a curve with itself are looked for
NEWTON = 30
LEVEL = 1e-4  # the sine of an angle under which it lies on itself and does not cross


class Place(NamedTuple):
    """kind: "zero", "axis", "minimum", "maximum", "leftmost", "rightmost", "double" (crossing), "closed" (end)."""

    kind: str
    x: Value
    y: Value


def run_places(curve: Curve) -> list[Place]:
    """Of a curve along "t" or "polar", on the whole of its span, in the order of its letter; each place once a kind."""
    name, x_node, y_node = coordinates(curve)
    low, high = curve.span
    ends = list(_ends(curve))
    found = [*_of_letter(x_node, y_node, name, (low, high), not ends), *ends, *_doubles(curve)]
    return _once([Place(kind, x, y) for _t, kind, x, y in sorted(found, key=lambda one: one[0])])


def _of_letter(
    x_node: Node, y_node: Node, name: str, span: tuple[float, float], closed: bool
) -> Iterator[tuple[float, str, Value, Value]]:
    low, high = span

    def at(t: Value) -> tuple[Value, Value] | None:
        x, y = slowly(x_node, name, t), slowly(y_node, name, t)
        return None if x is None or y is None else (x, y)

    for kind, node in (("zero", y_node), ("axis", x_node)):
        for t in zeros_on(node, name, low, high):
            if (pair := at(t)) is not None:
                yield as_float(t), kind, *((pair[0], 0) if kind == "zero" else (0, pair[1]))
    for (less, more), node in ((("minimum", "maximum"), y_node), (("leftmost", "rightmost"), x_node)):
        try:
            slope = derivative(node, name)
        except Undefined:
            continue
        gap = (high - low) * 1e-5
        beyond = gap if closed else -gap
        for t in zeros_on(slope, name, low - beyond, high + beyond):
            pair = at(t)
            before, after = (slowly(slope, name, decimal(t) + decimal(by)) for by in (-gap, gap))
            if pair is not None and before is not None and after is not None and before * after < 0:
                yield as_float(t), less if before < 0 else more, *pair


def _ends(curve: Curve) -> Iterator[tuple[float, str, Value, Value]]:
    """Where it begins and ends, unless it is closed."""
    name, x_node, y_node = coordinates(curve)
    made = []
    for t in curve.span:
        x, y = slowly(x_node, name, t), slowly(y_node, name, t)
        if x is not None and y is not None:
            made.append((t, "closed", x, y))
    if len(made) == 2 and _apart(made[0][2:], made[1][2:]) < SAME * 10:
        return
    yield from made


def _doubles(curve: Curve) -> Iterator[tuple[float, str, Value, Value]]:
    """Where it crosses itself: pieces that cross, then Newton's iteration on both values of the letter."""
    import numpy as np

    for ts, points in sampled(curve):
        skip = max(1, len(ts) // COARSE)
        t, p = ts[::skip], points[::skip]
        for i, j in crossing_pieces(p):
            if i == 0 and j == len(p) - 2:
                continue
            pair = _crossing(curve, float(t[i]), float(t[j]), float(t[1] - t[0]))
            if pair is not None:
                x, y = places(curve, np.array([pair]))[0].tolist()
                yield pair, "double", x, y


def _crossing(curve: Curve, s: float, t: float, step: float) -> float | None:
    """The first value of the letter; None where it does not come to rest, or both values become one."""
    import numpy as np

    h = step * 1e-4
    for _round in range(NEWTON):
        at = places(curve, np.array([s, t, s - h, s + h, t - h, t + h]))
        if not np.isfinite(at).all():
            return None
        matrix = np.column_stack([(at[3] - at[2]) / (2 * h), (at[4] - at[5]) / (2 * h)])
        size = np.hypot(*matrix)
        if abs(np.linalg.det(matrix)) < LEVEL * size[0] * size[1]:
            return None
        try:
            ds, dt = np.linalg.solve(matrix, at[1] - at[0])
        except np.linalg.LinAlgError:
            return None
        if max(abs(ds), abs(dt)) > 4 * step:
            return None
        s, t = s + float(ds), t + float(dt)
        if max(abs(ds), abs(dt)) < 1e-13 * (1 + abs(t)):
            low, high = curve.span
            return s if t - s > step and low <= s and t <= high else None
    return None


def curve_places(formula: Node, window: tuple[float, float, float, float]) -> list[Place]:
    """Of formula = 0 within a window (x from, to, y from, to)."""
    low, high, bottom, top = window
    branches = [[[float(x), float(y)] for x, y in line] for line in traced(formula, window)]
    found = [Place("zero", x, 0) for x in zeros_on(replaced(formula, Name("y"), ZERO), "x", low, high)]
    found += [Place("axis", 0, y) for y in zeros_on(replaced(formula, Name("x"), ZERO), "y", bottom, top)]
    found += [Place(kind, x, y) for x, y, kind in turns(formula, branches, 1)]
    sides = {"minimum": "leftmost", "maximum": "rightmost"}
    found += [Place(sides[kind], x, y) for x, y, kind in turns(formula, branches, 0)]
    return _once(sorted(found, key=lambda one: (as_float(one.x), as_float(one.y))))


def _once(found: list[Place]) -> list[Place]:
    kept: list[Place] = []
    for one in found:
        if not any(one.kind == other.kind and _apart(one[1:], other[1:]) < SAME for other in kept):
            kept.append(one)
    return kept


def _apart(one: Any, other: Any) -> float:
    """How far two places are apart, as a share of their size beyond 1."""
    a, b = ([as_float(value) for value in pair] for pair in (one, other))
    return math.dist(a, b) / max(1.0, *map(abs, a))
