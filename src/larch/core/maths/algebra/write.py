"""From numbers and polynomials back to trees that read as they are written in class."""

from __future__ import annotations

import math
from collections.abc import Sequence
from fractions import Fraction

from larch.core.maths.algebra.polynomials import Polynomial
from larch.core.maths.algebra.statements import sum_of_terms
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number


def whole(value: int | Fraction) -> Node:
    """A fraction as a quotient of whole numbers, a negative number with its sign."""
    value = Fraction(value)
    if value < 0:
        return Negative(whole(-value))
    if value.denominator == 1:
        return Number(value, str(value.numerator))
    return Binary("/", whole(value.numerator), whole(value.denominator))


def times(factor: Fraction, node: Node) -> Node:
    """A number times something, the number first; 1 is left out, and what divides stands below."""
    if factor < 0:
        return Negative(times(-factor, node))
    if factor == 1:
        return node
    if factor.denominator == 1:
        if isinstance(node, Binary) and node.op == "*":  # the number first, then letter by letter
            return Binary("*", times(factor, node.left), node.right, implied=True)
        return Binary("*", whole(factor), node, implied=True)
    above = node if factor.numerator == 1 else times(Fraction(factor.numerator), node)
    return Binary("/", above, whole(factor.denominator))


def power(name: str, k: int) -> Node:
    return Name(name) if k == 1 else Binary("^", Name(name), whole(k))


def polynomial(terms: Polynomial, name: str) -> Node:
    """From the highest power down."""
    found: list[tuple[int, Node]] = []
    for k in range(len(terms) - 1, -1, -1):
        if terms[k]:
            size = abs(terms[k])
            found.append((1 if terms[k] > 0 else -1, whole(size) if k == 0 else times(size, power(name, k))))
    return sum_of_terms(found)


def common_denominator(terms: Sequence[Fraction]) -> int:
    return math.lcm(*(term.denominator for term in terms)) if terms else 1


def square_root(value: Fraction) -> tuple[Fraction, int]:
    """(a, b) with √value = a·√b and b without square factors. value ≥ 0."""
    under = value.numerator * value.denominator
    outside, rest, k = 1, under, 2
    while k * k <= rest and k < 100_000:
        while rest % (k * k) == 0:
            outside, rest = outside * k, rest // (k * k)
        k += 1
    root = math.isqrt(rest)
    if root * root == rest:
        outside, rest = outside * root, 1
    return Fraction(outside, value.denominator), rest


def surd(rational: Fraction, factor: Fraction, under: int) -> Node:
    """rational + factor·√under, over one denominator: (5 + √13)/2."""
    if under == 1:
        return whole(rational + factor)
    below = math.lcm(rational.denominator, factor.denominator)
    a, b = rational * below, factor * below
    root: Node = times(abs(b), Call("sqrt", (whole(under),)))
    if a == 0:
        above: Node = Negative(root) if b < 0 else root
    else:
        above = sum_of_terms([(1, whole(a)), (1 if b > 0 else -1, root)])
    if below == 1:
        return above
    if a == 0 and b < 0:
        return Negative(Binary("/", root, whole(below)))
    return Binary("/", above, whole(below))
