"""Equations and inequalities in one letter that polynomials say all about, and equations with the letter below."""

from __future__ import annotations

from collections.abc import Mapping
from fractions import Fraction

from larch.core.base.words import _
from larch.core.maths.algebra.polynomials import (
    Polynomial,
    Ratio,
    added,
    common,
    divided,
    multiplied,
    ratio_of,
    real_zeros,
    trimmed,
)
from larch.core.maths.algebra.statements import letters, terms_of
from larch.core.maths.algebra.steps import Done, Step, both_sides, everything, in_order, nothing, solutions, tried
from larch.core.maths.algebra.write import common_denominator, polynomial, square_root, surd, times, whole
from larch.core.maths.expression.exactly import NotRational, Undefined
from larch.core.maths.expression.tree import Binary, Call, Name, Node, Number, Relation

TURNED = {"<": ">", ">": "<", "≤": "≥", "≥": "≤", "=": "=", "≠": "≠"}
ZERO = Number(Fraction(0), "0")


def sides_of(node: Relation, name: str) -> tuple[Ratio, Ratio] | None:
    try:
        return ratio_of(node.left, name, {}), ratio_of(node.right, name, {})
    except (NotRational, ZeroDivisionError, Undefined):
        return None


def _whole_side(ratio: Ratio) -> Polynomial | None:
    """A side without the letter below."""
    if len(ratio.below) != 1:
        return None
    return tuple(term / ratio.below[0] for term in ratio.above)


def polynomial_relation(node: Node, name: str) -> Done | None:
    """Both sides polynomials with numbers before the letter."""
    if not isinstance(node, Relation) or len(letters([node])) > 1:
        return None
    found = sides_of(node, name)
    if found is None or (left := _whole_side(found[0])) is None or (right := _whole_side(found[1])) is None:
        return None
    if _divides_by_letter(node, name):
        return None
    steps: list[Step] = []
    line = Relation(node.op, polynomial(left, name), polynomial(right, name))
    if _has_brackets(node) or any(len(terms_of(a)) != len(terms_of(b)) for a, b in _sides(line, node)):
        steps.append(Step(line, _("expand and collect like terms") if _has_brackets(node) else _("collect like terms")))
    degree = len(added(left, right, Fraction(-1))) - 1
    if degree <= 1:
        return linear(name, node.op, left, right, steps)
    if node.op == "=":
        return higher(node, name, left, right, steps)
    return None


def _sides(one: Relation, other: Relation) -> tuple[tuple[Node, Node], tuple[Node, Node]]:
    return (one.left, other.left), (one.right, other.right)


def _divides_by_letter(node: Node, name: str) -> bool:
    from larch.core.maths.expression.tree import children, names_in

    below = isinstance(node, Binary) and node.op == "/" and name in names_in(node.right)
    negative = (
        isinstance(node, Binary) and node.op == "^" and name in names_in(node.left) and not isinstance(node.right, Number)
    )
    return below or negative or any(_divides_by_letter(child, name) for child in children(node))


def _has_brackets(node: Node) -> bool:
    from larch.core.maths.expression.tree import children

    if (
        isinstance(node, Binary)
        and node.op in "*/^"
        and any(isinstance(p, Binary) and p.op in "+-" for p in (node.left, node.right))
    ):
        return True
    return any(map(_has_brackets, children(node)))


def linear(name: str, op: str, left: Polynomial, right: Polynomial, steps: list[Step]) -> Done:
    """ax + b = cx + d: fractions away, letters to one side, numbers to the other, divide."""

    def line(a: Polynomial, b: Polynomial, sign: str) -> Relation:
        return Relation(sign, polynomial(a, name), polynomial(b, name))

    below = common_denominator((*left, *right))
    moves = len(left) == 2 or len(right) == 2
    if below > 1 and moves and not (len(left) == 2 and left[0] == 0 and len(right) < 2):
        left, right = tuple(below * t for t in left), tuple(below * t for t in right)
        steps.append(Step(line(left, right, op), both_sides("×", whole(below))))
    if len(right) == 2 and (len(left) < 2 or left[1] < right[1]):
        left, right, op = right, left, TURNED[op]
        steps.append(Step(line(left, right, op), _("the sides change places")))
    if len(right) == 2:
        term: Polynomial = (Fraction(0), right[1])
        left, right = added(left, term, Fraction(-1)), added(right, term, Fraction(-1))
        sign, size = ("-", term[1]) if term[1] > 0 else ("+", -term[1])
        steps.append(Step(line(left, right, op), both_sides(sign, times(size, Name(name)))))
    if len(left) < 2:
        from larch.core.maths.expression.precise import compared

        true = compared(op, left[0] if left else Fraction(0), right[0] if right else Fraction(0))
        return everything(name, steps) if true else nothing(steps)
    if left[0]:
        constant = left[0]
        left, right = added(left, (constant,), Fraction(-1)), added(right, (constant,), Fraction(-1))
        sign, size = ("-", constant) if constant > 0 else ("+", -constant)
        steps.append(Step(line(left, right, op), both_sides(sign, whole(size))))
    factor, value = left[1], right[0] if right else Fraction(0)
    if factor != 1:
        turned = TURNED[op] if factor < 0 else op
        made = Relation(turned, Name(name), whole(value / factor))
        inverse = 1 / factor
        reason = both_sides("×", whole(inverse)) if inverse.denominator == 1 else both_sides("÷", whole(factor))
        if turned != op:
            reason = _("{reason}; the sign turns").format(reason=reason)
        steps.append(Step(made, reason))
        op = turned
    return Done(tuple(steps), (Relation(op, Name(name), whole(value / factor)),))


def higher(node: Relation, name: str, left: Polynomial, right: Polynomial, steps: list[Step]) -> Done:
    """Of the second power and higher: brought to zero, factors taken out, then root, product or formula."""
    pure = _pure(name, left, right, steps)
    if pure is not None:
        return pure
    all_left, gone = added(left, right, Fraction(-1)), right
    if all_left[-1] < 0:
        all_left, gone = tuple(-term for term in all_left), left
    below = common_denominator(all_left)
    if right:
        reason = both_sides("-", polynomial(gone, name)) if gone else _("the sides change places")
        steps.append(Step(Relation("=", polynomial(all_left, name), ZERO), reason))
    if below > 1:
        all_left = tuple(below * term for term in all_left)
        steps.append(Step(Relation("=", polynomial(all_left, name), ZERO), both_sides("×", whole(below))))
    factors = factored(all_left)
    if len(factors) > 1 or (factors and factors[0][1] > 1):
        steps.append(Step(Relation("=", product_of(factors, all_left, name), ZERO), _("factorise")))
    values: list[Node] = []
    for factor, _count in factors:
        values += _zeros_of(factor, name, steps, len(factors) == 1)
    values = in_order(values)
    if not values:
        return nothing(steps)
    product = len(factors) > 1 or factors[0][1] > 1
    return solutions(name, values, steps, _("a product is zero when a factor is") if product else _("the values"))


def _pure(name: str, left: Polynomial, right: Polynomial, steps: list[Step]) -> Done | None:
    """x² = c."""
    if len(left) != 3 or left[1] or len(right) > 1:
        return None
    if left[0]:
        constant = left[0]
        left, right = added(left, (constant,), Fraction(-1)), added(right, (constant,), Fraction(-1))
        sign, size = ("-", constant) if constant > 0 else ("+", -constant)
        steps.append(Step(Relation("=", polynomial(left, name), polynomial(right, name)), both_sides(sign, whole(size))))
    value = (right[0] if right else Fraction(0)) / left[2]
    square: Node = Binary("^", Name(name), whole(2))
    if left[2] != 1:
        steps.append(Step(Relation("=", square, whole(value)), both_sides("÷", whole(left[2]))))
    if value < 0:
        return nothing(steps)
    if value == 0:
        return solutions(name, [ZERO], steps, _("the root of both sides"))
    factor, under = square_root(value)
    root = surd(Fraction(0), factor, under)
    steps.append(Step(Relation("=", Name(name), Call("±", (root,))), _("the root of both sides, with both signs")))
    return solutions(name, [surd(Fraction(0), -factor, under), root], steps, _("the two values"))


def factored(terms: Polynomial) -> list[tuple[Polynomial, int]]:
    """Into factors over the fractions, as far as their zeros are fractions: each with its count."""
    found: list[tuple[Polynomial, int]] = []
    rest = terms
    for zero in real_zeros(terms):
        if not isinstance(zero, Fraction):
            continue
        factor: Polynomial = (Fraction(-zero.numerator), Fraction(zero.denominator))
        count = 0
        while len(rest) > 1:
            quotient, remainder = divided(rest, factor)
            if remainder:
                break
            rest, count = quotient, count + 1
        found.append((factor, count))
    if len(rest) > 1:
        found += [(part, 1) for part in _quadratics(rest)]
    return found


def _quadratics(terms: Polynomial) -> list[Polynomial]:
    """Squares within squares: x⁴ − 5x² + 6 has the factors x² − 2 and x² − 3."""
    if len(terms) == 5 and not terms[1] and not terms[3]:
        a, b, c = terms[4], terms[2], terms[0]
        inner = b * b - 4 * a * c
        if inner >= 0:
            factor, under = square_root(inner)
            if under == 1:
                return [(-((-b + sign * factor) / (2 * a)), Fraction(0), Fraction(1)) for sign in (1, -1)]
    return [terms]


def product_of(factors: list[tuple[Polynomial, int]], terms: Polynomial, name: str) -> Node:
    made: Polynomial = (Fraction(1),)
    parts: list[Node] = []
    for factor, count in factors:
        for _k in range(count):
            made = multiplied(made, factor)
        node = polynomial(factor, name)
        parts.append(node if count == 1 else Binary("^", node, whole(count)))
    lead = terms[-1] / made[-1]
    whole_product: Node | None = None if lead == 1 else whole(lead)
    for part in sorted(parts, key=lambda node: not isinstance(node, Name)):
        whole_product = part if whole_product is None else Binary("*", whole_product, part, implied=True)
    return whole_product if whole_product is not None else whole(lead)


def _zeros_of(factor: Polynomial, name: str, steps: list[Step], alone: bool) -> list[Node]:
    if len(factor) == 2:
        return [whole(-factor[0] / factor[1])]
    if len(factor) == 3:
        a, b, c = factor[2], factor[1], factor[0]
        inner = b * b - 4 * a * c
        if inner < 0:
            return []
        root, under = square_root(inner)
        found = [surd(-b / (2 * a), sign * root / (2 * a), under) for sign in (-1, 1)]
        if alone:
            above = (
                Call("±", (whole(-b), Call("sqrt", (whole(inner),)))) if b else Call("±", (Call("sqrt", (whole(inner),)),))
            )
            steps.append(Step(Relation("=", Name(name), Binary("/", above, whole(2 * a))), _("the formula for squares")))
        return found
    if len([term for term in factor if term]) == 2 and factor[0]:
        value, degree = -factor[0] / factor[-1], len(factor) - 1
        if degree % 2 or value > 0:
            size: Node = whole(abs(value))
            root_node: Node = Call("cbrt", (size,)) if degree == 3 else Call("root", (size, whole(degree)))
            from larch.core.maths.expression.tree import Negative

            if degree % 2:
                return [Negative(root_node) if value < 0 else root_node]
            return [Negative(root_node), root_node]
        return []
    return [_rounded(zero) for zero in real_zeros(factor)]


def _rounded(value: object) -> Node:
    """A zero that has no short exact form, to ten places."""
    from larch.core.maths.expression.precise import mp

    if isinstance(value, Fraction):
        return whole(value)
    text = str(mp().nstr(value, 12)).replace("-", "")
    node: Node = Number(Fraction(text), text)
    from larch.core.maths.expression.tree import Negative

    return Negative(node) if value < 0 else node  # type: ignore[operator]


def rational_equation(node: Node, name: str) -> Done | None:
    """The letter stands below somewhere: what is below goes away, and each value is tried."""
    if not isinstance(node, Relation) or node.op != "=" or len(letters([node])) > 1:
        return None
    found = sides_of(node, name)
    if found is None:
        return None
    left, right = found
    shared = _least_common(left.below, right.below)
    above_left = multiplied(left.above, divided(shared, left.below)[0])
    above_right = multiplied(right.above, divided(shared, right.below)[0])
    shared_node = polynomial(shared, name)
    steps = [Step(Relation("=", polynomial(above_left, name), polynomial(above_right, name)), both_sides("×", shared_node))]
    cleared = steps[0].line
    inner = polynomial_relation(cleared, name)
    if inner is None:
        return None
    values = [one.right for one in inner.answer if isinstance(one, Relation)]
    if not values:
        return Done((*steps, *inner.steps), inner.answer)
    kept = tried(node, name, values)
    made = [*steps, *inner.steps]
    if not kept:
        return Done((*made,), (_("no solution"),))
    if len(kept) < len(values):
        return solutions(name, kept, made, _("nothing can be divided by zero: the others are left out"))
    return solutions(name, kept, made)


def _least_common(a: Polynomial, b: Polynomial) -> Polynomial:
    found = divided(multiplied(a, b), common(a, b))[0]
    scale = Fraction(common_denominator(found))
    whole_terms = [scale * term for term in found]
    import math

    shared = math.gcd(*(int(term) for term in whole_terms)) or 1
    sign = -1 if whole_terms[-1] < 0 else 1
    return trimmed([sign * term / shared for term in whole_terms])


Given = Mapping[str, Fraction]
