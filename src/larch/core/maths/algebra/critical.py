"""Places on the real line where something can change: zeros of differences, ends of domains, poles, jumps.

Between two neighbouring ones a statement stays true or false and an expression stays defined or not, so a handful of
samples says all. Zeros of rational expressions are exact; of others they are sought on a scale that is dense where the
numbers of school lie, and refined to full precision.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from fractions import Fraction
from typing import Any

from larch.core.maths.algebra.polynomials import as_fraction, ratio_of, real_zeros
from larch.core.maths.expression.derive import derivative
from larch.core.maths.expression.evaluate import floating
from larch.core.maths.expression.exactly import NotRational, Undefined
from larch.core.maths.expression.precise import Budget, Value, decimal, mp, precise, snapped
from larch.core.maths.expression.tree import Binary, Call, Node, Number, Relation, children, names_in

WINDOW = 25.0  # beyond it what has no end of zeros is not looked at
PERIODIC = frozenset({"sin", "cos", "tan", "cot", "sec", "csc", "floor", "ceil", "round", "mod"})
STEPPED = frozenset({"floor", "ceil", "round"})
MOST_POINTS = 400


def difference(left: Node, right: Node) -> Node:
    return left if isinstance(right, Number) and right.value == 0 else Binary("-", left, right)


def watched(node: Node) -> Iterator[Node]:
    """Expressions at whose zeros something can change."""
    match node:
        case Relation(_, left, right):
            yield difference(left, right)
        case Binary("/", _, right):
            yield right
        case Binary("^", base, exponent):
            if not (isinstance(exponent, Number) and exponent.value.denominator == 1 and exponent.value > 0):
                yield base
                if names_in(exponent):
                    yield exponent
        case Call(function, arguments):
            yield from _watched_in(function, arguments)
    for child in children(node):
        yield from watched(child)


def _watched_in(function: str, arguments: tuple[Node, ...]) -> Iterator[Node]:
    if not arguments:
        return
    x = arguments[0]
    one = Number(Fraction(1), "1")
    if function in ("sqrt", "ln", "log", "abs", "sign", "cbrt", "root"):
        yield x
        if function == "log" and len(arguments) == 2:
            yield arguments[1]
            yield Binary("-", arguments[1], one)
    elif function in ("asin", "acos"):
        yield Binary("-", x, one)
        yield Binary("+", x, one)
    elif function in ("tan", "sec"):
        yield Call("cos", (x,))
    elif function in ("cot", "csc"):
        yield Call("sin", (x,))
    elif function in STEPPED:
        half = Fraction(1, 2) if function == "round" else Fraction(0)
        for k in range(-12, 13):
            yield Binary("-", x, Number(k + half, str(k + half)))
    elif function == "mod":
        yield arguments[1]
    elif function in ("min", "max"):
        for other in arguments[1:]:
            yield Binary("-", x, other)


def is_periodic(node: Node) -> bool:
    return (isinstance(node, Call) and node.function in PERIODIC) or any(map(is_periodic, children(node)))


def numbers_in(node: Node) -> Iterator[Fraction]:
    if isinstance(node, Number):
        yield node.value
    for child in children(node):
        yield from numbers_in(child)


def critical_points(nodes: Sequence[Node], name: str, given: Mapping[str, Value]) -> list[Value]:
    """All places on the line of one letter, in order, where one of some expressions or statements can change."""
    parts: dict[Node, None] = {}
    for node in nodes:
        for part in watched(node):
            if name in names_in(part):
                parts[part] = None
    found: list[Value] = []
    for part in parts:
        found += zeros(part, name, given)
        if len(found) > MOST_POINTS:
            break
    return distinct(found)


def distinct(values: Sequence[Value]) -> list[Value]:
    """In order, each once."""
    ordered = sorted(values, key=_sortable)
    kept: list[Value] = []
    for value in ordered:
        if kept and abs(decimal(value) - decimal(kept[-1])) <= mp().mpf(10) ** -30 * max(1, abs(value)):
            if isinstance(value, Fraction):
                kept[-1] = value
            continue
        kept.append(value)
    return kept


def _sortable(value: Value) -> Any:
    return decimal(value)


def zeros(part: Node, name: str, given: Mapping[str, Value]) -> list[Value]:
    """Where an expression is zero; also where what it is divided by is."""
    try:
        ratio = ratio_of(part, name, given)
        return [*real_zeros(ratio.above), *(real_zeros(ratio.below) if len(ratio.below) > 1 else [])]
    except (NotRational, ZeroDivisionError, Undefined, OverflowError):
        return _sought(part, name, given)


def _scale(part: Node) -> list[float]:
    """Places that are looked at."""
    reach = max((abs(float(n)) for n in numbers_in(part) if abs(n) < 10**7), default=1.0)
    fine = [-WINDOW + 0.0371 + k * 2 * WINDOW / 900 for k in range(900)]
    wide = [sign * WINDOW * 1.035**k for k in range(1, 330) for sign in (1, -1)]
    small = [sign * 10.0**-k for k in range(1, 8) for sign in (1, -1)]
    own = [
        sign * value + shift for value in {reach, math.sqrt(reach), reach**2} for sign in (1, -1) for shift in (-0.01, 0.01)
    ]
    return sorted({*fine, *(() if is_periodic(part) else wide), *small, *own})


def _sought(part: Node, name: str, given: Mapping[str, Value]) -> list[Value]:
    rough = {other: float(value) for other, value in given.items()}

    def at(x: float) -> float | None:
        try:
            value = floating(part, {**rough, name: x})
        except (Undefined, OverflowError, ValueError, ZeroDivisionError):
            return None
        return value if math.isfinite(value) else None

    places = _scale(part)
    heights = [at(x) for x in places]
    found: list[Value] = []
    slope: Node | None
    try:
        slope = derivative(part, name)
    except Undefined:
        slope = None
    for k in range(len(places) - 1):
        a, b = heights[k], heights[k + 1]
        if a is None or b is None:
            if (a is None) != (b is None):
                found += _at_edge(part, name, given, at, places[k], places[k + 1], a is None)
            continue
        if a == 0:
            found += _refined(part, slope, name, given, places[k])
        elif a * b < 0:
            found += _refined(part, slope, name, given, _bisected(at, places[k], places[k + 1], a))
        elif k and _is_low(heights[k - 1], a, b):
            low = _lowest(at, places[k - 1], places[k + 1])
            value = at(low)
            if value is not None and abs(value) < 1e-6 * max(1.0, abs(b)):
                found += _touching(part, slope, name, given, low)
        if len(found) > MOST_POINTS:
            break
    return found


def _is_low(before: float | None, here: float, after: float) -> bool:
    """Whether the size is least here, and not the same all about."""
    return before is not None and abs(here) <= min(abs(before), abs(after)) < max(abs(before), abs(after))


def _at_edge(part: Node, name: str, given: Mapping[str, Value], at: Any, low: float, high: float, left: bool) -> list[Value]:
    """A zero just where an expression begins to be defined, or close to it."""
    inside, outside = (high, low) if left else (low, high)
    for _k in range(60):
        middle = (inside + outside) / 2
        if at(middle) is None:
            outside = middle
        else:
            inside = middle
    near = as_fraction(mp().nint(mp().mpf(inside) * 10**9) / 10**9, 10**4)
    start, edge = at(high if left else low), at(inside)
    if start is not None and edge is not None and start * edge < 0:
        other = high if left else low
        return _refined(
            part, None, name, given, _bisected(at, min(inside, other), max(inside, other), at(min(inside, other)))
        )
    return [] if near is None else [near]


def _bisected(at: Any, low: float, high: float, at_low: float) -> float:
    for _k in range(70):
        middle = (low + high) / 2
        value = at(middle)
        if value is None:
            break
        if (value < 0) == (at_low < 0):
            low = middle
        else:
            high = middle
        if middle in (low, high) and low == high:
            break
    return (low + high) / 2


def _lowest(at: Any, low: float, high: float) -> float:
    """Where the size is least between two places, by golden section."""
    share = (math.sqrt(5) - 1) / 2
    for _k in range(60):
        a, b = high - share * (high - low), low + share * (high - low)
        at_a, at_b = at(a), at(b)
        if at_a is None or at_b is None:
            break
        if abs(at_a) < abs(at_b):
            high = b
        else:
            low = a
    return (low + high) / 2


def _refined(part: Node, slope: Node | None, name: str, given: Mapping[str, Value], start: float) -> list[Value]:
    """The zero near a place to full precision, or none where there is a pole."""
    context = mp()
    x: Any = context.mpf(start)
    settled, change = False, context.mpf(1)
    try:
        for _k in range(9):
            value = precise(part, {**given, name: x}, Budget(20_000))
            if value == 0:
                settled = True
                break
            if slope is not None:
                rise = decimal(precise(slope, {**given, name: x}, Budget(20_000)))
            else:
                step = context.mpf(10) ** -25
                rise = (decimal(precise(part, {**given, name: x + step}, Budget(20_000))) - decimal(value)) / step
            if rise == 0:
                break
            change = decimal(value) / rise
            x = x - change
            if abs(change) < context.mpf(10) ** -(48) * max(1, abs(x)):
                settled = True
                break
    except (Undefined, ZeroDivisionError, ValueError, OverflowError):
        exact = as_fraction(context.nint(context.mpf(start) * 10**9) / 10**9, 10**4)
        return [] if exact is None else [exact]
    if not context.isfinite(x) or abs(x - start) > 1e-3 * max(1.0, abs(start)):
        return []
    if not settled and abs(change) > context.mpf(10) ** -20 * max(1, abs(x)):
        return []
    exact = as_fraction(x)
    return [snapped(x) if exact is None else exact]


def refined_zero(
    part: Node, slope: Node | None, name: str, at: Callable[[float], float | None], low: float, high: float
) -> list[Value]:
    """The zero of an expression between two places at which its signs differ, to full precision; none where there is a
    pole. `at` gives its value in float64."""
    start = at(low)
    if start is None:
        return []
    return _refined(part, slope, name, {}, low if start == 0 else _bisected(at, low, high, start))


def _touching(part: Node, slope: Node | None, name: str, given: Mapping[str, Value], start: float) -> list[Value]:
    """A zero where an expression touches the axis without crossing it."""
    exact = as_fraction(mp().nint(mp().mpf(start) * 10**6) / 10**6, 10**3)
    if exact is not None:
        try:
            if precise(part, {**given, name: exact}, Budget(20_000)) == 0:
                return [exact]
        except Undefined:
            return [exact]
    if slope is None:
        return []
    try:
        second = derivative(slope, name)
    except Undefined:
        return []
    found = _refined(slope, second, name, given, start)
    try:
        value = [x for x in found if abs(decimal(precise(part, {**given, name: x}, Budget(20_000)))) < mp().mpf(10) ** -30]
    except Undefined:
        return found
    return value


def samples(points: Sequence[Value], bounded: bool) -> list[tuple[Value, bool]]:
    """Places to look at: the points themselves (True) and places between and beyond them (False)."""
    if not points:
        return [(Fraction(n), False) for n in ("-7", "-3/2", "-11/3", "3/7", "1", "5/2", "9", "0")]
    found: list[tuple[Value, bool]] = []
    first, last = _floor(points[0]), -_floor(-points[-1])
    outer = (Fraction(3, 7),) if bounded else (Fraction(3, 2), Fraction(52, 3), Fraction(35022, 7))
    found += [(first - beyond, False) for beyond in reversed(outer)]
    for k, point in enumerate(points):
        if k:
            found += [(place, False) for place in _between(points[k - 1], point)]
        found.append((point, True))
    found += [(last + beyond, False) for beyond in outer]
    return found


def _floor(value: Value) -> Fraction:
    return Fraction(math.floor(value)) if isinstance(value, Fraction) else Fraction(int(mp().floor(value)))


def _between(low: Value, high: Value) -> list[Fraction]:
    """Short fractions between two places."""
    a, b = decimal(low), decimal(high)
    found = []
    for share in (0.5, 0.23):
        place = a + (b - a) * share
        scale = 1
        while True:
            near = Fraction(int(mp().nint(place * scale)), scale)
            if a < decimal(near) < b:
                found.append(near)
                break
            scale *= 10
            if scale > 10**60:
                return found
    return list(dict.fromkeys(found))
