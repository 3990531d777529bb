"""Papers painted as vectors: crisp at any size, on any device."""

from __future__ import annotations

from PyQt6.QtCore import QLineF, QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPen, QPolygonF

from larch.board.look import page_font
from larch.core.base.shape import Box
from larch.core.model.paper import Paper, Ruling, rulings

WIDTHS = {"fine": 0.7, "line": 0.7, "guide": 1.4, "strong": 1.4, "margin": 2.0, "word": 1.0}
DOT = 4.4  # across, page units
SMALLEST_DOT = 1.9  # pixels
ROUND_DOT = 4.0  # pixels; a smaller dot is a square, which looks the same and is painted ten times faster
OVERVIEW = 0.6  # pixels to a unit; seen smaller, slanting hairlines need no smoothing
DASH = (5.0, 4.0)  # widths of the pen


def paint_paper(painter: QPainter, paper: Paper, size: tuple[float, float], box: Box, scale: float) -> None:
    """The paper under a box. `scale`: pixels of the device to a unit."""
    painter.fillRect(QRectF(box.x0, box.y0, box.width, box.height), QColor(paper.sheet()))
    if paper.pattern == "plain":
        return
    painter.save()
    for ruling in rulings(paper, size, box, scale):
        _paint(painter, ruling, QColor(paper.ink(ruling.role, scale)), scale)
    painter.restore()


def _paint(painter: QPainter, ruling: Ruling, shade: QColor, scale: float) -> None:
    thick = max(1.0, round(WIDTHS[ruling.role] * scale)) / scale  # whole pixels, so that all lines look alike
    pen = QPen(shade, thick)
    if ruling.role == "guide":
        pen.setDashPattern(DASH)
    painter.setPen(pen)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    upright = all(x0 == x1 or y0 == y1 for x0, y0, x1, y1 in ruling.lines)
    smooth = thick * scale > 1.5 or (not upright and scale > OVERVIEW)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing, smooth)
    if ruling.lines:
        painter.drawLines([QLineF(*line) for line in ruling.lines])  # type: ignore[call-overload]
    painter.setRenderHint(QPainter.RenderHint.Antialiasing, True)
    for x, y, radius in ruling.rings:
        painter.drawEllipse(QPointF(x, y), radius, radius)
    if ruling.dots:
        _dots(painter, ruling, shade, scale)
    for x, y, text, type_size in ruling.labels:
        painter.setPen(shade)
        painter.setFont(page_font(type_size, True))
        room = QRectF(x - 400, y - type_size, 800, 2 * type_size)
        painter.drawText(room, Qt.AlignmentFlag.AlignCenter, text)


def _dots(painter: QPainter, ruling: Ruling, shade: QColor, scale: float) -> None:
    across = max(DOT, SMALLEST_DOT / scale)
    if across * scale >= ROUND_DOT:
        painter.setPen(QPen(shade, across, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        painter.drawPoints(QPolygonF([QPointF(x, y) for x, y in ruling.dots]))
        return
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(shade)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
    across = max(1, round(across * scale)) / scale
    painter.drawRects([QRectF(x - across / 2, y - across / 2, across, across) for x, y in ruling.dots])  # type: ignore[call-overload]
    painter.setRenderHint(QPainter.RenderHint.Antialiasing, True)
