"""Curves that are run through by a letter of their own, (f(t), g(t)) and r = f(θ), and sequences, as arrays.

Stretches of the letter are those on which both coordinates are proved continuous (see `graph.branches`), so that nothing is
joined across a pole or a jump.
"""

from __future__ import annotations

import math
from functools import lru_cache
from typing import TYPE_CHECKING, Any

from larch.core.maths.expression import values
from larch.core.maths.expression.tree import Binary, Call, Name, Node
from larch.core.maths.graph import Curve, branches
from larch.core.maths.recursion import MOST_TERMS, members

if TYPE_CHECKING:
    from numpy.typing import NDArray

TURN = 400  # samples to a turn of the angle
SAMPLES, MOST = 1200, 40_000
POLE = 1e-6  # of the span, by which a stretch keeps away from what it ends at


def coordinates(curve: Curve) -> tuple[str, Node, Node]:
    """The letter of a curve along "t" or "polar", and both coordinates as formulas of it."""
    if curve.along == "polar":
        angle = Name("θ")
        x, y = (Binary("*", curve.formula, Call(function, (angle,))) for function in ("cos", "sin"))
        return "θ", x, y
    assert isinstance(curve.formula, Call)
    return "t", curve.formula.arguments[0], curve.formula.arguments[1]


def run_through(curve: Curve) -> list[NDArray[Any]]:
    """The unbroken pieces of a curve along "t" or "polar", each of shape (n, 2) in coordinates."""
    return [points for _at, points in sampled(curve)]


@lru_cache(32)
def sampled(curve: Curve) -> list[tuple[NDArray[Any], NDArray[Any]]]:
    """The same with the values of its letter, of shape (n,), before each piece. Remembered; nobody changes them."""
    low, high = curve.span
    name, x, y = coordinates(curve)
    stretches = [(low, high)]
    for part in (curve.formula,) if curve.along == "polar" else (x, y):
        proved = [(float(one[0, 0]), float(one[-1, 0])) for one in branches(part, low, high, name)]
        stretches = _common(stretches, proved)
    return [_sampled(curve, name, a, b) for a, b in stretches if b > a]


def _common(one: list[tuple[float, float]], other: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """The stretches that lie in some of both."""
    found = [(max(a, c), min(b, d)) for a, b in one for c, d in other]
    return [(a, b) for a, b in found if b > a]


def _sampled(curve: Curve, name: str, low: float, high: float) -> tuple[NDArray[Any], NDArray[Any]]:
    import numpy as np

    turns = (high - low) / (2 * math.pi)
    count = int(min(MOST, max(60, TURN * turns if name == "θ" else max(SAMPLES, TURN * turns))))
    at = np.linspace(low, high, count)
    found = places(curve, at)
    kept = np.isfinite(found).all(axis=1)
    return at[kept], found[kept]


def places(curve: Curve, at: NDArray[Any]) -> NDArray[Any]:
    """Its places for values of its letter, of shape (n, 2)."""
    import numpy as np

    with np.errstate(all="ignore"):
        if curve.along == "polar":
            r = values(curve.formula, θ=at)
            return np.column_stack([r * np.cos(at), r * np.sin(at)])
        assert isinstance(curve.formula, Call)
        return np.column_stack([values(part, t=at) for part in curve.formula.arguments])


def terms(curve: Curve, low: float, high: float) -> NDArray[Any]:
    """The members of a sequence from the first one on, as far as they lie between two numbers: pairs of number and value."""
    import numpy as np

    first = max(math.ceil(low), math.ceil(curve.span[0]))
    last = min(math.floor(high), first + MOST_TERMS)
    at = np.arange(first, last + 1, dtype=float)
    if not len(at):
        return np.empty((0, 2))
    if curve.along == "rule":
        begin = int(curve.span[0])
        all_members = np.array(members(curve.formula, curve.firsts, begin))
        numbers = begin + np.arange(len(all_members), dtype=float)
        shown = (numbers >= low) & (numbers <= high)
        return np.column_stack([numbers[shown], all_members[shown]])
    with np.errstate(all="ignore"):
        found = np.column_stack([at, values(curve.formula, n=at)])
    kept: NDArray[Any] = found[np.isfinite(found).all(axis=1)]
    return kept
