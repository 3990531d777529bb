"""Ellipses."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from typing import Any, ClassVar

from larch.core.base.shape import FARTHEST, Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure
from larch.core.maths.measure import ellipse_perimeter
from larch.core.maths.plane.forms import Ellipse as EllipseForm
from larch.core.maths.plane.forms import outline
from larch.core.maths.plane.near import distance, within
from larch.core.model.capabilities import Constructible
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.scale import area_fact, length_fact, read_length
from larch.core.model.thing import Handle, ShelfItem, Thing

LINE = 3.5


class Ellipse(Constructible, Figure, frozen=True, kw_only=True, tag="ellipse"):
    """Half axes in page units, rx along its own level; its centre is its placement."""

    rx: float = 128.0
    ry: float = 80.0
    hue: str = "plum"

    icon: ClassVar[str] = "ellipsis"
    order: ClassVar[int] = 29

    def __post_init__(self) -> None:
        if not (0 < self.rx <= FARTHEST and 0 < self.ry <= FARTHEST):
            raise ValueError("an ellipse must have two half axes")

    @classmethod
    def title(cls) -> str:
        return _("ellipse")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        yield ShelfItem("ellipse", _("ellipse"), N_("Shapes"), cls, _("oval round foci"))

    def form(self) -> EllipseForm:
        place = self.placement
        return EllipseForm((place.x, place.y), self.rx * place.scale, self.ry * place.scale, place.turn)

    def formed(self, form: Any) -> Figure:
        placement = Placement(form.centre[0], form.centre[1], form.turn)
        changed: Figure = self.replace(rx=form.rx, ry=form.ry, placement=placement)
        return changed

    def local(self) -> EllipseForm:
        return EllipseForm((0.0, 0.0), self.rx, self.ry)

    def extent(self) -> Box:
        return Box(-self.rx, -self.ry, self.rx, self.ry)

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        yield outline(self.local(), 3.0), True

    def touches(self, x: float, y: float, slack: float) -> bool:
        return (not self.rule and within(self.local(), (x, y))) or distance(self.local(), (x, y)) <= slack + LINE

    def facts(self, page: Page) -> Iterator[Fact]:
        form = self.form()
        long, short = max(form.rx, form.ry), min(form.rx, form.ry)

        def sized(axis: str) -> Callable[[str], Thing] | None:
            def put(typed: str) -> Thing:
                wanted = read_length(typed, page) / self.placement.scale
                if not 0 < wanted <= 1e6:
                    raise ValueError(_("A half axis must be more than nothing."))
                changed: Thing = self.replace(**{axis: wanted})
                return changed

            return None if self.rule else put

        yield length_fact(page, "half axis", form.rx, _("half axis"), "half axis", sized("rx"))
        yield length_fact(page, "other half axis", form.ry, _("other half axis"), "other half axis", sized("ry"))
        yield length_fact(
            page, "between foci", 2 * math.sqrt((long - short) * (long + short)), _("between the foci"), "between foci"
        )
        yield length_fact(page, "perimeter", ellipse_perimeter(long, short), _("perimeter"), "perimeter")
        yield area_fact(page, "area", math.pi * long * short, _("area"), "area", pi=True)
        yield from self.rule_facts(page)

    def handles(self) -> tuple[Handle, ...]:
        if self.rule:
            return ()
        return (Handle("rx", self.rx, 0.0, _("half axis")), Handle("ry", 0.0, -self.ry, _("half axis")))

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        size = max(1.0, abs(x) if name == "rx" else abs(y))
        changed: Thing = self.replace(**{name: min(size, 1e6)})
        return changed

    def stretched(self, across: float, down: float) -> Thing | None:
        if self.rule:
            return None
        changed: Thing = self.replace(rx=self.rx * across, ry=self.ry * down)
        return changed
