"""What all figures of geometry share: a form on the page, and perhaps a rule by which it follows from others."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from functools import cache, lru_cache
from typing import TYPE_CHECKING, Any

from msgspec import Struct

from larch.core.base.memo import remember
from larch.core.base.shape import Point
from larch.core.base.words import N_, _
from larch.core.maths.plane.forms import Angle, Circle, Ellipse, Form, Graph, Line, NotThere, Path, Spot
from larch.core.model.capabilities import Derives, Geometric, Unaligned
from larch.core.model.fact import Fact, read_number
from larch.core.model.scale import length_fact, plain_fact, read_length
from larch.core.model.thing import Thing

if TYPE_CHECKING:
    from larch.core.figures.settling import Settling
    from larch.core.model.page import Page

LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ"
LETTER = re.compile(r".[′₀-₉]*", re.DOTALL)


class Part(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Which part of a whole a figure is. set: what parts of one whole have in common; k of n equal parts, or 0 of 0 for
    parts that need not be equal. outer: the corners of the whole, in the coordinates that all its parts have."""

    set: str
    k: int = 0
    n: int = 0
    outer: tuple[Point, ...] = ()
    keeps: str = ""


class Figure(Geometric, Derives, Unaligned, Thing, frozen=True, kw_only=True, tag="_figure"):
    """rule: how it follows from others, "" for a free one (see `core.rules`). of: what it follows from: the id of a
    thing, with ":k" for its k-th point or "/k" for its k-th side. values: the numbers of the rule.

    The geometry of a figure that follows is derived, and not written into files; so is `why`, the reason for which it
    is not there at present (its geometry is then where it last was).
    """

    rule: str = ""
    of: tuple[str, ...] = ()
    values: tuple[float, ...] = ()
    why: str = ""
    part: Part | None = None

    def form(self) -> Form:
        """Its form, in page coordinates."""
        raise TypeError(self.kind())

    def formed(self, form: Any) -> Figure:
        """Itself with another form of the same sort."""
        raise TypeError(self.kind())

    def worked_out(self, settler: Settling) -> Form | None:
        """Its form by a rule of its own; None for those of `core.rules`."""
        return None

    def bare(self) -> Thing:
        """As it is written into a file: without what can be derived."""
        if not self.rule:
            return self.replace(why="") if self.why else self
        blank = {name: default for name, default in _blank(type(self)).items() if name in DERIVED}
        changed: Thing = self.replace(**blank)
        return changed

    def form_on(self, page: Page) -> Form | None:
        return None if self.why else self.form()

    def moved(self, dx: float, dy: float) -> Any:
        """One that follows moves with what it follows from; see `core.settle.carried`."""
        return self if self.rule else super().moved(dx, dy)

    def rule_facts(self, page: Page) -> Iterator[Fact]:
        """The numbers of its rule, to be typed; and why it is not there."""
        from larch.core.figures.rules import RULES

        if self.why:
            yield Fact("missing", None, text=_(self.why).rstrip("."), label=_("not there"))
        rule = RULES.get(self.rule)
        for i, (name, unit) in enumerate(rule.values if rule is not None else ()):
            if i >= len(self.values) or not name:
                continue

            def put(typed: str, i: int = i, unit: str = unit) -> Thing:
                value = read_length(typed, page) if unit == "length" else read_number(typed)
                if not abs(value) <= 1e6:
                    raise ValueError(_("That is too far out."))
                changed: Thing = self.replace(values=(*self.values[:i], value, *self.values[i + 1 :]))
                return changed

            if unit == "length":
                yield length_fact(page, f"by {name}", self.values[i], _(name), set=put)
            else:
                yield plain_fact(page, f"by {name}", self.values[i], unit, _(name), set=put)


DERIVED = frozenset(
    {"why", "vertices", "ends", "radius", "start", "span", "arms", "rx", "ry", "lines", "placement", "holes", "route"}
)


@cache
def _blank(kind: type[Thing]) -> dict[str, Any]:
    """The fields of a kind as they are by default."""
    made = kind()
    return {name: getattr(made, name) for name in made.__struct_fields__}


def split_letters(letters: str) -> list[str]:
    """The names of corners: a letter each, with its primes and numbers."""
    return LETTER.findall(letters)


def place(form: Form, k: int) -> Spot:
    """The k-th point of a form: corners, ends, or the centre and then the ends. Raises NotThere if it has none such."""
    points: Sequence[Point]
    match form:
        case Spot():
            points = [form]
        case Line(a, b):
            points = [a, b]
        case Path(corners):
            points = corners
        case Circle(centre, _r, "circle"):
            points = [centre]
        case Circle(centre):
            points = [centre, form.at(form.start), form.at(form.start + form.span)]
        case Ellipse(centre):
            points = [centre]
        case Angle(vertex, a, b):
            points = [vertex, a, b]
        case Graph():
            points = []
    if not 0 <= k < len(points):
        raise NotThere(N_("It has no such point."))
    return Spot(*points[k])


def side(form: Form, k: int) -> Line:
    """The k-th side. Raises NotThere if it has none such."""
    match form:
        case Path():
            sides = form.sides()
        case Line():
            sides = [form]
        case Circle(_c, _r, "sector"):
            sides = [Line(form.centre, form.at(form.start)), Line(form.centre, form.at(form.start + form.span))]
        case Circle(_c, _r, "cap"):
            sides = [form.chord()]
        case Angle(vertex, a, b):
            sides = [Line(vertex, a, "ray"), Line(vertex, b, "ray")]
        case _:
            sides = []
    if not 0 <= k < len(sides):
        raise NotThere(N_("It has no such side."))
    return sides[k]


@lru_cache(20_000)
def split_ref(ref: str) -> tuple[str, str, int]:
    """A reference as id, "" or ":" or "/", and number."""
    for sign in ":/":
        id, found, number = ref.partition(sign)
        if found:
            return id, sign, int(number) if number.isdecimal() and len(number) < 6 else -1
    return ref, "", 0


def part_of(form: Form, sign: str, k: int) -> Form:
    if sign == ":":
        return place(form, k)
    return side(form, k) if sign == "/" else form


def used_letters(page: Page) -> set[str]:
    """The letters that name points of the page."""
    return set(_used(page))


@remember
def _used(page: Page) -> frozenset[str]:
    found: set[str] = set()
    for thing in page.things:
        names = getattr(thing, "corner_names", None)
        if names is not None:
            found |= {name for name in names() if name.strip()}
        elif isinstance(thing, Figure) and thing.name:
            found.add(thing.name)
    return frozenset(found)


def free_letters(page: Page, count: int, taken: Sequence[str] = ()) -> list[str]:
    """The next letters that name nothing on the page: A to Z, then A₁, B₁ …"""
    used = used_letters(page) | set(taken)
    found: list[str] = []
    for number in range(10_000):
        mark = "".join("₀₁₂₃₄₅₆₇₈₉"[int(digit)] for digit in str(number)) if number else ""
        for letter in LETTERS:
            if letter + mark not in used:
                found.append(letter + mark)
            if len(found) == count:
                return found
    return found
