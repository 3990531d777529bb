"""What lies on the page: keys, a tag, a bar, a card. Qt offers a touch that these don't take to the page below them."""

from __future__ import annotations

from PyQt6 import sip
from PyQt6.QtCore import QCoreApplication, QEvent, QPointF, Qt
from PyQt6.QtGui import QEventPoint, QMouseEvent
from PyQt6.QtWidgets import QWidget

KINDS = {
    QEventPoint.State.Pressed: QEvent.Type.MouseButtonPress,
    QEventPoint.State.Updated: QEvent.Type.MouseMove,
    QEventPoint.State.Released: QEvent.Type.MouseButtonRelease,
}


class Above:
    """Fingers on what lies on the page, while others are on the page itself: each presses it as a mouse does. (Where there
    are no others, the page leaves the touch alone, and Qt makes a mouse of it.)"""

    def __init__(self, page: QWidget) -> None:
        self.page = page
        self._pressed: dict[str, QWidget] = {}  # by the finger

    def at(self, place: QPointF) -> QWidget | None:
        """What lies on the page at a place of the screen."""
        return self.page.childAt(self.page.mapFromGlobal(place).toPoint())

    def takes(self, pointer: str, point: QEventPoint) -> bool:
        """Whether a finger is not on the page; it then presses what it is on."""
        state, place = point.state(), point.globalPosition()
        target = self._pressed.get(pointer)
        if target is None and state == QEventPoint.State.Pressed:
            target = self.at(place)
            if target is not None:
                self._pressed[pointer] = target
        if target is None:
            return False
        if state == QEventPoint.State.Released:
            del self._pressed[pointer]
        if state in KINDS and not sip.isdeleted(target):
            self._send(target, KINDS[state], place)
        return True

    def _send(self, target: QWidget, kind: QEvent.Type, place: QPointF) -> None:
        lifted = kind == QEvent.Type.MouseButtonRelease
        button = Qt.MouseButton.NoButton if kind == QEvent.Type.MouseMove else Qt.MouseButton.LeftButton
        held = Qt.MouseButton.NoButton if lifted else Qt.MouseButton.LeftButton
        made = QMouseEvent(kind, target.mapFromGlobal(place), place, button, held, Qt.KeyboardModifier.NoModifier)
        QCoreApplication.sendEvent(target, made)

    def forget(self) -> None:
        """The touch came to nothing."""
        self._pressed.clear()
