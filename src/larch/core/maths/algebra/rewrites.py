"""What pupils do to expressions that they should not: each mistake as a rewriting of one place.

The kinds are those that teachers name; what a line could have been is tried, and compared with what was written.
"""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

import msgspec

from larch.core.maths.algebra.statements import sum_of_terms, terms_of
from larch.core.maths.expression.tree import Binary, Call, Joined, Name, Negative, Node, Number, Relation, names_in

Rewritten = tuple[str, Node]  # the kind of mistake, and what comes of it
MOST = 160


def rewritten(node: Node) -> Iterator[Rewritten]:
    """The whole with one place wrong, in each way."""
    yield from _here(node)
    match node:
        case Binary(_, left, right):
            for kind, other in rewritten(left):
                yield kind, msgspec.structs.replace(node, left=other)
            for kind, other in rewritten(right):
                yield kind, msgspec.structs.replace(node, right=other)
        case Negative(of):
            for kind, other in rewritten(of):
                yield kind, Negative(other)
        case Relation(op, left, right):
            for kind, other in rewritten(left):
                yield kind, Relation(op, other, right)
            for kind, other in rewritten(right):
                yield kind, Relation(op, left, other)
        case Call(function, arguments):
            for k, argument in enumerate(arguments):
                for kind, other in rewritten(argument):
                    yield kind, Call(function, (*arguments[:k], other, *arguments[k + 1 :]))
        case Joined(op, parts, chain):
            for k, part in enumerate(parts):
                for kind, other in rewritten(part):
                    yield kind, Joined(op, (*parts[:k], other, *parts[k + 1 :]), chain)


def _here(node: Node) -> Iterator[Rewritten]:
    match node:
        case Binary("+" | "-" as op, left, right):
            if op == "-" and isinstance(right, Binary) and right.op in "+-":
                for kind, other in _minus_before_bracket(right):
                    yield kind, Binary("+", left, other)
            if isinstance(right, Binary) and right.op in "*/" and not names_in(node):
                yield "order", Binary(right.op, Binary(op, left, right.left), right.right)
            if isinstance(left, Binary) and left.op in "*/" and not names_in(node):
                yield "order", Binary(left.op, left.left, Binary(op, left.right, right))
            yield from _in_sum(node)
        case Negative(of) if isinstance(of, Binary) and of.op in "+-":
            yield from _minus_before_bracket(of)
        case Negative(Binary("^", base, exponent)):
            yield "minus power", Binary("^", Negative(base), exponent)
        case Binary("*", Binary("/", above, below), factor) if not node.implied:
            yield "order", Binary("/", above, Binary("*", below, factor))
            yield from _in_product(node.left, node.right)
            yield from _in_product(node.right, node.left)
        case Binary("*", left, right):
            yield from _in_product(left, right)
            yield from _in_product(right, left)
            yield from _powers_multiplied(left, right)
        case Binary("/", above, below):
            yield from _cancelled(above, below)
        case Binary("^", base, exponent):
            yield from _in_power(base, exponent)
        case Call("sqrt" | "cbrt" | "ln" | "log" | "sin" | "cos" | "tan" | "abs" as function, arguments):
            yield from _over_sum(function, arguments)


# Sums


def _in_sum(node: Node) -> Iterator[Rewritten]:
    terms = terms_of(node)
    if len(terms) > 8:
        return
    for k, (sign, term) in enumerate(terms):
        yield "sign", sum_of_terms([*terms[:k], (-sign, term), *terms[k + 1 :]])
        if sign < 0 and isinstance(term, Binary) and term.op in "+-":
            for kind, other in _minus_before_bracket(term):
                yield kind, sum_of_terms([*terms[:k], (1, other), *terms[k + 1 :]])
        if sign < 0 and isinstance(term, Binary) and term.op == "*":
            for kind, other in _minus_before_product(term):
                yield kind, sum_of_terms([*terms[:k], (1, other), *terms[k + 1 :]])
    for i in range(len(terms)):
        for k in range(i + 1, len(terms)):
            rest = [terms[n] for n in range(len(terms)) if n not in (i, k)]
            for kind, other in _two_added(terms[i], terms[k]):
                yield kind, sum_of_terms([(1, other), *rest])


def _parted(term: tuple[int, Node]) -> tuple[Fraction, Node | None]:
    """The number before a term and what it counts."""
    sign, node = term
    match node:
        case Number(value, _):
            return sign * value, None
        case Binary("*", Number(value, _), of):
            return sign * value, of
        case Binary("*", Binary("*", Number(value, _), first), second):
            return sign * value, Binary("*", first, second, implied=True)
    return Fraction(sign), node


def _two_added(one: tuple[int, Node], other: tuple[int, Node]) -> Iterator[Rewritten]:
    """Unlike terms added, fractions added above and below."""
    p, a = _parted(one)
    q, b = _parted(other)
    if a != b:
        total = number(p + q)
        for of in [a] if b is None else [b] if a is None else [a, b, Binary("*", a, b, implied=True)]:
            if of is not None:
                yield "unlike", Binary("*", total, of, implied=True)
        if a is not None and b is not None and names_in(a) == names_in(b) and len(names_in(a)) == 1:
            power = degree(a) + degree(b)
            yield "unlike", Binary("*", total, Binary("^", Name(next(iter(names_in(a)))), number(power)), implied=True)
    if a is not None and a == b:
        yield "letter", number(p + q)
        yield "like", Binary("^", a, number(p + q))
        yield "like", Binary("*", number(p + q), Binary("^", a, number(Fraction(2))), implied=True)
        yield "arithmetic", Binary("*", number(p - q), a, implied=True)
    first, second = one[1], other[1]
    if isinstance(first, Binary) and isinstance(second, Binary) and first.op == second.op == "/":
        above = sum_of_terms([(one[0], first.left), (other[0], second.left)])
        yield "fractions", Binary("/", above, Binary("+", first.right, second.right))
        yield "fractions", Binary("/", above, Binary("*", first.right, second.right))
    for here, there in ((one, other), (other, one)):
        if isinstance(here[1], Binary) and here[1].op == "/":
            yield "fractions", Binary("/", sum_of_terms([(here[0], here[1].left), there]), here[1].right)


def degree(node: Node) -> Fraction:
    match node:
        case Binary("^", Name(), Number(value, _)):
            return value
        case Binary("*", left, right):
            return degree(left) + degree(right)
        case Name():
            return Fraction(1)
    return Fraction(0)


def _minus_before_bracket(of: Node) -> Iterator[Rewritten]:
    """−(a − b) as −a − b: only the first sign was turned."""
    terms = terms_of(of)
    yield "bracket sign", sum_of_terms([(-terms[0][0], terms[0][1]), *terms[1:]])


def _minus_before_product(term: Binary) -> Iterator[Rewritten]:
    """−2(x − 3) as −2x − 6."""
    for factor, bracket in ((term.left, term.right), (term.right, term.left)):
        if isinstance(bracket, Binary) and bracket.op in "+-":
            terms = [(sign, Binary("*", factor, part)) for sign, part in terms_of(bracket)]
            yield "bracket sign", sum_of_terms([(-terms[0][0], terms[0][1]), *terms[1:]])


# Products, quotients and powers


def _in_product(factor: Node, bracket: Node) -> Iterator[Rewritten]:
    """a(b + c) as ab + c, or with a term left out or a sign lost."""
    if not (isinstance(bracket, Binary) and bracket.op in "+-"):
        return
    terms = terms_of(bracket)
    scaled: list[tuple[int, Node]] = [(sign, Binary("*", factor, part, implied=True)) for sign, part in terms]
    for k in range(len(terms)):
        yield "bracket", sum_of_terms([*terms[:k], scaled[k], *terms[k + 1 :]])
        yield "bracket", sum_of_terms([*scaled[:k], terms[k], *scaled[k + 1 :]])
        yield "bracket sign", sum_of_terms([*scaled[:k], (-scaled[k][0], scaled[k][1]), *scaled[k + 1 :]])
    if isinstance(factor, Binary) and factor.op in "+-":
        first = terms_of(factor)
        if len(first) == len(terms) == 2:
            pairs: list[tuple[int, Node]] = [
                (first[k][0] * terms[k][0], Binary("*", first[k][1], terms[k][1], implied=True)) for k in range(2)
            ]
            yield "bracket", sum_of_terms(pairs)


def _powers_multiplied(left: Node, right: Node) -> Iterator[Rewritten]:
    """a²·a³ as a⁶, 2·3² as 6²."""
    one = left if isinstance(left, Binary) and left.op == "^" else Binary("^", left, number(Fraction(1)))
    other = right if isinstance(right, Binary) and right.op == "^" else Binary("^", right, number(Fraction(1)))
    if one.left == other.left:
        yield "powers", Binary("^", one.left, Binary("*", one.right, other.right))
        yield "powers", Binary("^", Binary("*", one.left, other.left), Binary("+", one.right, other.right))
    if isinstance(right, Binary) and right.op == "^" and not isinstance(left, Binary):
        yield "powers", Binary("^", Binary("*", left, right.left), right.right)


def _cancelled(above: Node, below: Node) -> Iterator[Rewritten]:
    """(x + 3)/3 as x or x + 1, (x + 3)/(y + 3) as x/y."""
    upper, lower = terms_of(above), terms_of(below)
    if len(upper) > 1:
        for k, (sign, term) in enumerate(upper):
            shared = Binary("/", term, below)
            rest = [*upper[:k], *upper[k + 1 :]]
            yield "cancel", sum_of_terms([*upper[:k], (sign, shared), *upper[k + 1 :]])
            yield "cancel", sum_of_terms(rest)
            for i in range(len(lower)):
                if len(lower) > 1 and lower[i][1] == term:
                    yield "cancel", Binary("/", sum_of_terms(rest), sum_of_terms([*lower[:i], *lower[i + 1 :]]))
    if len(lower) > 1 and len(upper) == 1:
        yield "cancel", sum_of_terms([(sign, Binary("/", above, term)) for sign, term in lower])
        for k in range(len(lower)):
            if lower[k][1] == above:
                yield "cancel", sum_of_terms([*lower[:k], *lower[k + 1 :]])
                yield "cancel", Binary("/", number(Fraction(1)), sum_of_terms([*lower[:k], *lower[k + 1 :]]))
    if len(lower) > 1 and len(upper) > 1:
        pairs = min(len(lower), len(upper))
        yield (
            "cancel",
            sum_of_terms([(upper[k][0] * lower[k][0], Binary("/", upper[k][1], lower[k][1])) for k in range(pairs)]),
        )


def _in_power(base: Node, exponent: Node) -> Iterator[Rewritten]:
    if isinstance(base, Binary) and base.op in "+-":
        terms = terms_of(base)
        raised: list[tuple[int, Node]] = [(sign, Binary("^", part, exponent)) for sign, part in terms]
        yield "square", sum_of_terms(raised)
        yield "square", sum_of_terms([(1, part) for _sign, part in raised])
        if exponent == number(Fraction(2)) and len(terms) == 2:
            ab = Binary("*", terms[0][1], terms[1][1], implied=True)
            single = (terms[0][0] * terms[1][0], ab)
            double = (-terms[0][0] * terms[1][0], Binary("*", number(Fraction(2)), ab))
            for middle in (single, double):
                yield "middle", sum_of_terms([(1, raised[0][1]), middle, (1, raised[1][1])])
    if isinstance(base, Binary) and base.op == "*":
        yield "power of product", Binary("*", base.left, Binary("^", base.right, exponent), implied=True)
    if isinstance(base, Binary) and base.op == "^":
        yield "powers", Binary("^", base.left, Binary("+", base.right, exponent))
    if isinstance(exponent, Number) and exponent.value.denominator == 1 and exponent.value > 1:
        yield "power as product", Binary("*", exponent, base)
    match exponent:
        case Negative(of):
            yield "negative power", Negative(Binary("^", base, of))


def _over_sum(function: str, arguments: tuple[Node, ...]) -> Iterator[Rewritten]:
    """√(a + b) as √a + √b, and so for other functions."""
    of = arguments[0]
    kind = "root of sum" if function in ("sqrt", "cbrt") else "function of sum"
    if isinstance(of, Binary) and of.op in "+-":
        yield kind, sum_of_terms([(sign, Call(function, (part, *arguments[1:]))) for sign, part in terms_of(of)])
    if isinstance(of, Binary) and of.op == "*" and function in ("sin", "cos", "tan"):
        yield "function of product", Binary("*", of.left, Call(function, (of.right,)))
    if function == "sqrt":
        yield "root", Binary("/", of, number(Fraction(2)))


def number(value: Fraction) -> Node:
    if value < 0:
        return Negative(number(-value))
    return Number(value, str(value))
