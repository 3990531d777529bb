"""Compasses."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar

from larch.core.base.shape import Point
from larch.core.base.words import N_, _
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.scale import length_fact, read_length
from larch.core.model.thing import Handle, ShelfItem, Snap, Thing
from larch.core.things.instruments.instrument import Instrument, points_near

LEG = 250.0
NARROWEST, WIDEST = 12.0, 2 * LEG - 40


class Compasses(Instrument, frozen=True, kw_only=True, tag="compasses"):
    """The needle stands at its placement, the pencil lies in its own level, `opening` page units away."""

    opening: float = 160.0
    draws: str = "figure"
    hue: str = "slate"

    icon: ClassVar[str] = "drafting-compass"
    help: ClassVar[str] = N_("Set the opening by the pencil's foot or type it. Swing the knob at the top to draw an arc.")

    def __post_init__(self) -> None:
        if not NARROWEST <= self.opening <= WIDEST:
            raise ValueError("compasses must be opened")

    @classmethod
    def title(cls) -> str:
        return _("compasses")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        yield ShelfItem("compasses", _("compasses"), N_("Instruments"), cls, _("circle arc radius instrument draw"))

    def knob(self) -> Point:
        """Where the legs meet, in its own coordinates."""
        half = self.opening / 2
        return (half, -math.sqrt(LEG * LEG - half * half))

    def outline(self) -> tuple[Point, ...]:
        x, y = self.knob()
        return (
            (-8.0, 4.0),
            (x - 16, y - 34),
            (x + 16, y - 34),
            (self.opening + 8, 4.0),
            (self.opening - 10, -6.0),
            (x, y + 46),
            (10.0, -6.0),
        )

    def needle(self) -> Point:
        return (self.placement.x, self.placement.y)

    def pencil(self) -> Point:
        return self.placement.to_page(self.opening, 0.0)

    def facts(self, page: Page) -> Iterator[Fact]:
        def opened(typed: str) -> Thing:
            wanted = read_length(typed, page) / self.placement.scale
            if not NARROWEST <= wanted <= WIDEST:
                widest = length_fact(page, "", WIDEST).text
                raise ValueError(_("These compasses open up to {widest}.").format(widest=widest))
            changed: Thing = self.replace(opening=wanted)
            return changed

        yield length_fact(page, "opening", self.opening * self.placement.scale, _("opening"), set=opened)

    def handles(self) -> tuple[Handle, ...]:
        return (
            Handle("swing", *self.knob(), _("knob: swing to draw")),
            Handle("opening", self.opening, 0.0, _("pencil: opening")),
            Handle("needle", 0.0, 0.0, _("needle")),
        )

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        place = self.placement
        if name == "needle":
            to = place.to_page(x, y)
            moved: Thing = self.moved(to[0] - place.x, to[1] - place.y)
            return moved
        if name == "opening":
            opening = min(max(NARROWEST, math.hypot(x, y)), WIDEST)
            changed: Thing = self.replace(opening=opening).turned(math.degrees(math.atan2(-y, x)), self.needle())
            return changed
        kx, ky = self.knob()
        by = math.degrees(math.atan2(-y, x)) - math.degrees(math.atan2(-ky, kx))
        swung: Thing = self.turned(by, self.needle())
        return swung

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """The needle falls onto a point."""
        at = self.needle()
        near = [point for point in points_near(page, others) if math.dist(point, at) <= 1.4 * reach]
        if not near:
            return None
        to = min(near, key=lambda point: math.dist(point, at))
        return Snap(to[0] - at[0], to[1] - at[1], _("needle on it"), (to, self.pencil()))
