"""Signs that tools lay over the page while they work: rings, the rubber, places tapped, words, swept strips."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QPointF, QRect, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPen, QPolygonF

from larch.board.camera import Camera
from larch.board.gestures.base import Band, Caption, OverlayMark, Prompt, Ring, Rubber, Spots
from larch.board.look import GOLD, GOLD_TEXT, HAIRLINE, NEEDLE, PAPER, interface_font

ALL_OVER = 1e5  # pixels; taller than any view


class Overlay:
    """Marks by the gesture or tool they belong to."""

    def __init__(self) -> None:
        self.marks: dict[object, tuple[OverlayMark, ...]] = {}

    def show(self, owner: object, marks: tuple[OverlayMark, ...]) -> None:
        if marks:
            self.marks[owner] = marks
        else:
            self.marks.pop(owner, None)

    def paint(self, painter: QPainter, camera: Camera) -> None:
        for marks in self.marks.values():
            for mark in marks:
                _PAINTERS[type(mark)](painter, mark, camera)


def _ring(painter: QPainter, ring: Ring, camera: Camera) -> None:
    pen = QPen(GOLD, 2.5, Qt.PenStyle.CustomDashLine, Qt.PenCapStyle.RoundCap)
    pen.setDashPattern([2.5, 3.0])
    painter.setPen(pen)
    painter.setBrush(_wash())
    painter.drawPolygon(QPolygonF([QPointF(*camera.to_view(*point)) for point in ring.points]))


def _rubber(painter: QPainter, rubber: Rubber, camera: Camera) -> None:
    painter.setPen(QPen(NEEDLE, 1.5))
    painter.setBrush(QColor(255, 255, 255, 120))
    painter.drawEllipse(QPointF(*rubber.at), rubber.radius, rubber.radius)


def rubber_rect(mark: OverlayMark) -> QRect:
    """Where a rubber is painted."""
    assert isinstance(mark, Rubber)
    reach = mark.radius + 3
    return QRectF(mark.at[0] - reach, mark.at[1] - reach, 2 * reach, 2 * reach).toAlignedRect()


def _spots(painter: QPainter, spots: Spots, camera: Camera) -> None:
    painter.setPen(QPen(GOLD, 3))
    painter.setBrush(PAPER)
    for point in spots.points:
        painter.drawEllipse(QPointF(*camera.to_view(*point)), 7, 7)


def _caption(painter: QPainter, caption: Caption, camera: Camera) -> None:
    x, y = camera.to_view(*caption.at)
    painter.setFont(interface_font(20, bold=True))
    wide = painter.fontMetrics().horizontalAdvance(caption.text) + 22
    rect = QRectF(x + 18, y - 46, wide, 34)
    painter.setPen(QPen(GOLD, 1.5))
    painter.setBrush(PAPER)
    painter.drawRoundedRect(rect, 6, 6)
    painter.setPen(GOLD_TEXT)
    painter.drawText(rect, Qt.AlignmentFlag.AlignCenter, caption.text)


def _band(painter: QPainter, band: Band, camera: Camera) -> None:
    left, right = camera.to_view(band.x0, 0)[0], camera.to_view(band.x1, 0)[0]
    painter.fillRect(QRectF(left, 0, right - left, ALL_OVER), _wash())
    painter.setPen(QPen(GOLD, 2))
    for x in (left, right):
        painter.drawLine(QPointF(x, 0), QPointF(x, ALL_OVER))


def _prompt(painter: QPainter, prompt: Prompt, camera: Camera) -> None:
    painter.setFont(interface_font(19, bold=True))
    wide = painter.fontMetrics().horizontalAdvance(prompt.text) + 32
    view = painter.viewport()
    rect = QRectF((view.width() - wide) / 2, view.height() - 56, wide, 42)
    painter.setPen(QPen(HAIRLINE, 1))
    painter.setBrush(PAPER)
    painter.drawRoundedRect(rect, 8, 8)
    painter.setPen(NEEDLE)
    painter.drawText(rect, Qt.AlignmentFlag.AlignCenter, prompt.text)


def _wash() -> QColor:
    shade = QColor(GOLD)
    shade.setAlpha(24)
    return shade


_PAINTERS: dict[type, Callable[[QPainter, Any, Camera], None]] = {
    Ring: _ring,
    Rubber: _rubber,
    Spots: _spots,
    Caption: _caption,
    Band: _band,
    Prompt: _prompt,
}
