"""Expressions worked out: numbers by the order of operations, letters by expanding, collecting and cancelling."""

from __future__ import annotations

from fractions import Fraction

import msgspec

from larch.core.base.words import N_, _
from larch.core.maths.algebra.bridge import from_package, package, to_package
from larch.core.maths.algebra.manifold import many_of, written
from larch.core.maths.algebra.polynomials import common, divided, ratio_of
from larch.core.maths.algebra.steps import Done, Step, Unsolved
from larch.core.maths.algebra.write import common_denominator, polynomial, square_root, surd, whole
from larch.core.maths.expression.exactly import NotRational, Undefined, exact_at
from larch.core.maths.expression.plain import compact
from larch.core.maths.expression.precise import precise
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number, children, names_in

MOST_STEPS = 14
DONE = {"+": N_("add"), "-": N_("subtract"), "*": N_("multiply"), "/": N_("divide"), "^": N_("raise to the power")}
BINDING = ("derivative", "integral", "limit", "sum", "product")


def simplified(node: Node) -> Done:
    """Raises Unsolved where it has no value, with the reason."""
    if any_binding(node):
        return _by_package(node)
    if not names_in(node):
        return _number(node)
    return _with_letters(node)


def any_binding(node: Node) -> bool:
    return (isinstance(node, Call) and node.function in BINDING) or any(map(any_binding, children(node)))


# Numbers


def _number(node: Node) -> Done:
    try:
        precise(node, {})
    except Undefined as why:
        raise Unsolved(str(why)) from why
    steps: list[Step] = []
    here = node
    while len(steps) < MOST_STEPS:
        found = _reduced(here)
        if found is None:
            break
        here, reason = found
        steps.append(Step(here, reason))
    exact = exact_at(node)
    if exact is not None:
        final = whole(exact)
        if not steps or steps[-1].line != final:
            steps.append(Step(final, _("work it out")))
        return Done(tuple(steps), (final,))
    if steps and not any(isinstance(child, Binary | Call) for child in _parts(here)):
        return Done(tuple(steps), (here,))
    try:
        sympy = package()
        best = from_package(sympy.nsimplify(sympy.simplify(to_package(node))))
        if best != here:
            steps.append(Step(best, _("simplify")))
        return Done(tuple(steps), (best,))
    except (Unsolved, ValueError, TypeError, AttributeError):
        return Done(tuple(steps), (here,))


def _parts(node: Node) -> tuple[Node, ...]:
    return () if is_number(node) else children(node)


def is_number(node: Node) -> bool:
    """A number as it stands at the end: 3, −3, 3/4 in lowest terms."""
    match node:
        case Number():
            return True
        case Negative(of):
            return is_number(of) and not isinstance(of, Negative)
        case Binary("/", Number(above, _), Number(below, _)):
            return above.denominator == below.denominator == 1 and below > 1 and Fraction(above, below).denominator == below
    return False


def _reduced(node: Node) -> tuple[Node, str] | None:
    """The whole with the operation that comes first done, and what was done."""
    if is_number(node):
        return None
    inner = _reduced_inside(node)
    if inner is not None:
        return inner
    if not all(map(is_number, children(node))):
        return None
    try:
        value = exact_at(node)
    except Undefined:
        return None
    if value is not None:
        words = _(DONE[node.op]) if isinstance(node, Binary) else _("work it out")
        if isinstance(node, Binary) and node.op == "/" and value.denominator > 1:
            words = _("in lowest terms")
        return (whole(value), words) if whole(value) != node else None
    if isinstance(node, Call) and node.function == "sqrt":
        under = exact_at(node.arguments[0])
        if under is not None and under > 0:
            root = surd(Fraction(0), *square_root(under))
            return (root, _("take squares out of the root")) if root != node else None
    return None


def _reduced_inside(node: Node) -> tuple[Node, str] | None:
    """Brackets, powers and products come before sums: what binds most tightly is done first."""
    match node:
        case Binary(_, left, right):
            choices = [("left", left), ("right", right)]
            if isinstance(right, Binary) and right.op in "*/^" and isinstance(left, Binary) and left.op in "+-":
                choices.reverse()
            for side, part in choices:
                found = _reduced(part)
                if found is not None:
                    return msgspec.structs.replace(node, **{side: found[0]}), found[1]
        case Negative(of):
            found = _reduced(of)
            return None if found is None else (Negative(found[0]), found[1])
        case Call(function, arguments):
            for k, argument in enumerate(arguments):
                found = _reduced(argument)
                if found is not None:
                    return Call(function, (*arguments[:k], found[0], *arguments[k + 1 :])), found[1]
    return None


# Letters


def _with_letters(node: Node) -> Done:
    try:
        many = many_of(node)
    except NotRational:
        pass
    else:
        line = written(many)
        return Done((Step(line, _("expand and collect like terms")),), (line,))
    names = sorted(names_in(node))
    if len(names) == 1:
        try:
            found = _cancelled(node, names[0])
            if found is not None:
                return found
        except (NotRational, Undefined):
            pass
        except ZeroDivisionError as gone:
            raise Unsolved(_("Nothing can be divided by zero.")) from gone
    return _by_package(node)


def _cancelled(node: Node, name: str) -> Done | None:
    ratio = ratio_of(node, name, {})
    shared = common(ratio.above, ratio.below) if ratio.above else ratio.below
    above, below = divided(ratio.above, shared)[0], divided(ratio.below, shared)[0]
    scale = Fraction(common_denominator((*above, *below)))
    import math

    parts = [int(scale * term) for term in (*above, *below)]
    divisor = math.gcd(*parts) or 1
    if below[-1] < 0:
        divisor = -divisor
    above, below = tuple(scale * t / divisor for t in above), tuple(scale * t / divisor for t in below)
    steps: list[Step] = []
    one_fraction = Binary("/", polynomial(ratio.above, name), polynomial(ratio.below, name))
    if len(ratio.below) > 1 and one_fraction != node:
        steps.append(Step(one_fraction, _("as one fraction")))
    line: Node = polynomial(above, name)
    if len(below) > 1 or below[0] != 1:
        line = Binary("/", line, polynomial(below, name))
    if len(shared) > 1:
        factor = polynomial(shared, name)
        steps.append(Step(line, _("cancel {factor}, which is not zero").format(factor=compact(factor))))
    else:
        steps.append(Step(line, _("simplify")))
    return Done(tuple(steps), (line,))


def _by_package(node: Node) -> Done:
    sympy = package()
    value = to_package(node)
    for_simple = sympy.simplify(value)
    line = from_package(for_simple)
    reason = _("work it out") if any_binding(node) else _("simplify")
    if isinstance(node, Call) and node.function == "integral" and len(node.arguments) == 2:
        line = Binary("+", line, Name("C"))
    return Done((Step(line, reason),), (line,))
