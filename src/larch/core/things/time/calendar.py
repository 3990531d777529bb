"""A month: weeks from Monday, days to mark; what lies between two marked days is counted."""

from __future__ import annotations

import calendar as months
import datetime
import re
from collections.abc import Iterator
from typing import ClassVar, Self

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _, many
from larch.core.model.action import Action, Things, only
from larch.core.model.capabilities import HasParts, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

CELL, HEAD, FOOT = 56.0, 92.0, 46.0
FIRST, LAST = 1900, 2199
NAMES = (
    N_("January"), N_("February"), N_("March"), N_("April"), N_("May"), N_("June"), N_("July"), N_("August"),
    N_("September"),
    N_("October"), N_("November"), N_("December"),
)  # fmt: skip
DAYS = (N_("Mo"), N_("Tu"), N_("We"), N_("Th"), N_("Fr"), N_("Sa"), N_("Su"))
LONG_DAYS = (N_("Monday"), N_("Tuesday"), N_("Wednesday"), N_("Thursday"), N_("Friday"), N_("Saturday"), N_("Sunday"))


class Calendar(HasParts, WorksLocked, Thing, frozen=True, kw_only=True, tag="calendar"):
    """year, month: which; marked: days of it. Raises ValueError for days that it does not have."""

    year: int = 2026
    month: int = 9
    marked: tuple[int, ...] = ()

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "table"
    order: ClassVar[int] = 24
    help: ClassVar[str] = N_("Tap a day to mark it, drag over days to mark a span. Type another month, such as March 2027.")

    def __post_init__(self) -> None:
        if not (FIRST <= self.year <= LAST and 1 <= self.month <= 12):
            raise ValueError("a calendar shows a month")
        if not all(1 <= day <= self.days() for day in self.marked) or list(self.marked) != sorted(set(self.marked)):
            raise ValueError("days of the month are marked, once each")

    @classmethod
    def title(cls) -> str:
        return _("calendar")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("calendar month days weeks date week weekend")
        yield ShelfItem("calendar", _("calendar"), N_("Time"), cls, words)

    def head(self) -> str:
        return f"{_(NAMES[self.month - 1])} {self.year}"

    def label(self, page: Page) -> str:
        return self.name or _("calendar: {month}").format(month=self.head())

    def days(self) -> int:
        return months.monthrange(self.year, self.month)[1]

    def first_weekday(self) -> int:
        """Of its first day, Monday 0."""
        return datetime.date(self.year, self.month, 1).weekday()

    def weeks(self) -> int:
        return (self.first_weekday() + self.days() + 6) // 7

    def extent(self) -> Box:
        return Box(0, 0, 7 * CELL, HEAD + 6 * CELL + FOOT)

    def day_box(self, day: int) -> Box:
        row, column = divmod(self.first_weekday() + day - 1, 7)
        return Box(column * CELL, HEAD + row * CELL, (column + 1) * CELL, HEAD + (row + 1) * CELL)

    def span_text(self) -> str:
        """From the first to the last marked day, in words."""
        if len(self.marked) < 2:
            return ""
        return many("1 day later", "{n} days later", self.marked[-1] - self.marked[0])

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("month", self.head(), text=self.head(), label=_("month"), set=self._set_month)
        yield Fact("days", self.days(), text=str(self.days()), label=_("days"))
        first = _(LONG_DAYS[self.first_weekday()])
        yield Fact("first", first, text=first, label=_("begins on"))
        marked = " ".join(map(str, self.marked))
        yield Fact("marked", marked, text=marked, label=_("marked days"), set=self._set_marked, hint=_("such as 7 18"))
        yield Fact("count", len(self.marked), text=str(len(self.marked)), label=_("how many are marked"))
        if len(self.marked) > 1:
            span = self.marked[-1] - self.marked[0]
            yield Fact("span", span, text=self.span_text(), label=_("from first to last"))

    def _set_month(self, typed: str) -> Thing:
        found = re.fullmatch(r"\s*([^\d\s./-]+|\d{1,2})[\s./-]*(\d{4})\s*", typed)
        word, year = (found[1].casefold(), int(found[2])) if found else ("", 0)
        names = [_(name).casefold() for name in NAMES]
        month = (
            int(word) if word.isdecimal() else next((k for k, n in enumerate(names, 1) if word and n.startswith(word)), 0)
        )
        if not 1 <= month <= 12 or not FIRST <= year <= LAST:
            raise ValueError(_("Write a month and a year, such as March 2027."))
        return self.replace(year=year, month=month, marked=())  # type: ignore[no-any-return]

    def _set_marked(self, typed: str) -> Thing:
        days = {int(word) for word in re.findall(r"\d+", typed[:300])}
        if any(not 1 <= day <= self.days() for day in days):
            raise ValueError(_("This month has days 1 to {n}.").format(n=self.days()))
        return self.replace(marked=tuple(sorted(days)))  # type: ignore[no-any-return]

    # Days: "1" …

    def parts(self) -> tuple[str, ...]:
        return tuple(map(str, range(1, self.days() + 1)))

    def part_place(self, part: str) -> Point:
        return self.day_box(int(part)).centre

    def part_at(self, x: float, y: float, slack: float) -> str:
        if not 0 <= x < 7 * CELL or y < HEAD:
            return ""
        day = int((y - HEAD) // CELL) * 7 + int(x // CELL) - self.first_weekday() + 1
        return str(day) if 1 <= day <= self.days() else ""

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        over = self.part_at(*to, 0)
        if not over:
            return self
        low, high = sorted((int(part), int(over)))
        return self.replace(marked=tuple(range(low, high + 1)))  # type: ignore[no-any-return]

    def tap_part(self, part: str, at: Point) -> Self:
        return self.replace(marked=tuple(sorted(set(self.marked) ^ {int(part)})))  # type: ignore[no-any-return]

    def part_label(self, part: str) -> str:
        return _("Mark days")

    def turned_to(self, by: int) -> Self:
        """Some months later, within what a calendar shows."""
        at = min(max(self.year * 12 + self.month - 1 + by, FIRST * 12), LAST * 12 + 11)
        return self.replace(year=at // 12, month=at % 12 + 1, marked=())  # type: ignore[no-any-return]

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _turn(page: Page, things: Things, by: int) -> Edit:
    changed = {t.id: t.turned_to(by) for t in things if isinstance(t, Calendar)}
    return Edit(_("Another month"), page, page.with_things(changed))


ACTIONS = (
    Action("next month", lambda p, ts: _("next month"), "chevron-right", lambda p, ts: _turn(p, ts, 1), only(Calendar),
           rank=5, board=True, words=N_("later forward")),
    Action("month before", lambda p, ts: _("month before"), "chevron-left", lambda p, ts: _turn(p, ts, -1), only(Calendar),
           rank=6, board=True, words=N_("earlier back")),
)  # fmt: skip
