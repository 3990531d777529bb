"""Statements taken apart: ± written out, sides, terms, and the values that are worth trying for letters."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from fractions import Fraction
from itertools import product
from typing import Any

import msgspec

from larch.core.maths.algebra.critical import numbers_in
from larch.core.maths.expression.precise import Value
from larch.core.maths.expression.tree import Binary, Call, Joined, Name, Negative, Node, Number, Relation, names_in

ORDINARY = (
    Fraction(2),
    Fraction(-3),
    Fraction(5, 3),
    Fraction(7),
    Fraction(-1, 2),
    Fraction(11, 4),
    Fraction(4),
    Fraction(-6),
)
MOST_TRIED = 14
Given = dict[str, Value]


def written_out(node: Node) -> Node:
    """With each ± as two statements of which one holds: x = ±2 is x = 2 or x = −2. Of an expression the upper sign."""
    if not has_two_signs(node):
        return node
    match node:
        case Relation():
            return Joined("or", (with_sign(node, True), with_sign(node, False)))
        case Joined(op, parts, chain):
            inner = [written_out(part) for part in parts]
            return Joined(op, tuple(inner), chain)
    return with_sign(node, True)


def has_two_signs(node: Node) -> bool:
    from larch.core.maths.expression.tree import children

    return (isinstance(node, Call) and node.function in ("±", "∓")) or any(map(has_two_signs, children(node)))


def with_sign(node: Node, upper: bool) -> Node:
    """With every ± as + or as −, every ∓ as the other."""
    match node:
        case Call("±" | "∓" as sign, arguments):
            inner = [with_sign(argument, upper) for argument in arguments]
            positive = upper == (sign == "±")
            if len(inner) == 1:
                return inner[0] if positive else Negative(inner[0])
            return Binary("+" if positive else "-", inner[0], inner[1])
        case Call(function, arguments):
            return Call(function, tuple(with_sign(argument, upper) for argument in arguments))
        case Negative(of):
            return Negative(with_sign(of, upper))
        case Binary(op, left, right):
            return msgspec.structs.replace(node, left=with_sign(left, upper), right=with_sign(right, upper))
        case Relation(op, left, right):
            return Relation(op, with_sign(left, upper), with_sign(right, upper))
        case Joined(op, parts, chain):
            return Joined(op, tuple(with_sign(part, upper) for part in parts), chain)
    return node


def relations_of(node: Node) -> list[Relation]:
    match node:
        case Relation():
            return [node]
        case Joined(_, parts):
            return [one for part in parts for one in relations_of(part)]
    return []


def terms_of(node: Node, sign: int = 1) -> list[tuple[int, Node]]:
    """The terms of a sum, each with its sign."""
    match node:
        case Binary("+", left, right):
            return terms_of(left, sign) + terms_of(right, sign)
        case Binary("-", left, right):
            return terms_of(left, sign) + terms_of(right, -sign)
        case Negative(of):
            return terms_of(of, -sign)
    return [(sign, node)]


def sum_of_terms(terms: Sequence[tuple[int, Node]]) -> Node:
    """The sum again; 0 for none."""
    if not terms:
        return Number(Fraction(0), "0")
    sign, node = terms[0]
    found: Node = node if sign > 0 else Negative(node)
    for sign, node in terms[1:]:
        found = Binary("+" if sign > 0 else "-", found, node)
    return found


def attempts(nodes: Sequence[Node], names: Sequence[str], main: str) -> Iterator[Given]:
    """Values for all letters but one: ordinary ones, then those at which something may go wrong."""
    others = [name for name in names if name != main]
    if not others:
        yield {}
        return
    seen: set[tuple[Value, ...]] = set()
    numbers = list(dict.fromkeys(n for node in nodes for n in numbers_in(node) if abs(n) < 1000))[:3]
    for seed in linear_solutions(nodes, names):
        yield {name: seed[name] for name in others}
    tries: list[tuple[Value, ...]] = []
    for shift in range(4):
        tries.append(tuple(ORDINARY[(shift * 3 + k * 2 + k * k) % len(ORDINARY)] for k in range(len(others))))
    special = [Fraction(0), Fraction(1), *numbers, Fraction(-1)]
    for k in range(len(others)):
        for value in special[: 5 if len(others) == 1 else 2]:
            tries.append(tuple(value if i == k else ORDINARY[(i * 2 + 1) % len(ORDINARY)] for i in range(len(others))))
    if len(others) == 2:
        tries += list(product(special[:2], repeat=2))[:2]
    tries.append(tuple(Fraction(0) for _name in others))
    for values in tries[:MOST_TRIED]:
        if values not in seen:
            seen.add(values)
            yield dict(zip(others, values, strict=True))


def linear_solutions(nodes: Sequence[Node], names: Sequence[str]) -> Iterator[Mapping[str, Fraction]]:
    """Of each statement that is several linear equations at once: a solution, with ordinary values for what stays free."""
    for node in nodes:
        if isinstance(node, Joined) and node.op == "and" and not node.chain:
            for values in (ORDINARY, ORDINARY[3:] + ORDINARY[:3]):
                found = _solved([one for one in relations_of(node) if one.op == "="], names, values)
                if found is not None:
                    yield found


def _solved(equations: Sequence[Relation], names: Sequence[str], free: Sequence[Fraction]) -> Mapping[str, Fraction] | None:
    """By elimination; None where they are not linear or contradict each other."""
    rows = []
    for equation in equations:
        row = linear_row(Binary("-", equation.left, equation.right), names)
        if row is None:
            return None
        rows.append(row)
    pivots: list[int] = []
    done: list[list[Fraction]] = []
    for row in rows:
        for known, pivot in zip(done, pivots, strict=True):
            factor = row[pivot]
            row = [a - factor * b for a, b in zip(row, known, strict=True)]
        pivot = next((k for k in range(len(names)) if row[k]), -1)
        if pivot < 0:
            if row[-1]:
                return None
            continue
        row = [a / row[pivot] for a in row]
        done = [[a - known[pivot] * b for a, b in zip(known, row, strict=True)] for known in done]
        done.append(row)
        pivots.append(pivot)
    values = {names[k]: free[k % len(free)] for k in range(len(names)) if k not in pivots}
    for known, pivot in zip(done, pivots, strict=True):
        rest = sum(
            (known[k] * values[names[k]] for k in range(len(names)) if names[k] in values and k != pivot), Fraction(0)
        )
        values[names[pivot]] = -known[-1] - rest
    return values


def linear_row(node: Node, names: Sequence[str]) -> list[Fraction] | None:
    """Coefficients of the letters and the constant, or None where it is not linear in them together."""
    from larch.core.maths.expression.exactly import Undefined, exact_at

    try:
        nothing: dict[str, Any] = dict.fromkeys(names, Fraction(0))
        zero = exact_at(node, **nothing)
        if zero is None:
            return None
        row = []
        for name in names:
            one = exact_at(node, **{**nothing, name: Fraction(1)})
            if one is None:
                return None
            row.append(one - zero)
        for values in (ORDINARY, ORDINARY[2:] + ORDINARY[:2]):
            place: dict[str, Any] = {name: values[k % len(values)] for k, name in enumerate(names)}
            wanted = zero + sum(a * place[name] for a, name in zip(row, names, strict=True))
            if exact_at(node, **place) != wanted:
                return None
    except Undefined:
        return None
    return [*row, zero]


def letters(nodes: Sequence[Node]) -> list[str]:
    """All variables, those at the end of the alphabet first: x, y, z, then a, b …"""
    found = frozenset[str]().union(*(names_in(node) for node in nodes))
    return sorted(found, key=lambda name: (name[:1] not in "xyz", name))


def variable_of(node: Node) -> str:
    """The letter that a statement is about."""
    found = letters([node])
    return found[0] if found else ""


def is_name(node: Node, name: str) -> bool:
    return node == Name(name)
