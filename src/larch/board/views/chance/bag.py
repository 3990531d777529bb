"""A bag of paper, open at the top; balls of each sort by its own sign; the last that were drawn below."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from larch.board.look import NEEDLE, PAPER, SOFT, colour, tint
from larch.board.views.base import View, words
from larch.core.base.hues import hue_in_order
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.chance.bag import FOOT, HIGH, SHOWN, WIDE, Bag

BALL = 15.0


def paint_ball(painter: QPainter, at: QPointF, radius: float, sort: int, name: str) -> None:
    """In the hue of its sort, with its number or the first letter of its name."""
    hue = hue_in_order(sort)
    painter.setPen(QPen(colour(hue).darker(125), 2.0))
    painter.setBrush(tint(hue, 0.42))
    painter.drawEllipse(at, radius, radius)
    words(painter, at, name[:1], NEEDLE, 1.25 * radius, bold=True)


class BagView(View):
    kind: ClassVar[type[Thing]] = Bag

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Bag)
        painter.setPen(QPen(NEEDLE, 2.4))
        painter.setBrush(tint("slate", 0.2))
        teeth = [QPointF(18 + (WIDE - 36) * k / 12, 14 if k % 2 else 2) for k in range(13)]
        painter.drawPolygon(QPolygonF([*teeth, QPointF(WIDE - 4, HIGH - 12), QPointF(WIDE - 16, HIGH), QPointF(16, HIGH),
                                       QPointF(4, HIGH - 12)]))  # fmt: skip
        if thing.open:
            self._contents(painter, thing)
        else:
            words(painter, QPointF(WIDE / 2, HIGH / 2), "?", NEEDLE, 90, bold=True)
        self._drawn(painter, thing)

    def _contents(self, painter: QPainter, thing: Bag) -> None:
        room = QRectF(22, 46, WIDE - 44, HIGH - 62)
        painter.setPen(QPen(NEEDLE, 1.4, Qt.PenStyle.DashLine))
        painter.setBrush(PAPER)
        painter.drawRoundedRect(room, 8, 8)
        balls = [sort for sort, n in enumerate(thing.left()) for _k in range(n)]
        radius = BALL
        while len(balls) > int(room.width() / (2 * radius + 3)) * int(room.height() / (2 * radius + 3)) and radius > 3:
            radius -= 1
        across = max(1, int(room.width() / (2 * radius + 3)))
        for k, sort in enumerate(balls):
            x = room.x() + (k % across + 0.5) * (2 * radius + 3) + 1
            y = room.bottom() - (k // across + 0.5) * (2 * radius + 3) - 2
            paint_ball(painter, QPointF(x, y), radius, sort, thing.sort_name(sort))

    def _drawn(self, painter: QPainter, thing: Bag) -> None:
        y = HIGH + 28
        if not thing.drawn:
            words(painter, QPointF(WIDE / 2, y), _("tap to draw"), SOFT, 24)
            return
        last = thing.drawn[-(SHOWN // 2) :]
        for k, sort in enumerate(last):
            paint_ball(painter, QPointF(18 + k * 33, y), 14, sort, thing.sort_name(sort))
        words(painter, QPointF(WIDE / 2, HIGH + FOOT - 28), _("{n} drawn").format(n=len(thing.drawn)), NEEDLE, 26, bold=True)
