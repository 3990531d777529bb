"""A spinner: an arrow on a disc of sectors, whose shares are drawn to measure."""

from __future__ import annotations

import math
from collections.abc import Iterator
from fractions import Fraction
from functools import partial
from itertools import accumulate
from typing import TYPE_CHECKING, ClassVar, Self

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, set_all, toggle_shown
from larch.core.model.capabilities import HasParts, Sounds, Tappable, WorksLocked
from larch.core.model.chance import chance, drawn
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, number_text, read_names, read_numbers
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

if TYPE_CHECKING:
    from numpy.random import Generator

RADIUS = 142.0
FOOT = 56.0
ARROW = 0.5 * RADIUS
HUB = 26.0
MOST = 24  # sectors
TURNS = 4  # full turns of a spin, to be seen


class Spinner(HasParts, Sounds, Tappable, WorksLocked, Thing, frozen=True, kw_only=True, tag="spinner"):
    """shares: of the sectors, clockwise from the top. names: of the sectors, "" where there is none. at: where the arrow
    points, degrees clockwise from the top. tally: how often each sector came up. Raises ValueError where these don't fit."""

    shares: tuple[float, ...] = (1.0, 1.0, 1.0, 1.0)
    names: tuple[str, ...] = ()
    at: float = 45.0
    tally: tuple[int, ...] = ()

    icon: ClassVar[str] = "chart-pie"
    order: ClassVar[int] = 22
    help: ClassVar[str] = N_(
        "Tap the arrow to spin it, or turn it by hand. Type the shares of the sectors, such as 3 1 2. It keeps a tally."
    )

    def __post_init__(self) -> None:
        if not 1 <= len(self.shares) <= MOST or not all(0 < share <= 1e6 for share in self.shares):
            raise ValueError("a spinner has sectors with shares")
        if self.tally and (len(self.tally) != len(self.shares) or any(not 0 <= n <= 10**15 for n in self.tally)):
            raise ValueError("a tally counts each sector")
        if not 0 <= self.at < 360 or len(self.names) > len(self.shares):
            raise ValueError("the arrow points to a sector")

    @classmethod
    def title(cls) -> str:
        return _("spinner")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("spin wheel arrow sectors chance probability random")
        yield ShelfItem("spinner", _("spinner"), N_("Chance"), cls, words)
        yield ShelfItem("spinner 3 1 2", _("spinner 3 : 1 : 2"), N_("Chance"), partial(cls, shares=(3.0, 1.0, 2.0)), words)

    def label(self, page: Page) -> str:
        return self.name or _("spinner {shares}, shows {sector}").format(
            shares=self.shares_text(" : "), sector=self.sector_name(self.sector())
        )

    def shares_text(self, between: str = " ") -> str:
        return between.join(number_text(share, 6) for share in self.shares)

    def sector_name(self, k: int) -> str:
        """Of the sector counted from 0."""
        return (self.names[k] if k < len(self.names) else "") or str(k + 1)

    def extent(self) -> Box:
        return Box(0, 0, 2 * RADIUS, 2 * RADIUS + FOOT)

    def touches(self, x: float, y: float, slack: float) -> bool:
        return math.dist((x, y), (RADIUS, RADIUS)) <= RADIUS + slack or (y > 2 * RADIUS and self.extent().holds(x, y))

    def bounds(self) -> tuple[float, ...]:
        """Where each sector begins and the last ends, degrees clockwise from the top."""
        whole = sum(self.shares)
        return tuple(360 * part / whole for part in accumulate(self.shares, initial=0.0))

    def sector(self, at: float | None = None) -> int:
        """The sector in which a direction lies."""
        at = self.at if at is None else at
        bounds = self.bounds()
        return next((k for k in range(len(self.shares)) if at < bounds[k + 1]), len(self.shares) - 1)

    def counts(self) -> tuple[int, ...]:
        return self.tally or (0,) * len(self.shares)

    def chance_of(self, k: int) -> str:
        """The chance of a sector as a fraction, where the shares are whole."""
        parts = [Fraction(share).limit_denominator(10**6) for share in self.shares]
        return str(parts[k] / sum(parts))

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("sectors", self.shares_text(), text=self.shares_text(), label=_("shares"), set=self._set_sectors)
        names = "; ".join(self.sector_name(k) for k in range(len(self.shares)))
        yield Fact("names", names, text=names, label=_("names"), set=self._set_names)
        name = self.sector_name(self.sector())
        yield Fact("value", name, text=name, label=_("shows"))
        spins = sum(self.counts())
        yield Fact("spins", spins, text=str(spins), label=_("spins"))
        for k, count in enumerate(self.counts()):
            label = _("came up {face}").format(face=self.sector_name(k))
            yield Fact(f"came up {k + 1}", count, text=str(count), label=label)
        for k in range(len(self.shares)):
            text = self.chance_of(k)
            yield Fact(f"chance {k + 1}", text, text=text, label=_("chance of {name}").format(name=self.sector_name(k)))

    def _set_sectors(self, typed: str) -> Thing:
        shares = tuple(read_numbers(typed))
        if not 1 <= len(shares) <= MOST:
            raise ValueError(_("Write 1 to {n} shares, such as 3 1 2.").format(n=MOST))
        if not all(0 < share <= 1e6 for share in shares):
            raise ValueError(_("Each share is a number above zero."))
        return self.replace(shares=shares, tally=(), names=self.names[: len(shares)])  # type: ignore[no-any-return]

    def _set_names(self, typed: str) -> Thing:
        return self.replace(names=read_names(typed)[: len(self.shares)])  # type: ignore[no-any-return]

    def spun(self, rng: Generator) -> Spinner:
        at = float(rng.random() * 360) % 360
        hit = self.sector(at)
        return self.replace(at=at, tally=tuple(n + (k == hit) for k, n in enumerate(self.counts())))  # type: ignore[no-any-return]

    # The arrow

    def parts(self) -> tuple[str, ...]:
        return ("arrow",)

    def part_place(self, part: str) -> Point:
        angle = math.radians(self.at)
        return (RADIUS + 0.75 * ARROW * math.sin(angle), RADIUS - 0.75 * ARROW * math.cos(angle))

    def part_at(self, x: float, y: float, slack: float) -> str:
        away = math.dist((x, y), (RADIUS, RADIUS))
        if away <= HUB + slack:
            return "arrow"
        off = math.radians(abs((math.degrees(math.atan2(x - RADIUS, RADIUS - y)) - self.at + 180) % 360 - 180))
        return "arrow" if away <= ARROW and off < math.pi / 2 and away * math.sin(off) <= 16 + slack else ""

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        def bearing(at: Point) -> float:
            return math.degrees(math.atan2(at[0] - RADIUS, RADIUS - at[1]))

        turn = (self.at + bearing(to) - bearing(before)) % 360
        return self.replace(at=turn if turn < 360 else 0.0)  # type: ignore[no-any-return]

    def part_label(self, part: str) -> str:
        return _("Turn the arrow")

    def tap_action(self, at: Point) -> str:
        return "spin"

    def sounds_since(self, before: Thing) -> tuple[str, ...]:
        return ("click",) if isinstance(before, Spinner) and sum(before.counts()) < sum(self.counts()) else ()

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def spin(page: Page, things: Things) -> Edit:
    rng = chance(page)
    return Edit(_("Spin"), page, drawn(page).with_things({t.id: t.spun(rng) for t in things if isinstance(t, Spinner)}))


def spin_often(page: Page, things: Things) -> Edit:
    """A thousand spins, counted at once."""
    rng = chance(page)
    changed: dict[str, Thing] = {}
    for spinner in things:
        if isinstance(spinner, Spinner):
            whole = sum(spinner.shares)
            more = rng.multinomial(999, [share / whole for share in spinner.shares]).tolist()
            tally = tuple(a + b for a, b in zip(spinner.counts(), more, strict=True))
            changed[spinner.id] = spinner.replace(tally=tally).spun(rng)
    return Edit(_("Spin a thousand times"), page, drawn(page).with_things(changed))


def clear(page: Page, things: Things) -> Edit:
    return set_all(page, things, _("Clear the tally"), tally=())


ACTIONS = (
    Action("spin", lambda p, ts: _("spin"), "rotate-cw", spin, only(Spinner), shortcut="R", rank=5, board=True,
           words=N_("turn random roll")),
    Action("spin often", lambda p, ts: _("a thousand times"), "refresh-cw", spin_often, only(Spinner), rank=6,
           board=True, words=N_("many trials simulate")),
    Action("spinner tally", lambda p, ts: _("hide tally") if all("tally" in t.shown for t in ts) else _("show tally"),
           "list", lambda p, ts: toggle_shown(p, ts, "tally", _("Show or hide the tally")), only(Spinner), rank=7,
           board=True, words=N_("count record results")),
    Action("clear spinner", lambda p, ts: _("clear the tally"), "brush-cleaning", clear,
           lambda p, ts: only(Spinner)(p, ts) and any(getattr(t, "tally", ()) for t in ts), rank=8, words=N_("reset")),
)  # fmt: skip
