"""The likeliest mistake between two lines, named as a teacher would name it to a pupil."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from typing import NamedTuple

from larch.core.base.words import N_, _
from larch.core.maths.algebra.compare import same
from larch.core.maths.algebra.critical import numbers_in
from larch.core.maths.algebra.rewrites import MOST, number, rewritten
from larch.core.maths.algebra.statements import ORDINARY, letters, relations_of, sum_of_terms, terms_of, written_out
from larch.core.maths.expression.evaluate import floating
from larch.core.maths.expression.exactly import Undefined
from larch.core.maths.expression.tree import Binary, Call, Joined, Negative, Node, Number, Relation, names_in, states

FLIPPED = {"<": ">", ">": "<", "≤": "≥", "≥": "≤", "=": "=", "≠": "≠"}
WORDS = {
    "sign": N_("A sign was lost: look at each + and −."),
    "moved": N_("A sign was lost: what goes to the other side changes its sign."),
    "one side": N_("Only one side was changed: do the same to both sides."),
    "one term": N_("Only one term was divided or multiplied: it has to be done to every term."),
    "root": N_("The root has two signs: ± is missing."),
    "bracket": N_("The bracket was expanded wrongly: what stands before it multiplies every term in it."),
    "bracket sign": N_("The bracket was expanded wrongly: a minus before it turns every sign in it."),
    "unlike": N_("Unlike terms were added: only terms of the same kind can be put together."),
    "like": N_("Like terms were added wrongly: x + x is 2x, not x²."),
    "inequality": N_("The inequality was not turned: by a negative number its sign turns round."),
    "cancel": N_("It was cancelled across a sum: only factors can be cancelled, not terms."),
    "square": N_("The middle term is missing: (a + b)² is a² + 2ab + b²."),
    "middle": N_("The middle term is wrong: (a + b)² is a² + 2ab + b²."),
    "root of sum": N_("The root of a sum is not the sum of the roots."),
    "function of sum": N_("A function of a sum is not the sum of the functions."),
    "function of product": N_("A factor can't be taken out of a function."),
    "fractions": N_("The fractions were added wrongly: first they need the same denominator."),
    "powers": N_("The powers were put together wrongly: aᵐ · aⁿ is aᵐ⁺ⁿ, and (aᵐ)ⁿ is aᵐⁿ."),
    "power of product": N_("The power belongs to every factor in the bracket."),
    "power as product": N_("A power is no product: x² is x · x, not 2x."),
    "negative power": N_("A negative power is one over the power: a⁻ⁿ is 1/aⁿ."),
    "letter": N_("The letter was lost: 7x − 2x is 5x, not 5."),
    "order": N_("The order was wrong: products and quotients come before sums and differences."),
    "minus power": N_("The power comes before the minus: −3² is −9, (−3)² is 9."),
    "product": N_("A product tells about its factors only when it is zero."),
    "arithmetic": N_("A number was worked out wrongly."),
    "half root": N_("A root is no half: √x is the number whose square is x."),
    "lost": N_("A solution was lost."),
    "divide": N_("It was divided the wrong way round: what stands before the letter divides the other side."),
    "undone": N_("It was undone the wrong way: a product is undone by dividing, a sum by taking away."),
}  # fmt: skip
CLOSE = 1e-9


class Mistake(NamedTuple):
    """kind: one of WORDS. said: to the pupil."""

    kind: str
    said: str


def mistake_between(first: Node, second: Node) -> Mistake | None:
    """What was probably done wrongly from one line to the next, or None if nothing that has a name."""
    first, second = written_out(first), written_out(second)
    for kind, wrong in _candidates(first, second):
        if alike(wrong, second):
            return named(kind)
    return None


def named(kind: str) -> Mistake:
    return Mistake(kind, _(WORDS[kind]))


def _candidates(first: Node, second: Node) -> Iterator[tuple[str, Node]]:
    """What the second line would mean the same as, if a mistake of a kind had been made; likeliest first."""
    if isinstance(first, Relation) and isinstance(second, Relation):
        if FLIPPED[first.op] != first.op:
            yield "inequality", Relation(FLIPPED[first.op], first.left, first.right)
        for kind, node in list(rewritten(first))[:MOST]:
            if kind not in ("sign", "arithmetic", "root") and isinstance(node, Relation) and _side_by_side(node, second):
                yield kind, second
        yield from _of_sides(first, second)
    count = 0
    for kind, node in rewritten(first):
        if kind not in ("sign", "arithmetic"):
            yield ("half root" if kind == "root" else kind), node
            count += 1
            if count > MOST:
                break
    for kind, node in list(rewritten(first))[:MOST]:
        if kind == "sign":
            yield kind, node
    if isinstance(first, Relation) and isinstance(second, Relation):
        yield from _signs_in(first, second)
    if not states(first) and not states(second):
        for changed in _sign_other_in_sum(second):
            if alike(first, changed):
                yield "sign", second
    if isinstance(first, Relation) and isinstance(second, Joined):
        yield from _in_joined(first, second)
    yield from _with_other_number(first, second)


def _of_sides(line: Relation, second: Node) -> Iterator[tuple[str, Node]]:
    left, right = line.left, line.right
    for a, b, turn in ((left, right, False), (right, left, True)):
        terms = terms_of(a)
        for k, (sign, term) in enumerate(terms):
            rest = sum_of_terms([*terms[:k], *terms[k + 1 :]])
            moved = Binary("+" if sign > 0 else "-", b, term)
            yield "moved", _with_sides(line.op, rest, moved, turn)
    numbers = _numbers(line, second)
    for ops in ("/*", "+-"):
        for n in numbers:
            for a, b, turn in ((left, right, False), (right, left, True)):
                for op in ops:
                    done = _with_sides(line.op, Binary(op, a, number(n)), b, turn)
                    if isinstance(second, Relation) and _side_by_side(done, second):
                        yield "one side", done
    for n in numbers:
        for a, b, turn in ((left, right, False), (right, left, True)):
            terms = terms_of(a)
            for op in "/*":
                for k, (sign, term) in enumerate(terms):
                    whole = Binary(op, b, number(n))
                    if len(terms) > 1:
                        changed = sum_of_terms([*terms[:k], (sign, Binary(op, term, number(n))), *terms[k + 1 :]])
                        yield "one term", _with_sides(line.op, changed, whole, turn)
    for a, b, turn in ((left, right, False), (right, left, True)):
        for factor, of in _factors(a):
            yield "divide", _with_sides(line.op, of, Binary("/", factor, b), turn)
            yield "undone", _with_sides(line.op, of, Binary("-", b, factor), turn)
            yield "undone", _with_sides(line.op, of, Binary("*", b, factor), turn)
        if isinstance(a, Binary) and a.op == "/":
            yield "undone", _with_sides(line.op, a.left, Binary("/", b, a.right), turn)


def _side_by_side(one: Relation, other: Relation) -> bool:
    """Whether they agree on each side."""
    return one.op == other.op and _agree(one.left, other.left, 1.0) and _agree(one.right, other.right, 1.0)


def _factors(node: Node) -> list[tuple[Node, Node]]:
    match node:
        case Binary("*", left, right):
            return [(left, right), (right, left)]
    return []


def _with_sides(op: str, left: Node, right: Node, turn: bool) -> Relation:
    return Relation(op, right, left) if turn else Relation(op, left, right)


def _numbers(first: Node, second: Node) -> list[Fraction]:
    found = dict.fromkeys(abs(n) for node in (first, second) for n in numbers_in(node) if n and abs(n) != 1)
    quotients = dict.fromkeys(abs(a - b) for a in found for b in found if a != b and abs(a - b) != 1)
    return [*found, *quotients][:8]


def _signs_in(first: Relation, second: Relation) -> Iterator[tuple[str, Node]]:
    """The second line with one sign other would have been right: then the first stands for it."""
    for k, changed in enumerate(_one_sign_other(second)):
        if k > 12:
            return
        if alike(first, changed):
            yield "sign", second


def _sign_other_in_sum(node: Node) -> Iterator[Node]:
    terms = terms_of(node)
    for k, (sign, term) in enumerate(terms):
        if len(terms) > 1:
            yield sum_of_terms([*terms[:k], (-sign, term), *terms[k + 1 :]])


def _in_joined(first: Relation, second: Joined) -> Iterator[tuple[str, Node]]:
    """Solutions of which one has the wrong sign; a product that is not zero taken apart."""
    factors = [factor for factor, _of in _factors(first.left)]
    lines = relations_of(second)
    if factors and all(line.right == first.right and any(alike(line.left, f) for f in factors) for line in lines):
        yield "product", second
    for k, line in enumerate(lines[:4]):
        other = Relation(line.op, line.left, Negative(line.right))
        changed = Joined(second.op, (*lines[:k], other, *lines[k + 1 :]))
        if same(first, changed).same is True:
            yield "sign", second
            return


def _one_sign_other(line: Relation) -> Iterator[Relation]:
    for side in ("left", "right"):
        terms = terms_of(getattr(line, side))
        for k, (sign, term) in enumerate(terms):
            changed = sum_of_terms([*terms[:k], (-sign, term), *terms[k + 1 :]])
            yield Relation(line.op, changed, line.right) if side == "left" else Relation(line.op, line.left, changed)


def _with_other_number(first: Node, second: Node) -> Iterator[tuple[str, Node]]:
    """Only one number of the second line is not what it should be."""
    if states(first) and not isinstance(second, Relation):
        return
    for node in _one_number_other(second):
        if alike(first, node):
            yield "arithmetic", second
            return


def _one_number_other(node: Node) -> Iterator[Node]:
    for near in (1, -1, 2, -2, 10, -10, 3, -3):
        yield from _changed(node, Fraction(near))


def _changed(node: Node, by: Fraction) -> Iterator[Node]:
    match node:
        case Number(value, _):
            yield number(value + by)
        case Negative(of):
            for other in _changed(of, by):
                yield Negative(other)
        case Binary(op, left, right):
            for other in _changed(left, by):
                yield Binary(op, other, right)
            for other in _changed(right, by):
                yield Binary(op, left, other)
        case Relation(op, left, right):
            for other in _changed(left, by):
                yield Relation(op, other, right)
            for other in _changed(right, by):
                yield Relation(op, left, other)


# A quick comparison: enough to choose among candidates, since that the line is wrong is known already.


def alike(a: Node, b: Node) -> bool:
    """Whether two expressions agree at some ordinary places, or the differences of two statements are proportional there."""
    if states(a) != states(b):
        return False
    if not states(a):
        return _agree(a, b, 1.0)
    one, other = relations_of(a), relations_of(b)
    if isinstance(a, Joined) or isinstance(b, Joined) or len(one) != 1 or len(other) != 1:
        return a == b
    first, second = Binary("-", one[0].left, one[0].right), Binary("-", other[0].left, other[0].right)
    factor = _factor(first, second)
    if factor is None or not _agree(first, second, factor):
        return False
    return (one[0].op if factor > 0 else FLIPPED[one[0].op]) == other[0].op


def _factor(a: Node, b: Node) -> float | None:
    for place in _ordinary(letters([a, b])):
        p, q = _at(a, place), _at(b, place)
        if p is not None and q is not None and abs(q) > CLOSE and abs(p) > CLOSE:
            return p / q
    return None


def _agree(a: Node, b: Node, factor: float) -> bool:
    seen = 0
    for place in _ordinary(letters([a, b])):
        p, q = _at(a, place), _at(b, place)
        if p is None or q is None:
            continue
        if abs(p - factor * q) > CLOSE * max(1.0, abs(p)):
            return False
        seen += 1
    return seen > 0


def _ordinary(names: list[str]) -> Iterator[dict[str, float]]:
    for shift in range(5):
        yield {name: float(ORDINARY[(shift + 3 * k) % len(ORDINARY)]) + 0.137 * (k + 1) for k, name in enumerate(names)}


def _at(node: Node, place: dict[str, float]) -> float | None:
    try:
        return floating(node, place)
    except (Undefined, OverflowError, ValueError, ZeroDivisionError):
        return None


def lost_root(first: Relation, second: Relation) -> bool:
    """x² = 9 and then x = 3: an even power or a size on one side, and its root alone on the other line."""
    even = any(_is_even(side) for side in (first.left, first.right) if names_in(side))
    return even and not any(_is_even(side) for side in (second.left, second.right))


def _is_even(node: Node) -> bool:
    match node:
        case Binary("^", _, Number(value, _)):
            return value.denominator == 1 and value % 2 == 0
        case Call("abs"):
            return True
        case Binary("*" | "/", left, right):
            return _is_even(left) or _is_even(right)
        case Binary("+" | "-", left, right):
            parts = [part for part in (left, right) if names_in(part)]
            return bool(parts) and all(map(_is_even, parts))
        case Negative(of):
            return _is_even(of)
    return False
