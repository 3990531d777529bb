"""Axes with the graphs of the equations on them."""

from __future__ import annotations

import math
import re
from functools import lru_cache, partial
from typing import Any, ClassVar

from PyQt6.QtCore import QLineF, QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QFontMetricsF, QPainter, QPainterPath, QPen, QPolygonF

from larch.board.gestures.base import Gesture, Stage
from larch.board.gestures.steer import DragDot, DragEnd, SteerGraph
from larch.board.ink.strokes import Round, polygon_of, ribbon
from larch.board.look import NEEDLE, PAPER, RULING, SOFT, colour, page_font
from larch.board.pointer import Sample
from larch.board.typeset.boxes import paint_setting
from larch.board.typeset.mathset import set_row
from larch.board.views.base import View, words
from larch.board.views.graphs.curve_lines import (
    bare,
    curve_bands,
    curve_near,
    curve_polylines,
    dot_near,
    end_near,
    on_axes,
    runs,
    window_of,
)
from larch.board.views.graphs.curve_marks import Around, paint_marks, paint_meetings, paint_words
from larch.board.views.graphs.curve_names import Drawn, paint_names
from larch.board.views.graphs.graph_facts import marks_of
from larch.board.views.graphs.tapping import tapped_mark
from larch.core.base.memo import cache_in_thread
from larch.core.base.shape import Box
from larch.core.maths.expression import values
from larch.core.maths.graph import MARKED, Curve
from larch.core.maths.implicit import filled
from larch.core.maths.layout.reading import look
from larch.core.maths.layout.rows import Sign
from larch.core.maths.plane.forms import NotThere
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.axes import LOG, Axes
from larch.core.things.graphs.equation import FAMILY, HIDDEN, Equation
from larch.core.things.graphs.graph_form import place_of
from larch.core.things.graphs.members import members
from larch.core.things.graphs.ticks import mark_text, marks_between
from larch.core.things.graphs.value_table import RESIDUALS

LINE = 4.5
TOUCH, MOUSE = 18.0, 8.0  # pixels from which a curve is taken hold of
DOT = 8.0
NUMBER = 24.0
NAME, SYMBOL = 24.0, 32.0
WORDS = re.compile(r"[^\W\d_]{3}| [^\W\d_]+ ")  # what makes a name words: km/h is none, time is
NARROW = 50.0  # page units to a square, below which only every second is numbered
HATCH = 11.0
FAR = 20.0  # windows; further out a line is cut off
FIELD, STROKE = 32.0, 20.0  # page units from stroke to stroke of a slope field, and how long each is
MOST_RINGS = 80
PIECE = 48  # points to a drawn polyline: long thick ones cost far more than their length


class AxesView(View):
    kind: ClassVar[type[Thing]] = Axes
    margin: ClassVar[float] = 56.0
    needs_numpy: ClassVar[bool] = True

    def reach(self, thing: Thing, page: Page) -> Box:
        """With the names of the axes, however long they are."""
        assert isinstance(thing, Axes)
        box, scale = super().reach(thing, page), thing.placement.scale
        right = len(thing.x_name) * 0.62 * NAME * scale
        return Box(box.x0, box.y0 - (NAME * scale if "/" in thing.y_name else 0.0), box.x1 + right, box.y1)

    def awaits(self, thing: Thing) -> bool:
        return True  # marks of its graphs

    def gesture(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        """A press on a curve takes hold of that, unless an end of an axis or the numbers are meant."""
        if not isinstance(thing, Axes) or part not in ("", "x axis", "y axis") or not stage.may("move"):
            return None
        x, y = thing.placement.to_local(*sample.page_pos)
        slack = (TOUCH if sample.kind == "touch" else MOUSE) / (stage.camera.scale * thing.placement.scale)
        if part:  # what is nearer: the axis or the curve
            ox, oy = thing.origin()
            slack = min(slack, abs(y - oy) if part == "x axis" else abs(x - ox))
        dot = dot_near(thing, stage.page, (x, y), slack + DOT)
        if dot is not None:
            return DragDot(stage, sample, thing.id, *dot)
        end = end_near(thing, stage.page, (x, y), slack)
        if end is not None:
            return DragEnd(stage, sample, thing.id, *end)
        found = curve_near(thing, stage.page, (x, y), slack)
        if found is None or found.locked:
            return None
        marks_of(found, stage.page)  # so that it is known what stands out by the time of a tap
        return SteerGraph(stage, sample, found.id, tap=partial(tapped_mark, found.id, thing, (x, y), slack))

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Axes)
        window = QRectF(0, 0, thing.width, thing.height)
        painter.fillRect(window, PAPER)
        across, down = thing.ticks()
        if thing.grid and thing.rings:
            _paint_rings(painter, thing, across)
        elif thing.grid:
            painter.setPen(QPen(RULING.darker(106), 1.2))
            _paint_between(painter, thing)
            lines = [QLineF(x, 0, x, thing.height) for x in (thing.to_local(v, thing.y_max)[0] for v in across)]
            lines += [QLineF(0, y, thing.width, y) for y in (thing.to_local(thing.x_max, v)[1] for v in down)]
            if lines:
                painter.drawLines(lines)  # type: ignore[call-overload]
        painter.save()
        painter.setClipRect(window.adjusted(-1, -1, 1, 1), Qt.ClipOperation.IntersectClip)
        named: list[tuple[Equation, list[Any]]] = []
        drawn: list[tuple[Equation, Curve, list[Any]]] = []
        for area in thing.areas(page):
            _paint_area(painter, thing, area.shaded(page), colour(area.hue))
            _paint_lines(painter, thing, area.lines_on(page), colour(area.hue))
        for equation in thing.curves(page):
            if FAMILY in equation.shown:
                _paint_members(painter, thing, equation, page)
        for equation in thing.curves(page):
            curve = equation.curve()
            if curve is not None:
                lines = paint_curve(painter, thing, equation, curve)
                drawn.append((equation, curve, lines))
                if HIDDEN not in equation.shown and not thing.extent().holds(
                    *thing.placement.to_local(*equation.box().centre)
                ):
                    named.append((equation, lines))
        painter.restore()
        numbers = self._lines(painter, thing, across, down)
        for table in thing.tables(page):
            if RESIDUALS in table.shown:
                painter.setPen(QPen(SOFT, 2.2))
                painter.drawLines([QLineF(*thing.to_local(x, y), *thing.to_local(x, height))  # type: ignore[call-overload]
                                   for x, y, height in table.residuals(page)])  # fmt: skip
            for _row, x, y in table.points_on(page):
                if thing.x_min <= x <= thing.x_max and thing.y_min <= y <= thing.y_max:
                    _dot(painter, thing, x, y, colour(table.hue))
        shown = bare(thing)
        lined = [
            run for _equation, curve, lines in drawn for run in (runs(shown, curve) if curve.along in MARKED else lines)
        ]
        around = Around([], numbers, Drawn(lined))
        told = [later for one in drawn for later in paint_marks(painter, thing, *one, around)]
        told += paint_meetings(painter, thing, [(equation, curve) for equation, curve, _lines in drawn], around)
        paint_words(painter, thing, told, around)
        paint_names(painter, thing, named, around.drawn, around.taken)

    def _lines(self, painter: QPainter, axes: Axes, across: list[float], down: list[float]) -> list[QRectF]:
        """The two axes, where zero is or at the nearer edge, with their numbers; tells where these stand."""
        plates: list[QRectF] = []
        shade = colour(axes.hue)
        ox, oy = axes.origin()
        painter.setPen(QPen(shade, 2.4))
        painter.drawLine(QLineF(0, oy, axes.width + 14, oy))
        painter.drawLine(QLineF(ox, axes.height, ox, -14))
        painter.setBrush(shade)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.drawPolygon(QPolygonF([QPointF(axes.width + 20 + x, oy + y) for x, y in ((0, 0), (-12, -5), (-12, 5))]))
        painter.drawPolygon(QPolygonF([QPointF(ox + x, -20 + y) for x, y in ((0, 0), (-5, 12), (5, 12))]))
        step_x = across[1] - across[0] if len(across) > 1 else 1.0
        step_y = down[1] - down[0] if len(down) > 1 else 1.0
        for value in across if axes.x_marks == LOG else _numbered(across, axes.units()[0]):
            if value != 0 or ox == 0:
                x = axes.to_local(value, axes.y_max)[0]
                at = QPointF(x, oy + 21)
                plates.append(_number(painter, at, mark_text(value, step_x, axes.x_marks), Qt.AlignmentFlag.AlignHCenter))
        for value in down if axes.y_marks == LOG else _numbered(down, axes.units()[1]):
            if value != 0 or (oy == axes.height and ox > 0):
                y = axes.to_local(axes.x_max, value)[1]
                at = QPointF(ox - 8, y)
                plates.append(_number(painter, at, mark_text(value, step_y, axes.y_marks), Qt.AlignmentFlag.AlignRight))
        _name(painter, QPointF(axes.width + 28, oy), axes.x_name, beside=True)
        _name(painter, QPointF(ox, -36), axes.y_name)
        return plates


def _numbered(marks: list[float], unit: float) -> list[float]:
    """Every second one where the squares are narrow."""
    step = marks[1] - marks[0] if len(marks) > 1 else 0.0
    if step * unit >= NARROW:
        return marks
    return [value for value in marks if round(value / step) % 2 == 0] if step else marks


@cache_in_thread
def _rise() -> float:
    """From the middle of a number to its baseline."""
    return QFontMetricsF(page_font(NUMBER)).capHeight() / 2


@cache_in_thread
def _width(text: str) -> float:
    """Of a number; the same few are asked for in every frame."""
    return QFontMetricsF(page_font(NUMBER)).horizontalAdvance(text)


def _name(painter: QPainter, at: QPointF, name: str, beside: bool = False) -> None:
    """The name of an axis: mathematics where it is some, else words. at: its middle, or the middle of its left edge."""
    if not name:
        return
    if WORDS.search(name) or (len(name) > 1 and name.isalpha()):  # words, and units such as cm
        font = page_font(NAME, True)
        wide = QFontMetricsF(font).horizontalAdvance(name)
        words(painter, at + QPointF(wide / 2 if beside else 0, 0), name, NEEDLE, NAME, bold=True)
        return
    made = set_row(look(name))
    x = at.x() - (0 if beside else made.width * SYMBOL / 2)
    y = at.y() + (made.above - made.below) / 2 * SYMBOL if beside else at.y() + (0.3 - max(0.0, made.below - 0.2)) * SYMBOL
    paint_setting(painter, made, QPointF(x, y), SYMBOL, NEEDLE)


def _number(painter: QPainter, at: QPointF, text: str, align: Qt.AlignmentFlag) -> QRectF:
    """On a plate of paper, so that a curve does not run through it. at: its middle, or the middle of its right edge."""
    if "/" in text:
        return _fraction(painter, at, text, align)
    font = page_font(NUMBER)
    wide, tall = _width(text), 0.78 * NUMBER
    left = at.x() - (wide if align == Qt.AlignmentFlag.AlignRight else wide / 2)
    plate = QRectF(left - 2, at.y() - tall / 2 - 1, wide + 4, tall + 2)
    back = QColor(PAPER)
    back.setAlpha(190)
    painter.fillRect(plate, back)
    painter.setFont(font)
    painter.setPen(NEEDLE)
    painter.drawText(QPointF(left, at.y() + _rise()), text)  # at a place: laying it out in a box takes twice as long
    return plate


def _fraction(painter: QPainter, at: QPointF, text: str, align: Qt.AlignmentFlag) -> QRectF:
    made = set_row((*((Sign("−"),) if text.startswith("−") else ()), *look(text.removeprefix("−"))))
    wide, tall = made.width * NUMBER, (made.above + made.below) * NUMBER
    right = align == Qt.AlignmentFlag.AlignRight
    top = at.y() - tall / 2 if right else at.y() - 0.39 * NUMBER
    plate = QRectF(at.x() - (wide if right else wide / 2) - 2, top - 1, wide + 4, tall + 2)
    back = QColor(PAPER)
    back.setAlpha(190)
    painter.fillRect(plate, back)
    paint_setting(painter, made, QPointF(plate.x() + 2, top + made.above * NUMBER), NUMBER, NEEDLE)
    return plate


def paint_curve(painter: QPainter, axes: Axes, equation: Equation, curve: Curve) -> list[Any]:
    """Draws it, and tells where: the branches in the axes' own coordinates."""
    shade = colour(equation.hue)
    if curve.along == "point":
        return _paint_point(painter, axes, curve, shade)
    if curve.along == "field":
        _paint_field(painter, axes, curve, shade)
        return []
    lines = curve_polylines(axes, curve)
    if curve.along in ("n", "rule"):
        for line in lines:
            _dot(painter, axes, *axes.to_plane(*line[0]), shade)
        return lines
    if curve.op != "=":
        _paint_side(painter, axes, curve, lines, shade)
    for band in curve_bands(axes, curve):
        _paint_band(painter, band, curve.along == "x", shade)
    shown = bare(axes)
    if curve.op in "<>":
        for run in runs(shown, curve):
            _paint_dashes(painter, run, shade)
    else:
        _paint_ribbons(painter, ribbons(shown, curve), shade)
    return lines


def _paint_field(painter: QPainter, axes: Axes, curve: Curve, shade: QColor) -> None:
    """A short stroke with the slope of each place, on an even grid."""
    import numpy as np

    x, y = (
        grid.ravel()
        for grid in np.meshgrid(np.arange(FIELD / 2, axes.width, FIELD), np.arange(FIELD / 2, axes.height, FIELD))
    )
    across, down = axes.units()
    with np.errstate(all="ignore"):
        slope = values(curve.formula, x=axes.x_min + x / across, y=axes.y_max - y / down) + 0.0 * x
        steep = slope * down / across
        size = STROKE / 2 / np.sqrt(1 + steep**2)
        dx, dy = np.where(np.isinf(steep), 0.0, size), np.where(np.isinf(steep), STROKE / 2, -steep * size)
    painter.setPen(QPen(shade, 2.6, cap=Qt.PenCapStyle.RoundCap))
    known = ~np.isnan(slope)
    lines = [QLineF(*ends) for ends in np.column_stack([x - dx, y - dy, x + dx, y + dy])[known].tolist()]
    painter.drawLines(lines)  # type: ignore[call-overload]


def _paint_band(painter: QPainter, band: Any, upright: bool, shade: QColor) -> None:
    """All that a graph reaches where it swings too fast to be followed."""
    import numpy as np

    ring = np.concatenate([band[:, [0, 1]], band[::-1][:, [0, 2]]])
    painter.setPen(QPen(shade, LINE / 2, join=Qt.PenJoinStyle.RoundJoin))
    painter.setBrush(shade)
    painter.drawPolygon(polygon_of(ring if upright else ring[:, ::-1]))


def _paint_point(painter: QPainter, axes: Axes, curve: Curve, shade: QColor) -> list[Any]:
    import numpy as np

    try:
        x, y = axes.to_local(*place_of(curve))
    except NotThere:
        return []
    if not axes.extent().holds(x, y):
        return []
    _dot(painter, axes, *axes.to_plane(x, y), shade)
    return [np.array([[x, y]])]


def _dot(painter: QPainter, axes: Axes, x: float, y: float, shade: QColor) -> None:
    painter.setPen(QPen(PAPER, 2))
    painter.setBrush(shade)
    painter.drawEllipse(QPointF(*axes.to_local(x, y)), DOT, DOT)


@lru_cache(64)
def ribbons(axes: Axes, curve: Curve) -> list[tuple[list[QPolygonF], list[Round]]]:
    """The line of a curve on bare axes; remembered, since most curves stand still while one is moved."""
    import numpy as np

    return [ribbon(run, np.full(len(run), LINE / 2)) for run in runs(axes, curve)]


def _paint_ribbons(painter: QPainter, made: list[tuple[list[QPolygonF], list[Round]]], shade: QColor) -> None:
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(shade)
    for polygons, corners in made:
        for polygon in polygons:
            painter.drawPolygon(polygon, Qt.FillRule.WindingFill)
        for centre, radius in corners:
            painter.drawEllipse(centre, radius, radius)


def _paint_dashes(painter: QPainter, run: Any, shade: QColor) -> None:
    """The edge of a strict inequality does not belong to it."""
    pen = QPen(shade, LINE, cap=Qt.PenCapStyle.FlatCap)
    pen.setDashPattern([13 / LINE, 9 / LINE])
    painter.setPen(pen)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    for start in range(0, len(run) - 1, PIECE):
        painter.drawPolyline(polygon_of(run[start : start + PIECE + 1]))


def _paint_side(painter: QPainter, axes: Axes, curve: Curve, lines: list[Any], shade: QColor) -> None:
    """Shades the side of an inequality."""
    import numpy as np

    region = QPainterPath()
    if curve.along == "xy":
        for ring in filled(curve.formula, curve.op, window_of(axes)):
            region.addPolygon(polygon_of(on_axes(axes, ring[:, 0], ring[:, 1])))
        lines = []
    above = curve.op in ">≥"
    for line in lines:
        if curve.along == "x":
            edge = 0.0 if above else axes.height
            ends = [[line[-1, 0], edge], [line[0, 0], edge]]
            inner = np.column_stack([line[:, 0], np.clip(line[:, 1], 0, axes.height)])
        else:
            edge = axes.width if above else 0.0
            ends = [[edge, line[-1, 1]], [edge, line[0, 1]]]
            inner = np.column_stack([np.clip(line[:, 0], 0, axes.width), line[:, 1]])
        region.addPolygon(polygon_of(np.concatenate([inner, ends])))
    _tint(painter, axes, region, shade)


def _paint_between(painter: QPainter, axes: Axes) -> None:
    """Fainter lines between the marks of a logarithmic axis, closer and closer, by which it is known at a glance."""
    faint = QPen(RULING, 0.8)
    lines = []
    if axes.x_marks == LOG:
        xs = (axes.to_local(v, axes.y_max)[0] for v in marks_between(axes.x_min, axes.x_max, axes.width / 5, LOG))
        lines += [QLineF(x, 0, x, axes.height) for x in xs]
    if axes.y_marks == LOG:
        ys = (axes.to_local(axes.x_max, v)[1] for v in marks_between(axes.y_min, axes.y_max, axes.height / 5, LOG))
        lines += [QLineF(0, y, axes.width, y) for y in ys]
    if lines:
        painter.save()
        painter.setPen(faint)
        painter.drawLines(lines)  # type: ignore[call-overload]
        painter.restore()


def _paint_rings(painter: QPainter, axes: Axes, marks: list[float]) -> None:
    """A grid for angles and distances: a ring at each mark, a ray every thirty degrees."""
    step = marks[1] - marks[0] if len(marks) > 1 else 1.0
    far = max(math.hypot(x, y) for x in (axes.x_min, axes.x_max) for y in (axes.y_min, axes.y_max))
    painter.save()
    painter.setClipRect(QRectF(0, 0, axes.width, axes.height), Qt.ClipOperation.IntersectClip)
    painter.setPen(QPen(RULING.darker(106), 1.2))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    middle, (across, down) = QPointF(*axes.to_local(0, 0)), axes.units()
    for k in range(1, min(MOST_RINGS, int(far / step) + 1) + 1):
        painter.drawEllipse(middle, k * step * across, k * step * down)
    for k in range(0, 360, 30):
        turn = math.radians(k)
        painter.drawLine(middle, QPointF(*axes.to_local(far * math.cos(turn), far * math.sin(turn))))
    painter.restore()


def _paint_members(painter: QPainter, axes: Axes, equation: Equation, page: Page) -> None:
    """The other members of its family, thin and faint."""
    faint = QColor(colour(equation.hue))
    faint.setAlpha(110)
    painter.setPen(QPen(faint, 2.0))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    for curve in members(page, equation):
        if curve.along == "point":
            continue
        for run in runs(bare(axes), curve):
            for start in range(0, len(run) - 1, PIECE):
                painter.drawPolyline(polygon_of(run[start : start + PIECE + 1]))


def _paint_area(painter: QPainter, axes: Axes, parts: list[list[tuple[float, float]]], shade: QColor) -> None:
    """A tint with its edges, so that strips are told apart."""
    light = QColor(shade)
    light.setAlpha(52)
    painter.setBrush(light)
    painter.setPen(QPen(shade, 1.6))
    for corners in parts:
        painter.drawPolygon(QPolygonF([QPointF(*axes.to_local(x, y)) for x, y in corners]))


def _paint_lines(painter: QPainter, axes: Axes, lines: list[tuple[list[tuple[float, float]], bool]], shade: QColor) -> None:
    painter.setBrush(Qt.BrushStyle.NoBrush)
    far = FAR * (axes.width + axes.height)
    for corners, dashed in lines:
        painter.setPen(QPen(shade, 2.4, Qt.PenStyle.DashLine if dashed else Qt.PenStyle.SolidLine))
        places = (axes.to_local(x, y) for x, y in corners)
        # Qt's rasteriser overflows on huge numbers.
        painter.drawPolyline(QPolygonF([QPointF(max(-far, min(far, x)), max(-far, min(far, y))) for x, y in places]))


def _tint(painter: QPainter, axes: Axes, region: QPainterPath, shade: QColor) -> None:
    """A light tint and hatching, which tells overlapping regions apart without their colours."""
    light, hatch = QColor(shade), QColor(shade)
    light.setAlpha(36)
    hatch.setAlpha(90)
    painter.save()
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(light)
    painter.drawPath(region)
    painter.setClipPath(region, Qt.ClipOperation.IntersectClip)
    painter.setPen(QPen(hatch, 1.3))
    far = axes.width + axes.height
    apart = HATCH * math.sqrt(2)
    lines = [QLineF(k * apart, 0, k * apart - axes.height, axes.height) for k in range(1, int(far / apart) + 1)]
    painter.drawLines(lines)  # type: ignore[call-overload]
    painter.restore()
