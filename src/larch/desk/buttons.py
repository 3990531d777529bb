"""Buttons of the interface."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QAbstractButton, QToolButton, QWidget

from larch.board.look import GOLD, HAIRLINE, NEEDLE, PAPER, SOFT, STONE, colour, icon, interface_font
from larch.core.words import _

RISE = 8


def icon_button(name: str, label: str, parent: QWidget | None = None, size: int = 44, pixels: int = 24) -> QToolButton:
    """A square button with an icon, a tooltip and an accessible name."""
    button = QToolButton(parent)
    button.setIcon(icon(name))
    button.setIconSize(QSize(pixels, pixels))
    button.setFixedSize(size, size)
    button.setToolTip(label)
    button.setAccessibleName(label)
    return button


class ToolButton(QAbstractButton):
    """A tool on the ledge: in hand, it stands proud by RISE pixels, on a slip of paper with a gold foot."""

    def __init__(self, name: str, icon_name: str, label: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.name = name
        self.icon_name = icon_name
        self.large = False
        self.setText(label)
        self.setCheckable(True)
        self.setAccessibleName(label)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.resize_for(False)

    def resize_for(self, large: bool, upright: bool = False) -> None:
        """Board size or Desk size; a little lower on an upright ledge, where height is scarce."""
        self.large = large
        self.setFixedSize(88 if large else 76, (84 if large else 74) - (8 if upright else 0))
        self.update()

    def sizeHint(self) -> QSize:
        return self.size()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        width, height = self.width(), self.height()
        rise = 0.0
        if self.isChecked():
            rise = RISE
            slip = QRectF(5, 1, width - 10, height - 5)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(23, 51, 46, 26))
            painter.drawRoundedRect(slip.translated(0, 3), 8, 8)
            painter.setPen(QPen(HAIRLINE, 1))
            painter.setBrush(PAPER)
            painter.drawRoundedRect(slip, 8, 8)
        elif self.underMouse():
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(STONE.darker(105))
            painter.drawRoundedRect(QRectF(7, 10, width - 14, height - 14), 8, 8)
        pixels = 34 if self.large else 28
        top = (self.height() - pixels - 25) / 2 + 5 - rise
        icon(self.icon_name).paint(painter, round((width - pixels) / 2), round(top), pixels, pixels)
        painter.setFont(interface_font(16 if self.large else 14, bold=self.isChecked()))
        painter.setPen(NEEDLE if self.isChecked() else SOFT)
        text = QRectF(0, top + pixels + 3, width, 20)
        painter.drawText(text, Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignTop, self.text())
        if self.isChecked():
            painter.fillRect(QRectF(width / 2 - 17, height - 12, 34, 3), GOLD)
        if self.hasFocus():
            painter.setPen(QPen(GOLD, 2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(QRectF(3, 2, width - 6, height - 5), 9, 9)


class HueButton(QAbstractButton):
    """A round of colour; the chosen one wears a gold ring and a tick, so that colour is not all that tells."""

    def __init__(self, hue: str, parent: QWidget | None = None, size: int = 44) -> None:
        super().__init__(parent)
        self.hue = hue
        self.setCheckable(True)
        self.setFixedSize(size, size)
        self.setToolTip(_(hue))
        self.setAccessibleName(_("colour: {hue}").format(hue=_(hue)))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        middle = QPointF(self.width() / 2, self.height() / 2)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour(self.hue))
        radius = min(13.0, self.width() / 2 - 5)
        painter.drawEllipse(middle, radius, radius)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if self.isChecked():
            painter.setPen(QPen(GOLD, 3))
            painter.drawEllipse(middle, radius + 3, radius + 3)
            painter.setPen(QPen(PAPER, 2.5))
            painter.drawPolyline([middle + QPointF(-5, 0), middle + QPointF(-1, 4), middle + QPointF(6, -4)])
        elif self.hasFocus():
            painter.setPen(QPen(GOLD, 2))
            painter.drawRoundedRect(QRectF(2, 2, self.width() - 4, self.height() - 4), 8, 8)


class WidthButton(QAbstractButton):
    """A dot as large as the line is wide."""

    def __init__(self, width: float, label: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.line = width
        self.setCheckable(True)
        self.setFixedSize(44, 44)
        self.setToolTip(label)
        self.setAccessibleName(label)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.isChecked() or self.hasFocus():
            painter.setPen(QPen(GOLD, 2))
            painter.setBrush(STONE if self.isChecked() else Qt.GlobalColor.transparent)
            painter.drawRoundedRect(QRectF(3, 3, 38, 38), 8, 8)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NEEDLE)
        radius = min(14.0, max(1.5, self.line / 2))
        painter.drawEllipse(QPointF(22, 22), radius, radius)
