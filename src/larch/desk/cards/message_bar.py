"""A notice: one sentence with a way out, that goes by itself.

At the Desk it lies in the top bar, at the Board where the page is empty.
"""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QRect, Qt, pyqtSignal
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QWidget

from larch.board.timers import timer
from larch.core.base.words import _
from larch.desk.plain import Words


class Notice(QFrame):
    """spoken: every sentence, for those who hear it."""

    spoken = pyqtSignal(str)
    SECONDS = 9

    def __init__(
        self, parent: QWidget, bar: Callable[[], QRect], places: Callable[[int, int], QRect | None] | None = None
    ) -> None:
        """bar: where it lies; places: another place for its size, where there is no bar, or None."""
        super().__init__(parent)
        self._bar = bar
        self._places = places
        self.setObjectName("notice")
        self._text = Words(self)
        self._text.setWordWrap(True)
        self._text.setTextFormat(Qt.TextFormat.PlainText)
        self._button = QPushButton(_("fine"), self)
        self._button.setMinimumHeight(36)
        row = self._row = QHBoxLayout(self)
        row.setContentsMargins(16, 8, 10, 8)
        row.setSpacing(14)
        row.addWidget(self._text, 1)
        row.addWidget(self._button)
        self._run: Callable[[], object] | None = None
        self._button.clicked.connect(self._pressed)
        self._standing = ""
        self._work = ""
        self._timer = timer(self, self._pass, once=True)
        self.hide()

    def text(self) -> str:
        return self._text.text()

    def say(self, sentence: str, button: str = "", run: Callable[[], object] | None = None, stay: bool = False) -> None:
        """Shows a sentence, perhaps with something to do about it."""
        self._text.setText(sentence)
        self.spoken.emit(sentence)
        self.setAccessibleName(sentence)
        self._button.setText(button or _("fine"))
        self._run = run
        self.place()
        self.show()
        self.raise_()
        if stay:
            self._timer.stop()
        else:
            self._timer.start(self.SECONDS * 1000)

    def say_working(self, label: str, count: int, stop: Callable[[], object]) -> None:
        """Something takes long and can be stopped; "" when it is over."""
        if label:
            self._work = _("{what}: {n} things…").format(what=label, n=count)
            self.say(self._work, _("stop"), stop, stay=True)
        elif self._text.text() == self._work:
            self._pass()

    def insist(self, sentence: str) -> None:
        """A sentence that comes again after every other one, until it is taken back with ""."""
        taken_back = bool(self._standing) and not sentence
        self._standing = sentence
        if sentence:
            self.say(sentence, stay=True)
        elif taken_back:
            self.hide()

    def _pass(self) -> None:
        """A sentence has had its time."""
        if self._standing and self._text.text() != self._standing:
            self.say(self._standing, stay=True)
        else:
            self.hide()

    def place(self) -> None:
        """Between the menus and the switch at the Desk; at the Board where it covers least."""
        bar = self._bar()
        width = min(680, bar.width())
        self._text.setAlignment(Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft)
        self.setFixedWidth(width)
        self.setMinimumHeight(0)
        self._row.setContentsMargins(14, 2, 8, 2)
        high = max(self.heightForWidth(width), 40)
        if self._places is not None and (place := self._places(width, high)) is not None:
            self.setGeometry(place)
            return
        self.setGeometry(bar.x() + (bar.width() - width) // 2, bar.y() + max(0, (bar.height() - high) // 2), width, high)

    def _pressed(self) -> None:
        run = self._run
        self._pass()
        if run is not None:
            run()
