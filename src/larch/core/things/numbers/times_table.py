"""A times table: products under their factors, to be covered and uncovered one by one."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar, Self

from larch.core.base.shape import Box, Point, along
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only
from larch.core.model.capabilities import HasParts, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

CELL = 54.0
MOST = 20


class TimesTable(HasParts, WorksLocked, Thing, frozen=True, kw_only=True, tag="times table"):
    """rows, columns: the greatest factors. covered: products that are not seen, by their cell from 0. at: the cell whose row
    and column are lit, -1 for none. Raises ValueError where these don't fit."""

    rows: int = 10
    columns: int = 10
    covered: tuple[int, ...] = ()
    at: int = -1

    icon: ClassVar[str] = "x"
    order: ClassVar[int] = 14
    help: ClassVar[str] = N_(
        "Tap a product to light its factors; cover the table and tap to uncover products one by one, or drag over several."
    )

    def __post_init__(self) -> None:
        if not (1 <= self.rows <= MOST and 1 <= self.columns <= MOST) or not -1 <= self.at < self.rows * self.columns:
            raise ValueError("a times table has factors")
        if not all(0 <= cell < self.rows * self.columns for cell in self.covered):
            raise ValueError("only its own products are covered")

    @classmethod
    def title(cls) -> str:
        return _("times table")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("times table multiplication products factors grid")
        yield ShelfItem("times table", _("times table"), N_("Numbers"), cls, words)

    def label(self, page: Page) -> str:
        return self.name or _("times table to {rows} × {columns}").format(rows=self.rows, columns=self.columns)

    def extent(self) -> Box:
        return Box(0, 0, (self.columns + 1) * CELL, (self.rows + 1) * CELL)

    def factors(self, cell: int) -> tuple[int, int]:
        """Row and column, from 1."""
        row, column = divmod(cell, self.columns)
        return row + 1, column + 1

    def cell_box(self, cell: int) -> Box:
        row, column = self.factors(cell)
        return Box(column * CELL, row * CELL, (column + 1) * CELL, (row + 1) * CELL)

    def facts(self, page: Page) -> Iterator[Fact]:
        if self.at >= 0:
            a, b = self.factors(self.at)
            yield Fact("value", a * b, text=f"{a} × {b} = {a * b}", label=_("lit product"))
        else:
            yield Fact("value", None, text="—", label=_("lit product"))
        yield Fact("rows", self.rows, text=str(self.rows), label=_("rows to"), set=self._sets("rows"))
        yield Fact("columns", self.columns, text=str(self.columns), label=_("columns to"), set=self._sets("columns"))
        yield Fact("covered", len(self.covered), text=str(len(self.covered)), label=_("covered"))

    def _sets(self, which: str):  # type: ignore[no-untyped-def]
        return lambda typed: self.replace(**{which: read_whole(typed, 1, MOST)}, covered=(), at=-1)

    # Products: "0" …

    def parts(self) -> tuple[str, ...]:
        return tuple(map(str, range(self.rows * self.columns)))

    def part_place(self, part: str) -> Point:
        return self.cell_box(int(part)).centre

    def part_at(self, x: float, y: float, slack: float) -> str:
        row, column = int(y // CELL), int(x // CELL)
        if not (1 <= row <= self.rows and 1 <= column <= self.columns):
            return ""
        return str((row - 1) * self.columns + column - 1)

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        """Uncovers what the finger goes over."""
        over = {self.part_at(*at, 0) for at in along(before, to, CELL / 3)} - {""}
        cells = {int(part), *map(int, over)}
        return self.replace(covered=tuple(cell for cell in self.covered if cell not in cells))  # type: ignore[no-any-return]

    def tap_part(self, part: str, at: Point) -> Self:
        cell = int(part)
        if cell in self.covered:
            return self.replace(covered=tuple(c for c in self.covered if c != cell), at=cell)  # type: ignore[no-any-return]
        return self.replace(at=-1 if cell == self.at else cell)  # type: ignore[no-any-return]

    def part_label(self, part: str) -> str:
        return _("Show products")

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _cover(page: Page, things: Things) -> Edit:
    on = not any(getattr(t, "covered", ()) for t in things)
    changed: dict[str, Thing] = {}
    for table in things:
        if isinstance(table, TimesTable):
            cells = tuple(range(table.rows * table.columns)) if on else ()
            changed[table.id] = table.replace(covered=cells, at=-1)
    return Edit(_("Cover") if on else _("Uncover"), page, page.with_things(changed))


ACTIONS = (
    Action("cover table", lambda p, ts: _("uncover") if any(getattr(t, "covered", ()) for t in ts) else _("cover all"),
           "snowflake", _cover, only(TimesTable), rank=5, board=True, words=N_("hide reveal products")),
)  # fmt: skip
