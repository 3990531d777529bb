"""Tables: a frame of rows and columns. What lies in a cell, be it words, ink or anything else, goes with it."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from itertools import accumulate
from typing import ClassVar

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, put
from larch.core.model.capabilities import HoldsOthers, Joinable
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, measure, read_number
from larch.core.model.holders import inside
from larch.core.model.page import Page
from larch.core.model.thing import Handle, ShelfItem, Thing
from larch.core.things.words.text import Text

MOST = 60  # rows, and columns
LEAST = 24.0
WIDE, HIGH = 190.0, 72.0
INSET = 12.0
TIGHT = 6.0  # between words and the lines above and below them


class Table(HoldsOthers, Joinable, Thing, frozen=True, kw_only=True, tag="table"):
    """columns and rows: their widths and heights in its own units. header: the first row is a head; first: the first
    column too. Raises ValueError for a table without cells."""

    columns: tuple[float, ...] = (WIDE, WIDE, WIDE)
    rows: tuple[float, ...] = (HIGH, HIGH, HIGH, HIGH)
    header: bool = True
    first: bool = False
    open_frame: bool = False
    hue: str = "slate"

    icon: ClassVar[str] = "table"
    order: ClassVar[int] = 55
    editor: ClassVar[str] = "cell"
    help: ClassVar[str] = N_(
        "Double-click a cell to type in it; put ink or anything else in a cell and it goes with the table. Drag the marks "
        "at its right and lower edge to add or take away columns and rows, the lines between them to make room."
    )

    def __post_init__(self) -> None:
        for sizes in (self.columns, self.rows):
            if not 1 <= len(sizes) <= MOST or not all(1 <= size <= 1e5 for size in sizes):
                raise ValueError("a table must have cells")

    @classmethod
    def title(cls) -> str:
        return _("table")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("chart rows columns grid cells spreadsheet ten frame array multiplication")
        yield ShelfItem("table", _("table"), N_("Organisers"), cls, words)

    def label(self, page: Page) -> str:
        words = _("table, {rows} by {columns}").format(rows=len(self.rows), columns=len(self.columns))
        return self.name or words

    def extent(self) -> Box:
        return Box(0, 0, math.fsum(self.columns), math.fsum(self.rows))

    def touches(self, x: float, y: float, slack: float) -> bool:
        return self.extent().grown(slack).holds(x, y)

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        for row in range(len(self.rows)):
            for column in range(len(self.columns)):
                yield self.cell(row, column).corners(), True

    def lefts(self) -> list[float]:
        """Where columns begin, and where the last one ends."""
        return [0.0, *accumulate(self.columns)]

    def tops(self) -> list[float]:
        return [0.0, *accumulate(self.rows)]

    def cell(self, row: int, column: int) -> Box:
        lefts, tops = self.lefts(), self.tops()
        return Box(lefts[column], tops[row], lefts[column + 1], tops[row + 1])

    def cell_at(self, x: float, y: float) -> tuple[int, int]:
        """Row and column of a place of its own; the nearest if it lies outside."""
        lefts, tops = self.lefts(), self.tops()
        row = next((k for k in range(len(self.rows)) if y < tops[k + 1]), len(self.rows) - 1)
        column = next((k for k in range(len(self.columns)) if x < lefts[k + 1]), len(self.columns) - 1)
        return row, column

    def words_in(self, page: Page, row: int, column: int) -> Text | None:
        """The words in a cell, if there are any."""
        cell = self.cell(row, column)
        for thing in inside(page, self):
            if isinstance(thing, Text) and cell.holds(*self.placement.to_local(*thing.box().centre)):
                return thing
        return None

    def making_room(self, page: Page, words: Thing, tall: float) -> Page:
        """The page with words put into the middle of their cell, whose row has grown if they are too tall for it.

        tall: how tall they are, page units.
        """
        row, column = self.cell_at(*self.placement.to_local(*first_line(words)))
        needed = tall / self.placement.scale + 2 * TIGHT
        grown = self
        if needed > self.rows[row]:
            grown = self.replace(rows=(*self.rows[:row], needed, *self.rows[row + 1 :]))
            page = page.with_things({self.id: grown, **grown.rearranged(page.without([words.id]), self)})
        if self.placement.turn:
            return page
        cell = grown.cell(row, column)
        y = self.placement.to_page(cell.x0, cell.centre[1])[1] - tall / 2
        return page.with_things({words.id: words.replace(placement=words.placement.moved(0, y - words.placement.y))})

    def new_words(self, row: int, column: int) -> Text:
        """An empty text that fits a cell."""
        cell = self.cell(row, column)
        head = (self.header and row == 0) or (self.first and column == 0)
        scale = self.placement.scale
        size = min(40.0, cell.height * scale * 0.46)
        at = self.placement.to_page(cell.x0 + INSET, cell.centre[1] - size * 0.675 / scale)
        width = (cell.width - 2 * INSET) * scale
        placement = Placement(*at, self.placement.turn)
        return Text(text="", size=max(8.0, size), width=max(24.0, width), bold=head, placement=placement)

    def handles(self) -> tuple[Handle, ...]:
        box = self.extent()
        lines = [Handle(f"column {k}", x, 0, _("width of a column")) for k, x in enumerate(self.lefts()[1:-1])]
        lines += [Handle(f"row {k}", 0, y, _("height of a row")) for k, y in enumerate(self.tops()[1:-1])]
        more = [
            Handle("columns", box.x1, box.y1 / 2, _("more or fewer columns")),
            Handle("rows", box.x1 / 2, box.y1, _("more or fewer rows")),
        ]
        return (*lines, *more)

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        sort, _space, number = name.partition(" ")
        changed: Thing = self
        if sort == "columns":
            changed = self.replace(columns=_counted(self.columns, x))
        elif sort == "rows":
            changed = self.replace(rows=_counted(self.rows, y))
        elif sort == "column":
            changed = self.replace(columns=_shared(self.columns, int(number), x))
        elif sort == "row":
            changed = self.replace(rows=_shared(self.rows, int(number), y))
        return changed

    def stretched(self, across: float, down: float) -> Thing | None:
        return None

    def rearranged(
        self, page: Page, before: Thing, to: Callable[[int, int], tuple[int, int] | None] | None = None
    ) -> Mapping[str, Thing]:
        """What lies in its cells stays in them; or goes into those that `to` gives for theirs."""
        if not isinstance(before, Table):
            return {}
        found: dict[str, Thing] = {}
        for thing in inside(page, before):
            x, y = before.placement.to_local(*thing.box().centre)
            cell = before.cell_at(x, y)
            target = cell if to is None else to(*cell)
            if target is None or target[0] >= len(self.rows) or target[1] >= len(self.columns):
                continue
            old, new = before.cell(*cell), self.cell(*target)
            scale = self.placement.scale
            words = isinstance(thing, Text) and thing.width > 0 and new.width != old.width
            dx = (new.x0 - old.x0) if isinstance(thing, Text) else new.centre[0] - old.centre[0]
            dy = new.centre[1] - old.centre[1]
            a, b = self.placement.to_page(0, 0), self.placement.to_page(dx, dy)
            moved = thing.moved(b[0] - a[0], b[1] - a[1])
            found[thing.id] = moved.replace(width=max(24.0, (new.width - 2 * INSET) * scale)) if words else moved
        return found

    def fitted(self, thing: Thing) -> Thing | None:
        """In the middle of its cell, with a little room round it."""
        box = thing.box()
        cell = self.cell(*self.cell_at(*self.placement.to_local(*box.centre)))
        scale = self.placement.scale
        wide, high = (cell.width - 2 * INSET) * scale, (cell.height - 2 * TIGHT) * scale
        if min(wide, high, box.width, box.height) <= 0:
            return None
        x, y = self.placement.to_page(*cell.centre)
        place = thing.placement.enlarged(min(wide / box.width, high / box.height), box.centre)
        moved: Thing = thing.replace(placement=place.moved(x - box.centre[0], y - box.centre[1]))
        return moved

    def keeps(self, thing: Thing) -> bool:
        return isinstance(thing, Text)

    def facts(self, page: Page) -> Iterator[Fact]:
        for name, label, sizes in (("rows", _("rows"), self.rows), ("columns", _("columns"), self.columns)):

            def put_count(typed: str, name: str = name, sizes: tuple[float, ...] = sizes) -> Page:
                count = read_number(typed)
                if count != int(count) or not 1 <= count <= MOST:
                    raise ValueError(_("A table has from 1 to {most} of them.").format(most=MOST))
                fresh = (*sizes[: int(count)], *(sizes[-1:] * (int(count) - len(sizes))))
                return _with(page, self, self.replace(**{name: fresh}))

            yield measure(name, len(sizes), "", label, 0, set=put_count)
        cm = self.placement.scale / page.unit
        box = self.extent()
        yield measure("width", box.width * cm, "cm", _("width"))
        yield measure("height", box.height * cm, "cm", _("height"))

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def first_line(words: Thing) -> Point:
    """Where words begin: in their cell, however many lines there are."""
    return words.placement.to_page(4.0, getattr(words, "size", 0.0) / 2)


def _counted(sizes: tuple[float, ...], at: float) -> tuple[float, ...]:
    """As many as fit up to a place, the new ones as large as the last."""
    kept: list[float] = []
    for size in sizes:
        if kept and math.fsum(kept) + size / 2 > at:
            break
        kept.append(size)
    while len(kept) < MOST and len(kept) >= len(sizes) and math.fsum(kept) + sizes[-1] / 2 <= at:
        kept.append(sizes[-1])
    return tuple(kept)


def _shared(sizes: tuple[float, ...], k: int, at: float) -> tuple[float, ...]:
    """With the line after the k-th at a place; its neighbour gives way."""
    if not 0 <= k < len(sizes) - 1:
        return sizes
    start = math.fsum(sizes[:k])
    both = sizes[k] + sizes[k + 1]
    own = min(max(LEAST, at - start), both - LEAST)
    return (*sizes[:k], own, both - own, *sizes[k + 2 :]) if own >= LEAST else sizes


def _with(page: Page, before: Table, after: Table) -> Page:
    return page.with_things({before.id: after, **after.rearranged(page, before)})


def _toggle(field: str, label: str) -> Action:
    def run(page: Page, things: Things) -> Edit:
        value = not all(getattr(thing, field) for thing in things)
        return Edit(_(label).capitalize(), page, page.with_things({t.id: t.replace(**{field: value}) for t in things}))

    pictures = {"header": "panel-top", "first": "panel-left", "open_frame": "table-2"}
    return Action(
        f"table {field}", lambda p, ts: _(label), pictures[field], run, only(Table), rank=30, words=N_("head title frame")
    )


def _even(page: Page, things: Things) -> Edit:
    """All columns equally wide and all rows equally high."""
    after = page
    for thing in things:
        if isinstance(thing, Table):
            box = thing.extent()
            columns = (box.width / len(thing.columns),) * len(thing.columns)
            after = _with(
                after, thing, thing.replace(columns=columns, rows=(box.height / len(thing.rows),) * len(thing.rows))
            )
    return Edit(_("Equal cells"), page, after)


def _more(field: str, by: int) -> Action:
    def run(page: Page, things: Things) -> Edit:
        after = page
        for thing in things:
            sizes = getattr(thing, field)
            fresh = (*sizes, sizes[-1]) if by > 0 else sizes[:-1]
            if isinstance(thing, Table) and 1 <= len(fresh) <= MOST:
                after = _with(after, thing, thing.replace(**{field: fresh}))
        return Edit(_("Rows and columns"), page, after)

    labels = {("rows", 1): lambda: _("one row more"), ("columns", 1): lambda: _("one column more"),
              ("rows", -1): lambda: _("one row less"), ("columns", -1): lambda: _("one column less")}  # fmt: skip
    pictures = {("rows", 1): "between-horizontal-start", ("columns", 1): "between-vertical-start",
                ("rows", -1): "minus", ("columns", -1): "minus"}  # fmt: skip
    return Action(
        f"table {field} {by}", lambda p, ts: labels[field, by](), pictures[field, by], run, only(Table),
        rank=52 if by > 0 else 66, words=N_("add insert remove delete"),
    )  # fmt: skip


ACTIONS = (
    _more("rows", 1), _more("columns", 1), _more("rows", -1), _more("columns", -1),
    _toggle("header", N_("head row")), _toggle("first", N_("head column")), _toggle("open_frame", N_("no outer frame")),
    Action("table even", lambda p, ts: _("equal cells"), "grid-2x2", _even, only(Table), rank=66, words=N_("distribute")),
)  # fmt: skip


def with_words(table: Table, words: Sequence[Sequence[str]]) -> Page:
    """A page with a table and what its cells say, as the shelf puts it out."""
    page = Page(id="").put(table)
    for row, line in enumerate(words):
        for column, text in enumerate(line):
            if text:
                page = put(page, [table.new_words(row, column).replace(text=text)], "").after  # type: ignore[assignment]
    return page
