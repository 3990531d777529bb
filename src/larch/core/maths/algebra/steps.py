"""What solutions are made of."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from larch.core.base.words import _
from larch.core.maths.expression.plain import compact
from larch.core.maths.expression.precise import holds, precise
from larch.core.maths.expression.tree import Joined, Name, Node, Relation, strength


class Unsolved(ValueError):
    """Could not be worked out; the message says why in one sentence."""


class Step(NamedTuple):
    """A line, and the reason for which it follows from the line above."""

    line: Node
    reason: str


class Done(NamedTuple):
    """The lines after the first, and what comes out, as trees or in words."""

    steps: tuple[Step, ...]
    answer: tuple[Node | str, ...]


def both_sides(sign: str, node: Node) -> str:
    """The reason of a step that does the same to both sides."""
    what = f"({compact(node)})" if strength(node) < 2 else compact(node)
    return _("{sign} {what} on both sides").format(sign=sign, what=what)


def nothing(steps: Sequence[Step] = ()) -> Done:
    return Done(tuple(steps), (_("no solution"),))


def everything(name: str, steps: Sequence[Step] = ()) -> Done:
    return Done(tuple(steps), (_("true for every {name}").format(name=name),))


def solutions(name: str, values: Sequence[Node], steps: Sequence[Step], reason: str = "") -> Done:
    """Solutions, as the last line and as the answer."""
    lines = [Relation("=", Name(name), value) for value in values]
    last: Node = lines[0] if len(lines) == 1 else Joined("or", tuple(lines))
    made = tuple(steps)
    if reason and (not made or made[-1].line != last):
        made = (*made, Step(last, reason))
    return Done(made, tuple(lines))


def tried(node: Node, name: str, values: Sequence[Node]) -> list[Node]:
    """Those values that solve a statement."""
    return [value for value in values if holds(node, {name: precise(value, {})})]


def in_order(values: Sequence[Node]) -> list[Node]:
    """From the least on, each once."""
    ordered = sorted(values, key=lambda value: float(precise(value, {})))
    return list(dict.fromkeys(ordered))
