"""A field of one line, as all of the desk's are: Enter ends with it, and Ctrl+Z undoes wherever the caret is."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtGui import QKeyEvent, QKeySequence
from PyQt6.QtWidgets import QLineEdit

ENTER = (Qt.Key.Key_Return, Qt.Key.Key_Enter)


class Field(QLineEdit):
    """Qt hands Enter on to what lies below when the field is done with it, and keeps Ctrl+Z though nothing was typed."""

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        super().keyPressEvent(event)
        if event is not None and event.key() in ENTER:
            event.accept()  # the page below must not take the same press for its own

    def event(self, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.ShortcutOverride and self._leaves(event):
            event.ignore()  # the lesson's own undo takes it
            return False
        return super().event(event)

    def _leaves(self, event: QKeyEvent) -> bool:
        undo, redo = event.matches(QKeySequence.StandardKey.Undo), event.matches(QKeySequence.StandardKey.Redo)
        return (undo and not self.isUndoAvailable()) or (redo and not self.isRedoAvailable())
