"""Marks that are stamped: dots, ticks, stars, lanterns. They are things, so they are counted and survive a wipe."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from typing import ClassVar

from larch.core.base.shape import Box, Placement, Point, union
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Fold, Things, ids_of, only
from larch.core.model.capabilities import Counts
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, measure, read_number
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

MARKS: dict[str, Callable[[], str]] = {
    "dot": lambda: _("dot"),
    "tick": lambda: _("tick"),
    "cross": lambda: _("cross"),
    "star": lambda: _("star"),
    "ring": lambda: _("ring"),
    "lantern": lambda: _("lantern"),
}
SMALLEST, LARGEST = 8.0, 400.0
MOST = 400  # marks in one row


class Mark(Counts, Thing, frozen=True, kw_only=True, tag="mark"):
    """shape: one of MARKS; size: of the square it fills, page units. Raises ValueError for a size out of range."""

    shape: str = "dot"
    size: float = 40.0
    hue: str = "clay"

    icon: ClassVar[str] = "stamp"
    order: ClassVar[int] = 65
    help: ClassVar[str] = N_(
        "Stamp sets one mark for each tap; drag for a row with even gaps. Selected marks are counted. "
        "Wipe and the eraser leave them."
    )

    def __post_init__(self) -> None:
        if not SMALLEST <= self.size <= LARGEST:
            raise ValueError("a mark must have a size that can be seen")

    @classmethod
    def title(cls) -> str:
        return _("mark")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        for shape, word in MARKS.items():
            yield ShelfItem(f"mark {shape}", word(), N_("Words"), _maker(shape), _("stamp mark sticker count counter"))

    def label(self, page: Page) -> str:
        return self.name or (MARKS[self.shape]() if self.shape in MARKS else self.shape) or self.title()

    def extent(self) -> Box:
        half = self.size / 2
        return Box(-half, -half, half, half)

    def worth(self) -> int | None:
        return 1

    def facts(self, page: Page) -> Iterator[Fact]:
        def set_shape(typed: str) -> Thing:
            if typed not in MARKS:
                raise ValueError(_("“{typed}” is none of the choices.").format(typed=typed[:40]))
            changed: Thing = self.replace(shape=typed)
            return changed

        def set_size(typed: str) -> Thing:
            size = read_number(typed) * page.unit / self.placement.scale
            if not SMALLEST <= size <= LARGEST:
                limits = _("It can be from {least} to {most} cm.")
                raise ValueError(limits.format(least=f"{SMALLEST / page.unit:.3g}", most=f"{LARGEST / page.unit:.3g}"))
            changed: Thing = self.replace(size=size)
            return changed

        shapes = tuple((name, word()) for name, word in MARKS.items())
        yield Fact("shape", self.shape, "", self.label(page), _("mark"), "", set_shape, shapes)
        size = self.size * self.placement.scale / page.unit
        yield measure("size", size, "cm", _("size"), 3, set=set_size)

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _maker(shape: str) -> Callable[[], Thing]:
    return lambda: Mark(shape=shape, hue="moss" if shape == "tick" else "berry" if shape in ("cross", "lantern") else "clay")


def row(start: Point, end: Point, gap: float) -> list[Point]:
    """Places a gap apart from a start towards an end: at least one, at most MOST."""
    away = math.dist(start, end)
    count = min(MOST, int(away / gap + 1e-9) + 1) if gap > 0 else 1
    if count == 1:
        return [start]
    across, down = (end[0] - start[0]) / away * gap, (end[1] - start[1]) / away * gap
    return [(start[0] + k * across, start[1] + k * down) for k in range(count)]


def stamped(page: Page, places: Sequence[Point], pattern: Sequence[Thing], size: float) -> Edit:
    """Sets a copy of a pattern at each place, `size` across. The parts of one copy are a group."""
    made: list[Thing] = []
    for number, place in enumerate(places):
        made += placed(pattern, place, size, f"s{page.next}.{number}")
    return Edit(_("Stamp"), page, page.put(*made), select=())


def placed(pattern: Sequence[Thing], at: Point, size: float, group: str = "") -> list[Thing]:
    """A pattern about a point, `size` across at its longer side."""
    if len(pattern) == 1 and isinstance(pattern[0], Mark):
        only_one: Thing = pattern[0].replace(size=min(LARGEST, max(SMALLEST, size)), placement=Placement(*at))
        return [only_one]
    box = union(thing.box() for thing in pattern)
    longest = max(box.width, box.height)
    factor = size / longest if longest > 0 else 1.0
    cx, cy = box.centre
    made = []
    for thing in pattern:
        place = thing.placement.enlarged(factor, (cx, cy)).moved(at[0] - cx, at[1] - cy)
        made.append(thing.replace(placement=place, groups=(group,) if len(pattern) > 1 else (), locked=False, supply=False))
    return made


def _same_shape(shape: str) -> Callable[[Page, Things], Edit]:
    def run(page: Page, things: Things) -> Edit:
        return Edit(_("Change the mark"), page, page.changing(ids_of(things), lambda t: t.replace(shape=shape)))

    return run


def _label(shape: str) -> Callable[[Page, Things], str]:
    return lambda page, things: _("as {mark}").format(mark=MARKS[shape]())


MARK = Fold("mark", N_("another mark"), "stamp")
ACTIONS = tuple(
    Action(
        f"mark {shape}",
        _label(shape),
        f"mark-{shape}",
        _same_shape(shape),
        only(Mark),
        rank=66,
        fold=MARK,
        words=N_("stamp change"),
    )
    for shape in MARKS
)
