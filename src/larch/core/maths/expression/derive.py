"""Derivatives, on our own tree: what is needed for tangents, extrema and d/dx."""

from __future__ import annotations

from fractions import Fraction

from larch.core.base.words import _
from larch.core.maths.expression.exactly import Undefined
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number, Relation, names_in

ZERO, ONE, TWO, TEN = (Number(Fraction(n), str(n)) for n in (0, 1, 2, 10))


def derivative(node: Node, name: str) -> Node:
    """The derivative by a variable. Raises Undefined for what has none that can be written."""
    if name not in names_in(node):
        return ZERO
    match node:
        case Name():
            return ONE
        case Negative(of):
            return Negative(derivative(of, name))
        case Binary("+" | "-" as op, left, right):
            return sum_of(op, derivative(left, name), derivative(right, name))
        case Binary("*", left, right):
            return sum_of("+", times(derivative(left, name), right), times(left, derivative(right, name)))
        case Binary("/", left, right):
            above = sum_of("-", times(derivative(left, name), right), times(left, derivative(right, name)))
            return over(above, Binary("^", right, TWO)) if name in names_in(right) else over(derivative(left, name), right)
        case Binary("^", base, exponent):
            return _of_power(base, exponent, name)
        case Call(function, arguments):
            return _of_call(function, arguments, name)
    raise Undefined(_("This has no derivative."))


def _of_power(base: Node, exponent: Node, name: str) -> Node:
    if name not in names_in(exponent):
        lower = (
            Number(exponent.value - 1, str(exponent.value - 1))
            if isinstance(exponent, Number)
            else sum_of("-", exponent, ONE)
        )
        raised = base if lower == ONE else ONE if lower == ZERO else Binary("^", base, lower)
        return times(times(exponent, raised), derivative(base, name))
    whole = Binary("^", base, exponent)
    if base == Name("e"):
        return times(whole, derivative(exponent, name))
    logarithm = Call("ln", (base,))
    inner = times(derivative(exponent, name), logarithm)
    if name in names_in(base):
        inner = sum_of("+", inner, over(times(exponent, derivative(base, name)), base))
    return times(whole, inner)


def _of_call(function: str, arguments: tuple[Node, ...], name: str) -> Node:
    x = arguments[0]
    if function == "log" and len(arguments) == 2:
        return derivative(over(Call("ln", (x,)), Call("ln", (arguments[1],))), name)
    if function == "root":
        return _of_power(x, over(ONE, arguments[1]), name)
    if function == "cases":
        parts = [part if k % 2 else derivative(part, name) for k, part in enumerate(arguments)]
        return Call("cases", tuple(parts))
    if function in ("min", "max") and len(arguments) == 2:
        a, b = arguments
        first = Relation("<" if function == "min" else ">", a, b)
        return Call("cases", (derivative(a, name), first, derivative(b, name), Call("otherwise", ())))
    if function == "mod" and name not in names_in(arguments[1]):
        return derivative(x, name)
    if function == "round":
        return ZERO
    if len(arguments) != 1:
        raise Undefined(_("This has no derivative."))
    square = Binary("^", x, TWO)
    sine, cosine = Call("sin", (x,)), Call("cos", (x,))
    outer: dict[str, Node] = {
        "sin": cosine, "cos": Negative(sine), "tan": over(ONE, Binary("^", cosine, TWO)),
        "cot": Negative(over(ONE, Binary("^", sine, TWO))), "sec": over(sine, Binary("^", cosine, TWO)),
        "csc": Negative(over(cosine, Binary("^", sine, TWO))),
        "asin": over(ONE, Call("sqrt", (Binary("-", ONE, square),))),
        "acos": Negative(over(ONE, Call("sqrt", (Binary("-", ONE, square),)))), "atan": over(ONE, Binary("+", ONE, square)),
        "sinh": Call("cosh", (x,)), "cosh": Call("sinh", (x,)), "tanh": over(ONE, Binary("^", Call("cosh", (x,)), TWO)),
        "exp": Call("exp", (x,)), "ln": over(ONE, x), "log": over(ONE, Binary("*", x, Call("ln", (TEN,)))),
        "sqrt": over(ONE, Binary("*", TWO, Call("sqrt", (x,)))), "abs": over(x, Call("abs", (x,))),
        "cbrt": over(ONE, Binary("*", Number(Fraction(3), "3"), Binary("^", Call("cbrt", (x,)), TWO))),
        "degrees": over(Name("π"), Number(Fraction(180), "180")), "percent": Number(Fraction(1, 100), "0.01"),
    }  # fmt: skip
    if function in ("floor", "ceil", "round", "sign"):
        return ZERO
    if function not in outer:
        raise Undefined(_("This has no derivative."))
    return times(outer[function], derivative(x, name))


def sum_of(op: str, left: Node, right: Node) -> Node:
    if right == ZERO:
        return left
    if left == ZERO:
        return right if op == "+" else Negative(right)
    if isinstance(left, Number) and isinstance(right, Number):
        value = left.value + right.value if op == "+" else left.value - right.value
        return Number(value, str(value))
    return Binary(op, left, right)


def times(left: Node, right: Node) -> Node:
    if ZERO in (left, right):
        return ZERO
    if left == ONE:
        return right
    if right == ONE:
        return left
    if isinstance(left, Number) and isinstance(right, Number):
        value = left.value * right.value
        return Number(value, str(value))
    return Binary("*", left, right)


def over(left: Node, right: Node) -> Node:
    return left if right == ONE else ZERO if left == ZERO else Binary("/", left, right)
