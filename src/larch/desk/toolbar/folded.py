"""The card with the tools for which the ledge has no room."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QWidget

from larch.core.base.words import _


class FoldCard(QFrame):
    """Opens beside the fold's button; a press anywhere else closes it."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self.setObjectName("card")
        self.setAccessibleName(_("more tools"))
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(8, 6, 8, 6)
        self._row.setSpacing(2)

    def take(self, buttons: Sequence[QWidget]) -> None:
        """Holds these buttons and no others."""
        while self._row.count():
            self._row.takeAt(0)
        for button in buttons:
            button.setParent(self)
            button.show()
            self._row.addWidget(button)

    def open_by(self, button: QWidget, edge: str) -> None:
        """Opens towards the page, all of it in the window."""
        window = self.parentWidget().window() if self.parentWidget() is not None else None  # type: ignore[union-attr]
        assert window is not None
        self.adjustSize()
        at, size = button.mapToGlobal(QPoint(0, 0)), self.sizeHint()
        places = {
            "top": (at.x(), at.y() + button.height() + 6),
            "left": (at.x() + button.width() + 6, at.y()),
            "right": (at.x() - size.width() - 6, at.y()),
        }
        x, y = places.get(edge, (at.x() + button.width() // 2 - size.width() // 2, at.y() - size.height() - 6))
        corner, room = window.mapToGlobal(QPoint(0, 0)), window.size()
        x = max(corner.x() + 6, min(x, corner.x() + room.width() - size.width() - 6))
        y = max(corner.y() + 6, min(y, corner.y() + room.height() - size.height() - 6))
        self.move(x, y)
        self.show()
        first = self._row.itemAt(0)
        if first is not None and (widget := first.widget()) is not None:
            widget.setFocus()
