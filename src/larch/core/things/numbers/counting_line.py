"""A line: what is dragged over it is counted, one by one, and said."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar

from larch.core.base.memo import once_a_page
from larch.core.base.number_words import in_words
from larch.core.base.shape import Box
from larch.core.base.words import N_, _
from larch.core.model.capabilities import Covers, IsInk, LooksAt, Speaks, WorksLocked
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

WIDE, HIGH = 760.0, 330.0
AT = 40.0  # where the line stands
FIGURE = 190.0  # room at the right for the number and its word


class CountingLine(LooksAt, Speaks, WorksLocked, Thing, frozen=True, kw_only=True, tag="counting line"):
    """width, height: of the room in which things are counted. aloud: it says each number. Raises ValueError where there is
    no room."""

    width: float = WIDE
    height: float = HIGH
    aloud: bool = True

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "separator-vertical"
    order: ClassVar[int] = 14
    help: ClassVar[str] = N_(
        "Drag things over the line one by one: those beyond it are counted, each with its number below it."
    )

    def __post_init__(self) -> None:
        if not (200 <= self.width <= 5000 and 100 <= self.height <= 5000):
            raise ValueError("a counting line has room beyond it")

    @classmethod
    def title(cls) -> str:
        return _("counting line")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("count line one by one touch how many animals tray")
        yield ShelfItem("counting line", _("counting line"), N_("Numbers"), cls, words)

    def extent(self) -> Box:
        return Box(0, 0, self.width, self.height)

    def touches(self, x: float, y: float, slack: float) -> bool:
        """By the line itself and by the number: all else is room."""
        number = Box(self.width - FIGURE, 0, self.width, self.height)
        return (abs(x - AT) <= 14 + slack and 0 <= y <= self.height) or number.grown(slack).holds(x, y)

    def stretched(self, across: float, down: float) -> Thing | None:
        wide, high = min(max(self.width * across, 200), 5000), min(max(self.height * down, 100), 5000)
        return self.replace(width=wide, height=high)  # type: ignore[no-any-return]

    @once_a_page
    def over(self, page: Page) -> list[Thing]:
        """What lies beyond the line, from left to right."""
        room = Box(AT, 0, self.width - FIGURE, self.height)
        found = []
        for thing in page.things:
            if thing.id == self.id or thing.hidden or thing.supply or thing.locked or isinstance(thing, IsInk | Covers):
                continue
            if isinstance(thing, CountingLine):
                continue
            if room.holds(*self.placement.to_local(*thing.box().centre)):
                found.append(thing)
        return sorted(found, key=lambda thing: thing.box().centre)

    def uses(self, page: Page) -> tuple[Thing, ...]:
        return tuple(self.over(page))

    def label(self, page: Page) -> str:
        return self.name or _("counting line: {n}").format(n=len(self.over(page)))

    def says(self, page: Page) -> str:
        count = len(self.over(page)) if self.aloud else 0
        return in_words(count) if count else ""

    def facts(self, page: Page) -> Iterator[Fact]:
        count = len(self.over(page))
        yield Fact("value", count, text=str(count), label=_("beyond the line"))
        ways = (("aloud", _("said aloud")), ("quiet", _("only shown")))
        value = "aloud" if self.aloud else "quiet"
        yield Fact("counting", value, "", dict(ways)[value], _("each number is"), "",
                   lambda typed: self.replace(aloud=typed == "aloud"), ways)  # fmt: skip
        yield Fact("words", in_words(count), text=in_words(count), label=_("in words"))
