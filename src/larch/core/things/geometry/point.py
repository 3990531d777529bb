"""Points."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any, ClassVar, Self

from larch.core.base.shape import Box, Placement
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure, free_letters
from larch.core.figures.on_axes import axes_under, pair
from larch.core.maths.plane.forms import Spot
from larch.core.maths.plane.near import on_form, parameter
from larch.core.model.capabilities import Constructible, Geometric, Snaps, TakesNames
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.snapping import hold_point
from larch.core.model.thing import ShelfItem, Snap, Thing

DOT = 8.0  # page units from its middle to its rim
FINGER = 14.0


class Point(Constructible, Snaps, TakesNames, Figure, frozen=True, kw_only=True, tag="point"):
    """A point; its name is its letter. It lies where its placement says."""

    hue: str = "berry"

    icon: ClassVar[str] = "dot"
    order: ClassVar[int] = 28
    resizable: ClassVar[bool] = False
    turnable: ClassVar[bool] = False
    help: ClassVar[str] = N_("A point that others hang on; drag it, and they follow.")

    @classmethod
    def title(cls) -> str:
        return _("point")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        yield ShelfItem("point", _("point"), N_("Shapes"), cls, _("dot vertex coordinate plot"))

    def label(self, page: Page) -> str:
        return _("Point {name}").format(name=self.name) if self.name else _("Point")

    def christened(self, page: Page) -> Self:
        if self.name:
            return self
        changed: Self = self.replace(name=free_letters(page, 1)[0])
        return changed

    def turned(self, degrees: float, centre: tuple[float, float]) -> Any:
        place = self.placement.turned(degrees, centre)
        return self.replace(placement=Placement(place.x, place.y))

    def enlarged(self, factor: float, centre: tuple[float, float]) -> Any:
        """A point goes where it must, but grows no larger."""
        place = self.placement.enlarged(factor, centre)
        return self.replace(placement=Placement(place.x, place.y))

    def form(self) -> Spot:
        return Spot(self.placement.x, self.placement.y)

    def formed(self, form: Any) -> Figure:
        changed: Figure = self.replace(placement=Placement(form.x, form.y))
        return changed

    def extent(self) -> Box:
        return Box(-DOT, -DOT, DOT, DOT)

    def touches(self, x: float, y: float, slack: float) -> bool:
        return math.hypot(x, y) <= max(FINGER, DOT + slack)

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("name", self.name, text=self.name, label=_("name"), set=self._named)
        axes = axes_under(page, [self.form()])
        if axes is None:
            yield from self.rule_facts(page)
            return
        at = axes.plane_of(self.form())
        text = pair(page, at)
        movable = not self.rule or self.rule == "plotted"

        def put(typed: str) -> Thing:
            x, y = read_pair(typed)
            if self.rule:
                changed: Thing = self.replace(values=(x, y))
            else:
                place = axes.page_of((x, y))
                changed = self.replace(placement=Placement(*place))
            return changed

        yield Fact("at", text, text=text, label=_("lies at"), badge="at", set=put if movable else None)
        yield from self.rule_facts(page)

    def _named(self, typed: str) -> Thing:
        changed: Thing = self.replace(name=typed.strip()[:12])
        return changed

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """Onto a corner, a crossing of the paper or of the grid of axes, or a line."""
        at = (self.placement.x, self.placement.y)
        axes = axes_under(page, [at])
        near = [t for t in others if t.id != self.id]
        held = hold_point(page if axes is None else page.replace(paper=type(page.paper)()), near, at, reach)
        if not held.reason and axes is not None:
            crossing = axes.grid_point(at)
            if math.dist(crossing, at) <= reach:
                return Snap(crossing[0] - at[0], crossing[1] - at[1], pair(page, axes.plane_of(crossing)), (at, crossing))
        if held.reason:
            return Snap(held.at[0] - at[0], held.at[1] - at[1], held.reason, (at, held.at))
        for thing in near:
            form = thing.form_on(page) if isinstance(thing, Geometric) else None
            if form is None or isinstance(form, Spot):
                continue
            foot = on_form(form, parameter(form, at))
            if math.dist(foot, at) <= reach:
                return Snap(foot[0] - at[0], foot[1] - at[1], _("on {what}").format(what=thing.label(page)), (at, foot))
        return None


def read_pair(typed: str) -> tuple[float, float]:
    """ "(2; 3.5)", "2 | 3,5", "2, 3" as two numbers. Raises ValueError with one sentence."""
    from larch.core.model.fact import read_number

    text = typed.strip().strip("()[]").strip()
    for sign in (";", "|", ", ", ","):
        parts = [part for part in text.split(sign) if part.strip()]
        if len(parts) == 2:
            try:
                return read_number(parts[0]), read_number(parts[1])
            except ValueError:
                continue
    parts = text.split()
    if len(parts) == 2:
        return read_number(parts[0]), read_number(parts[1])
    raise ValueError(_("Write coordinates as (2; 3.5)."))
