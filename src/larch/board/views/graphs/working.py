"""What stands beside the lines of a solution: reasons with their arrows, and whether each follows from the one above."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QFontMetricsF, QPainter, QPainterPath, QPen

from larch.board.checks import Verdict, checks
from larch.board.look import RIGHT, WRONG, page_font, text_colour
from larch.board.typeset.mathset import set_row
from larch.core.actions.equations.working import chain, lines_above
from larch.core.base.words import _
from larch.core.maths.algebra.proof import proof
from larch.core.maths.expression import ExpressionError
from larch.core.maths.layout.reading import look, meaning
from larch.core.maths.layout.rows import Sign
from larch.core.model.page import Page
from larch.core.things.graphs.equation import CHECK, Equation

REASON, SAID = 0.68, 0.52  # of the size of the equation
AWAY = 1.1  # em from the lines to their reasons
ROOM = 14.0  # em to the right that may be painted
RING = 0.42


def paint_beside(painter: QPainter, line: Equation, page: Page, width: float, lines_right: float, baseline: float) -> None:
    """In the line's own coordinates. width: of the line; lines_right: where the longest of the solution ends;
    baseline: of the line."""
    size = line.size
    middle = baseline - 0.25 * size
    if line.reason:
        _reason(painter, line, lines_right + AWAY * size, middle)
    above = page.thing(line.above) if line.above else None
    if CHECK not in line.shown or not isinstance(above, Equation) or not line.source.strip():
        return
    verdict = checks.verdict(above.source, line.source)
    if verdict is None or verdict.follows == "unread":
        return
    _verdict(painter, line, page, verdict, width, lines_right, middle, baseline)


def _reason(painter: QPainter, line: Equation, x: float, middle: float) -> None:
    size, hue = line.size, text_colour(line.hue)
    font = page_font(REASON * size)
    painter.setFont(font)
    painter.setPen(hue)
    start = x + 0.5 * size
    painter.drawText(QPointF(start, middle + 0.24 * size), line.reason)
    if not line.above:
        return
    path = QPainterPath(QPointF(start + 0.1 * size, middle - 1.05 * size))
    path.cubicTo(
        QPointF(x - 0.25 * size, middle - 0.8 * size), QPointF(x - 0.2 * size, middle), QPointF(x + 0.3 * size, middle)
    )
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(QPen(hue, 0.06 * size, cap=Qt.PenCapStyle.RoundCap))
    painter.drawPath(path)
    tip = QPainterPath(QPointF(x + 0.12 * size, middle - 0.16 * size))
    tip.lineTo(x + 0.32 * size, middle)
    tip.lineTo(x + 0.12 * size, middle + 0.16 * size)
    painter.drawPath(tip)


def _verdict(
    painter: QPainter,
    line: Equation,
    page: Page,
    verdict: Verdict,
    width: float,
    lines_right: float,
    middle: float,
    baseline: float,
) -> None:
    size = line.size
    x = width + 0.35 * size
    if verdict.follows == "yes":
        _ring(painter, QPointF(x + RING * size, middle), RING * size, RIGHT)
        said = _proof(page, line)
        if said:
            below = 0.9 * size if line.reason else 0.0
            start = lines_right + (AWAY + 0.5) * size if line.reason else x + 2.4 * RING * size
            _words(painter, line, page, _("true: {line}").format(line=said), "", start, middle + below, RIGHT)
        return
    if line.reason:
        wide = QFontMetricsF(page_font(REASON * size)).horizontalAdvance(line.reason)
        x = lines_right + (AWAY + 1.0) * size + wide
    if verdict.follows == "only if":
        text = _("only if {condition}").format(condition=verdict.when)
        _words(painter, line, page, text, "", x, middle, text_colour("clay"))
        return
    if verdict.follows == "no":
        _again(painter, QPointF(x + RING * size, middle), 0.8 * RING * size)
        kind, _colon, way = verdict.why.partition(": ")
        if not verdict.mistake:
            kind, way = _("look again"), verdict.why.partition(". ")[2]
        else:
            way = way.partition(". ")[0]
        _words(painter, line, page, kind, way, x + 2.4 * RING * size, middle, WRONG)
        pen = QPen(WRONG, 0.1 * size)
        pen.setDashPattern([2.0, 1.2])
        painter.setPen(pen)
        y = baseline + 0.34 * size
        painter.drawLine(QPointF(right_side(line) * size, y), QPointF(width - 0.18 * size, y))
        return
    _words(painter, line, page, _("not decided"), "", x, middle, text_colour("slate"))


def right_side(line: Equation) -> float:
    """Where the last side of it begins, in em from its left edge; the whole where it has but one."""
    row = look(line.source)
    at = max((k for k, item in enumerate(row) if isinstance(item, Sign) and item.text in "=<>≤≥≠"), default=-1)
    stop = next((s for s in set_row(row).stops if not s.path and s.part == at + 1), None) if row else None
    return 0.18 + (stop.x + 0.12 if stop is not None and at >= 0 else 0.0)


def _proof(page: Page, line: Equation) -> str:
    found = lines_above(page, line)
    if chain(page, line)[-1] is not line:
        return ""
    try:
        return proof(meaning(found[0].source), meaning(line.source))
    except ExpressionError:
        return ""


def _ring(painter: QPainter, at: QPointF, radius: float, shade: QColor) -> None:
    painter.setBrush(Qt.BrushStyle.NoBrush)
    pen = QPen(shade, 0.14 * radius, cap=Qt.PenCapStyle.RoundCap, join=Qt.PenJoinStyle.RoundJoin)
    painter.setPen(pen)
    painter.drawEllipse(at, radius, radius)
    tick = QPainterPath(QPointF(at.x() - 0.45 * radius, at.y() + 0.02 * radius))
    tick.lineTo(at.x() - 0.1 * radius, at.y() + 0.36 * radius)
    tick.lineTo(at.x() + 0.48 * radius, at.y() - 0.34 * radius)
    pen.setWidthF(0.2 * radius)
    painter.setPen(pen)
    painter.drawPath(tick)


def _again(painter: QPainter, at: QPointF, radius: float) -> None:
    """An arrow that turns back."""
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(QPen(WRONG, 0.22 * radius, cap=Qt.PenCapStyle.RoundCap))
    box = QRectF(at.x() - radius, at.y() - radius, 2 * radius, 2 * radius)
    painter.drawArc(box, 16 * 130, -16 * 285)
    x, y = at.x() - 0.64 * radius, at.y() - 0.77 * radius
    tip = QPainterPath(QPointF(x - 0.1 * radius, y - 0.5 * radius))
    tip.lineTo(x, y)
    tip.lineTo(x + 0.5 * radius, y + 0.05 * radius)
    painter.drawPath(tip)


def _words(
    painter: QPainter, line: Equation, page: Page, kind: str, way: str, x: float, middle: float, shade: QColor
) -> None:
    size = line.size
    painter.setPen(shade)
    bold, plain = page_font(SAID * size, True), page_font(SAID * size)
    tall = QFontMetricsF(bold).height()
    y = middle + (0.28 * tall if not way else -0.12 * tall)
    painter.setFont(bold if way else plain)
    painter.drawText(QPointF(x, y), kind)
    if way:
        painter.setFont(plain)
        edge = (page.size[0] - line.placement.x) / line.placement.scale - x
        wide = min(ROOM * 0.75 * size, max(5.0 * size, edge))
        painter.drawText(QRectF(x, y + 0.22 * tall, wide, 4 * tall), Qt.TextFlag.TextWordWrap, way)
