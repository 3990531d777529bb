"""Dice that keep a tally."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import TYPE_CHECKING, ClassVar

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, set_all, toggle_shown
from larch.core.model.capabilities import Counts, Tappable
from larch.core.model.chance import chance, drawn
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, measure, read_number, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

if TYPE_CHECKING:
    from numpy.random import Generator

SIDE = 84.0
LEAST, MOST = 2, 20  # faces


class Die(Counts, Tappable, Thing, frozen=True, kw_only=True, tag="die"):
    """A fair die: its upper face, and how often each face came up so far (lowest first).

    Raises ValueError for a face it does not have or a tally that does not fit.
    """

    faces: int = 6
    value: int = 1
    tally: tuple[int, ...] = ()
    hue: str = "berry"

    icon: ClassVar[str] = "dices"
    order: ClassVar[int] = 20
    help: ClassVar[str] = N_("Tap it at the Board to roll; at the Desk double-click it or press R. It keeps a tally.")

    def __post_init__(self) -> None:
        if not LEAST <= self.faces <= MOST or not 1 <= self.value <= self.faces:
            raise ValueError("a die shows one of its faces")
        if self.tally and (len(self.tally) != self.faces or any(not 0 <= n <= 10**12 for n in self.tally)):
            raise ValueError("a tally counts each face of its die")

    @classmethod
    def title(cls) -> str:
        return _("die")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("dice roll chance random probability game")
        yield ShelfItem("die", _("die"), N_("Chance"), cls, words)
        for faces in (4, 8, 10, 12, 20):
            label = _("die of {n}").format(n=faces)
            yield ShelfItem(f"die {faces}", label, N_("Chance"), partial(cls, faces=faces, hue="plum"), words)

    def label(self, page: Page) -> str:
        return self.name or (_("die") if self.faces == 6 else _("die of {n}").format(n=self.faces))

    def extent(self) -> Box:
        return Box(0, 0, SIDE, SIDE)

    def worth(self) -> int | None:
        return self.value

    def counts(self) -> tuple[int, ...]:
        return self.tally or (0,) * self.faces

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("value", self.value, text=str(self.value), label=_("shows"), set=self._set_value)
        yield Fact("faces", self.faces, text=str(self.faces), label=_("faces"), set=self._set_faces)
        rolls = sum(self.counts())
        yield Fact("rolls", rolls, text=str(rolls), label=_("rolls"))
        for face, count in enumerate(self.counts(), 1):
            yield Fact(f"came up {face}", count, text=str(count), label=_("came up {face}").format(face=face))
        if rolls:
            yield measure("expected", rolls / self.faces, "", _("expected for each"), 2)

    def _set_value(self, typed: str) -> Thing:
        value = read_number(typed)
        if value not in range(1, self.faces + 1):
            raise ValueError(_("This die shows 1 to {n}.").format(n=self.faces))
        changed: Thing = self.replace(value=int(value))
        return changed

    def _set_faces(self, typed: str) -> Thing:
        return self.replace(faces=read_whole(typed, LEAST, MOST), value=1, tally=())  # type: ignore[no-any-return]

    def rolled(self, rng: Generator) -> Die:
        """After one roll with the given source of chance."""
        value = int(rng.integers(1, self.faces + 1))
        tally = tuple(n + (face == value) for face, n in enumerate(self.counts(), 1))
        changed: Die = self.replace(value=value, tally=tally)
        return changed

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS

    def tap_action(self, at: Point) -> str:
        return "roll"


def roll(page: Page, things: Things) -> Edit:
    """Rolls all selected dice at once."""
    rng = chance(page)
    rolled = {die.id: die.rolled(rng) for die in things if isinstance(die, Die)}
    return Edit(_("Roll"), page, drawn(page).with_things(rolled))


def roll_often(page: Page, things: Things) -> Edit:
    """A thousand rolls of each, counted at once; the last is seen."""
    rng = chance(page)
    changed: dict[str, Thing] = {}
    for die in things:
        if isinstance(die, Die):
            more = rng.multinomial(999, [1 / die.faces] * die.faces).tolist()
            changed[die.id] = die.replace(tally=tuple(map(sum, zip(die.counts(), more, strict=True)))).rolled(rng)
    return Edit(_("Roll a thousand times"), page, drawn(page).with_things(changed))


def clear_tally(page: Page, things: Things) -> Edit:
    return set_all(page, things, _("Clear the tally"), tally=())


ACTIONS = (
    Action("roll", lambda p, ts: _("roll"), "dices", roll, only(Die), shortcut="R", rank=5, board=True,
           words=N_("throw dice random")),
    Action("roll often", lambda p, ts: _("a thousand times"), "refresh-cw", roll_often, only(Die), rank=56, board=True,
           words=N_("many trials simulate")),
    Action("tally", lambda p, ts: _("hide tally") if all("tally" in t.shown for t in ts) else _("show tally"), "list",
           lambda p, ts: toggle_shown(p, ts, "tally", _("Show or hide the tally")), only(Die), rank=6,
           board=True, words=N_("count record results")),
    Action("clear tally", lambda p, ts: _("clear the tally"), "brush-cleaning", clear_tally,
           lambda p, ts: only(Die)(p, ts) and any(getattr(t, "tally", ()) for t in ts), rank=7, words=N_("reset")),
)  # fmt: skip
