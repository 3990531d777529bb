"""Digits written into the cells of column arithmetic: from right to left, in a division from left to right."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QEvent, QRectF, Qt
from PyQt6.QtGui import QFocusEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget

from larch.board.look import GOLD, GOLD_TEXT
from larch.board.timers import retire
from larch.core.base.words import _
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.column_sum import Cell, ColumnSum
from larch.desk.editors.editors import heard_by_window
from larch.desk.editors.key_sets import Key
from larch.desk.editors.key_tray import KeyTray

if TYPE_CHECKING:
    from larch.desk.editors.editors import Editors

WAYS = {Qt.Key.Key_Left: (0, -1), Qt.Key.Key_Right: (0, 1), Qt.Key.Key_Up: (-1, 0), Qt.Key.Key_Down: (1, 0)}


class ColumnSumEditor(QWidget):
    """A gold cell over the thing; each digit is an edit, and a run of them one step of undo."""

    def __init__(self, editors: Editors, thing: ColumnSum) -> None:
        super().__init__(editors.canvas)
        self.editors = editors
        self.id = thing.id
        self._done = False
        self.cell = self._first(thing)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(thing.title())
        self.tray = KeyTray(editors.canvas, "numbers")
        self.tray.setFocusPolicy(Qt.FocusPolicy.ClickFocus)
        self.tray.setFocusProxy(self)
        self.tray.pressed.connect(self.press)
        self.tray.put_away.connect(editors.finish)
        self.tray.show()
        self.tray.raise_()
        self.place()
        self.show()
        self.raise_()
        self.setFocus()

    def thing(self) -> ColumnSum | None:
        found = self.editors.canvas.page.thing(self.id)
        return found if isinstance(found, ColumnSum) else None

    def _first(self, thing: ColumnSum) -> Cell:
        """The cell that was tapped, else the first that is still empty."""
        at = self.editors.canvas.edit_at
        if at is not None and (cell := thing.cell_at(*thing.placement.to_local(*at))) is not None:
            return cell
        written = thing.digits()
        wanted = sorted(thing.wanted(), key=lambda cell: (cell[0], cell[1] if thing.op == "÷" else -cell[1]))
        return next((cell for cell in wanted if cell not in written), wanted[0])

    def place(self) -> None:
        """Over the thing, with the tray below; the page moves up where the cell would be hidden."""
        thing, canvas = self.thing(), self.editors.canvas
        if self._done or thing is None:
            return
        tall = self.tray.full_height()
        self.tray.setGeometry(0, canvas.height() - tall, canvas.width(), tall)
        box = thing.cell_box(*self.cell)
        bottom = canvas.camera.to_view(*thing.placement.to_page(box.x1, box.y1))[1]
        if (hidden := bottom + 16 - (canvas.height() - tall)) > 0:
            canvas.pan_by(0, -hidden)
        k = thing.placement.scale * canvas.camera.scale
        x, y = canvas.camera.to_view(*thing.placement.to_page(0, 0))
        whole = thing.extent()
        self.setGeometry(round(x) - 3, round(y) - 3, round(whole.width * k) + 6, round(whole.height * k) + 6)
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        thing = self.thing()
        if thing is None:
            return
        painter = QPainter(self)
        k = thing.placement.scale * self.editors.canvas.camera.scale
        box = thing.cell_box(*self.cell)
        area = QRectF(box.x0 * k + 3, box.y0 * k + 3, box.width * k, box.height * k)
        painter.setPen(QPen(GOLD, 3))
        painter.drawRoundedRect(area, 4, 4)
        if self.cell not in thing.digits():
            painter.fillRect(QRectF(area.center().x() - 2, area.y() + 8, 4, area.height() - 16), GOLD_TEXT)

    # Writing

    def write(self, digit: str) -> None:
        """A digit into the cell, then on to the next one."""
        thing, canvas = self.thing(), self.editors.canvas
        if thing is None:
            return
        after = thing.with_digit(self.cell, digit)
        if after != thing:
            page = canvas.page
            label = _("Write a digit") if digit else _("Rub out a digit")
            canvas.commit(Edit(label, page, page.with_things({thing.id: after}), merge=f"digits {thing.id}"))
        on = 1 if thing.op == "÷" and self.cell[0] == 0 else -1
        self.go(0, on if digit else -on) if digit else None
        self.place()

    def go(self, down: int, across: int) -> None:
        """To the next cell that can be written in, that way."""
        thing = self.thing()
        if thing is None:
            return
        row, column = self.cell
        for _k in range(60):
            row, column = row + down, column + across
            if not (0 <= row < len(thing.lines()) and 0 <= column < thing.width()):
                return
            if thing.cell_at(*thing.cell_box(row, column).centre) is not None:
                self.cell = (row, column)
                self.place()
                return

    def press(self, key: Key) -> None:
        """A key of the tray."""
        if key.types.isdecimal():
            for digit in key.types:
                self.write(digit)
        elif key.puts or key.types:
            self.editors.tell(_("A cell takes digits alone."))
        elif key.does == "rub out":
            self.write("")
        elif key.does == "next line":
            self._next_row()
        elif key.does in ("left", "right"):
            self.go(0, 1 if key.does == "right" else -1)

    def _next_row(self) -> None:
        """To where the next row begins to be written."""
        thing = self.thing()
        if thing is None:
            return
        below = [cell for cell in thing.wanted() if cell[0] > self.cell[0]]
        if not below:
            self.editors.finish()
            return
        row = min(cell[0] for cell in below)
        self.cell = max(cell for cell in below if cell[0] == row)
        self.place()

    def event(self, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress and event.key() == Qt.Key.Key_Tab:
            self._next_row()
            return True
        if heard_by_window(self, event):
            return True
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        key = event.key()
        if key in (Qt.Key.Key_Escape, Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.editors.finish()
        elif key in WAYS:
            self.go(*WAYS[Qt.Key(key)])
        elif key in (Qt.Key.Key_Backspace, Qt.Key.Key_Delete):
            self.write("")
        elif event.text().isdecimal():
            self.write(event.text())
        elif event.modifiers() & Qt.KeyboardModifier.ControlModifier and key == Qt.Key.Key_Z:
            self.editors.canvas.session.undo()
            self.place()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        thing = self.thing()
        if event is None or thing is None:
            return
        k = thing.placement.scale * self.editors.canvas.camera.scale
        cell = thing.cell_at((event.position().x() - 3) / k, (event.position().y() - 3) / k)
        if cell is not None:
            self.cell = cell
            self.place()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        super().focusOutEvent(event)
        away = event is not None and event.reason() not in (
            Qt.FocusReason.PopupFocusReason, Qt.FocusReason.ActiveWindowFocusReason)  # fmt: skip
        if away and not self._done and self.editors.open is self:
            self.editors.finish()

    def state(self) -> object:
        return None

    def result(self) -> Edit | None:
        """All is written already."""
        return None

    def go_on(self, page: Page) -> None:
        self.place()

    def keep(self) -> None:
        self._done = True
        retire(self.tray)
        self.editors.take_away(self)


def edit(editors: Editors, thing: Thing) -> ColumnSumEditor | None:
    return ColumnSumEditor(editors, thing) if isinstance(thing, ColumnSum) else None
