"""A clock: figures outside the minute track, a broad hour hand, a narrow minute hand, a thin second hand while it goes."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QLineF, QPointF, Qt
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from larch.board.look import NEEDLE, PAPER, SOFT, colour
from larch.board.views.base import View, badge, words
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.time.clock import HOUR_TIP, MINUTE_TIP, RADIUS, Clock, time_text

TRACK, MARK, TENTH = 0.725, 0.655, 0.69  # radii: the outer end of marks, the inner of those of hours and of minutes
FIGURES = 0.85
BELOW = 30.0  # from the face to the middle of the time in figures


class ClockView(View):
    kind: ClassVar[type[Thing]] = Clock
    margin: ClassVar[float] = 60.0
    shown_below: ClassVar[float] = BELOW + 28

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Clock)
        painter.translate(RADIUS, RADIUS)
        painter.setPen(QPen(NEEDLE, 6))
        painter.setBrush(PAPER)
        painter.drawEllipse(QPointF(0, 0), RADIUS - 3, RADIUS - 3)
        for minute in range(60):
            hour = minute % 5 == 0
            painter.setPen(QPen(NEEDLE if hour else SOFT, 4 if hour else 1.8))
            painter.drawLine(QLineF(_at(minute * 6, MARK if hour else TENTH), _at(minute * 6, TRACK)))
        for figure in range(1, 13):
            if thing.numerals == "all" or (thing.numerals == "quarters" and figure % 3 == 0):
                words(painter, _at(figure * 30, FIGURES), str(figure), NEEDLE, 30, bold=True)
        self._hands(painter, thing)
        painter.translate(-RADIUS, -RADIUS)

    def _hands(self, painter: QPainter, thing: Clock) -> None:
        hour, minute = colour("lake"), colour("berry")
        painter.setPen(QPen(hour, 15, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        painter.drawLine(QLineF(QPointF(0, 0), _at(thing.hour_hand(), HOUR_TIP - 0.04)))
        angle = thing.minute_hand()
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(minute)
        tip, left, right = _at(angle, MINUTE_TIP), _at(angle - 90, 0.035), _at(angle + 90, 0.035)
        painter.drawPolygon(QPolygonF([left, tip, right, _at(angle + 180, 0.1)]))
        if thing.going:
            painter.setPen(QPen(NEEDLE, 2.2, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
            second = math.floor(thing.minutes * 60 + 1e-6) % 60 * 6
            painter.drawLine(QLineF(_at(second + 180, 0.12), _at(second, MINUTE_TIP + 0.05)))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NEEDLE)
        painter.drawEllipse(QPointF(0, 0), 9, 9)

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Clock)
        texts = {"time": time_text(thing.minutes)} if not thing.free else {}
        texts["angle"] = next(fact.text for fact in thing.facts(page) if fact.name == "angle")
        shown = [texts[name] for name in thing.shown if name in texts]
        box = self.box(thing)
        for k, text in enumerate(shown):
            across = (k - (len(shown) - 1) / 2) * 150
            badge(painter, (box.centre[0] + across, box.y1 + BELOW), text, NEEDLE, 34)


def _at(degrees: float, share: float) -> QPointF:
    """A place on the face: an angle clockwise from 12, and a share of the radius."""
    angle = math.radians(degrees)
    return QPointF(RADIUS * share * math.sin(angle), -RADIUS * share * math.cos(angle))
