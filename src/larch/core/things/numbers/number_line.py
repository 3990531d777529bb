"""A number line: whole, negative, decimal or empty, with marks that know their value and jumps drawn with their size."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator, Sequence
from fractions import Fraction
from functools import partial
from typing import ClassVar, Self

from larch.core.base.shape import Box, Placement, Point, union
from larch.core.base.words import N_, _
from larch.core.maths.algebra.intervals import Interval, intervals
from larch.core.model.action import Action, Things, only, set_all
from larch.core.model.capabilities import HasParts, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import MINUS, Fact, number_text, read_number
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing
from larch.core.model.written_on import Graduated, TakesNumbers, WrittenSign
from larch.core.things.numbers.number_flag import NumberFlag

RISE = 96.0  # room above the line, for jumps
FOOT = 48.0  # below it, for numbers
STRIP = 104.0  # below that, for what is seen through a window, ten times finer
END = 26.0  # beyond the first and last number
LEAST, MOST_LONG = 200.0, 4000.0
MOST_MARKS, MOST_JUMPS, LONGEST = 20, 30, 200
NAMED_APART = 45.0  # page units that a number needs at least
NICE = (1.0, 2.0, 5.0)
NAMED = ("all", "fractions", "ends", "none")
FINEST = 60  # denominator of a fraction that is written


class NumberLine(Graduated, HasParts, TakesNumbers, WorksLocked, Thing, frozen=True, kw_only=True, tag="number line"):
    """first, last: its ends; step: from tick to tick, 0 for an empty line. marks: values that are marked. jumps_from: where
    the first of the jumps begins; jumps: their sizes. long: page units from the first to the last. named: which numbers are
    written: "all", "ends" or "none". window: how wide a part is seen ten times finer below it, 0 for none; from window_at.
    statement: about one letter; where it is true, it is shown above the line.
    Raises ValueError where these don't fit."""

    first: float = 0.0
    last: float = 20.0
    step: float = 1.0
    marks: tuple[float, ...] = ()
    jumps_from: float = 0.0
    jumps: tuple[float, ...] = ()
    long: float = 900.0
    named: str = "all"
    window: float = 0.0
    window_at: float = 0.0
    statement: str = ""

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "git-commit-horizontal"
    order: ClassVar[int] = 13
    help: ClassVar[str] = N_(
        "Drag a mark along it, or the end of a jump. Type its ends, its step, its marks and jumps such as +3 +5. A tap on "
        "the line puts a mark there, a tap on a mark takes it away. A statement such as −1 ≤ x < 3 is shown above it."
    )

    def __post_init__(self) -> None:
        numbers = (self.first, self.last, self.step, self.jumps_from, *self.marks, *self.jumps)
        if not all(math.isfinite(number) and abs(number) < 1e12 for number in numbers):
            raise ValueError("a number line has numbers")
        if not self.first < self.last or self.step < 0 or (self.step and (self.last - self.first) / self.step > 2000):
            raise ValueError("a number line goes up, in steps that can be seen")
        if not LEAST <= self.long <= MOST_LONG or self.named not in NAMED:
            raise ValueError("a number line has a length")
        if not (0 <= self.window <= self.last - self.first and math.isfinite(self.window_at)):
            raise ValueError("a window shows a part of the line")
        if len(self.statement) > LONGEST:
            raise ValueError("a statement is shorter")
        if len(self.marks) > MOST_MARKS or len(self.jumps) > MOST_JUMPS:
            raise ValueError("too many marks or jumps")

    @classmethod
    def title(cls) -> str:
        return _("number line")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("number line count on jumps hops add subtract negative decimals empty")
        yield ShelfItem("number line", _("number line to 20"), N_("Numbers"), cls, words)
        negative = partial(cls, first=-10.0, last=10.0)
        yield ShelfItem("number line −10 to 10", _("number line −10 to 10"), N_("Numbers"), negative, words)
        tenths = partial(cls, last=1.0, step=0.1)
        yield ShelfItem("number line 0 to 1", _("number line 0 to 1"), N_("Numbers"), tenths, words)
        thousand = partial(cls, last=1000.0, step=100.0)
        eighths = partial(cls, last=2.0, step=0.125, named="fractions")
        yield ShelfItem("number line of eighths", _("number line of eighths"), N_("Fractions"), eighths, words)
        yield ShelfItem("number line to 1000", _("number line to 1000"), N_("Numbers"), thousand, words)
        empty = partial(cls, last=100.0, step=0.0, named="ends")
        yield ShelfItem("empty number line", _("empty number line"), N_("Numbers"), empty, words)

    def label(self, page: Page) -> str:
        ends = {"first": number_text(self.first, 6), "last": number_text(self.last, 6)}
        return self.name or _("number line {first} to {last}").format(**ends)

    def extent(self) -> Box:
        return Box(0, 0, self.long + 2 * END, RISE + FOOT + (STRIP if self.window else 0.0))

    def stretched(self, across: float, down: float) -> Thing | None:
        return self.replace(long=min(max(self.long * across, LEAST), MOST_LONG))  # type: ignore[no-any-return]

    def x_of(self, value: float) -> float:
        """Where a number lies, in its own coordinates."""
        return END + (value - self.first) / (self.last - self.first) * self.long

    def value_at(self, x: float) -> float:
        return self.first + (x - END) / self.long * (self.last - self.first)

    def nearest(self, x: float) -> float:
        """The number at a place: on a tick, or a tenth of the way between two where they are far apart."""
        value = min(max(self.value_at(x), self.first), self.last)
        step = self.step or nice((self.last - self.first) / 100)
        while self.long * step / (self.last - self.first) >= 10 * 12:  # room for finer ones
            step /= 10
        return tidy(min(max(self.first + round((value - self.first) / step) * step, self.first), self.last), step)

    def window_from(self) -> float:
        """Where the window begins, within the line."""
        return min(max(self.window_at, self.first), self.last - self.window)

    def strip_x(self, value: float) -> float:
        """Where a number lies on the strip below, in its own coordinates."""
        return END + 30 + (value - self.window_from()) / self.window * (self.long - 60)

    def ticks(self) -> list[float]:
        if not self.step:
            return [self.first, self.last]
        count = math.floor((self.last - self.first) / self.step + 1e-9)
        return [tidy(self.first + k * self.step, self.step) for k in range(count + 1)]

    def named_every(self) -> int:
        """Every which tick has its number written, so that they don't collide."""
        if not self.step:
            return 1
        apart = self.long * self.step / (self.last - self.first)
        if self.named == "fractions":
            return next(k for k in (1, 2, 4, 8, 16, 32, 64, 128, 256, 512, 1024, 2048) if k * apart >= 34)
        widest = max(len(number_text(value, 9)) for value in (self.first, self.last, self.last - self.step)) * 15.0 + 14
        need = max(NAMED_APART, widest) / apart
        counts: list[int] = [base * 10**n for n in range(12) for base in (1, 2, 5)]
        return next(k for k in counts if k >= need - 1e-9)

    def landings(self) -> list[float]:
        """Where the jumps begin and land, one after the other."""
        found = [self.jumps_from]
        for jump in self.jumps:
            found.append(round(found[-1] + jump, 9))
        return found

    def facts(self, page: Page) -> Iterator[Fact]:
        value = self.landings()[-1] if self.jumps else self.marks[-1] if self.marks else None
        shown = "—" if value is None else number_text(value, 9)
        yield Fact("value", value, text=shown, label=_("lands on") if self.jumps else _("last mark"))
        marks = "; ".join(number_text(mark, 9) for mark in self.marks)
        yield Fact("marks", marks, text=marks, label=_("marks"), set=self._set_marks, hint=_("such as 3; 7.5"))
        jumps = " ".join(signed(jump) for jump in self.jumps)
        yield Fact("jumps", jumps, text=jumps, label=_("jumps"), set=self._set_jumps, hint=_("such as +3 +5"))
        start = number_text(self.jumps_from, 9)
        yield Fact("jumps from", self.jumps_from, text=start, label=_("jumps from"),
                   set=partial(self._set_end, "jumps_from"))  # fmt: skip
        yield Fact("from", self.first, text=number_text(self.first, 9), label=_("from"), set=partial(self._set_end, "first"))
        yield Fact("to", self.last, text=number_text(self.last, 9), label=_("to"), set=partial(self._set_end, "last"))
        yield Fact("step", self.step, text=number_text(self.step, 9) if self.step else _("none"), label=_("step"),
                   set=partial(self._set_end, "step"))  # fmt: skip
        yield Fact("statement", self.statement, text=self.statement, label=_("where it is true"), set=self._set_statement,
                   hint=_("such as −1 ≤ x < 3"))  # fmt: skip
        seen = ""
        if self.window:
            ends = (self.window_from(), self.window_from() + self.window)
            seen = _("{first} to {last}").format(first=number_text(ends[0], 9), last=number_text(ends[1], 9))
        yield Fact("window", seen, text=seen, label=_("window"), set=self._set_window, hint=_("such as 0 to 1"))
        options = (
            ("all", _("as room allows")),
            ("fractions", _("as fractions")),
            ("ends", _("at the ends")),
            ("none", _("nowhere")),
        )
        yield Fact("named", self.named, text=dict(options)[self.named], label=_("numbers"), options=options,
                   set=lambda typed: self.replace(named=typed if typed in dict(options) else "all"))  # fmt: skip

    def _set_end(self, which: str, typed: str) -> Thing:
        word = typed.strip()
        value = 0.0 if which == "step" and word == _("none") else read_number(word)
        try:
            return self.replace(**{which: value})  # type: ignore[no-any-return]
        except ValueError as error:
            raise ValueError(_("The line must go up, in steps that can be seen.")) from error

    def _set_statement(self, typed: str) -> Thing:
        text = typed.strip()[:LONGEST]
        if text:
            try:
                intervals(text)
            except ValueError as reason:
                raise ValueError(_(str(reason))) from reason
        return self.replace(statement=text)  # type: ignore[no-any-return]

    def true_on(self) -> tuple[Interval, ...]:
        """Where its statement is true, as far as that is on the line."""
        try:
            found = intervals(self.statement) if self.statement else ()
        except ValueError:
            return ()
        return tuple(one for one in found if one.high >= self.first and one.low <= self.last)

    def _set_window(self, typed: str) -> Thing:
        if not typed.strip():
            return self.replace(window=0.0)  # type: ignore[no-any-return]
        words = re.split(rf"\s*(?:{re.escape(_('to'))}|to|…|\.\.|;)\s*", typed.strip())
        if len(words) != 2:
            raise ValueError(_("Write the ends of the window, such as 0 to 1."))
        low, high = sorted(map(read_number, words))
        if not self.first <= low < high <= self.last:
            raise ValueError(_("The window lies within the line."))
        return self.replace(window=high - low, window_at=low)  # type: ignore[no-any-return]

    def _set_marks(self, typed: str) -> Thing:
        words = [word for word in re.split(r"[;\s]+", typed) if word]
        if len(words) > MOST_MARKS:
            raise ValueError(_("A line has up to {n} marks.").format(n=MOST_MARKS))
        return self.replace(marks=tuple(dict.fromkeys(read_number(word) for word in words)))  # type: ignore[no-any-return]

    def _set_jumps(self, typed: str) -> Thing:
        words = re.findall(r"[+\-−]?\s*[\d./,]+", typed)
        if len(words) > MOST_JUMPS or (typed.strip() and not words):
            raise ValueError(_("Write jumps as +3 +5 −2; up to {n}.").format(n=MOST_JUMPS))
        jumps = tuple(read_number(word.replace(" ", "").lstrip("+")) for word in words)
        return self.replace(jumps=jumps)  # type: ignore[no-any-return]

    # Marks "mark 1" …, ends of jumps "jump 1" …, where they start "start", and the line itself "line"

    def parts(self) -> tuple[str, ...]:
        marks = [f"mark {k + 1}" for k in range(len(self.marks))]
        jumps = ["start", *(f"jump {k + 1}" for k in range(len(self.jumps)))] if self.jumps else []
        return (*marks, *jumps, *(("window",) if self.window else ()), "line")

    def part_place(self, part: str) -> Point:
        sort, _space, number = part.partition(" ")
        if sort == "line":
            return (self.x_of(self.nearest(END + self.long / 2)), RISE)
        if sort == "start":
            return (self.x_of(self.jumps_from), RISE)
        if sort == "window":
            return (self.x_of(self.window_from() + self.window / 2), RISE + 34)
        return (self.x_of(self.marks[int(number) - 1] if sort == "mark" else self.landings()[int(number)]), RISE)

    def part_at(self, x: float, y: float, slack: float) -> str:
        if self.window and RISE + 18 < y <= RISE + 50 + slack:
            start = self.x_of(self.window_from())
            return "window" if start - slack <= x <= self.x_of(self.window_from() + self.window) + slack else ""
        if abs(y - RISE) > 22 + slack:
            return ""
        near = [(abs(self.part_place(part)[0] - x), part) for part in self.parts() if part not in ("line", "window")]
        away, part = min(near, default=(math.inf, ""))
        if away <= 14 + slack:
            return part
        return "line" if END - 4 <= x <= END + self.long + 4 and abs(y - RISE) <= 14 + slack else ""

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        sort, _space, number = part.partition(" ")
        value = self.nearest(to[0])
        if sort == "mark":
            k = int(number) - 1
            return self.replace(marks=(*self.marks[:k], value, *self.marks[k + 1 :]))  # type: ignore[no-any-return]
        if sort == "window":
            moved = self.window_from() + (to[0] - before[0]) / self.long * (self.last - self.first)
            return self.replace(window_at=min(max(moved, self.first), self.last - self.window))  # type: ignore[no-any-return]
        if sort == "start":
            return self.replace(jumps_from=value)  # type: ignore[no-any-return]
        if sort == "jump":
            k = int(number) - 1
            size = round(value - self.landings()[k], 9)
            return self.replace(jumps=(*self.jumps[:k], size, *self.jumps[k + 1 :]))  # type: ignore[no-any-return]
        return self

    def part_let_go(self, part: str) -> Self:
        """A window falls onto a round number."""
        if part != "window" or not self.window:
            return self
        step = self.window / 10
        return self.replace(window_at=tidy(round(self.window_from() / step) * step, step))  # type: ignore[no-any-return]

    def tap_part(self, part: str, at: Point) -> Self | None:
        sort, _space, number = part.partition(" ")
        if sort == "mark":
            k = int(number) - 1
            return self.replace(marks=(*self.marks[:k], *self.marks[k + 1 :]))  # type: ignore[no-any-return]
        if sort == "line" and len(self.marks) < MOST_MARKS:
            value = self.nearest(at[0])
            return self if value in self.marks else self.replace(marks=(*self.marks, value))
        return None

    def part_label(self, part: str) -> str:
        if part == "window":
            return _("Move the window")
        return _("Mark a number") if part.startswith(("mark", "line")) else _("Change a jump")

    def number_at(self, at: Point, reach: float) -> float | None:
        x, y = self.placement.to_local(*at)
        on = abs(y - RISE) * self.placement.scale <= reach and -END / 2 <= x - END <= self.long + END / 2
        return self.value_at(x) if on else None

    def place_of(self, number: float) -> Point:
        return self.placement.to_page(self.x_of(number), RISE)

    def number_written(self, page: Page, text: str, signs: Sequence[WrittenSign], hue: str) -> Page:
        """A flag with the number, its foot on the line below where it was written, to be dragged to its place."""
        x, _y = self.placement.to_local(*union(sign.box for sign in signs).centre)
        at = self.placement.to_page(min(max(x, END), END + self.long), RISE)
        flag = NumberFlag(text=text.replace("-", MINUS), hue=hue, placement=Placement(*at, 0.0, self.placement.scale))
        return page.put(flag)

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def nice(size: float) -> float:
    """The next of 1, 2, 5 times a power of ten that is not below."""
    power = 10.0 ** math.floor(math.log10(size))
    return next(power * base for base in (*NICE, 10.0) if power * base >= size * (1 - 1e-9))


def as_fraction(value: float) -> tuple[int, int, int]:
    """Whole, numerator and denominator of a number as it is written; the sign stands before the whole or the numerator."""
    exact = Fraction(value).limit_denominator(FINEST)
    whole, rest = divmod(abs(exact.numerator), exact.denominator)
    sign = -1 if exact < 0 else 1
    return (sign * whole, rest if whole else sign * rest, exact.denominator)


def tidy(value: float, step: float) -> float:
    """Without the last digits of sums."""
    places = max(0, 9 - math.floor(math.log10(abs(step)))) if step else 9
    return round(value, places) + 0.0


def signed(jump: float) -> str:
    return ("+" if jump >= 0 else "") + number_text(jump, 9)


def _jump(page: Page, things: Things, size: float) -> Edit:
    changed = {}
    for line in things:
        if isinstance(line, NumberLine) and len(line.jumps) < MOST_JUMPS:
            changed[line.id] = line.replace(jumps=(*line.jumps, size * (line.step or 1.0)))
    return Edit(_("Jump"), page, page.with_things(changed))


def _clear(page: Page, things: Things) -> Edit:
    return set_all(page, things, _("Clear the line"), marks=(), jumps=())


ACTIONS = (
    Action("jump on", lambda p, ts: _("jump one on"), "plus", lambda p, ts: _jump(p, ts, 1.0), only(NumberLine), rank=5,
           shortcut="+", board=True, words=N_("hop add count on")),
    Action("jump back", lambda p, ts: _("jump one back"), "minus", lambda p, ts: _jump(p, ts, -1.0), only(NumberLine),
           rank=6, shortcut="-", board=True, words=N_("hop subtract count back")),
    Action("clear line", lambda p, ts: _("clear marks and jumps"), "brush-cleaning", _clear, only(NumberLine), rank=7,
           board=True, words=N_("reset empty")),
)  # fmt: skip
