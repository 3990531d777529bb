"""A fraction of a set: so many things in equal groups, some of the groups taken."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from typing import ClassVar, Self

from larch.core.base.shape import Box, Point, along
from larch.core.base.words import N_, _
from larch.core.model.capabilities import HasLabels, HasParts, WorksLocked
from larch.core.model.fact import Fact, number_text, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

DOT, GAP = 44.0, 16.0  # of a thing, and between groups
ACROSS = 4  # things in a row of a group
FOOT = 54.0
MOST = 100


class FractionSet(HasLabels, HasParts, WorksLocked, Thing, frozen=True, kw_only=True, tag="fraction set"):
    """count: of all things; groups_count: how many equal groups; filled: the groups that are taken, from 0. Raises
    ValueError unless the groups are equal."""

    count: int = 12
    groups_count: int = 4
    filled: tuple[int, ...] = (0,)

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "grid-2x2"
    order: ClassVar[int] = 17
    help: ClassVar[str] = N_("Tap a group to take it: the fraction of the whole set, and how many that is, are said.")

    def __post_init__(self) -> None:
        if not 1 <= self.groups_count <= self.count <= MOST or self.count % self.groups_count:
            raise ValueError("a set is parted into equal groups")
        if list(self.filled) != sorted(set(self.filled)) or not all(0 <= k < self.groups_count for k in self.filled):
            raise ValueError("groups are taken once, in their order")

    @classmethod
    def title(cls) -> str:
        return _("fraction of a set")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("fraction of a set amount groups share quarter third of")
        yield ShelfItem("fraction set", _("fraction of a set"), N_("Fractions"), cls, words)

    def label(self, page: Page) -> str:
        return self.name or self.sentence()

    def sentence(self) -> str:
        text = f"{len(self.filled)}/{self.groups_count}"
        return _("{fraction} of {whole} is {part}").format(fraction=text, whole=self.count, part=self.part())

    def size(self) -> int:
        """Things in a group."""
        return self.count // self.groups_count

    def part(self) -> int:
        """Things that are taken."""
        return len(self.filled) * self.size()

    def group_box(self, k: int) -> Box:
        across = min(self.size(), ACROSS)
        wide, high = across * DOT + 12, -(-self.size() // across) * DOT + 12
        columns = max(1, min(self.groups_count, int(900 // (wide + GAP))))
        row, column = divmod(k, columns)
        x, y = column * (wide + GAP), row * (high + GAP)
        return Box(x, y, x + wide, y + high)

    def extent(self) -> Box:
        boxes = [self.group_box(k) for k in range(self.groups_count)]
        return Box(0, 0, max(max(box.x1 for box in boxes), 300.0), max(box.y1 for box in boxes) + FOOT)

    def facts(self, page: Page) -> Iterator[Fact]:
        text = f"{len(self.filled)}/{self.groups_count}"
        yield Fact("value", text, text=text, label=_("fraction"), set=self._set_value)
        yield Fact("part", self.part(), text=str(self.part()), label=_("that is"))
        yield Fact("count", self.count, text=str(self.count), label=_("things"), set=self._set_count)
        groups = str(self.groups_count)
        yield Fact("parts", self.groups_count, text=groups, label=_("equal groups"), set=self._set_groups)
        yield Fact("taken", len(self.filled), text=str(len(self.filled)), label=_("groups taken"), set=self._set_taken)
        value = Fraction(len(self.filled), self.groups_count)
        yield Fact("simplest", str(value), text=str(value), label=_("in lowest terms"))
        percent = float(100 * value)
        yield Fact("percent", percent, "%", f"{number_text(percent, 2)} %", _("in percent"))

    def _set_count(self, typed: str) -> Thing:
        count = read_whole(typed, 1, MOST)
        if count % self.groups_count:
            raise ValueError(_("{n} things can't be parted into {m} equal groups.").format(n=count, m=self.groups_count))
        return self.replace(count=count)  # type: ignore[no-any-return]

    def _set_groups(self, typed: str) -> Thing:
        groups = read_whole(typed, 1, self.count)
        if self.count % groups:
            raise ValueError(_("{n} things can't be parted into {m} equal groups.").format(n=self.count, m=groups))
        return self.replace(groups_count=groups, filled=tuple(k for k in self.filled if k < groups))  # type: ignore[no-any-return]

    def _set_taken(self, typed: str) -> Thing:
        return self.replace(filled=tuple(range(read_whole(typed, 0, self.groups_count))))  # type: ignore[no-any-return]

    def _set_value(self, typed: str) -> Thing:
        head, slash, below = typed.partition("/")
        if not slash:
            raise ValueError(_("Write a fraction, such as 3/4."))
        changed = self._set_groups(below)
        assert isinstance(changed, FractionSet)
        return changed._set_taken(head)

    # Groups: "0" …

    def parts(self) -> tuple[str, ...]:
        return tuple(map(str, range(self.groups_count)))

    def part_place(self, part: str) -> Point:
        return self.group_box(int(part)).centre

    def part_at(self, x: float, y: float, slack: float) -> str:
        near = min(slack, GAP / 2)
        return next((str(k) for k in range(self.groups_count) if self.group_box(k).grown(near).holds(x, y)), "")

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        over = {self.part_at(*at, 0) for at in along(before, to, DOT / 3)} - {""}
        return self.replace(filled=tuple(sorted({*self.filled, int(part), *map(int, over)})))  # type: ignore[no-any-return]

    def tap_part(self, part: str, at: Point) -> Self:
        return self.replace(filled=tuple(sorted(set(self.filled) ^ {int(part)})))  # type: ignore[no-any-return]

    def part_label(self, part: str) -> str:
        return _("Take groups")
