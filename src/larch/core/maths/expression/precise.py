"""Values to fifty digits: exact fractions as far as they go, then decimals long enough to tell numbers apart.

Two different numbers that are built from the small numbers of school by few operations differ long before the fortieth
digit, so equality to EQUAL digits decides; what is nearly a whole number or zero is one.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from fractions import Fraction
from functools import cache
from typing import Any

from larch.core.base.words import _
from larch.core.maths.expression.exactly import NotRational, Undefined, exact_binary, exact_call, exact_power
from larch.core.maths.expression.tree import Binary, Call, Joined, Name, Negative, Node, Number, Relation, Unit, names_in
from larch.core.maths.expression.words import UNITS

DIGITS, EQUAL = 60, 40
TOO_LONG = 60_000  # parts looked at for one value
LARGEST_POWER = 10**6  # of e: beyond it nobody writes the number
MOST_TERMS = 5000

Value = Any  # Fraction or mpmath's mpf


@cache
def mp() -> Any:
    """mpmath's context with our precision; imported when a value is irrational."""
    import mpmath

    context = mpmath.mp.clone()
    context.dps = DIGITS
    return context


class Budget:
    """How many parts may still be looked at."""

    __slots__ = ("left",)

    def __init__(self, left: int = TOO_LONG) -> None:
        self.left = left

    def spend(self) -> None:
        self.left -= 1
        if self.left < 0:
            raise Undefined(_("This takes too long to be worked out."))


def precise(node: Node, given: Mapping[str, Value], budget: Budget | None = None) -> Value:
    """A Fraction where it is rational and short, else a long decimal. Raises Undefined where there is no real value."""
    return _value(node, given, budget or Budget())


def _value(node: Node, given: Mapping[str, Value], budget: Budget) -> Value:
    budget.spend()
    match node:
        case Number(value, _):
            return value
        case Name(name):
            return _named(name, given)
        case Unit(name):
            return UNITS[name][1]
        case Negative(of):
            return -_value(of, given, budget)
        case Binary("^", left, right):
            base, exponent = _value(left, given, budget), _value(right, given, budget)
            if base < 0 and names_in(right) and not (isinstance(exponent, Fraction) and exponent.denominator == 1):
                raise Undefined(_("A negative number has no real power of this kind."))
            return power(base, exponent)
        case Binary(op, left, right):
            return combine(op, _value(left, given, budget), _value(right, given, budget))
        case Call("sum" | "product" | "integral" | "derivative" | "limit"):
            return _bound(node, given, budget)
        case Call("cases", parts):
            for then, condition in zip(parts[::2], parts[1::2], strict=True):
                if holds(condition, given, budget):
                    return _value(then, given, budget)
            raise Undefined(_("None of the cases holds here."))
        case Call(function, arguments):
            return call(function, [_value(argument, given, budget) for argument in arguments])
    raise Undefined(_("A comparison has no number as its value."))


def _named(name: str, given: Mapping[str, Value]) -> Value:
    if name in given:
        return given[name]
    if name == "π":
        return +mp().pi
    if name == "e":
        return +mp().e
    if name == "τ":
        return 2 * mp().pi
    if name == "∞":
        raise Undefined(_("Infinity is no number."))
    raise Undefined(_("The value of {name} is not known.").format(name=name))


def decimal(value: Value) -> Any:
    """As a long decimal."""
    return mp().mpf(value.numerator) / value.denominator if isinstance(value, Fraction) else value


def snapped(value: Any, zero: bool = False) -> Value:
    """Whole numbers and halves are exact; zero only where `zero` says that it is to be expected."""
    if isinstance(value, Fraction):
        return value
    context = mp()
    if not context.isfinite(value):
        raise Undefined(_("The number is too large to be written."))
    if abs(value) < 1e25:
        doubled = context.nint(2 * value)
        if (doubled or zero) and abs(2 * value - doubled) < 10.0 ** (-EQUAL - 2):
            return Fraction(int(doubled), 2)
    return value


def combine(op: str, left: Value, right: Value) -> Value:
    """One of + − · / of two values."""
    if isinstance(left, Fraction) and isinstance(right, Fraction):
        try:
            return exact_binary(op, left, right)
        except NotRational:
            pass
    a, b = decimal(left), decimal(right)
    if op in "+-":
        total = a + b if op == "+" else a - b
        return Fraction(0) if abs(total) < max(abs(a), abs(b)) * mp().mpf(10) ** -(EQUAL + 5) else snapped(total)
    if op == "*":
        return snapped(a * b)
    if right == 0 or abs(b) < mp().mpf(10) ** -(EQUAL + 2):
        raise Undefined(_("Nothing can be divided by zero."))
    return snapped(a / b)


def power(base: Value, exponent: Value) -> Value:
    if isinstance(base, Fraction) and isinstance(exponent, Fraction):
        try:
            return exact_power(base, exponent)
        except NotRational:
            pass
    whole = isinstance(exponent, Fraction) and exponent.denominator == 1
    if base == 0:
        if exponent <= 0:
            raise Undefined(_("Zero can't be raised to zero or to a negative power."))
        return Fraction(0)
    sign = 1
    if base < 0:
        if not isinstance(exponent, Fraction) or exponent.denominator % 2 == 0:
            raise Undefined(_("A negative number has no real power of this kind."))
        sign = -1 if exponent.numerator % 2 else 1
    context = mp()
    size, raised = abs(decimal(base)), decimal(exponent)
    logarithm = raised * context.log(size)
    if logarithm < -LARGEST_POWER * 10**6:
        return sign * context.mpf(2) ** int(-LARGEST_POWER * 10**6)  # next to nothing, but not nothing
    if logarithm > LARGEST_POWER:
        raise Undefined(_("The number is too large to be written."))
    found = size ** int(exponent) if whole and abs(exponent) < 10**6 else size**raised
    return snapped(sign * found)


def call(function: str, values: list[Value]) -> Value:
    """A function of values. Raises Undefined."""
    if all(isinstance(value, Fraction) for value in values):
        try:
            return exact_call(function, values)
        except NotRational:
            pass
    found = _FUNCTIONS.get(function)
    if found is None and function in ("factorial", "binomial", "permutations"):
        if all(isinstance(value, Fraction) for value in values):
            raise Undefined(_("The number is too large to be written."))
        raise Undefined(_("Only whole numbers from 0 on have a factorial."))
    if found is None:
        raise Undefined(_("This has no single number as its value."))
    return snapped(found(*map(decimal, values)))


def _trigonometric(name: str) -> Callable[[Any], Any]:
    def over(x: Any) -> Any:
        context = mp()
        if abs(x) > 1e15:
            raise Undefined(_("The numbers are too large to be worked out."))
        sine, cosine = snapped(context.sin(x), True), snapped(context.cos(x), True)
        above, below = {"sin": (sine, 1), "cos": (cosine, 1), "tan": (sine, cosine), "cot": (cosine, sine),
                        "sec": (1, cosine), "csc": (1, sine)}[name]  # fmt: skip
        if below == 0:
            if name == "tan":
                raise Undefined(_("The tangent of a right angle does not exist."))
            raise Undefined(_("Nothing can be divided by zero."))
        return decimal(above) / decimal(below) if isinstance(above, Fraction) else above / decimal(below) if isinstance(
            below, Fraction) else above / below  # fmt: skip

    return over


def _logarithm(x: Any, base: Any = None) -> Any:
    if x <= 0:
        raise Undefined(_("Only numbers above zero have a logarithm."))
    if base is not None and (base <= 0 or base == 1):
        raise Undefined(_("A logarithm has a base above zero that is not one."))
    return mp().log(x) / mp().log(10 if base is None else base)


def _natural(x: Any) -> Any:
    if x <= 0:
        raise Undefined(_("Only numbers above zero have a logarithm."))
    return mp().log(x)


def _root(x: Any, degree: Any) -> Value:
    if degree == 0:
        raise Undefined(_("There is no zeroth root."))
    whole = snapped(degree)
    if x < 0 and not (isinstance(whole, Fraction) and whole.denominator == 1 and whole.numerator % 2):
        raise Undefined(_("An even root of a negative number is not a real number."))
    if x == 0:
        return Fraction(0)
    return (-1 if x < 0 else 1) * abs(x) ** (1 / degree)


def _square_root(x: Any) -> Any:
    if x < 0:
        raise Undefined(_("A negative number has no real square root."))
    return mp().sqrt(x)


def _arc(name: str) -> Callable[[Any], Any]:
    def over(x: Any) -> Any:
        if name != "atan" and abs(x) > 1:
            raise Undefined(_("{function} works on numbers from −1 to 1.").format(function=name))
        return getattr(mp(), name)(x)

    return over


def _bounded(name: str) -> Callable[[Any], Any]:
    def over(x: Any) -> Any:
        if abs(x) > LARGEST_POWER:
            raise Undefined(_("The number is too large to be written."))
        return getattr(mp(), name)(x)

    return over


def _rounded(x: Any, digits: Any = 0) -> Any:
    scale = mp().mpf(10) ** int(digits)
    return mp().sign(x) * mp().floor(abs(x) * scale + 0.5) / scale


def _remainder(a: Any, b: Any) -> Any:
    if b == 0:
        raise Undefined(_("Nothing can be divided by zero."))
    return a - b * mp().floor(a / b)


_FUNCTIONS: dict[str, Callable[..., Any]] = {
    **{name: _trigonometric(name) for name in ("sin", "cos", "tan", "cot", "sec", "csc")},
    **{name: _arc(name) for name in ("asin", "acos", "atan")},
    **{name: _bounded(name) for name in ("exp", "sinh", "cosh", "tanh")},
    "ln": _natural, "log": _logarithm, "sqrt": _square_root, "cbrt": lambda x: _root(x, mp().mpf(3)), "root": _root,
    "abs": abs, "floor": lambda x: mp().floor(x), "ceil": lambda x: mp().ceil(x), "round": _rounded,
    "sign": lambda x: mp().sign(x), "min": lambda *v: min(v), "max": lambda *v: max(v), "mod": _remainder,
    "degrees": lambda x: x * mp().pi / 180,
    "percent": lambda x: x / 100, "permille": lambda x: x / 1000,
}  # fmt: skip


def _bound(node: Call, given: Mapping[str, Value], budget: Budget) -> Value:
    """Sums, products and integrals over a letter of their own."""
    body, letter, *limits = node.arguments
    if not isinstance(letter, Name) or node.function == "limit" or (node.function == "integral" and len(limits) < 2):
        raise Undefined(_("This has no single number as its value."))
    if node.function == "derivative":
        from larch.core.maths.expression.derive import derivative

        return _value(derivative(body, letter.name), given, budget)
    low, high = (_value(limit, given, budget) for limit in limits)
    if node.function == "integral":
        return _integral(body, letter.name, low, high, given, budget)
    if not (isinstance(low, Fraction) and isinstance(high, Fraction) and low.denominator == high.denominator == 1):
        raise Undefined(_("It goes from one whole number to another."))
    if high - low > MOST_TERMS:
        raise Undefined(_("This takes too long to be worked out."))
    total: Value = Fraction(0 if node.function == "sum" else 1)
    for k in range(int(low), int(high) + 1):
        term = _value(body, {**given, letter.name: Fraction(k)}, budget)
        total = combine("+" if node.function == "sum" else "*", total, term)
    return total


def _integral(body: Node, letter: str, low: Value, high: Value, given: Mapping[str, Value], budget: Budget) -> Value:
    context = mp()
    try:
        found, error = context.quad(
            lambda x: decimal(_value(body, {**given, letter: x}, budget)),
            [decimal(low), decimal(high)],
            error=True,
            maxdegree=7,
        )
    except (Undefined, ValueError, ZeroDivisionError) as gone:
        raise Undefined(_("The area could not be worked out.")) from gone
    if error > 1e-9 * max(1, abs(found)):
        raise Undefined(_("The area could not be worked out."))
    return found


# Statements


def compared(op: str, left: Value, right: Value) -> bool:
    """A comparison of two values, exact where both are."""
    if isinstance(left, Fraction) and isinstance(right, Fraction):
        difference: Any = left - right
        same = difference == 0
    else:
        a, b = decimal(left), decimal(right)
        difference = a - b
        same = abs(difference) <= max(abs(a), abs(b)) * mp().mpf(10) ** -EQUAL
    found: bool = {
        "=": same, "≠": not same, "<": difference < 0 and not same, ">": difference > 0 and not same,
        "≤": difference < 0 or same, "≥": difference > 0 or same,
    }[op]  # fmt: skip
    return found


def holds(node: Node, given: Mapping[str, Value], budget: Budget | None = None) -> bool:
    """Whether a statement is true; what has no value on one side is not."""
    budget = budget or Budget()
    match node:
        case Relation(op, left, right):
            try:
                return compared(op, _value(left, given, budget), _value(right, given, budget))
            except Undefined:
                if budget.left < 0:
                    raise
                return False
        case Joined("and", parts):
            return all(holds(part, given, budget) for part in parts)
        case Joined(_, parts):
            return any(holds(part, given, budget) for part in parts)
        case Call("otherwise"):
            return True
    raise Undefined(_("This is neither true nor false."))


def as_float(value: Value) -> float:
    """Raises Undefined where it is too large."""
    try:
        found = float(value)
    except OverflowError as error:
        raise Undefined(_("The number is too large to be written.")) from error
    if not math.isfinite(found):
        raise Undefined(_("The number is too large to be written."))
    return found
