"""The area between a graph and the axis, or between two graphs, from one number to another; or strips near to it."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from fractions import Fraction
from typing import Any, ClassVar

from larch.core.base.memo import once_a_page
from larch.core.base.shape import Box
from larch.core.base.words import N_, _
from larch.core.maths.expression import Node
from larch.core.maths.expression.plain import compact
from larch.core.maths.expression.tree import Binary
from larch.core.maths.hand.quadrature import MOST_STRIPS, WAYS, area, integral, strips, sum_of_strips
from larch.core.maths.layout.reading import look
from larch.core.maths.layout.rows import Fence, Limits, Lowered, Row, Sign, signs
from larch.core.maths.surd import recognised
from larch.core.model.capabilities import HasWords, LooksAt, Plots, Shades
from larch.core.model.fact import Fact, plain_number, read_number, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.equation import Equation, value_text

FARTHEST = 1e6
WIDE, TALL = 11.0, 2.6  # em, of its card
NAMES = {"": N_("exactly"), "left": N_("strips, height at the left"), "right": N_("strips, height at the right"),
         "middle": N_("strips, height in the middle"), "trapezium": N_("trapezia")}  # fmt: skip


class GraphArea(HasWords, Shades, LooksAt, Thing, frozen=True, kw_only=True, tag="graph area"):
    """equation, other: ids; between them, or where there is no other, down to the axis. low, high: from where to where. way:
    one of "" and `WAYS`, with so many strips. Raises ValueError where these make no sense."""

    equation: str = ""
    other: str = ""
    low: float = 0.0
    high: float = 1.0
    way: str = ""
    count: int = 4
    size: float = 36.0
    hue: str = "lake"

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "blend"
    order: ClassVar[int] = 44
    refers: ClassVar[tuple[str, ...]] = ("equation", "other")
    help: ClassVar[str] = N_("Drag its edges on the axes. Among its facts: strips instead of the exact area, and how many.")

    def __post_init__(self) -> None:
        if not (-FARTHEST <= self.low <= FARTHEST and -FARTHEST <= self.high <= FARTHEST):
            raise ValueError("an area lies between two numbers")
        if self.way not in ("", *WAYS) or not 1 <= self.count <= MOST_STRIPS or not 1 <= self.size <= 2000:
            raise ValueError("an area is measured in other ways")

    @classmethod
    def title(cls) -> str:
        return _("area of a graph")

    def label(self, page: Page) -> str:
        return self.name or _("area from {low} to {high}").format(
            low=plain_number(self.low, 3), high=plain_number(self.high, 3)
        )

    def plain_text(self) -> str:
        return f"{plain_number(self.low, 3)} … {plain_number(self.high, 3)}"

    def extent(self) -> Box:
        return Box(0, 0, WIDE * self.size, TALL * self.size)

    def uses(self, page: Page) -> tuple[Thing, ...]:
        return tuple(thing for thing in map(page.thing, (self.equation, self.other)) if thing is not None)

    def axes_on(self, page: Page) -> Plots | None:
        first = page.thing(self.equation)
        return first.axes_on(page) if isinstance(first, Equation) else None

    def rests_on(self, page: Page) -> tuple[str, ...]:
        axes = self.axes_on(page)
        return () if axes is None else (axes.id,)

    def formula(self, page: Page) -> Node | None:
        """The height between its two edges."""
        found = [_function(page, id) for id in (self.equation, self.other) if id]
        if not found or any(one is None for one in found):
            return None
        first = found[0]
        assert first is not None
        return first if len(found) == 1 or found[1] is None else Binary("-", first, found[1])

    def shaded(self, page: Page) -> list[list[tuple[float, float]]]:
        return _shaded(self, page)

    def ends(self) -> tuple[float, float]:
        return (self.low, self.high)

    def with_end(self, which: int, x: float) -> Thing:
        made: Thing = self.replace(low=x) if which == 0 else self.replace(high=x)
        return made

    def value(self, page: Page) -> str:
        """What it comes to, as text; "" where it has no value."""
        return _value(self, page)

    def row(self, page: Page) -> Row:
        """What its card says."""
        value = self.value(page)
        if self.way:
            told: Row = (Sign(self.way[0].upper()), Lowered(signs(str(self.count))))
            return (*told, Sign("≈"), *look(value)) if value else told
        formula = self.formula(page)
        inner = look(compact(formula)) if formula is not None else look("f(x)")
        if isinstance(formula, Binary) and formula.op in "+-":
            inner = (Fence("(", inner, ")"),)
        low, high = (look(_text(x)) for x in (self.low, self.high))
        told = (Limits("∫", low, high), *inner, Sign(" "), Sign("d"), Sign("x"))
        return (*told, Sign("="), *look(value)) if value else told

    def facts(self, page: Page) -> Iterator[Fact]:
        value = self.value(page)
        yield Fact("value", value or None, text=value or _("It has no value here."), label=_("comes to"))
        formula = self.formula(page)
        if formula is not None and not self.way:
            size = area(formula, self.low, self.high)
            yield Fact("area", None if size is None else float(size), text=_text(size) or "—", label=_("area"))
        for name, label in (("low", _("from")), ("high", _("to"))):
            number = getattr(self, name)
            yield Fact(name, number, text=plain_number(number, 6), label=label, set=self._end(name))
        options = tuple((way, _(words)) for way, words in NAMES.items())
        yield Fact("way", self.way, text=_(NAMES[self.way]), label=_("measured"), options=options,
                   set=lambda typed: self.replace(way=typed if typed in WAYS else ""))  # fmt: skip
        yield Fact("strips", self.count, text=str(self.count), label=_("strips"),
                   set=lambda typed: self.replace(count=read_whole(typed, 1, MOST_STRIPS)))  # fmt: skip

    def _end(self, name: str) -> Callable[[str], Any]:
        def set_end(typed: str) -> Thing:
            value = read_number(typed)
            if abs(value) > FARTHEST:
                raise ValueError(_("That is too far out."))
            return self.replace(**{name: value})  # type: ignore[no-any-return]

        return set_end


def _function(page: Page, id: str) -> Node | None:
    thing = page.thing(id)
    curve = thing.curve() if isinstance(thing, Equation) else None
    return curve.formula if curve is not None and curve.along == "x" else None


def _text(value: Any) -> str:
    """Exactly where it is short, else to four places."""
    if value is None:
        return ""
    if isinstance(value, Fraction):
        return value_text(value)
    number = float(value)
    known, turns = recognised(number), recognised(number / math.pi)
    if known is None and turns is not None:
        known = turns.times_pi()
    return known.text() if known is not None else plain_number(number, 4)


@once_a_page
def _value(thing: GraphArea, page: Page) -> str:
    formula = thing.formula(page)
    if formula is None:
        return ""
    if thing.way:
        found = sum_of_strips(formula, thing.low, thing.high, thing.count, thing.way)
        return "" if found is None else plain_number(found, 4)
    return _text(integral(formula, thing.low, thing.high))


@once_a_page
def _shaded(thing: GraphArea, page: Page) -> list[list[tuple[float, float]]]:
    """Corners of what is shaded, in coordinates."""
    import numpy as np

    from larch.core.maths.graph import branches

    low, high = sorted((thing.low, thing.high))
    first = _function(page, thing.equation)
    second = _function(page, thing.other) if thing.other else None
    if first is None or low == high or (thing.other and second is None):
        return []
    if thing.way:
        height = first if second is None else Binary("-", first, second)
        return [
            [(a, 0.0), (a, left), (b, right), (b, 0.0)]
            for a, b, left, right in strips(height, low, high, thing.count, thing.way)
        ]
    made = []
    for branch in branches(first, low, high, "x"):
        top = [(float(x), float(y)) for x, y in branch]
        if second is None:
            floor = [(top[-1][0], 0.0), (top[0][0], 0.0)]
        else:
            from larch.core.maths.expression import values

            with np.errstate(all="ignore"):
                below = values(second, x=branch[:, 0])
            floor = [(float(x), float(y)) for x, y in zip(branch[::-1, 0], below[::-1], strict=True) if np.isfinite(y)]
        made.append(top + floor)
    return made
