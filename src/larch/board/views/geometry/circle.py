"""Circles and their parts; ellipses."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QBrush, QPainter, QPen

from larch.board.look import colour
from larch.board.views.base import Slip, fitting_slip
from larch.board.views.figure_view import FigureView, line_pen, shown_facts, stacked, wash
from larch.core.base.shape import Point
from larch.core.maths.plane.forms import Line as LineForm
from larch.core.maths.plane.near import at_share
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.geometry.circle import Circle

NOTHING = QBrush(Qt.BrushStyle.NoBrush)


class CircleView(FigureView):
    kind: ClassVar[type[Thing]] = Circle

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        assert isinstance(thing, Circle)
        form, r = thing.form(), thing.radius * thing.placement.scale
        painter.setPen(line_pen(thing))
        strength = 72 if thing.part is not None else 24
        painter.setBrush(NOTHING if thing.piece == "arc" or thing.rule else wash(thing.hue, strength))
        centre = QPointF(*form.centre)
        if thing.piece == "circle":
            painter.drawEllipse(centre, r, r)
        else:
            box = QRectF(centre.x() - r, centre.y() - r, 2 * r, 2 * r)
            draw = {"arc": painter.drawArc, "sector": painter.drawPie}.get(thing.piece, painter.drawChord)
            draw(box, round(form.start * 16), round(form.span * 16))
        if not thing.rule and thing.piece in ("circle", "arc"):
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(colour(thing.hue))
            painter.drawEllipse(centre, 4, 4)
        if not thing.shown:
            return
        pen = QPen(colour(thing.hue), 2)
        for name, (a, b) in _measured(thing).items():
            if name in thing.shown:
                painter.setPen(pen)
                painter.drawLine(QPointF(*a), QPointF(*b))
        self.paint_slips(painter, thing, page)

    def slips(self, thing: Thing, page: Page) -> Iterator[Slip]:
        assert isinstance(thing, Circle)
        form = thing.form()
        drawn = _measured(thing)
        middle = form.at(form.start + form.span / 2) if form.form != "circle" else form.centre
        inner = ((form.centre[0] + middle[0]) / 2, (form.centre[1] + middle[1]) / 2)
        for fact in shown_facts(thing, page):
            if fact.name in drawn:
                a, b = drawn[fact.name]
                spots = [(a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t) for t in (0.55, 0.35, 0.75)]
                yield Slip(fact.text, [*spots, *stacked(spots[0])], thing.hue, name=fact.name)
            elif fact.name == "circumference":
                spots = [form.at(angle) for angle in (135, 225, 45, 315, 90)]
                yield Slip(f"{fact.label} {fact.text}", spots, thing.hue, name=fact.name)
            elif fact.name == "share":
                lean = math.sin(math.radians(min(form.span, 180.0)) / 2)
                room = form.radius * lean / (1 + lean)  # of the round that touches both edges and the rim
                share = fitting_slip(
                    fact.text, at_share(LineForm(form.centre, middle), 1 - room / form.radius), room, thing.hue
                )
                if share is not None:
                    yield share
            elif fact.name == "angle":
                towards = [at_share(LineForm(form.centre, middle), t) for t in (0.6, 0.45, 0.8, 1.2)]
                yield Slip(fact.text, towards, thing.hue, bare=True, name=fact.name)
            elif fact.name == "arc length":
                yield Slip(fact.text, [middle, form.at(form.start + form.span * 0.3)], thing.hue, name=fact.name)
            else:
                yield Slip(f"{fact.label} {fact.text}", stacked((inner[0], inner[1] + 40)), thing.hue, name=fact.name)


def _measured(thing: Circle) -> dict[str, tuple[Point, Point]]:
    """The lines that show a radius, a diameter or a chord."""
    form = thing.form()
    if form.form == "circle":
        return {"radius": (form.centre, form.at(0)), "diameter": (form.at(160), form.at(340))}
    return {"radius": (form.centre, form.at(form.start)), "chord": form.chord()[:2]}
