"""Pointing into an equation that is being written: the caret, a selection, a term carried to the other side."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtWidgets import QWidget

from larch.board.typeset.boxes import Stop
from larch.board.typeset.mathset import set_row
from larch.core.maths.layout import terms
from larch.core.maths.layout import writing as pen
from larch.core.maths.layout.rows import Sign
from larch.core.maths.layout.writing import Writing

NEAR = 14.0  # px


class Pointed(QWidget):
    """Where the mouse or a finger goes in the line. `_origin` is where its baseline begins, in px."""

    writing: Writing
    _origin: QPointF

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self._pressed = QPointF()
        self._carried = False  # whether what is selected is being dragged

    def write(self, made: Writing) -> None:
        raise NotImplementedError

    def _scale(self) -> float:
        raise NotImplementedError

    def _nearest(self, at: QPointF, within: pen.Path | None = None) -> Stop | None:
        k = self._scale()
        x, y = (at.x() - self._origin.x()) / k, (at.y() - self._origin.y()) / k

        def cost(stop: Stop) -> float:
            outside = max(stop.top - y, y - stop.bottom, 0.0)
            return abs(stop.x - x) + 2.0 * outside + 0.15 * (stop.bottom - stop.top)

        stops = [s for s in set_row(self.writing.row).stops if within is None or s.path == within]
        return min(stops, key=cost, default=None)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        self.setFocus()
        self._pressed = event.position()
        found = self._nearest(event.position())
        start, end = self.writing.selected()
        self._carried = found is not None and found.path == self.writing.path == () and start <= found.part <= end > start
        if found is not None and not self._carried:
            self.write(self.writing.moved(found.path, found.part))

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or not event.buttons() & Qt.MouseButton.LeftButton:
            return
        found = self._nearest(event.position(), self.writing.path)
        if found is not None and not self._carried:
            anchor = self.writing.at if self.writing.anchor is None else self.writing.anchor
            self.write(Writing(self.writing.row, self.writing.path, found.part, anchor))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """A selected term that was carried over the sign between the sides changes its own."""
        if event is None or not self._carried:
            return
        self._carried = False
        found = self._nearest(event.position(), ())
        signs = [k for k, item in enumerate(self.writing.row) if isinstance(item, Sign) and item.text in "=<>≤≥≠"]
        if found is not None and len(signs) == 1 and (found.part > signs[0]) != (self.writing.at > signs[0]):
            self.write(terms.brought_over(self.writing))

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """The term; once more, the side; once more, all of it. Two quick taps at two places are not that, though Qt may
        take them for it."""
        if event is not None and (event.position() - self._pressed).manhattanLength() > NEAR:
            return self.mousePressEvent(event)
        start, end = self.writing.selected()
        if start == end:
            self.write(terms.term_at(self.writing))
        elif self.writing == terms.side_at(self.writing):
            self.write(terms.everything(self.writing))
        else:
            self.write(terms.side_at(self.writing))
