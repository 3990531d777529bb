"""The lesson's title in the top bar, which gives way where the bar is narrow."""

from __future__ import annotations

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent
from PyQt6.QtWidgets import QWidget

from larch.desk.plain import Words


class Heading(Words):
    """Its mark (there are changes that are not saved) stays, however short the title has to be."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self._title, self._mark = "", ""

    def show_title(self, title: str, mark: str) -> None:
        self._title, self._mark = title, mark
        self.setText(title + mark)

    def minimumSizeHint(self) -> QSize:
        return QSize(80, super().minimumSizeHint().height())

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        metrics = self.fontMetrics()
        room = self.width() - metrics.horizontalAdvance(self._mark)
        short = metrics.elidedText(self._title, Qt.TextElideMode.ElideRight, room)
        painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, short + self._mark)
