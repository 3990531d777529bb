"""Where a statement about one letter is true, as intervals of the number line."""

from __future__ import annotations

import math
from functools import lru_cache
from typing import NamedTuple

from larch.core.base.words import N_
from larch.core.maths.algebra.critical import critical_points, samples
from larch.core.maths.expression.exactly import Undefined
from larch.core.maths.expression.precise import Budget, as_float, holds
from larch.core.maths.expression.tree import ExpressionError, names_in, states
from larch.core.maths.layout.reading import meaning

EFFORT = 60_000
MOST = 60


class Interval(NamedTuple):
    """low, high: its ends, infinite where there is none; low_in, high_in: whether they belong to it."""

    low: float
    high: float
    low_in: bool
    high_in: bool


@lru_cache(256)
def intervals(source: str) -> tuple[Interval, ...]:
    """The intervals on which a statement holds, from left to right. Raises ValueError with one sentence."""
    try:
        node = meaning(source)
    except ExpressionError as error:
        raise ValueError(error.message) from error
    names = names_in(node)
    if not states(node) or len(names) != 1:
        raise ValueError(N_("Write a statement about one letter, such as −1 ≤ x < 3."))
    (name,) = names
    try:
        cells = samples(critical_points([node], name, {}), False)
    except Undefined as reason:
        raise ValueError(str(reason)) from reason
    found: list[Interval] = []
    low, low_in, last, open_, held = -math.inf, False, -math.inf, False, False
    for place, exact in cells:
        try:
            true = holds(node, {name: place}, Budget(EFFORT))
        except Undefined:
            true = False
        at = as_float(place)
        if exact:
            if true and not open_:
                low, low_in, open_ = at, True, True
            elif not true and open_:
                found.append(Interval(low, at, low_in, False))
                open_ = False
            last = at
            held = true
        elif true and not open_:
            low, low_in, open_ = last, False, True
        elif not true and open_:
            found.append(Interval(low, last, low_in, held))
            open_ = False
    if open_:
        found.append(Interval(low, math.inf, low_in, False))
    return tuple(found[:MOST])
