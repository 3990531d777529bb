"""A line to order: numbers that were written or typed are put on it; each knows whether it stands right."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar, NamedTuple

from larch.core.base.memo import once_a_page
from larch.core.base.shape import Box
from larch.core.base.words import N_, _
from larch.core.model.capabilities import Counts, HasWords, HoldsOthers, LooksAt, WorksLocked
from larch.core.model.fact import Fact, read_number
from larch.core.model.holders import inside
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

HIGH, LINE = 150.0, 96.0  # of the room, and where the line lies in it
LEAST, MOST = 300.0, 4000.0


class Standing(NamedTuple):
    """One that stands on the line: its value, and whether it is among the most that are in order."""

    thing: Thing
    value: float
    right: bool


class OrderLine(HoldsOthers, LooksAt, WorksLocked, Thing, frozen=True, kw_only=True, tag="order line"):
    """long: of the line; falling: the greatest stands first. Raises ValueError for other lengths than can be seen."""

    long: float = 900.0
    falling: bool = False

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "list-ordered"
    order: ClassVar[int] = 15
    help: ClassVar[str] = N_(
        "Put numbers on the line, typed or as equipment that has a value: each shows whether it stands right."
    )

    def __post_init__(self) -> None:
        if not LEAST <= self.long <= MOST:
            raise ValueError("a line has a length")

    @classmethod
    def title(cls) -> str:
        return _("line to order")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("order sort compare numbers smallest largest line rising")
        yield ShelfItem("order line", _("line to order"), N_("Numbers"), cls, words)

    def extent(self) -> Box:
        return Box(0, 0, self.long, HIGH)

    def touches(self, x: float, y: float, slack: float) -> bool:
        return self.extent().grown(slack).holds(x, y) and y >= LINE - 20 - slack

    def stretched(self, across: float, down: float) -> Thing | None:
        return self.replace(long=min(max(self.long * across, LEAST), MOST))  # type: ignore[no-any-return]

    @once_a_page
    def standing(self, page: Page) -> list[Standing]:
        """What stands on it, from left to right. Right are those of a longest run in order: the fewest need to move."""
        found = []
        for thing in sorted(inside(page, self), key=lambda thing: thing.box().centre[0]):
            value = value_of(thing)
            if value is not None:
                found.append((thing, value))
        keep = longest_rising([-v if self.falling else v for _thing, v in found])
        return [Standing(thing, value, k in keep) for k, (thing, value) in enumerate(found)]

    def uses(self, page: Page) -> tuple[Thing, ...]:
        return tuple(inside(page, self))

    def label(self, page: Page) -> str:
        stand = self.standing(page)
        right = sum(one.right for one in stand)
        return self.name or _("line to order: {right} of {n} stand right").format(right=right, n=len(stand))

    def facts(self, page: Page) -> Iterator[Fact]:
        stand = self.standing(page)
        right = sum(one.right for one in stand)
        in_order = right == len(stand) and len(stand) > 1
        yield Fact("in order", in_order, text=_("yes") if in_order else _("no"), label=_("in order"))
        yield Fact("numbers", len(stand), text=str(len(stand)), label=_("numbers on it"))
        yield Fact("right", right, text=str(right), label=_("stand right"))
        values = "; ".join(f"{one.value:g}" for one in stand)
        yield Fact("order", values, text=values, label=_("as they stand"))
        ways = (("rising", _("the smallest first")), ("falling", _("the greatest first")))
        value = "falling" if self.falling else "rising"
        yield Fact("way", value, "", dict(ways)[value], _("way"), "",
                   lambda typed: self.replace(falling=typed == "falling"), ways)  # fmt: skip


def value_of(thing: Thing) -> float | None:
    """The number that a thing stands for: what is written on it, or what it counts for."""
    if isinstance(thing, HasWords):
        try:
            return read_number(thing.plain_text().strip()[:60])
        except ValueError:
            return None
    if isinstance(thing, Counts) and not thing.supply:
        worth = thing.worth()
        return None if worth is None else float(worth)
    return None


def longest_rising(values: list[float]) -> set[int]:
    """The places of a longest run that never falls (patience sorting; Schensted 1961)."""
    from bisect import bisect_right

    tails: list[float] = []
    ends: list[int] = []
    before: list[int] = []
    for k, value in enumerate(values):
        at = bisect_right(tails, value)
        before.append(ends[at - 1] if at else -1)
        if at == len(tails):
            tails.append(value)
            ends.append(k)
        else:
            tails[at], ends[at] = value, k
    found, k = set(), ends[-1] if ends else -1
    while k >= 0:
        found.add(k)
        k = before[k]
    return found
