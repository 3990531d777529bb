"""Equations whose graph comes from that of another: they are written anew whenever the other is."""

from __future__ import annotations

from typing import TYPE_CHECKING

from larch.core.maths.expression import ExpressionError
from larch.core.maths.hand.derived import derived
from larch.core.maths.layout.from_tree import row_of
from larch.core.maths.layout.reading import meaning
from larch.core.maths.layout.terms import source_of
from larch.core.maths.plane.forms import NotThere
from larch.core.model.page import Page
from larch.core.things.words.letters import letters

if TYPE_CHECKING:
    from larch.core.things.graphs.equation import Equation

DEEPEST = 6  # derivatives of derivatives that are followed


def followed_source(equation: Equation, page: Page, deep: int = 0) -> str:
    """What it says at present. Raises NotThere where the other has none such, and where it follows itself."""
    base = page.thing(equation.base)
    if base is None or type(base) is not type(equation) or not equation.derived:
        return equation.source
    if deep > DEEPEST:
        raise NotThere("it follows itself")
    source = followed_source(base, page, deep + 1)
    known = {name: float(value) for name, value in letters(page).values.items()}
    try:
        return source_of(row_of(derived(meaning(source), equation.derived, known)))
    except ExpressionError as error:
        raise NotThere(error.message) from error
