"""Angles between two arms."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any, ClassVar

from larch.core.base.shape import FARTHEST, Box, Placement, Point, box_of
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure
from larch.core.maths.plane.forms import Angle as AngleForm
from larch.core.maths.plane.forms import Line, NotThere, direction, span_of, towards
from larch.core.maths.plane.near import distance
from larch.core.model.capabilities import Constructible
from larch.core.model.fact import Fact, read_number
from larch.core.model.page import Page
from larch.core.model.scale import angle_fact
from larch.core.model.thing import Handle, ShelfItem, Thing

ARC = 44.0


def angle_word(degrees: float) -> str:
    """The sort of an angle, by its size."""
    for size, word in ((0, _("no angle")), (90, _("right angle")), (180, _("straight angle")), (360, _("full angle"))):
        if abs(degrees - size) < 1e-7:
            return word
    return _("acute angle") if degrees < 90 else _("obtuse angle") if degrees < 180 else _("reflex angle")


class Angle(Constructible, Figure, frozen=True, kw_only=True, tag="angle"):
    """Its vertex is its placement; arms: a point on each, in its own coordinates. way_round: "inner", "outer" or "turn",
    which runs counter-clockwise from the first arm to the second."""

    arms: tuple[Point, Point] = ((192.0, 0.0), (136.0, -136.0))
    way_round: str = "turn"
    hue: str = "clay"
    shown: tuple[str, ...] = ("angle",)

    icon: ClassVar[str] = "chevron-left"
    order: ClassVar[int] = 29
    help: ClassVar[str] = N_("Drag an arm, or type how wide it opens.")

    def __post_init__(self) -> None:
        if self.way_round not in ("inner", "outer", "turn") or not all(abs(v) <= FARTHEST for arm in self.arms for v in arm):
            raise ValueError("an angle opens inwards, outwards or by a turn")

    @classmethod
    def title(cls) -> str:
        return _("angle")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        yield ShelfItem("angle", _("angle"), N_("Shapes"), cls, _("degrees turn acute obtuse reflex arms"))

    def form(self) -> AngleForm:
        place = self.placement
        return AngleForm((place.x, place.y), place.to_page(*self.arms[0]), place.to_page(*self.arms[1]), self.way_round)

    def formed(self, form: Any) -> Figure:
        x, y = form.vertex
        arms = tuple((ax - x, ay - y) for ax, ay in (form.a, form.b))
        changed: Figure = self.replace(arms=arms, way_round=form.way_round, placement=Placement(x, y))
        return changed

    def extent(self) -> Box:
        if self.rule:
            return Box(-ARC, -ARC, ARC, ARC)
        return box_of([(0.0, 0.0), *self.arms])

    def touches(self, x: float, y: float, slack: float) -> bool:
        if self.rule:
            return math.hypot(x, y) <= ARC + slack
        return min(distance(Line((0.0, 0.0), arm), (x, y)) for arm in self.arms) <= slack + 4 or math.hypot(x, y) < ARC

    def size(self) -> float | None:
        """How wide it opens, degrees; None without two arms."""
        try:
            return span_of(self.form())[1]
        except NotThere:
            return None

    def facts(self, page: Page) -> Iterator[Fact]:
        size = self.size()
        if size is None:
            yield Fact("angle", None, "°", _("an arm has no direction"), _("angle"))
        else:
            word = angle_word(size)
            yield Fact("sort", word, text=word, label=_("it is"))
            yield angle_fact(page, "angle", size, _("angle"), "angle", None if self.rule else self._opened)
            if self.rule == "angle":
                sorts = (("0", _("the inner angle")), ("1", _("the reflex angle")))
                now = "1" if self.values and self.values[0] else "0"
                yield Fact("which", now, text="", label=_("which"), set=self._which, options=sorts)
        yield from self.rule_facts(page)

    def _which(self, typed: str) -> Thing:
        changed: Thing = self.replace(values=(1.0 if typed == "1" else 0.0,))
        return changed

    def _opened(self, typed: str) -> Thing:
        wanted = read_number(typed)
        if not 0 <= wanted <= 360:
            raise ValueError(_("An angle lies between 0° and 360°."))
        (ax, ay), reach = self.arms[0], math.dist((0.0, 0.0), self.arms[1])
        if (ax, ay) == (0.0, 0.0) or not reach:
            raise ValueError(_("An arm has no direction; drag it out first."))
        to = towards((0.0, 0.0), direction((0.0, 0.0), (ax, ay)) + wanted, reach)
        changed: Thing = self.replace(arms=(self.arms[0], to), way_round="turn")
        return changed

    def handles(self) -> tuple[Handle, ...]:
        if self.rule:
            return ()
        return tuple(Handle(str(i), x, y, _("arm"), held=True) for i, (x, y) in enumerate(self.arms))

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        if self.rule or math.hypot(x, y) < 1e-6:
            return self
        arms = list(self.arms)
        arms[int(name)] = (x, y)
        changed: Thing = self.replace(arms=tuple(arms))
        return changed
