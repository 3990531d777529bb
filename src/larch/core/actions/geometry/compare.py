"""Congruent and similar shapes: whether one fits the other, and which corner goes with which."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import combinations
from typing import NamedTuple

from larch.core.base.shape import Placement, Point
from larch.core.base.words import N_, _
from larch.core.maths import geometry
from larch.core.model.action import Action, Things, register
from larch.core.model.capabilities import Constructible
from larch.core.model.edit import Edit
from larch.core.model.fact import number_text
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.words.text import Text

SAME = 1e-8  # relative


class Fit(NamedTuple):
    """How one polygon fits another: order[i] is the corner of the second on which corner i of the first comes to lie;
    factor: how many times as long the second's sides are; over: whether it must be turned over."""

    order: tuple[int, ...]
    factor: float
    over: bool

    @property
    def congruent(self) -> bool:
        return abs(self.factor - 1) <= SAME


def fit(one: Sequence[Point], other: Sequence[Point]) -> Fit | None:
    """How the first fits the second, without being turned over if that is possible; None if they are not similar.

    Sides in proportion and angles alike, corner by corner. Areas must not be nothing.
    """
    count = len(one)
    if count != len(other) or count < 3:
        return None
    a, b = geometry.signed_area(one), geometry.signed_area(other)
    if a == 0 or b == 0:
        return None
    factor = geometry.perimeter(other) / geometry.perimeter(one)
    for over in (False, True):
        backwards = (a > 0) == (b > 0) if over else (a > 0) != (b > 0)
        for k in range(count):
            order = tuple((k - i) % count if backwards else (k + i) % count for i in range(count))
            if _lies_on(one, [other[i] for i in order], factor):
                return Fit(order, factor, over)
    return None


def _lies_on(one: Sequence[Point], other: Sequence[Point], factor: float) -> bool:
    """Whether all distances between corners are in proportion; of many corners, those of near ones."""
    size = max(math.dist(other[0], corner) for corner in other)
    count = len(one)
    some = ((i, (i + k) % count) for k in (1, 2, 3) for i in range(count))
    pairs = combinations(range(count), 2) if count <= 12 else some
    return all(abs(math.dist(one[i], one[j]) * factor - math.dist(other[i], other[j])) <= 10 * SAME * size for i, j in pairs)


def sentence(page: Page, one: Thing, other: Thing) -> str:
    """Whether two polygons are congruent or similar, with the correspondence, in one sentence."""
    assert isinstance(one, Polygon) and isinstance(other, Polygon)
    first, second = (p.form().corners for p in (one, other))
    names, others = one.corner_names(), other.corner_names()
    titles = "".join(names).strip() or one.label(page), "".join(others).strip() or other.label(page)
    found = fit(first, second)
    if found is None:
        return _("{one} and {other} are not similar.").format(one=titles[0], other=titles[1])
    pairs = ", ".join(f"{names[i]} ↔ {others[j]}" for i, j in enumerate(found.order))
    if found.congruent:
        words = _("{one} and {other} are congruent: {pairs}.")
    else:
        words = _("{one} and {other} are similar: {pairs}; factor {factor}.")
    text = words.format(one=titles[0], other=titles[1], pairs=pairs, factor=number_text(found.factor, 3))
    return text + (" " + _("One must be turned over.") if found.over else "")


def _two_polygons(page: Page, things: Things) -> bool:
    return len(things) == 2 and all(thing.kind() == "polygon" and not getattr(thing, "why", "") for thing in things)


def compare(page: Page, things: Things) -> Edit:
    """Writes beside two shapes how they fit each other."""
    box = things[0].box()
    low = max(thing.box().y1 for thing in things)
    words = Text(text=sentence(page, *things), size=32.0, hue="slate", placement=Placement(box.x0, low + 48), width=640.0)
    return Edit(_("Compare"), page, page.put(words), select=tuple(thing.id for thing in things))


COMPARING = (
    Action("compare", lambda p, ts: _("compare: congruent or similar?"), "equal", compare, _two_polygons, rank=40,
           words=N_("congruent similar same shape fit correspondence")),
)  # fmt: skip
register(COMPARING, Constructible, at=20)
