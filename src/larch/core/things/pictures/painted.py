"""A painted region: the shape that Paint filled between lines. It lies behind them and knows its area."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar

from larch.core.base.shape import FARTHEST, Box, Point, box_of
from larch.core.base.words import N_, _
from larch.core.maths import geometry
from larch.core.model.fact import Fact, measure
from larch.core.model.page import Page
from larch.core.model.thing import Thing

MOST_POINTS = 20_000


class Painted(Thing, frozen=True, kw_only=True, tag="painted"):
    """rings: the outline and the holes in it, in its own coordinates; what is inside an odd number of them is filled.

    strength: how much of the hue is laid down, from 0 to 1. Raises ValueError for rings that are none.
    """

    rings: tuple[tuple[Point, ...], ...] = (((0.0, 0.0), (64.0, 0.0), (64.0, 64.0)),)
    strength: float = 0.45
    hue: str = "straw"

    icon: ClassVar[str] = "paint-bucket"
    help: ClassVar[str] = N_(
        "Paint fills what lines enclose, and bridges small gaps. Where a region is open, it shows the gap instead."
    )

    def __post_init__(self) -> None:
        if not self.rings or any(len(ring) < 3 for ring in self.rings):
            raise ValueError("a painted region must have an outline")
        if sum(map(len, self.rings)) > MOST_POINTS:
            raise ValueError(f"a painted region has at most {MOST_POINTS} points")
        if not all(abs(v) <= FARTHEST for ring in self.rings for point in ring for v in point):
            raise ValueError("a painted region must lie on the page")
        if not 0 <= self.strength <= 1:
            raise ValueError("a strength lies between 0 and 1")

    @classmethod
    def title(cls) -> str:
        return _("painted region")

    def extent(self) -> Box:
        return box_of(point for ring in self.rings for point in ring)

    def touches(self, x: float, y: float, slack: float) -> bool:
        return sum(geometry.inside(ring, x, y) for ring in self.rings) % 2 == 1

    def area(self) -> float:
        """In its own units: the largest ring less those inside it."""
        areas = sorted((geometry.area(ring) for ring in self.rings), reverse=True)
        return areas[0] - sum(areas[1:])

    def facts(self, page: Page) -> Iterator[Fact]:
        cm = self.placement.scale / page.unit
        yield measure("area", self.area() * cm * cm, "cm²", _("area"))
        yield measure("outline", sum(geometry.perimeter(ring) for ring in self.rings) * cm, "cm", _("outline"))
