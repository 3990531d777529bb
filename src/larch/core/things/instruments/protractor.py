"""Protractors, half and full."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar, NamedTuple

from larch.core.base.shape import Point
from larch.core.base.words import N_, _
from larch.core.maths.plane.forms import direction
from larch.core.model.capabilities import Geometric, LooksAt
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.scale import angle_fact
from larch.core.model.thing import Handle, ShelfItem, Snap, Thing
from larch.core.things.instruments.instrument import Instrument, lines_near, points_near

RADIUS = 208.0
FOOT = 30.0  # how far a half one reaches below its base line
ON = 3.0  # page units within which a vertex lies under the middle
CLOSE = 2.0  # degrees within which an arm lies along the base line


class Reading(NamedTuple):
    """Where the arms of the angle under it cross its rim, degrees from its base line, and the angle between them."""

    first: float
    second: float

    @property
    def angle(self) -> float:
        return self.second - self.first


class Protractor(LooksAt, Instrument, frozen=True, kw_only=True, tag="protractor"):
    """Its middle is its placement; its base line runs along its own level. full: all round, else a half one."""

    full: bool = False
    hue: str = "sky"

    icon: ClassVar[str] = "gauge"
    help: ClassVar[str] = N_(
        "It falls onto a corner and reads the angle there. A pen at its rim draws a line from its middle."
    )

    @classmethod
    def title(cls) -> str:
        return _("protractor")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("angle degrees measure instrument")
        yield ShelfItem("protractor", _("protractor"), N_("Instruments"), cls, words)
        yield ShelfItem("full protractor", _("full protractor"), N_("Instruments"), lambda: cls(full=True), words)

    def label(self, page: Page) -> str:
        return self.name or (_("full protractor") if self.full else _("protractor"))

    def outline(self) -> tuple[Point, ...]:
        end = 360 if self.full else 180
        rim = [(RADIUS * math.cos(math.radians(t)), -RADIUS * math.sin(math.radians(t))) for t in range(0, end + 1, 6)]
        return tuple(rim[:-1]) if self.full else (*rim, (-RADIUS, FOOT), (RADIUS, FOOT))

    def straight_edges(self) -> tuple[tuple[Point, Point], ...]:
        return () if self.full else (((-RADIUS, FOOT), (RADIUS, FOOT)),)

    def centre(self) -> Point:
        return (self.placement.x, self.placement.y)

    def facts(self, page: Page) -> Iterator[Fact]:
        yield angle_fact(page, "turn", self.placement.turn % 360, _("turned by"), set=self.turned_to)
        found = reading(self, page)
        if found is None:
            yield Fact("reads", None, "°", _("no angle lies at its middle"), _("it reads"))
        else:
            yield angle_fact(page, "reads", found.angle, _("it reads"))

    def uses(self, page: Page) -> tuple[Thing, ...]:
        """What lies at its middle: it reads that."""
        at = self.centre()
        return tuple(t for t in page.things if t is not self and isinstance(t, Geometric) and _has_point(page, t, at))

    def handles(self) -> tuple[Handle, ...]:
        return (Handle("turn about", RADIUS + 4, 0.0, _("turn")),)

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        changed: Thing = self.turned(math.degrees(math.atan2(-y, x)), self.centre())
        return changed

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """Its middle falls onto a corner, an end, a crossing point."""
        at = self.centre()
        near = [point for point in points_near(page, others) if math.dist(point, at) <= 1.6 * reach]
        if not near:
            return None
        to = min(near, key=lambda point: math.dist(point, at))
        return Snap(to[0] - at[0], to[1] - at[1], _("on the vertex"), (to, self.placement.to_page(RADIUS, 0)))


def _has_point(page: Page, thing: Thing, at: Point) -> bool:
    return any(math.dist(point, at) <= ON for point in points_near(page, [thing]))


def reading(protractor: Protractor, page: Page) -> Reading | None:
    """The angle that lies at its middle: of the two arms the one nearest the base line is the first.

    Of several lines that meet there, those of the topmost figure with two arms count, else any two.
    """
    at = protractor.centre()
    base = protractor.placement.turn
    arms: list[float] = []
    for thing in reversed(page.things):
        own: list[float] = []
        if isinstance(thing, Instrument):
            continue
        for line in lines_near(page, [thing]):
            for near, far in ((line.a, line.b), (line.b, line.a)):
                if math.dist(near, at) <= ON:
                    own.append((direction(near, far) - base) % 360)
        if len(own) == 2:
            arms = own
            break
        arms += own
    arms = sorted({round(arm, 9) for arm in arms})
    if len(arms) < 2:
        return None
    if protractor.full:
        return Reading(arms[0], arms[1])
    level = [0.0 if arm > 360 - CLOSE else arm for arm in arms]
    upper = sorted(arm for arm in level if arm <= 180 + CLOSE)
    return Reading(upper[0], upper[1]) if len(upper) >= 2 else None
