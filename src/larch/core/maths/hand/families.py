"""What a right side is: a · g(b(x − h)) + k in a written form, a sum of powers, a product of factors, or anything."""

from __future__ import annotations

from collections.abc import Mapping
from fractions import Fraction
from typing import Any

import msgspec
from msgspec import Struct

from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, names_in
from larch.core.maths.hand.slots import Letters, Slot, number, plus, replaced, slot_of, sum_of, terms_of, times

ONE, NOTHING = Slot(Fraction(1)), Slot(Fraction(0))
CORES = {"sin": "sine", "cos": "sine", "abs": "corner", "sqrt": "root", "cbrt": "root", "ln": "log", "log": "log",
         "tan": "other", "exp": "growth"}  # fmt: skip


class Inner(Struct, frozen=True):
    """b(x − h), or bx + q where `affine`: the part of an expression that holds all of its x."""

    b: Slot
    h: Slot
    affine: bool
    node: Node

    def moved_to(self, h: Fraction, b: Fraction | None = None) -> Inner:
        made = Inner(self.b if b is None else self.b.at(b), self.h.at(h), self.affine, self.node)
        return made

    def written(self, name: str) -> Node:
        x = Name(name)
        if self.affine:
            return plus(times(self.b, x), Slot(-self.b.value * self.h.value, "", self.h.as_fraction, self.h.with_pi))
        negated = self.h.at(-self.h.value) if not self.h.letter else self.h
        shifted = Binary("-", x, Name(self.h.letter)) if self.h.letter else plus(x, negated)
        return times(self.b, shifted)


class Family(Struct, frozen=True):
    """kind: line, power, growth, sine, corner, root, log, reciprocal, other; sum (of powers) or factors. a, k: before and
    behind. inner: of the other kinds; core: what stands between, with `inner.node` in it; powers: coefficients of a sum by
    their powers; zeros: of factors. degree: of a power or a reciprocal. base: of growth."""

    kind: str
    name: str
    a: Slot = ONE
    k: Slot = NOTHING
    inner: Inner | None = None
    core: Node | None = None
    degree: int = 1
    base: Slot | None = None
    powers: tuple[tuple[int, Slot], ...] = ()
    zeros: tuple[Slot, ...] = ()

    def replace(self, **changes: Any) -> Family:
        return msgspec.structs.replace(self, **changes)

    def written(self) -> Node:
        x = Name(self.name)
        if self.kind == "sum":
            return self._sum()
        if self.kind == "factors":
            product: Node | None = None
            for zero in self.zeros:
                factor = plus(x, zero.at(-zero.value))
                product = factor if product is None else Binary("*", product, factor, implied=True)
            assert product is not None
            return plus(times(self.a, product), self.k)
        assert self.inner is not None
        inner = self.inner.written(self.name)
        if self.kind == "line":
            level = not self.a.letter and not self.a.value
            return plus(None if level else times(self.a, inner), self.k)
        if self.kind == "reciprocal":
            below = inner if self.degree == 1 else Binary("^", inner, number(Fraction(self.degree)))
            negative = not self.a.letter and self.a.value < 0
            top = Name(self.a.letter) if self.a.letter else number(abs(self.a.value), self.a.as_fraction)
            return plus(Binary("/", Negative(top) if negative else top, below), self.k)
        if self.kind == "growth" and self.base is not None:
            base = Name(self.base.letter) if self.base.letter else number(self.base.value, self.base.as_fraction)
            return plus(times(self.a, Binary("^", base, inner)), self.k)
        assert self.core is not None
        return plus(times(self.a, replaced(self.core, self.inner.node, inner)), self.k)

    def _sum(self) -> Node:
        terms: list[tuple[int, Node]] = []
        x: Node = Name(self.name)
        for power, slot in self.powers:
            if not slot.value and not slot.letter:
                continue
            negative = not slot.letter and slot.value < 0
            size = slot if slot.letter else slot.at(abs(slot.value))
            if power == 0:
                terms.append(
                    (-1 if negative else 1, Name(size.letter) if size.letter else number(size.value, size.as_fraction))
                )
            else:
                raised = x if power == 1 else Binary("^", x, number(Fraction(power)))
                terms.append((-1 if negative else 1, times(size, raised)))
        return sum_of(terms) or number(Fraction(0))


def affine(node: Node, name: str, letters: Letters) -> Inner | None:
    """A part as b(x − h) or bx + q; None if it is something else."""
    x = Name(name)
    if node == x:
        return Inner(ONE, NOTHING, False, node)
    match node:
        case Negative(of):
            inner = affine(of, name, letters)
            return (
                None if inner is None or inner.b.letter else Inner(inner.b.at(-inner.b.value), inner.h, inner.affine, node)
            )
        case Binary("*" | "/" as op, left, right):
            factor, rest = (slot_of(left, letters), right) if op == "*" else (slot_of(right, letters), left)
            if factor is None and op == "*":
                factor, rest = slot_of(right, letters), left
            inner = affine(rest, name, letters)
            if factor is None or not factor.value or inner is None or inner.affine or inner.b != ONE:
                return None
            if op == "/":
                factor = Slot(1 / factor.value, "", True, factor.with_pi)
            return Inner(factor, inner.h, False, node)
        case Binary("+" | "-" as op, left, right):
            first, slot = affine(left, name, letters), slot_of(right, letters)
            if first is None or slot is None or first.affine or first.h.value or first.h.letter:
                return None
            q = slot.value if op == "+" else -slot.value
            if first.b == ONE:
                letter = slot.letter if op == "-" else ""
                return None if slot.letter and op == "+" else Inner(ONE, Slot(-q, letter, slot.as_fraction), False, node)
            return None if first.b.letter or slot.letter else Inner(
                first.b, Slot(-q / first.b.value, "", slot.as_fraction, slot.with_pi), True, node)  # fmt: skip
    return None


def family_of(node: Node, name: str, letters: Letters) -> Family | None:
    """What an expression in one letter is; None where the graph could not be told apart from its numbers."""
    if names_in(node) - {name} - letters.keys():
        return None
    holding = [(sign, term) for sign, term in terms_of(node) if name in names_in(term)]
    free = [(sign, term) for sign, term in terms_of(node) if name not in names_in(term)]
    behind = sum_of(free)
    k = NOTHING if behind is None else slot_of(behind, letters)
    if k is None or not holding:
        return Family("line", name, NOTHING, k, Inner(ONE, NOTHING, False, Name(name))) if k is not None else None
    if len(holding) > 1:
        return _sum_of_powers(holding, name, k, letters) or _other(node, name, letters)
    sign, term = holding[0]
    a, core = _factor(term, name, letters)
    if a is None or (sign < 0 and a.letter):
        return _other(node, name, letters)
    a = a if sign > 0 else a.at(-a.value)
    return _single(a, core, name, k, letters) or _other(node, name, letters)


def _factor(term: Node, name: str, letters: Letters) -> tuple[Slot | None, Node]:
    """What stands before a term, and the rest of it."""
    match term:
        case Negative(of):
            a, core = _factor(of, name, letters)
            return (None if a is None or a.letter else a.at(-a.value)), core
        case Binary("*", left, right) if name not in names_in(left):
            slot = slot_of(left, letters)
            a, core = _factor(right, name, letters)
            return (slot, core) if a == ONE else (None, term)
        case Binary("*", left, right) if name not in names_in(right):
            return slot_of(right, letters), left
        case Binary("/", left, right) if name not in names_in(right):
            below, (a, core) = slot_of(right, letters), _factor(left, name, letters)
            if below is None or a is None or not below.value or a.letter or below.letter:
                return None, term
            return Slot(a.value / below.value, "", True, a.with_pi), core
    return ONE, term


def _single(a: Slot, core: Node, name: str, k: Slot, letters: Letters) -> Family | None:
    """a · core + k."""
    inner = affine(core, name, letters)
    if inner is not None:
        if inner.b != ONE or inner.affine:
            return None if a != ONE else Family("line", name, inner.b, k, Inner(ONE, inner.h, False, core))
        return Family("line", name, a, k, inner)
    match core:
        case Binary("^", base, exponent) if name not in names_in(exponent):
            raised, inner = slot_of(exponent, letters), affine(base, name, letters)
            if raised is None or inner is None or raised.value.denominator != 1 or not 2 <= raised.value <= 12:
                return None
            return Family("power", name, a, k, inner, core, degree=int(raised.value))
        case Binary("^", base, exponent) if name not in names_in(base):
            slot, inner = slot_of(base, letters), affine(exponent, name, letters)
            if slot is None or inner is None or slot.value <= 0:
                return None
            constant = isinstance(base, Name) and not slot.letter  # e, π
            return Family("growth", name, a, k, inner, core, base=None if constant else slot)
        case Binary("/", top, below) if name not in names_in(top):
            numerator = slot_of(top, letters)
            degree, under = 1, below
            match below:
                case Binary("^", under_power, exponent):
                    found = slot_of(exponent, letters)
                    if found is None or found.value.denominator != 1 or not 1 <= found.value <= 12:
                        return None
                    degree, under = int(found.value), under_power
            inner = affine(under, name, letters)
            if numerator is None or inner is None or (a != ONE and numerator.letter):
                return None
            whole = numerator if a == ONE else numerator.at(a.value * numerator.value)
            return Family("reciprocal", name, whole, k, inner, core, degree=degree)
        case Call(function, arguments) if function in CORES and name not in _names(arguments[1:]):
            inner = affine(arguments[0], name, letters)
            return None if inner is None else Family(CORES[function], name, a, k, inner, core)
        case Binary("*", _, _):
            return _factors(a, core, name, k, letters)
    return None


def _names(nodes: tuple[Node, ...]) -> frozenset[str]:
    return frozenset().union(*(names_in(node) for node in nodes))


def _factors(a: Slot, core: Node, name: str, k: Slot, letters: Letters) -> Family | None:
    """a (x − p)(x − q)…"""
    zeros: list[Slot] = []
    waiting = [core]
    while waiting:
        node = waiting.pop(0)
        if isinstance(node, Binary) and node.op == "*":
            waiting = [node.left, node.right, *waiting]
            continue
        inner = affine(node, name, letters)
        if inner is None or inner.b != ONE or inner.h.letter:
            return None
        zeros.append(inner.h)
    return Family("factors", name, a, k, zeros=tuple(zeros)) if 2 <= len(zeros) <= 6 else None


def _sum_of_powers(holding: list[tuple[int, Node]], name: str, k: Slot, letters: Letters) -> Family | None:
    """2x² − 3x + 1: one term to a power, the highest first or in any order."""
    found: dict[int, Slot] = {}
    for sign, term in holding:
        a, core = _factor(term, name, letters)
        power = 1 if core == Name(name) else 0
        match core:
            case Binary("^", Name(base), exponent) if base == name:
                slot = slot_of(exponent, letters)
                power = int(slot.value) if slot is not None and slot.value.denominator == 1 else 0
        if a is None or not 1 <= power <= 8 or power in found or (a.letter and sign < 0):
            return None
        found[power] = a if sign > 0 else a.at(-a.value)
    return Family("sum", name, powers=(*found.items(), (0, k)))


def _other(node: Node, name: str, letters: Letters) -> Family | None:
    """Anything: all of its x stand in one and the same x − h, or bare."""
    free = [(sign, term) for sign, term in terms_of(node) if name not in names_in(term)]
    holding = sum_of([(sign, term) for sign, term in terms_of(node) if name in names_in(term)])
    behind = sum_of(free)
    k = NOTHING if behind is None else slot_of(behind, letters)
    if holding is None or k is None:
        return None
    return Family("other", name, ONE, k, common_inner(holding, name, letters), holding)


def common_inner(node: Node, name: str, letters: Letters) -> Inner:
    """The x − h in which every x of an expression stands; bare x where there is no such."""
    found = {inner.node: inner for inner in _shifts(node, name, letters)}
    if len(found) == 1:
        (only,) = found.values()
        if name not in names_in(replaced(node, only.node, Name("_"))):
            return only
    return Inner(ONE, NOTHING, False, Name(name))


def _shifts(node: Node, name: str, letters: Letters) -> list[Inner]:
    if isinstance(node, Binary) and node.op in "+-":
        inner = affine(node, name, letters)
        if inner is not None and inner.b == ONE and not inner.h.letter:
            return [inner]
    if isinstance(node, Name):
        return [Inner(ONE, NOTHING, False, node)] if node.name == name else []
    from larch.core.maths.expression.tree import children

    return [found for child in children(node) for found in _shifts(child, name, letters)]


def changed_letters(before: Family, after: Family) -> Mapping[str, Fraction]:
    """The letters of the page that stand for numbers which are others now."""

    def slots(family: Family) -> list[Slot]:
        inner = [family.inner.b, family.inner.h] if family.inner is not None else []
        base = [family.base] if family.base is not None else []
        return [family.a, family.k, *inner, *base, *(slot for _power, slot in family.powers), *family.zeros]

    known = {slot.letter: slot.value for slot in slots(before) if slot.letter}
    return {slot.letter: slot.value for slot in slots(after) if slot.letter and known.get(slot.letter) != slot.value}
