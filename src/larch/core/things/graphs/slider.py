"""A slider: a letter of the page that is dragged, stepped by a tap beside its thumb, or runs by itself."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from fractions import Fraction
from typing import ClassVar, Self

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.maths.expression.tree import Node, Number
from larch.core.model.action import Action, Things, only
from larch.core.model.capabilities import Defines, HasParts, Ticks, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, number_text, read_number
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

LONG, HIGH = 340.0, 96.0
TRACK = 40.0  # y of the line
THUMB = 24.0  # radius
SECONDS = 4.0  # from one end to the other when it runs
MOST_STEPS = 100_000


class Slider(Defines, HasParts, Ticks, WorksLocked, Thing, frozen=True, kw_only=True, tag="slider"):
    """letter: what it is called on the page. low, high, step: where it can be. value: where it stood when it was last set;
    going: when it was let go, in seconds since 1970, 0 while it stands. Raises ValueError for what is no range."""

    letter: str = "a"
    low: float = 0.0
    high: float = 5.0
    step: float = 0.5
    value: float = 1.0
    going: float = 0.0
    hue: str = "clay"

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "git-commit-horizontal"
    order: ClassVar[int] = 42
    help: ClassVar[str] = N_(
        "Its letter holds for the page: equations, graphs and words follow when it is dragged. A tap beside it goes one "
        "step; it can be let go to run by itself."
    )

    def __post_init__(self) -> None:
        numbers = (self.low, self.high, self.step, self.value)
        if not all(math.isfinite(n) and abs(n) <= 1e9 for n in numbers) or not self.low < self.high:
            raise ValueError("a slider goes from a smaller to a larger number")
        if not self.step > 0 or (self.high - self.low) / self.step > MOST_STEPS or not 0 <= self.going <= 1e12:
            raise ValueError("a slider has steps")
        if not self.low <= self.value <= self.high:
            raise ValueError("a slider stands between its ends")
        if not (len(self.letter) == 1 and self.letter.isalpha()):
            raise ValueError("a slider has one letter")

    @classmethod
    def title(cls) -> str:
        return _("slider")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("slider letter variable parameter value change")
        yield ShelfItem("slider", _("slider"), N_("Graphs"), cls, words)

    def label(self, page: Page) -> str:
        return self.name or _("slider: {letter} = {value}").format(letter=self.letter, value=self.value_text())

    def extent(self) -> Box:
        return Box(0, 0, LONG, HIGH)

    def definition(self, page: Page) -> tuple[str, Node] | None:
        value = self.exact()
        return self.letter, Number(value, str(value))

    def ends_of_letter(self) -> tuple[float, float] | None:
        return (self.low, self.high)

    def defined_as(self, value: Fraction) -> Thing | None:
        return self.at_value(float(value))

    def exact(self) -> Fraction:
        """The value as it is written: 0.3 is three tenths."""
        return Fraction(f"{self.value:.9f}")

    def value_text(self) -> str:
        return number_text(self.value, 6)

    def at_value(self, value: float) -> Self:
        """At the step that is nearest to a value."""
        steps = round((min(max(value, self.low), self.high) - self.low) / self.step)
        near = min(self.low + steps * self.step, self.high)
        near = min(max(float(f"{near:.9f}"), self.low), self.high)
        return self.replace(value=near, going=0.0)  # type: ignore[no-any-return]

    def x_of(self, value: float) -> float:
        return THUMB + (value - self.low) / (self.high - self.low) * (LONG - 2 * THUMB)

    def value_at(self, x: float) -> float:
        return self.low + (x - THUMB) / (LONG - 2 * THUMB) * (self.high - self.low)

    def facts(self, page: Page) -> Iterator[Fact]:
        text = self.value_text()
        yield Fact(self.letter, self.value, text=text, label=self.letter, badge="value", set=self._set_value)
        yield Fact("letter", self.letter, text=self.letter, label=_("letter"), set=self._set_letter)
        for name, label in (("low", _("from")), ("high", _("to")), ("step", _("step"))):
            value = getattr(self, name)
            yield Fact(name, value, text=number_text(value, 6), label=label, set=self._setter(name))
        yield Fact("going", bool(self.going), text=_("yes") if self.going else _("no"), label=_("runs"))

    def _set_value(self, typed: str) -> Thing:
        value = read_number(typed)
        if not self.low <= value <= self.high:
            words = _("It goes from {low} to {high}.")
            raise ValueError(words.format(low=number_text(self.low, 6), high=number_text(self.high, 6)))
        return self.replace(value=value, going=0.0)  # type: ignore[no-any-return]

    def _set_letter(self, typed: str) -> Thing:
        if not (len(typed.strip()) == 1 and typed.strip().isalpha()):
            raise ValueError(_("Write one letter."))
        return self.replace(letter=typed.strip())  # type: ignore[no-any-return]

    def _setter(self, name: str) -> Callable[[str], Thing]:
        def set_end(typed: str) -> Thing:
            changes = {"low": self.low, "high": self.high, "step": self.step, name: read_number(typed)}
            try:
                value = min(max(self.value, changes["low"]), changes["high"])
                return self.replace(**changes, value=value, going=0.0)  # type: ignore[no-any-return]
            except ValueError as error:
                raise ValueError(_("It goes from a smaller to a larger number, by steps.")) from error

        return set_end

    # Hands

    def parts(self) -> tuple[str, ...]:
        return ("thumb",)

    def part_place(self, part: str) -> Point:
        return (self.x_of(self.value), TRACK)

    def part_at(self, x: float, y: float, slack: float) -> str:
        if abs(y - TRACK) > THUMB + slack or not -slack <= x <= LONG + slack:
            return ""
        if abs(x - self.x_of(self.value)) <= THUMB + slack:
            return "thumb"
        return "more" if x > self.x_of(self.value) else "less"

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        """The thumb goes with the finger, from step to step."""
        return self.at_value(self.value_at(to[0])) if part == "thumb" else self

    def tap_part(self, part: str, at: Point) -> Self | None:
        """Beside the thumb: one step."""
        if part == "thumb":
            return None
        return self.at_value(self.value + (self.step if part == "more" else -self.step))

    def part_label(self, part: str) -> str:
        return _("Change {letter}").format(letter=self.letter)

    # Running

    def next_change(self, now: float) -> float | None:
        if not self.going:
            return None
        tick = max(1 / 30, SECONDS * self.step / (self.high - self.low))
        return self.going + tick * (math.floor((now - self.going) / tick) + 1)

    def as_of(self, now: float) -> Self:
        """To and fro between its ends."""
        if not self.going:
            return self
        start = (self.value - self.low) / (self.high - self.low)
        way = (start + max(0.0, now - self.going) / SECONDS) % 2
        share = way if way <= 1 else 2 - way
        return self.at_value(self.low + share * (self.high - self.low))

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _play(page: Page, things: Things, now: float) -> Edit:
    """Lets all run, or stops all where they stand by now."""
    sliders = [thing for thing in things if isinstance(thing, Slider)]
    if all(one.going for one in sliders):
        return Edit(_("Stop the slider"), page, page.with_things({one.id: one.as_of(now) for one in sliders}))
    going = {one.id: one if one.going else one.replace(going=now) for one in sliders}
    return Edit(_("Let the slider run"), page, page.with_things(going))


ACTIONS = (
    Action("play", lambda p, ts: _("stop it") if all(getattr(t, "going", 0) for t in ts) else _("let it run"), "play",
           lambda p, ts: Edit(_("Let the slider run"), p, p), only(Slider), rank=5, board=True, by_clock=_play,
           words=N_("animate run start stop play")),
)  # fmt: skip
