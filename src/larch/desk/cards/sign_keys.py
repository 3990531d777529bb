"""The signs of a reading, side by side: one that is tapped shows what else it could be, and is exchanged by a second tap."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QAbstractButton, QGridLayout, QVBoxLayout, QWidget

from larch.board.look import page_font, text_colour
from larch.board.timers import retire
from larch.core.base.words import _
from larch.desk.theme import GOLD, HAIRLINE, PAPER

WIDE, HIGH = 42, 48  # of a key, pixels
IN_ROW = 8
UNSURE = 0.9  # how sure a sign is at least that is not pointed out
SHOWN = {"-": "−", "'": "′"}


class ReadSign(NamedTuple):
    """A sign of the likeliest reading. others: what else it could be. picked: it was exchanged by hand."""

    token: str
    confidence: float
    others: tuple[str, ...]
    picked: bool = False


class _Key(QAbstractButton):
    def __init__(self, sign: str, name: str, unsure: bool, parent: QWidget) -> None:
        super().__init__(parent)
        self.sign, self.unsure = SHOWN.get(sign, sign), unsure
        self.setAccessibleName(name)
        self.setToolTip(name)
        self.setFixedSize(WIDE, HIGH)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def sizeHint(self) -> QSize:
        return QSize(WIDE, HIGH)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        lively = self.hasFocus() or self.isChecked()
        painter.setPen(QPen(QColor(GOLD if lively else HAIRLINE), 2.5 if lively else 1.2))
        painter.setBrush(QColor(PAPER))
        painter.drawRoundedRect(QRectF(self.rect()).adjusted(1.5, 1.5, -1.5, -1.5), 6, 6)
        painter.setPen(text_colour("needle"))
        painter.setFont(page_font(24))
        painter.drawText(QRectF(0, 0, WIDE, HIGH - 4), Qt.AlignmentFlag.AlignCenter, self.sign)
        if self.unsure:  # three dots: look here
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(GOLD))
            for k in (-1, 0, 1):
                painter.drawEllipse(QRectF(WIDE / 2 + 7 * k - 1.8, HIGH - 11, 3.6, 3.6))


class SignKeys(QWidget):
    """changed: the number of a sign, and what it is instead."""

    changed = pyqtSignal(int, str)
    resized = pyqtSignal()

    def __init__(self, signs: Sequence[ReadSign], parent: QWidget) -> None:
        super().__init__(parent)
        self.signs = signs
        self.setAccessibleName(_("signs that were read"))
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 0)
        self._column.setSpacing(4)
        self.keys: list[_Key] = []
        self.others: list[_Key] = []
        self._row_of_others: QWidget | None = None
        self._opened = -1
        names = (_("sign {k} of {n}: {sign}").format(k=k + 1, n=len(signs), sign=one.token) for k, one in enumerate(signs))
        for k, (one, name) in enumerate(zip(signs, names, strict=True)):
            key = _Key(one.token, name, one.confidence < UNSURE and not one.picked, self)
            key.setCheckable(True)
            key.clicked.connect(lambda _on=False, k=k: self.open(k))
            self.keys.append(key)
        self._column.addWidget(self._rows(self.keys))

    def _rows(self, keys: Sequence[_Key]) -> QWidget:
        held = QWidget(self)
        grid = QGridLayout(held)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(4)
        for k, key in enumerate(keys):
            grid.addWidget(key, k // IN_ROW, k % IN_ROW)
        grid.setColumnStretch(IN_ROW, 1)
        return held

    def open(self, k: int) -> None:
        """Shows what the k-th sign could be; a second tap closes that."""
        if self._row_of_others is not None:
            self._column.removeWidget(self._row_of_others)
            retire(self._row_of_others)
            self._row_of_others, self.others = None, []
        self._opened = -1 if k == self._opened else k
        for at, key in enumerate(self.keys):
            key.setChecked(at == self._opened)
        if self._opened >= 0:
            one = self.signs[k]
            for sign in one.others:
                key = _Key(sign, _("{sign} instead of {was}").format(sign=sign, was=one.token), False, self)
                key.clicked.connect(lambda _on=False, sign=sign: self.changed.emit(k, sign))
                self.others.append(key)
            self._row_of_others = self._rows(self.others)
            self._column.addWidget(self._row_of_others)
            self._row_of_others.show()
            if self.keys[k].hasFocus() and self.others:
                self.others[0].setFocus()
        self.adjustSize()
        self.resized.emit()
