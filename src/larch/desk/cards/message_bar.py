"""A notice: one sentence at the top of the page, with a way out, that goes by itself."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QLabel, QPushButton, QWidget

from larch.board.timers import timer
from larch.core.base.words import _


class Notice(QFrame):
    SECONDS = 9

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setObjectName("notice")
        self._text = QLabel(self)
        self._text.setWordWrap(True)
        self._button = QPushButton(_("fine"), self)
        self._button.setMinimumHeight(36)
        row = QHBoxLayout(self)
        row.setContentsMargins(16, 8, 10, 8)
        row.setSpacing(14)
        row.addWidget(self._text, 1)
        row.addWidget(self._button)
        self._run: Callable[[], object] | None = None
        self._button.clicked.connect(self._pressed)
        self._timer = timer(self, self.hide, once=True)
        self.hide()

    def text(self) -> str:
        return self._text.text()

    def say(self, sentence: str, button: str = "", run: Callable[[], object] | None = None, stay: bool = False) -> None:
        """Shows a sentence, perhaps with something to do about it."""
        self._text.setText(sentence)
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

    def place(self) -> None:
        parent = self.parentWidget()
        assert parent is not None
        width = min(680, parent.width() - 40)
        self.setFixedWidth(width)
        self._text.setAlignment(Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft)
        self.adjustSize()
        self.move((parent.width() - width) // 2, 12)

    def _pressed(self) -> None:
        self.hide()
        if self._run is not None:
            self._run()
