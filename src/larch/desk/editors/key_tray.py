"""Big keys that write mathematics, for fingers: they rise from the ledge and stay off the line that is written."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtCore import QPointF, QRect, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QResizeEvent
from PyQt6.QtWidgets import QAbstractButton, QWidget

from larch.board.look import GOLD, NEEDLE, PAPER, SOFT, STONE, interface_font
from larch.board.timers import retire
from larch.board.typeset.boxes import Setting, paint_setting
from larch.board.typeset.mathset import set_row
from larch.core.base.signs import signs_in_use
from larch.core.base.words import _
from larch.core.maths.layout.rows import signs
from larch.desk.editors.hand_pad import HandPad
from larch.desk.editors.key_sets import BY_HAND, POINT, SETS, Key

if TYPE_CHECKING:
    from larch.board.camera import Camera
    from larch.board.canvas import Canvas

HEIGHT = 222
SIDE, GAP, PARTED = 132, 8, 20
MOVES = 190  # pixels, for the keys beside the place to write in
EAR = QSize(118, 44)
LARGEST, LEAST = 30.0, 15.0


class KeyButton(QAbstractButton):
    """A key: paper with an edge; dark for the next line."""

    def __init__(self, key: Key, parent: QWidget) -> None:
        super().__init__(parent)
        self.key = key
        self.setText(_(key.name))
        self.setAccessibleName(_(key.name))
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAutoRepeat(key.does in ("rub out", "left", "right"))
        self.setAutoRepeatDelay(450)
        shows = signs(signs_in_use().decimal) if key is POINT and signs_in_use().decimal else key.shows
        self._made: Setting | None = set_row(shows) if shows else None

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHints(QPainter.RenderHint.Antialiasing | QPainter.RenderHint.TextAntialiasing)
        box = QRectF(self.rect()).adjusted(1.5, 1.5, -1.5, -1.5)
        dark = self.key.does == "next line"
        pressed = self.isDown()
        painter.setPen(QPen(GOLD, 3) if pressed else QPen(NEEDLE if dark else SOFT, 1.2))
        painter.setBrush(NEEDLE if dark else STONE if pressed else PAPER)
        painter.drawRoundedRect(box, 6, 6)
        if self._made is None:
            painter.setPen(PAPER if dark else NEEDLE)
            painter.setFont(interface_font(17, bold=True))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, self.text())
            return
        made = self._made
        up, down = max(made.above, 0.7), max(made.below, 0.1)
        size = min(LARGEST, (box.height() - 12) / (up + down), (box.width() - 10) / max(0.3, made.width))
        size = max(LEAST, size)
        at = QPointF(box.center().x() - made.width * size / 2, box.center().y() + (up - down) / 2 * size)
        paint_setting(painter, made, at, size, NEEDLE)


class SetButton(QAbstractButton):
    """Chooses a set of keys; a gold bar stands beside the one that is chosen."""

    def __init__(self, name: str, label: str, parent: QWidget) -> None:
        super().__init__(parent)
        self.name = name
        self.setText(label)
        self.setAccessibleName(label)
        self.setCheckable(True)
        self.setAutoExclusive(True)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(self.rect()).adjusted(1, 1, -1, -1)
        if self.isChecked():
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(PAPER)
            painter.drawRoundedRect(box, 6, 6)
            painter.fillRect(QRectF(box.x() + 2, box.y() + 8, 3, box.height() - 16), GOLD)
        painter.setPen(NEEDLE if self.isChecked() else SOFT)
        painter.setFont(interface_font(16, bold=self.isChecked()))
        painter.drawText(box.adjusted(16, 0, 0, 0), Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft, self.text())


class KeysBack(KeyButton):
    """Where the ear of the tray was, while the tray is away: a tap brings it back, so that fingers alone can."""

    def __init__(self, canvas: QWidget, back: Callable[[], None]) -> None:
        super().__init__(Key((), "keys", does="keys"), canvas)
        self.setText(_("keys"))
        self.setAccessibleName(_("bring the keys back"))
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)  # else a press would give the focus to the page
        self.clicked.connect(back)
        self.show()
        self.raise_()

    def place(self, canvas: QWidget) -> None:
        x, y = canvas.width() - EAR.width() - PARTED, canvas.height() - EAR.height() - GAP
        self.setGeometry(x, y, EAR.width(), EAR.height())


class KeyTray(QWidget):
    """Lies at the lower edge of the page. `chosen`: the name of the set that is shown, kept while the program runs."""

    pressed = pyqtSignal(object)
    put_away = pyqtSignal()
    chosen = "letters"
    _asked = ""  # the set that the lesson shows first, when it was last looked at
    _lifted: tuple[Camera, Camera] | None = None  # how the page lay before it went up for the keys, and since

    @classmethod
    def lift_page(cls, canvas: Canvas, by: float) -> None:
        """The page goes up by so many pixels; from one line to the next it is remembered where it lay at first."""
        before = canvas.camera
        if cls._lifted is not None and cls._lifted[1] is before:
            before = cls._lifted[0]
        canvas.pan_by(0, -by)
        cls._lifted = (before, canvas.camera)

    @classmethod
    def lower_page(cls, canvas: Canvas) -> None:
        """Back to where it lay, unless it has been moved since."""
        lifted, cls._lifted = cls._lifted, None
        if lifted is not None and canvas.camera is lifted[1]:
            canvas.look(lifted[0])

    def __init__(self, parent: QWidget, first: str = "") -> None:
        """first: the set that is shown, without its being kept for the next."""
        super().__init__(parent)
        asked = signs_in_use().keys
        if asked != KeyTray._asked:
            KeyTray._asked, KeyTray.chosen = asked, asked or KeyTray.chosen
        self.setAccessibleName(_("keys for mathematics"))
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setAttribute(Qt.WidgetAttribute.WA_NoMousePropagation)  # a finger between the keys does nothing
        self._keys: list[tuple[QRect, KeyButton]] = []
        self.pad: HandPad | None = None
        self._offers = not first  # what is written can be exchanged there
        self._sets = [SetButton(one.name, _(one.label), self) for one in SETS if one.label]
        for button in self._sets:
            button.clicked.connect(self._chooser(button.name))
        self.ear = KeyButton(Key((), "put away", does="put away"), self)
        self.ear.setText(_("put away"))
        self.ear.setAccessibleName(_("put the keys away"))
        self.ear.clicked.connect(self.put_away.emit)
        self._show(first or KeyTray.chosen)

    def _chooser(self, name: str) -> Callable[[], None]:
        return lambda: self.choose(name)

    def choose(self, name: str) -> None:
        """Shows a set of keys."""
        KeyTray.chosen = name if name != "alphabet" else KeyTray.chosen
        self._show(name)

    def _show(self, name: str) -> None:
        for button in self._sets:
            button.setChecked(button.name == (name if name != "alphabet" else KeyTray.chosen))
        for _place, old in self._keys:
            retire(old)
        self._keys = []
        found = next(one for one in SETS if one.name == name)
        for group in found.groups:
            for row in group:
                for key in row:
                    made = KeyButton(key, self)
                    made.clicked.connect(self._presser(key))
                    self._keys.append((QRect(), made))
                    made.show()
        self._shown = found
        if self.pad is not None:
            retire(self.pad)
        self.pad = HandPad(self, self._offers) if name == BY_HAND else None
        if self.pad is not None:
            self.pad.pressed.connect(self.pressed)
            self.pad.show()
        self._lay_out()

    def _presser(self, key: Key) -> Callable[[], None]:
        def press() -> None:
            if key.does.startswith("set "):
                self.choose(key.does[4:])
            else:
                self.pressed.emit(key)

        return press

    def _lay_out(self) -> None:
        """Rows as high, columns as wide as there is room for."""
        wide = self.width() - SIDE - 2 * GAP
        left = float(SIDE + GAP)
        if self.pad is not None:
            room = max(120, wide - MOVES - PARTED)
            self.pad.setGeometry(round(left), self.height() - HEIGHT + GAP, room, HEIGHT - 2 * GAP)
            left, wide = left + room + PARTED, wide - room - PARTED
        groups = self._shown.groups
        columns = [max(sum(key.wide for key in row) for row in group) for group in groups]
        rows = max(len(group) for group in groups)
        room = wide - PARTED * (len(groups) - 1) - GAP * (sum(columns) - len(groups))
        unit = max(24.0, room / sum(columns))
        height = (HEIGHT - 2 * GAP - GAP * (rows - 1)) / rows
        index = 0
        for group, across in zip(groups, columns, strict=True):
            for r, row in enumerate(group):
                x = left
                for key in row:
                    w = unit * key.wide + GAP * (key.wide - 1)
                    y = self.height() - HEIGHT + GAP + r * (height + GAP)
                    self._keys[index][1].setGeometry(round(x), round(y), round(w), round(height))
                    x += w + GAP
                    index += 1
            left += across * unit + (across - 1) * GAP + PARTED
        share = (HEIGHT - 2 * GAP) / len(self._sets)  # close together: each as high as there is room for a finger
        for k, button in enumerate(self._sets):
            y = self.height() - HEIGHT + GAP + k * share
            button.setGeometry(GAP, round(y), SIDE - GAP, round(share))
        self.ear.setGeometry(self.width() - EAR.width() - PARTED, 0, EAR.width(), EAR.height())

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self._lay_out()

    def full_height(self) -> int:
        """With the ear."""
        return HEIGHT + EAR.height() - 2

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        top = self.height() - HEIGHT
        painter.fillRect(0, top, self.width(), HEIGHT, STONE)
        painter.setPen(QPen(SOFT, 1))
        painter.drawLine(0, top, self.width(), top)
