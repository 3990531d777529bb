"""Whether two expressions or statements are the same over the real numbers, and where they differ."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from fractions import Fraction
from typing import NamedTuple

from larch.core.base.words import _
from larch.core.maths.algebra.critical import critical_points, is_periodic, samples
from larch.core.maths.algebra.statements import attempts, letters, written_out
from larch.core.maths.expression.exactly import Undefined
from larch.core.maths.expression.precise import Budget, Value, compared, decimal, holds, mp, precise
from larch.core.maths.expression.tree import Call, Node, states

HUGE = "huge"  # a value too large to be written: of two such ones nothing is said
EFFORT = 400_000  # parts looked at for one comparison


class Same(NamedTuple):
    """same: None where it could not be decided."""

    same: bool | None
    why: str


class Place(NamedTuple):
    """Values for all letters, and what two sides are there: a value or None of an expression, a truth of a statement."""

    given: Mapping[str, Value]
    first: Value | bool | None
    second: Value | bool | None
    exact: bool  # a critical point, not one of many between two


def same(a: Node, b: Node) -> Same:
    """Expressions: defined at the same places and equal there. Statements: with the same solutions."""
    if states(a) != states(b):
        return Same(False, _("One says something that is true or false, the other is an expression."))
    if _has_no_value(a) or _has_no_value(b):
        return _same_parts(a, b)
    try:
        for place in places(a, b):
            if not agree(place):
                return Same(False, difference_at(place, states(a)))
    except TooMuch:
        return Same(None, _("This takes too long to be decided."))
    if states(a):
        return Same(True, _("They have the same solutions."))
    return Same(True, _("They have the same value wherever they are defined, and are defined at the same places."))


class TooMuch(Exception):
    """It would take too long."""


def agree(place: Place) -> bool:
    first, second = place.first, place.second
    if first is None or second is None or first is HUGE or second is HUGE:
        return first is second
    if isinstance(first, bool) or isinstance(second, bool):
        return first == second
    return compared("=", first, second)


def places(a: Node, b: Node) -> Iterator[Place]:
    """All kinds of places there are for two expressions or two statements. Raises TooMuch."""
    a, b = written_out(a), written_out(b)
    names = letters([a, b])
    effort = Budget(EFFORT)
    if not names:
        yield _looked_at(a, b, {}, True, effort)
        return
    mains = names if len(names) <= 3 else names[:3]
    for main in mains:
        for given in attempts([a, b], names, main):
            points = critical_points([a, b], main, given)
            for value, exact in samples(points, is_periodic(a) or is_periodic(b)):
                yield _looked_at(a, b, {**given, main: value}, exact, effort)


def _looked_at(a: Node, b: Node, given: Mapping[str, Value], exact: bool, effort: Budget) -> Place:
    if effort.left < 0:
        raise TooMuch
    return Place(given, _state(a, given, effort), _state(b, given, effort), exact)


def _state(node: Node, given: Mapping[str, Value], effort: Budget) -> Value | bool | None:
    own = Budget()
    try:
        if states(node):
            return holds(node, given, own)
        return precise(node, given, own)
    except Undefined as why:
        if own.left < 0:
            raise TooMuch from why
        if states(node):
            return False
        return HUGE if str(why) == _("The number is too large to be written.") else None
    finally:
        effort.left -= 60_000 - own.left


def _has_no_value(node: Node) -> bool:
    return isinstance(node, Call) and node.function in ("point", "matrix", "row")


def _same_parts(a: Node, b: Node) -> Same:
    """Points and matrices, part by part."""
    if not (isinstance(a, Call) and isinstance(b, Call) and a.function == b.function):
        return Same(False, _("They are of different kinds."))
    if len(a.arguments) != len(b.arguments):
        return Same(False, _("They have different sizes."))
    for one, other in zip(a.arguments, b.arguments, strict=True):
        found = same(one, other)
        if found.same is not True:
            return found
    return Same(True, _("They agree in every part."))


# In words


def difference_at(place: Place, statements: bool) -> str:
    """Where and how two sides differ, in a sentence."""
    where, first_value, second_value = where_text(place.given), shown(place.first), shown(place.second)
    if statements:
        first, second = bool(place.first), bool(place.second)
        if not place.given:
            return _("One is true, the other false.")
        if first and not second:
            return _("{where} solves the first, but not the second.").format(where=where)
        return _("{where} solves the second, but not the first.").format(where=where)
    if not place.given:
        return _("The first is {first}, the second {second}.").format(first=first_value, second=second_value)
    if place.first is None:
        return _("At {where} the first has no value, the second is {second}.").format(
            where=where, second=shown(place.second)
        )
    if place.second is None:
        return _("At {where} the first is {first}, the second has no value.").format(where=where, first=first_value)
    words = _("At {where} the first is {first}, the second {second}.")
    return words.format(where=where, first=first_value, second=second_value)


def where_text(given: Mapping[str, Value]) -> str:
    return ", ".join(f"{name} = {shown(value)}" for name, value in sorted(given.items())).replace("= ≈", "≈")


def shown(value: Value | bool | None) -> str:
    """A value in a sentence: exactly where it is short, else rounded."""
    if value is None or value is HUGE:
        return _("not defined") if value is None else _("too large to be written")
    if isinstance(value, Fraction) and max(abs(value.numerator), value.denominator) < 10**9:
        return str(value).replace("-", "−")
    return "≈ " + str(mp().nstr(decimal(value), 6)).replace("-", "−")
