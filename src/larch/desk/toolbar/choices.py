"""The choices of the tool in hand: a card just beside it, in rows, one for each thing to be chosen."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from functools import partial

from PyQt6.QtCore import QPoint, Qt, pyqtSignal
from PyQt6.QtWidgets import QAbstractButton, QFrame, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from larch.board.look import icon
from larch.board.timers import retire
from larch.board.tools.base import Tool
from larch.core.base.hues import HUES
from larch.core.base.words import _
from larch.desk.plain import Words
from larch.desk.style import lift
from larch.desk.toolbar.buttons import HueButton, icon_button

LARGE = 56 / 44  # targets at the Board over those at the Desk
MOST_OWN = 3  # own colours that are offered


class Choices(QFrame):
    """chosen: something of the tool changed; pressed: a command of the window by its name."""

    chosen = pyqtSignal()
    pressed = pyqtSignal(str)

    def __init__(
        self,
        parent: QWidget,
        own_hues: Callable[[], tuple[str, ...]],
        fill: Callable[[Choices, Tool], None],
    ) -> None:
        super().__init__(parent)
        self.setObjectName("card")
        lift(self)
        self.own_hues = own_hues
        self._fill = fill
        self.large = False  # at the Board
        self._grows_up = True  # the foot stays where it is when the card changes its size
        self._rows = QVBoxLayout(self)
        self._rows.setContentsMargins(10, 6, 10, 6)
        self._rows.setSpacing(2)
        self._row = QHBoxLayout()
        self.tool: Tool | None = None
        self.hide()

    def open_for(self, tool: Tool) -> None:
        """Fills itself with what can be chosen for a tool."""
        self.tool = tool
        _empty(self._rows)
        self.setAccessibleName(_("choices for {tool}").format(tool=tool.label()))
        self.row()
        self._fill(self, tool)
        self._row.addStretch(1)
        self.adjustSize()
        self.show()
        self.raise_()

    # What the rows are made of

    def row(self) -> None:
        """Begins a row."""
        if self._row.count():
            self._row.addStretch(1)
        self._row = QHBoxLayout()
        self._row.setSpacing(2)
        self._rows.addLayout(self._row)

    def apart(self) -> None:
        """A hairline between two groups."""
        line = QFrame(self)
        line.setFixedSize(1, 32)
        line.setStyleSheet("background: #D9D5C8;")
        self._row.addSpacing(6)
        self._row.addWidget(line)
        line.show()
        self._row.addSpacing(6)

    def add(self, button: QWidget) -> None:
        """Adds a control; at the Board it is larger."""
        if self.large and button.minimumSize() == button.maximumSize():
            button.setFixedSize(round(button.width() * LARGE), round(button.height() * LARGE))
        elif self.large:
            button.setMinimumHeight(round(44 * LARGE))
        self._row.addWidget(button)
        button.show()  # a child that comes while the card is seen counts for its size only when shown

    def words(self, text: str) -> None:
        label = Words(text, self)
        label.setObjectName("soft")
        self._row.addWidget(label)
        label.show()
        self._row.addSpacing(4)

    def one_of(self, button: QAbstractButton, on: bool, set_: Callable[[], None]) -> None:
        """A button of which one in a group is on; pressing it sets something of the tool."""
        button.setCheckable(True)
        button.setChecked(on)
        button.clicked.connect(lambda: self.changed(set_))
        self.add(button)

    def icons(self, listed: Iterable[tuple[str, str, str]], now: str, set_: Callable[[str], None]) -> None:
        """Square buttons of (value, icon, label)."""
        for value, picture, label in listed:
            button = icon_button(picture, label, self)
            button.setObjectName("pick")
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            self.one_of(button, value == now, partial(lambda value: set_(value), value))

    def texts(self, listed: Iterable[tuple[str, str]], now: str, set_: Callable[[str], None]) -> None:
        """Buttons of (value, label)."""
        for value, label in listed:
            button = QPushButton(label, self)
            button.setObjectName("choice")
            button.setMinimumHeight(44)
            self.one_of(button, value == now, partial(lambda value: set_(value), value))

    def hues(self, now: str, set_: Callable[[str], None], every: str = "") -> None:
        """The hues, those mixed by the person, and a way to mix another; `every` labels a button for no hue at all."""
        if every:
            self.texts([("", every)], now, set_)
        own = [hue for hue in self.own_hues() if hue not in HUES][:MOST_OWN]
        for hue in [*HUES, *own, *([now] if now and now not in HUES and now not in own else [])]:
            self.one_of(HueButton(hue, self), hue == now, partial(lambda hue: set_(hue), hue))
        mix = icon_button("palette", _("mix a colour"), self)
        mix.clicked.connect(lambda: self._mix(now, set_))
        self.add(mix)

    def _mix(self, now: str, set_: Callable[[str], None]) -> None:
        from PyQt6.QtGui import QColor
        from PyQt6.QtWidgets import QColorDialog

        from larch.core.base.hues import hex_of

        picked = QColorDialog.getColor(QColor(hex_of(now)), self.parentWidget(), _("Mix a colour"))
        if picked.isValid():
            self.changed(lambda: set_(picked.name()))

    def commands(self, listed: Iterable[tuple[str, str, str]]) -> None:
        """Buttons of (icon, label, name of a command)."""
        for picture, label, name in listed:
            button = QPushButton(icon(picture), f" {label}", self)
            button.setAccessibleName(label)
            button.setMinimumHeight(44)
            button.clicked.connect(lambda _on=False, name=name: self.pressed.emit(name))
            self.add(button)

    def changed(self, change: Callable[[], None]) -> None:
        """Changes the tool, tells of it, and shows the card as it is now."""
        change()
        self.chosen.emit()
        if self.tool is not None:
            before = self.geometry()
            self.open_for(self.tool)
            top = before.bottom() + 1 - self.height() if self._grows_up else before.y()
            parent = self.parentWidget()
            room = parent.width() if parent is not None else self.width()
            self.move(max(8, min(before.x(), room - self.width() - 8)), max(8, top))

    def stand_by(self, button: QWidget, edge: str) -> None:
        """Places itself beside a tool's button, towards the page."""
        parent = self.parentWidget()
        assert parent is not None
        at = button.mapTo(parent, QPoint(0, 0))
        middle = (at.x() + button.width() // 2 - self.width() // 2, at.y() + button.height() // 2 - self.height() // 2)
        places = {
            "bottom": (middle[0], at.y() - self.height() - 8),
            "top": (middle[0], at.y() + button.height() + 8),
            "left": (at.x() + button.width() + 8, middle[1]),
            "right": (at.x() - self.width() - 8, middle[1]),
        }
        places["float"] = places["bottom"] if at.y() > self.height() + 16 else places["top"]
        x, y = places[edge]
        self._grows_up = y < at.y()
        self.move(max(8, min(x, parent.width() - self.width() - 8)), max(8, min(y, parent.height() - self.height() - 8)))


def _empty(rows: QVBoxLayout) -> None:
    while rows.count():
        item = rows.takeAt(0)
        row = item.layout() if item is not None else None
        while row is not None and row.count():
            inner = row.takeAt(0)
            old = inner.widget() if inner is not None else None
            if old is not None:
                retire(old)
        if row is not None:
            row.deleteLater()
