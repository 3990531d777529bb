"""Dots in rings, rings in rings: the smallest prime outermost; the product in the hues of its factors below."""

from __future__ import annotations

import math
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFontMetricsF, QPainter, QPen

from larch.board.look import NEEDLE, colour, page_font, text_colour, tint
from larch.board.views.base import View, words
from larch.core.base.hues import hue_of_number
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.factor_picture import FOOT, SIDE, FactorPicture, prime_factors


class FactorPictureView(View):
    kind: ClassVar[type[Thing]] = FactorPicture

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, FactorPicture)
        factors = prime_factors(thing.number)
        _group(painter, QRectF(3, 3, SIDE - 6, SIDE - 6), factors)
        if thing.labelled():
            self._product(painter, thing.number, factors)

    def _product(self, painter: QPainter, number: int, factors: tuple[int, ...]) -> None:
        """With each factor in its own hue, which its size says again."""
        pieces = [(f"{number} = ", "needle")]
        for k, factor in enumerate(factors or (1,)):
            pieces += [(" × ", "needle")] if k else []
            pieces.append((str(factor), hue_of_number(factor)))
        metrics = QFontMetricsF(page_font(34, True))
        wide = sum(metrics.horizontalAdvance(text) for text, _hue in pieces)
        size = min(34.0, 34.0 * (SIDE + 60) / wide)
        metrics = QFontMetricsF(page_font(size, True))
        x = SIDE / 2 - sum(metrics.horizontalAdvance(text) for text, _hue in pieces) / 2
        for text, hue in pieces:
            advance = metrics.horizontalAdvance(text)
            shade = NEEDLE if hue == "needle" else text_colour(hue)
            words(painter, QPointF(x + advance / 2, SIDE + FOOT / 2 + 4), text, shade, size, bold=True)
            x += advance


def _group(painter: QPainter, box: QRectF, factors: tuple[int, ...]) -> None:
    """So many groups as the first factor says, each of what is left, in a ring: two share its room along its longer side,
    more lie round its middle."""
    if not factors:
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(NEEDLE)
        painter.drawEllipse(box.center(), 40, 40)
        return
    first, rest = factors[0], factors[1:]
    hue = hue_of_number(first)
    painter.setPen(QPen(colour(hue).darker(125), 2.0))
    painter.setBrush(tint(hue, 0.14))
    corner = (0.3 if first == 2 else 0.5) * min(box.width(), box.height())
    painter.drawRoundedRect(box, corner, corner)
    for room in _rooms(box, first):
        if rest:
            _group(painter, room, rest)
        else:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(colour(hue))
            radius = 0.41 * min(room.width(), room.height())
            painter.drawEllipse(room.center(), radius, radius)


def _rooms(box: QRectF, count: int) -> list[QRectF]:
    """Where the groups of a ring lie."""
    inset = 0.05 * min(box.width(), box.height())
    inner = box.adjusted(inset, inset, -inset, -inset)
    if count == 2:
        gap = inset / 2
        if inner.width() > inner.height() * 1.05:
            half = (inner.width() - gap) / 2
            return [QRectF(inner.x() + k * (half + gap), inner.y(), half, inner.height()) for k in range(2)]
        half = (inner.height() - gap) / 2
        return [QRectF(inner.x(), inner.y() + k * (half + gap), inner.width(), half) for k in range(2)]
    part, spots = _packed(count)
    room = min(inner.width(), inner.height()) / 2
    side = 2 * part * room * 0.97
    centre = inner.center()
    return [QRectF(centre.x() + x * room - side / 2, centre.y() + y * room - side / 2, side, side) for x, y in spots]


def _packed(count: int) -> tuple[float, list[tuple[float, float]]]:
    """Equal circles in a circle of radius 1: their radius and middles. Rings round a middle, for a prime number of them."""
    if count <= 6:
        r = 1.0 if count == 1 else math.sin(math.pi / count) / (1 + math.sin(math.pi / count))
        away = 0.0 if count == 1 else 1 - r
        return r, [(away * math.sin(math.tau * k / count), -away * math.cos(math.tau * k / count)) for k in range(count)]
    golden = math.pi * (3 - math.sqrt(5))
    r = 0.86 / math.sqrt(count)
    spots = [((1 - r) * math.sqrt((k + 0.5) / count) * math.cos(golden * k),
              (1 - r) * math.sqrt((k + 0.5) / count) * math.sin(golden * k)) for k in range(count)]  # fmt: skip
    return r, spots
