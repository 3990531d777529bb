"""Buttons of the interface."""

from __future__ import annotations

import math
from functools import cache
from typing import TYPE_CHECKING

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QFontMetrics, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QAbstractButton, QToolButton, QWidget

from larch.board.look import NEEDLE as INK
from larch.board.look import PAPER as PAGE
from larch.board.look import colour, icon, interface_font
from larch.core.base.words import _
from larch.core.model.nibs import Pen
from larch.desk.plain import tip
from larch.desk.theme import FOCUS, GOLD, HAIRLINE, NEEDLE, PAPER, SOFT, STONE, worn

if TYPE_CHECKING:
    from larch.core.things.ink.ink import Ink

RISE = 8
CHIP = 46  # height of a chip at the Desk


def icon_button(name: str, label: str, parent: QWidget | None = None, size: int = 44, pixels: int = 24) -> QToolButton:
    """A square button with an icon, a tooltip and an accessible name."""
    button = QToolButton(parent)
    button.setIcon(icon(name))
    button.setIconSize(QSize(pixels, pixels))
    button.setFixedSize(size, size)
    button.setToolTip(tip(label))
    button.setAccessibleName(label)
    return button


class ToolButton(QAbstractButton):
    """A tool on the ledge: in hand, it stands proud by RISE pixels, on a slip of paper with a gold foot."""

    def __init__(self, name: str, icon_name: str, label: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.name = name
        self.icon_name = icon_name
        self.large = self.upright = False
        self.manner = "wide"
        self.setText(label)
        self.setCheckable(True)
        self.setAutoExclusive(name != "fold")  # what a screen reader calls a radio button
        self.setAccessibleName(label)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.resize_for(False)

    def resize_for(self, large: bool, upright: bool = False, manner: str = "wide") -> None:
        """Board size or Desk size; `manner` is "wide", "snug" (as wide as its word) or "bare" (without its word)."""
        self.large, self.upright, self.manner = large, upright, manner
        self.setFixedSize(self.size_for(large, upright, manner))
        self.update()

    def size_for(self, large: bool, upright: bool, manner: str) -> QSize:
        """How large it is for a way of lying on the ledge; a little lower on an upright one, where height is scarce."""
        least = 56 if large else 46
        if manner == "bare":
            return QSize(least, least if upright else (76 if large else 66))
        height = (56 if large else 54) if upright else (84 if large else 74)
        wide = 78 if large else 76
        if manner == "snug":
            word = QFontMetrics(interface_font(16 if large else 14, bold=True)).horizontalAdvance(self.text())
            wide = min(wide, max(least, word + 14)) if not upright else wide
        return QSize(max(wide, least), height)

    def sizeHint(self) -> QSize:
        return self.size()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        width, height = self.width(), self.height()
        rise = 0.0
        if self.isChecked():
            rise = RISE
            beside = 5 if self.manner == "wide" else 0.5
            slip = QRectF(beside, 1, width - 2 * beside, height - 5)
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
        pixels = 26 if self.upright else 34 if self.large else 28
        bare = self.manner == "bare"
        top = (height - pixels - (8 if bare else 25)) / 2 + (3 if bare else 5) - rise
        icon(self.icon_name).paint(painter, round((width - pixels) / 2), round(top), pixels, pixels)
        painter.setFont(interface_font(16 if self.large else 14, bold=self.isChecked()))
        painter.setPen(NEEDLE if self.isChecked() else SOFT)
        if not bare:
            text = QRectF(0, top + pixels + 3, width, 20)
            painter.drawText(text, Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignTop, self.text())
        if self.isChecked():
            painter.fillRect(QRectF(width / 2 - 14, height - 12, 28, 3), GOLD)
        if self.hasFocus():
            painter.setPen(QPen(FOCUS, 2.5))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(QRectF(3, 2, width - 6, height - 5), 9, 9)


class HueButton(QAbstractButton):
    """A round of colour; the chosen one wears a gold ring and a tick, so that colour is not all that tells."""

    def __init__(self, hue: str, parent: QWidget | None = None, size: int = 44) -> None:
        super().__init__(parent)
        self.hue = hue
        self.setCheckable(True)
        self.setFixedSize(size, size)
        self.setToolTip(tip(_(hue)))
        self.setAccessibleName(_("colour: {hue}").format(hue=_(hue)))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        middle = QPointF(self.width() / 2, self.height() / 2)
        painter.setPen(QPen(SOFT, 1) if worn() == "night" else Qt.PenStyle.NoPen)
        painter.setBrush(colour(self.hue))
        radius = min(13.0, self.width() / 2 - 5)
        painter.drawEllipse(middle, radius, radius)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if self.isChecked():
            painter.setPen(QPen(GOLD, 3))
            painter.drawEllipse(middle, radius + 3, radius + 3)
            painter.setPen(QPen(PAPER, 2.5))
            painter.drawPolyline([middle + QPointF(-5, 0), middle + QPointF(-1, 4), middle + QPointF(6, -4)])  # type: ignore[call-overload]
        if self.hasFocus():
            painter.setPen(QPen(FOCUS, 2.5))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(QRectF(2, 2, self.width() - 4, self.height() - 4), 8, 8)


class _Picture(QAbstractButton):
    """A button that is a picture of what it chooses, drawn for a height of CHIP pixels."""

    def __init__(self, label: str, parent: QWidget | None = None, wide: int = CHIP) -> None:
        super().__init__(parent)
        self.setCheckable(True)
        self.setFixedSize(wide, CHIP)
        self.setToolTip(tip(label))
        self.setAccessibleName(label)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.isChecked() or self.hasFocus() or worn() == "night":  # what is painted is for paper
            ring = FOCUS if self.hasFocus() else GOLD if self.isChecked() else HAIRLINE
            painter.setPen(QPen(ring, 2))
            painter.setBrush(PAGE if worn() == "night" else STONE if self.isChecked() else Qt.GlobalColor.transparent)
            painter.drawRoundedRect(QRectF(2, 2, self.width() - 4, self.height() - 4), 8, 8)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(INK)
        grown = self.height() / CHIP
        painter.scale(grown, grown)
        self.draw(painter, self.width() / grown)

    def draw(self, painter: QPainter, wide: float) -> None:
        """The picture, in a room `wide` by CHIP."""


class WidthButton(_Picture):
    """A dot as large as the line is wide."""

    def __init__(self, width: float, label: str, parent: QWidget | None = None) -> None:
        super().__init__(label, parent)
        self.line = width

    def draw(self, painter: QPainter, wide: float) -> None:
        radius = min(14.0, max(1.5, self.line / 2))
        painter.drawEllipse(QPointF(wide / 2, CHIP / 2), radius, radius)


class PenChip(_Picture):
    """A pen, shown by a wave or a line drawn with it."""

    def __init__(self, pen: Pen, parent: QWidget | None = None, label: str = "", wide: int = 72) -> None:
        super().__init__(label or pen.label(), parent, wide)
        self.pen = pen

    def draw(self, painter: QPainter, wide: float) -> None:
        from larch.board.views.ink.ink import paint_ink

        paint_ink(painter, _wave(self.pen, round(wide)))


class MarkButton(_Picture):
    """A mark as it is stamped."""

    def __init__(self, shape: str, hue: str, label: str, parent: QWidget | None = None, share: float = 1.0) -> None:
        super().__init__(label, parent)
        self.shape, self.hue, self.share = shape, hue, share

    def draw(self, painter: QPainter, wide: float) -> None:
        from larch.board.views.ink.mark import paint_mark

        painter.translate(wide / 2, CHIP / 2)
        paint_mark(painter, self.shape, 32 * self.share, self.hue)


class GapButton(_Picture):
    """Dots as far apart as they will be set."""

    def __init__(self, gap: float, label: str, parent: QWidget | None = None) -> None:
        super().__init__(label, parent, 64)
        self.gap = gap

    def draw(self, painter: QPainter, wide: float) -> None:
        step = 8 * self.gap
        for k in range(int((wide - 16) / step) + 1):
            painter.drawEllipse(QPointF(9 + k * step, CHIP / 2), 3.5, 3.5)


@cache
def _wave(pen: Pen, wide: int) -> Ink:
    """A short wave, or a line, of at most the height of a chip; its own origin is that of the chip."""
    from larch.core.things.ink.ink import ink_from, line_from, packed

    thin = pen.replace(width=min(pen.width, 20.0 if wide > 60 else 13.0))
    if pen.form == "line":
        ink = line_from([(11, 23), (wide - 11, 23)], thin)
    elif pen.form == "curve":
        ink = line_from([(14, 30), (wide / 2, 14), (wide - 14, 30)], thin)
    else:
        steps = [k / 30 for k in range(31)]
        ink = ink_from([(13 + (wide - 26) * t, 23 - 8 * math.sin(t * 2 * math.pi), 0.75, 0.0) for t in steps], pen=thin)
    x0, y0 = ink.placement.x, ink.placement.y
    made: Ink = ink.replace(points=packed((x + x0, y + y0, p, t) for x, y, p, t in ink.samples()))
    return made
