"""Interval arithmetic: bounds on an expression over whole stretches of x, and where it is surely unbroken.

After Moore, Interval Analysis (1966), without outward rounding: the question asked here is whether a
function is continuous on a stretch, not its last bit. A stretch is `ok` only if the expression is defined
and continuous on all of it.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from fractions import Fraction
from functools import lru_cache
from itertools import pairwise
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from larch.core.maths.expression.evaluate import VALUES, odd_root
from larch.core.maths.expression.tree import Binary, Call, Joined, Name, Negative, Node, Number, Relation, children

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
        case Call("cases", arguments):
            return _cases(arguments, name, x)
        case Call("sqrt", (of,)) if (cells := _never_negative(of, name)) is not None:
            a = _over(of, name, x)
            surely = np.zeros(len(x.low), dtype=bool)
            for first, last in cells:
                surely |= (x.low >= first) & (x.high <= last)
            low = np.where(surely, np.maximum(a.low, 0.0), a.low)
            return _FUNCTIONS["sqrt"](Stretches(low, np.maximum(a.high, low), a.ok))
        case Call(function, arguments):
            inner = [_over(argument, name, x) for argument in arguments]
            return _call(function, inner)
    return _constant(math.nan, x)


@lru_cache(64)
def _never_negative(node: Node, name: str) -> tuple[tuple[float, float], ...] | None:
    """Where a polynomial has no negative value, between the places at which its sign changes; None if it is none. Interval
    arithmetic alone is too wide where it only touches zero."""
    from larch.core.maths.algebra.polynomials import at, ratio_of, real_zeros
    from larch.core.maths.expression.exactly import NotRational, Undefined

    if _count(node, name) < 2:
        return None  # then the bounds are as near as can be
    try:
        ratio = ratio_of(node, name, {})
        if len(ratio.below) != 1 or not 2 <= len(ratio.above) <= 13:
            return None
        below = float(ratio.below[0])
        zeros = [float(zero) for zero in real_zeros(ratio.above)]
    except (NotRational, Undefined, ZeroDivisionError, OverflowError):
        return None
    edges = [-math.inf, *zeros, math.inf]
    found: list[tuple[float, float]] = []
    for low, high in pairwise(edges):
        inside = (low + high) / 2 if math.isfinite(low + high) else (high - 1 if math.isfinite(high) else low + 1)
        if (float(at(ratio.above, Fraction(inside if math.isfinite(inside) else 0.0))) > 0) != (below > 0):
            continue
        if found and found[-1][1] == low:
            found[-1] = (found[-1][0], high)
        else:
            found.append((low, high))
    return tuple(found)


def _count(node: Node, name: str) -> int:
    """How often a letter stands in it."""
    return int(node == Name(name)) if isinstance(node, Name) else sum(_count(child, name) for child in children(node))


def _truth(node: Node, name: str, x: Stretches) -> tuple[Array, Array]:
    """On which stretches a condition surely holds, and on which it surely does not."""
    match node:
        case Relation(op, left, right):
            off = _difference(_over(left, name, x), _over(right, name, x))
            below, above = off.ok & (off.high < 0), off.ok & (off.low > 0)
            down, up = off.ok & (off.high <= 0), off.ok & (off.low >= 0)
            nothing = np.zeros(len(x.low), dtype=bool)
            known: dict[str, tuple[Array, Array]] = {
                "<": (below, up), "≤": (down, above), ">": (above, down), "≥": (up, below),
                "=": (nothing, below | above), "≠": (below | above, nothing),
            }  # fmt: skip
            return known[op]
        case Joined(op, parts):
            truths = [_truth(part, name, x) for part in parts]
            yes, no = np.array([t[0] for t in truths]), np.array([t[1] for t in truths])
            every, some = (yes, no) if op == "and" else (no, yes)
            all_of, any_of = np.asarray(every.all(axis=0)), np.asarray(some.any(axis=0))
            return (all_of, any_of) if op == "and" else (any_of, all_of)
        case Call("otherwise", _):
            return np.ones(len(x.low), dtype=bool), np.zeros(len(x.low), dtype=bool)
    nothing = np.zeros(len(x.low), dtype=bool)
    return nothing, nothing


def _cases(arguments: Sequence[Node], name: str, x: Stretches) -> Stretches:
    """Pieces: a stretch is unbroken where it is certain which of them holds."""
    size = len(x.low)
    low, high, ok = np.full(size, math.nan), np.full(size, math.nan), np.zeros(size, dtype=bool)
    open_still = np.ones(size, dtype=bool)
    for k in range(0, len(arguments), 2):
        value = _over(arguments[k], name, x)
        yes, no = (open_still, ~open_still) if k + 1 == len(arguments) else _truth(arguments[k + 1], name, x)
        taken = open_still & yes
        low, high = np.where(taken, value.low, low), np.where(taken, value.high, high)
        ok |= taken & value.ok
        open_still &= no
    return Stretches(low, high, ok)


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


def _cotangent(a: Stretches) -> Stretches:
    same = np.floor(a.low / math.pi) == np.floor(a.high / math.pi)
    return Stretches(1 / np.tan(a.high), 1 / np.tan(a.low), a.ok & same)


def _one_over(over: Callable[[Stretches], Stretches]) -> Callable[[Stretches], Stretches]:
    return lambda a: _quotient(_constant(1.0, a), over(a))


def _scaled(by: float) -> Callable[[Stretches], Stretches]:
    return lambda a: Stretches(a.low * by, a.high * by, a.ok)


def _degree_root(a: Stretches, degree: Stretches) -> Stretches:
    """Roots of a whole degree; of negative numbers where it is odd."""
    n = float(degree.low[0]) if len(degree.low) else 1.0
    if not (np.all(degree.low == degree.high) and n > 0 and n == math.floor(n)):
        return _power(a, _quotient(_constant(1.0, a), degree), False)
    inside = a.ok if n % 2 else a.ok & (a.low >= 0)
    low, high = (np.sign(v) * np.abs(v) ** (1 / n) for v in (a.low, a.high))
    return Stretches(low, high, inside)


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
    "cot": _cotangent, "sec": _one_over(_wave(math.pi / 2)), "csc": _one_over(_wave(0.0)),
    "percent": _scaled(0.01), "permille": _scaled(0.001),
    "round": _steps(lambda v: np.floor(v + 0.5)),
}  # fmt: skip


def _call(function: str, inner: list[Stretches]) -> Stretches:
    if function in ("min", "max"):
        pick = np.minimum if function == "min" else np.maximum
        found = inner[0]
        for b in inner[1:]:
            found = Stretches(pick(found.low, b.low), pick(found.high, b.high), found.ok & b.ok)
        return found
    if function == "root":
        return _degree_root(*inner)
    if function == "log" and len(inner) == 2:
        return _quotient(_FUNCTIONS["ln"](inner[0]), _FUNCTIONS["ln"](inner[1]))
    if function == "round" and len(inner) == 2:
        scale = _constant(10.0 ** float(inner[1].low[0]) if len(inner[1].low) else 1.0, inner[0])
        return _quotient(_FUNCTIONS["round"](_product(inner[0], scale)), scale)
    if function == "mod":
        a, b = inner
        turns = _steps(np.floor)(_quotient(a, b))
        return _difference(a, _product(b, turns))
    known = _FUNCTIONS.get(function)
    if known is not None:
        return known(inner[0])
    size = len(inner[0].low)
    return Stretches(np.full(size, -np.inf), np.full(size, np.inf), np.zeros(size, dtype=bool))
