"""A spinner: sectors in the order of hues, an arrow on a hub, the shares and what it shows below; its tally as bars."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from larch.board.look import NEEDLE, PAPER, SOFT, colour, tint
from larch.board.views.base import View, words
from larch.board.views.chance.bars import number_over
from larch.core.base.hues import hue_in_order
from larch.core.base.shape import Box
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.chance.spinner import ARROW, HUB, RADIUS, TURNS, Spinner

SPIN = 1400  # ms
NAMES = 0.71 * RADIUS  # from the centre: outside the reach of the arrow
TALL = 130.0
MOST_WIDE = 54.0


class SpinnerView(View):
    kind: ClassVar[type[Thing]] = Spinner

    def reach(self, thing: Thing, page: Page) -> Box:
        box = super().reach(thing, page)
        return box._replace(y1=box.y1 + TALL + 60) if "tally" in thing.shown else box

    def hang(self, thing: Thing) -> Box:
        box = self.box(thing)
        return box._replace(y1=box.y1 + TALL + 60) if "tally" in thing.shown else box

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Spinner)
        self._disc(painter, thing)
        self._arrow(painter, thing)
        words(painter, QPointF(RADIUS, 2 * RADIUS + 32), self._shown(thing), NEEDLE, 30, bold=True)

    def _shown(self, thing: Spinner) -> str:
        shares = thing.shares_text(" : ")
        return f"{shares}   →   {thing.sector_name(thing.sector())}" if thing.tally else shares

    def _disc(self, painter: QPainter, thing: Spinner) -> None:
        disc, bounds = QRectF(0, 0, 2 * RADIUS, 2 * RADIUS), thing.bounds()
        for k in range(len(thing.shares)):
            painter.setPen(QPen(NEEDLE, 2.0))
            painter.setBrush(tint(hue_in_order(k), 0.42))
            start, span = bounds[k], bounds[k + 1] - bounds[k]
            if span >= 359.999:
                painter.drawEllipse(disc)
            else:
                painter.drawPie(disc, round(16 * (90 - start)), round(-16 * span))
            middle = math.radians(start + span / 2)
            away = NAMES
            at = QPointF(RADIUS + away * math.sin(middle), RADIUS - away * math.cos(middle))
            room = 2 * away * math.sin(min(math.radians(span) / 2, math.pi / 2))
            name = thing.sector_name(k)
            size = min(32.0, max(14.0, 1.6 * room / max(1, len(name))))
            words(painter, at, name, NEEDLE, size, bold=True)

    def _arrow(self, painter: QPainter, thing: Spinner) -> None:
        painter.save()
        painter.translate(RADIUS, RADIUS)
        painter.rotate(thing.at)
        painter.setPen(QPen(PAPER, 2.0))
        painter.setBrush(NEEDLE)
        painter.drawPolygon(QPolygonF([QPointF(0, -ARROW), QPointF(13, 0), QPointF(-13, 0)]))
        painter.setPen(QPen(NEEDLE, 3.0))
        painter.setBrush(PAPER)
        painter.drawEllipse(QPointF(0, 0), HUB * 0.7, HUB * 0.7)
        painter.restore()

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Spinner)
        if "tally" not in thing.shown:
            return
        box, counts, whole = self.box(thing), thing.counts(), sum(thing.shares)
        wide = min(MOST_WIDE, 2 * RADIUS / len(counts))
        spins = sum(counts)
        theory = [spins * share / whole for share in thing.shares]
        most = max(5.0, *counts, *theory)
        left, floor = box.centre[0] - wide * len(counts) / 2, box.y1 + 30 + TALL
        for k, count in enumerate(counts):
            x, high = left + k * wide, TALL * count / most
            painter.setPen(QPen(colour(hue_in_order(k)).darker(125), 2.0))
            painter.setBrush(tint(hue_in_order(k), 0.42))
            painter.drawRect(QRectF(x + 3, floor - high, wide - 6, high))
            name = thing.sector_name(k)
            words(painter, QPointF(x + wide / 2, floor + 16), name, SOFT, min(22.0, 1.7 * wide / max(1, len(name))))
            y = floor - TALL * theory[k] / most
            number_over(painter, x + wide / 2, floor - high, y, str(count), 22)
            if spins:  # what theory expects: a dashed line
                painter.setPen(QPen(NEEDLE, 2.0, Qt.PenStyle.DashLine))
                painter.drawLine(QPointF(x, y), QPointF(x + wide, y))
        painter.setPen(QPen(NEEDLE, 1.6))
        painter.drawLine(QPointF(left, floor), QPointF(left + wide * len(counts), floor))

    def motion(self, before: Thing, after: Thing) -> int:
        assert isinstance(before, Spinner) and isinstance(after, Spinner)
        return SPIN if before.at != after.at and sum(after.counts()) > sum(before.counts()) else 0

    def paint_motion(self, painter: QPainter, before: Thing, after: Thing, page: Page, t: float) -> None:
        """Some turns, ever slower, to where it was decided beforehand."""
        assert isinstance(before, Spinner) and isinstance(after, Spinner)
        whole = 360.0 * TURNS + (after.at - before.at) % 360
        turned = (before.at + whole * (1 - (1 - t) ** 3)) % 360
        self.paint(painter, before.replace(at=turned if turned < 360 else 0.0), page)
