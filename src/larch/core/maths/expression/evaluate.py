"""The value of an expression: exactly where rational, else in float64, or at many places with NumPy."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from fractions import Fraction
from typing import TYPE_CHECKING, Any

from larch.core.base.memo import remember
from larch.core.base.words import _
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number, Relation, children

if TYPE_CHECKING:
    from numpy.typing import NDArray

LARGEST_BITS = 4096  # of a numerator or denominator that is computed exactly
VALUES = {"π": math.pi, "e": math.e, "τ": math.tau}
TOLERANCE = 1e-12


class Undefined(ArithmeticError):
    """There is no such real number; the message says why in one sentence."""


def value_at(node: Node, **variables: float) -> float | bool:
    """The value with the variables given; a comparison gives a truth.

    Raises Undefined where there is no real value, or where a variable has none.
    """
    if isinstance(node, Relation):
        left, right = value_at(node.left, **variables), value_at(node.right, **variables)
        return compare(node.op, float(left), float(right))
    exact = exact_at(node, **variables)
    if exact is not None:
        try:
            return float(exact)
        except OverflowError as error:
            raise Undefined(_("The number is too large to be written.")) from error
    try:
        result = _float(node, variables)
    except OverflowError as error:
        raise Undefined(_("The number is too large to be written.")) from error
    if not math.isfinite(result):
        raise Undefined(_("The number is too large to be written."))
    return result


def compare(op: str, left: float, right: float) -> bool:
    """A comparison of two computed numbers; equality allows for rounding in the twelfth figure."""
    same = math.isclose(left, right, rel_tol=TOLERANCE, abs_tol=TOLERANCE)
    return {
        "=": same, "≠": not same, "<": left < right and not same, ">": left > right and not same,
        "≤": left < right or same, "≥": left > right or same,
    }[op]  # fmt: skip


def exact_at(node: Node, **variables: float) -> Fraction | None:
    """The exact rational value, or None where it is not rational or too long to carry exactly.

    Raises Undefined for a division by zero and the like.
    """
    try:
        result = _exact(node, {name: Fraction(value) for name, value in variables.items()})
    except _NotRational:
        return None
    return result


class _NotRational(Exception):
    pass


def _exact(node: Node, variables: Mapping[str, Fraction]) -> Fraction:
    match node:
        case Number(value, _):
            return value
        case Name(name) if name in variables:
            return variables[name]
        case Negative(of):
            return -_exact(of, variables)
        case Binary("^", left, right):
            return _bounded(_exact_power(_exact(left, variables), _exact(right, variables)))
        case Binary(op, left, right):
            return _bounded(_exact_binary(op, _exact(left, variables), _exact(right, variables)))
        case Call(function, arguments) if function in _EXACT:
            return _bounded(_EXACT[function](*(_exact(argument, variables) for argument in arguments)))
    raise _NotRational


def _bounded(value: Fraction) -> Fraction:
    if value.numerator.bit_length() > LARGEST_BITS or value.denominator.bit_length() > LARGEST_BITS:
        raise _NotRational
    return value


def _exact_binary(op: str, left: Fraction, right: Fraction) -> Fraction:
    if op == "+":
        return left + right
    if op == "-":
        return left - right
    if op == "*":
        return left * right
    if right == 0:
        raise Undefined(_("Nothing can be divided by zero."))
    return left / right


def _exact_power(base: Fraction, exponent: Fraction) -> Fraction:
    if base == 0 and exponent <= 0:
        raise Undefined(_("Zero can't be raised to zero or to a negative power."))
    if exponent.denominator == 1:
        bits = max(base.numerator.bit_length(), base.denominator.bit_length())
        if abs(exponent) * bits > LARGEST_BITS and abs(base) != 1 and base != 0:
            raise _NotRational
        return base ** int(exponent)
    if base < 0 and exponent.denominator % 2 == 0:
        raise Undefined(_("An even root of a negative number is not a real number."))
    root = _exact_root(abs(base), exponent.denominator)
    return _exact_power(-root if base < 0 else root, Fraction(exponent.numerator))


def _exact_root(value: Fraction, degree: int) -> Fraction:
    if degree > 60:
        raise _NotRational
    parts = [_integer_root(part, degree) for part in (value.numerator, value.denominator)]
    return Fraction(*parts)


def _integer_root(value: int, degree: int) -> int:
    if degree == 2:
        found = math.isqrt(value)
    else:
        if value.bit_length() > 1000:
            raise _NotRational
        found = round(value ** (1 / degree)) if value.bit_length() < 900 else 0
    if found**degree != value:
        raise _NotRational
    return found


def _exact_factorial(n: Fraction) -> Fraction:
    if n.denominator != 1 or n < 0:
        raise Undefined(_("Only whole numbers from 0 on have a factorial."))
    if n > 170:
        raise _NotRational
    return Fraction(math.factorial(int(n)))


def _exact_mod(a: Fraction, b: Fraction) -> Fraction:
    if b == 0:
        raise Undefined(_("Nothing can be divided by zero."))
    return a % b


def _round_half_up(value: Fraction) -> Fraction:
    return Fraction(math.floor(value + Fraction(1, 2)))


_EXACT: dict[str, Callable[..., Fraction]] = {
    "abs": abs, "floor": lambda v: Fraction(math.floor(v)), "ceil": lambda v: Fraction(math.ceil(v)),
    "round": _round_half_up, "sign": lambda v: Fraction((v > 0) - (v < 0)), "min": min, "max": max,
    "mod": _exact_mod, "factorial": _exact_factorial,
    "sqrt": lambda v: _exact_power(v, Fraction(1, 2)) if v else Fraction(0),
    "cbrt": lambda v: _exact_power(v, Fraction(1, 3)) if v else Fraction(0),
}  # fmt: skip


def _float(node: Node, variables: Mapping[str, float]) -> float:
    match node:
        case Number(value, _):
            return float(value)
        case Name(name):
            if name in variables:
                return float(variables[name])
            if name in VALUES:
                return VALUES[name]
            raise Undefined(_("The value of {name} is not known.").format(name=name))
        case Negative(of):
            return -_float(of, variables)
        case Binary("^", left, right):
            return _float_power(_float(left, variables), _float(right, variables), odd_root(right))
        case Binary(op, left, right):
            a, b = _float(left, variables), _float(right, variables)
            if op == "/" and b == 0:
                raise Undefined(_("Nothing can be divided by zero."))
            return a + b if op == "+" else a - b if op == "-" else a * b if op == "*" else a / b
        case Call(function, arguments):
            return _float_call(function, [_float(argument, variables) for argument in arguments])
    raise Undefined(_("A comparison has no number as its value."))


@remember
def odd_root(exponent: Node) -> int:
    """1 or −1 if the exponent is exactly a fraction with an odd number below, else 0.

    Then a negative base has a real power, of the sign (±1)^numerator: the cube root of −8 is −2.
    """
    if any(isinstance(child, Name) for child in _walk(exponent)):
        return 0
    try:
        exact = exact_at(exponent)
    except Undefined:
        return 0
    if exact is None or exact.denominator % 2 == 0 or exact.denominator == 1:
        return 0
    return -1 if exact.numerator % 2 else 1


def _walk(node: Node) -> list[Node]:
    return [node, *(inner for child in children(node) for inner in _walk(child))]


def _float_power(base: float, exponent: float, odd: int) -> float:
    if base == 0 and exponent <= 0:
        raise Undefined(_("Zero can't be raised to zero or to a negative power."))
    if base < 0 and not exponent.is_integer():
        if not odd:
            raise Undefined(_("A negative number has no real power of this kind."))
        return float(odd * abs(base) ** exponent)
    return float(base**exponent)


def _float_call(function: str, a: list[float]) -> float:
    x = a[0]
    if function in ("ln", "log") and x <= 0:
        raise Undefined(_("Only numbers above zero have a logarithm."))
    if function == "sqrt" and x < 0:
        raise Undefined(_("A negative number has no real square root."))
    if function in ("asin", "acos") and abs(x) > 1:
        raise Undefined(_("{function} works on numbers from −1 to 1.").format(function=function))
    if function == "tan" and math.isfinite(x) and abs(math.cos(x)) < 1e-15:
        raise Undefined(_("The tangent of a right angle does not exist."))
    if function == "mod" and a[1] == 0:
        raise Undefined(_("Nothing can be divided by zero."))
    if function == "root":
        return _float_root(x, a[1])
    if function == "factorial":
        if x < 0 or not x.is_integer():
            raise Undefined(_("Only whole numbers from 0 on have a factorial."))
        return math.gamma(x + 1)
    try:
        return float(_FLOAT[function](*a))
    except ValueError as error:  # of an infinity, say
        raise Undefined(_("The numbers are too large to be worked out.")) from error


def _float_root(x: float, degree: float) -> float:
    if degree == 0:
        raise Undefined(_("There is no zeroth root."))
    if x < 0 and degree % 2 != 1:
        raise Undefined(_("An even root of a negative number is not a real number."))
    if x == 0 and degree < 0:
        raise Undefined(_("Zero can't be raised to zero or to a negative power."))
    return float(math.copysign(abs(x) ** (1 / degree), x))


_FLOAT: dict[str, Callable[..., float]] = {
    "sin": math.sin, "cos": math.cos, "tan": math.tan, "asin": math.asin, "acos": math.acos, "atan": math.atan,
    "sinh": math.sinh, "cosh": math.cosh, "tanh": math.tanh, "sqrt": math.sqrt, "cbrt": math.cbrt, "abs": abs,
    "exp": math.exp, "ln": math.log, "log": math.log10, "floor": math.floor, "ceil": math.ceil,
    "round": lambda v: math.floor(v + 0.5), "sign": lambda v: (v > 0) - (v < 0), "min": min, "max": max,
    "mod": lambda p, q: p % q, "degrees": math.radians,
}  # fmt: skip


def values(node: Node, **variables: NDArray[Any]) -> NDArray[Any]:
    """The values at many places at once, float64 of the variables' shape; nan where undefined."""
    import numpy as np

    shape = np.broadcast_shapes(*(np.shape(v) for v in variables.values())) if variables else ()
    with np.errstate(all="ignore"):
        result = np.asarray(_array(node, variables), dtype=np.float64)
    result = np.where(np.isfinite(result), result, np.nan)
    return np.broadcast_to(result, shape) if result.shape != shape else result


def _array(node: Node, variables: Mapping[str, Any]) -> Any:
    import numpy as np

    match node:
        case Number(value, _):
            return float(value)
        case Name(name):
            if name in variables:
                return variables[name]
            return VALUES.get(name, math.nan)
        case Negative(of):
            return -_array(of, variables)
        case Binary("^", left, right):
            return _array_power(_array(left, variables), _array(right, variables), odd_root(right))
        case Binary(op, left, right):
            a, b = _array(left, variables), _array(right, variables)
            if op == "/":
                return np.divide(a, b)
            return a + b if op == "+" else a - b if op == "-" else a * b
        case Call(function, arguments):
            return _array_function(function)(*(_array(argument, variables) for argument in arguments))
    return math.nan


def _array_power(base: Any, exponent: Any, odd: int) -> Any:
    import numpy as np

    if isinstance(exponent, float) and exponent in (2.0, 3.0, 4.0):
        square = base * base  # several times faster than numpy's power
        return square if exponent == 2.0 else square * base if exponent == 3.0 else square * square
    base = np.asarray(base, dtype=np.float64)
    result = np.power(np.abs(base), exponent) if odd else np.power(base, exponent)
    if odd == -1:
        result = np.where(base < 0, -result, result)
    return np.where((base == 0) & (np.asarray(exponent) <= 0), np.nan, result)


def _array_function(function: str) -> Callable[..., Any]:
    import numpy as np

    named: dict[str, Callable[..., Any]] = {
        "asin": np.arcsin, "acos": np.arccos, "atan": np.arctan, "ln": np.log, "log": np.log10, "cbrt": np.cbrt,
        "round": lambda v: np.floor(v + 0.5), "min": np.minimum, "max": np.maximum, "mod": np.mod,
        "degrees": np.radians, "factorial": np.vectorize(_factorial, otypes=[np.float64]),
        "root": np.vectorize(_root, otypes=[np.float64]),
    }  # fmt: skip
    found = named.get(function)
    if found is not None:
        return found
    plain: Callable[..., Any] = getattr(np, function)
    return plain


def _factorial(x: float) -> float:
    try:
        return math.gamma(x + 1) if x >= 0 and float(x).is_integer() else math.nan
    except OverflowError:
        return math.nan


def _root(x: float, degree: float) -> float:
    try:
        return _float_root(x, degree)
    except (Undefined, OverflowError):
        return math.nan
