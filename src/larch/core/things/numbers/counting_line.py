"""A line: what is dragged over it is counted, one by one, and said."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import ClassVar

from larch.core.base.memo import once_a_page
from larch.core.base.number_words import in_words
from larch.core.base.shape import Box
from larch.core.base.words import N_, _
from larch.core.model.capabilities import Covers, HasLabels, IsInk, LooksAt, Speaks, WorksLocked
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

WIDE, HIGH = 760.0, 330.0
AT = 40.0  # where the line stands
FORMS = (("line", N_("a line")), ("tray", N_("a tray")), ("ring", N_("a ring")))
FIGURE = 190.0  # room at the right for the number and its word


class CountingLine(HasLabels, LooksAt, Speaks, WorksLocked, Thing, frozen=True, kw_only=True, tag="counting line"):
    """width, height: of the room in which things are counted. aloud: it says each number. Raises ValueError where there is
    no room."""

    width: float = WIDE
    height: float = HIGH
    aloud: bool = True
    form: str = "line"

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "separator-vertical"
    order: ClassVar[int] = 14
    help: ClassVar[str] = N_(
        "Drag things over the line one by one: those beyond it are counted, each with its number below it."
    )

    def __post_init__(self) -> None:
        if not (200 <= self.width <= 5000 and 100 <= self.height <= 5000):
            raise ValueError("a counting line has room beyond it")
        if self.form not in dict(FORMS):
            raise ValueError("it is a line, a tray or a ring")

    @classmethod
    def title(cls) -> str:
        return _("counting line")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("count line one by one touch how many animals tray")
        yield ShelfItem("counting line", _("counting line"), N_("Numbers"), cls, words)
        yield ShelfItem("counting tray", _("counting tray"), N_("Numbers"), partial(cls, form="tray"), words)
        yield ShelfItem("counting ring", _("counting ring"), N_("Numbers"), partial(cls, form="ring"), words)

    def extent(self) -> Box:
        return Box(0, 0, self.width, self.height)

    def touches(self, x: float, y: float, slack: float) -> bool:
        """By the line itself and by the number: all else is room."""
        number = Box(self.width - FIGURE, 0, self.width, self.height)
        if self.form != "line":
            rim = self.room()
            on_rim = rim.grown(12 + slack).holds(x, y) and not rim.grown(-12).holds(x, y)
            return on_rim or number.grown(slack).holds(x, y)
        return (abs(x - AT) <= 14 + slack and 0 <= y <= self.height) or number.grown(slack).holds(x, y)

    def stretched(self, across: float, down: float) -> Thing | None:
        wide, high = min(max(self.width * across, 200), 5000), min(max(self.height * down, 100), 5000)
        return self.replace(width=wide, height=high)  # type: ignore[no-any-return]

    def room(self) -> Box:
        """Where things are counted, in its own coordinates."""
        if self.form == "line":
            return Box(AT, 0, self.width - FIGURE, self.height)
        return Box(4, 4, self.width - FIGURE, self.height - 4)

    def holds(self, x: float, y: float) -> bool:
        """Whether a place of its own coordinates is where things are counted."""
        room = self.room()
        if self.form != "ring":
            return room.holds(x, y)
        cx, cy = room.centre
        return ((x - cx) / (room.width / 2)) ** 2 + ((y - cy) / (room.height / 2)) ** 2 <= 1

    @once_a_page
    def over(self, page: Page) -> list[Thing]:
        """What lies beyond the line, from left to right."""
        found = []
        for thing in page.things:
            if thing.id == self.id or thing.hidden or thing.supply or thing.locked or isinstance(thing, IsInk | Covers):
                continue
            if isinstance(thing, CountingLine):
                continue
            if self.holds(*self.placement.to_local(*thing.box().centre)):
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
        yield Fact("value", count, text=str(count), label=_("counted"))
        forms = tuple((name, _(words)) for name, words in FORMS)
        yield Fact("form", self.form, "", dict(forms)[self.form], _("it is"), "",
                   lambda typed: self.replace(form=typed if typed in dict(FORMS) else "line"), forms)  # fmt: skip
        ways = (("aloud", _("said aloud")), ("quiet", _("only shown")))
        value = "aloud" if self.aloud else "quiet"
        yield Fact("counting", value, "", dict(ways)[value], _("each number is"), "",
                   lambda typed: self.replace(aloud=typed == "aloud"), ways)  # fmt: skip
        yield Fact("words", in_words(count), text=in_words(count), label=_("in words"))
