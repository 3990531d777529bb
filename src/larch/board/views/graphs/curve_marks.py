"""Marks on graphs: open and closed ends wherever one breaks, and, if asked for, all that stands out, with coordinates."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import combinations
from typing import Any, NamedTuple

from PyQt6.QtCore import QLineF, QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QFontMetricsF, QPainter, QPen, QPolygonF

from larch.board.look import NEEDLE, PAPER, SOFT, colour, page_font, text_colour
from larch.board.marks import Mark, marks
from larch.board.views.graphs.curve_names import Drawn
from larch.board.views.graphs.graph_facts import mark_words, marks_on
from larch.board.views.graphs.tapping import told_word
from larch.core.maths.graph import MARKED, Curve
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import STANDS_OUT, TOLD_AT, Equation

DOT, RING = 8.0, 11.0
SIZE = 24.0  # of the words on large axes
SHARE = 1 / 21  # of the width of smaller ones
CLOSE = 3.0  # marks nearer than this are one


TURNS = {"minimum": (0, 1), "maximum": (0, -1), "leftmost": (-1, 0), "rightmost": (1, 0)}  # where its triangle points

Later = tuple[Mark, QPointF, QColor]
MOST_PAIRS = 10


class Around(NamedTuple):
    """What is to be kept clear of. taken: where words and signs stand by now; numbers: those of the axes."""

    taken: list[QRectF]
    numbers: list[QRectF]
    drawn: Drawn


def paint_marks(
    painter: QPainter, axes: Axes, equation: Equation, curve: Curve, lines: list[Any], around: Around
) -> list[Later]:
    """Draws the signs, in the axes' own coordinates; tells what is to be written when all signs are drawn."""
    if curve.along not in MARKED or curve.op != "=":
        return []
    wanted = STANDS_OUT in equation.shown
    letters = tuple(pair for pair in equation.told if pair[0])
    single = {name for name in equation.shown if name.startswith(TOLD_AT)}
    if not wanted and not single and (letters or curve.along not in ("x", "y") or not _breaks(axes, curve, lines)):
        return []
    shade = colour(equation.hue)
    drawn: list[QPointF] = []
    taken = around.taken
    known = marks_on(axes, equation, curve)
    told: list[tuple[Mark, QPointF]] = []
    for mark in sorted(known, key=lambda one: one.kind in ("axis", "closed")):
        if mark.kind == "pole":
            if wanted:
                taken.append(_asymptote(painter, axes, curve, mark))
            continue
        at = _place(axes, curve, mark)
        alone = told_word(mark) in single
        if at is None or (not wanted and not alone and mark.kind not in ("open", "closed")):
            continue
        if any((at - other).manhattanLength() < CLOSE for other in drawn):
            continue
        drawn.append(at)
        _sign(painter, at, shade, mark.kind)
        taken.append(QRectF(at.x() - RING, at.y() - RING, 2 * RING, 2 * RING))
        if alone:
            told.append((mark._replace(text=mark_words(mark)), at))
        elif wanted:
            told.append((mark, at))
    return [(mark, at, text_colour(equation.hue)) for mark, at in told]


def paint_meetings(painter: QPainter, axes: Axes, curves: Sequence[tuple[Equation, Curve]], around: Around) -> list[Later]:
    """Where marked graphs meet each other: a ring with a cross, which belongs to both."""
    marked = [(equation, curve) for equation, curve in curves
              if STANDS_OUT in equation.shown and curve.along in ("x", "y") and curve.op == "="]  # fmt: skip
    told: list[Later] = []
    for (one, curve), (other, beside) in list(combinations(marked, 2))[:MOST_PAIRS]:
        if curve.along != beside.along:
            continue
        low, high = (axes.x_min, axes.x_max) if curve.along == "x" else (axes.y_min, axes.y_max)
        pair = [(equation.source, tuple(p for p in equation.told if p[0])) for equation in (one, other)]
        for mark in marks.meetings(pair[0], pair[1], low, high):
            at = _place(axes, curve, mark)
            if at is not None:
                _sign(painter, at, NEEDLE, mark.kind)
                around.taken.append(QRectF(at.x() - RING, at.y() - RING, 2 * RING, 2 * RING))
                told.append((mark, at, NEEDLE))
    return told


def paint_words(painter: QPainter, axes: Axes, told: Sequence[Later], around: Around) -> None:
    for mark, at, hue in told:
        box = _room(axes, mark, at, around)
        if box is not None:
            around.taken.append(box)
            _words(painter, axes, mark, box, hue)


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
    x, y = axes.to_local(mark.at, mark.height) if curve.along != "y" else axes.to_local(mark.height, mark.at)
    slack = 0.5
    seen = -slack <= x <= axes.width + slack and -slack <= y <= axes.height + slack
    return QPointF(x, y) if seen else None


def _asymptote(painter: QPainter, axes: Axes, curve: Curve, mark: Mark) -> QRectF:
    painter.setPen(QPen(SOFT, 1.8, Qt.PenStyle.DashLine))
    if curve.along == "x":
        x = axes.to_local(mark.at, 0)[0]
        painter.drawLine(QLineF(x, 0, x, axes.height))
        return QRectF(x - 2, 0, 4, axes.height)
    y = axes.to_local(0, mark.at)[1]
    painter.drawLine(QLineF(0, y, axes.width, y))
    return QRectF(0, y - 2, axes.width, 4)


def _sign(painter: QPainter, at: QPointF, shade: QColor, kind: str) -> None:
    """Told apart by shape: a ring that the axis cuts, triangles that point to where it turns, an empty ring for a hole."""
    painter.setPen(QPen(shade, 2.6, join=Qt.PenJoinStyle.RoundJoin))
    painter.setBrush(PAPER)
    if kind in TURNS:
        across, down = TURNS[kind]
        corners = ((-1, -0.75), (1, -0.75), (0, 0.9))
        turned = [QPointF(x * down + y * across, y * down + x * across) for x, y in corners]
        painter.drawPolygon(QPolygonF([at + RING * corner for corner in turned]))
    elif kind == "open":
        painter.drawEllipse(at, 0.75 * RING, 0.75 * RING)
    elif kind in ("zero", "meeting", "double"):
        painter.drawEllipse(at, RING, RING)
        if kind == "zero":
            painter.drawLine(at - QPointF(RING, 0), at + QPointF(RING, 0))
        else:
            for x, y in ((0.6, 0.6), (0.6, -0.6)):
                painter.drawLine(at - QPointF(x * RING, y * RING), at + QPointF(x * RING, y * RING))
    else:
        painter.setPen(QPen(PAPER, 1.5))
        painter.setBrush(shade)
        painter.drawEllipse(at, DOT, DOT)


def _size(axes: Axes) -> float:
    return min(SIZE, SHARE * axes.width)


def _room(axes: Axes, mark: Mark, at: QPointF, around: Around) -> QRectF | None:
    """Where its coordinates stand: below what is lowest, above what is highest, else to a side, off every curve if that can
    be. None where all of it would cover a sign or other words."""
    size = _size(axes)
    wide = QFontMetricsF(page_font(size)).horizontalAdvance(mark.text) + 12
    tall, away = size * 1.3, RING + 5
    below, above = (-wide / 2, away), (-wide / 2, -tall - away)
    sides = [(away, -tall - 5), (away, 5), (-wide - away, -tall - 5), (-wide - away, 5)]
    first = {"minimum": [below], "maximum": [above]}.get(mark.kind, [])
    boxes = [QRectF(at.x() + dx, at.y() + dy, wide, tall) for dx, dy in (*first, *sides, below, above)]
    window = QRectF(-wide / 2, 0, axes.width + wide / 2 + tall, axes.height)
    clear = [box for box in boxes if window.contains(box) and not any(box.intersects(other) for other in around.taken)]
    readable = [box for box in clear if not any(box.intersects(other) for other in around.numbers)] or clear
    return next((box for box in readable if not around.drawn.crosses(box)), readable[0] if readable else None)


def _words(painter: QPainter, axes: Axes, mark: Mark, box: QRectF, hue: QColor) -> None:
    painter.setPen(QPen(hue, 1.4))
    painter.setBrush(PAPER)
    painter.drawRoundedRect(box, 6, 6)
    painter.setFont(page_font(_size(axes)))
    painter.drawText(box, Qt.AlignmentFlag.AlignCenter, mark.text)
