"""Set squares."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar

from larch.core.base.shape import Point
from larch.core.base.words import N_, _
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.scale import angle_fact, length_fact
from larch.core.model.thing import Handle, ShelfItem, Thing
from larch.core.things.instruments.instrument import Instrument, turned_towards

KINDS = {"45": (1.0, 1.0), "30-60": (math.sqrt(3), 1.0)}  # legs, in parts of the shorter one


class SetSquare(Instrument, frozen=True, kw_only=True, tag="set square"):
    """Its right angle is its placement; sort: "45" or "30-60"; short: its shorter leg, which points up, page units."""

    sort: str = "45"
    short: float = 224.0
    hue: str = "sky"

    icon: ClassVar[str] = "triangle-right"
    help: ClassVar[str] = N_("Lay an edge along a line, or slide it along the ruler, and draw parallels and perpendiculars.")

    def __post_init__(self) -> None:
        if self.sort not in KINDS or not 64 <= self.short <= 4000:
            raise ValueError("a set square has 45 degrees, or 30 and 60")

    @classmethod
    def title(cls) -> str:
        return _("set square")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("right angle parallel perpendicular instrument triangle geometry")
        yield ShelfItem("set square 45", _("set square 45°"), N_("Instruments"), cls, words)
        yield ShelfItem(
            "set square 30-60", _("set square 30°, 60°"), N_("Instruments"), lambda: cls(sort="30-60", short=192.0), words
        )

    def label(self, page: Page) -> str:
        return self.name or _("set square {sort}").format(sort="45°" if self.sort == "45" else "30°–60°")

    def legs(self) -> tuple[float, float]:
        across, up = KINDS[self.sort]
        return across * self.short, up * self.short

    def outline(self) -> tuple[Point, ...]:
        across, up = self.legs()
        return ((0.0, 0.0), (across, 0.0), (0.0, -up))

    def straight_edges(self) -> tuple[tuple[Point, Point], ...]:
        corner, right, top = self.outline()
        return ((corner, right), (corner, top), (right, top))

    def facts(self, page: Page) -> Iterator[Fact]:
        yield length_fact(page, "short leg", self.short, _("shorter leg"))
        yield angle_fact(page, "turn", self.placement.turn % 360, _("turned by"), set=self.turned_to)

    def handles(self) -> tuple[Handle, ...]:
        across, _up = self.legs()
        return (Handle("turn about", across + 4, 0.0, _("turn")),)

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        return turned_towards(self, x, y)
