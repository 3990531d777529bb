"""Exact rational values, as far as numbers are rational and short enough to be carried."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from fractions import Fraction

from larch.core.base.words import _
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number, Unit
from larch.core.maths.expression.words import UNITS

LARGEST_BITS = 40_000  # of a numerator or denominator that is computed exactly
LARGEST_FACTORIAL = 2500


class Undefined(ArithmeticError):
    """There is no such real number; the message says why in one sentence."""


class NotRational(Exception):
    """It is not rational, or too long."""


def exact_at(node: Node, **variables: float) -> Fraction | None:
    """The exact rational value, or None where it is not rational or too long to carry exactly.

    Raises Undefined for a division by zero and the like.
    """
    try:
        result = _exact(node, {name: Fraction(value) for name, value in variables.items()})
    except NotRational:
        return None
    return result


def _exact(node: Node, variables: Mapping[str, Fraction]) -> Fraction:
    match node:
        case Number(value, _):
            return value
        case Name(name) if name in variables:
            return variables[name]
        case Unit(name):
            return UNITS[name][1]
        case Negative(of):
            return -_exact(of, variables)
        case Binary("^", left, right):
            return exact_power(_exact(left, variables), _exact(right, variables))
        case Binary(op, left, right):
            return exact_binary(op, _exact(left, variables), _exact(right, variables))
        case Call(function, arguments) if function in _EXACT:
            return exact_call(function, [_exact(argument, variables) for argument in arguments])
    raise NotRational


def bounded(value: Fraction) -> Fraction:
    if value.numerator.bit_length() > LARGEST_BITS or value.denominator.bit_length() > LARGEST_BITS:
        raise NotRational
    return value


def exact_binary(op: str, left: Fraction, right: Fraction) -> Fraction:
    if op == "+":
        return bounded(left + right)
    if op == "-":
        return bounded(left - right)
    if op == "*":
        return bounded(left * right)
    if right == 0:
        raise Undefined(_("Nothing can be divided by zero."))
    return bounded(left / right)


def exact_call(function: str, values: Sequence[Fraction]) -> Fraction:
    """Raises NotRational, Undefined."""
    if function not in _EXACT:
        raise NotRational
    return bounded(Fraction(_EXACT[function](*values)))


def exact_power(base: Fraction, exponent: Fraction) -> Fraction:
    """Raises NotRational, Undefined."""
    if base == 0 and exponent <= 0:
        raise Undefined(_("Zero can't be raised to zero or to a negative power."))
    if exponent.denominator == 1:
        bits = max(base.numerator.bit_length(), base.denominator.bit_length())
        if abs(exponent) * (bits - 1) > LARGEST_BITS and abs(base) != 1 and base != 0:
            raise NotRational
        return bounded(base ** int(exponent))
    if base < 0 and exponent.denominator % 2 == 0:
        raise Undefined(_("An even root of a negative number is not a real number."))
    root = _exact_root(abs(base), exponent.denominator)
    return exact_power(-root if base < 0 else root, Fraction(exponent.numerator))


def _exact_root(value: Fraction, degree: int) -> Fraction:
    if degree > 60:
        raise NotRational
    return Fraction(*(_integer_root(part, degree) for part in (value.numerator, value.denominator)))


def _integer_root(value: int, degree: int) -> int:
    """Newton's iteration in whole numbers."""
    if degree == 2:
        found = math.isqrt(value)
    else:
        found = 1 << -(-value.bit_length() // degree)
        while found > 0:
            closer = ((degree - 1) * found + value // found ** (degree - 1)) // degree
            if closer >= found:
                break
            found = closer
    if found**degree != value:
        raise NotRational
    return found


def _whole(value: Fraction, words: str) -> int:
    if value.denominator != 1 or value < 0:
        raise Undefined(words)
    if value > LARGEST_FACTORIAL:
        raise NotRational
    return int(value)


def _factorial(n: Fraction) -> int:
    return math.factorial(_whole(n, _("Only whole numbers from 0 on have a factorial.")))


def _binomial(n: Fraction, k: Fraction) -> int:
    words = _("Only whole numbers from 0 on can be chosen from.")
    return math.comb(_whole(n, words), _whole(k, words))


def _permutations(n: Fraction, k: Fraction) -> int:
    words = _("Only whole numbers from 0 on can be chosen from.")
    return math.perm(_whole(n, words), _whole(k, words))


def _mod(a: Fraction, b: Fraction) -> Fraction:
    if b == 0:
        raise Undefined(_("Nothing can be divided by zero."))
    return a % b


def _rounded(value: Fraction, digits: Fraction = Fraction(0)) -> Fraction:
    """Half away from zero, as schools do."""
    if digits.denominator != 1 or abs(digits) > 100:
        raise Undefined(_("It is rounded to a whole number of places."))
    scale = Fraction(10) ** int(digits)
    size = Fraction(math.floor(abs(value) * scale + Fraction(1, 2))) / scale
    return -size if value < 0 else size


def _of_whole(function: Callable[..., int]) -> Callable[..., int]:
    def over(*values: Fraction) -> int:
        if any(value.denominator != 1 for value in values):
            raise Undefined(_("Only whole numbers have common divisors and multiples."))
        return function(*map(int, values))

    return over


def _root(value: Fraction, degree: Fraction) -> Fraction:
    if degree == 0:
        raise Undefined(_("There is no zeroth root."))
    if value < 0 and (degree.denominator != 1 or degree % 2 == 0):
        raise Undefined(_("An even root of a negative number is not a real number."))
    return Fraction(0) if value == 0 and degree > 0 else exact_power(value, 1 / degree)


def _square_root(value: Fraction) -> Fraction:
    if value < 0:
        raise Undefined(_("A negative number has no real square root."))
    return exact_power(value, Fraction(1, 2)) if value else Fraction(0)


def _logarithm(x: Fraction, base: Fraction = Fraction(10)) -> Fraction:
    """Where it is a whole number."""
    if x <= 0:
        raise Undefined(_("Only numbers above zero have a logarithm."))
    if base <= 0 or base == 1:
        raise Undefined(_("A logarithm has a base above zero that is not one."))
    guess = round(math.log(x.numerator / x.denominator) / math.log(base)) if 1e-300 < x < 10**300 else 0
    for k in (guess, -guess):
        if abs(k) < 2000 and base**k == x:
            return Fraction(k)
    raise NotRational


_EXACT: dict[str, Callable[..., Fraction | int]] = {
    "abs": abs, "floor": math.floor, "ceil": math.ceil, "round": _rounded, "sign": lambda v: (v > 0) - (v < 0),
    "min": lambda *v: min(v), "max": lambda *v: max(v), "mod": _mod, "factorial": _factorial, "binomial": _binomial,
    "permutations": _permutations, "gcd": _of_whole(math.gcd), "lcm": _of_whole(math.lcm), "sqrt": _square_root,
    "cbrt": lambda v: exact_power(v, Fraction(1, 3)) if v else Fraction(0), "root": _root, "log": _logarithm,
    "percent": lambda v: v / 100, "permille": lambda v: v / 1000,
}  # fmt: skip
