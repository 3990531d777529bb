"""A graph moved as a whole, or by one of the places that its family has: the same form, with other numbers."""

from __future__ import annotations

import math
from collections.abc import Mapping
from fractions import Fraction
from functools import lru_cache

import msgspec
from msgspec import Struct

from larch.core.base.words import N_
from larch.core.maths.expression.tree import Binary, Call, Name, Node, Relation, names_in
from larch.core.maths.hand.families import Family, Inner, changed_letters, common_inner, family_of
from larch.core.maths.hand.slots import Letters, Slot, number, plus, replaced, slot_of, sum_of, terms_of, written
from larch.core.maths.plane.forms import NotThere

ACROSS = {"y-intercept": N_("x-intercept")}  # of x = f(y)
STAYS = N_("This equation keeps its place: its numbers hang on letters that the page works out.")


class Place(Struct, frozen=True):
    """A place of a graph that a hand takes hold of. main: it carries the whole."""

    name: str
    x: float
    y: float
    label: str
    main: bool = False


class Moved(Struct, frozen=True):
    """The equation after it was moved, and the letters of the page that changed instead of numbers in it."""

    node: Node
    letters: Mapping[str, Fraction]


class _Read(Struct, frozen=True):
    """family: of the side that is solved for the other letter; None of an equation in both. side: the side it stands on."""

    node: Node
    along: str
    side: str
    family: Family | None


@lru_cache(256)
def _read(node: Node, letters: tuple[tuple[str, float], ...]) -> _Read:
    known = dict(letters)
    if not isinstance(node, Relation):
        return _Read(node, "x", "whole", family_of(node, "x", known))
    for name, other in (("y", "x"), ("x", "y")):
        for side, alone, rest in (("right", node.left, node.right), ("left", node.right, node.left)):
            named = alone == Name(name) or (name == "y" and isinstance(alone, Name) and alone.name.endswith("(x)"))
            if named and name not in names_in(rest):
                return _Read(node, other, side, family_of(rest, other, known))
    return _Read(node, "xy", "both", None)


def _put_back(read: _Read, family: Family) -> Node:
    made = family.written()
    if read.side == "whole":
        return made
    assert isinstance(read.node, Relation)
    return msgspec.structs.replace(read.node, **{read.side: made})


def _ready(letters: Letters) -> tuple[tuple[str, float], ...]:
    return tuple(sorted(letters.items()))


def rounded(value: Fraction | float, step: Fraction | None) -> Fraction:
    """To a multiple of a step; without one, to a thousandth at most."""
    exact = Fraction(value) if not isinstance(value, float) else Fraction(str(round(value, 9)))
    if step is None:
        return exact.limit_denominator(100_000)
    return round(exact / step) * step


def moved(
    node: Node, by: tuple[float, float], letters: Letters, steps: tuple[Fraction | None, Fraction | None] = (None, None)
) -> Moved:
    """The equation of a graph pushed by so much. steps: to multiples of what its places come to lie.

    Raises NotThere where the form can't be kept.
    """
    if isinstance(node, Call) or (isinstance(node, Relation) and isinstance(node.right, Call)):
        point = node if isinstance(node, Call) else node.right
        assert isinstance(point, Call)
        if point.function == "point":
            return _moved_point(node, point, by, letters, steps)
    read = _read(node, _ready(letters))
    if read.along == "xy":
        return Moved(_both_moved(node, by, letters, steps), {})
    if read.family is None:
        raise NotThere(STAYS)
    along, across = by if read.along == "x" else by[::-1]
    fine = steps if read.along == "x" else steps[::-1]
    after = _translated(read.family, along, across, fine)
    return Moved(_put_back(read, after), changed_letters(read.family, after))


def _moved_point(
    node: Node, point: Call, by: tuple[float, float], letters: Letters, steps: tuple[Fraction | None, Fraction | None]
) -> Moved:
    if names_in(point) == {"t"} and "t" not in letters:
        return Moved(replaced(node, point, _shifted(point, by, letters, steps)), {})
    slots = [slot_of(argument, letters) for argument in point.arguments]
    if any(slot is None for slot in slots):
        raise NotThere(STAYS)
    at = [slot.at(rounded(slot.value + Fraction(str(by[k])), steps[k])) for k, slot in enumerate(slots) if slot]
    changed = {slot.letter: slot.value for slot in at if slot.letter}
    made = Call("point", tuple(written(slot) for slot in at))
    return Moved(replaced(node, point, made), changed)


def _shifted(point: Call, by: tuple[float, float], letters: Letters, steps: tuple[Fraction | None, Fraction | None]) -> Call:
    """(f(t), g(t)) with something more behind each."""
    made = []
    for argument, shift, step in zip(point.arguments, by, steps, strict=True):
        free = [(sign, term) for sign, term in terms_of(argument) if "t" not in names_in(term)]
        running = sum_of([(sign, term) for sign, term in terms_of(argument) if "t" in names_in(term)])
        behind = sum_of(free)
        slot = Slot(Fraction(0)) if behind is None else slot_of(behind, letters)
        if slot is None:
            raise NotThere(STAYS)
        made.append(plus(running, slot.at(rounded(slot.value + Fraction(str(round(shift, 9))), step))))
    return Call("point", tuple(made))


def _translated(family: Family, along: float, across: float, steps: tuple[Fraction | None, Fraction | None]) -> Family:
    """The family pushed along its letter and across it."""
    dx, dy = Fraction(str(round(along, 9))), Fraction(str(round(across, 9)))
    if family.kind == "sum":
        return _sum_moved(family, dx, dy, steps)
    if family.kind == "factors":
        zeros = tuple(zero.at(rounded(zero.value + dx, steps[0])) for zero in family.zeros)
        return family.replace(zeros=zeros, k=family.k.at(rounded(family.k.value + dy, steps[1])))
    assert family.inner is not None
    if family.kind == "line" and not (family.inner.h.value or family.inner.h.letter):
        k = rounded(family.k.value + dy - family.a.value * dx, steps[1])
        return family.replace(k=family.k.at(k))
    h = rounded(family.inner.h.value + dx, steps[0])
    return family.replace(inner=family.inner.moved_to(h), k=family.k.at(rounded(family.k.value + dy, steps[1])))


def coefficients(family: Family) -> list[Fraction]:
    """Of a sum of powers, from the lowest."""
    found = [Fraction(0)] * (max(power for power, _slot in family.powers) + 1)
    for power, slot in family.powers:
        found[power] = slot.value
    return found


def _with_coefficients(family: Family, values: list[Fraction]) -> Family:
    known = dict(family.powers)
    plain = Slot(Fraction(0), as_fraction=any(slot.as_fraction for slot in known.values()))
    powers = tuple((power, known.get(power, plain).at(values[power])) for power in range(len(values) - 1, -1, -1))
    return family.replace(powers=powers)


def _sum_moved(family: Family, dx: Fraction, dy: Fraction, steps: tuple[Fraction | None, Fraction | None]) -> Family:
    """c₀ + c₁x + … as the same sum of x − dx, and dy more."""
    if any(slot.letter for _power, slot in family.powers):
        raise NotThere(STAYS)
    values = coefficients(family)
    if len(values) == 3 and (steps[0] is not None or steps[1] is not None):  # its vertex comes to lie on round numbers
        h, k = _vertex(values)
        dx, dy = rounded(h + dx, steps[0]) - h, rounded(k + dy, steps[1]) - k
    made = [Fraction(0)] * len(values)
    for n, value in enumerate(values):
        for j in range(n + 1):
            made[j] += value * math.comb(n, j) * (-dx) ** (n - j)
    made[0] += dy
    return _with_coefficients(family, [one.limit_denominator(10**6) for one in made])


def _vertex(values: list[Fraction]) -> tuple[Fraction, Fraction]:
    c, b, a = values
    return -b / (2 * a), c - b * b / (4 * a)


def _both_moved(
    node: Node, by: tuple[float, float], letters: Letters, steps: tuple[Fraction | None, Fraction | None]
) -> Node:
    """An equation in x and y with x − h and y − k in the place of theirs. A line in general form keeps its left side."""
    line = _general_line(node, letters)
    if line is not None and isinstance(node, Relation):
        a, b, c = line
        value = c.value + a * Fraction(str(round(by[0], 9))) + b * Fraction(str(round(by[1], 9)))
        return Relation(node.op, node.left, written(c.at(rounded(value, steps[1]))))
    for name, shift, step in (("x", by[0], steps[0]), ("y", by[1], steps[1])):
        inner = common_inner(node, name, letters)
        to = inner.moved_to(rounded(inner.h.value + Fraction(str(round(shift, 9))), step))
        mark = Name("_")  # else x in the new x − h would be taken for the old one
        node = replaced(replaced(node, inner.node, mark), mark, to.written(name))
    return node


def _general_line(node: Node, letters: Letters) -> tuple[Fraction, Fraction, Slot] | None:
    """a, b and c of ax + by = c."""
    if not isinstance(node, Relation) or names_in(node.right):
        return None
    from larch.core.maths.graph import linear_parts

    c = slot_of(node.right, letters)
    first = linear_parts(node.left, "x")
    second = linear_parts(first[1], "y") if first is not None else None
    if c is None or first is None or second is None or names_in(first[0]) or names_in(second[0]):
        return None
    parts = [slot_of(part, letters) for part in (first[0], second[0], second[1])]
    if any(part is None for part in parts) or (parts[2] is not None and parts[2].value):
        return None
    a, b = (part.value for part in parts[:2] if part is not None)
    return a, b, c


# Places


def places(node: Node, letters: Letters, near: tuple[float, float]) -> list[Place]:
    """The places by which a graph is taken hold of. near: how far apart they may lie along x and y, in units."""
    circle = circle_of(node, letters)
    if circle is not None:
        x, y, r = circle
        return [Place("centre", x, y, N_("centre"), True), Place("radius", x + r, y, N_("radius"))]
    read = _read(node, _ready(letters))
    if read.family is None:
        return []
    away = near if read.along == "x" else near[::-1]
    found = _family_places(read.family, away[0])
    if read.along == "y":
        found = [msgspec.structs.replace(p, x=p.y, y=p.x, label=ACROSS.get(p.label, p.label)) for p in found]
    return [place for place in found if math.isfinite(place.x) and math.isfinite(place.y)]


def _family_places(family: Family, away: float) -> list[Place]:
    kind, a, k = family.kind, float(family.a.value), float(family.k.value)
    if kind == "sum":
        values = coefficients(family)
        if len(values) != 3 or not values[2]:
            return []
        h, top = (float(v) for v in _vertex(values))
        side = h + away
        return [Place("vertex", h, top, N_("vertex"), True),
                Place("size", side, top + float(values[2]) * away * away, N_("how wide it is"))]  # fmt: skip
    if kind == "factors":
        zeros = [Place(f"zero {n}", float(zero.value), k, N_("zero")) for n, zero in enumerate(family.zeros)]
        return zeros if not k else []
    assert family.inner is not None
    h, b = float(family.inner.h.value), float(family.inner.b.value)
    if kind == "line":
        level = [Place("gradient", h + away, k + a * away, N_("gradient"))] if family.name else []
        return [Place("start", h, k, N_("y-intercept") if not h else N_("its point"), True), *level]
    if kind == "power" and family.degree == 2:
        return [Place("vertex", h, k, N_("vertex"), True),
                Place("size", h + away, k + a * (b * away) ** 2, N_("how wide it is"))]  # fmt: skip
    if kind in ("power", "corner", "root"):
        value = {"power": (b * away) ** family.degree, "corner": abs(b * away)}.get(kind, math.sqrt(abs(b) * away))
        side = h + away if kind != "root" or b > 0 else h - away
        return [Place("vertex", h, k, N_("its point"), True), Place("size", side, k + a * value, N_("how steep it is"))]
    if kind == "sine":
        sine = isinstance(family.core, Call) and family.core.function == "sin"
        top = h + (math.pi / 2 / b if sine else 0.0)
        return [Place("vertex", h if sine else h + math.pi / 2 / b, k, N_("its middle line"), True),
                Place("size", top, k + a, N_("amplitude")),
                Place("period", h + 2 * math.pi / b, k if sine else k + a, N_("period"))]  # fmt: skip
    if kind == "growth":
        base = float(family.base.value) if family.base is not None else math.e
        found = [Place("size", h, k + a, N_("its height here"), False), Place("level", h - away, k, N_("asymptote"), True)]
        return [*found, *([Place("base", h + 1 / b, k + a * base, N_("factor"))] if family.base is not None else [])]
    if kind == "reciprocal":
        return [Place("vertex", h, k, N_("where its asymptotes cross"), True),
                Place("size", h + 1 / b, k + a, N_("its size"))]  # fmt: skip
    if kind == "log":
        return [Place("size", h + 1 / b, k, N_("zero"), True)]
    return []


def dragged(
    node: Node, name: str, to: tuple[float, float], letters: Letters, near: tuple[float, float],
    steps: tuple[Fraction | None, Fraction | None] = (None, None),
) -> Moved:  # fmt: skip
    """The equation when one of its places has been taken to another. Raises NotThere where it can't be there."""
    place = next((one for one in places(node, letters, near) if one.name == name), None)
    if place is None:
        raise NotThere(STAYS)
    if place.main:
        return moved(node, (to[0] - place.x, to[1] - place.y), letters, steps)
    if name == "radius":
        return _resized(node, to, letters, steps)
    read = _read(node, _ready(letters))
    assert read.family is not None
    at, fine = (to, steps) if read.along == "x" else (to[::-1], steps[::-1])
    after = _family_dragged(read.family, name, at, fine)
    if after is None:
        raise NotThere(N_("Its graph can't come to lie there."))
    return Moved(_put_back(read, after), changed_letters(read.family, after))


def _family_dragged(
    family: Family, name: str, to: tuple[float, float], steps: tuple[Fraction | None, Fraction | None]
) -> Family | None:
    x, y = (rounded(value, step) for value, step in zip(to, steps, strict=True))
    if name.startswith("zero "):
        zeros = [*family.zeros]
        n = int(name.split()[1])
        zeros[n] = zeros[n].at(x)
        return family.replace(zeros=tuple(zeros))
    if family.kind == "sum":
        values = coefficients(family)
        h, k = _vertex(values)
        if x == h or y == k:
            return None
        a = _tidy((y - k) / (x - h) ** 2)
        return _with_coefficients(family, [k + a * h * h, -2 * a * h, a])
    inner = family.inner
    assert inner is not None
    h, b, k = inner.h.value, inner.b.value, family.k.value
    if name == "period":
        return _with_period(family, inner, float(x - h)) if x > h else None
    if name == "base":
        if not family.a.value or (y - k) / family.a.value <= 0 or family.base is None or (y - k) == family.a.value:
            return None
        return family.replace(base=family.base.at(_tidy((y - k) / family.a.value)))
    unit = _unit(family, float(b * (x - h)))
    if unit is None or (y == k and family.kind != "line"):
        return None
    return family.replace(a=family.a.at(_tidy((y - k) / unit)))


def _unit(family: Family, u: float) -> Fraction | None:
    """What the family comes to without its factor, at a place; None where that says nothing."""
    kind = family.kind
    if kind in ("sine", "growth"):
        return Fraction(1)
    if not u:
        return None
    exact = Fraction(str(round(u, 9)))
    if kind == "reciprocal":
        return 1 / exact**family.degree
    if kind == "corner":
        return abs(exact)
    if kind == "root":
        root = math.sqrt(abs(u)) if u > 0 or family.kind != "root" else 0.0
        return Fraction(str(round(root, 9))) or None
    return exact ** (family.degree if kind == "power" else 1)


def _with_period(family: Family, inner: Inner, period: float) -> Family:
    """b = 2π / period, as a multiple of π where it was one."""
    b = 2 * math.pi / period
    value = Fraction(str(round(b, 9)))
    if not inner.b.with_pi and not inner.b.letter:
        value = rounded(b, Fraction(1, 20)) or Fraction(1, 20)
    elif inner.b.with_pi:
        parts = Fraction(2 / period).limit_denominator(60)
        value = Fraction(str(round(float(parts) * math.pi, 9)))
    return family.replace(inner=inner.moved_to(inner.h.value, value))


def _tidy(value: Fraction) -> Fraction:
    """A number as a class would write it: exact where it is simple, else to hundredths."""
    return value if value.denominator <= 20 else round(value * 100) / Fraction(100)


def circle_of(node: Node, letters: Letters) -> tuple[float, float, float] | None:
    """Centre and radius of (x − h)² + (y − k)² = r²."""
    found = _circle(node, letters)
    return None if found is None else (float(found[0].h.value), float(found[1].h.value), math.sqrt(float(found[2].value)))


def _circle(node: Node, letters: Letters) -> tuple[Inner, Inner, Slot] | None:
    match node:
        case Relation(_, Binary("+", Binary("^", first, Number_two), Binary("^", second, other)), right):
            two, also = slot_of(Number_two, letters), slot_of(other, letters)
            x, y = common_inner(first, "x", letters), common_inner(second, "y", letters)
            size = slot_of(right, letters)
            if two is None or also is None or two.value != 2 or also.value != 2 or size is None or size.value <= 0:
                return None
            whole = x.node == first and y.node == second and "y" not in names_in(first) and "x" not in names_in(second)
            return (x, y, size) if whole else None
    return None


def _resized(node: Node, to: tuple[float, float], letters: Letters, steps: tuple[Fraction | None, Fraction | None]) -> Moved:
    found = _circle(node, letters)
    assert found is not None and isinstance(node, Relation)
    x, y, size = found
    r = rounded(math.hypot(to[0] - float(x.h.value), to[1] - float(y.h.value)), steps[0])
    if r <= 0:
        raise NotThere(N_("Its graph can't come to lie there."))
    right = node.right
    if isinstance(right, Binary) and right.op == "^":
        return Moved(msgspec.structs.replace(node, right=Binary("^", number(r), right.right)), {})
    return Moved(msgspec.structs.replace(node, right=written(size.at(r * r))), {})


__all__ = ["Moved", "Place", "circle_of", "dragged", "moved", "places"]
