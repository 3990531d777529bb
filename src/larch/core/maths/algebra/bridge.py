"""To the algebra package and back. It is imported in the worker's process only, when it is first needed."""

from __future__ import annotations

from fractions import Fraction
from typing import Any

from larch.core.base.words import _
from larch.core.maths.algebra.steps import Unsolved
from larch.core.maths.algebra.write import whole
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number, Relation, Unit
from larch.core.maths.expression.words import UNITS

TO = {
    "asin": "asin", "acos": "acos", "atan": "atan", "ln": "log", "abs": "Abs", "floor": "floor", "ceil": "ceiling",
    "sign": "sign", "exp": "exp", "factorial": "factorial", "binomial": "binomial", "min": "Min", "max": "Max", "gcd": "gcd",
    "lcm": "lcm",
}  # fmt: skip
LARGEST_POWER = 60


def package() -> Any:
    """SymPy."""
    import sympy

    return sympy


def to_package(node: Node) -> Any:
    """Raises Unsolved for what it has no word for."""
    sympy = package()
    match node:
        case Number(value, _):
            return sympy.Rational(value.numerator, value.denominator)
        case Unit(name):
            return sympy.Rational(UNITS[name][1].numerator, UNITS[name][1].denominator)
        case Name("π"):
            return sympy.pi
        case Name("e"):
            return sympy.E
        case Name("τ"):
            return 2 * sympy.pi
        case Name("∞"):
            return sympy.oo
        case Name(name):
            return sympy.Symbol(name, real=True)
        case Negative(of):
            return -to_package(of)
        case Binary("^", base, exponent):
            raised = to_package(exponent)
            if raised.is_Integer and abs(raised) > LARGEST_POWER and not to_package(base).is_Symbol:
                raise Unsolved(_("The power is too high to be worked out."))
            if raised.is_Rational and raised.q > 1 and raised.q % 2:
                return sympy.real_root(to_package(base), raised.q) ** raised.p
            return to_package(base) ** raised
        case Binary(op, left, right):
            a, b = to_package(left), to_package(right)
            return a + b if op == "+" else a - b if op == "-" else a * b if op == "*" else a / b
        case Call(function, arguments):
            return _called(function, arguments)
    raise Unsolved(_("This is not an expression."))


def _called(function: str, arguments: tuple[Node, ...]) -> Any:
    sympy = package()
    if function in ("derivative", "integral", "limit", "sum", "product"):
        return _over_letter(function, arguments)
    values = [to_package(argument) for argument in arguments]
    x = values[0]
    if function == "sqrt":
        return sympy.sqrt(x)
    if function in ("cbrt", "root"):
        return sympy.real_root(x, 3 if function == "cbrt" else values[1])
    if function == "log":
        return sympy.log(x) / sympy.log(values[1] if len(values) > 1 else 10)
    if function == "degrees":
        return x * sympy.pi / 180
    if function == "percent":
        return x / 100
    if function == "permille":
        return x / 1000
    if function == "mod":
        return sympy.Mod(x, values[1])
    if function in ("sin", "cos", "tan", "cot", "sec", "csc", "sinh", "cosh", "tanh"):
        return getattr(sympy, function)(x)
    if function in TO:
        return getattr(sympy, TO[function])(*values)
    raise Unsolved(_("“{function}” can't be worked with here.").format(function=function))


def _over_letter(function: str, arguments: tuple[Node, ...]) -> Any:
    sympy = package()
    body, letter, *limits = (to_package(argument) for argument in arguments)
    if function == "derivative":
        return sympy.diff(body, letter)
    if function == "integral":
        return sympy.integrate(body, (letter, *limits) if limits else letter)
    if function == "limit":
        return sympy.limit(body, letter, limits[0])
    if function == "sum":
        return sympy.summation(body, (letter, *limits))
    return sympy.product(body, (letter, *limits))


def from_package(value: Any) -> Node:
    """Raises Unsolved for what we have no word for."""
    sympy = package()
    if value.is_Rational:
        return whole(Fraction(int(value.p), int(value.q)))
    if value.is_Float:
        text = f"{float(value):.10g}"
        return Number(Fraction(text), text)
    if value is sympy.pi:
        return Name("π")
    if value is sympy.E:
        return Name("e")
    if value is sympy.oo or value is -sympy.oo:
        return Name("∞") if value is sympy.oo else Negative(Name("∞"))
    if value.is_Symbol:
        return Name(str(value))
    if value.is_Add:
        return _sum(value)
    if value.is_Mul:
        return _product(value)
    if value.is_Pow:
        return _power(value)
    name = type(value).__name__
    back = {word: own for own, word in TO.items()}
    own = back.get(name, name)
    if own in ("sin", "cos", "tan", "cot", "sec", "csc", "sinh", "cosh", "tanh", *TO):
        return Call(own, tuple(from_package(argument) for argument in value.args))
    raise Unsolved(_("The result can't be written in the words of school."))


def _sum(value: Any) -> Node:
    terms = value.as_ordered_terms()
    found = from_package(terms[0])
    for term in terms[1:]:
        if term.could_extract_minus_sign():
            found = Binary("-", found, from_package(-term))
        else:
            found = Binary("+", found, from_package(term))
    return found


def _product(value: Any) -> Node:
    sympy = package()
    if value.could_extract_minus_sign():
        return Negative(from_package(-value))
    above, below = sympy.fraction(value)
    if below != 1:
        return Binary("/", from_package(above), from_package(below))
    factors = [from_package(factor) for factor in value.as_ordered_factors()]
    found = factors[0]
    for factor in factors[1:]:
        found = Binary("*", found, factor, implied=True)
    return found


def _power(value: Any) -> Node:
    base, exponent = value.as_base_exp()
    if exponent.is_Rational and exponent.q == 2 and exponent.p == 1:
        return Call("sqrt", (from_package(base),))
    if exponent.is_Rational and exponent.q > 1 and exponent.p == 1:
        return (
            Call("cbrt", (from_package(base),))
            if exponent.q == 3
            else Call("root", (from_package(base), whole(int(exponent.q))))
        )
    if exponent.could_extract_minus_sign():
        return Binary("/", whole(1), from_package(base ** (-exponent)))
    return Binary("^", from_package(base), from_package(exponent))


def difference_of(node: Relation) -> Any:
    return to_package(node.left) - to_package(node.right)
