"""Buttons that show a construction by carrying it out: what is given in grey, what comes of it in gold."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QAbstractButton, QWidget

from larch.board.look import interface_font
from larch.board.paint import HINTS
from larch.board.views.figure_view import arrow_head, paint_arc, polygon_of, unit
from larch.core.base.hues import GOLD_TEXT
from larch.core.base.shape import Point
from larch.core.figures.rules import RULES, made_by
from larch.core.maths.plane.forms import Angle, Circle, Form, Line, NotThere, Path, Spot, outline, span_of
from larch.desk.plain import tip
from larch.desk.theme import FOCUS, GOLD, HAIRLINE, NEEDLE, PAPER, SOFT

SIDE = 100.0  # of the square in which the examples are drawn
WIDTH = 52  # of the picture, pixels
WIDE = 208  # with the words
POINTS = (Spot(16.0, 74.0), Spot(82.0, 66.0), Spot(46.0, 18.0), Spot(60.0, 90.0))
LINE = Line((6.0, 84.0), (94.0, 62.0), "line")
CROSSING = Line((30.0, 8.0), (66.0, 94.0), "line")
ROUND = Circle((58.0, 58.0), 26.0)
FLAG = Path(((12.0, 20.0), (40.0, 32.0), (12.0, 46.0)))
OWN: dict[str, tuple[Form, ...]] = {
    "meet": (LINE, CROSSING), "on": (LINE,), "tangent": (Spot(10.0, 14.0), ROUND), "centre": (ROUND,),
    "mirror": (FLAG, Line((54.0, 4.0), (54.0, 96.0), "line")), "point mirror": (FLAG, Spot(50.0, 50.0)),
    "rotate": (FLAG, Spot(46.0, 62.0)), "translate": (FLAG, Spot(26.0, 80.0), Spot(66.0, 62.0)),
    "enlarge": (Path(((20.0, 44.0), (42.0, 52.0), (22.0, 66.0))), Spot(6.0, 54.0)),
    "perpendicular": (Spot(40.0, 20.0), LINE), "parallel": (Spot(40.0, 30.0), LINE), "foot": (Spot(40.0, 18.0), LINE),
    "circle": (Spot(50.0, 52.0), Spot(82.0, 40.0)), "circle with radius": (Spot(50.0, 50.0),),
    "carried circle": (Spot(10.0, 12.0), Spot(36.0, 14.0), Spot(58.0, 60.0)),
    "regular": (Spot(36.0, 86.0), Spot(66.0, 86.0)), "circle on diameter": (Spot(16.0, 60.0), Spot(84.0, 44.0)),
    "ellipse": (Spot(34.0, 50.0), Spot(66.0, 50.0), Spot(70.0, 24.0)),
    "arc": (Spot(20.0, 76.0), Spot(84.0, 70.0), Spot(30.0, 20.0)),
    "sector": (Spot(20.0, 76.0), Spot(84.0, 70.0), Spot(30.0, 20.0)),
    "cap": (Spot(30.0, 66.0), Spot(84.0, 66.0), Spot(26.0, 14.0)),
    "angle": (Spot(88.0, 76.0), Spot(16.0, 78.0), Spot(58.0, 18.0)),
    "angle bisector": (Spot(88.0, 76.0), Spot(16.0, 78.0), Spot(58.0, 18.0)),
    "tangent at": (Spot(68.0, 36.0), Circle((46.0, 60.0), 32.0)),
    "normal at": (Spot(68.0, 36.0), Circle((46.0, 60.0), 32.0)),
    "secant": (Spot(22.0, 40.0), Spot(76.0, 48.0), Circle((48.0, 60.0), 32.0)),
    "polyline": (Spot(10.0, 80.0), Spot(36.0, 30.0), Spot(62.0, 70.0), Spot(90.0, 20.0)),
    "polygon": (Spot(14.0, 70.0), Spot(30.0, 18.0), Spot(84.0, 30.0), Spot(70.0, 84.0)),
}  # fmt: skip
VALUES = {"circle with radius": (34.0,), "enlarge": (1.9,), "rotate": (-75.0,), "on": (0.55,)}


def example(name: str) -> tuple[tuple[Form, ...], Form | None]:
    """What is given and what comes of it, in a square of SIDE."""
    rule = RULES[name]
    given = OWN.get(name) or POINTS[: 4 if rule.takes[0] == "point…" else len(rule.takes)]
    try:
        return given, made_by(name, given, VALUES.get(name, rule.starts))
    except NotThere:
        return given, None


class RuleButton(QAbstractButton):
    """A construction to be chosen; name: of a rule, or "point", "drawn" or "locus"."""

    def __init__(self, name: str, label: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.name = name
        self.setText(label)
        self.setFixedSize(WIDE, WIDTH)
        self.setCheckable(True)
        self.setAccessibleName(label)
        self.setToolTip(tip(label))
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)

    def sizeHint(self) -> QSize:
        return self.size()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHints(HINTS)
        on = self.isChecked()
        high = self.height()
        painter.setPen(QPen(FOCUS if self.hasFocus() else GOLD if on else HAIRLINE, 2 if on or self.hasFocus() else 1))
        painter.setBrush(QColor("#FBF3E2") if on else PAPER)
        painter.drawRoundedRect(QRectF(1.5, 1.5, self.width() - 3, high - 3), 7, 7)
        painter.setPen(NEEDLE)
        painter.setFont(interface_font(14, bold=on))
        words = QRectF(high + 4, 2, self.width() - high - 10, high - 4)
        painter.drawText(words, Qt.AlignmentFlag.AlignVCenter | Qt.TextFlag.TextWordWrap, self.text())
        painter.setClipRect(QRectF(4, 4, high - 8, high - 8))
        scale = (high - 10) / SIDE
        painter.translate(5, 5)
        painter.scale(scale, scale)
        {"point": _point, "drawn": _drawn, "locus": _locus}.get(self.name, lambda p: _rule(p, self.name))(painter)


def _aids(name: str) -> list[Form]:
    """Thin lines that tell the centres of a triangle apart: medians, circles, heights."""
    from larch.core.maths.plane import construct

    if name not in ("centroid", "circumcentre", "incentre", "orthocentre", "incircle"):
        return []
    a, b, c = ((spot.x, spot.y) for spot in POINTS[:3])
    found: list[Form] = [Path((a, b, c))]
    for top, one, other in ((a, b, c), (b, c, a), (c, a, b)):
        if name == "centroid":
            found.append(Line(top, construct.midpoint(one, other)[:2]))
        elif name == "orthocentre":
            found.append(Line(top, construct.foot(top, Line(one, other))[:2]))
    if name == "circumcentre":
        found.append(construct.circle_through(a, b, c))
    if name == "incentre":
        found.append(construct.incircle(a, b, c))
    return found


def _rule(painter: QPainter, name: str) -> None:
    given, made = example(name)
    for form in _aids(name):
        _form(painter, form, QColor(SOFT), 2.4)
    for form in given:
        if not isinstance(form, Spot):
            _form(painter, form, QColor(SOFT), 3.0)
    if made is not None:
        _form(painter, made, QColor(GOLD_TEXT), 5.5)
    for form in given:
        if isinstance(form, Spot):
            _form(painter, form, QColor(NEEDLE), 3.0)


def _form(painter: QPainter, form: Form, shade: QColor, width: float) -> None:
    painter.setPen(QPen(shade, width, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap, Qt.PenJoinStyle.RoundJoin))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    match form:
        case Spot(x, y):
            painter.setBrush(shade)
            painter.drawEllipse(QPointF(x, y), 4.5, 4.5)
        case Line(a, b, kind):
            low, high = (-9.0 if kind == "line" else 0.0), (9.0 if kind in ("line", "ray") else 1.0)
            ends: list[Point] = [(a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])) for t in (low, high)]
            painter.drawLine(QPointF(*ends[0]), QPointF(*ends[1]))
            if kind == "vector":
                arrow_head(painter, b, unit(a, b), 24, shade)
        case Angle(vertex):
            painter.drawPolyline(polygon_of([form.a, vertex, form.b]))
            paint_arc(painter, vertex, 34, *span_of(form))
        case _:
            painter.drawPolyline(polygon_of(outline(form, 6)))


def _point(painter: QPainter) -> None:
    _form(painter, Spot(50.0, 50.0), QColor(GOLD_TEXT), 12.0)


def _drawn(painter: QPainter) -> None:
    painter.setPen(QPen(QColor(GOLD_TEXT), 5.5, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap, Qt.PenJoinStyle.RoundJoin))
    painter.drawPolygon(polygon_of([(20, 60), (30, 26), (58, 34), (84, 22), (80, 60), (88, 80), (50, 74), (28, 84)]))


def _locus(painter: QPainter) -> None:
    _form(painter, Circle((32.0, 56.0), 24.0), QColor(SOFT), 3.0)
    _form(painter, Circle((60.0, 46.0), 13.0), QColor(GOLD_TEXT), 5.5)
    for spot in (Spot(49.0, 39.0), Spot(90.0, 36.0)):
        _form(painter, spot, QColor(NEEDLE), 3.0)
