"""A button that is held for a second: what a hand that brushes past must not do."""

from __future__ import annotations

import time

from PyQt6.QtCore import QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QAbstractButton, QWidget

from larch.board.look import icon
from larch.board.timers import timer
from larch.desk.plain import tip
from larch.desk.theme import FOCUS, GOLD, SOFT

HELD = 0.9  # seconds
FRAME = 30  # ms


class HoldButton(QAbstractButton):
    """held: it was held long enough (or pressed by a key); tapped: it was let go too soon."""

    held = pyqtSignal()
    tapped = pyqtSignal()

    def __init__(self, picture: str, label: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.picture = picture
        self.setToolTip(tip(label))
        self.setAccessibleName(label)
        self.setFixedSize(44, 44)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self._since = 0.0
        self._timer = timer(self, self._look, FRAME)

    def _share(self) -> float:
        return min(1.0, (time.monotonic() - self._since) / HELD) if self._since else 0.0

    def _look(self) -> None:
        self.update()
        if self._share() >= 1.0:
            self._stop()
            self.held.emit()

    def _stop(self) -> None:
        self._since = 0.0
        self._timer.stop()
        self.setDown(False)
        self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        super().mousePressEvent(event)
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            self._since = time.monotonic()
            self._timer.start()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        soon = bool(self._since)
        self._stop()
        if soon and event is not None and self.rect().contains(event.position().toPoint()):
            self.tapped.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in (Qt.Key.Key_Space, Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.held.emit()
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        side = min(self.width(), self.height())
        ring = QRectF((self.width() - side) / 2 + 4, (self.height() - side) / 2 + 4, side - 8, side - 8)
        painter.setPen(QPen(FOCUS if self.hasFocus() else SOFT, 2.5))
        painter.drawEllipse(ring)
        if self._since:
            painter.setPen(QPen(GOLD, 4))
            painter.drawArc(ring, 90 * 16, -round(self._share() * 360 * 16))
        pixels = round(side * 0.44)
        icon(self.picture).paint(painter, (self.width() - pixels) // 2, (self.height() - pixels) // 2, pixels, pixels)
