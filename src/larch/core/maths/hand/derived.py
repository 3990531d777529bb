"""Graphs that come from another: its derivative, an antiderivative, the inverse relation; as equations in plain form."""

from __future__ import annotations

from fractions import Fraction

from larch.core.base.words import N_
from larch.core.maths.algebra.manifold import many_of
from larch.core.maths.algebra.manifold import written as many_written
from larch.core.maths.expression.derive import derivative
from larch.core.maths.expression.exactly import NotRational, Undefined
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number, Relation, names_in
from larch.core.maths.hand.families import Family, family_of
from larch.core.maths.hand.slots import Letters, Slot, number, replaced, sum_of, times
from larch.core.maths.plane.forms import NotThere

KINDS = ("derivative", "integral", "inverse")
NO_FORM = N_("That graph has no such form that is written in school.")


def derived(node: Node, kind: str, letters: Letters) -> Node:
    """The equation of the graph that comes from y = f(x). Raises NotThere where there is none in closed form."""
    formula = _formula(node)
    if formula is None:
        raise NotThere(N_("It is no function of x."))
    if kind == "inverse":
        return Relation("=", Name("x"), replaced(formula, Name("x"), Name("y")))
    if kind == "derivative":
        try:
            return Relation("=", Name("y"), tidied(derivative(formula, "x")))
        except Undefined as reason:
            raise NotThere(str(reason)) from reason
    return Relation("=", Name("y"), antiderivative(formula, letters))


def _formula(node: Node) -> Node | None:
    if not isinstance(node, Relation):
        return node if names_in(node) else None
    if node.op != "=" or "y" in names_in(node.right):
        return None
    named = isinstance(node.left, Name) and (node.left.name == "y" or node.left.name.endswith("(x)"))
    return node.right if named else None


def tidied(node: Node) -> Node:
    """With the numbers of each product before it, as one; sums of powers with like terms together."""
    try:
        if names_in(node) <= {"x"} and not _has_brackets(node):
            return many_written(many_of(node))
    except NotRational:
        pass
    match node:
        case Binary("*", _, _):
            factors = _factors(node)
            size = Fraction(1)
            rest: list[Node] = []
            for factor in factors:
                if isinstance(factor, Number):
                    size *= factor.value
                elif isinstance(factor, Negative) and isinstance(factor.of, Number):
                    size *= -factor.of.value
                else:
                    rest.append(tidied(factor))
            made: Node | None = None
            for factor in sorted(rest, key=_weight):
                made = factor if made is None else Binary("*", made, factor, implied=True)
            return number(size) if made is None else times(Slot(size), made)
        case Binary("+" | "-" as op, left, right):
            return Binary(op, tidied(left), tidied(right))
        case Binary("/", left, right):
            return Binary("/", tidied(left), tidied(right))
        case Negative(of):
            return Negative(tidied(of))
    return node


def _weight(node: Node) -> int:
    """Powers and letters stand before brackets and functions."""
    return 0 if isinstance(node, Name) or (isinstance(node, Binary) and isinstance(node.left, Name)) else 1


def _has_brackets(node: Node) -> bool:
    """Whether it holds a power or a product of a sum, which would come apart."""
    match node:
        case Binary("^", base, _):
            return not isinstance(base, Name | Number)
        case Binary("*", left, right):
            sums = any(isinstance(part, Binary) and part.op in "+-" for part in (left, right))
            return sums or _has_brackets(left) or _has_brackets(right)
        case Binary(_, left, right):
            return _has_brackets(left) or _has_brackets(right)
        case Negative(of):
            return _has_brackets(of)
    return False


def _factors(node: Node) -> list[Node]:
    if isinstance(node, Binary) and node.op == "*":
        return _factors(node.left) + _factors(node.right)
    return [node]


def antiderivative(node: Node, letters: Letters) -> Node:
    """Of a sum of powers, or of one of the families of school. Raises NotThere."""
    x: Node = Name("x")
    try:
        many = many_of(node)
        if all(key == () or (len(key) == 1 and key[0][0] == "x") for key in many) and not _has_brackets(node):
            terms = [(value, (key[0][1] if key else 0) + 1) for key, value in many.items()]
            made = [(1 if value > 0 else -1, times(Slot(abs(value) / n, "", True), x if n == 1 else Binary(
                "^", x, number(Fraction(n))))) for value, n in sorted(terms, key=lambda term: -term[1])]  # fmt: skip
            return sum_of(made) or number(Fraction(0))
    except NotRational:
        pass
    family = family_of(node, "x", letters)
    if family is None or family.inner is None or family.a.letter or family.k.letter or family.inner.b.letter:
        raise NotThere(NO_FORM)
    main = _of_family(family)
    return main if not family.k.value else Binary(
        "+" if family.k.value > 0 else "-", main, times(family.k.at(abs(family.k.value)), x))  # fmt: skip


def _of_family(family: Family) -> Node:
    """Of a · g(b(x − h))."""
    assert family.inner is not None
    inner, b, a = family.inner.written("x"), family.inner.b.value, family.a.value
    share = Slot(a / b, "", (a / b).denominator > 1)
    kind, core = family.kind, family.core
    if kind == "power":
        n = family.degree + 1
        return times(Slot(a / (b * n), "", True), Binary("^", inner, number(Fraction(n))))
    if kind == "reciprocal" and family.degree == 1:
        return times(share, Call("ln", (Call("abs", (inner,)),)))
    if kind == "reciprocal":
        n = family.degree - 1
        below = inner if n == 1 else Binary("^", inner, number(Fraction(n)))
        size = a / (b * n)
        return Binary("/", number(abs(size)), below) if size < 0 else Negative(Binary("/", number(size), below))
    if kind == "sine" and isinstance(core, Call):
        other = "cos" if core.function == "sin" else "sin"
        return times(share.at(-share.value) if other == "cos" else share, Call(other, (inner,)))
    if kind == "growth" and isinstance(core, Binary):
        raised = Binary("^", core.left, inner)
        if core.left == Name("e"):
            return times(share, raised)
        return Binary("/", times(share, raised), Call("ln", (core.left,)))
    if kind == "root" and isinstance(core, Call) and core.function == "sqrt":
        return times(Slot(2 * a / (3 * b), "", True), Binary("*", inner, Call("sqrt", (inner,)), implied=True))
    raise NotThere(NO_FORM)


__all__ = ["KINDS", "antiderivative", "derived", "tidied"]
