"""A clock with two hands that go together, or each by itself; it can be let go."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator, Sequence
from functools import partial
from typing import ClassVar, Self

from larch.core.base.number_words import time_in_words
from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Fold, Things, only, toggle
from larch.core.model.capabilities import HasParts, LooksAt, Sounds, Ticks, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, measure, read_number
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing
from larch.core.model.written_on import TakesNumbers, WrittenSign

DAY = 1440.0  # minutes
RADIUS = 176.0  # of the face, page units
HOUR_TIP, MINUTE_TIP = 0.40, 0.70  # how long the hands are, in radii
NEAR = 9.0  # page units beside a hand in which it is taken hold of
DRAWN = 0.2  # radii: a shorter stroke of the pen is no hand
GRIP = 0.16  # radii round the middle in which no hand is meant
FITS = 3.0  # degrees by which a free hour hand may be off and still belong to the minute hand
NUMERALS = (
    ("all", N_("1 to 12")), ("hours 24", N_("1 to 12 and 13 to 24")), ("roman", N_("I to XII")),
    ("quarters", N_("12, 3, 6, 9")),
    ("none", N_("no numerals")),
)  # fmt: skip
NEVER = -1.0  # no start is marked
TYPED = re.compile(r"\s*(\d{1,2})\s*[:.h ]\s*(\d{2})\s*(am|pm)?\s*", re.IGNORECASE)


class Clock(HasParts, LooksAt, TakesNumbers, Ticks, Sounds, WorksLocked, Thing, frozen=True, kw_only=True, tag="clock"):
    """minutes: since midnight, below 1440. free: the hour hand is set by itself, to `hour` degrees clockwise from 12.
    going: when it was let go, in seconds since 1970; 0 while it stands. strikes: on the hour. numerals: one of NUMERALS.
    since: a start that is marked on it, in minutes since midnight, or NEVER: what has passed since then is drawn.
    after: the id of another clock whose time is the start, as long as that is there and its hands go together.
    twelve: figures say am and pm. seconds: it has a second hand while it goes.

    Raises ValueError for a time that no clock shows.
    """

    minutes: float = 155.0
    free: bool = False
    hour: float = 0.0
    going: float = 0.0
    strikes: bool = False
    numerals: str = "all"
    since: float = NEVER
    after: str = ""
    twelve: bool = False
    seconds: bool = True
    hue: str = "lake"

    refers: ClassVar[tuple[str, ...]] = ("after",)
    icon: ClassVar[str] = "clock"
    order: ClassVar[int] = 21
    help: ClassVar[str] = N_(
        "Turn a hand with a finger: the hour hand follows the minute hand, turn by turn, unless the hands are set free. "
        "With the pen a hand is drawn from the middle outwards, short or long. The eye beside “time” shows it in figures. "
        "It can be let go and stopped."
    )

    def __post_init__(self) -> None:
        if not 0 <= self.minutes < DAY or not 0 <= self.hour < 360 or not 0 <= self.going <= 1e12:
            raise ValueError("a clock shows a time of a day")
        if self.since != NEVER and not 0 <= self.since < DAY:
            raise ValueError("a start is a time of a day")
        if self.numerals not in dict(NUMERALS):
            raise ValueError("a clock has all its numerals, four or none")

    @classmethod
    def title(cls) -> str:
        return _("clock")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("time hands hour minute analogue face tell the time")
        yield ShelfItem("clock", _("clock"), N_("Time"), cls, words)
        yield ShelfItem(
            "clock, free hands", _("clock with free hands"), N_("Time"), partial(cls, free=True, hour=305.0), words
        )

    def label(self, page: Page) -> str:
        return self.name or _("clock that shows {time}").format(time=time_text(self.minutes))

    def extent(self) -> Box:
        return Box(0, 0, 2 * RADIUS, 2 * RADIUS)

    def touches(self, x: float, y: float, slack: float) -> bool:
        return math.dist((x, y), (RADIUS, RADIUS)) <= RADIUS + slack

    def minute_hand(self) -> float:
        """Degrees clockwise from 12."""
        return self.minutes % 60 * 6

    def hour_hand(self) -> float:
        return self.hour if self.free else self.minutes / 2 % 360

    def tip(self, hand: str) -> Point:
        """Where a hand ends, in its own coordinates."""
        angle = math.radians(self.minute_hand() if hand == "minute" else self.hour_hand())
        length = RADIUS * (MINUTE_TIP if hand == "minute" else HOUR_TIP)
        return (RADIUS + length * math.sin(angle), RADIUS - length * math.cos(angle))

    def agrees(self) -> bool:
        """Whether the hour hand stands where the minute hand asks for."""
        belongs = self.minutes % 60 / 2  # degrees beyond an hour's mark
        return abs((self.hour_hand() - belongs + 15) % 30 - 15) <= FITS

    def uses(self, page: Page) -> tuple[Thing, ...]:
        other = page.thing(self.after) if self.after else None
        return () if other is None else (other,)

    def started(self, page: Page) -> Self:
        """Itself with the time of the other clock as its start, where it has one."""
        other = page.thing(self.after) if self.after else None
        linked = isinstance(other, Clock) and not other.free
        return self.replace(since=other.minutes) if linked else self  # type: ignore[union-attr]

    def facts(self, page: Page) -> Iterator[Fact]:
        yield from self.started(page)._facts()

    def _facts(self) -> Iterator[Fact]:
        text = time_text(self.minutes)
        if not self.free:
            yield Fact("time", text, text=self.digital(), label=_("time"), badge="time", set=self._set_time)
        spoken = time_in_words(int(self.minutes + 1e-9))
        if not self.free:
            yield Fact("words", spoken, text=spoken, label=_("in words"), badge="words")
        past, unit = self.minutes % 60, _("min")
        yield Fact("minutes past", past, unit, f"{int(past)} {unit}", _("minutes past"))
        yield measure("minute hand", self.minute_hand(), "°", _("minute hand"), set=partial(self._set_hand, "minute"))
        yield measure("hour hand", self.hour_hand(), "°", _("hour hand"), set=partial(self._set_hand, "hour"))
        if not self.free:
            start = "" if self.since == NEVER else time_text(self.since)
            yield Fact("since", start, text=start, label=_("start marked at"), set=self._set_since, hint=_("such as 14:10"),
                       part="doing")  # fmt: skip
        if self.since != NEVER and not self.free:
            yield Fact("elapsed", self.elapsed(), _("min"), self.elapsed_text(), _("passed since then"), "elapsed")
        apart = abs((self.hour_hand() - self.minute_hand() + 180) % 360 - 180)
        yield measure("angle", apart, "°", _("between the hands"), badge="angle")
        if self.free:
            fits = self.agrees()
            words = _("yes") if fits else _("no: the hour hand stands elsewhere at this minute")
            yield Fact("agrees", fits, text=words, label=_("the hands agree"))
        ways = (("geared", _("go together")), ("free", _("each by itself")))
        hands = "free" if self.free else "geared"
        yield Fact("hands", hands, "", dict(ways)[hands], _("hands"), "", self._set_hands, ways)
        named = dict(NUMERALS)
        options = tuple((name, _(words)) for name, words in NUMERALS)
        yield Fact("numerals", self.numerals, "", _(named[self.numerals]), _("numerals"), "", self._set_numerals, options)

    def at_minutes(self, minutes: float) -> Self:
        """With another time; the day begins anew after its end."""
        return self.replace(minutes=_within(minutes, DAY))  # type: ignore[no-any-return]

    def _set_time(self, typed: str) -> Thing:
        return self.replace(minutes=read_time(typed), going=0.0)  # type: ignore[no-any-return]

    def number_written(self, page: Page, text: str, signs: Sequence[WrittenSign], hue: str) -> Page:
        """A time in figures, 7:30 or 7.30 or 730, sets the hands."""
        digits = text.replace(",", ".")
        if digits.isdigit() and len(digits) in (3, 4):
            digits = f"{digits[:-2]}:{digits[-2:]}"
        if digits.isdigit():
            raise ValueError(_("Write hours and minutes, such as 7:30."))
        minutes = read_time(digits)
        hour = minutes / 2 % 360 if self.free else self.hour
        return page.with_things({self.id: self.replace(minutes=minutes, hour=hour, going=0.0)})

    def _set_hand(self, hand: str, typed: str) -> Thing:
        angle = _within(read_number(typed), 360.0)
        if hand == "minute":
            return self.at_minutes(self.minutes // 60 * 60 + angle / 6)
        return self.replace(hour=angle) if self.free else self.at_minutes(angle * 2)

    def digital(self) -> str:
        """The time in figures, as the clock writes it."""
        if not self.twelve:
            return time_text(self.minutes)
        whole = int(self.minutes + 1e-9)
        return f"{whole // 60 % 12 or 12}:{whole % 60:02d} {'am' if whole < DAY / 2 else 'pm'}"

    def elapsed(self) -> float:
        """Whole minutes since the start that is marked; over midnight, too."""
        return round((self.minutes - self.since) % DAY) % DAY

    def elapsed_text(self) -> str:
        hours, minutes = divmod(int(self.elapsed()), 60)
        parts = [_("{n} h").format(n=hours)] if hours else []
        parts += [_("{n} min").format(n=minutes)] if minutes or not hours else []
        return " ".join(parts)

    def _set_since(self, typed: str) -> Thing:
        return self.replace(since=read_time(typed) if typed.strip() else NEVER, after="")  # type: ignore[no-any-return]

    def _set_hands(self, typed: str) -> Thing:
        if typed not in ("geared", "free"):
            raise ValueError(_("The hands go together, or each by itself."))
        free = typed == "free"
        return self if free == self.free else with_free_hands(self) if free else with_hands_together(self)

    def _set_numerals(self, typed: str) -> Thing:
        if typed not in dict(NUMERALS):
            raise ValueError(_("Choose one of the ways in which a clock is numbered."))
        return self.replace(numerals=typed)  # type: ignore[no-any-return]

    # Hands

    def parts(self) -> tuple[str, ...]:
        return ("minute", "hour")

    def part_place(self, part: str) -> Point:
        x, y = self.tip(part)
        return (RADIUS + 0.9 * (x - RADIUS), RADIUS + 0.9 * (y - RADIUS))

    def part_at(self, x: float, y: float, slack: float) -> str:
        """The hand that lies there; where both do, the one that is shorter, but beyond its tip the longer."""
        from_middle = math.dist((x, y), (RADIUS, RADIUS))
        if from_middle <= GRIP * RADIUS:
            return ""
        turn = math.degrees(math.atan2(x - RADIUS, RADIUS - y)) % 360
        for hand, angle, tip in (("hour", self.hour_hand(), HOUR_TIP), ("minute", self.minute_hand(), MINUTE_TIP)):
            off = math.radians(abs((turn - angle + 180) % 360 - 180))
            beside = from_middle * math.sin(off) if off < math.pi / 2 else math.inf
            if beside <= NEAR + slack and from_middle <= tip * RADIUS + slack + 1e-6:
                return hand
        return ""

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        """The hand turns by as much as the finger went round: turn upon turn adds up."""
        turn = (_bearing(to) - _bearing(before) + 180) % 360 - 180
        if part == "minute":
            return self.replace(minutes=_within(self.minutes + turn / 6, DAY), going=0.0)  # type: ignore[no-any-return]
        if self.free:
            return self.replace(hour=_within(self.hour + turn, 360.0))  # type: ignore[no-any-return]
        return self.replace(minutes=_within(self.minutes + turn * 2, DAY), going=0.0)  # type: ignore[no-any-return]

    def part_let_go(self, part: str) -> Self:
        """A hand comes to rest on a whole minute; a free hour hand just where it is."""
        return self if part == "hour" and self.free else self.at_minutes(round(self.minutes))

    def with_drawn_hand(self, end: Point) -> Self:
        """With a hand drawn from the middle to a place: a long stroke is the minute hand, which comes to a whole minute of
        the hour that is shown; a short one the hour hand, which, where they go together, comes to where the minute hand
        belongs."""
        length = math.dist(end, (RADIUS, RADIUS)) / RADIUS
        if length < DRAWN:
            return self
        angle, past = _bearing(end) % 360, self.minutes % 60
        if length > (HOUR_TIP + MINUTE_TIP) / 2:
            return self.replace(minutes=self.minutes - past + round(angle / 6) % 60, going=0.0)  # type: ignore[no-any-return]
        if self.free:
            return self.replace(hour=_within(angle, 360.0))  # type: ignore[no-any-return]
        half = DAY / 2 if self.minutes >= DAY / 2 else 0.0
        hour = round((angle * 2 - past) / 60) % 12
        return self.replace(minutes=hour * 60 + past + half, going=0.0)  # type: ignore[no-any-return]

    def part_label(self, part: str) -> str:
        return _("Turn the minute hand") if part == "minute" else _("Turn the hour hand")

    # Running

    def next_change(self, now: float) -> float | None:
        """Every second while it has a second hand, else every six: the minute hand moves by less than can be seen."""
        step = 1 if self.seconds else 6
        return None if not self.going else self.going + step * max(1, math.floor((now - self.going) / step) + 1)

    def as_of(self, now: float) -> Self:
        if not self.going:
            return self
        passed = max(0.0, now - self.going) / 60
        return self.replace(minutes=_within(self.minutes + passed, DAY), going=max(now, self.going))  # type: ignore[no-any-return]

    def sounds_since(self, before: Thing) -> tuple[str, ...]:
        """It strikes when an hour is full while it goes."""
        if not (self.strikes and self.going and isinstance(before, Clock) and before.going):
            return ()
        return ("chime",) if int(before.minutes // 60) != int(self.minutes // 60) else ()

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _bearing(at: Point) -> float:
    return math.degrees(math.atan2(at[0] - RADIUS, RADIUS - at[1]))


def _within(value: float, whole: float) -> float:
    """The remainder, never the whole itself, whatever rounding does."""
    rest = value % whole
    return rest if rest < whole else 0.0


def time_text(minutes: float) -> str:
    """As it is written in figures: 15:05."""
    whole = int(minutes + 1e-9)
    return f"{whole // 60 % 24:02d}:{whole % 60:02d}"


def read_time(typed: str) -> float:
    """Minutes since midnight, of "15:05", "3.05 pm" or "9:30". Raises ValueError with one sentence."""
    found = TYPED.fullmatch(typed)
    hour, minute = (int(found[1]), int(found[2])) if found else (99, 0)
    half = (found[3] or "").lower() if found else ""
    if half and 1 <= hour <= 12:
        hour = hour % 12 + (12 if half == "pm" else 0)
    elif half:
        hour = 99
    if hour == 24 and not minute:
        hour = 0
    if hour > 23 or minute > 59:
        raise ValueError(_("“{typed}” is no time; write for example 15:05.").format(typed=typed.strip()[:20]))
    return float(hour * 60 + minute)


def _let_go(page: Page, things: Things, now: float) -> Edit:
    """Lets all go, or stops all where they stand by now."""
    clocks = [t for t in things if isinstance(t, Clock)]
    if all(clock.going for clock in clocks):
        stopped = {clock.id: clock.as_of(now).replace(going=0.0) for clock in clocks}
        return Edit(_("Stop the clock"), page, page.with_things(stopped))
    going = {clock.id: clock if clock.going else clock.replace(going=now, free=False) for clock in clocks}
    return Edit(_("Let the clock go"), page, page.with_things(going))


def _mark_start(page: Page, things: Things) -> Edit:
    """From now on what passes is drawn; where all have a start, it is taken away."""
    on = not all(t.since != NEVER for t in things if isinstance(t, Clock))
    changed = {t.id: t.replace(since=t.minutes if on else NEVER, after="") for t in things if isinstance(t, Clock)}
    return Edit(_("Mark the start") if on else _("Take the start away"), page, page.with_things(changed))


def _between(page: Page, things: Things) -> Edit:
    """The right of two clocks, or the lower, shows what has passed since the time of the other, even when it is set anew."""
    clocks = [t for t in things if isinstance(t, Clock)]
    first, second = sorted(clocks, key=lambda one: sum(one.box().centre))
    linked = second.replace(since=first.minutes, after=first.id)
    return Edit(_("Time between"), page, page.with_things({second.id: linked}))


def with_free_hands(clock: Clock) -> Clock:
    """Its hands can be set one by one, from where they stand."""
    return clock.replace(free=True, hour=clock.hour_hand(), going=0.0)  # type: ignore[no-any-return]


def with_hands_together(clock: Clock) -> Clock:
    """The hour hand goes to the nearest place where the minute hand asks for it, in the same half of the day."""
    hour = round((clock.hour * 2 - clock.minutes % 60) / 60) * 60 + clock.minutes % 60
    half = DAY / 2 if clock.minutes >= DAY / 2 else 0.0
    return clock.replace(free=False, minutes=_within(hour % (DAY / 2) + half, DAY))  # type: ignore[no-any-return]


def _free_or_together(page: Page, things: Things) -> Edit:
    """Sets the hands free where they stand, or has the hour hand go with the minute hand again."""
    free = not all(t.free for t in things if isinstance(t, Clock))
    changed: dict[str, Thing] = {}
    for clock in things:
        if isinstance(clock, Clock):
            changed[clock.id] = with_free_hands(clock) if free else with_hands_together(clock)
    return Edit(_("Free the hands") if free else _("Hands go together"), page, page.with_things(changed))


def _later(by: int, label: str) -> Action:
    def run(page: Page, things: Things) -> Edit:
        moved = {t.id: t.at_minutes(t.minutes + by) for t in things if isinstance(t, Clock)}
        return Edit(_("Set the time"), page, page.with_things(moved))

    icon = f"{'later' if by > 0 else 'earlier'}-{abs(by)}"
    return Action(f"time {by}", lambda p, ts: _(label), icon, run, only(Clock), rank=55, fold=SET,
                  board=True, words=N_("minutes hours forward back"))  # fmt: skip


SET = Fold("set time", N_("set the time"), "clock")
ACTIONS = (
    Action("let go", lambda p, ts: _("stop it") if all(getattr(t, "going", 0) for t in ts) else _("let it go"), "play",
           lambda p, ts: Edit(_("Let the clock go"), p, p), only(Clock), rank=5, board=True, by_clock=_let_go,
           words=N_("run start stop tick")),
    Action("free hands", lambda p, ts: _("let the hands go together") if all(getattr(t, "free", False) for t in ts) else
           _("set the hands free"), "cog", _free_or_together, only(Clock), rank=6, words=N_("separate hands together")),
    Action("mark start", lambda p, ts: _("no start") if all(getattr(t, "since", NEVER) != NEVER for t in ts) else
           _("mark the start here"), "flag", _mark_start, only(Clock), rank=6, board=True,
           words=N_("elapsed time passed duration")),
    Action("between clocks", lambda p, ts: _("time from the one to the other"), "between-horizontal-start", _between,
           lambda p, ts: only(Clock)(p, ts) and len(ts) == 2, rank=6, board=True, words=N_("elapsed time between clocks")),
    Action("twelve hours", lambda p, ts: _("count to 24 hours") if all(getattr(t, "twelve", False) for t in ts) else
           _("say am and pm"), "clock", lambda p, ts: toggle(p, ts, "twelve", _("Say am and pm"), _("Count to 24 hours")),
           only(Clock), rank=56, words=N_("twelve 12 24 hours digital")),
    Action("second hand", lambda p, ts: _("no second hand") if all(getattr(t, "seconds", False) for t in ts) else
           _("second hand"), "later-1", lambda p, ts: toggle(p, ts, "seconds", _("Second hand"), _("No second hand")),
           only(Clock), rank=56, words=N_("seconds")),
    Action("strikes", lambda p, ts: _("no striking") if all(getattr(t, "strikes", False) for t in ts) else
           _("strike the hours"), "bell", lambda p, ts: toggle(p, ts, "strikes", _("Strike"), _("No striking")),
           only(Clock), rank=56, words=N_("sound chime bell")),
    _later(60, N_("an hour later")), _later(-60, N_("an hour earlier")),
    _later(15, N_("a quarter of an hour later")), _later(5, N_("five minutes later")), _later(1, N_("a minute later")),
    _later(-1, N_("a minute earlier")),
)  # fmt: skip
