"""How a graph looks whose equation is selected: a gold band, its places, lines from the chief one to the axes."""

from __future__ import annotations

from PyQt6.QtCore import QLineF, QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPen, QPolygonF

from larch.board.camera import Camera
from larch.board.look import GOLD, GOLD_TEXT, PAPER, page_font
from larch.core.base.shape import Point
from larch.core.maths.plane.forms import Graph
from larch.core.model.capabilities import Geometric, Plots, Steers
from larch.core.model.fact import number_text
from larch.core.model.page import Page
from larch.core.model.thing import Handle, Thing

BAND, LARGE, SMALL = 15.0, 15.0, 9.0
NUMBER, FARTHEST = 20.0, 3000.0
FINE = 100  # corners to a band: more are not seen through it, and cost far more
PREFIX = "graph "  # of the handles of a graph


def graph_handles(thing: Thing, page: Page, camera: Camera) -> list[tuple[str, str, Point]]:
    """As (id, name, place in the view)."""
    if not isinstance(thing, Steers) or thing.locked:
        return []
    return [(thing.id, PREFIX + grip.name, camera.to_view(grip.x, grip.y)) for grip in thing.grips_on(page)]


def paint_in_hand(painter: QPainter, thing: Thing, page: Page, camera: Camera) -> None:
    if not isinstance(thing, Steers) or not isinstance(thing, Geometric):
        return
    form = thing.form_on(page)
    if not isinstance(form, Graph):
        return
    painter.save()
    band = QColor(GOLD)
    band.setAlpha(85)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(QPen(band, BAND, cap=Qt.PenCapStyle.FlatCap, join=Qt.PenJoinStyle.RoundJoin))
    axes = next((t for id in thing.rests_on(page) if isinstance(t := page.thing(id), Plots)), None)
    if axes is not None:
        corners = [QPointF(*camera.to_view(*axes.placement.to_page(*corner))) for corner in axes.extent().corners()]
        painter.setClipRect(QPolygonF(corners).boundingRect())
    for run in form.points:
        every = max(1, len(run) // FINE)
        points = [*run[::every], run[-1]]
        painter.drawPolyline(QPolygonF([QPointF(*camera.to_view(*point)) for point in points]))
    painter.setClipping(False)
    grips = thing.grips_on(page)
    for grip in grips:
        if grip.held and axes is not None:
            _lines(painter, axes, grip, camera)
    for grip in grips:
        painter.setPen(QPen(GOLD, 4 if grip.held else 3))
        painter.setBrush(PAPER)
        radius = LARGE if grip.held else SMALL
        painter.drawEllipse(QPointF(*camera.to_view(grip.x, grip.y)), radius, radius)
        if grip.held:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(GOLD)
            painter.drawEllipse(QPointF(*camera.to_view(grip.x, grip.y)), 4, 4)
    painter.restore()


def _lines(painter: QPainter, axes: Plots, grip: Handle, camera: Camera) -> None:
    """Thin lines from a place to both axes, with its coordinates there."""
    x, y = axes.plane_of((grip.x, grip.y))
    at = QPointF(*camera.to_view(grip.x, grip.y))
    for value, foot, below in ((x, (x, 0.0), True), (y, (0.0, y), False)):
        end = QPointF(*camera.to_view(*axes.page_of(foot)))
        if not LARGE <= QLineF(at, end).length() < FARTHEST:  # a logarithmic axis has no zero
            continue
        painter.setPen(QPen(GOLD, 1.5))
        painter.drawLine(at, end)
        text = number_text(value, 3)
        painter.setFont(page_font(NUMBER, True))
        wide = painter.fontMetrics().horizontalAdvance(text) + 8
        box = (
            QRectF(end.x() - wide / 2, end.y() + 6, wide, 24)
            if below
            else QRectF(end.x() - wide - 6, end.y() - 12, wide, 24)
        )
        painter.fillRect(box, PAPER)
        painter.setPen(GOLD_TEXT)
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
