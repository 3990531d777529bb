"""An abacus: beads on upright rods, one rod for each place of a number."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import partial
from operator import le
from typing import ClassVar, Self

from larch.core.base.number_words import PLACES
from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Fold, Things, only
from larch.core.model.capabilities import Counts, HasLabels, HasParts, Sounds, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_number
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing
from larch.core.model.written_on import TakesNumbers, WrittenSign

BEADS = 10  # on a rod
MOST_PLACES = 7
BEAD, WIDE = 26.0, 72.0  # height and width of a bead, page units
STEP = 84.0  # between rods
GAP = 60.0 / BEAD  # how far a bead can slide, in its own heights
FIVES = 7.0  # between the lower five beads of a rod and the upper five
EDGE, SIDE = 9.0, 16.0  # the frame, and how far the first rod's room is from its outer edge
HEAD, FOOT = 78.0, 46.0  # above the frame, for digits, and below it, for the names of the places
ROD = BEADS * BEAD + FIVES + GAP * BEAD  # how long the rods are
LOWEST, HIGHEST = tuple(range(BEADS)), tuple(k + GAP for k in range(BEADS))  # where the beads of a rod can be

Slide = tuple[float, ...]


class Abacus(HasLabels, HasParts, Counts, Sounds, TakesNumbers, WorksLocked, Thing, frozen=True, kw_only=True, tag="abacus"):
    """counts: how many beads are up on each rod, the highest place first. slide: while beads are in the hand, how far up
    each bead of each rod is, from the lowest, in heights of a bead. Raises ValueError for counts that no rod can hold."""

    counts: tuple[int, ...] = (0, 0, 0)
    slide: tuple[Slide, ...] = ()
    hue: str = "slate"

    icon: ClassVar[str] = "abacus"
    order: ClassVar[int] = 12
    help: ClassVar[str] = N_(
        "Slide a bead with a finger, or tap it: those in front of it go along. Beads that are up count, each rod for its "
        "place. Ten of one place can be exchanged for one of the next."
    )

    def __post_init__(self) -> None:
        if not 1 <= len(self.counts) <= MOST_PLACES or not all(0 <= count <= BEADS for count in self.counts):
            raise ValueError("a rod of an abacus has ten beads")
        if self.slide and not (
            len(self.slide) == len(self.counts)
            and all(len(rod) == BEADS and all(map(le, LOWEST, rod)) and all(map(le, rod, HIGHEST)) for rod in self.slide)
        ):
            raise ValueError("beads stay on their rods")

    @classmethod
    def title(cls) -> str:
        return _("abacus")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("beads counting frame place value number rods")
        yield ShelfItem("abacus", _("abacus"), N_("Blocks"), cls, words)
        yield ShelfItem("abacus 5", _("abacus to 99 999"), N_("Blocks"), partial(cls, counts=(0,) * 5), words)

    def label(self, page: Page) -> str:
        return self.name or _("abacus that shows {n}").format(n=self.worth())

    def extent(self) -> Box:
        return Box(0, 0, len(self.counts) * STEP + 2 * SIDE, HEAD + 2 * EDGE + ROD + FOOT)

    def rod_x(self, rod: int) -> float:
        return SIDE + (rod + 0.5) * STEP

    def beads(self, rod: int) -> Slide:
        """How far up each bead of a rod is, from the lowest, in heights of a bead."""
        if self.slide:
            return self.slide[rod]
        low = BEADS - self.counts[rod]
        return tuple(k + (GAP if k >= low else 0.0) for k in range(BEADS))

    def frame(self) -> Box:
        """The outer edge of the frame."""
        return Box(0, HEAD, len(self.counts) * STEP + 2 * SIDE, HEAD + 2 * EDGE + ROD)

    def bead_y(self, bead: int, at: float) -> float:
        """The middle of a bead that is so far up, in its own coordinates."""
        return HEAD + EDGE + ROD - (at + 0.5) * BEAD - (FIVES if bead >= BEADS // 2 else 0.0)

    def shown_counts(self) -> tuple[int, ...]:
        """How many beads are up, also while one is in the hand: those beyond the middle of their way."""
        if not self.slide:
            return self.counts
        return tuple(sum(at - k > GAP / 2 for k, at in enumerate(rod)) for rod in self.slide)

    def worth(self) -> int:
        found = 0
        for count in self.shown_counts():
            found = 10 * found + count
        return found

    def facts(self, page: Page) -> Iterator[Fact]:
        value = self.worth()
        yield Fact("value", value, text=str(value), label=_("value"), badge="value", set=self._set_value)
        for rod, count in enumerate(self.shown_counts()):
            name = PLACES[len(self.counts) - 1 - rod]
            yield Fact(name, count, text=str(count), label=_(name), set=partial(self._set_count, rod))
        yield Fact("places", len(self.counts), text=str(len(self.counts)), label=_("rods"), set=self._set_places)

    def showing(self, value: int) -> Self:
        """With a value set, written with as few beads as there are."""
        if not 0 <= value < 10 ** len(self.counts):
            raise ValueError(_("This abacus shows 0 to {most}.").format(most=10 ** len(self.counts) - 1))
        digits = str(value).zfill(len(self.counts))
        return self.replace(counts=tuple(map(int, digits)), slide=())  # type: ignore[no-any-return]

    def number_written(self, page: Page, text: str, signs: Sequence[WrittenSign], hue: str) -> Page:
        """Digits each at a rod of its own count there; else it is the number that it shows."""
        rods = [int((self.placement.to_local(*sign.box.centre)[0] - SIDE) // STEP) for sign in signs]
        apart = len(set(rods)) == len(rods) and all(0 <= rod < len(self.counts) for rod in rods)
        if apart and all(sign.text.isdecimal() and len(sign.text) == 1 for sign in signs):
            counts = list(self.counts)
            for rod, sign in zip(rods, signs, strict=True):
                counts[rod] = int(sign.text)
            return page.with_things({self.id: self.replace(counts=tuple(counts), slide=())})
        return page.with_things({self.id: self._set_value(text)})

    def _set_value(self, typed: str) -> Thing:
        return self.showing(_whole(typed))

    def _set_count(self, rod: int, typed: str) -> Thing:
        count = _whole(typed)
        if not 0 <= count <= BEADS:
            raise ValueError(_("A rod has 0 to {most} beads up.").format(most=BEADS))
        changed: Thing = self.replace(counts=(*self.counts[:rod], count, *self.counts[rod + 1 :]), slide=())
        return changed

    def _set_places(self, typed: str) -> Thing:
        places = _whole(typed)
        if not 1 <= places <= MOST_PLACES:
            raise ValueError(_("An abacus has 1 to {most} rods.").format(most=MOST_PLACES))
        padded = (*(0,) * places, *self.counts)[-places:]
        changed: Thing = self.replace(counts=padded, slide=())
        return changed

    # Beads in the hand. A part is called by its rod and its number from below: "2:4".

    def parts(self) -> tuple[str, ...]:
        return tuple(f"{rod}:{bead}" for rod in range(len(self.counts)) for bead in range(BEADS))

    def part_place(self, part: str) -> Point:
        rod, bead = map(int, part.split(":"))
        return (self.rod_x(rod), self.bead_y(bead, self.beads(rod)[bead]))

    def part_at(self, x: float, y: float, slack: float) -> str:
        rod = int((x - SIDE) // STEP)
        if not 0 <= rod < len(self.counts) or abs(x - self.rod_x(rod)) > WIDE / 2 + slack:
            return ""
        distances = [(abs(y - self.bead_y(k, at)), k) for k, at in enumerate(self.beads(rod))]
        away, bead = min(distances)
        return f"{rod}:{bead}" if away <= BEAD / 2 + slack else ""

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        """The bead goes with the hand, and pushes those in front of it along."""
        rod, bead = map(int, part.split(":"))
        now = list(self.beads(rod))
        at = min(max(now[bead] + (before[1] - to[1]) / BEAD, bead), bead + GAP)
        for k in range(BEADS):
            pushed = at + k - bead
            now[k] = at if k == bead else max(now[k], pushed) if k > bead else min(now[k], pushed)
            now[k] = min(max(now[k], k), k + GAP)  # the last digits of sums
        rods = tuple(tuple(now) if k == rod else self.beads(k) for k in range(len(self.counts)))
        return self.replace(slide=rods)  # type: ignore[no-any-return]

    def part_let_go(self, part: str) -> Self:
        return self.replace(counts=self.shown_counts(), slide=())  # type: ignore[no-any-return]

    def tap_part(self, part: str, at: Point) -> Self:
        """The bead goes to the other end of its way, with those in front of it."""
        rod, bead = map(int, part.split(":"))
        up = bead >= BEADS - self.counts[rod]
        count = BEADS - bead - 1 if up else BEADS - bead
        return self.replace(counts=(*self.counts[:rod], count, *self.counts[rod + 1 :]), slide=())  # type: ignore[no-any-return]

    def part_label(self, part: str) -> str:
        return _("Slide beads")

    def sounds_since(self, before: Thing) -> tuple[str, ...]:
        return ("click",) if isinstance(before, Abacus) and before.counts != self.counts else ()

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _whole(typed: str) -> int:
    value = read_number(typed)
    if value != int(value):
        raise ValueError(_("Beads are counted in whole numbers."))
    return int(value)


def _each(page: Page, things: Things, label: str, by: int | None) -> Edit:
    """Each shows `by` more than now, or nothing. Raises ValueError where that can't be shown."""
    changed = {t.id: t.showing(0 if by is None else t.worth() + by) for t in things if isinstance(t, Abacus)}
    return Edit(label, page, page.with_things(changed))


def full_rod(abacus: Thing) -> int | None:
    """The lowest place with ten beads up that has room for one more in the next; None if there is none."""
    if not isinstance(abacus, Abacus):
        return None
    counts = abacus.counts
    return next((k for k in range(len(counts) - 1, 0, -1) if counts[k] == BEADS and counts[k - 1] < BEADS), None)


def exchange(page: Page, things: Things) -> Edit:
    """Ten beads of a place go down, and one of the next goes up."""
    changed: dict[str, Thing] = {}
    for thing in things:
        rod = full_rod(thing)
        if rod is not None and isinstance(thing, Abacus):
            counts = list(thing.counts)
            counts[rod - 1], counts[rod] = counts[rod - 1] + 1, 0
            changed[thing.id] = thing.replace(counts=tuple(counts), slide=())
    return Edit(_("Exchange ten for one"), page, page.with_things(changed))


COUNT = Fold("count", N_("count"), "list-ordered")
ACTIONS = (
    Action("exchange beads", lambda p, ts: _("exchange ten for one"), "combine", exchange,
           lambda p, ts: any(full_rod(t) is not None for t in ts), rank=5, board=True,
           words=N_("regroup carry trade")),
    Action("no beads", lambda p, ts: _("all beads down"), "brush-cleaning", lambda p, ts: _each(p, ts, _("Clear"), None),
           only(Abacus), rank=6, board=True, words=N_("clear zero reset")),
    Action("one bead more", lambda p, ts: _("one more"), "plus", lambda p, ts: _each(p, ts, _("One more"), 1),
           only(Abacus), rank=55, fold=COUNT, shortcut="+", board=True, words=N_("add count up")),
    Action("one bead fewer", lambda p, ts: _("one fewer"), "minus", lambda p, ts: _each(p, ts, _("One fewer"), -1),
           only(Abacus), rank=55, fold=COUNT, shortcut="-", board=True, words=N_("subtract count down")),
)  # fmt: skip
