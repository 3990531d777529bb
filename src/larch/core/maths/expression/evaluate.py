"""The value of an expression: exactly where that can be, else in float64, or at many places with NumPy."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from fractions import Fraction
from functools import lru_cache
from typing import TYPE_CHECKING, Any

from larch.core.base.memo import remember
from larch.core.base.words import _
from larch.core.maths.expression.exactly import Undefined, exact_at
from larch.core.maths.expression.precise import as_float, call, compared, precise
from larch.core.maths.expression.tree import (
    BINDING,
    Binary,
    Call,
    Joined,
    Name,
    Negative,
    Node,
    Number,
    Relation,
    Unit,
    children,
    names_in,
)
from larch.core.maths.expression.words import UNITS

if TYPE_CHECKING:
    from numpy.typing import NDArray

VALUES = {"π": math.pi, "e": math.e, "τ": math.tau}


def value_at(node: Node, **variables: float) -> float | bool:
    """The value with the variables given; a comparison gives a truth, which is exact.

    Raises Undefined where there is no real value, or where a variable has none.
    """
    if isinstance(node, Relation | Joined):
        return _truth(node, variables)
    if not variables or not names_in(node):
        return as_float(precise(node, {}))
    exact = exact_at(node, **variables)
    if exact is not None:
        return as_float(exact)
    try:
        result = _float(node, variables)
    except OverflowError as error:
        raise Undefined(_("The number is too large to be written.")) from error
    return as_float(result)


def _truth(node: Node, variables: Mapping[str, float]) -> bool:
    """Of a statement; where one side has no value, it is said why. Raises Undefined."""
    given = {name: Fraction(value) for name, value in variables.items()}
    if isinstance(node, Relation):
        return compared(node.op, precise(node.left, given), precise(node.right, given))
    assert isinstance(node, Joined)
    found = [_truth(part, variables) for part in node.parts]
    return all(found) if node.op == "and" else any(found)


def floating(node: Node, variables: Mapping[str, float]) -> float:
    """In float64 throughout, quickly. Raises Undefined, OverflowError."""
    return _float(node, variables)


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
        case Unit(name):
            return float(UNITS[name][1])
        case Negative(of):
            return -_float(of, variables)
        case Binary("^", left, right):
            return _float_power(_float(left, variables), _float(right, variables), odd_root(right))
        case Binary(op, left, right):
            a, b = _float(left, variables), _float(right, variables)
            if op == "/" and b == 0:
                raise Undefined(_("Nothing can be divided by zero."))
            return a + b if op == "+" else a - b if op == "-" else a * b if op == "*" else a / b
        case Call("cases" | "sum" | "product" | "integral" | "derivative" | "limit"):
            return as_float(precise(node, {name: Fraction(value) for name, value in variables.items()}))
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
    if function == "root":
        return _float_root(x, a[1])
    if function == "log" and len(a) == 2:
        return _float_call("log", [x]) / _float_call("log", [a[1]])
    if function in ("cot", "sec", "csc"):
        below = math.cos(x) if function == "sec" else math.sin(x)
        if abs(below) < 1e-15:
            raise Undefined(_("Nothing can be divided by zero."))
        return (math.cos(x) if function == "cot" else 1.0) / below
    if function not in _FLOAT:
        return as_float(call(function, [Fraction(value) for value in a]))
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
    "sign": lambda v: (v > 0) - (v < 0), "degrees": math.radians,
    "min": lambda *v: min(v), "max": lambda *v: max(v), "percent": lambda v: v / 100, "permille": lambda v: v / 1000,
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
        case Unit(name):
            return float(UNITS[name][1])
        case Negative(of):
            return -_array(of, variables)
        case Binary("^", left, right):
            return _array_power(_array(left, variables), _array(right, variables), odd_root(right))
        case Binary(op, left, right):
            a, b = _array(left, variables), _array(right, variables)
            if op == "/":
                return np.divide(a, b)
            return a + b if op == "+" else a - b if op == "-" else a * b
        case Call("cases", parts):
            return _array_cases(parts, variables)
        case Call(function, arguments) if function not in BINDING:
            return _array_function(function)(*(_array(argument, variables) for argument in arguments))
        case Call():
            return _array_one_by_one(node, variables)
    return math.nan


def _array_cases(parts: tuple[Node, ...], variables: Mapping[str, Any]) -> Any:
    """The value of the first case that holds, place by place."""
    import numpy as np

    conditions = [_array_truth(condition, variables) for condition in parts[1::2]]
    return np.select(conditions, [_array(value, variables) for value in parts[::2]], default=math.nan)


def _array_truth(node: Node, variables: Mapping[str, Any]) -> Any:
    import numpy as np

    match node:
        case Relation(op, left, right):
            a, b = _array(left, variables), _array(right, variables)
            compare: Any = {"=": np.isclose, "≠": np.not_equal, "<": np.less, ">": np.greater, "≤": np.less_equal,
                       "≥": np.greater_equal}[op]  # fmt: skip
            return np.asarray(compare(a, b))
        case Joined(op, parts):
            join = np.logical_and.reduce if op == "and" else np.logical_or.reduce
            return join(np.broadcast_arrays(*(_array_truth(part, variables) for part in parts)))
    return np.asarray(True)


def _array_one_by_one(node: Node, variables: Mapping[str, Any]) -> Any:
    """For what has no formula over arrays: sums, areas."""
    import numpy as np

    names = list(variables)

    def one(*values: float) -> float:
        try:
            return as_float(precise(node, {name: Fraction(float(v)) for name, v in zip(names, values, strict=True)}))
        except (Undefined, ValueError, OverflowError):
            return math.nan

    return np.vectorize(one, otypes=[np.float64])(*variables.values()) if names else one()


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


@lru_cache(128)
def _array_function(function: str) -> Callable[..., Any]:
    import numpy as np

    named: dict[str, Callable[..., Any]] = {
        "asin": np.arcsin, "acos": np.arccos, "atan": np.arctan, "ln": np.log, "log": np.log10, "cbrt": np.cbrt,
        "round": _array_round, "min": lambda *v: np.min(np.broadcast_arrays(*v), axis=0), "mod": np.mod,
        "max": lambda *v: np.max(np.broadcast_arrays(*v), axis=0), "cot": lambda v: np.cos(v) / np.sin(v),
        "sec": lambda v: 1 / np.cos(v), "csc": lambda v: 1 / np.sin(v), "percent": lambda v: v / 100,
        "permille": lambda v: v / 1000,
        "degrees": np.radians, "factorial": np.vectorize(_factorial, otypes=[np.float64]),
        "root": np.vectorize(_root, otypes=[np.float64]),
    }  # fmt: skip
    if function == "log":
        return lambda v, base=None: np.log10(v) if base is None else np.log(v) / np.log(base)
    found = named.get(function)
    if found is not None:
        return found
    if function not in _FLOAT:
        return np.vectorize(lambda *v: _quietly(function, v), otypes=[np.float64])
    plain: Callable[..., Any] = getattr(np, function)
    return plain


def _array_round(v: Any, digits: Any = 0.0) -> Any:
    import numpy as np

    scale = np.power(10.0, digits)
    return np.sign(v) * np.floor(np.abs(v) * scale + 0.5) / scale


def _quietly(function: str, values: tuple[float, ...]) -> float:
    try:
        return as_float(call(function, [Fraction(value) for value in values]))
    except (Undefined, ValueError, OverflowError):
        return math.nan


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
