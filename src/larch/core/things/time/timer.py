"""A timer: counts down with a bell at its end, or up as a stopwatch. It goes on while other pages are shown."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator
from functools import partial
from typing import ClassVar, Self

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, set_all
from larch.core.model.capabilities import Sounds, Tappable, Ticks, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_number
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

WIDE, CANDLE, FOOT = 220.0, 190.0, 78.0
MOST = 86_400.0  # seconds: a day
TYPED = re.compile(r"\s*(?:(\d{1,2}):)?(\d{1,3}):(\d{2})\s*")


class Timer(Ticks, Sounds, Tappable, WorksLocked, Thing, frozen=True, kw_only=True, tag="timer"):
    """length: seconds that it counts down from; 0 counts up. passed: seconds that had passed when it last stood. going: when
    it was let go, in seconds since 1970; 0 while it stands. Raises ValueError for times that are none."""

    length: float = 300.0
    passed: float = 0.0
    going: float = 0.0
    hue: str = "straw"

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "gauge"
    order: ClassVar[int] = 22
    help: ClassVar[str] = N_(
        "Tap to start and to pause. It goes on while pages are turned; at the end a bell rings. Type its "
        "time, such as 3:20. "
        "The stopwatch counts up."
    )

    def __post_init__(self) -> None:
        if not (0 <= self.length <= MOST and 0 <= self.passed <= 1e9 and 0 <= self.going <= 1e12):
            raise ValueError("a timer has a time")

    @classmethod
    def title(cls) -> str:
        return _("timer")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("timer countdown candle bell minutes seconds time")
        yield ShelfItem("timer", _("timer"), N_("Time"), cls, words)
        yield ShelfItem("stopwatch", _("stopwatch"), N_("Time"), partial(cls, length=0.0), _("stopwatch seconds lap time"))

    def label(self, page: Page) -> str:
        return self.name or _("{sort} at {time}").format(sort=self.sort(), time=duration_text(self.shown_seconds()))

    def sort(self) -> str:
        return _("timer") if self.length else _("stopwatch")

    def extent(self) -> Box:
        return Box(0, 0, WIDE, (CANDLE if self.length else 0.0) + FOOT)

    def left(self) -> float:
        """Seconds; 0 when it has ended."""
        return max(0.0, self.length - self.passed)

    def shown_seconds(self) -> float:
        """What stands on it: whole seconds, those left rounded up."""
        return math.ceil(self.left() - 1e-6) if self.length else math.floor(self.passed + 1e-6)

    def facts(self, page: Page) -> Iterator[Fact]:
        text = duration_text(self.shown_seconds())
        yield Fact("time", text, text=text, label=_("time left") if self.length else _("time passed"))
        yield Fact("passed", round(self.passed, 3), "s", f"{self.passed:.1f} s", _("passed"))
        length = duration_text(self.length) if self.length else _("counts up")
        yield Fact("length", length, text=length, label=_("counts down from"), set=self._set_length)
        yield Fact("going", bool(self.going), text=_("yes") if self.going else _("no"), label=_("goes"))

    def _set_length(self, typed: str) -> Thing:
        if typed.strip() == _("counts up"):
            return self.replace(length=0.0, passed=0.0, going=0.0)  # type: ignore[no-any-return]
        found = TYPED.fullmatch(typed)
        seconds = int(found[1] or 0) * 3600 + int(found[2]) * 60 + int(found[3]) if found else 60 * read_number(typed)
        if not 0 <= seconds <= MOST:
            raise ValueError(_("Write minutes and seconds, such as 3:20, up to a day."))
        return self.replace(length=float(seconds), passed=0.0, going=0.0)  # type: ignore[no-any-return]

    # Running

    def next_change(self, now: float) -> float | None:
        if not self.going:
            return None
        passed = self.passed + now - self.going
        if self.length and passed >= self.length - 1e-6:  # as far as float64 can tell
            return None
        return now + 1.0 - passed % 1.0 + 1e-3

    def as_of(self, now: float) -> Self:
        if not self.going:
            return self
        passed = self.passed + max(0.0, now - self.going)
        if self.length and passed >= self.length:
            return self.replace(passed=self.length, going=max(now, self.going))  # type: ignore[no-any-return]
        return self.replace(passed=passed, going=max(now, self.going))  # type: ignore[no-any-return]

    def sounds_since(self, before: Thing) -> tuple[str, ...]:
        """A bell when it has run out."""
        if not isinstance(before, Timer) or not self.length or not before.going:
            return ()
        return ("bell",) if before.left() > 0 and self.left() == 0 else ()

    def tap_action(self, at: Point) -> str:
        return "start timer"

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def duration_text(seconds: float) -> str:
    """As minutes and seconds: 3:20; with hours, 1:03:20."""
    whole = int(seconds)
    hours, minutes = divmod(whole // 60, 60)
    return f"{hours}:{minutes:02d}:{whole % 60:02d}" if hours else f"{minutes}:{whole % 60:02d}"


def _start(page: Page, things: Things, now: float) -> Edit:
    """Lets all go, or stops all where they stand by now; one that has run out begins anew."""
    timers = [t.as_of(now) for t in things if isinstance(t, Timer)]
    if all(timer.going and not (timer.length and not timer.left()) for timer in timers):
        return Edit(_("Pause"), page, page.with_things({t.id: t.replace(going=0.0) for t in timers}))
    changed = {}
    for timer in timers:
        over = timer.length and not timer.left()
        changed[timer.id] = timer.replace(going=now, passed=0.0 if over else timer.passed)
    return Edit(_("Start"), page, page.with_things(changed))


def _restart(page: Page, things: Things) -> Edit:
    return set_all(page, things, _("Begin anew"), passed=0.0, going=0.0)


def _goes(things: Things) -> bool:
    return all(getattr(t, "going", 0) for t in things)


ACTIONS = (
    Action("start timer", lambda p, ts: _("pause") if _goes(ts) else _("start"), "play",
           lambda p, ts: Edit(_("Start"), p, p), only(Timer), rank=5, board=True, by_clock=_start, words=N_("go run stop")),
    Action("restart timer", lambda p, ts: _("begin anew"), "rotate-ccw", _restart, only(Timer), rank=6, board=True,
           words=N_("reset zero again")),
)  # fmt: skip
