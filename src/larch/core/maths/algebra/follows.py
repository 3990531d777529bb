"""Whether one line of a solution follows from the line above, always, only under a condition, or not at all."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from fractions import Fraction
from typing import NamedTuple

from larch.core.base.words import _
from larch.core.maths.algebra.compare import Place, TooMuch, agree, difference_at, places, shown, where_text
from larch.core.maths.algebra.mistakes import Mistake, lost_root, mistake_between, named
from larch.core.maths.algebra.polynomials import multiplied, ratio_of
from larch.core.maths.algebra.statements import letters, relations_of, written_out
from larch.core.maths.expression.exactly import NotRational, Undefined
from larch.core.maths.expression.plain import reading
from larch.core.maths.expression.precise import holds, precise
from larch.core.maths.expression.tree import Binary, Call, Name, Node, Number, Relation, children, names_in, states

ZERO = Number(Fraction(0), "0")


class Follows(NamedTuple):
    """follows: "yes", "only if" or "no"; None where it could not be decided. when: the condition of "only if". mistake: the
    kind of it, where it has a name."""

    follows: str | None
    when: str | None
    why: str
    mistake: str = ""


def follows(first: Node, second: Node) -> Follows:
    """Statements: what satisfies the first satisfies the second. Expressions: equal wherever the first is defined."""
    if states(first) != states(second):
        return Follows("no", None, _("One line says something that is true or false, the other is an expression."))
    try:
        seen = list(places(first, second))
    except TooMuch:
        return Follows(None, None, _("This takes too long to be decided."))
    relevant = [place for place in seen if (place.first if states(first) else place.first is not None)]
    failing = [place for place in relevant if not (place.second if states(first) else agree(place))]
    if not failing:
        return Follows("yes", None, _("It follows from the line above."))
    fine = [place for place in relevant if place not in failing]
    found = _statement(first, second, fine, failing) if states(first) else _expression(first, second, fine, failing)
    if found is not None:
        return found
    return _refused(first, second, fine, failing)


def _refused(first: Node, second: Node, fine: Sequence[Place], failing: Sequence[Place]) -> Follows:
    example = difference_at(failing[0], states(first))
    mistake = _lost(first, second, failing) if fine and _only_lost(first, second) else None
    mistake = mistake or mistake_between(first, second)
    if mistake is None:
        return Follows("no", None, _("It does not follow from the line above. {example}").format(example=example))
    return Follows("no", None, f"{mistake.said} {example}", mistake.kind)


# Statements


def _statement(first: Node, second: Node, fine: Sequence[Place], failing: Sequence[Place]) -> Follows | None:
    """A condition under which a statement follows, or the solution that was lost."""
    if not fine and not any(place.second for place in failing):
        denominators = list(_new_denominators(first, second))
        if not denominators:
            return None
    one, other = relations_of(written_out(first)), relations_of(written_out(second))
    conditions: list[Node] = [_apart(node) for node in _new_denominators(first, second)]
    equations = all(line.op == "=" for line in (*one, *other))
    if len(one) == 1 and equations:
        conditions += [_apart(factor) for factor in _shared_factors(one[0], failing)]
    elif len(one) == 1 and len(other) == 1:
        conditions += _sign_conditions(one[0], other[0])
    return _chosen(
        conditions, fine, failing, _("Both sides were divided or multiplied by something that can be zero or negative.")
    )


def _shared_factors(line: Relation, failing: Sequence[Place]) -> Iterator[Node]:
    """What both sides may have been divided by: letters and brackets that are factors of both."""
    left, right = list(_factors(line.left)), list(_factors(line.right))
    for factor in left:
        if factor in right and names_in(factor):
            yield factor
    if line.left == ZERO or line.right == ZERO:
        return
    for name in letters([line]):
        if all(_vanishes(side, place) for place in failing for side in (line.left, line.right)):
            yield Name(name)
    for factor in (*left, *right):
        if names_in(factor) and all(_vanishes(part, p) for p in failing for part in (factor, line.left, line.right)):
            yield factor


def _factors(node: Node) -> Iterator[Node]:
    match node:
        case Binary("*", left, right):
            yield from _factors(left)
            yield from _factors(right)
        case Binary("^", base, Number()):
            yield base
        case Binary("/", above, _):
            yield from _factors(above)
        case _:
            yield node


def _vanishes(node: Node, place: Place) -> bool:
    try:
        return bool(precise(node, place.given) == 0)
    except Undefined:
        return False


def _new_denominators(first: Node, second: Node) -> Iterator[Node]:
    """What the second line divides by, and the first does not."""
    before = set(_divided_by(first))
    for node in dict.fromkeys(_divided_by(second)):
        if node not in before and names_in(node):
            yield node


def _divided_by(node: Node) -> Iterator[Node]:
    match node:
        case Binary("/", _, below):
            yield from _factors(below)
    for child in children(node):
        yield from _divided_by(child)


def _sign_conditions(first: Relation, second: Relation) -> Iterator[Node]:
    """Where an inequality was multiplied or divided by a letter, that has to be positive."""
    names = letters([first, second])
    for name in names:
        given = {other: Fraction(k + 2) for k, other in enumerate(names) if other != name}
        try:
            a = ratio_of(Binary("-", first.left, first.right), name, given)
            b = ratio_of(Binary("-", second.left, second.right), name, given)
            p, q = multiplied(a.above, b.below), multiplied(b.above, a.below)
        except (NotRational, ZeroDivisionError, Undefined):
            continue
        for longer, shorter in ((p, q), (q, p)):
            shift = len(longer) - len(shorter)
            if shift > 0 and shorter and not any(longer[:shift]):
                scaled = [term * shorter[-1] / longer[-1] for term in longer[shift:]]
                if list(shorter) == scaled:
                    yield Relation(">", Name(name), ZERO)
                    yield Relation("<", Name(name), ZERO)


def _chosen(conditions: Sequence[Node], fine: Sequence[Place], failing: Sequence[Place], why: str) -> Follows | None:
    """The weakest condition that rules out all places where it fails, and not all where it is right."""
    best: tuple[int, Node] | None = None
    for condition in dict.fromkeys(conditions):
        if any(holds(condition, place.given) for place in failing):
            continue
        kept = sum(holds(condition, place.given) for place in fine)
        if fine and kept < (1 if isinstance(condition, Relation) and condition.op == "≠" else min(2, len(fine))):
            continue
        if best is None or kept > best[0]:
            best = (kept, condition)
    if best is None and len(conditions) > 1:
        return _all_of(conditions, fine, failing, why)
    return None if best is None else Follows("only if", reading(best[1]), f"{why} {_example(failing[0])}")


def _all_of(conditions: Sequence[Node], fine: Sequence[Place], failing: Sequence[Place], why: str) -> Follows | None:
    """Several conditions that are needed together: x ≠ 0 and y ≠ 0."""
    apart = [c for c in dict.fromkeys(conditions) if isinstance(c, Relation) and c.op == "≠"]
    if len(apart) < 2 or any(all(holds(c, place.given) for c in apart) for place in failing):
        return None
    if fine and not any(all(holds(c, place.given) for c in apart) for place in fine):
        return None
    when = " and ".join(reading(c) for c in apart)
    return Follows("only if", when, f"{why} {_example(failing[0])}")


def _example(place: Place) -> str:
    return _("Look at {where}.").format(where=where_text(place.given)) if place.given else ""


def _only_lost(first: Node, second: Node) -> bool:
    """Whether the second line says less: all its solutions are solutions of the first."""
    try:
        return states(first) and all(place.first for place in places(first, second) if place.second)
    except TooMuch:
        return False


def _lost(first: Node, second: Node, failing: Sequence[Place]) -> Mistake | None:
    one, other = relations_of(written_out(first)), relations_of(written_out(second))
    if not other or not one:
        return None
    if len(one) == 1 and len(other) == 1 and one[0].op == other[0].op == "=" and lost_root(one[0], other[0]):
        return named("root")
    if all(line.op == "=" for line in other):
        place = next((place for place in failing if place.exact), failing[0])
        lost = named("lost")
        name = letters([second])[:1]
        if name and name[0] in place.given and len(place.given) == 1:
            words = _("A solution was lost: {name} = {value}.").format(name=name[0], value=shown(place.given[name[0]]))
            return lost._replace(said=words)
        return lost
    return named("lost") if lost_root(one[0], other[0]) else None


# Expressions


def _expression(first: Node, second: Node, fine: Sequence[Place], failing: Sequence[Place]) -> Follows | None:
    """A condition under which an expression is the same: where the new one is defined, or a letter has a sign."""
    between = [place for place in fine if not place.exact]
    if not between:
        return None
    lone = [place for place in failing if not place.exact]
    conditions: list[Node] = [_apart(node) for node in _new_denominators(first, second)]
    names = letters([first, second])
    if not lone:
        for name in names:
            values = {place.given[name] for place in failing}
            if len(values) == 1 and isinstance(value := next(iter(values)), Fraction):
                conditions.append(Relation("≠", Name(name), _number(value)))
    for name in names:
        conditions += [Relation(op, Name(name), ZERO) for op in (">", "≥", "<", "≤", "≠")]
    for node in dict.fromkeys((*_signed_parts(first), *_signed_parts(second))):
        conditions += [Relation(op, node, ZERO) for op in (">", "≥", "<", "≤")]
    sides = [one for one in conditions if not lone or (isinstance(one, Relation) and one.op != "≠")]
    return _chosen(sides, between if lone else fine, failing, _("It is the same only there."))


def _signed_parts(node: Node) -> Iterator[Node]:
    """What stands under roots, in logarithms, between bars, and below powers."""
    match node:
        case Call("sqrt" | "ln" | "log" | "abs" | "root", arguments) if names_in(arguments[0]):
            yield arguments[0]
        case Binary("^", base, _) if names_in(base) and not isinstance(base, Name):
            yield base
    for child in children(node):
        yield from _signed_parts(child)


def _apart(node: Node) -> Relation:
    """That something is not zero: of x − 1, that x is not 1."""
    names = letters([node])
    if len(names) == 1:
        try:
            ratio = ratio_of(node, names[0], {})
        except (NotRational, ZeroDivisionError, Undefined):
            return Relation("≠", node, ZERO)
        if len(ratio.above) == 2 and len(ratio.below) == 1:
            return Relation("≠", Name(names[0]), _number(-ratio.above[0] / ratio.above[1]))
    return Relation("≠", node, ZERO)


def _number(value: Fraction) -> Node:
    from larch.core.maths.algebra.rewrites import number

    return number(value)
