"""Coins: one or a thousand, tossed together; they keep count of heads."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import TYPE_CHECKING, ClassVar

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, set_all
from larch.core.model.capabilities import HasLabels, Tappable
from larch.core.model.chance import chance, drawn
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, measure, number_text, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

if TYPE_CHECKING:
    from numpy.random import Generator

STEP = 34.0  # from coin to coin, page units; a coin is 28 across
MOST = 1000
FOOT = 96.0  # below the coins: the strip and what came of it
LEAST_WIDE = 300.0


class Coins(HasLabels, Tappable, Thing, frozen=True, kw_only=True, tag="coins"):
    """count: how many are tossed at once. up: how they lie, "h" or "t" each, in order of tossing. tosses, heads: of all so
    far. Raises ValueError where these don't fit."""

    count: int = 10
    up: str = ""
    tosses: int = 0
    heads: int = 0
    hue: str = "straw"

    icon: ClassVar[str] = "circle-dot"
    order: ClassVar[int] = 21
    help: ClassVar[str] = N_("Tap to toss them all. They lie in the order of tossing and keep count of heads and tails.")

    def __post_init__(self) -> None:
        if not 1 <= self.count <= MOST or not 0 <= self.heads <= self.tosses <= 10**15:
            raise ValueError("coins are counted")
        if (self.up and len(self.up) != self.count) or not set(self.up) <= {"h", "t"}:
            raise ValueError("each coin shows heads or tails")

    @classmethod
    def title(cls) -> str:
        return _("coins")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("coin toss flip heads tails chance probability")
        yield ShelfItem("coins", _("coins"), N_("Chance"), cls, words)
        yield ShelfItem("coins 100", _("a hundred coins"), N_("Chance"), lambda: cls(count=100), words)
        yield ShelfItem("coin", _("one coin"), N_("Chance"), lambda: cls(count=1), words)

    def label(self, page: Page) -> str:
        return self.name or _("{n} coins, {heads} heads").format(n=self.count, heads=self.up.count("h"))

    def across(self) -> int:
        """Coins in a row."""
        return min(self.count, max(10, math.ceil(math.sqrt(self.count))))

    def coins_box(self) -> Box:
        wide = self.across() * STEP
        left = (max(LEAST_WIDE, wide) - wide) / 2
        return Box(left, 0, left + wide, math.ceil(self.count / self.across()) * STEP)

    def extent(self) -> Box:
        box = self.coins_box()
        return Box(0, 0, max(LEAST_WIDE, box.width), box.y1 + FOOT)

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("count", self.count, text=str(self.count), label=_("coins"), set=self._set_count)
        now = self.up.count("h")
        yield Fact("heads now", now if self.up else None, text=str(now) if self.up else "—", label=_("heads now"))
        yield Fact("tosses", self.tosses, text=str(self.tosses), label=_("tosses so far"))
        yield Fact("heads", self.heads, text=str(self.heads), label=_("heads so far"))
        yield Fact("tails", self.tosses - self.heads, text=str(self.tosses - self.heads), label=_("tails so far"))
        if self.tosses:
            share = 100 * self.heads / self.tosses
            yield Fact("percent", share, "%", f"{number_text(share, 2)} %", _("heads in percent"))
            yield measure("expected", self.tosses / 2, "", _("expected by theory"), 1)

    def _set_count(self, typed: str) -> Thing:
        return self.replace(count=read_whole(typed, 1, MOST), up="")  # type: ignore[no-any-return]

    def tossed(self, rng: Generator) -> Coins:
        """After all were tossed once with the given source of chance."""
        faces = rng.integers(0, 2, self.count)
        up = "".join("h" if face else "t" for face in faces.tolist())
        return self.replace(up=up, tosses=self.tosses + self.count, heads=self.heads + up.count("h"))  # type: ignore[no-any-return]

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS

    def tap_action(self, at: Point) -> str:
        return "toss"


def toss(page: Page, things: Things) -> Edit:
    rng = chance(page)
    tossed = {coins.id: coins.tossed(rng) for coins in things if isinstance(coins, Coins)}
    return Edit(_("Toss"), page, drawn(page).with_things(tossed))


def toss_often(page: Page, things: Things) -> Edit:
    """A thousand tosses of all at once; how the last lie is shown."""
    rng = chance(page)
    changed = {}
    for coins in things:
        if isinstance(coins, Coins):
            more = 999 * coins.count
            heads = int(rng.binomial(more, 0.5))
            changed[coins.id] = coins.replace(tosses=coins.tosses + more, heads=coins.heads + heads).tossed(rng)
    return Edit(_("Toss a thousand times"), page, drawn(page).with_things(changed))


def clear(page: Page, things: Things) -> Edit:
    return set_all(page, things, _("Clear the tally"), up="", tosses=0, heads=0)


ACTIONS = (
    Action("toss", lambda p, ts: _("toss"), "dices", toss, only(Coins), shortcut="R", rank=5, board=True,
           words=N_("throw flip random")),
    Action("toss often", lambda p, ts: _("a thousand times"), "refresh-cw", toss_often, only(Coins), rank=6, board=True,
           words=N_("many trials simulate")),
    Action("clear coins", lambda p, ts: _("clear the tally"), "brush-cleaning", clear,
           lambda p, ts: only(Coins)(p, ts) and any(getattr(t, "tosses", 0) for t in ts), rank=7, words=N_("reset")),
)  # fmt: skip
