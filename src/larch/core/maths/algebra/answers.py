"""What the headless commands answer, as plain values: called in the worker, where time and memory are bounded."""

from __future__ import annotations

from typing import Any

from larch.core.base.words import _
from larch.core.maths.algebra.compare import same
from larch.core.maths.algebra.follows import follows
from larch.core.maths.algebra.statements import variable_of
from larch.core.maths.algebra.work import work
from larch.core.maths.expression.plain import compact
from larch.core.maths.expression.tree import Binary, ExpressionError, Name, Node, Relation, states
from larch.core.maths.layout.reading import meaning


class Unread(ValueError):
    """Could not be read or worked out; the message is one sentence."""


def _read(source: str) -> Any:
    try:
        return meaning(source)
    except ExpressionError as error:
        raise Unread(f"“{source.strip()[:60]}”: {error.message}") from error


def ready() -> bool:
    """Nothing but that all is imported."""
    return True


def same_answer(a: str, b: str) -> dict[str, Any]:
    """{"same": true, false or null, "why": text}. Raises Unread."""
    found = same(_read(a), _read(b))
    return {"same": found.same, "why": found.why}


def follows_answer(a: str, b: str) -> dict[str, Any]:
    """{"follows": "yes", "only if" or "no", "when": text or null, "why": text, "mistake": its kind}. Raises Unread."""
    found = follows(_read(a), _read(b))
    if found.follows is None:
        raise Unread(found.why)
    return {"follows": found.follows, "when": found.when, "why": found.why, "mistake": found.mistake}


def work_answer(expr: str) -> dict[str, Any]:
    """{"steps": [{"line", "reason"}], "answer": [text]}. Raises Unread, Unsolved."""
    found = work(_read(expr))
    steps = [{"line": compact(step.line), "reason": step.reason} for step in found.steps]
    return {"steps": steps, "answer": list(found.answer)}


def done_answer(what: str, source: str) -> list[dict[str, str]]:
    """The lines that follow from one, each {"line", "reason"}, the line as an equation keeps it.

    what: "solve" (all), "next" (one), "simplify", "expand", "factor", "differentiate" or "integrate".
    Raises Unread, Unsolved.
    """
    from larch.core.maths.algebra.steps import Unsolved
    from larch.core.maths.layout.from_tree import row_of
    from larch.core.maths.layout.terms import source_of

    node = _read(source)
    if what in ("solve", "next", "simplify"):
        steps = [(step.line, step.reason) for step in work(node).steps[1:]]
        steps = steps[:1] if what == "next" else steps[-1:] if what == "simplify" else steps
    else:
        steps = [_transformed(what, node)]
    if not steps:
        raise Unsolved(_("There is nothing more to be done."))
    return [{"line": source_of(row_of(line)), "reason": reason} for line, reason in steps]


def _transformed(what: str, node: Node) -> tuple[Node, str]:
    from larch.core.maths.algebra.bridge import from_package, package, to_package

    if isinstance(node, Relation) and what in ("expand", "factor"):
        left, reason = _transformed(what, node.left)
        return Relation(node.op, left, _transformed(what, node.right)[0]), reason
    if states(node):
        raise Unread(_("This is done with expressions, not with equations."))
    sympy, value = package(), to_package(node)
    if what in ("expand", "factor"):
        return from_package(getattr(sympy, what)(value)), _("expand") if what == "expand" else _("factorise")
    name = variable_of(node) or "x"
    letter = sympy.Symbol(name, real=True)
    if what == "differentiate":
        return from_package(sympy.simplify(sympy.diff(value, letter))), _("the derivative by {name}").format(name=name)
    found = from_package(sympy.integrate(value, letter))
    return Binary("+", found, Name("C")), _("the integral by {name}").format(name=name)
