"""Sequences of which each member follows from those before it, as a_(n + 1) = a_n/2 + 3, and what becomes of them."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator, Mapping, Sequence
from fractions import Fraction
from functools import lru_cache
from typing import NamedTuple

import msgspec

from larch.core.maths.expression import Node, Undefined, names_in
from larch.core.maths.expression.evaluate import floating
from larch.core.maths.expression.precise import Budget, as_float, precise
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Number, Relation

MEMBER = re.compile(r"(\w+?)_n([+-]\d)?")
MOST_BEFORE = 6  # members on which the next one may rest
LATEST_FIRST = 9  # the largest number that a first member may have
CYCLE = 8  # members at most of a round that is told
SETTLED = 1e-12  # relative; members that differ by less are taken for equal
MOST_TERMS = 2000
EFFORT = 20_000


class Rule(NamedTuple):
    """letter: of the members; order: how many members the next one rests on; formula: of these, called `before(1)` (the last
    one) and so on, and of n, the number of the new member."""

    letter: str
    order: int
    formula: Node


def before(k: int) -> str:
    """The name in formulas of the member that stands k places before the new one."""
    return f"before {k}"


def rule_of(node: Relation) -> Rule | None:
    """None of an equation that is no such rule."""
    new = MEMBER.fullmatch(node.left.name) if node.op == "=" and isinstance(node.left, Name) else None
    if new is None:
        return None
    letter, shift = new[1], int(new[2] or 0)
    known: dict[str, Node] = {}
    order = 0
    for name in names_in(node.right):
        member = MEMBER.fullmatch(name)
        if member is None or member[1] != letter:
            continue
        back = shift - int(member[2] or 0)
        if not 1 <= back <= MOST_BEFORE:
            return None
        order = max(order, back)
        known[name] = Name(before(back))
    if not order:
        return None
    if shift:
        known["n"] = Binary("-", Name("n"), Number(Fraction(shift), str(shift)))
    return Rule(letter, order, _renamed(node.right, known))


def _renamed(node: Node, known: Mapping[str, Node]) -> Node:
    match node:
        case Name(name):
            return known.get(name, node)
        case Negative(of):
            return Negative(_renamed(of, known))
        case Binary(_, left, right):
            return msgspec.structs.replace(node, left=_renamed(left, known), right=_renamed(right, known))
        case Call(function, arguments):
            return Call(function, tuple(_renamed(argument, known) for argument in arguments))
    return node


def first_names(rule: Rule) -> Iterator[str]:
    """What first members can be called: a_0 to a_9 and on, as far as the order asks for."""
    for k in range(LATEST_FIRST + rule.order):
        yield f"{rule.letter}_{k}"


def firsts_of(rule: Rule, letters: Mapping[str, str]) -> tuple[int, tuple[Fraction, ...]] | None:
    """The number of the first member known, and as many as the rule needs; None where they are not known."""
    for first in range(LATEST_FIRST + 1):
        names = [f"{rule.letter}_{first + k}" for k in range(rule.order)]
        if all(name in letters for name in names):
            return first, tuple(Fraction(letters[name]) for name in names)
    return None


@lru_cache(64)
def members(formula: Node, firsts: tuple[Fraction, ...], first: int, count: int = MOST_TERMS) -> tuple[float, ...]:
    """The first members, up to `count`; fewer where one has no value or is out of all reach."""
    found = [float(value) for value in firsts]
    order = len(firsts)
    while len(found) < count:
        known = {before(k): found[-k] for k in range(1, order + 1)} | {"n": float(first + len(found))}
        try:
            value = floating(formula, known)
        except (Undefined, OverflowError, ValueError, ZeroDivisionError):
            break
        if not math.isfinite(value):
            break
        found.append(value)
    return tuple(found)


def exact_members(formula: Node, firsts: Sequence[Fraction], first: int, count: int) -> list[Fraction | float]:
    """The first few, as fractions where they are some."""
    found: list[Fraction | float] = list(firsts[:count])
    while len(found) < count:
        known = {before(k): found[-k] for k in range(1, len(firsts) + 1)} | {"n": Fraction(first + len(found))}
        try:
            value = precise(formula, known, Budget(EFFORT))
        except (Undefined, OverflowError):
            break
        short = isinstance(value, Fraction) and value.denominator < 10**9 and abs(value) < 10**15
        found.append(value if isinstance(value, Fraction) and short else as_float(value))
        if not math.isfinite(float(found[-1])):
            found.pop()
            break
    return found


# What becomes of members


def same(a: float, b: float) -> bool:
    return abs(a - b) <= SETTLED * max(1.0, abs(a), abs(b))


def comes_to(found: Sequence[float]) -> float | None:
    """The number to which members come; None where they come to none."""
    return found[-1] if len(found) > 1 and same(found[-2], found[-1]) else None


def round_of(found: Sequence[float]) -> tuple[float, ...]:
    """The members that come again and again, in rising order; none where they don't."""
    for count in range(2, CYCLE + 1):
        if len(found) > 2 * count and all(same(found[-1 - k], found[-1 - k - count]) for k in range(count)):
            return tuple(sorted(found[-count:]))
    return ()
