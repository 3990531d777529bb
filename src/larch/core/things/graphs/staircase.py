"""Repeated use of a function: its members as steps between its graph and the line y = x."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import pairwise
from typing import ClassVar

from larch.core.base.memo import once_a_page
from larch.core.base.shape import Box
from larch.core.base.words import N_, _
from larch.core.maths.expression import Node, Undefined
from larch.core.maths.expression.evaluate import floating
from larch.core.maths.layout.reading import look
from larch.core.maths.layout.rows import Lowered, Row, Sign, signs
from larch.core.maths.recursion import comes_to, same
from larch.core.model.capabilities import HasWords, LooksAt, Plots, Shades
from larch.core.model.fact import Fact, plain_number, read_number, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.course import FARTHEST, PATIENCE, course, limit_text
from larch.core.things.graphs.equation import Equation

WIDE, TALL = 11.0, 1.7  # em, of its card
MOST_STEPS = 200
TOLD = 3  # members on the card


class Staircase(HasWords, Shades, LooksAt, Thing, frozen=True, kw_only=True, tag="staircase"):
    """equation: the id of y = f(x). start: the first member; each next one is f of the one before. steps: how many are
    drawn. Raises ValueError where these make no sense."""

    equation: str = ""
    start: float = 1.0
    steps: int = 5
    size: float = 36.0
    hue: str = "lake"

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "corner-down-right"
    order: ClassVar[int] = 45
    refers: ClassVar[tuple[str, ...]] = ("equation",)
    help: ClassVar[str] = N_("Drag its first member along the axis. Each step goes to the graph, then across to y = x.")

    def __post_init__(self) -> None:
        if not -FARTHEST <= self.start <= FARTHEST:
            raise ValueError("a staircase begins at a number")
        if not 1 <= self.steps <= MOST_STEPS or not 1 <= self.size <= 2000:
            raise ValueError("a staircase has from one step to two hundred")

    @classmethod
    def title(cls) -> str:
        return _("staircase")

    def label(self, page: Page) -> str:
        return self.name or _("staircase from {start}").format(start=plain_number(self.start, 3))

    def plain_text(self) -> str:
        return plain_number(self.start, 3)

    def extent(self) -> Box:
        return Box(0, 0, WIDE * self.size, TALL * self.size)

    def uses(self, page: Page) -> tuple[Thing, ...]:
        found = page.thing(self.equation)
        return () if found is None else (found,)

    def axes_on(self, page: Page) -> Plots | None:
        found = page.thing(self.equation)
        return found.axes_on(page) if isinstance(found, Equation) else None

    def rests_on(self, page: Page) -> tuple[str, ...]:
        axes = self.axes_on(page)
        return () if axes is None else (axes.id,)

    def formula(self, page: Page) -> Node | None:
        found = page.thing(self.equation)
        curve = found.curve() if isinstance(found, Equation) else None
        return curve.formula if curve is not None and curve.along == "x" else None

    def shaded(self, page: Page) -> list[list[tuple[float, float]]]:
        return []

    def lines_on(self, page: Page) -> list[tuple[list[tuple[float, float]], bool]]:
        found = _run(self.formula(page), self.start, self.steps)
        walk = [(found[0], 0.0)]
        for now, then in pairwise(found):
            walk += [(now, then), (then, then)]
        axes = self.axes_on(page)
        if not isinstance(axes, Axes):
            return [(walk, False)]
        low, high = max(axes.x_min, axes.y_min), min(axes.x_max, axes.y_max)
        return [([(low, low), (high, high)], True), (walk, False)]

    def ends(self) -> tuple[float, ...]:
        return (self.start,)

    def with_end(self, which: int, x: float) -> Thing:
        made: Thing = self.replace(start=x)
        return made

    def members(self, page: Page) -> tuple[float, ...]:
        """From the first one on, as far as there are any, they settle, or run out of reach."""
        return _members(self, page)

    def comes_to(self, page: Page) -> str:
        """The number to which they come, as text; "" where they come to none."""
        found = self.members(page)
        return limit_text(end) if (end := comes_to(found)) is not None else ""

    def row(self, page: Page) -> Row:
        """What its card says."""
        found = self.members(page)
        told = ",  ".join(plain_number(x, 3) for x in found[:TOLD])
        begun: Row = (Sign("x"), Lowered(signs("n")), Sign(":"), Sign(" "), *signs(told))
        more: Row = (*signs(",  …"),) if len(found) > TOLD else ()
        end = self.comes_to(page)
        return (*begun, *more, Sign("→"), *look(end)) if end else (*begun, *more)

    def facts(self, page: Page) -> Iterator[Fact]:
        found = self.members(page)
        yield Fact("start", self.start, text=plain_number(self.start, 6), label=_("first member"), set=self._with_start)
        yield Fact("steps", self.steps, text=str(self.steps), label=_("steps"),
                   set=lambda typed: self.replace(steps=read_whole(typed, 1, MOST_STEPS)))  # fmt: skip
        drawn = found[: self.steps + 1]
        yield Fact("last", drawn[-1], text=plain_number(drawn[-1], 6), label=_("member {n}").format(n=len(drawn) - 1))
        yield Fact("course", self.comes_to(page) or None, text=self.course(page), label=_("goes on"))

    def course(self, page: Page) -> str:
        """What becomes of the members, in words."""
        return course(self.members(page))

    def _with_start(self, typed: str) -> Thing:
        value = read_number(typed)
        if abs(value) > FARTHEST:
            raise ValueError(_("That is too far out."))
        made: Thing = self.replace(start=float(value))
        return made


@once_a_page
def _members(thing: Staircase, page: Page) -> tuple[float, ...]:
    return _run(thing.formula(page), thing.start, PATIENCE)


def _run(formula: Node | None, start: float, count: int) -> tuple[float, ...]:
    """The first member and up to so many more; fewer where there are none, they settle, or run out of reach."""
    found = [float(start)]
    while formula is not None and len(found) <= count and abs(found[-1]) <= FARTHEST:
        try:
            value = floating(formula, {"x": found[-1]})
        except (Undefined, OverflowError, ValueError, ZeroDivisionError):
            break
        if not math.isfinite(value):
            break
        found.append(value)
        if same(found[-2], value):
            break
    return tuple(found)
