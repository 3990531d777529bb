"""Several dice thrown together: the sum of each throw is counted, beside how theory shares sums out."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from functools import lru_cache
from typing import TYPE_CHECKING, ClassVar

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, set_all
from larch.core.model.capabilities import Counts, Tappable
from larch.core.model.chance import chance, drawn
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, number_text, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

if TYPE_CHECKING:
    from numpy.random import Generator

MOST_DICE, MOST_FACES = 6, 20
SIDE, BAR, TALL = 72.0, 40.0, 190.0
HEAD, FOOT = 104.0, 92.0
LEAST_WIDE = 440.0


@lru_cache(64)
def ways(dice: int, faces: int) -> tuple[int, ...]:
    """In how many ways each sum comes, from the least sum on: the coefficients of (x + … + x^faces)^dice."""
    found = [1]
    for _die in range(dice):
        after = [0] * (len(found) + faces - 1)
        for k, count in enumerate(found):
            for face in range(faces):
                after[k + face] += count
        found = after
    return tuple(found)


class DiceSum(Counts, Tappable, Thing, frozen=True, kw_only=True, tag="dice sum"):
    """count: of dice; faces: of each. values: of the last throw. tally: how often each sum came, from the least. Raises
    ValueError where these don't fit."""

    count: int = 2
    faces: int = 6
    values: tuple[int, ...] = ()
    tally: tuple[int, ...] = ()
    hue: str = "clay"

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "dices"
    order: ClassVar[int] = 21
    help: ClassVar[str] = N_("Tap to throw all the dice. The sums are counted as bars, beside what theory expects of each.")

    def __post_init__(self) -> None:
        if not 1 <= self.count <= MOST_DICE or not 2 <= self.faces <= MOST_FACES:
            raise ValueError("some dice are thrown together")
        if self.values and (len(self.values) != self.count or not all(1 <= v <= self.faces for v in self.values)):
            raise ValueError("each die shows one of its faces")
        if self.tally and (len(self.tally) != self.sums() or any(not 0 <= n <= 10**15 for n in self.tally)):
            raise ValueError("a tally counts each sum")

    @classmethod
    def title(cls) -> str:
        return _("sum of dice")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("dice sum total two dice distribution probability chance throw")
        yield ShelfItem("dice sum", _("sum of two dice"), N_("Chance"), cls, words)

    def label(self, page: Page) -> str:
        return self.name or _("{n} dice, sum {sum}").format(n=self.count, sum=sum(self.values) if self.values else "—")

    def sums(self) -> int:
        """How many different sums there are."""
        return self.count * (self.faces - 1) + 1

    def bar(self) -> float:
        """How wide the bar of a sum is."""
        return min(BAR, 900.0 / self.sums())

    def extent(self) -> Box:
        return Box(0, 0, max(LEAST_WIDE, self.sums() * self.bar(), self.count * (SIDE + 12)), HEAD + TALL + FOOT)

    def counts(self) -> tuple[int, ...]:
        return self.tally or (0,) * self.sums()

    def worth(self) -> int | None:
        return sum(self.values) if self.values else None

    def facts(self, page: Page) -> Iterator[Fact]:
        value = sum(self.values) if self.values else None
        yield Fact("value", value, text="—" if value is None else str(value), label=_("sum"))
        shown = " + ".join(map(str, self.values))
        yield Fact("dice shown", shown or None, text=shown or "—", label=_("dice show"))
        yield Fact("dice", self.count, text=str(self.count), label=_("dice"), set=self._set_count)
        yield Fact("faces", self.faces, text=str(self.faces), label=_("faces of each"), set=self._set_faces)
        rolls = sum(self.counts())
        yield Fact("rolls", rolls, text=str(rolls), label=_("throws"))
        if rolls:
            total = sum((self.count + k) * n for k, n in enumerate(self.counts()))
            yield Fact("mean", total / rolls, text=number_text(total / rolls, 2), label=_("mean"))
        whole = self.faces**self.count
        for k, (n, number) in enumerate(zip(self.counts(), ways(self.count, self.faces), strict=True), self.count):
            yield Fact(f"came up {k}", n, text=str(n), label=_("came up {face}").format(face=k))
            text = str(Fraction(number, whole))
            yield Fact(f"chance {k}", text, text=text, label=_("chance of {name}").format(name=k))

    def _set_count(self, typed: str) -> Thing:
        return self.replace(count=read_whole(typed, 1, MOST_DICE), values=(), tally=())  # type: ignore[no-any-return]

    def _set_faces(self, typed: str) -> Thing:
        return self.replace(faces=read_whole(typed, 2, MOST_FACES), values=(), tally=())  # type: ignore[no-any-return]

    def thrown(self, rng: Generator, times: int = 1) -> DiceSum:
        """After some throws; the last is seen."""
        import numpy as np

        dice = rng.integers(1, self.faces + 1, (times, self.count))
        more = np.bincount(dice.sum(axis=1) - self.count, minlength=self.sums()).tolist()
        tally = tuple(map(sum, zip(self.counts(), more, strict=True)))
        return self.replace(values=tuple(dice[-1].tolist()), tally=tally)  # type: ignore[no-any-return]

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS

    def tap_action(self, at: Point) -> str:
        return "throw"


def _throw(page: Page, things: Things, times: int) -> Edit:
    rng = chance(page)
    thrown = {t.id: t.thrown(rng, times) for t in things if isinstance(t, DiceSum)}
    return Edit(_("Throw"), page, drawn(page).with_things(thrown))


def _clear(page: Page, things: Things) -> Edit:
    return set_all(page, things, _("Clear the tally"), values=(), tally=())


ACTIONS = (
    Action("throw", lambda p, ts: _("throw"), "dices", lambda p, ts: _throw(p, ts, 1), only(DiceSum), shortcut="R", rank=5,
           board=True, words=N_("roll random")),
    Action("throw often", lambda p, ts: _("a thousand times"), "refresh-cw", lambda p, ts: _throw(p, ts, 1000),
           only(DiceSum), rank=6, board=True, words=N_("many trials simulate")),
    Action("clear sums", lambda p, ts: _("clear the tally"), "brush-cleaning", _clear,
           lambda p, ts: only(DiceSum)(p, ts) and any(getattr(t, "tally", ()) for t in ts), rank=7, words=N_("reset")),
)  # fmt: skip
