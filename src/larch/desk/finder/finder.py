"""The Finder: one search over everything that can be done or put out."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from PyQt6.QtCore import QEvent, QObject, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QFrame, QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from larch.board.look import icon
from larch.core.base.words import _
from larch.desk.fields import Field
from larch.desk.search import ranked_apart
from larch.desk.style import lift

WIDTH, MOST = 560, 60


class Found(NamedTuple):
    """Something that can be done: what it is called, what else, its icon, where it belongs, and how."""

    label: str
    words: str
    icon: str
    place: str
    run: Callable[[], object]


class Finder(QFrame):
    """`gather` lists all that can be done just now; it is asked each time the Finder opens. `more` finds what is too much
    for a list, by what was typed. closed: the keys belong to the page again."""

    closed = pyqtSignal()

    def __init__(
        self, parent: QWidget, gather: Callable[[], list[Found]], more: Callable[[str], list[Found]] = lambda query: []
    ) -> None:
        super().__init__(parent)
        self.setObjectName("card")
        self.setAccessibleName(_("Finder"))
        lift(self)
        self._gather = gather
        self._more = more
        self._all: list[Found] = []
        self._shown: list[Found] = []
        self.field = Field(self)
        self.field.setPlaceholderText(_("What would you like to do or put out?"))
        self.field.setAccessibleName(_("Finder"))
        self.field.addAction(icon("search"), QLineEdit.ActionPosition.LeadingPosition)
        self.field.setMinimumHeight(46)
        self.field.textChanged.connect(self._fill)
        self.field.installEventFilter(self)
        holder = QWidget(self)
        holder.setObjectName("finder")
        self.list = QListWidget(holder)
        self.list.setAccessibleName(_("found"))
        self.list.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.list.itemClicked.connect(lambda item: self._run(self.list.row(item)))
        inner = QVBoxLayout(holder)
        inner.setContentsMargins(0, 0, 0, 0)
        inner.addWidget(self.list)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(10, 10, 10, 8)
        layout.addWidget(self.field)
        layout.addWidget(holder)
        self.hide()

    def open(self) -> None:
        self._all = self._gather()
        self.field.clear()
        self._fill("")
        parent = self.parentWidget()
        assert parent is not None
        width = min(WIDTH, parent.width() - 40)
        self.move((parent.width() - width) // 2, 56)
        self.setFixedWidth(width)
        self._fit()
        self.show()
        self.raise_()
        self.field.setFocus()

    def _fill(self, query: str) -> None:
        fitting, near = ranked_apart(query, self._all, lambda found: (found.label, f"{found.words} {found.place}"))
        self._shown = [*fitting[:MOST], *self._more(query), *near[:MOST]]
        self.list.clear()
        for found in self._shown:
            item = QListWidgetItem(icon(found.icon or "square"), f"{found.label}   ·   {found.place}")
            self.list.addItem(item)
        self._fit()
        if self._shown:
            self.list.setCurrentRow(0)
        else:
            item = QListWidgetItem(_("Nothing is called that."))
            item.setFlags(Qt.ItemFlag.NoItemFlags)
            self.list.addItem(item)

    def _fit(self) -> None:
        """As tall as what was found, within the window."""
        parent = self.parentWidget()
        assert parent is not None
        self.setFixedHeight(min(82 + 45 * max(1, len(self._shown)), 470, parent.height() - 90))

    def _run(self, row: int) -> None:
        if 0 <= row < len(self._shown):
            self.close_up()
            self._shown[row].run()

    def close_up(self) -> None:
        self.hide()
        self.closed.emit()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            key = event.key()
            if key == Qt.Key.Key_Escape:
                self.close_up()
                return True
            if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
                self._run(self.list.currentRow())
                return True
            if key in (Qt.Key.Key_Down, Qt.Key.Key_Up):
                step = 1 if key == Qt.Key.Key_Down else -1
                self.list.setCurrentRow(max(0, min(self.list.count() - 1, self.list.currentRow() + step)))
                return True
        return super().eventFilter(watched, event)
