"""What is said of a function as a whole: domain, range, symmetry, period, asymptotes, where it rises and falls."""

from __future__ import annotations

import math
from fractions import Fraction
from itertools import pairwise
from typing import Any, NamedTuple

from larch.core.base.words import _
from larch.core.maths.algebra.answers import Unread
from larch.core.maths.algebra.compare import same
from larch.core.maths.algebra.critical import is_periodic
from larch.core.maths.expression.exactly import Undefined
from larch.core.maths.expression.precise import Value, as_float, decimal
from larch.core.maths.expression.tree import ExpressionError, Name, Negative, Node, names_in
from larch.core.maths.hand.families import family_of
from larch.core.maths.hand.slots import replaced
from larch.core.maths.layout.reading import meaning
from larch.core.maths.plot.answer import domain, function_of
from larch.core.maths.plot.breaks import slowly
from larch.core.maths.plot.features import Features, features
from larch.core.maths.surd import recognised

# How far out a function is followed: at no round numbers, which a sine could take for its period; and less far, where
# numbers get too large.
FAR = (10**6 + Fraction(17, 53), 10**11 + Fraction(29, 71), 10**16 + Fraction(5, 19))
NEARER = (Fraction(61), Fraction(127), Fraction(251), Fraction(499))
WIDE, SWINGING = 60.0, 7.0  # how far its extrema are sought, and where they come again and again
MOST = 8  # intervals that are written down


class Bound(NamedTuple):
    """An end of a range. held: whether it is a value of the function."""

    at: float
    held: bool


def plot_character(expr: str, letters: dict[str, str], low: float, high: float) -> list[dict[str, str]]:
    """{"name", "text"} of "domain", "range", "symmetry", "period", "asymptotes", "rises" and "falls" (these two from low to
    high), as far as they are known. Raises Unread."""
    from larch.core.maths.graph import with_values

    try:
        node = with_values(meaning(expr), letters)
    except ExpressionError as error:
        raise Unread(error.message) from error
    kind, formula, name = function_of(node)
    if kind != "function" or name not in names_in(formula):
        return []
    if is_periodic(formula):
        here = wide = features(formula, name, min(low, -SWINGING), max(high, SWINGING))
    else:
        wide = features(formula, name, -WIDE, WIDE)
        here = wide if low >= -WIDE and high <= WIDE else features(formula, name, low, high)
    far = {way: asymptote(formula, name, way) for way in (-1, 1)}
    told = {
        "domain": domain(formula, name),
        "range": range_text(formula, name, wide, far),
        "symmetry": symmetry(formula, name),
        "period": period(formula, name),
        "asymptotes": _asymptotes(name, wide, far),
    }
    told |= monotone(formula, name, here, low, high)
    return [{"name": key, "text": text} for key, text in told.items() if text]


# Far out


class Line(NamedTuple):
    """y = slope · x + start, which a function comes near to."""

    slope: Fraction | float
    start: Fraction | float


def asymptote(node: Node, name: str, way: int) -> Line | None:
    """The level or slanted line that a function comes near to far out; None if there is none. way: −1 or 1."""
    places = [way * x for x in FAR]
    values = [slowly(node, name, x) for x in places]
    doubled = [slowly(node, name, 2 * x) for x in places]
    if None in values or None in doubled:
        return None
    slopes = [
        (decimal(b) - decimal(a)) / decimal(x) for a, b, x in zip(values, doubled, places, strict=True) if a is not None
    ]
    slope = _settled([float(s) for s in slopes], 1e-6)
    if slope is None:
        return None
    rests = [decimal(a) - decimal(_exact(slope)) * decimal(x) for a, x in zip(values, places, strict=True) if a is not None]
    start = _settled([float(r) for r in rests], 1e-4)
    if start is None:
        return None
    line = Line(_exact(slope), _exact(start))
    off = [abs(float(r - decimal(line.start))) for r in rests]
    if not off[2] <= max(1e-7, 0.5 * off[1]) or off[2] > 1e-4:
        return None
    straight = all(value == line.slope * x + line.start for value, x in zip(values, places, strict=True))
    return None if straight and slowly(node, name, way * NEARER[0]) == line.slope * way * NEARER[0] + line.start else line


def _settled(values: list[float], slack: float) -> float | None:
    """What a sequence comes to; None if it does not."""
    a, b, c = values
    if not all(map(math.isfinite, values)) or abs(c) > 1e6:
        return None
    return c if abs(c - b) <= slack * (1 + abs(c)) and abs(c - b) <= 0.2 * abs(b - a) + 1e-9 * (1 + abs(c)) else None


def _exact(value: float) -> Fraction | float:
    near = Fraction(value).limit_denominator(360)
    return near if abs(float(near) - value) <= 1e-11 * (1 + abs(value)) else value


def _asymptotes(name: str, found: Features, far: dict[int, Line | None]) -> str:
    upright = [f"{name} = {_number(one.x)}" for one in found.breaks if one.kind == "pole"]
    if len(upright) > 6:
        upright = [*upright[len(upright) // 2 - 1 : len(upright) // 2 + 1], "…"]
    lines = list(dict.fromkeys(line for line in far.values() if line is not None))
    return "; ".join([*upright, *(_line(line, name) for line in lines)])


def _line(line: Line, name: str) -> str:
    if not line.slope:
        return f"y = {_number(line.start)}"
    size = _number(abs(line.slope))
    head = ("−" if line.slope < 0 else "") + (name if size == "1" else f"{size}{name}")
    if not line.start:
        return f"y = {head}"
    return f"y = {head} {'+' if line.start > 0 else '−'} {_number(abs(line.start))}"


def _number(value: Value | float) -> str:
    """Exactly where it is short."""
    if isinstance(value, Fraction) and value.denominator in (1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 12):
        text = str(value) if value.denominator not in (2, 4, 5, 8, 10) else f"{float(value):g}"
        return text.replace("-", "−")
    number = as_float(value) if not isinstance(value, float) else value
    plain, turns = recognised(number), recognised(number / math.pi)
    if plain is not None:
        return plain.text()
    if turns is not None:
        return turns.times_pi().text()
    text = f"{number:.4f}".rstrip("0").rstrip(".")
    return ("0" if text == "-0" else text).replace("-", "−")


# Its values


def range_text(node: Node, name: str, found: Features, far: dict[int, Line | None]) -> str:
    """All values that it takes, in the signs of school; "" where that is not known."""
    if any(one.kind == "wild" for one in found.breaks):
        return ""
    stretches = _stretches(node, name, found, far)
    if stretches is None:
        return ""
    merged: list[tuple[Bound, Bound]] = []
    for low, high in sorted(stretches, key=lambda pair: (pair[0].at, not pair[0].held)):
        last = merged[-1] if merged else None
        if last is not None and (low.at < last[1].at or (low.at == last[1].at and (low.held or last[1].held))):
            top = max(last[1], high, key=lambda bound: (bound.at, bound.held))
            merged[-1] = (last[0], top)
        else:
            merged.append((low, high))
    return _intervals("y", merged) if len(merged) <= MOST else ""


def _stretches(node: Node, name: str, found: Features, far: dict[int, Line | None]) -> list[tuple[Bound, Bound]] | None:
    """The values on each stretch without a break, from the least to the greatest."""
    inside = [one for one in found.breaks if one.kind != "bend"]
    ends: list[Any] = [None, *inside, None]
    made: list[tuple[Bound, Bound]] = []
    for left, right in pairwise(ends):
        if inside and None in (left, right) and is_periodic(node):
            continue  # as between those that are known
        a = float(as_float(left.x)) if left is not None else -math.inf
        b = float(as_float(right.x)) if right is not None else math.inf
        middle = (
            0.0 if a == -math.inf and b == math.inf else b - 1 if a == -math.inf else a + 1 if b == math.inf else (a + b) / 2
        )
        if slowly(node, name, Fraction(str(round(middle, 9)))) is None:
            continue
        bounds: list[Bound] = []
        for x, _kind in found.extrema:
            value = slowly(node, name, x)
            if value is not None and a < as_float(x) < b:
                bounds.append(Bound(as_float(value), True))
        for end, way in ((left, 1), (right, -1)):
            turns = [bound.at for bound in bounds if bound.held]
            bound = _far_bound(node, name, far, -way, turns) if end is None else _end_bound(end, way)
            if bound is None:
                return None
            bounds.append(bound)
        low = min(bounds, key=lambda bound: (bound.at, not bound.held))
        high = max(bounds, key=lambda bound: (bound.at, bound.held))
        made.append((low, high))
    made += [(Bound(as_float(one.value), True),) * 2 for one in inside if one.value is not None]
    return made


def _far_bound(node: Node, name: str, far: dict[int, Line | None], way: int, turns: list[float]) -> Bound | None:
    """turns: its extrema; where it swings for ever, and never beyond them, they say all."""
    line = far[way]
    if line is not None and not line.slope:
        some = slowly(node, name, way * NEARER[0])
        return Bound(float(line.start), some is not None and decimal(some) == decimal(line.start))
    values = [slowly(node, name, way * x) for x in (*FAR, 10 * FAR[-1])]
    if None in values:
        values = [slowly(node, name, way * x) for x in NEARER]
    known = [_float(value) for value in values if value is not None]
    if len(known) < 4:
        return None
    if is_periodic(node):
        least, most = min(turns, default=math.inf), max(turns, default=-math.inf)
        return Bound(least, True) if all(least - 1e-9 <= one <= most + 1e-9 for one in known) else None
    if known[0] != known[-1] and known in (sorted(known), sorted(known, reverse=True)):
        return Bound(math.inf if known[-1] > known[0] else -math.inf, False)
    return None


def _float(value: Value) -> float:
    """A number, however large."""
    try:
        return as_float(value)
    except Undefined:
        return math.inf if value > 0 else -math.inf


def _end_bound(end: Any, way: int) -> Bound | None:
    side = end.right if way > 0 else end.left
    if side.kind == "infinite":
        return Bound(math.inf * side.sign, False)
    if side.kind != "finite":
        return None
    limit = float(f"{float(side.limit):.9g}")
    held = end.value is not None and abs(as_float(end.value) - limit) < 1e-9 * (1 + abs(limit))
    return Bound(limit, held)


def _intervals(name: str, found: list[tuple[Bound, Bound]]) -> str:
    if not found:
        return ""
    if found == [(Bound(-math.inf, False), Bound(math.inf, False))]:
        return _("all real numbers")
    whole = found[0][0].at == -math.inf and found[-1][1].at == math.inf
    if whole and all(a[1].at == b[0].at for a, b in pairwise(found)):
        return ", ".join(f"{name} ≠ {_number(one[1].at)}" for one in found[:-1])
    return _(" or ").join(_interval(name, low, high) for low, high in found)


def _interval(name: str, low: Bound, high: Bound) -> str:
    if low.at == high.at:
        return f"{name} = {_number(low.at)}"
    if low.at == -math.inf:
        return f"{name} {'≤' if high.held else '<'} {_number(high.at)}"
    if high.at == math.inf:
        return f"{name} {'≥' if low.held else '>'} {_number(low.at)}"
    return f"{_number(low.at)} {'≤' if low.held else '<'} {name} {'≤' if high.held else '<'} {_number(high.at)}"


# Its shape


def symmetry(node: Node, name: str) -> str:
    """To which line or point; "" where none is known."""
    turned = replaced(node, Name(name), Negative(Name(name)))
    if same(turned, node).same:
        return _("to the y-axis")
    if same(turned, Negative(node)).same:
        return _("to the origin")
    family = family_of(node, name, {})
    inner = family.inner if family is not None else None
    if family is None:
        return ""
    if family.kind == "sum" and max(power for power, slot in family.powers if slot.value) == 2:
        values = {power: slot.value for power, slot in family.powers}
        return _("to the line {line}").format(line=f"{name} = {_number(-values.get(1, Fraction(0)) / (2 * values[2]))}")
    if inner is None:
        return ""
    even = family.kind == "corner" or (family.kind in ("power", "reciprocal") and family.degree % 2 == 0)
    if even:
        return _("to the line {line}").format(line=f"{name} = {_number(inner.h.value)}")
    if family.kind in ("power", "reciprocal"):
        place = f"({_number(inner.h.value)}; {_number(family.k.value)})"
        return _("to the point {point}").format(point=place)
    return ""


def period(node: Node, name: str) -> str:
    """Of a sine or tangent of a line."""
    family = family_of(node, name, {})
    if family is None or family.inner is None:
        return ""
    tangent = family.kind == "other" and getattr(family.core, "function", "") == "tan"
    if family.kind != "sine" and not tangent:
        return ""
    return _number(float((math.pi if tangent else 2 * math.pi) / abs(float(family.inner.b.value))))


def monotone(node: Node, name: str, found: Features, low: float, high: float) -> dict[str, str]:
    """Where it rises and falls, from low to high."""
    parting = [one.x for one in found.breaks if one.kind != "bend" and low < one.x < high]
    turning = [x for x, _kind in found.extrema if low < x < high]
    places = sorted([*turning, *parting], key=as_float)
    if len(places) > MOST:
        return {}
    cuts: list[Value | None] = [None, *places, None]
    ways: dict[str, list[str]] = {"rises": [], "falls": []}
    for left, right in pairwise(cuts):
        a = as_float(left) if left is not None else low
        b = as_float(right) if right is not None else high
        before, after = (slowly(node, name, Fraction(str(round(a + (b - a) * share, 9)))) for share in (0.35, 0.65))
        if before is None or after is None or before == after:
            continue
        text = name if left is not None or right is not None else _("everywhere")
        if left is not None:
            text = f"{_number(left)} < {text}" if right is not None else f"{text} > {_number(left)}"
        if right is not None:
            text = f"{text} < {_number(right)}"
        ways["rises" if decimal(after) > decimal(before) else "falls"].append(text)
    return {key: ", ".join(parts) for key, parts in ways.items() if parts}


__all__ = ["asymptote", "monotone", "period", "plot_character", "range_text", "symmetry"]
