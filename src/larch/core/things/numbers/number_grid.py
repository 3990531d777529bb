"""A grid of numbers: of any start, step and width, with multiples marked in three ways, and numbers covered."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from functools import partial
from typing import ClassVar, Self

from larch.core.base.shape import Box, Point, along
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, set_all
from larch.core.model.capabilities import HasParts, HasPlaces, HoldsOthers, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, number_text, read_number, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

CELL = 56.0
FOOT = 52.0  # below the grid, for what the marks mean
MOST_ACROSS, MOST_CELLS = 20, 400
MOST_SETS = 3  # of multiples at once: tint and corner, ring, bar


class NumberGrid(HasParts, HasPlaces, HoldsOthers, WorksLocked, Thing, frozen=True, kw_only=True, tag="number grid"):
    """start, step: of its numbers; columns, rows. multiples: of which all are marked. marked, covered: cells, from 0.

    Raises ValueError where these don't fit.
    """

    start: float = 1.0
    step: float = 1.0
    columns: int = 10
    rows: int = 10
    multiples: tuple[int, ...] = ()
    marked: tuple[int, ...] = ()
    covered: tuple[int, ...] = ()

    icon: ClassVar[str] = "grid-3x3"
    order: ClassVar[int] = 13
    help: ClassVar[str] = N_(
        "Tap a number to mark it, drag over several to mark them all. Type which multiples are to be seen, such as 4 6; "
        "cover it all and let the class uncover numbers one by one; sieve it to leave the primes."
    )

    def __post_init__(self) -> None:
        cells = self.columns * self.rows
        if not (1 <= self.columns <= MOST_ACROSS and self.rows >= 1 and cells <= MOST_CELLS):
            raise ValueError("a grid has up to 20 columns and 400 cells")
        if not (
            math.isfinite(self.start) and math.isfinite(self.step) and abs(self.start) < 1e9 and 1e-6 < abs(self.step) < 1e6
        ):
            raise ValueError("a grid counts on")
        if len(self.multiples) > MOST_SETS or not all(1 <= n <= 10**6 for n in self.multiples):
            raise ValueError("up to three sets of multiples are marked")
        if not all(0 <= cell < cells for cell in (*self.marked, *self.covered)):
            raise ValueError("only its own cells are marked or covered")

    @classmethod
    def title(cls) -> str:
        return _("number grid")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("hundred square grid multiples times table sieve primes patterns count")
        yield ShelfItem("number grid", _("number grid to 100"), N_("Numbers"), cls, words)
        yield ShelfItem("number grid 0–99", _("number grid 0 to 99"), N_("Numbers"), partial(cls, start=0.0), words)
        tenths = partial(cls, start=0.1, step=0.1, rows=5)
        yield ShelfItem("number grid of tenths", _("number grid of tenths"), N_("Numbers"), tenths, words)

    def label(self, page: Page) -> str:
        return self.name or _("number grid {first} to {last}").format(first=self.text(0), last=self.text(self.count() - 1))

    def count(self) -> int:
        return self.columns * self.rows

    def number(self, cell: int) -> float:
        return round(self.start + cell * self.step, 9)

    def text(self, cell: int) -> str:
        return number_text(self.number(cell), 6)

    def cell_box(self, cell: int) -> Box:
        row, column = divmod(cell, self.columns)
        return Box(column * CELL, row * CELL, (column + 1) * CELL, (row + 1) * CELL)

    def grid(self) -> Box:
        return Box(0, 0, self.columns * CELL, self.rows * CELL)

    def extent(self) -> Box:
        grid = self.grid()
        return grid._replace(y1=grid.y1 + (FOOT if self.multiples else 0.0))

    def places(self) -> Sequence[Point]:
        return [self.cell_box(cell).centre for cell in range(self.count())]

    def is_multiple(self, cell: int, of: int) -> bool:
        number = self.number(cell)
        return number != 0 and number == round(number) and round(number) % of == 0

    def facts(self, page: Page) -> Iterator[Fact]:
        total = sum(self.number(cell) for cell in self.marked)
        value = round(total, 9)
        yield Fact("value", value, text=number_text(value, 6), label=_("sum of the marked"))
        yield Fact("marked", len(self.marked), text=str(len(self.marked)), label=_("marked"))
        text = " ".join(map(str, self.multiples))
        yield Fact("multiples", text, text=text, label=_("multiples of"), set=self._set_multiples, hint=_("such as 4 6"))
        for of in self.multiples:
            count = sum(self.is_multiple(cell, of) for cell in range(self.count()))
            yield Fact(f"multiples of {of}", count, text=str(count), label=_("multiples of {n}").format(n=of))
        if len(self.multiples) > 1:
            common = [self.text(c) for c in range(self.count()) if all(self.is_multiple(c, of) for of in self.multiples)]
            yield Fact("common", ", ".join(common), text=", ".join(common) or _("none"), label=_("common multiples"))
        yield Fact("start", self.start, text=number_text(self.start, 6), label=_("starts at"), set=self._set_start)
        yield Fact("step", self.step, text=number_text(self.step, 6), label=_("step"), set=self._set_step)
        yield Fact("columns", self.columns, text=str(self.columns), label=_("columns"), set=self._set_columns)
        yield Fact("rows", self.rows, text=str(self.rows), label=_("rows"), set=self._set_rows)

    def _set_multiples(self, typed: str) -> Thing:
        words = typed.replace(",", " ").replace(";", " ").split()
        if len(words) > MOST_SETS:
            raise ValueError(_("Up to {n} sets of multiples are shown at once.").format(n=MOST_SETS))
        return self.replace(multiples=tuple(read_whole(word, 1, 10**6) for word in words))  # type: ignore[no-any-return]

    def _set_start(self, typed: str) -> Thing:
        return self._sized(start=read_number(typed))

    def _set_step(self, typed: str) -> Thing:
        step = read_number(typed)
        if not step:
            raise ValueError(_("The step can't be zero."))
        return self._sized(step=step)

    def _set_columns(self, typed: str) -> Thing:
        return self._sized(columns=read_whole(typed, 1, min(MOST_ACROSS, MOST_CELLS // self.rows)))

    def _set_rows(self, typed: str) -> Thing:
        return self._sized(rows=read_whole(typed, 1, MOST_CELLS // self.columns))

    def _sized(self, **changes: float) -> Self:
        try:
            return self.replace(marked=(), covered=(), **changes)  # type: ignore[no-any-return]
        except ValueError as error:
            raise ValueError(_("Such a grid can't be made.")) from error

    # Cells

    def parts(self) -> tuple[str, ...]:
        return tuple(map(str, range(self.count())))

    def part_place(self, part: str) -> Point:
        return self.cell_box(int(part)).centre

    def part_at(self, x: float, y: float, slack: float) -> str:
        if not self.grid().holds(x, y):
            return ""
        return str(min(int(y / CELL), self.rows - 1) * self.columns + min(int(x / CELL), self.columns - 1))

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        over = {self.part_at(*at, 0) for at in along(before, to, CELL / 3)} - {""}
        cells = {int(part), *map(int, over)}
        if self.covered:
            return self.replace(covered=tuple(cell for cell in self.covered if cell not in cells))  # type: ignore[no-any-return]
        return self.replace(marked=tuple(sorted(set(self.marked) | cells)))  # type: ignore[no-any-return]

    def tap_part(self, part: str, at: Point) -> Self:
        """A covered number is uncovered; any other is marked, or not any more."""
        cell = int(part)
        if cell in self.covered:
            return self.replace(covered=tuple(c for c in self.covered if c != cell))  # type: ignore[no-any-return]
        marked = set(self.marked) ^ {cell}
        return self.replace(marked=tuple(sorted(marked)))  # type: ignore[no-any-return]

    def part_label(self, part: str) -> str:
        return _("Uncover numbers") if self.covered else _("Mark numbers")

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _cover(page: Page, things: Things) -> Edit:
    on = not any(getattr(t, "covered", ()) for t in things)
    changed = {t.id: t.replace(covered=tuple(range(t.count())) if on else ()) for t in things if isinstance(t, NumberGrid)}
    return Edit(_("Cover") if on else _("Uncover"), page, page.with_things(changed))


def _clear(page: Page, things: Things) -> Edit:
    return set_all(page, things, _("Clear the grid"), marked=(), covered=(), multiples=())


def _is_prime(number: float) -> bool:
    n = round(number)
    return n == number and n > 1 and all(n % d for d in range(2, math.isqrt(n) + 1))


def _sieve(page: Page, things: Things) -> Edit:
    """Covers all but the primes."""
    changed = {}
    for t in things:
        if isinstance(t, NumberGrid):
            covered = tuple(cell for cell in range(t.count()) if not _is_prime(t.number(cell)))
            changed[t.id] = t.replace(covered=covered, marked=())
    return Edit(_("Sieve"), page, page.with_things(changed))


ACTIONS = (
    Action("cover grid", lambda p, ts: _("uncover") if any(getattr(t, "covered", ()) for t in ts) else _("cover all"),
           "snowflake", _cover, only(NumberGrid), rank=5, board=True, words=N_("hide reveal")),
    Action("sieve", lambda p, ts: _("leave the primes"), "list-checks", _sieve, only(NumberGrid), rank=6,
           words=N_("sieve primes cross out")),
    Action("clear grid", lambda p, ts: _("clear the marks"), "brush-cleaning", _clear, only(NumberGrid), rank=7, board=True,
           words=N_("reset empty")),
)  # fmt: skip
