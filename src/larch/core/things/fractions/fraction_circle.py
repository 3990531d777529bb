"""A circle of equal parts, the first at the top, clockwise."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.model.thing import ShelfItem
from larch.core.things.fractions.fraction_piece import RADIUS as RADIUS
from larch.core.things.fractions.parted import Parted

RING = 34.0  # round it, for the marks and numbers of a hundred
ACROSS = 2 * (RADIUS + RING)
BETWEEN = 12.0


class FractionCircle(Parted, frozen=True, kw_only=True, tag="fraction circle"):
    """Wholes lie side by side."""

    icon: ClassVar[str] = "chart-pie"
    order: ClassVar[int] = 16
    help: ClassVar[str] = N_(
        "Tap parts to take them. Named in percent, it has a ring of a hundred marks. A part can be cut in two and two put "
        "together: the amount stays."
    )

    @classmethod
    def title(cls) -> str:
        return _("fraction circle")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("fraction circle pie part whole halves thirds quarters percent")
        yield ShelfItem("fraction circle", _("fraction circle"), N_("Fractions"), cls, words)

    def extent(self) -> Box:
        return Box(0, 0, self.wholes * ACROSS + (self.wholes - 1) * BETWEEN, ACROSS)

    def middle(self, whole: int) -> Point:
        return (whole * (ACROSS + BETWEEN) + ACROSS / 2, ACROSS / 2)

    def middles(self) -> list[Point]:
        return [self.middle(whole) for whole in range(self.wholes)]

    def part_lines(self) -> list[float]:
        return [k / self.parts_count for k in range(self.parts_count)]

    def row_at(self, first: int) -> Placement:
        return Placement(*self.middle(self.wholes))

    def part_place(self, part: str) -> Point:
        whole, k = divmod(int(part), self.parts_count)
        angle = math.tau * (k + 0.5) / self.parts_count
        x, y = self.middle(whole)
        away = 0.0 if self.parts_count == 1 else 0.6 * RADIUS
        return (x + away * math.sin(angle), y - away * math.cos(angle))

    def part_at(self, x: float, y: float, slack: float) -> str:
        for whole in range(self.wholes):
            cx, cy = self.middle(whole)
            if math.dist((x, y), (cx, cy)) <= RADIUS + slack:
                turn = math.atan2(x - cx, cy - y) % math.tau
                return str(whole * self.parts_count + min(int(turn / math.tau * self.parts_count), self.parts_count - 1))
        return ""
