"""Polynomials in one letter over the fractions: coefficients from the lowest power on, without zeros at the end."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from fractions import Fraction
from typing import Any, NamedTuple

from larch.core.maths.expression.exactly import NotRational, exact_power
from larch.core.maths.expression.precise import mp
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number, Unit
from larch.core.maths.expression.words import UNITS

HIGHEST = 60  # power that is carried
Polynomial = tuple[Fraction, ...]
ZERO: Polynomial = ()
ONE: Polynomial = (Fraction(1),)


class Ratio(NamedTuple):
    """One polynomial over another."""

    above: Polynomial
    below: Polynomial


def trimmed(terms: Sequence[Fraction]) -> Polynomial:
    end = len(terms)
    while end and terms[end - 1] == 0:
        end -= 1
    return tuple(terms[:end])


def added(a: Polynomial, b: Polynomial, factor: Fraction = Fraction(1)) -> Polynomial:
    size = max(len(a), len(b))
    return trimmed([(a[k] if k < len(a) else 0) + factor * (b[k] if k < len(b) else 0) for k in range(size)])


def multiplied(a: Polynomial, b: Polynomial) -> Polynomial:
    """Raises NotRational where the power gets too high."""
    if not a or not b:
        return ZERO
    if len(a) + len(b) > HIGHEST + 2:
        raise NotRational
    found = [Fraction(0)] * (len(a) + len(b) - 1)
    for i, p in enumerate(a):
        for k, q in enumerate(b):
            found[i + k] += p * q
    return trimmed(found)


def divided(a: Polynomial, b: Polynomial) -> tuple[Polynomial, Polynomial]:
    """Quotient and remainder."""
    rest, found = list(a), [Fraction(0)] * max(0, len(a) - len(b) + 1)
    for k in range(len(a) - len(b), -1, -1):
        factor = rest[k + len(b) - 1] / b[-1]
        found[k] = factor
        for i, q in enumerate(b):
            rest[k + i] -= factor * q
    return trimmed(found), trimmed(rest)


def common(a: Polynomial, b: Polynomial) -> Polynomial:
    """The highest common factor, with 1 before its highest power."""
    while b:
        a, b = b, divided(a, b)[1]
    return tuple(term / a[-1] for term in a)


def slope(a: Polynomial) -> Polynomial:
    return tuple(k * term for k, term in enumerate(a))[1:]


def at(a: Polynomial, x: Any) -> Any:
    found: Any = Fraction(0)
    for term in reversed(a):
        found = found * x + (term if isinstance(x, Fraction) else mp().mpf(term.numerator) / term.denominator)
    return found


def square_free(a: Polynomial) -> Polynomial:
    """With the same zeros, each once."""
    return divided(a, common(a, slope(a)))[0] if len(a) > 2 else a


def ratio_of(node: Node, name: str, given: Mapping[str, Fraction]) -> Ratio:
    """An expression as a quotient of polynomials in one letter, the others having values. Raises NotRational, and
    ZeroDivisionError where what it is divided by is nothing."""
    match node:
        case Number(value, _):
            return Ratio(trimmed([value]), ONE)
        case Unit(unit):
            return Ratio((UNITS[unit][1],), ONE)
        case Name(own):
            if own == name:
                return Ratio((Fraction(0), Fraction(1)), ONE)
            if own in given and isinstance(given[own], Fraction):
                return Ratio(trimmed([given[own]]), ONE)
            raise NotRational
        case Negative(of):
            inner = ratio_of(of, name, given)
            return Ratio(tuple(-term for term in inner.above), inner.below)
        case Binary("^", base, exponent):
            return _raised(ratio_of(base, name, given), ratio_of(exponent, name, given))
        case Binary(op, left, right):
            return _joined(op, ratio_of(left, name, given), ratio_of(right, name, given))
        case Call("percent" | "permille" as kind, (of,)):
            inner = ratio_of(of, name, given)
            return Ratio(tuple(term / (100 if kind == "percent" else 1000) for term in inner.above), inner.below)
        case Call(function, arguments):
            from larch.core.maths.expression.exactly import exact_call

            inner_ones = [ratio_of(argument, name, given) for argument in arguments]
            if any(len(one.above) > 1 or len(one.below) > 1 for one in inner_ones):
                raise NotRational
            return Ratio(trimmed([exact_call(function, [_constant(one) for one in inner_ones])]), ONE)
    raise NotRational


def _constant(ratio: Ratio) -> Fraction:
    return (ratio.above[0] if ratio.above else Fraction(0)) / ratio.below[0]


def _raised(base: Ratio, exponent: Ratio) -> Ratio:
    if len(exponent.above) > 1 or len(exponent.below) > 1:
        raise NotRational
    power = _constant(exponent)
    if power.denominator != 1:
        if len(base.above) > 1 or len(base.below) > 1:
            raise NotRational
        return Ratio(trimmed([exact_power(_constant(base), power)]), ONE)
    if abs(power) > HIGHEST:
        raise NotRational
    if power < 0:
        base, power = Ratio(base.below, base.above), -power
        if not base.below:
            raise ZeroDivisionError
    found = Ratio(ONE, ONE)
    for _k in range(int(power)):
        found = Ratio(multiplied(found.above, base.above), multiplied(found.below, base.below))
    return found


def _joined(op: str, a: Ratio, b: Ratio) -> Ratio:
    if op == "*":
        return Ratio(multiplied(a.above, b.above), multiplied(a.below, b.below))
    if op == "/":
        if not b.above:
            raise ZeroDivisionError
        return Ratio(multiplied(a.above, b.below), multiplied(a.below, b.above))
    factor = Fraction(1 if op == "+" else -1)
    if a.below == b.below:
        return Ratio(added(a.above, b.above, factor), a.below)
    above = added(multiplied(a.above, b.below), multiplied(b.above, a.below), factor)
    return Ratio(above, multiplied(a.below, b.below))


def real_zeros(a: Polynomial) -> list[Any]:
    """Its real zeros from the lowest on: fractions where they are, else decimals of our precision. None of zero itself."""
    if len(a) < 2:
        return []
    found: list[Any] = []
    free = square_free(a)
    while free and free[0] == 0:
        found.append(Fraction(0))
        free = free[1:]
    if len(free) == 2:
        found.append(-free[0] / free[1])
    elif len(free) > 2:
        found += _zeros(free)
    return sorted(found, key=lambda x: float(x) if abs(x) < 1e300 else 0.0)


def _zeros(a: Polynomial) -> list[Any]:
    context = mp()
    terms = [context.mpf(term.numerator) / term.denominator for term in reversed(a)]
    try:
        roots = context.polyroots(terms, maxsteps=300, extraprec=250)
    except (context.NoConvergence, ZeroDivisionError):
        return []
    found = []
    for root in roots:
        if abs(context.im(root)) > context.mpf(10) ** -25 * (1 + abs(root)):
            continue
        real = context.re(root)
        exact = as_fraction(real)
        found.append(exact if exact is not None and at(a, exact) == 0 else real)
    return found


def as_fraction(value: Any, largest: int = 10**9) -> Fraction | None:
    """The short fraction that a long decimal is, if it is one."""
    if isinstance(value, Fraction):
        return value
    context = mp()
    if not context.isfinite(value) or abs(value) > 1e30:
        return None
    scale = 10**45
    near = Fraction(int(context.nint(value * scale)), scale).limit_denominator(largest)
    off = abs(context.mpf(near.numerator) / near.denominator - value)
    return near if off < context.mpf(10) ** -38 * max(1, abs(value)) else None
