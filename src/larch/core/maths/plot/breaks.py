"""Where a function of one letter can break on a stretch, and what it does there."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from fractions import Fraction
from typing import Any, NamedTuple

from larch.core.maths.algebra.critical import distinct, refined_zero, watched
from larch.core.maths.algebra.polynomials import ratio_of, real_zeros
from larch.core.maths.expression.derive import derivative
from larch.core.maths.expression.evaluate import floating, values
from larch.core.maths.expression.exactly import NotRational, Undefined
from larch.core.maths.expression.precise import Budget, Value, decimal, precise
from larch.core.maths.expression.tree import Binary, Call, Node, Number, children, names_in

SAMPLES = 1600
MOST = 600
FLAT = 0.1
STEPPED = ("floor", "ceil", "round")
EFFORT = 30_000
# How near a place is come to: near enough for any limit of school, far enough for fifty digits; and where numbers get too
# large there, less near.
NEAR = (Fraction(1, 10**8), Fraction(1, 10**14), Fraction(1, 10**20))
LESS_NEAR = (Fraction(1, 1000), Fraction(1, 3000), Fraction(1, 20000))


def quick(node: Node, name: str) -> Callable[[float], float | None]:
    """The value in float64, or None where there is none."""

    def at(x: float) -> float | None:
        try:
            value = floating(node, {name: x})
        except (Undefined, OverflowError, ValueError, ZeroDivisionError):
            return None
        return value if math.isfinite(value) else None

    return at


def slowly(node: Node, name: str, x: Value) -> Value | None:
    """The value to fifty digits, or None."""
    try:
        return precise(node, {name: x}, Budget(EFFORT))
    except Undefined:
        return None


def zeros_on(node: Node, name: str, low: float, high: float, samples: int = SAMPLES) -> list[Value]:
    """Where an expression is zero on a stretch: exactly if it is rational, else sought by its signs and refined."""
    if name not in names_in(node):
        return []
    try:
        ratio = ratio_of(node, name, {})
        return [x for x in real_zeros(ratio.above) if low - 1e-12 <= x <= high + 1e-12]
    except (NotRational, ZeroDivisionError, Undefined, OverflowError):
        pass
    import numpy as np

    at = quick(node, name)
    step = (high - low) / samples
    places = [low, *(low + (k + 0.5) * step for k in range(samples)), high]
    heights = np.asarray(values(node, **{name: np.array(places, dtype=float)}))
    if (heights == 0).sum() > FLAT * len(heights):
        return []  # it is zero on a whole stretch: no single place stands out
    try:
        slope: Node | None = derivative(node, name)
    except Undefined:
        slope = None
    found: list[Value] = []
    signs = np.sign(heights)  # not a number where there is no value
    with np.errstate(invalid="ignore"):
        crossed = ((signs[:-1] == 0) & ~np.isnan(signs[1:])) | (signs[:-1] * signs[1:] < 0)
    for k in np.flatnonzero(crossed).tolist():
        if len(found) > MOST:
            break
        a, b = at(places[k]), at(places[k + 1])  # the last digit can be another one by one
        if a is not None and b is not None and (a == 0 or a * b < 0):
            found += refined_zero(node, slope, name, at, places[k], places[k + 1])
    if heights[-1] == 0:
        found.append(Fraction(high))
    return [x for x in distinct(found) if low - 1e-12 <= x <= high + 1e-12]


def can_break(node: Node, name: str) -> Iterator[Node]:
    """Expressions at whose zeros a function can break or bend: not its own zeros."""
    for part in watched(node):
        if name in names_in(part):
            yield part


def _steps(node: Node, name: str, low: float, high: float) -> Iterator[Node]:
    """For whole parts: where what is stepped passes a whole number on this stretch."""
    if isinstance(node, Call) and node.function in (*STEPPED, "mod") and name in names_in(node):
        inside = node.arguments[0] if node.function != "mod" else Binary("/", node.arguments[0], node.arguments[1])
        at = quick(inside, name)
        known = [v for v in (at(low + (high - low) * k / 200) for k in range(201)) if v is not None]
        if known and max(known) - min(known) < MOST:
            half = Fraction(1, 2) if node.function == "round" else Fraction(0)
            for k in range(math.floor(min(known)) - 1, math.ceil(max(known)) + 2):
                yield Binary("-", inside, Number(k + half, str(k + half)))
    for child in children(node):
        yield from _steps(child, name, low, high)


def breaks(node: Node, name: str, low: float, high: float) -> list[Value]:
    """All places on a stretch where a function can break or bend, in order."""
    parts = dict.fromkeys(part for part in can_break(node, name) if not _is_step(part, node))
    found: list[Value] = []
    for part in (*parts, *_steps(node, name, low, high)):
        found += zeros_on(part, name, low, high)
        for below in _divided(part):
            if name in names_in(below):
                found += zeros_on(below, name, low, high)
    return [x for x in distinct(found) if low <= x <= high]


def _is_step(part: Node, node: Node) -> bool:
    """Whether it comes from the fixed list of steps that `watched` has."""
    return isinstance(part, Binary) and part.op == "-" and isinstance(part.right, Number) and _has_steps(node)


def _has_steps(node: Node) -> bool:
    return (isinstance(node, Call) and node.function in STEPPED) or any(map(_has_steps, children(node)))


def _divided(node: Node) -> Iterator[Node]:
    if isinstance(node, Binary) and node.op == "/":
        yield node.right
    for child in children(node):
        yield from _divided(child)


class Side(NamedTuple):
    """kind: "finite", "infinite", "none" (not defined there) or "wild". limit: where it is finite; sign: of an infinity."""

    kind: str
    limit: Any = None
    sign: int = 0


def side(node: Node, name: str, x: Value, way: int) -> Side:
    """What a function does as it comes to a place from one side: way is −1 from the left, 1 from the right."""
    for distances in (NEAR, LESS_NEAR):
        places = [x + way * away if isinstance(x, Fraction) else decimal(x) + way * decimal(away) for away in distances]
        found = [slowly(node, name, place) for place in places]
        if None not in found:
            break
    else:
        return Side("none")
    a, b, c = (decimal(value) for value in found if value is not None)
    if distances is LESS_NEAR:
        round_one = Fraction(round(float(c), 2)).limit_denominator(100)
        if all(abs(v - decimal(round_one)) <= 3 * decimal(d) for v, d in zip((a, b, c), distances, strict=True)):
            return Side("finite", decimal(round_one))  # x·sin(1/x): no nearer place can be worked out, nor need be
    if abs(c - b) <= 1e-4 * (1 + abs(c)) and abs(c - b) <= abs(b - a) + 1e-12 * (1 + abs(c)):
        return Side("finite", c)
    if abs(c) > abs(b) > abs(a) and abs(c - b) > 1e-3:
        return Side("infinite", None, 1 if c > 0 else -1)
    return Side("wild")
