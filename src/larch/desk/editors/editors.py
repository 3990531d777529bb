"""Editors on the page: text where it stands, an equation with its graph following every key."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property
from typing import TYPE_CHECKING

from PyQt6.QtCore import QEvent, QObject, QPointF, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QFrame, QLabel, QLineEdit, QVBoxLayout

from larch.board.canvas import Canvas
from larch.board.gestures.base import nothing
from larch.board.views import view_of
from larch.core.base.words import _
from larch.core.maths.expression import ExpressionError, parse, reading
from larch.core.maths.graph import readable
from larch.core.model.action import put
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.equation import LONGEST, Equation
from larch.core.things.organisers.table import Table, first_line
from larch.core.things.words.rich import Lettered
from larch.core.things.words.text import Text
from larch.desk.style import lift

if TYPE_CHECKING:
    from larch.desk.editors.spelling import Spelling
    from larch.desk.editors.words import TextEditor


class Editors(QObject):
    """Opens the editor of a thing; one at a time, and leaving it keeps what was typed."""

    def __init__(self, canvas: Canvas, tell: Callable[[str], None]) -> None:
        super().__init__(canvas)
        self.canvas = canvas
        self.tell = tell
        self.open: TextEditor | EquationEditor | None = None
        canvas.edit_wanted.connect(self.edit)
        canvas.viewed.connect(lambda: self.open.place() if self.open is not None else None)

    @cached_property
    def speller(self) -> Spelling:
        """Made when words are first typed."""
        from larch.desk.editors.spelling import Spelling

        return Spelling(self, lambda: self.canvas.session.lesson.language)

    def edit(self, thing: Thing) -> None:
        """Opens the editor that a thing asks for; many have none."""
        self.finish()
        self.canvas.editing = not thing.locked and bool(thing.editor)
        self.canvas.viewed.emit()
        if thing.editor and thing.locked:
            self.tell(_("It is locked; unlock it to change it."))
        elif isinstance(thing, Lettered):
            from larch.desk.editors.words import TextEditor

            self.open = TextEditor(self, thing)
        elif isinstance(thing, Equation):
            self.open = EquationEditor(self, thing)
        elif isinstance(thing, Table):
            self._edit_cell(thing)

    def _edit_cell(self, table: Table) -> None:
        """Opens the cell that was pressed, or the first that is still empty."""
        at, self.canvas.edit_at = self.canvas.edit_at, None
        page = self.canvas.page
        cells = [(row, column) for row in range(len(table.rows)) for column in range(len(table.columns))]
        if at is not None:
            chosen = table.cell_at(*table.placement.to_local(*at))
        else:
            chosen = next((cell for cell in cells if table.words_in(page, *cell) is None), cells[0])
        self.edit(table.words_in(page, *chosen) or table.new_words(*chosen))

    def next_cell(self, words: Thing, back: bool = False) -> bool:
        """From the words in a cell of a table on to the next cell, in reading order; False if they are in none."""
        table = table_at(self.canvas.page, words)
        if table is None:
            return False
        row, column = table.cell_at(*table.placement.to_local(*first_line(words)))
        number = row * len(table.columns) + column + (-1 if back else 1)
        self.finish()
        if 0 <= number < len(table.rows) * len(table.columns):
            now = self.canvas.page.thing(table.id)
            assert isinstance(now, Table)
            cell = divmod(number, len(table.columns))
            self.edit(now.words_in(self.canvas.page, *cell) or now.new_words(*cell))
        return True

    def finish(self) -> None:
        """Keeps what was typed and closes."""
        if self.open is not None:
            editor, self.open = self.open, None
            self.canvas.editing = False
            editor.keep()

    def take_away(self, editor: TextEditor | EquationEditor) -> None:
        """Removes an editor from the page and gives the keys back to the page."""
        self.canvas.end_preview(editor)
        editor.hide()
        editor.deleteLater()
        self.canvas.setFocus()

    def store(self, before: Thing, after: Thing, label: str, empty: bool) -> None:
        """Commits a finished edit: a new thing, a changed one, or none at all if nothing is left."""
        page = self.canvas.page
        if page.thing(before.id) is None:
            if not empty:
                edit = put(page, [after.replace(id="")], label)
                assert isinstance(edit.after, Page)
                roomy = self._with_room(edit.after, edit.after.things[-1])
                self.canvas.commit(Edit(label, page, roomy, select=edit.select))
        elif empty:
            self.canvas.commit(Edit(_("Delete"), page, page.without([before.id])))
        else:
            changed = page.with_things({before.id: after})
            self.canvas.commit(Edit(label, page, self._with_room(changed, after)))

    @staticmethod
    def _with_room(page: Page, words: Thing) -> Page:
        """In a cell of a table words stand in the middle, and their row grows with them."""
        if not isinstance(words, Text):
            return page
        table = table_at(page, words)
        tall = view_of(words).extent(words).height * words.placement.scale
        return table.making_room(page, words, tall) if table is not None else page


def table_at(page: Page, words: Thing) -> Table | None:
    """The topmost table in which something lies."""
    at = first_line(words)
    tables = [t for t in page.things if isinstance(t, Table) and t.extent().holds(*t.placement.to_local(*at))]
    return tables[-1] if tables else None


class EquationEditor(QFrame):
    """A line to type in; the equation and its graph follow every key, and a mistake is pointed at."""

    def __init__(self, editors: Editors, thing: Equation) -> None:
        super().__init__(editors.canvas)
        self.editors = editors
        self.thing = thing
        self._done = False
        self.setObjectName("card")
        lift(self)
        self.field = QLineEdit(thing.source, self)
        self.field.setMaxLength(LONGEST)
        self.field.setAccessibleName(_("equation"))
        self.field.setPlaceholderText(_("y = 2x + 1"))
        self.field.setStyleSheet("font-size: 22px; font-family: Andika;")
        self.field.setMinimumWidth(340)
        self.says = QLabel(self)
        self.says.setWordWrap(True)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(10, 10, 10, 8)
        layout.addWidget(self.field)
        layout.addWidget(self.says)
        self.field.textChanged.connect(self._typed)
        self.field.returnPressed.connect(editors.finish)
        self.field.installEventFilter(self)
        self._typed(thing.source)
        self.place()
        self.show()
        self.raise_()
        self.field.setFocus()

    def current(self) -> Equation:
        changed: Equation = self.thing.replace(source=self.field.text().strip())
        return changed

    def _typed(self, source: str) -> None:
        good = self.says
        try:
            text = _("reads: {reading}").format(reading=reading(parse(source)))
            why = readable(source)
            good.setStyleSheet("color: #4C655F;")
            good.setText(f"{text}\n{why}" if why else text)
        except ExpressionError as error:
            start = max(0, error.position - 8)
            spot = source[start : error.position] + "▸" + source[error.position : error.position + 8]
            good.setStyleSheet("color: #4C655F;" if not source.strip() else "color: #A13325; font-weight: 600;")
            good.setText(f"{error.message}   {spot}" if source.strip() else error.message)
        if self.editors.canvas.page.thing(self.thing.id) is not None:
            self.editors.canvas.preview(self, lambda page: {self.thing.id: self.current()})
        else:
            self.editors.canvas.preview(self, nothing, [self.current()] if source.strip() else [])
        self.adjustSize()

    def place(self) -> None:
        if self._done:
            return
        canvas = self.editors.canvas
        x, y = canvas.camera.to_view(self.thing.placement.x, self.thing.placement.y)
        below = y + view_of(self.thing).extent(self.thing).height * canvas.camera.scale + 14
        self.adjustSize()
        if below + self.height() > canvas.height() - canvas.covered_below:
            below = y - self.height() - 14
        at = QPointF(max(8, min(x, canvas.width() - self.width() - 8)), max(8, below))
        self.move(at.toPoint())

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress and event.key() == Qt.Key.Key_Escape:
            self.editors.finish()
            return True
        if event is not None and event.type() == QEvent.Type.FocusOut and not self._done and self.editors.open is self:
            self.editors.finish()
        return super().eventFilter(watched, event)

    def keep(self) -> None:
        after = self.current()
        self.drop()
        self.editors.store(self.thing, after, _("Equation"), not after.source)

    def drop(self) -> None:
        self._done = True
        self.editors.take_away(self)
