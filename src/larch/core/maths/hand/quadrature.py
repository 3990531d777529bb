"""Integrals and areas of functions between two numbers, and the sums of strips that come near to them.

Exactly where there is an antiderivative of school, else by Gauss and Legendre's rule on stretches without a break.
"""

from __future__ import annotations

import math
from fractions import Fraction
from itertools import pairwise
from typing import Any

from larch.core.maths.expression import Node, Undefined, values
from larch.core.maths.expression.precise import Budget, Value, as_float, precise
from larch.core.maths.expression.tree import Call, children
from larch.core.maths.graph import branches
from larch.core.maths.hand.derived import antiderivative
from larch.core.maths.plane.forms import NotThere

POINTS, PIECES = 12, 48
WAYS = ("left", "right", "middle", "trapezium")
MOST_STRIPS = 200
EFFORT = 6000
SEEK = 600  # samples between which a change of sign is sought


def integral(formula: Node, low: float, high: float) -> Value | float | None:
    """From low to high, exactly where that can be; None where the function is not defined or has a pole between them."""
    if low == high:
        return Fraction(0)
    a, b = min(low, high), max(low, high)
    stretches = _unbroken(formula, a, b)
    if stretches is None:
        return None
    sign = 1 if high > low else -1
    exact = _by_antiderivative(formula, low, high) if len(stretches) == 1 else None
    if exact is not None:
        return exact
    found = sum(_gauss(formula, p, q) for p, q in stretches)
    return sign * found if math.isfinite(found) else None


def area(formula: Node, low: float, high: float) -> Value | float | None:
    """Between the graph and the axis, whichever side it lies on."""
    a, b = min(low, high), max(low, high)
    cuts = [a, *_sign_changes(formula, a, b), b]
    parts = [integral(formula, p, q) for p, q in pairwise(cuts)]
    if not parts or any(part is None for part in parts):
        return None if a != b else Fraction(0)
    if all(isinstance(part, Fraction) for part in parts):
        return sum((abs(part) for part in parts if isinstance(part, Fraction)), Fraction(0))
    return math.fsum(abs(as_float(part)) if not isinstance(part, float) else abs(part) for part in parts if part is not None)


def _unbroken(formula: Node, low: float, high: float) -> list[tuple[float, float]] | None:
    """The stretches without a break between two numbers; None where something is missing or beyond all bounds."""
    import numpy as np

    found = branches(formula, low, high, "x")
    ends = [(float(one[0, 0]), float(one[-1, 0])) for one in found]
    slack = 1e-6 * (high - low)
    with np.errstate(all="ignore"):
        if not np.isfinite(values(formula, x=np.array([low, high], dtype=float))).all():
            return None
    if not ends or ends[0][0] > low + slack or ends[-1][1] < high - slack:
        return None
    if any(b[0] - a[1] > slack for a, b in pairwise(ends)):
        return None
    heights = np.concatenate([one[[0, -1], 1] for one in found])
    middle = np.concatenate([_middle(one) for one in found])
    if np.abs(heights).max() > 1e4 * (1 + np.abs(middle).max()):
        return None  # it runs away at a pole
    cut = [low, *(b[0] for b in ends[1:]), high]
    return list(pairwise(cut))


def _middle(branch: Any) -> Any:
    """The values of a branch away from its ends."""
    import numpy as np

    x, y = branch[:, 0], branch[:, 1]
    quarter = (x[-1] - x[0]) / 4
    inner = y[(x >= x[0] + quarter) & (x <= x[-1] - quarter)]
    return inner if len(inner) else np.array([y[len(y) // 2]])


def _by_antiderivative(formula: Node, low: float, high: float) -> Value | None:
    try:
        node = antiderivative(formula, {})
        if _has(node, "abs") and low * high <= 0:
            return None
        ends = [precise(node, {"x": Fraction(str(round(x, 12)))}, Budget(EFFORT)) for x in (low, high)]
    except (NotThere, Undefined):
        return None
    first, last = ends
    if isinstance(first, Fraction) and isinstance(last, Fraction):
        return last - first
    from larch.core.maths.expression.precise import decimal

    made: Value = decimal(last) - decimal(first)
    return made


def _has(node: Node, function: str) -> bool:
    return (isinstance(node, Call) and node.function == function) or any(_has(child, function) for child in children(node))


def _gauss(formula: Node, low: float, high: float) -> float:
    import numpy as np

    at, weight = np.polynomial.legendre.leggauss(POINTS)
    cuts = np.linspace(low, high, PIECES + 1)
    half = (cuts[1] - cuts[0]) / 2
    x = ((cuts[:-1] + cuts[1:]) / 2)[:, None] + half * at[None, :]
    with np.errstate(all="ignore"):
        y = values(formula, x=x.ravel()).reshape(x.shape)
    return float((y * weight[None, :]).sum() * half)


def _sign_changes(formula: Node, low: float, high: float) -> list[float]:
    import numpy as np

    at = np.linspace(low, high, SEEK + 1)
    with np.errstate(all="ignore"):
        y = values(formula, x=at)
    found = []
    for k in range(SEEK):
        if y[k] * y[k + 1] < 0:
            found.append(_bisected(formula, float(at[k]), float(at[k + 1])))
        elif y[k] == 0 and k > 0:
            found.append(float(at[k]))
    return found


def _bisected(formula: Node, low: float, high: float) -> float:
    import numpy as np

    def height(x: float) -> Any:
        return values(formula, x=np.array([x]))[0]

    start = height(low)
    for _step in range(60):
        middle = (low + high) / 2
        if height(middle) * start > 0:
            low = middle
        else:
            high = middle
    near = round((low + high) / 2, 9)
    return near if height(near) == 0 else (low + high) / 2


def strips(formula: Node, low: float, high: float, count: int, way: str) -> list[tuple[float, float, float, float]]:
    """Left end, right end, height at the left and at the right of each strip; those without a height are left out."""
    import numpy as np

    cuts = np.linspace(low, high, max(1, min(count, MOST_STRIPS)) + 1)
    with np.errstate(all="ignore"):
        ends = values(formula, x=cuts)
        middles = values(formula, x=(cuts[:-1] + cuts[1:]) / 2)
    pairs = {
        "left": (ends[:-1], ends[:-1]), "right": (ends[1:], ends[1:]), "middle": (middles, middles),
        "trapezium": (ends[:-1], ends[1:]),
    }[way]  # fmt: skip
    found = zip(cuts[:-1].tolist(), cuts[1:].tolist(), pairs[0].tolist(), pairs[1].tolist(), strict=True)
    return [one for one in found if math.isfinite(one[2]) and math.isfinite(one[3])]


def sum_of_strips(formula: Node, low: float, high: float, count: int, way: str) -> float | None:
    """What the strips come to; None where one of them has no height."""
    found = strips(formula, low, high, count, way)
    if len(found) != max(1, min(count, MOST_STRIPS)):
        return None
    return math.fsum((b - a) * (left + right) / 2 for a, b, left, right in found)


__all__ = ["MOST_STRIPS", "WAYS", "area", "integral", "strips", "sum_of_strips"]
