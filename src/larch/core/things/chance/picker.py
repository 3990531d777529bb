"""A picker of names: fair, since nobody comes again until all have had a turn; and groups by chance."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import ClassVar

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, set_all
from larch.core.model.capabilities import HasWords, Tappable
from larch.core.model.chance import chance, drawn
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_names, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

WIDE, HEAD, LINE = 420.0, 110.0, 36.0
MOST, LONGEST = 60, 24
EXAMPLE = "Ilvo; Masha; Tarek; Oda; Pell; Yun"  # of River Lantern Night


class Picker(HasWords, Tappable, Thing, frozen=True, kw_only=True, tag="picker"):
    """names: of all; had: numbers of those who have had their turn in this round, in order. groups_of: how many groups they
    are parted into, 0 for none; dealt: the group of each. Raises ValueError where these don't fit."""

    names: tuple[str, ...] = tuple(EXAMPLE.split("; "))
    had: tuple[int, ...] = ()
    groups_of: int = 0
    dealt: tuple[int, ...] = ()

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "hand"
    order: ClassVar[int] = 24
    help: ClassVar[str] = N_(
        "Tap to pick a name: nobody comes again until all have had a turn. Type the names. It also deals them into groups."
    )

    def __post_init__(self) -> None:
        if not 1 <= len(self.names) <= MOST or not all(0 < len(name) <= LONGEST for name in self.names):
            raise ValueError("names are picked from")
        if len(set(self.had)) != len(self.had) or not all(0 <= k < len(self.names) for k in self.had):
            raise ValueError("each has one turn in a round")
        if not 0 <= self.groups_of <= len(self.names) or len(self.dealt) not in (0, len(self.names)):
            raise ValueError("each is in one group")
        if not all(0 <= group < max(1, self.groups_of) for group in self.dealt):
            raise ValueError("there are only so many groups")

    @classmethod
    def title(cls) -> str:
        return _("picker of names")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("names pick fair random pupil turn groups teams deal")
        yield ShelfItem("picker", _("picker of names"), N_("Chance"), cls, words)
        own = partial(cls, names=("+5", "+2", "−1", "×2", "=", "0"))
        more = _("cards deck own draw shuffle without replacement game")
        yield ShelfItem("own cards", _("cards of your own"), N_("Chance"), own, more)

    def current(self) -> str:
        return self.names[self.had[-1]] if self.had else ""

    def label(self, page: Page) -> str:
        return self.name or _("picker: {name}").format(name=self.current() or _("nobody yet"))

    def plain_text(self) -> str:
        return "; ".join(self.names)

    def parties(self) -> list[list[str]]:
        if not self.dealt:
            return []
        return [[n for n, g in zip(self.names, self.dealt, strict=True) if g == k] for k in range(self.groups_of)]

    def rows(self) -> list[str]:
        """What stands below the name: the groups, or who still comes."""
        if self.dealt:
            return [f"{k}: {', '.join(group)}" for k, group in enumerate(self.parties(), 1)]
        return [_("{n} still to come").format(n=len(self.names) - len(self.had))]

    def extent(self) -> Box:
        return Box(0, 0, WIDE, HEAD + LINE * len(self.rows()) + 14)

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("value", self.current() or None, text=self.current() or "—", label=_("picked"))
        had, all_ = len(self.had), len(self.names)
        yield Fact("had", had, text=str(had), label=_("had a turn in this round"))
        yield Fact("left", all_ - had, text=str(all_ - had), label=_("still to come"))
        yield Fact("names", self.plain_text(), text=self.plain_text(), label=_("names"), set=self._set_names)
        count = self.groups_of
        yield Fact("groups", count, text=str(count), label=_("groups"),
                   set=lambda typed: self.replace(groups_of=read_whole(typed, 0, len(self.names)), dealt=()))  # fmt: skip

    def _set_names(self, typed: str) -> Thing:
        names = tuple(name for name in read_names(typed, LONGEST + 1) if name)
        if not 1 <= len(names) <= MOST or any(len(name) > LONGEST for name in names):
            raise ValueError(_("Write 1 to {n} names, parted by semicolons.").format(n=MOST))
        return self.replace(names=names, had=(), dealt=(), groups_of=min(self.groups_of, len(names)))  # type: ignore[no-any-return]

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS

    def tap_action(self, at: Point) -> str:
        return "pick"


def pick(page: Page, things: Things) -> Edit:
    """One who has not had a turn; when all have, a new round begins, and not with the same one again."""
    rng = chance(page)
    changed: dict[str, Thing] = {}
    for picker in things:
        if not isinstance(picker, Picker):
            continue
        had = picker.had if len(picker.had) < len(picker.names) else ()
        last = picker.had[-1:] if not had and len(picker.names) > 1 else ()
        waiting = [k for k in range(len(picker.names)) if k not in had and k not in last]
        changed[picker.id] = picker.replace(had=(*had, waiting[int(rng.integers(0, len(waiting)))]))
    return Edit(_("Pick"), page, drawn(page).with_things(changed))


def deal(page: Page, things: Things) -> Edit:
    """All into groups that differ by one at most."""
    rng = chance(page)
    changed: dict[str, Thing] = {}
    for picker in things:
        if isinstance(picker, Picker):
            count = picker.groups_of or max(1, len(picker.names) // 3)
            order = rng.permutation(len(picker.names)).tolist()
            dealt = [0] * len(order)
            for at, who in enumerate(order):
                dealt[who] = at % count
            changed[picker.id] = picker.replace(groups_of=count, dealt=tuple(dealt))
    return Edit(_("Deal into groups"), page, drawn(page).with_things(changed))


def anew(page: Page, things: Things) -> Edit:
    return set_all(page, things, _("Begin anew"), had=(), dealt=())


ACTIONS = (
    Action("pick", lambda p, ts: _("pick a name"), "dices", pick, only(Picker), shortcut="R", rank=5, board=True,
           words=N_("random pupil turn")),
    Action("deal", lambda p, ts: _("deal into groups"), "ungroup", deal, only(Picker), rank=6, board=True,
           words=N_("teams groups random")),
    Action("new round", lambda p, ts: _("begin anew"), "rotate-ccw", anew, only(Picker), rank=7, words=N_("reset round")),
)  # fmt: skip
