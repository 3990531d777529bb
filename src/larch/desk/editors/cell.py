"""The editor of tables: it opens the words in a cell."""

from __future__ import annotations

from typing import TYPE_CHECKING

from larch.core.model.thing import Thing
from larch.core.things.organisers.table import Table, first_line
from larch.desk.editors.cells import table_at

if TYPE_CHECKING:
    from larch.desk.editors.editors import Editors


def edit(editors: Editors, table: Thing) -> None:
    """Opens the cell that was pressed, or the first that is still empty."""
    if not isinstance(table, Table):
        return
    at, editors.canvas.edit_at = editors.canvas.edit_at, None
    page = editors.canvas.page
    cells = [(row, column) for row in range(len(table.rows)) for column in range(len(table.columns))]
    if at is not None:
        chosen = table.cell_at(*table.placement.to_local(*at))
    else:
        chosen = next((cell for cell in cells if table.words_in(page, *cell) is None), cells[0])
    editors.edit(table.words_in(page, *chosen) or table.new_words(*chosen))


def next_cell(editors: Editors, words: Thing, back: bool = False) -> bool:
    """From the words in a cell of a table on to the next cell, in reading order; False if they are in none."""
    table = table_at(editors.canvas.page, words)
    if table is None:
        return False
    row, column = table.cell_at(*table.placement.to_local(*first_line(words)))
    number = row * len(table.columns) + column + (-1 if back else 1)
    editors.finish()
    if 0 <= number < len(table.rows) * len(table.columns):
        now = editors.canvas.page.thing(table.id)
        assert isinstance(now, Table)
        cell = divmod(number, len(table.columns))
        editors.edit(now.words_in(editors.canvas.page, *cell) or now.new_words(*cell))
    return True
