"""A number on a flag: it is set down on a number line where it belongs, and says whether it stands there."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, toggle
from larch.core.model.capabilities import Counts, HasWords, LooksAt, Snaps
from larch.core.model.fact import Fact, number_text, read_number
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Snap, Thing
from larch.core.model.written_on import Graduated

DIGIT, HIGH, SIDE, POLE = 24.0, 56.0, 16.0, 44.0  # width of a digit; height, air and pole of a flag, page units
LONGEST = 14
CLOSE = 10.0  # page units on either side of its place within which a flag stands right
ON = 30.0  # page units above or below a line within which the foot of a pole is on it
FALLS = 60.0  # page units from which it falls onto the line when it is let go


class NumberFlag(Counts, HasWords, LooksAt, Snaps, Thing, frozen=True, kw_only=True, tag="number flag"):
    """text: the number, as it was written. check: it shows whether it stands right. Its foot is the origin of its own
    coordinates. Raises ValueError for what is no number."""

    text: str = "63"
    check: bool = False
    hue: str = "lake"

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "flag"
    order: ClassVar[int] = 14
    help: ClassVar[str] = N_(
        "Drag a number to where it belongs on a number line: its foot falls onto the line. “Check where it stands” tells "
        "whether it is right. A number that is written on a line by hand becomes one."
    )

    def __post_init__(self) -> None:
        if not 0 < len(self.text) <= LONGEST or not math.isfinite(read_number(self.text)):
            raise ValueError("a flag shows a number")

    @classmethod
    def title(cls) -> str:
        return _("number flag")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("number line estimate place position label written")
        yield ShelfItem("number flag", _("number flag"), N_("Numbers"), cls, words)
        yield ShelfItem("number flags", _("number flags 25, 50, 75"), N_("Numbers"), cls, words, several=_three)

    def value(self) -> float:
        return read_number(self.text)

    def worth(self) -> float:
        return self.value()

    def plain_text(self) -> str:
        return self.text

    def label(self, page: Page) -> str:
        return self.name or _("number flag {n}").format(n=self.text)

    def cloth(self) -> Box:
        """The flag itself, without its pole."""
        half = max(HIGH, len(self.text) * DIGIT + 2 * SIDE) / 2
        return Box(-half, -POLE - HIGH, half, -POLE)

    def extent(self) -> Box:
        cloth = self.cloth()
        return Box(cloth.x0, cloth.y0, cloth.x1, 0.0)

    def foot(self) -> Point:
        return (self.placement.x, self.placement.y)

    def line_under(self, page: Page, within: float = ON) -> tuple[Graduated, float] | None:
        """The line on which it stands, the nearest that its foot touches, and the number there."""
        found: list[tuple[float, int, Graduated, float]] = []
        for line in page.things:
            if not isinstance(line, Graduated) or line.hidden:
                continue
            number = line.number_at(self.foot(), within)
            if number is not None:
                found.append((math.dist(line.place_of(number), self.foot()), len(found), line, number))
        if not found:
            return None
        _away, _k, line, number = min(found, key=lambda one: one[:2])
        return line, number

    def stands_at(self, page: Page) -> float | None:
        """The number of the line at its foot; None where it stands on none."""
        under = self.line_under(page)
        return None if under is None else under[1]

    def stands_right(self, page: Page) -> bool | None:
        """Whether that is its own number, as well as a hand can tell; None where it stands on no line."""
        under = self.line_under(page)
        if under is None:
            return None
        line, number = under
        return math.dist(line.place_of(self.value()), line.place_of(number)) <= CLOSE * self.placement.scale

    def uses(self, page: Page) -> tuple[Thing, ...]:
        under = self.line_under(page)
        return () if under is None else (under[0],)

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("value", self.value(), text=self.text, label=_("number"), set=self._set_value)
        at, right = self.stands_at(page), self.stands_right(page)
        shown = _("on no number line") if at is None else number_text(round(at, 3), 3)
        yield Fact("stands at", None if at is None else round(at, 6), text=shown, label=_("stands at"))
        words = {True: _("yes"), False: _("not yet"), None: _("on no number line")}
        yield Fact("in place", right, text=words[right], label=_("stands where it belongs"))

    def _set_value(self, typed: str) -> Thing:
        try:
            return self.replace(text=typed.strip())  # type: ignore[no-any-return]
        except ValueError as error:
            raise ValueError(_("A flag shows one number, such as 63, −4 or 3/4.")) from error

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """Its foot onto a number line; along the line it stays where the hand has it."""
        under = self.line_under(page, FALLS)
        if under is None or under[0].id not in {other.id for other in others}:
            return None
        (x, y), on = self.foot(), under[0].place_of(under[1])
        return Snap(on[0] - x, on[1] - y, _("on the line"))

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _three() -> list[Thing]:
    return [NumberFlag(text=text, placement=Placement(110.0 * k, 0.0)) for k, text in enumerate(("25", "50", "75"))]


def _label(page: Page, things: Things) -> str:
    return _("check no longer") if all(getattr(thing, "check", False) for thing in things) else _("check where it stands")


ACTIONS = (
    Action("check place", _label, "list-checks",
           lambda p, ts: toggle(p, ts, "check", _("Check where it stands"), _("Check no longer")),
           only(NumberFlag), rank=5, board=True, words=N_("right wrong estimate position")),
)  # fmt: skip
