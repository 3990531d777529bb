"""Turning, adding and finding pages: the part of the window that knows which page is open."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QEvent, QObject, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QFrame, QGridLayout, QPushButton, QVBoxLayout, QWidget

from larch.board.look import icon
from larch.core.base.words import _
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.desk.fields import Field
from larch.desk.overview.page_edits import page_edit
from larch.desk.style import lift
from larch.services.workspace import fresh_seed

if TYPE_CHECKING:
    from larch.desk.context import Context


class Pages:
    """Which page is open, and how another one is opened."""

    def __init__(self, context: Context) -> None:
        self.context = context
        self._index = 0
        self._pad: NumberPad | None = None

    def changed(self) -> None:
        """After pages came, went or moved: stays on the page, or near where it was if it is gone."""
        w = self.context
        lesson = w.session.lesson
        ids = lesson.pages.ids
        if w.canvas.page_id not in ids:
            w.canvas.show_page(ids[min(self._index, len(ids) - 1)])
        self._index = ids.index(w.canvas.page_id)
        w.part("files").note_page(w.canvas.page_id)
        w.part("ledge").show_page(self._index + 1, len(ids))
        if w.at_board:
            w.part("leave_to_pupils")()
        w.refresh_commands()

    def show(self, id: str) -> None:
        w = self.context
        w.finish_typing()
        w.part("put_readings_away")()
        w.canvas.show_page(id)
        w.canvas.whole_page()
        self.changed()
        w.canvas.setFocus()

    def spread(self) -> None:
        """Lays out all pages. Nothing stays selected: Del must mean the sheet, not a thing under it."""
        w = self.context
        w.finish_typing()
        w.canvas.select(())
        w.part("spread").open(w.session, w.canvas.page_id)

    def turn(self, by: int) -> None:
        """Turns pages; onwards from the last one a new page is begun."""
        w = self.context
        ids = w.session.lesson.pages.ids
        where = ids.index(w.canvas.page_id) + by
        if where >= len(ids):
            self.new()
        elif where >= 0:
            self.show(ids[where])

    def new(self) -> None:
        w = self.context
        edit = page_edit(w.session, "new", w.canvas.page_id, fresh_seed())
        if edit is not None:
            before = set(w.session.lesson.pages.ids)
            w.session.commit(edit)
            self.show(next(id for id in w.session.lesson.pages.ids if id not in before))

    def add(self, page: Page) -> None:
        """A page from elsewhere, after the one on show."""
        w = self.context
        lesson = w.session.lesson
        at = lesson.pages.ids.index(w.canvas.page_id) + 1
        after = lesson.insert(page, at)
        w.session.commit(Edit(_("Put out a page"), lesson, after))
        self.show(after.pages.ids[at])

    def copy(self) -> None:
        w = self.context
        edit = page_edit(w.session, "copy", w.canvas.page_id)
        assert edit is not None
        w.session.commit(edit)
        self.turn(1)

    def delete(self) -> None:
        w = self.context
        where = w.session.lesson.pages.ids.index(w.canvas.page_id)
        edit = page_edit(w.session, "delete", w.canvas.page_id)
        assert edit is not None
        w.session.commit(edit)
        left = w.session.lesson.pages.ids
        self.show(left[min(where, len(left) - 1)])

    def move(self, name: str) -> None:
        """Moves the open page "sooner" or "later"; does nothing at an end."""
        edit = page_edit(self.context.session, name, self.context.canvas.page_id)
        if edit is not None:
            self.context.session.commit(edit)
            self.changed()

    def ask_number(self) -> None:
        """Opens the pad on which the number of a page is tapped or typed."""
        w = self.context
        w.close_card("choices")
        if self._pad is None:
            self._pad = NumberPad(w.room)
            self._pad.chosen.connect(self.go_to)
        self._pad.open(len(w.session.lesson.pages), 56 if w.at_board else 48)
        self._pad.stand_over(w.part("ledge").number)

    def go_to(self, number: int) -> None:
        ids = self.context.session.lesson.pages.ids
        if 1 <= number <= len(ids):
            self.show(ids[number - 1])
        else:
            self.context.say(_("There are {n} pages.").format(n=len(ids)))


class NumberPad(QFrame):
    """Digits large enough for a fingertip. chosen: the number, once it is confirmed."""

    chosen = pyqtSignal(int)

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setObjectName("card")
        self.setAccessibleName(_("go to a page by its number"))
        lift(self)
        self.field = Field(self)
        self.field.setAccessibleName(_("page number"))
        self.field.setMaxLength(4)
        self.field.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.field.setStyleSheet("font-size: 24px; font-weight: 600;")
        self.field.returnPressed.connect(self._go)
        self.field.installEventFilter(self)
        self._keys = QGridLayout()
        self._keys.setSpacing(4)
        self.buttons: dict[str, QPushButton] = {}
        for k, digit in enumerate(("1", "2", "3", "4", "5", "6", "7", "8", "9", "x", "0", "go")):
            button = QPushButton(digit if digit.isdigit() else "", self)
            button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            self.buttons[digit] = button
            self._keys.addWidget(button, k // 3, k % 3)
            button.clicked.connect(lambda _on=False, digit=digit: self._press(digit))
        self.buttons["x"].setIcon(icon("delete"))
        self.buttons["x"].setAccessibleName(_("last digit away"))
        self.buttons["go"].setIcon(icon("arrow-right", "#FCFBF7"))
        self.buttons["go"].setObjectName("strong")
        self.buttons["go"].setAccessibleName(_("go to the page"))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(12, 12, 12, 12)
        layout.addWidget(self.field)
        layout.addLayout(self._keys)
        self.hide()

    def open(self, count: int, size: int) -> None:
        for button in self.buttons.values():
            button.setStyleSheet(f"font-size: 20px; padding: 0; min-width: {size + 16}px; min-height: {size - 2}px;")
        self.field.setFixedWidth(3 * (size + 18) + 2 * self._keys.spacing())
        self.field.clear()
        self.field.setPlaceholderText(_("1 to {count}").format(count=count))
        self.field.setToolTip(_("page number"))
        self.adjustSize()
        self.show()
        self.raise_()
        self.field.setFocus()

    def stand_over(self, button: QWidget) -> None:
        """Towards the page from the strip that the button lies on."""
        room, strip = self.parentWidget(), button.parentWidget()
        assert room is not None and strip is not None
        at, edge = button.mapTo(room, button.rect().topLeft()), strip.mapTo(room, strip.rect().topLeft())
        x = at.x() + button.width() // 2 - self.width() // 2
        y = edge.y() - self.height() - 8 if edge.y() > self.height() + 16 else edge.y() + strip.height() + 8
        self.move(max(8, min(x, room.width() - self.width() - 8)), max(8, min(y, room.height() - self.height() - 8)))

    def _press(self, digit: str) -> None:
        if digit == "go":
            self._go()
        elif digit == "x":
            self.field.backspace()
        else:
            self.field.insert(digit)

    def _go(self) -> None:
        typed = self.field.text().strip()
        if typed.isdecimal():
            self.hide()
            self.chosen.emit(int(typed))

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress and event.key() == Qt.Key.Key_Escape:
            self.hide()
            return True
        if event is not None and event.type() == QEvent.Type.FocusOut:
            self.hide()
        return super().eventFilter(watched, event)
