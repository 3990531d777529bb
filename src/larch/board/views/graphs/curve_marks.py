"""Marks on graphs: open and closed ends wherever one breaks, and, if asked for, all that stands out, with coordinates."""

from __future__ import annotations

from typing import Any

from PyQt6.QtCore import QLineF, QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QFontMetricsF, QPainter, QPen

from larch.board.look import PAPER, colour, page_font, text_colour
from larch.board.marks import Mark, marks
from larch.core.maths.graph import Curve
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import STANDS_OUT, Equation

DOT, RING = 5.5, 5.0
SIZE = 19.0
CLOSE = 3.0  # marks nearer than this are one


def paint_marks(
    painter: QPainter, axes: Axes, equation: Equation, curve: Curve, lines: list[Any], taken: list[QRectF]
) -> None:
    """In the axes' own coordinates. taken: where words and marks stand already, and from now on."""
    if curve.along not in ("x", "y") or curve.op != "=":
        return
    wanted = STANDS_OUT in equation.shown
    letters = tuple(pair for pair in equation.told if pair[0])
    if not wanted and (letters or not _breaks(axes, curve, lines)):
        return
    low, high = (axes.x_min, axes.x_max) if curve.along == "x" else (axes.y_min, axes.y_max)
    shade = colour(equation.hue)
    drawn: list[QPointF] = []
    known = marks.of(equation.source, letters, low, high)
    told: list[tuple[Mark, QPointF]] = []
    for mark in sorted(known, key=lambda one: one.kind in ("axis", "closed")):
        if mark.kind == "pole":
            if wanted:
                taken.append(_asymptote(painter, axes, curve, mark, shade))
            continue
        at = _place(axes, curve, mark)
        if at is None or (not wanted and mark.kind not in ("open", "closed")):
            continue
        if any((at - other).manhattanLength() < CLOSE for other in drawn):
            continue
        drawn.append(at)
        _dot(painter, at, shade, mark.kind == "open")
        taken.append(QRectF(at.x() - DOT, at.y() - DOT, 2 * DOT, 2 * DOT))
        told.append((mark, at))
    for mark, at in told if wanted else ():
        taken.append(_words(painter, axes, mark, at, text_colour(equation.hue), taken))


def _breaks(axes: Axes, curve: Curve, lines: list[Any]) -> bool:
    """Whether its branches part or end within the window."""
    if len(lines) != 1:
        return len(lines) > 1
    k, far = (0, axes.width) if curve.along == "x" else (1, axes.height)
    ends = sorted((float(lines[0][0, k]), float(lines[0][-1, k])))
    return ends[0] > 0.01 or ends[1] < far - 0.01


def _place(axes: Axes, curve: Curve, mark: Mark) -> QPointF | None:
    if mark.height is None:
        return None
    x, y = axes.to_local(mark.at, mark.height) if curve.along == "x" else axes.to_local(mark.height, mark.at)
    slack = 0.5
    seen = -slack <= x <= axes.width + slack and -slack <= y <= axes.height + slack
    return QPointF(x, y) if seen else None


def _asymptote(painter: QPainter, axes: Axes, curve: Curve, mark: Mark, shade: QColor) -> QRectF:
    painter.setPen(QPen(shade, 1.6, Qt.PenStyle.DashLine))
    if curve.along == "x":
        x = axes.to_local(mark.at, 0)[0]
        painter.drawLine(QLineF(x, 0, x, axes.height))
        return QRectF(x - 2, 0, 4, axes.height)
    y = axes.to_local(0, mark.at)[1]
    painter.drawLine(QLineF(0, y, axes.width, y))
    return QRectF(0, y - 2, axes.width, 4)


def _dot(painter: QPainter, at: QPointF, shade: QColor, hollow: bool) -> None:
    if hollow:
        painter.setPen(QPen(shade, 2.4))
        painter.setBrush(PAPER)
        painter.drawEllipse(at, RING, RING)
    else:
        painter.setPen(QPen(PAPER, 1.5))
        painter.setBrush(shade)
        painter.drawEllipse(at, DOT, DOT)


def _words(painter: QPainter, axes: Axes, mark: Mark, at: QPointF, hue: QColor, taken: list[QRectF]) -> QRectF:
    """Its coordinates beside it: below what is lowest, above what is highest, else where there is room."""
    font = page_font(SIZE)
    wide = QFontMetricsF(font).horizontalAdvance(mark.text) + 8
    tall = SIZE * 1.25
    below, above = (-wide / 2, DOT + 3), (-wide / 2, -tall - DOT - 3)
    sides = [(DOT + 3, -tall - 3), (DOT + 3, 3), (-wide - DOT - 3, -tall - 3), (-wide - DOT - 3, 3)]
    first = {"minimum": [below], "maximum": [above]}.get(mark.kind, [])
    boxes = [QRectF(at.x() + dx, at.y() + dy, wide, tall) for dx, dy in (*first, *sides, below, above)]
    window = QRectF(0, 0, axes.width, axes.height)
    free = [box for box in boxes if window.contains(box) and not any(box.intersects(other) for other in taken)]
    box = free[0] if free else boxes[0]
    painter.setPen(Qt.PenStyle.NoPen)
    back = QColor(PAPER)
    back.setAlpha(205)
    painter.setBrush(back)
    painter.drawRoundedRect(box, 4, 4)
    painter.setFont(font)
    painter.setPen(hue)
    painter.drawText(box, Qt.AlignmentFlag.AlignCenter, mark.text)
    return box
