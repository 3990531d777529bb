"""The features of a function on a stretch, to 1e-9 and better: zeros, extrema, inflections, poles, holes, jumps."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction
from itertools import pairwise
from typing import Any, NamedTuple

from larch.core.maths.algebra.critical import distinct
from larch.core.maths.expression.derive import derivative
from larch.core.maths.expression.exactly import Undefined
from larch.core.maths.expression.precise import Value, decimal
from larch.core.maths.expression.tree import Node
from larch.core.maths.plot.breaks import Side, breaks, side, slowly, zeros_on

SAME = 1e-9
CELL_SAMPLES = 60


class Break(NamedTuple):
    """A place where a function breaks, bends or ends. kind: "pole", "hole", "jump", "bend", "end" or "wild". value: there,
    or None. left, right: what it does on each side."""

    x: Value
    kind: str
    value: Value | None
    left: Side
    right: Side


class Features(NamedTuple):
    roots: list[Value]
    extrema: list[tuple[Value, str]]
    inflections: list[tuple[Value, Value]]
    breaks: list[Break]
    y_intercept: Value | None


def _alike(a: Any, b: Any) -> bool:
    return bool(abs(decimal(a) - decimal(b)) <= 1e-5 * (1 + abs(decimal(a))))


def what_breaks(node: Node, name: str, low: float, high: float) -> list[Break]:
    """All breaks on a stretch, in order."""
    found = []
    for x in breaks(node, name, low, high):
        value = slowly(node, name, x)
        left, right = side(node, name, x, -1), side(node, name, x, 1)
        found.append(Break(x, _kind(value, left, right), value, left, right))
    return found


def _kind(value: Value | None, left: Side, right: Side) -> str:
    kinds = {left.kind, right.kind}
    if "infinite" in kinds:
        return "pole"
    if "wild" in kinds:
        return "wild"
    if kinds == {"finite"}:
        if not _alike(left.limit, right.limit):
            return "jump"
        return "bend" if value is not None and _alike(value, left.limit) else "hole"
    return "end"


def features(node: Node, name: str, low: float, high: float) -> Features:
    """All features of a function of one letter on a stretch."""
    found = what_breaks(node, name, low, high)
    inner = [decimal(Fraction(low)), *(decimal(one.x) for one in found if low < one.x < high), decimal(Fraction(high))]
    cells = [(a, b) for a, b in pairwise(inner) if b - a > 1e-12]
    slope, curving = _slopes(node, name)
    roots: list[Value] = [one.x for one in found if one.value is not None and one.value == 0]
    turning: list[tuple[Value, str]] = []
    bending: list[tuple[Value, Value]] = []
    flat = slope is not None and not _varies(node, name, low, high)
    samples = max(CELL_SAMPLES, 1600 // max(1, len(cells)))
    for a, b in cells:
        middle = slowly(node, name, _between(a, b))
        if middle is None:
            continue
        here = (float(a), float(b))
        if not flat and not (middle == 0 and _is_flat(node, name, a, b)):
            roots += [x for x in zeros_on(node, name, *here, samples) if slowly(node, name, x) == 0 or _small(node, name, x)]
        if slope is not None and not flat:
            turns = zeros_on(slope, name, *here, samples)
            turning += [(x, kind) for x in turns if (kind := _turn(node, slope, name, x, a, b))]
            roots += [x for x, _kind in turning if a <= decimal(x) <= b and slowly(node, name, x) == 0]
        if curving is not None and not flat:
            for x in zeros_on(curving, name, *here, samples):
                height = slowly(node, name, x)
                if height is not None and _changes(curving, name, x, a, b):
                    bending.append((x, height))
    turning += [(one.x, kind) for one in found if one.kind == "bend" and (kind := _corner(node, name, one))]
    bends = {float(one.x) for one in found}
    inside = [(x, kind) for x, kind in _once(turning) if low < x < high]
    return Features(
        [x for x in distinct(roots) if low <= x <= high],
        inside,
        [(x, y) for x, y in _once(bending) if low < x < high and float(x) not in bends],
        found,
        slowly(node, name, Fraction(0)),
    )


def _once(pairs: Sequence[tuple[Value, Any]]) -> list[tuple[Value, Any]]:
    ordered = sorted(pairs, key=lambda pair: decimal(pair[0]))
    kept: list[tuple[Value, Any]] = []
    for pair in ordered:
        if not kept or abs(decimal(pair[0]) - decimal(kept[-1][0])) > 1e-12 * (1 + abs(decimal(pair[0]))):
            kept.append(pair)
    return kept


def _slopes(node: Node, name: str) -> tuple[Node | None, Node | None]:
    try:
        slope = derivative(node, name)
    except Undefined:
        return None, None
    try:
        return slope, derivative(slope, name)
    except Undefined:
        return slope, None


def _between(a: Value, b: Value) -> Any:
    return decimal(_exact(a)) * 0.618 + decimal(_exact(b)) * 0.382


def _exact(x: Any) -> Any:
    return Fraction(x) if isinstance(x, float) else x


def _varies(node: Node, name: str, low: float, high: float) -> bool:
    """Whether it is anything but one number all along."""
    shares = (3, 11, 23, 37, 49, 58, 71, 83, 96)  # of a hundred, nothing in the middle of anything
    values = [slowly(node, name, Fraction(low) + Fraction(high - low) * Fraction(k, 100)) for k in shares]
    known = [value for value in values if value is not None]
    return len(known) < 2 or any(not _alike(value, known[0]) for value in known[1:])


def _is_flat(node: Node, name: str, a: Any, b: Any) -> bool:
    a, b = decimal(_exact(a)), decimal(_exact(b))
    return all(slowly(node, name, a + (b - a) * share) == 0 for share in (0.2, 0.5, 0.8))


def _small(node: Node, name: str, x: Value) -> bool:
    value = slowly(node, name, x)
    return value is not None and abs(decimal(value)) < 1e-25


def _near(x: Value, a: Any, b: Any) -> list[Any]:
    """A place on each side, within the cell."""
    room = min(decimal(x) - decimal(_exact(a)), decimal(_exact(b)) - decimal(x))
    if room <= 0:
        return []
    away = min(room / 2, decimal(Fraction(1, 10**4)))
    return [decimal(x) - away, decimal(x) + away]


def _changes(node: Node, name: str, x: Value, a: Any, b: Any) -> bool:
    """Whether its sign is another on the other side."""
    near = [slowly(node, name, place) for place in _near(x, a, b)]
    return len(near) == 2 and None not in near and decimal(near[0]) * decimal(near[1]) < 0


def _turn(node: Node, slope: Node, name: str, x: Value, a: Any, b: Any) -> str:
    """ "minimum" or "maximum" where the slope changes its sign, else ""."""
    near = [slowly(slope, name, place) for place in _near(x, a, b)]
    if len(near) != 2 or None in near or slowly(node, name, x) is None:
        return ""
    before, after = near
    assert before is not None and after is not None
    return "minimum" if before < 0 < after else "maximum" if before > 0 > after else ""


def _corner(node: Node, name: str, one: Break) -> str:
    """An extremum at a bend, as of |x|."""
    away = decimal(Fraction(1, 10**6))
    before, after = (slowly(node, name, decimal(one.x) + way * away) for way in (-1, 1))
    if before is None or after is None or one.value is None:
        return ""
    here = decimal(one.value)
    if decimal(before) > here < decimal(after):
        return "minimum"
    return "maximum" if decimal(before) < here > decimal(after) else ""
