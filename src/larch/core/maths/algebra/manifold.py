"""Polynomials in several letters: how often each product of powers stands."""

from __future__ import annotations

from fractions import Fraction

from larch.core.maths.algebra.statements import sum_of_terms
from larch.core.maths.algebra.write import power, times, whole
from larch.core.maths.expression.exactly import NotRational, Undefined, exact_at
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number, names_in

Powers = tuple[tuple[str, int], ...]
Many = dict[Powers, Fraction]
MOST_TERMS = 400


def many_of(node: Node) -> Many:
    """Raises NotRational where it is no polynomial, or too long."""
    if not names_in(node):
        try:
            value = exact_at(node)
        except Undefined as gone:
            raise NotRational from gone
        if value is None:
            raise NotRational
        return {(): value} if value else {}
    match node:
        case Number(value, _):
            return {(): value} if value else {}
        case Name(name):
            return {((name, 1),): Fraction(1)}
        case Negative(of):
            return {key: -value for key, value in many_of(of).items()}
        case Binary("+" | "-" as op, left, right):
            return _added(many_of(left), many_of(right), 1 if op == "+" else -1)
        case Binary("*", left, right):
            return _multiplied(many_of(left), many_of(right))
        case Binary("/", left, right):
            below = many_of(right)
            if set(below) != {()}:
                raise NotRational
            return {key: value / below[()] for key, value in many_of(left).items()}
        case Binary("^", base, Number(value, _)) if value.denominator == 1 and 0 <= value <= 12:
            found: Many = {(): Fraction(1)}
            inner = many_of(base)
            for _k in range(int(value)):
                found = _multiplied(found, inner)
            return found
        case Call("percent", (of,)):
            return {key: value / 100 for key, value in many_of(of).items()}
    raise NotRational


def _added(a: Many, b: Many, sign: int) -> Many:
    found = dict(a)
    for key, value in b.items():
        found[key] = found.get(key, Fraction(0)) + sign * value
    return {key: value for key, value in found.items() if value}


def _multiplied(a: Many, b: Many) -> Many:
    if len(a) * len(b) > MOST_TERMS * 4:
        raise NotRational
    found: Many = {}
    for one, p in a.items():
        for other, q in b.items():
            key = _together(one, other)
            found[key] = found.get(key, Fraction(0)) + p * q
    if len(found) > MOST_TERMS:
        raise NotRational
    return {key: value for key, value in found.items() if value}


def _together(a: Powers, b: Powers) -> Powers:
    found = dict(a)
    for name, k in b:
        found[name] = found.get(name, 0) + k
    return tuple(sorted(found.items()))


def written(many: Many) -> Node:
    """The highest powers first, letters in their order."""

    def place(key: Powers) -> tuple[int, tuple[tuple[str, int], ...]]:
        return (-sum(k for _name, k in key), tuple((name, -k) for name, k in key))

    terms: list[tuple[int, Node]] = []
    for key in sorted(many, key=place):
        value = many[key]
        product: Node | None = None
        for name, k in key:
            factor = power(name, k)
            product = factor if product is None else Binary("*", product, factor, implied=True)
        size = abs(value)
        terms.append((1 if value > 0 else -1, whole(size) if product is None else times(size, product)))
    return sum_of_terms(terms)
