"""Numbers for deciding what a shape is: exact fractions, or decimals of fifty digits, or measured floats.

Equality of fractions is exact. Square roots are carried to PRECISION digits: two different numbers built from small
integers by a few roots differ long before the fortieth (root separation bounds), so equality to EQUAL_DIGITS decides.
"""

from __future__ import annotations

from collections.abc import Sequence
from decimal import Decimal, DecimalException, localcontext
from fractions import Fraction
from typing import Any

from larch.core.base.words import _
from larch.core.maths.expression import ExpressionError, Undefined, exact_at, parse, value_at
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number

PRECISION, EQUAL_DIGITS = 60, 40
MEASURED = 1e-9  # relative; floats that differ by less are equal
LONGEST_POWER = 64
PI = Decimal("3.14159265358979323846264338327950288419716939937510582097494459230781640628620899")

Scalar = Any  # Fraction, Decimal or float; all of one shape are alike


class Beyond(ValueError):
    """Not a number that can be carried exactly."""


def read_coordinate(text: str) -> Fraction | Decimal | float:
    """A number such as "4", "−1/2", "sqrt(3)/2" or "0.25". Raises ValueError with one sentence."""
    try:
        node = parse(text.strip())
        exact = exact_at(node)
        if exact is not None:
            return exact
        try:
            with localcontext() as context:
                context.prec = PRECISION
                return +_decimal(node)
        except (Beyond, DecimalException, OverflowError):
            return float(value_at(node))
    except (ExpressionError, Undefined, ValueError) as error:
        raise ValueError(_("“{text}” is not a number.").format(text=text.strip()[:40])) from error


def _decimal(node: Node) -> Decimal:
    """The value in decimals of the precision of the context. Raises Beyond for what has no digits by roots alone."""
    match node:
        case Number(value, _text):
            return Decimal(value.numerator) / Decimal(value.denominator)
        case Name("π"):
            return +PI
        case Negative(of):
            return -_decimal(of)
        case Binary("+", left, right):
            return _decimal(left) + _decimal(right)
        case Binary("-", left, right):
            return _decimal(left) - _decimal(right)
        case Binary("*", left, right):
            return _decimal(left) * _decimal(right)
        case Binary("/", left, right):
            return _decimal(left) / _decimal(right)
        case Binary("^", left, right):
            power = exact_at(right)
            if power is not None and power.denominator == 1 and abs(power) <= LONGEST_POWER:
                return _decimal(left) ** int(power)
            if power == Fraction(1, 2):
                return _decimal(left).sqrt()
        case Call("sqrt", (of,)):
            return _decimal(of).sqrt()
        case Call("abs", (of,)):
            return abs(_decimal(of))
    raise Beyond


def alike(numbers: Sequence[Fraction | Decimal | float]) -> list[Scalar]:
    """The numbers in the most exact form that all of them have."""
    if all(isinstance(n, Fraction) for n in numbers):
        return list(numbers)
    if any(isinstance(n, float) for n in numbers):
        return [float(n) for n in numbers]
    with localcontext() as context:
        context.prec = PRECISION
        return [n if isinstance(n, Decimal) else Decimal(n.numerator) / Decimal(n.denominator) for n in numbers]  # type: ignore[union-attr]


def is_zero(value: Scalar, size: Scalar) -> bool:
    """Whether a computed number is nothing, beside numbers of a size that went into it."""
    if isinstance(value, Fraction):
        return value == 0
    if isinstance(value, Decimal):
        return abs(value) <= abs(Decimal(size)) * Decimal(10) ** -EQUAL_DIGITS
    return abs(float(value)) <= MEASURED * abs(float(size))
