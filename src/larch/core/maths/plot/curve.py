"""What `larch plot` answers for an equation in x and y that is solved for neither."""

from __future__ import annotations

import math
from collections.abc import Iterator
from fractions import Fraction
from typing import Any

from larch.core.base.words import _
from larch.core.maths.algebra.critical import distinct
from larch.core.maths.expression import Undefined, value_at
from larch.core.maths.expression.derive import derivative
from larch.core.maths.expression.precise import as_float
from larch.core.maths.expression.tree import Name, Node, Number
from larch.core.maths.hand.slots import replaced
from larch.core.maths.implicit import traced
from larch.core.maths.plot.breaks import zeros_on

STEPS = 60
CLOSE, CROSSING = 1e-9, 1e-6
EDGE = 0.02  # of the window, within which a curve is taken to go on beyond it
ZERO = Number(Fraction(0), "0")


def curve_answer(formula: Node, low: float, high: float) -> dict[str, Any]:
    """{"kind": "curve", "branches", "features"} of formula = 0, for y as far from 0 as x goes."""
    far = max(abs(low), abs(high), (high - low) / 2)
    lines = traced(formula, (low, high, -far, far))
    branches = [[[float(x), float(y)] for x, y in line if low <= x <= high] for line in lines]
    tops = turns(formula, branches, 1)
    sides = turns(formula, branches, 0)
    on_y = [as_float(y) for y in distinct(zeros_on(replaced(formula, Name("x"), ZERO), "y", -far, far))]
    roots = [as_float(x) + 0.0 for x in distinct(zeros_on(replaced(formula, Name("y"), ZERO), "x", low, high))]
    return {
        "kind": "curve",
        "branches": [branch for branch in branches if len(branch) > 1],
        "features": {
            "roots": roots,
            "extrema": [{"x": x, "y": y, "kind": kind} for x, y, kind in tops],
            "inflections": [], "poles": [], "holes": [], "jumps": [],
            "y_intercept": on_y[0] + 0.0 if len(on_y) == 1 else None,
            "domain": _domain(branches, [x for x, _y, _kind in sides], low, high, far),
        },
    }  # fmt: skip


def turns(formula: Node, branches: list[list[list[float]]], along: int) -> list[tuple[float, float, str]]:
    """Where the pieces turn back in y (along 1) or in x (0): refined by Newton's iteration on the equation and its
    derivative by the other letter."""
    found: list[tuple[float, float, str]] = []
    try:
        slope = derivative(formula, "x" if along else "y")
    except Undefined:
        return []
    for x, y, kind in _candidates(branches, along):
        place = _refined(formula, slope, x, y, along)
        if place is not None and not any(math.dist(place, other[:2]) < 1e-6 for other in found):
            found.append((place[0] + 0.0, place[1] + 0.0, kind))
    return sorted(found)


def _candidates(branches: list[list[list[float]]], along: int) -> Iterator[tuple[float, float, str]]:
    for branch in branches:
        closed = len(branch) > 3 and math.dist(branch[0], branch[-1]) < 1e-6
        ring = [branch[-2], *branch, branch[1]] if closed else branch
        for before, here, after in zip(ring, ring[1:], ring[2:], strict=False):
            a, b, c = before[along], here[along], after[along]
            if (b - a) * (c - b) < 0 or (b - a != 0 and c == b):
                yield here[0], here[1], "maximum" if b > a else "minimum"


def _refined(formula: Node, slope: Node, x: float, y: float, along: int) -> tuple[float, float] | None:
    """None where it does not come to rest, or where the curve crosses or ends in itself."""
    try:
        parts = [derivative(part, name) for part in (formula, slope) for name in ("x", "y")]
        for _step in range(STEPS):
            f, g = (float(value_at(part, x=x, y=y)) for part in (formula, slope))
            a, b, c, d = (float(value_at(part, x=x, y=y)) for part in parts)
            size = a * d - b * c
            if not size:
                return None
            dx, dy = (f * d - g * b) / size, (a * g - c * f) / size
            x, y = x - dx, y - dy
            if abs(dx) + abs(dy) < 1e-15 * (1 + abs(x) + abs(y)):
                break
        f, g = (float(value_at(part, x=x, y=y)) for part in (formula, slope))
    except (Undefined, OverflowError, ZeroDivisionError):
        return None
    plain = abs(b if along else a) > CROSSING * (1 + abs(a) + abs(b) + abs(c) + abs(d))
    return (x, y) if plain and abs(f) + abs(g) < CLOSE * (1 + abs(a) + abs(d)) else None


def _domain(branches: list[list[list[float]]], turns: list[float], low: float, high: float, far: float) -> str:
    """The values of x on it, where all of it is seen; "" where it goes on."""
    spans: list[tuple[float, float]] = []
    slack = 1e-6 * (high - low)
    for branch in branches:
        xs, ys = [x for x, _y in branch], [y for _x, y in branch]
        edge = EDGE * (high - low)
        if not xs or min(xs) <= low + edge or max(xs) >= high - edge or max(map(abs, ys)) >= far * (1 - EDGE):
            return ""
        spans.append((_at_turn(min(xs), turns, slack), _at_turn(max(xs), turns, slack)))
    merged: list[tuple[float, float]] = []
    for a, b in sorted(spans):
        if merged and a <= merged[-1][1] + slack:
            merged[-1] = (merged[-1][0], max(b, merged[-1][1]))
        else:
            merged.append((a, b))
    return _(" or ").join(f"{_short(a)} ≤ x ≤ {_short(b)}" for a, b in merged)


def _at_turn(x: float, turns: list[float], slack: float) -> float:
    return min(turns, key=lambda turn: abs(turn - x), default=x) if any(abs(turn - x) < 100 * slack for turn in turns) else x


def _short(x: float) -> str:
    return f"{x:.6f}".rstrip("0").rstrip(".").replace("-", "−") if abs(x) > 1e-9 else "0"
