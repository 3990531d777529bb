"""Rows and columns of a table, got at through the words in its cells."""

from __future__ import annotations

from collections.abc import Callable

from larch.core.base.words import N_, _
from larch.core.model.action import Action, Fold, Things, register
from larch.core.model.edit import Edit
from larch.core.model.holders import holder_of, inside
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.organisers.table import MOST, Table, first_line
from larch.core.things.words.text import Text

ROWS = Fold("rows", N_("rows and columns"), "table-2")


def table_of(page: Page, thing: Thing) -> Table | None:
    """The table in a cell of which a thing lies."""
    holder = holder_of(page, thing)
    return holder if isinstance(holder, Table) and not holder.locked else None


def cell_of(table: Table, words: Thing) -> tuple[int, int]:
    return table.cell_at(*table.placement.to_local(*first_line(words)))


def more(page: Page, words: Thing, field: str, after: bool) -> Edit:
    """A row ("rows") or column ("columns") beside that of the words, as large as theirs. Raises ValueError."""
    table = table_of(page, words)
    assert table is not None
    sizes = getattr(table, field)
    if len(sizes) >= MOST:
        raise ValueError(_("A table has from 1 to {most} of them.").format(most=MOST))
    own = cell_of(table, words)[0 if field == "rows" else 1]
    at = own + after
    grown = table.replace(**{field: (*sizes[:at], sizes[own], *sizes[at:])})

    def to(row: int, column: int) -> tuple[int, int]:
        return (row + (row >= at), column) if field == "rows" else (row, column + (column >= at))

    changed = page.with_things({table.id: grown, **grown.rearranged(page, table, to)})
    return Edit(_("Row") if field == "rows" else _("Column"), page, changed, select=(words.id,))


def without(page: Page, words: Thing, field: str) -> Edit:
    """The table without the row or column of the words, and without what lies in it. Raises ValueError."""
    table = table_of(page, words)
    assert table is not None
    sizes = getattr(table, field)
    if len(sizes) < 2:
        raise ValueError(_("It is the last one; delete the table instead."))
    axis = 0 if field == "rows" else 1
    at = cell_of(table, words)[axis]
    smaller = table.replace(**{field: (*sizes[:at], *sizes[at + 1 :])})
    gone = [t.id for t in inside(page, table) if table.cell_at(*table.placement.to_local(*t.box().centre))[axis] == at]

    def to(row: int, column: int) -> tuple[int, int] | None:
        cell = [row, column]
        if cell[axis] == at:
            return None
        cell[axis] -= cell[axis] > at
        return (cell[0], cell[1])

    changed = page.with_things({table.id: smaller, **smaller.rearranged(page, table, to)}).without(gone)
    return Edit(_("Delete a row") if field == "rows" else _("Delete a column"), page, changed, select=(table.id,))


def _in_table(page: Page, things: Things) -> bool:
    return len(things) == 1 and isinstance(things[0], Text) and table_of(page, things[0]) is not None


def _whole(page: Page, things: Things) -> Edit:
    table = table_of(page, things[0])
    return Edit(_("Select the table"), page, page, select=(table.id,) if table is not None else ())


def _action(name: str, label: Callable[[], str], icon: str, rank: int, run: Callable[[Page, Things], Edit]) -> Action:
    return Action(name, lambda p, ts: label(), icon, run, _in_table, rank=rank, fold=ROWS if rank > 30 else None,
                  words=N_("cell table add insert delete"))  # fmt: skip


CELLS = (
    _action("row below", lambda: _("row below"), "between-horizontal-start", 20,
            lambda p, ts: more(p, ts[0], "rows", True)),
    _action("column right", lambda: _("column right"), "between-vertical-start", 21,
            lambda p, ts: more(p, ts[0], "columns", True)),
    _action("whole table", lambda: _("the table"), "table", 22, _whole),
    _action("row above", lambda: _("row above"), "between-horizontal-start", 40,
            lambda p, ts: more(p, ts[0], "rows", False)),
    _action("column left", lambda: _("column left"), "between-vertical-start", 41,
            lambda p, ts: more(p, ts[0], "columns", False)),
    _action("no row", lambda: _("without this row"), "minus", 42, lambda p, ts: without(p, ts[0], "rows")),
    _action("no column", lambda: _("without this column"), "minus", 43, lambda p, ts: without(p, ts[0], "columns")),
)  # fmt: skip
register(CELLS, Text, at=5)
