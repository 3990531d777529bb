"""Rows and columns of dots, parted into partial products."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import ClassVar, NamedTuple, Self

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only
from larch.core.model.capabilities import Counts, HasLabels, HasParts, Sounds, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

UNIT = 22.0  # from dot to dot, page units
GAP = 14.0  # where it is parted
HEAD, SIDE, FOOT = 44.0, 52.0, 68.0  # for the numbers above, beside and below it
TABLE = 250.0  # for the partial products, to its right
MOST = 40


class Piece(NamedTuple):
    """A part of an array: how many rows and columns, and its edge."""

    rows: int
    columns: int
    box: Box
    place: int  # tens that are multiplied in it, for its hue


class Array(HasLabels, HasParts, Counts, Sounds, WorksLocked, Thing, frozen=True, kw_only=True, tag="array"):
    """row_split, column_split: rows above and columns left of where it is parted, 0 for not at all. Raises ValueError."""

    rows: int = 3
    columns: int = 4
    row_split: int = 0
    column_split: int = 0

    icon: ClassVar[str] = "grip"
    order: ClassVar[int] = 14
    help: ClassVar[str] = N_(
        "Drag the corner to make more rows and columns, and the marks above and beside it to part them: each part has its "
        "product. It can be turned to show that 3 × 4 is 4 × 3."
    )

    def __post_init__(self) -> None:
        if not (1 <= self.rows <= MOST and 1 <= self.columns <= MOST):
            raise ValueError("an array has rows and columns")
        if not (0 <= self.row_split < self.rows and 0 <= self.column_split < self.columns):
            raise ValueError("it is parted between its rows and columns")

    @classmethod
    def title(cls) -> str:
        return _("array")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("rows columns multiplication times area model partial products dots")
        yield ShelfItem("array", _("array"), N_("Numbers"), cls, words)
        big = partial(cls, rows=12, columns=14, row_split=10, column_split=10)
        yield ShelfItem("array 12 × 14", _("array 12 × 14, parted"), N_("Numbers"), big, words)

    def label(self, page: Page) -> str:
        return self.name or _("array of {rows} × {columns}").format(rows=self.rows, columns=self.columns)

    def worth(self) -> int:
        return self.rows * self.columns

    def is_parted(self) -> bool:
        return bool(self.row_split or self.column_split)

    def field(self) -> Box:
        """The edge of all dots, in its own coordinates."""
        wide = self.columns * UNIT + (GAP if self.column_split else 0.0)
        high = self.rows * UNIT + (GAP if self.row_split else 0.0)
        return Box(SIDE, HEAD, SIDE + wide, HEAD + high)

    def extent(self) -> Box:
        field = self.field()
        beside = TABLE if self.is_parted() else 24.0
        least = HEAD + (44.0 * (len(self.pieces()) + 1) if self.is_parted() else 0.0)
        return Box(0, 0, field.x1 + beside, max(field.y1, least) + FOOT)

    def pieces(self) -> list[Piece]:
        """Its parts, row by row."""
        made = []
        rows = [(0, self.row_split), (self.row_split, self.rows)] if self.row_split else [(0, self.rows)]
        columns = [(0, self.column_split), (self.column_split, self.columns)] if self.column_split else [(0, self.columns)]
        for i, (r0, r1) in enumerate(rows):
            for j, (c0, c1) in enumerate(columns):
                x0, y0 = SIDE + c0 * UNIT + j * GAP, HEAD + r0 * UNIT + i * GAP
                box = Box(x0, y0, x0 + (c1 - c0) * UNIT, y0 + (r1 - r0) * UNIT)
                tens = (self.row_split % 10 == 0 and bool(self.row_split) and i == 0) + (
                    self.column_split % 10 == 0 and bool(self.column_split) and j == 0
                )
                made.append(Piece(r1 - r0, c1 - c0, box, tens))
        return made

    def facts(self, page: Page) -> Iterator[Fact]:
        value = self.worth()
        yield Fact("value", value, text=str(value), label=_("product"), badge="value")
        yield Fact("rows", self.rows, text=str(self.rows), label=_("rows"), set=self._set_rows)
        yield Fact("columns", self.columns, text=str(self.columns), label=_("columns"), set=self._set_columns)
        text = f"{self.rows} × {self.columns} = {value}"
        yield Fact("product", text, text=text, label=_("multiplication"))
        if self.is_parted():
            text = " + ".join(str(piece.rows * piece.columns) for piece in self.pieces())
            yield Fact("partial products", text, text=text, label=_("partial products"))
        yield Fact("row split", self.row_split, text=str(self.row_split), label=_("rows above the gap"),
                   set=lambda typed: self.replace(row_split=read_whole(typed, 0, self.rows - 1)))  # fmt: skip
        yield Fact("column split", self.column_split, text=str(self.column_split), label=_("columns left of the gap"),
                   set=lambda typed: self.replace(column_split=read_whole(typed, 0, self.columns - 1)))  # fmt: skip

    def sized(self, rows: int, columns: int) -> Self:
        rows, columns = min(max(rows, 1), MOST), min(max(columns, 1), MOST)
        split = (min(self.row_split, rows - 1), min(self.column_split, columns - 1))
        return self.replace(rows=rows, columns=columns, row_split=split[0], column_split=split[1])  # type: ignore[no-any-return]

    def _set_rows(self, typed: str) -> Thing:
        return self.sized(read_whole(typed, 1, MOST), self.columns)

    def _set_columns(self, typed: str) -> Thing:
        return self.sized(self.rows, read_whole(typed, 1, MOST))

    # Its corner, and the marks of the gaps

    def parts(self) -> tuple[str, ...]:
        return ("corner", "rows", "columns")

    def part_place(self, part: str) -> Point:
        field = self.field()
        if part == "corner":
            return (field.x1 + 8, field.y1 + 8)
        if part == "rows":
            return (SIDE - 10, HEAD + self.row_split * UNIT + (GAP / 2 if self.row_split else 10.0))
        return (SIDE + self.column_split * UNIT + (GAP / 2 if self.column_split else 10.0), HEAD - 10)

    def part_at(self, x: float, y: float, slack: float) -> str:
        for part in self.parts():
            px, py = self.part_place(part)
            if abs(x - px) <= 14 + slack and abs(y - py) <= 14 + slack:
                return part
        return ""

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        x, y = to
        if part == "rows":
            return self.replace(row_split=min(max(round((y - HEAD) / UNIT), 0), self.rows - 1))  # type: ignore[no-any-return]
        if part == "columns":
            return self.replace(column_split=min(max(round((x - SIDE) / UNIT), 0), self.columns - 1))  # type: ignore[no-any-return]
        gaps = (GAP if self.column_split else 0.0, GAP if self.row_split else 0.0)
        return self.sized(round((y - 8 - gaps[1] - HEAD) / UNIT), round((x - 8 - gaps[0] - SIDE) / UNIT))

    def part_label(self, part: str) -> str:
        return _("Change the array")

    def sounds_since(self, before: Thing) -> tuple[str, ...]:
        same = isinstance(before, Array) and (before.rows, before.columns) == (self.rows, self.columns)
        return () if same else ("click",)

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _turn(page: Page, things: Things) -> Edit:
    changed = {
        t.id: t.replace(rows=t.columns, columns=t.rows, row_split=t.column_split, column_split=t.row_split)
        for t in things if isinstance(t, Array)
    }  # fmt: skip
    return Edit(_("Swap rows and columns"), page, page.with_things(changed))


def _part_tens(page: Page, things: Things) -> Edit:
    """Each is parted at its tens; where it is so already, it is put together."""
    changed = {}
    for t in things:
        if isinstance(t, Array):
            rows, columns = ((n - 1) // 10 * 10 for n in (t.rows, t.columns))
            same = (t.row_split, t.column_split) == (rows, columns)
            changed[t.id] = t.replace(row_split=0 if same else rows, column_split=0 if same else columns)
    return Edit(_("Part at the tens"), page, page.with_things(changed))


ACTIONS = (
    Action("swap rows", lambda p, ts: _("swap rows and columns"), "rotate-cw", _turn, only(Array), rank=5, board=True,
           words=N_("commute turn transpose")),
    Action("part tens", lambda p, ts: _("part at the tens"), "split", _part_tens,
           lambda p, ts: only(Array)(p, ts) and any(max(getattr(t, "rows", 0), getattr(t, "columns", 0)) > 10 for t in ts),
           rank=6, board=True, words=N_("partial products split area model")),
)  # fmt: skip
