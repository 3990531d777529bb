"""One finger at the Board, through the whole window."""

from __future__ import annotations

from PyQt6.QtCore import QPointF
from PyQt6.QtWidgets import QWidget

from larch.desk.editors.equation import EquationEditor
from larch.desk.editors.key_tray import KeyTray
from tests.board.test_tools import Hand
from tests.board.touch import State, send_touch, touch_device


def at_the_board(hand: Hand) -> Finger:
    """A finger at an empty page of the Board, with the tray of keys ready."""
    KeyTray.chosen = "letters"
    EquationEditor.tray_wanted = True
    hand.put()
    hand.window.go_to_board()
    return Finger(hand)


class Finger:
    """One finger that taps widgets and places, through the window, as a touch screen does."""

    def __init__(self, hand: Hand) -> None:
        self.hand = hand
        self.device = touch_device()

    def _send(self, state: State, at: QPointF) -> None:
        send_touch(self.hand.window, self.device, [(3, state, at.x(), at.y())])

    def tap(self, widget: QWidget, at: QPointF | None = None) -> None:
        point = QPointF(widget.mapTo(self.hand.window, (at or QPointF(widget.rect().center()))))
        self._send(State.Pressed, point)
        self._send(State.Released, point)

    def tap_page(self, x: float, y: float) -> None:
        self.tap(self.hand.canvas, QPointF(*self.hand.canvas.camera.to_view(x, y)))

    def drag(self, widget: QWidget, start: QPointF, end: QPointF) -> None:
        a, b = (QPointF(widget.mapTo(self.hand.window, at)) for at in (start, end))
        self._send(State.Pressed, a)
        for k in range(1, 7):
            self._send(State.Updated, a + (b - a) * k / 6)
        self._send(State.Released, b)

    @property
    def editor(self) -> EquationEditor:
        found = self.hand.window.editors.open
        assert isinstance(found, EquationEditor)
        return found

    def keys(self, *names: str) -> None:
        """Keys of the tray by their names, from whichever set has them: the set is tapped first where it is another."""
        for name in names:
            tray = self.editor.tray
            assert tray is not None
            if not self._key(tray, name):
                for chooser in tray._sets:
                    self.tap(chooser)
                    if self._key(tray, name):
                        break
            found = self._key(tray, name)
            assert found, name
            self.tap(found[0])

    def _key(self, tray: KeyTray, name: str) -> list[QWidget]:
        return [button for _place, button in tray._keys if name in (button.key.name, button.key.does)]

    def drag_page(self, start: tuple[float, float], end: tuple[float, float]) -> None:
        a, b = (QPointF(*self.hand.canvas.camera.to_view(*at)) for at in (start, end))
        self.drag(self.hand.canvas, a, b)
