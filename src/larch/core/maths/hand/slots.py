"""Numbers and letters that stand in an equation, and how others are written in their place."""

from __future__ import annotations

import math
from collections.abc import Mapping
from fractions import Fraction

from msgspec import Struct

from larch.core.maths.expression import Undefined, value_at
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number, Relation, children, names_in

Letters = Mapping[str, float]
LARGEST_PART = 60  # largest denominator that is written as a fraction


class Slot(Struct, frozen=True):
    """A number in an equation. letter: of the page, which stands for it; as_fraction: it is written as one; with_pi: as a
    multiple of π."""

    value: Fraction
    letter: str = ""
    as_fraction: bool = False
    with_pi: bool = False

    def at(self, value: Fraction) -> Slot:
        return Slot(value, self.letter, self.as_fraction, self.with_pi)


def slot_of(node: Node, letters: Letters) -> Slot | None:
    """The number that a part of an equation without x and y comes to; None where it has none."""
    names = names_in(node)
    if names - letters.keys() or (names and not isinstance(node, Name)):
        return None  # numbers in the place of 2a would take the letter away
    try:
        value = value_at(node, **{name: letters[name] for name in names_in(node)})
    except (Undefined, OverflowError):
        return None
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
        return None
    exact = Fraction(str(value)).limit_denominator(10**9)
    letter = node.name if isinstance(node, Name) and node.name in letters else ""
    return Slot(exact, letter, _has(node, "/"), _has(node, "π"))


def _has(node: Node, what: str) -> bool:
    match node:
        case Binary("/", _, _) if what == "/":
            return True
        case Number(_, text) if what == "/" and "/" in text:
            return True
        case Name("π"):
            return what == "π"
    return any(_has(child, what) for child in children(node))


def number(value: Fraction, as_fraction: bool = False) -> Node:
    """A number that is not negative, as a decimal where it is one, else as a fraction; rounded where it is neither."""
    if value.denominator == 1:
        return Number(value, str(value.numerator))
    decimal = f"{float(value):.6f}".rstrip("0").rstrip(".")
    if (as_fraction or Fraction(decimal) != value) and value.denominator <= LARGEST_PART:
        top, bottom = Fraction(value.numerator), Fraction(value.denominator)
        return Binary("/", Number(top, str(top)), Number(bottom, str(bottom)))
    return Number(Fraction(decimal), decimal)


def signed(slot: Slot) -> tuple[bool, Node]:
    """Whether it is below nothing, and its size as it is written."""
    if slot.letter:
        return False, Name(slot.letter)
    size = abs(slot.value)
    if slot.with_pi:
        parts = Fraction(float(size) / math.pi).limit_denominator(360)
        if abs(float(parts) * math.pi - float(size)) < 1e-6 * (1 + float(size)) and parts:
            return slot.value < 0, _times_pi(parts)
    return slot.value < 0, number(size, slot.as_fraction)


def _times_pi(parts: Fraction) -> Node:
    top: Node = Name("π")
    if parts.numerator != 1:
        top = Binary("*", number(Fraction(parts.numerator)), top, implied=True)
    return top if parts.denominator == 1 else Binary("/", top, number(Fraction(parts.denominator)))


def written(slot: Slot) -> Node:
    negative, size = signed(slot)
    return Negative(size) if negative else size


def plus(left: Node | None, slot: Slot) -> Node:
    """A sum with a number at its end, which is left out where it is nothing."""
    if not slot.letter and not slot.value:
        return left if left is not None else number(Fraction(0))
    negative, size = signed(slot)
    if left is None:
        return Negative(size) if negative else size
    return Binary("-" if negative else "+", left, size)


def times(slot: Slot, node: Node) -> Node:
    """A product with a factor before it, which is left out where it is one."""
    if not slot.letter and abs(slot.value) == 1 and not slot.with_pi:
        return node if slot.value > 0 else Negative(node)
    negative, size = signed(slot)
    return Binary("*", Negative(size) if negative else size, node, implied=True)


def replaced(node: Node, old: Node, new: Node) -> Node:
    """With a part exchanged wherever it stands."""
    if node == old:
        return new
    match node:
        case Negative(of):
            return Negative(replaced(of, old, new))
        case Binary(op, left, right, implied):
            return Binary(op, replaced(left, old, new), replaced(right, old, new), implied)
        case Relation(op, left, right):
            return Relation(op, replaced(left, old, new), replaced(right, old, new))
        case Call(function, arguments):
            return Call(function, tuple(replaced(argument, old, new) for argument in arguments))
    return node


def terms_of(node: Node, sign: int = 1) -> list[tuple[int, Node]]:
    """The terms of a sum with their signs."""
    match node:
        case Binary("+" | "-" as op, left, right):
            return terms_of(left, sign) + terms_of(right, sign if op == "+" else -sign)
        case Negative(of):
            return terms_of(of, -sign)
    return [(sign, node)]


def sum_of(terms: list[tuple[int, Node]]) -> Node | None:
    made: Node | None = None
    for sign, term in terms:
        if made is None:
            made = term if sign > 0 else Negative(term)
        else:
            made = Binary("+" if sign > 0 else "-", made, term)
    return made
