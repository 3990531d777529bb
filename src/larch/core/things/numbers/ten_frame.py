"""Frames of five, ten and twenty cells: counters lie in them, of two colours."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import partial
from typing import ClassVar, Self

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only
from larch.core.model.capabilities import Counts, HasLabels, HasParts, HasPlaces, HoldsOthers, Sounds, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_whole
from larch.core.model.holders import inside
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing
from larch.core.things.numbers.counter import Counter

CELL = 82.0
ROW = 5
FOOT = 56.0  # below the frame, for its sum
SIZES = (5, 10, 20)
GAP = 16.0  # between the tens of a double frame


class TenFrame(
    HasLabels,
    HasParts,
    HasPlaces,
    HoldsOthers,
    Counts,
    Sounds,
    WorksLocked,
    Thing,
    frozen=True,
    kw_only=True,
    tag="ten frame",
):
    """cells: what lies in each, 0 nothing, 1 a counter, 2 one with its second side up. Raises ValueError for other numbers
    of cells than 5, 10 and 20."""

    cells: tuple[int, ...] = (0,) * 10
    lifted: tuple[tuple[int, int, float, float], ...] = ()

    icon: ClassVar[str] = "grid-2x2"
    order: ClassVar[int] = 12
    help: ClassVar[str] = N_(
        "Tap a cell to lay a counter into it, a counter to turn it over; drag one to another cell, or out of the frame to "
        "take it away. Loose counters that are dropped in count, too."
    )

    def __post_init__(self) -> None:
        if len(self.cells) not in SIZES or not set(self.cells) <= {0, 1, 2}:
            raise ValueError("a frame has 5, 10 or 20 cells")
        if not all(0 <= cell < len(self.cells) and what in (1, 2) for cell, what, _x, _y in self.lifted):
            raise ValueError("what is lifted came from a cell")

    @classmethod
    def title(cls) -> str:
        return _("ten frame")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("ten frame five frame twenty counters make ten number bonds")
        yield ShelfItem("ten frame", _("ten frame"), N_("Blocks"), cls, words)
        yield ShelfItem("five frame", _("five frame"), N_("Blocks"), partial(cls, cells=(0,) * 5), words)
        yield ShelfItem("double ten frame", _("double ten frame"), N_("Blocks"), partial(cls, cells=(0,) * 20), words)
        yield ShelfItem(
            "ten frame with counters", _("ten frame with counters"), N_("Blocks"), cls, words, several=with_supply
        )

    def label(self, page: Page) -> str:
        return self.name or _("frame with {n} of {cells}").format(n=self.worth(), cells=len(self.cells))

    def cell_box(self, k: int) -> Box:
        row, column = divmod(k, ROW)
        y = row * CELL + (GAP if row > 1 else 0.0)
        return Box(column * CELL, y, (column + 1) * CELL, y + CELL)

    def frame(self) -> Box:
        last = self.cell_box(len(self.cells) - 1)
        return Box(0, 0, last.x1, last.y1)

    def extent(self) -> Box:
        frame = self.frame()
        return frame._replace(y1=frame.y1 + FOOT)

    def places(self) -> Sequence[Point]:
        return [self.cell_box(k).centre for k, cell in enumerate(self.cells) if not cell]

    def keeps(self, thing: Thing) -> bool:
        return False

    def worth(self) -> int:
        return sum(cell > 0 for cell in self.cells) + len(self.lifted)

    def loose(self, page: Page) -> list[Counter]:
        """Counters of the page that lie in it."""
        found = [thing for thing in inside(page, self) if isinstance(thing, Counter) and not thing.supply]
        return [one for one in found if self.frame().holds(*self.placement.to_local(*one.box().centre))]

    def both(self, page: Page) -> tuple[int, int]:
        """How many show their first side and how many the second."""
        loose = self.loose(page)
        second = self.cells.count(2) + sum(counter.second for counter in loose)
        return self.worth() + len(loose) - second, second

    def sum_text(self, page: Page) -> str:
        first, second = self.both(page)
        return f"{first} + {second} = {first + second}" if first and second else str(first + second)

    def facts(self, page: Page) -> Iterator[Fact]:
        first, second = self.both(page)
        value = first + second
        yield Fact("value", value, text=str(value), label=_("counters"), badge="value", set=self._set_value)
        yield Fact("first", first, text=str(first), label=_("first side"))
        yield Fact("second", second, text=str(second), label=_("second side"))
        free = len(self.cells) - value
        yield Fact("free", free, text=str(free), label=_("free cells"))
        yield Fact("sum", self.sum_text(page), text=self.sum_text(page), label=_("sum"))
        yield Fact("cells", len(self.cells), text=str(len(self.cells)), label=_("cells"), set=self._set_cells)

    def _set_value(self, typed: str) -> Thing:
        value = read_whole(typed, 0, len(self.cells))
        return self.replace(cells=tuple(int(k < value) for k in range(len(self.cells))))  # type: ignore[no-any-return]

    def _set_cells(self, typed: str) -> Thing:
        count = read_whole(typed, 5, 20)
        if count not in SIZES:
            raise ValueError(_("A frame has 5, 10 or 20 cells."))
        return self.replace(cells=(*self.cells, *(0,) * count)[:count])  # type: ignore[no-any-return]

    # Cells: "0" …; a counter in the hand is in the cell over which it is.

    def parts(self) -> tuple[str, ...]:
        return tuple(map(str, range(len(self.cells))))

    def part_place(self, part: str) -> Point:
        return self.cell_box(int(part)).centre

    def part_at(self, x: float, y: float, slack: float) -> str:
        return next((str(k) for k in range(len(self.cells)) if self.cell_box(k).holds(x, y)), "")

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        """The counter leaves its cell and goes with the finger."""
        cell = int(part)
        rest = tuple(one for one in self.lifted if one[0] != cell)
        held = next((one[1] for one in self.lifted if one[0] == cell), self.cells[cell])
        if not held:
            return self
        return self.with_cell(cell, 0).replace(lifted=(*rest, (cell, held, *to)))  # type: ignore[no-any-return]

    def part_let_go(self, part: str) -> Self:
        """It falls into the free cell below it; out of the frame it goes away; else it goes back."""
        cell = int(part)
        held = next((one for one in self.lifted if one[0] == cell), None)
        if held is None:
            return self
        freed: Self = self.replace(lifted=tuple(one for one in self.lifted if one is not held))
        over = self.part_at(held[2], held[3], 0)
        if over and not self.cells[int(over)]:
            return freed.with_cell(int(over), int(held[1]))
        if not over and not self.frame().grown(CELL / 2).holds(held[2], held[3]):
            return freed
        return freed.with_cell(cell, int(held[1]))

    def tap_part(self, part: str, at: Point) -> Self:
        now = self.cells[int(part)]
        return self.with_cell(int(part), 1 if now == 0 else 3 - now)

    def with_cell(self, k: int, what: int) -> Self:
        return self.replace(cells=(*self.cells[:k], what, *self.cells[k + 1 :]))  # type: ignore[no-any-return]

    def part_label(self, part: str) -> str:
        return _("Lay counters")

    def sounds_since(self, before: Thing) -> tuple[str, ...]:
        return ("click",) if isinstance(before, TenFrame) and before.cells != self.cells else ()

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def with_supply() -> Sequence[Thing]:
    frame = TenFrame()
    return [frame, Counter(supply=True, placement=Placement(frame.frame().x1 + 40, 20))]


def _more(page: Page, things: Things, by: int) -> Edit:
    changed: dict[str, Thing] = {}
    for frame in things:
        if isinstance(frame, TenFrame):
            cells = list(frame.cells)
            if by > 0 and 0 in cells:
                cells[cells.index(0)] = 1
            elif by < 0 and any(cells):
                cells[max(k for k, cell in enumerate(cells) if cell)] = 0
            changed[frame.id] = frame.replace(cells=tuple(cells))
    return Edit(_("One more") if by > 0 else _("One fewer"), page, page.with_things(changed))


def _empty(page: Page, things: Things) -> Edit:
    changed = {t.id: t.replace(cells=(0,) * len(t.cells)) for t in things if isinstance(t, TenFrame)}
    return Edit(_("Empty"), page, page.with_things(changed))


ACTIONS = (
    Action("one counter more", lambda p, ts: _("one more"), "plus", lambda p, ts: _more(p, ts, 1), only(TenFrame), rank=5,
           shortcut="+", board=True, words=N_("add count up")),
    Action("one counter fewer", lambda p, ts: _("one fewer"), "minus", lambda p, ts: _more(p, ts, -1), only(TenFrame),
           rank=6, shortcut="-", board=True, words=N_("subtract count down")),
    Action("empty frame", lambda p, ts: _("empty it"), "brush-cleaning", _empty, only(TenFrame), rank=7, board=True,
           words=N_("clear zero reset")),
)  # fmt: skip
