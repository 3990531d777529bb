"""A bar of equal parts: all bars are equally long, so that they can be compared in a wall."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import ClassVar

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.model.capabilities import Snaps
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Snap, Thing
from larch.core.things.fractions.fraction_piece import HIGH as HIGH
from larch.core.things.fractions.fraction_piece import LONG as LONG
from larch.core.things.fractions.parted import Parted

WALL = (1, 2, 3, 4, 6, 8)


class FractionBar(Snaps, Parted, frozen=True, kw_only=True, tag="fraction bar"):
    """Wholes lie one behind the other."""

    icon: ClassVar[str] = "columns-3"
    order: ClassVar[int] = 15
    help: ClassVar[str] = N_(
        "Tap parts to take them. Bars fall edge to edge, so that equal fractions can be seen. A part can be cut in two and "
        "two put together: the amount stays. Parts can be taken out as loose pieces."
    )

    @classmethod
    def title(cls) -> str:
        return _("fraction bar")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("fraction strip bar part whole halves thirds quarters eighths wall compare")
        yield ShelfItem("fraction bar", _("fraction bar"), N_("Fractions"), cls, words)
        yield ShelfItem("fraction wall", _("wall of fractions"), N_("Fractions"), cls, words, several=wall)

    def extent(self) -> Box:
        return Box(0, 0, LONG * self.wholes, HIGH)

    def row_at(self, first: int) -> Placement:
        return Placement(0, HIGH + 12)

    def part_box(self, part: int) -> Box:
        wide = LONG / self.parts_count
        return Box(part * wide, 0, (part + 1) * wide, HIGH)

    def part_place(self, part: str) -> Point:
        return self.part_box(int(part)).centre

    def part_at(self, x: float, y: float, slack: float) -> str:
        if not -slack <= y <= HIGH + slack or not 0 <= x < LONG * self.wholes:
            return ""
        return str(min(int(x / (LONG / self.parts_count)), self.parts_count * self.wholes - 1))

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """Below or above another bar, left ends level: what is equally long is seen."""
        mine = self.box()
        for other in others:
            if not isinstance(other, FractionBar):
                continue
            theirs = other.box()
            for dy, y in ((theirs.y1 - mine.y0, theirs.y1), (theirs.y0 - mine.y1, theirs.y0)):
                for dx, x, why in ((theirs.x0 - mine.x0, theirs.x0, _("same start")), (theirs.x1 - mine.x0, theirs.x1, "")):
                    if abs(dx) <= reach and abs(dy) <= reach:
                        return Snap(dx, dy, why or _("edges meet"), ((x, y - HIGH), (x, y + HIGH)))
        return None


def wall() -> Sequence[Thing]:
    return [FractionBar(parts_count=n, placement=Placement(0, k * HIGH)) for k, n in enumerate(WALL)]
