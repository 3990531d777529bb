"""Random numbers: some at a time, from one whole number to another, alike or all different."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import TYPE_CHECKING, ClassVar

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only
from larch.core.model.capabilities import Tappable
from larch.core.model.chance import chance, drawn
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

if TYPE_CHECKING:
    from numpy.random import Generator

WIDE, HIGH, GAP = 120.0, 96.0, 12.0
ACROSS = 6
FAR, MOST = 1_000_000, 30


class RandomNumbers(Tappable, Thing, frozen=True, kw_only=True, tag="random numbers"):
    """low, high: between which they lie, both among them. count: how many at a time. different: none comes twice at a time.
    values: the last. times: how often they were drawn. Raises ValueError where these don't fit."""

    low: int = 1
    high: int = 100
    count: int = 1
    different: bool = False
    values: tuple[int, ...] = ()
    times: int = 0
    hue: str = "plum"

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "hash"
    order: ClassVar[int] = 23
    help: ClassVar[str] = N_("Tap to draw numbers by chance. Type from where to where, how many, and whether they differ.")

    def __post_init__(self) -> None:
        if not -FAR <= self.low < self.high <= FAR or not 1 <= self.count <= MOST or not 0 <= self.times <= 10**15:
            raise ValueError("numbers are drawn from a range")
        if self.different and self.count > self.high - self.low + 1:
            raise ValueError("there are not so many different ones")
        if self.values and (len(self.values) != self.count or not all(self.low <= v <= self.high for v in self.values)):
            raise ValueError("what was drawn lies in the range")

    @classmethod
    def title(cls) -> str:
        return _("random numbers")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("random number generator chance draw lottery")
        yield ShelfItem("random numbers", _("random numbers"), N_("Chance"), cls, words)
        several = partial(cls, count=6, different=True, high=49)
        yield ShelfItem("random numbers, six", _("six different numbers"), N_("Chance"), several, words)

    def label(self, page: Page) -> str:
        return self.name or _("random numbers: {numbers}").format(numbers=self.text() or "—")

    def text(self) -> str:
        return "; ".join(map(str, self.values))

    def place(self, k: int) -> Box:
        x, y = k % ACROSS * (WIDE + GAP), k // ACROSS * (HIGH + GAP)
        return Box(x, y, x + WIDE, y + HIGH)

    def extent(self) -> Box:
        last = self.place(self.count - 1)
        return Box(0, 0, self.place(min(self.count, ACROSS) - 1).x1, last.y1)

    def facts(self, page: Page) -> Iterator[Fact]:
        single = self.values[0] if len(self.values) == 1 else None
        shown = self.text()
        yield Fact("value", single if single is not None else shown or None, text=shown or "—", label=_("drawn"))
        yield Fact("times", self.times, text=str(self.times), label=_("times drawn"))
        yield Fact("from", self.low, text=str(self.low), label=_("from"), set=partial(self._set, "low", -FAR, FAR))
        yield Fact("to", self.high, text=str(self.high), label=_("to"), set=partial(self._set, "high", -FAR, FAR))
        yield Fact("count", self.count, text=str(self.count), label=_("at a time"), set=partial(self._set, "count", 1, MOST))
        ways = (("any", _("may come twice")), ("different", _("all different")))
        value = "different" if self.different else "any"
        yield Fact("alike", value, "", dict(ways)[value], _("numbers"), "", self._set_alike, ways)

    def _changed(self, **changes: object) -> Thing:
        try:
            return self.replace(values=(), **changes)  # type: ignore[no-any-return]
        except ValueError as error:
            raise ValueError(_("There are not so many numbers from the one to the other.")) from error

    def _set(self, field: str, low: int, high: int, typed: str) -> Thing:
        return self._changed(**{field: read_whole(typed, low, high)})

    def _set_alike(self, typed: str) -> Thing:
        return self._changed(different=typed == "different")

    def redrawn(self, rng: Generator) -> RandomNumbers:
        if self.different:
            span = self.high - self.low + 1
            found = [self.low + k for k in rng.choice(span, self.count, replace=False).tolist()]
        else:
            found = rng.integers(self.low, self.high + 1, self.count).tolist()
        return self.replace(values=tuple(map(int, found)), times=self.times + 1)  # type: ignore[no-any-return]

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS

    def tap_action(self, at: Point) -> str:
        return "draw numbers"


def _draw(page: Page, things: Things) -> Edit:
    rng = chance(page)
    after = {t.id: t.redrawn(rng) for t in things if isinstance(t, RandomNumbers)}
    return Edit(_("Draw numbers"), page, drawn(page).with_things(after))


ACTIONS = (
    Action("draw numbers", lambda p, ts: _("draw"), "dices", _draw, only(RandomNumbers), shortcut="R", rank=5, board=True,
           words=N_("random new number")),
)  # fmt: skip
