"""Number rods: as long as they are worth, end to end."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import partial
from typing import ClassVar

from larch.core.base.hues import hue_of_number
from larch.core.base.shape import Box, Placement
from larch.core.base.words import N_, _
from larch.core.model.capabilities import Counts, Snaps
from larch.core.model.fact import Fact, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Snap, Thing

UNIT, HIGH = 42.0, 46.0
MOST = 20


class Rod(Counts, Snaps, Thing, frozen=True, kw_only=True, tag="rod"):
    """length: from 1 to 20; anything else raises ValueError."""

    length: int = 5
    hue: str = ""

    resizable: ClassVar[bool] = False
    icon: ClassVar[str] = "ruler"
    order: ClassVar[int] = 11
    help: ClassVar[str] = N_(
        "Lay rods end to end or below each other: what is equally long is seen. Their length can be typed."
    )

    def __post_init__(self) -> None:
        if not 1 <= self.length <= MOST:
            raise ValueError("a rod is 1 to 20 long")

    @classmethod
    def title(cls) -> str:
        return _("number rod")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("rod bar length number bonds add compare cuboid")
        yield ShelfItem("rod", _("number rod"), N_("Blocks"), cls, words)
        yield ShelfItem("rods", _("rods 1 to 10"), N_("Blocks"), partial(cls, length=10), words, several=stairs)

    def label(self, page: Page) -> str:
        return self.name or _("rod of {n}").format(n=self.length)

    def colour(self) -> str:
        return self.hue or hue_of_number(self.length)

    def extent(self) -> Box:
        return Box(0, 0, self.length * UNIT, HIGH)

    def worth(self) -> int:
        return self.length

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("value", self.length, text=str(self.length), label=_("length"),
                   set=lambda typed: self.replace(length=read_whole(typed, 1, MOST)))  # fmt: skip

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """End to end, or below or above with starts or ends level."""
        mine = self.box()
        best: tuple[float, Snap] | None = None
        for other in others:
            if not isinstance(other, Rod):
                continue
            theirs = other.box()
            beside = [
                (theirs.x1 - mine.x0, theirs.y0 - mine.y0, theirs.x1),
                (theirs.x0 - mine.x1, theirs.y0 - mine.y0, theirs.x0),
            ]
            rows = [theirs.y1 - mine.y0, theirs.y0 - mine.y1]
            level = [
                (dx, dy, x) for dy in rows for dx, x in ((theirs.x0 - mine.x0, theirs.x0), (theirs.x1 - mine.x1, theirs.x1))
            ]
            for number, (dx, dy, x) in enumerate([*beside, *level]):
                away = max(abs(dx), abs(dy))
                if away <= reach and (best is None or away < best[0]):
                    same = number >= len(beside) and self.length == other.length
                    why = _("edges meet") if number < len(beside) else _("same length") if same else _("level")
                    line = ((x, min(mine.y0 + dy, theirs.y0)), (x, max(mine.y1 + dy, theirs.y1)))
                    best = (away, Snap(dx, dy, why, line))
        return best[1] if best else None


def stairs() -> Sequence[Thing]:
    return [Rod(length=n, placement=Placement(0, (n - 1) * HIGH)) for n in range(1, 11)]
