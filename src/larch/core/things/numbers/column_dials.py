"""Column dials: one for each place. A dial that goes past 9 turns the next one on."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial
from typing import ClassVar, Self

from larch.core.base.number_words import PLACES, in_words
from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only
from larch.core.model.capabilities import Counts, HasLabels, HasParts, Sounds, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

ACROSS, RING = 152.0, 20.0
STEP = 180.0  # from dial to dial
HEAD = 42.0  # above the dials, for the names of places
BUTTON = 56.0
LINE = 150.0  # below the buttons, for the line with its mark, figures and words
MOST = 6
NAMES = tuple(PLACES[power] for power in range(MOST))  # of the dials, from the ones


class ColumnDials(HasLabels, HasParts, Counts, Sounds, WorksLocked, Thing, frozen=True, kw_only=True, tag="column dials"):
    """number: what they show; places: how many there are. turning: while a handle is in the hand, how far it is beyond the
    last whole step, in steps. Raises ValueError for a number that does not fit."""

    number: int = 0
    places: int = 3
    turning: float = 0.0

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "gauge"
    order: ClassVar[int] = 12
    help: ClassVar[str] = N_(
        "Turn the handle of a dial, or tap − and +: past 9 the next dial turns on by one. The mark on the "
        "line below follows, "
        "and can be dragged, too."
    )

    def __post_init__(self) -> None:
        if not 1 <= self.places <= MOST or not 0 <= self.number < 10**self.places or not -1 <= self.turning <= 1:
            raise ValueError("dials show a number of as many digits")

    @classmethod
    def title(cls) -> str:
        return _("column dials")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("dial column ones tens hundreds counter turn place value odometer")
        yield ShelfItem("column dials", _("column dials"), N_("Numbers"), partial(cls, number=347), words)

    def label(self, page: Page) -> str:
        return self.name or _("dials that show {n}").format(n=self.number)

    def extent(self) -> Box:
        return Box(0, 0, self.places * STEP, HEAD + ACROSS + 12 + BUTTON + LINE)

    def middle(self, place: int) -> Point:
        """Of the dial of a place, 0 for the ones, in its own coordinates."""
        return ((self.places - place - 0.5) * STEP, HEAD + ACROSS / 2)

    def digit(self, place: int) -> int:
        return int(self.number // 10**place % 10)

    def button(self, place: int, more: bool) -> Point:
        x, y = self.middle(place)
        return (x + (36 if more else -36), y + ACROSS / 2 + 12 + BUTTON / 2)

    def line_y(self) -> float:
        return HEAD + ACROSS + 12 + BUTTON + 70

    def mark_x(self) -> float:
        wide = self.places * STEP - 60
        return 30 + wide * self.number / float(10**self.places)

    def worth(self) -> int:
        return self.number

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("value", self.number, text=str(self.number), label=_("number"),
                   set=lambda typed: self.replace(number=read_whole(typed, 0, 10**self.places - 1)))  # fmt: skip
        text = in_words(self.number)
        yield Fact("words", text, text=text, label=_("in words"))
        for place in range(self.places - 1, -1, -1):
            digit = self.digit(place)
            yield Fact(NAMES[place], digit, text=str(digit), label=_(NAMES[place]))
        yield Fact("places", self.places, text=str(self.places), label=_("dials"), set=self._set_places)

    def _set_places(self, typed: str) -> Thing:
        places = read_whole(typed, 1, MOST)
        return self.replace(places=places, number=self.number % 10**places)  # type: ignore[no-any-return]

    def stepped(self, by: int) -> Self:
        """Never below 0 nor beyond what the dials can show."""
        return self.replace(number=min(max(self.number + by, 0), 10**self.places - 1))  # type: ignore[no-any-return]

    # Handles by the name of their place, buttons "ones +", and "mark"

    def parts(self) -> tuple[str, ...]:
        names = [NAMES[place] for place in range(self.places - 1, -1, -1)]
        return (*names, *(f"{name} {sign}" for name in names for sign in "−+"), "mark")

    def part_place(self, part: str) -> Point:
        if part == "mark":
            return (self.mark_x(), self.line_y())
        name, _space, sign = part.rpartition(" ") if part[-1] in "−+" else (part, "", "")
        place = NAMES.index(name)
        if sign:
            return self.button(place, sign == "+")
        x, y = self.middle(place)
        angle = math.tau * self.digit(place) / 10
        away = (ACROSS - RING) / 2
        return (x + away * math.sin(angle), y - away * math.cos(angle))

    def part_at(self, x: float, y: float, slack: float) -> str:
        if abs(y - self.line_y()) <= 30 + slack and abs(x - self.mark_x()) <= 24 + slack:
            return "mark"
        for place in range(self.places):
            if math.dist((x, y), self.middle(place)) <= ACROSS / 2 + min(slack, 8.0):
                return NAMES[place]
            for more in (False, True):
                if math.dist((x, y), self.button(place, more)) <= BUTTON / 2 + min(slack, 4.0):
                    return f"{NAMES[place]} {'+' if more else '−'}"
        return ""

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        if part == "mark":
            share = (to[0] - 30) / (self.places * STEP - 60)
            return self.replace(number=min(max(round(share * 10**self.places), 0), 10**self.places - 1))  # type: ignore[no-any-return]
        if part[-1] in "−+":
            return self
        place = NAMES.index(part)
        x, y = self.middle(place)

        def bearing(at: Point) -> float:
            return math.degrees(math.atan2(at[0] - x, y - at[1]))

        turned = self.turning + ((bearing(to) - bearing(before) + 180) % 360 - 180) / 36
        whole = round(turned)
        after = self.stepped(whole * 10**place)
        rest = turned - whole if after.number != self.number or not whole else 0.0
        return after.replace(turning=min(max(rest, -0.5), 0.5))  # type: ignore[no-any-return]

    def part_let_go(self, part: str) -> Self:
        return self.replace(turning=0.0)  # type: ignore[no-any-return]

    def tap_part(self, part: str, at: Point) -> Self | None:
        if part == "mark" or part[-1] not in "−+":
            return None
        name, _space, sign = part.rpartition(" ")
        return self.stepped((1 if sign == "+" else -1) * 10 ** NAMES.index(name))

    def part_label(self, part: str) -> str:
        return _("Turn a dial")

    def sounds_since(self, before: Thing) -> tuple[str, ...]:
        return ("tick",) if isinstance(before, ColumnDials) and before.number != self.number else ()

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _each(page: Page, things: Things, by: int) -> Edit:
    changed = {t.id: t.stepped(by) for t in things if isinstance(t, ColumnDials)}
    return Edit(_("One more") if by > 0 else _("One fewer"), page, page.with_things(changed))


ACTIONS = (
    Action("dials up", lambda p, ts: _("one more"), "plus", lambda p, ts: _each(p, ts, 1), only(ColumnDials), rank=5,
           shortcut="+", board=True, words=N_("add count up")),
    Action("dials down", lambda p, ts: _("one fewer"), "minus", lambda p, ts: _each(p, ts, -1), only(ColumnDials), rank=6,
           shortcut="-", board=True, words=N_("subtract count down")),
)  # fmt: skip
