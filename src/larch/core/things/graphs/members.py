"""Other members of the family that an equation belongs to: its graph for other values of a slider."""

from __future__ import annotations

from larch.core.maths.expression import ExpressionError
from larch.core.maths.graph import Curve, NotDrawn, curve_of
from larch.core.model.capabilities import Defines
from larch.core.model.page import Page
from larch.core.things.graphs.equation import Equation

COUNT = 8  # steps from one end of the slider to the other


def members(page: Page, equation: Equation) -> list[Curve]:
    """Its curve at even steps of the first letter that has two ends; none where there is no such letter."""
    letters = dict(pair for pair in equation.told if pair[0])
    for thing in page.things:
        found = thing.definition(page) if isinstance(thing, Defines) else None
        ends = thing.ends_of_letter() if isinstance(thing, Defines) else None
        if found is None or ends is None or found[0] not in letters:
            continue
        low, high = ends
        made = []
        for k in range(COUNT + 1):
            value = round(low + (high - low) * k / COUNT, 9)
            try:
                made.append(curve_of(equation.source, tuple((letters | {found[0]: repr(value)}).items())))
            except (ExpressionError, NotDrawn):
                continue
        return made
    return []
