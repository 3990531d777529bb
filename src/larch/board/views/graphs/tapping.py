"""A tap on what stands out on a graph: the first says what it is, the second takes the words away."""

from __future__ import annotations

import math
from collections.abc import Mapping

from larch.board.marks import Mark
from larch.board.views.graphs.graph_facts import marks_of
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import TOLD_AT, Equation

NEAR = 16.0  # page units beyond the reach of the pointer


def tapped_mark(id: str, axes: Axes, at: tuple[float, float], slack: float, page: Page) -> Mapping[str, Thing]:
    """What changes when a place of the axes' own coordinates is tapped; nothing where nothing stands out there."""
    equation = page.thing(id)
    if not isinstance(equation, Equation):
        return {}
    curve = equation.curve()
    upright = curve is not None and curve.along != "y"

    def away(mark: Mark) -> float:
        assert mark.height is not None
        pair = (mark.at, mark.height) if upright else (mark.height, mark.at)
        return math.dist(axes.to_local(*pair), at)

    known = [mark for mark in marks_of(equation, page) if mark.height is not None]
    best = min(known, key=away, default=None)
    if best is None or away(best) > slack + NEAR:
        return {}
    word = told_word(best)
    rest = tuple(name for name in equation.shown if name != word)
    return {id: equation.replace(shown=rest if word in equation.shown else (*rest, word))}


def told_word(mark: Mark) -> str:
    """What stands among the shown of an equation for a mark that is told."""
    return f"{TOLD_AT}{mark.kind} {mark.at:.6g}"
