"""Solutions written line by line, as a school would write them.

What is linear, quadratic or can be brought there is solved here; what else there is goes to the algebra package, in the
worker. Every line follows from the one above, and each solution is tried in the line that was given.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from larch.core.base.words import _
from larch.core.maths.algebra import worked_cases, worked_equations, worked_expressions, worked_systems
from larch.core.maths.algebra.statements import letters, variable_of
from larch.core.maths.algebra.steps import Done, Step, Unsolved
from larch.core.maths.expression.exactly import Undefined
from larch.core.maths.expression.plain import compact
from larch.core.maths.expression.tree import Joined, Name, Node, Relation, states


class Work(NamedTuple):
    """steps: lines with their reasons, the first the one that was given. answer: what comes out."""

    steps: tuple[Step, ...]
    answer: tuple[str, ...]


def work(node: Node) -> Work:
    """Raises Unsolved with one sentence."""
    given = Step(node, _("given"))
    done = _done(node)
    steps = [given]
    for step in done.steps:
        if step.line != steps[-1].line:
            steps.append(step)
    return Work(tuple(steps), tuple(one if isinstance(one, str) else compact(one) for one in done.answer))


def _done(node: Node) -> Done:
    if not states(node):
        return worked_expressions.simplified(node)
    name = _asked(node)
    if not name:
        return _truth(node)
    if isinstance(node, Joined) and node.op == "and" and not node.chain and len(letters([node])) > 1:
        return worked_systems.system(node)
    ways: list[Callable[[Node, str], Done | None]] = [
        worked_equations.polynomial_relation, worked_equations.rational_equation, worked_cases.by_cases,
        worked_cases.by_sign_chart, worked_cases.by_package, worked_cases.by_looking,
    ]  # fmt: skip
    for way in ways:
        found = way(node, name)
        if found is not None:
            return found
    raise Unsolved(_("No way to solve this is known."))


def _asked(node: Node) -> str:
    """The letter that is solved for: x before others; of a formula y = … the letter that stands alone is known."""
    found = letters([node])
    if len(found) > 1 and isinstance(node, Relation) and isinstance(node.left, Name) and found[0] == node.left.name:
        others = [name for name in found if name != node.left.name]
        return found[0] if "x" not in found else others[0] if others[0] == "x" else found[0]
    return variable_of(node)


def _truth(node: Node) -> Done:
    from larch.core.maths.expression.precise import holds

    try:
        return Done((), (_("true") if holds(node, {}) else _("false"),))
    except Undefined as why:
        raise Unsolved(str(why)) from why
