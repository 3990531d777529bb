"""Ruler and set squares."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar

from larch.core.base.shape import Point
from larch.core.base.words import N_, _
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.scale import angle_fact, length_fact, read_length
from larch.core.model.thing import Handle, ShelfItem, Thing
from larch.core.things.instruments.instrument import Instrument, turned_towards

SHORTEST, LONGEST = 96.0, 20000.0
HEIGHT = 64.0
END = 44.0  # how far it goes on beyond its last mark


class Ruler(Instrument, frozen=True, kw_only=True, tag="ruler"):
    """Its zero is its placement, its measuring edge runs along its own level; `length` in page units."""

    length: float = 480.0

    icon: ClassVar[str] = "ruler"
    help: ClassVar[str] = N_(
        "Slide it with one finger, turn it with two or by the ring at its end. A pen held at its edge draws straight."
    )

    def __post_init__(self) -> None:
        if not SHORTEST <= self.length <= LONGEST:
            raise ValueError("a ruler must have a length")

    @classmethod
    def title(cls) -> str:
        return _("ruler")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        yield ShelfItem("ruler", _("ruler"), N_("Instruments"), cls, _("measure straight length centimetres instrument"))

    def outline(self) -> tuple[Point, ...]:
        end = self.length + END
        return ((-16.0, 0.0), (end, 0.0), (end, HEIGHT), (-16.0, HEIGHT))

    def straight_edges(self) -> tuple[tuple[Point, Point], ...]:
        end = self.length + END
        return (((0.0, 0.0), (self.length, 0.0)), ((-16.0, HEIGHT), (end, HEIGHT)))

    def facts(self, page: Page) -> Iterator[Fact]:
        def sized(typed: str) -> Thing:
            wanted = read_length(typed, page)
            if not SHORTEST <= wanted <= LONGEST:
                raise ValueError(_("A ruler here is 3 cm to 6 m long."))
            changed: Thing = self.replace(length=wanted)
            return changed

        yield length_fact(page, "length", self.length, _("length"), set=sized)
        yield angle_fact(page, "turn", self.placement.turn % 360, _("turned by"), set=self.turned_to)

    def handles(self) -> tuple[Handle, ...]:
        return (
            Handle("turn about", self.length + END - 20, HEIGHT - 20, _("turn")),
            Handle("length", self.length, 0.0, _("length")),
        )

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        if name == "turn about":
            return turned_towards(self, x, y, math.degrees(math.atan2(20 - HEIGHT, self.length + END - 20)))
        changed: Thing = self.replace(length=min(max(SHORTEST, x), LONGEST))
        return changed
