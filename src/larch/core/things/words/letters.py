"""Letters that hold for a page: "a = 3" written anywhere, a slider, and what follows from others: b = 2a."""

from __future__ import annotations

from collections.abc import Mapping
from fractions import Fraction
from typing import NamedTuple

from larch.core.base.memo import remember
from larch.core.base.words import _
from larch.core.maths.expression.exactly import Undefined
from larch.core.maths.expression.precise import Budget, as_float, precise
from larch.core.maths.expression.tree import Node, names_in
from larch.core.model.capabilities import Defines
from larch.core.model.page import Page

EFFORT = 4000


class Letters(NamedTuple):
    """values: by letter, a Fraction where it is exact. why: of letters that have none, why, in a sentence."""

    values: Mapping[str, Fraction | float]
    why: Mapping[str, str]


@remember
def letters(page: Page) -> Letters:
    """All letters of a page. What is defined twice belongs to the lower one on the page."""
    given: dict[str, Node] = {}
    for thing in page.things:
        if isinstance(thing, Defines) and (found := thing.definition(page)) is not None:
            given[found[0]] = found[1]
    values: dict[str, Fraction | float] = {}
    why: dict[str, str] = {}
    for name in given:
        _worked_out(name, given, values, why, ())
    return Letters(values, why)


def _worked_out(
    name: str, given: Mapping[str, Node], values: dict[str, Fraction | float], why: dict[str, str], over: tuple[str, ...]
) -> None:
    if name in values or name in why:
        return
    if name in over:
        round_ = ", ".join((*over[over.index(name) :], name))
        for one in over[over.index(name) :]:
            why[one] = _("These letters need each other in a circle: {letters}.").format(letters=round_)
        return
    node = given[name]
    for other in sorted(names_in(node)):
        if other in given:
            _worked_out(other, given, values, why, (*over, name))
    if name in why:
        return
    try:
        exact = precise(node, values, Budget(EFFORT))
        values[name] = exact if isinstance(exact, Fraction) else as_float(exact)
    except Undefined as reason:
        why[name] = str(reason)


def letter_text(value: Fraction | float) -> str:
    """A value as it can be read again without loss."""
    return str(value) if isinstance(value, Fraction) else repr(value)


def letter_value(text: str) -> Fraction | float:
    return Fraction(text) if "." not in text and "e" not in text else float(text)
