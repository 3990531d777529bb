"""A clock: figures outside the minute track, a broad hour hand, a narrow minute hand, a thin second hand while it goes."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QLineF, QPointF, QRectF, Qt
from PyQt6.QtGui import QFontMetricsF, QPainter, QPen, QPolygonF

from larch.board.gestures.base import Gesture, Stage
from larch.board.gestures.drawn_part import DrawPart
from larch.board.look import NEEDLE, PAPER, SOFT, colour, page_font, text_colour, tint
from larch.board.pointer import Sample
from larch.board.views.base import View, badge, words
from larch.core.base.words import _
from larch.core.model.nibs import Pen as InkPen
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.time.clock import GRIP, HOUR_TIP, MINUTE_TIP, NEVER, RADIUS, Clock

TRACK, MARK, TENTH = 0.725, 0.655, 0.69  # radii: the outer end of marks, the inner of those of hours and of minutes
FIGURES, INNER = 0.85, 0.56
ROMAN = ("I", "II", "III", "IV", "V", "VI", "VII", "VIII", "IX", "X", "XI", "XII")
BELOW = 30.0  # from the face to the middle of the time in figures


class ClockView(View):
    kind: ClassVar[type[Thing]] = Clock
    margin: ClassVar[float] = 60.0
    shown_below: ClassVar[float] = BELOW + 28

    def pen_gesture(self, stage: Stage, sample: Sample, thing: Thing, pen: InkPen) -> Gesture | None:
        assert isinstance(thing, Clock)
        at = thing.placement.to_local(*sample.page_pos)
        drawn = math.dist(at, (RADIUS, RADIUS)) <= GRIP * RADIUS  # from the middle, it draws a hand
        return DrawPart(stage, thing, _("Draw a hand"), Clock.with_drawn_hand) if drawn else None

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Clock)
        thing = thing.started(page)
        painter.translate(RADIUS, RADIUS)
        painter.setPen(QPen(NEEDLE, 6))
        painter.setBrush(PAPER)
        painter.drawEllipse(QPointF(0, 0), RADIUS - 3, RADIUS - 3)
        if thing.since != NEVER and not thing.free:
            self._elapsed(painter, thing)
        for minute in range(60):
            hour = minute % 5 == 0
            painter.setPen(QPen(NEEDLE if hour else SOFT, 4 if hour else 1.8))
            painter.drawLine(QLineF(_at(minute * 6, MARK if hour else TENTH), _at(minute * 6, TRACK)))
        for figure in range(1, 13):
            if thing.numerals == "roman":
                words(painter, _at(figure * 30, FIGURES), ROMAN[figure - 1], NEEDLE, 22, bold=True)
            elif thing.numerals in ("all", "hours 24") or (thing.numerals == "quarters" and figure % 3 == 0):
                words(painter, _at(figure * 30, FIGURES), str(figure), NEEDLE, 30, bold=True)
            if thing.numerals == "hours 24":
                words(painter, _at(figure * 30, INNER), str(figure + 12), SOFT, 18)
        self._hands(painter, thing)
        painter.translate(-RADIUS, -RADIUS)

    def _elapsed(self, painter: QPainter, thing: Clock) -> None:
        """What has passed, as an arc in the minute track: up to an hour as it was, the rest of whole hours beyond that."""
        minutes = thing.elapsed()
        part = minutes if minutes <= 60 else minutes % 60
        start = thing.since % 60 * 6
        radius = 0.69 * RADIUS
        disc = QRectF(-radius, -radius, 2 * radius, 2 * radius)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(tint("plum", 0.2))
        painter.drawPie(disc, round(16 * (90 - start)), round(-16 * 6 * part))
        painter.setPen(QPen(colour("plum"), 10, Qt.PenStyle.SolidLine, Qt.PenCapStyle.FlatCap))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawArc(disc, round(16 * (90 - start)), round(-16 * 6 * part))

    def _hands(self, painter: QPainter, thing: Clock) -> None:
        hour, minute = colour("lake"), colour("berry")
        painter.setPen(QPen(hour, 15, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        painter.drawLine(QLineF(QPointF(0, 0), _at(thing.hour_hand(), HOUR_TIP - 0.04)))
        angle = thing.minute_hand()
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(minute)
        tip, left, right = _at(angle, MINUTE_TIP), _at(angle - 90, 0.035), _at(angle + 90, 0.035)
        painter.drawPolygon(QPolygonF([left, tip, right, _at(angle + 180, 0.1)]))
        if thing.going and thing.seconds:
            painter.setPen(QPen(NEEDLE, 2.2, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
            second = math.floor(thing.minutes * 60 + 1e-6) % 60 * 6
            painter.drawLine(QLineF(_at(second + 180, 0.12), _at(second, MINUTE_TIP + 0.05)))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NEEDLE)
        painter.drawEllipse(QPointF(0, 0), 9, 9)

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Clock)
        thing = thing.started(page)
        texts = {fact.badge: fact.text for fact in thing.facts(page) if fact.badge} if thing.shown else {}
        if thing.since != NEVER and not thing.free:
            badge(painter, self._beside_arc(thing), thing.elapsed_text(), text_colour("plum"), 26)
        shown = [texts[name] for name in thing.shown if name in texts and name != "elapsed"]
        box = self.box(thing)
        wide = [QFontMetricsF(page_font(34, True)).horizontalAdvance(text) + 40 for text in shown]
        left = box.centre[0] - sum(wide) / 2
        for text, room in zip(shown, wide, strict=True):
            badge(painter, (left + room / 2, box.y1 + BELOW), text, NEEDLE, 34)
            left += room

    def _beside_arc(self, thing: Clock) -> tuple[float, float]:
        """In the middle of what has passed, on the page."""
        part = thing.elapsed() if thing.elapsed() <= 60 else thing.elapsed() % 60
        angle = math.radians((thing.since % 60 + part / 2) * 6)
        away = 0.38 * RADIUS
        return thing.placement.to_page(RADIUS + away * math.sin(angle), RADIUS - away * math.cos(angle))


def _at(degrees: float, share: float) -> QPointF:
    """A place on the face: an angle clockwise from 12, and a share of the radius."""
    angle = math.radians(degrees)
    return QPointF(RADIUS * share * math.sin(angle), -RADIUS * share * math.cos(angle))
