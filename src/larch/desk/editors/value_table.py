"""A cell of a table of values: written as an equation is; Tab goes on, Enter goes down."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent

from larch.core.actions.equations.tables import typed_in_cell
from larch.core.base.words import _
from larch.core.maths.layout import terms
from larch.core.maths.layout import writing as pen
from larch.core.maths.layout.reading import look
from larch.core.maths.layout.writing import Writing
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.value_table import ValueTable, cell_of
from larch.desk.editors.equation import PAD, EquationEditor

if TYPE_CHECKING:
    from larch.desk.editors.editors import Editors

SIZE = 36.0
INSET = 14.0


class CellEditor(EquationEditor):
    """An equation's editor in a cell; what is written is kept when the cell is left."""

    def __init__(self, editors: Editors, table: ValueTable, cell: tuple[int, int]) -> None:
        self.table, self.cell = table.id, cell
        super().__init__(editors, _line_of(table, cell))
        self.setAccessibleName(_("cell of a table"))

    def _changed(self) -> None:
        """Nothing on the page changes before the cell is left."""
        self.place()
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down) and not self.writing.path:
            self._go(1 if event.key() == Qt.Key.Key_Down else -1, 0)
            return
        super().keyPressEvent(event)

    def _tab(self, back: bool) -> None:
        row, column = self.cell
        number = 2 * row + column + (-1 if back else 1)
        self._go(number // 2 - row, number % 2 - column) if number >= 0 else self.editors.finish()

    def next_line(self) -> None:
        self._go(1, 0)

    def entered(self) -> None:
        """Enter goes down; on an empty cell it ends the writing, and so does Esc."""
        self._go(1, 0) if self.writing.row else self.editors.finish()

    def _go(self, down: int, across: int) -> None:
        """Keeps the cell and goes to another, as far as there is one."""
        if not self._store():
            return
        table = self.editors.canvas.page.thing(self.table)
        row, column = self.cell[0] + down, self.cell[1] + across
        if not isinstance(table, ValueTable) or not 0 <= row < table.count():
            self.editors.finish()
            return
        self.cell = (row, column)
        self.thing = _line_of(table, self.cell)
        made = look(self.thing.source) if self.thing.source else ()
        self.writing = Writing(made, (), len(made))
        self.write(pen.home(self.writing, True))
        self._before, self._after = [], []
        self._changed()

    def _store(self) -> bool:
        """Puts what is written into the cell; what is no number is said, and stays to be mended."""
        try:
            edit = self.result()
        except ValueError as error:
            self.editors.tell(str(error))
            return False
        if edit is not None:
            self.editors.canvas.commit(edit)
        return True

    def result(self) -> Edit | None:
        page = self.editors.canvas.page
        table = page.thing(self.table)
        source = terms.source_of(self.writing.row)
        if not isinstance(table, ValueTable) or source == table.typed_in(*self.cell):
            return None
        return Edit(_("Table of values"), page, typed_in_cell(page, table, *self.cell, source))

    def go_on(self, page: Page) -> None:
        """What is in the cell is kept, and goes on."""

    def keep(self) -> None:
        self.drop()
        self._store()


def _line_of(table: ValueTable, cell: tuple[int, int]) -> Equation:
    """An equation where the cell is, for the editor."""
    box = table.cell_box(*cell)
    x, y = box.x0 + INSET, box.centre[1] + 0.25 * SIZE
    place = table.placement.to_page(x - PAD * SIZE, y - (0.7 + PAD) * SIZE)
    at = table.placement.moved(place[0] - table.placement.x, place[1] - table.placement.y)
    made: Equation = Equation(source=table.typed_in(*cell), size=SIZE, hue="needle", placement=at)
    return made


def edit(editors: Editors, thing: Thing) -> CellEditor | None:
    if not isinstance(thing, ValueTable):
        return None
    at, editors.canvas.edit_at = editors.canvas.edit_at, None
    part = thing.part_at(*thing.placement.to_local(*at), 0.0) if at is not None else ""
    empty = next((part for part in thing.parts() if not thing.typed_in(*cell_of(part))), "x 0")
    return CellEditor(editors, thing, cell_of(part or empty))
