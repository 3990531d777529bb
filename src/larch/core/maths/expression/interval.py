"""Interval arithmetic: bounds on an expression over whole stretches of x, and where it is surely unbroken.

After Moore, Interval Analysis (1966), without outward rounding: the question asked here is whether a
function is continuous on a stretch, not its last bit. A stretch is `ok` only if the expression is defined
and continuous on all of it.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from larch.core.maths.expression.evaluate import VALUES, odd_root
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number

Array = NDArray[Any]


class Stretches(NamedTuple):
    low: Array
    high: Array
    ok: Array


def unbroken(node: Node, variable: str, low: Array, high: Array) -> Array:
    """For each stretch [low, high] of the variable: True only if the expression is continuous there."""
    with np.errstate(all="ignore"):
        found = _over(node, variable, Stretches(low, high, np.ones(len(low), dtype=bool)))
        return found.ok & np.isfinite(found.low) & np.isfinite(found.high)


def _constant(value: float, like: Stretches) -> Stretches:
    bound = np.full(len(like.low), value)
    return Stretches(bound, bound, np.ones(len(bound), dtype=bool))


def _over(node: Node, name: str, x: Stretches) -> Stretches:
    match node:
        case Number(value, _):
            return _constant(float(value), x)
        case Name(own):
            return x if own == name else _constant(VALUES.get(own, math.nan), x)
        case Negative(of):
            a = _over(of, name, x)
            return Stretches(-a.high, -a.low, a.ok)
        case Binary("^", left, right):
            return _power(_over(left, name, x), _over(right, name, x), bool(odd_root(right)))
        case Binary(op, left, right):
            return _BINARY[op](_over(left, name, x), _over(right, name, x))
        case Call(function, arguments):
            inner = [_over(argument, name, x) for argument in arguments]
            return _call(function, inner)
    return _constant(math.nan, x)


def _sum(a: Stretches, b: Stretches) -> Stretches:
    return Stretches(a.low + b.low, a.high + b.high, a.ok & b.ok)


def _difference(a: Stretches, b: Stretches) -> Stretches:
    return Stretches(a.low - b.high, a.high - b.low, a.ok & b.ok)


def _product(a: Stretches, b: Stretches) -> Stretches:
    corners = np.stack((a.low * b.low, a.low * b.high, a.high * b.low, a.high * b.high))
    return Stretches(corners.min(axis=0), corners.max(axis=0), a.ok & b.ok)


def _quotient(a: Stretches, b: Stretches) -> Stretches:
    away = (b.low > 0) | (b.high < 0)
    inverse = Stretches(np.where(away, 1 / b.high, -np.inf), np.where(away, 1 / b.low, np.inf), b.ok & away)
    return _product(a, inverse)


_BINARY: dict[str, Callable[[Stretches, Stretches], Stretches]] = {
    "+": _sum, "-": _difference, "*": _product, "/": _quotient,
}  # fmt: skip


def _power(a: Stretches, b: Stretches, odd: bool) -> Stretches:
    whole = (b.low == b.high) & (b.low == np.floor(b.low))
    positive = a.low > 0
    with np.errstate(all="ignore"):
        corners = [np.power(p, q) for p in (a.low, a.high) for q in (b.low, b.high)]
    if odd:  # an odd root: monotone up from 0 for positive exponents, in both directions
        root = np.power(np.maximum(np.abs(a.low), np.abs(a.high)), b.low)
        return Stretches(-root, root, a.ok & b.ok & ((b.low > 0) | positive | (a.high < 0)))
    low, high = np.stack(corners).min(axis=0), np.stack(corners).max(axis=0)
    straddles = (a.low <= 0) & (a.high >= 0)
    even = whole & (np.mod(b.low, 2) == 0)
    low = np.where(even & straddles & (b.low > 0), np.minimum(low, 0), low)
    defined = np.where(whole, (b.low > 0) | ~straddles, positive | ((a.low >= 0) & (b.low > 0)))
    return Stretches(low, high, a.ok & b.ok & defined)


def _rising(f: Callable[[Array], Array], lowest: float = -math.inf, highest: float = math.inf) -> Any:
    def over(a: Stretches) -> Stretches:
        inside = (a.low >= lowest) & (a.high <= highest)
        return Stretches(f(a.low), f(a.high), a.ok & inside)

    return over


def _steps(f: Callable[[Array], Array]) -> Any:
    """Functions that jump: unbroken only where both ends have one value."""

    def over(a: Stretches) -> Stretches:
        low, high = f(a.low), f(a.high)
        return Stretches(low, high, a.ok & (low == high))

    return over


def _absolute(a: Stretches) -> Stretches:
    high = np.maximum(np.abs(a.low), np.abs(a.high))
    low = np.where((a.low <= 0) & (a.high >= 0), 0.0, np.minimum(np.abs(a.low), np.abs(a.high)))
    return Stretches(low, high, a.ok)


def _wave(shift: float) -> Any:
    """sine moved by `shift`: its crests lie where (x + shift − 90°) is a whole number of turns."""

    def over(a: Stretches) -> Stretches:
        low, high = a.low + shift, a.high + shift
        ends = (np.sin(low), np.sin(high))
        crest = np.floor((high - math.pi / 2) / math.tau) > np.floor((low - math.pi / 2) / math.tau)
        trough = np.floor((high + math.pi / 2) / math.tau) > np.floor((low + math.pi / 2) / math.tau)
        return Stretches(np.where(trough, -1.0, np.minimum(*ends)), np.where(crest, 1.0, np.maximum(*ends)), a.ok)

    return over


def _tangent(a: Stretches) -> Stretches:
    same = np.floor(a.low / math.pi + 0.5) == np.floor(a.high / math.pi + 0.5)
    return Stretches(np.tan(a.low), np.tan(a.high), a.ok & same)


def _hyperbolic_cosine(a: Stretches) -> Stretches:
    size = _absolute(a)
    return Stretches(np.cosh(size.low), np.cosh(size.high), a.ok)


_FUNCTIONS: dict[str, Callable[[Stretches], Stretches]] = {
    "sin": _wave(0.0), "cos": _wave(math.pi / 2), "tan": _tangent, "abs": _absolute, "cosh": _hyperbolic_cosine,
    "exp": _rising(np.exp), "sinh": _rising(np.sinh), "tanh": _rising(np.tanh), "atan": _rising(np.arctan),
    "cbrt": _rising(np.cbrt), "degrees": _rising(np.radians), "sqrt": _rising(np.sqrt, 0.0),
    "ln": _rising(np.log, 5e-324), "log": _rising(np.log10, 5e-324), "asin": _rising(np.arcsin, -1.0, 1.0),
    "acos": lambda a: Stretches(np.arccos(a.high), np.arccos(a.low), a.ok & (a.low >= -1) & (a.high <= 1)),
    "floor": _steps(np.floor), "ceil": _steps(np.ceil), "sign": _steps(np.sign),
    "round": _steps(lambda v: np.floor(v + 0.5)),
}  # fmt: skip


def _call(function: str, inner: list[Stretches]) -> Stretches:
    if function == "min":
        a, b = inner
        return Stretches(np.minimum(a.low, b.low), np.minimum(a.high, b.high), a.ok & b.ok)
    if function == "max":
        a, b = inner
        return Stretches(np.maximum(a.low, b.low), np.maximum(a.high, b.high), a.ok & b.ok)
    if function == "mod":
        a, b = inner
        turns = _steps(np.floor)(_quotient(a, b))
        return _difference(a, _product(b, turns))
    found = _FUNCTIONS.get(function)
    if found is not None:
        return found(inner[0])
    size = len(inner[0].low)
    return Stretches(np.full(size, -np.inf), np.full(size, np.inf), np.zeros(size, dtype=bool))
