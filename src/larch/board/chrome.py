"""What shows a selection: outlines, handles, the total, snap lines. Pixels of the view."""

from __future__ import annotations

import math
from collections.abc import Sequence

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QFontMetrics, QPainter, QPen, QPolygonF

from larch.board.camera import Camera
from larch.board.free_place import freest
from larch.board.look import GOLD, GOLD_TEXT, NEEDLE, PAPER, icon, interface_font
from larch.board.views import view_of
from larch.core.base import hues
from larch.core.base.shape import Box, Point, union
from larch.core.base.words import _
from larch.core.model.capabilities import Constructible
from larch.core.model.fact import number_text
from larch.core.model.grips import grip_of
from larch.core.model.page import Page
from larch.core.model.thing import Snap, Thing

REACH = 22.0  # half of the smallest target, pixels
ROOMY = 96.0  # pixels along the shorter side
APART = 14.0  # between a selection and its frame
STEM = 30.0
BADGE = 18.0  # page units that a measure on a side reaches beyond a thing: neither frame nor marks lie on it
TOTAL = 24  # pixels: the size of a total
MOST_LOOKED_AT = 200  # things that a total is to leave free
CORNERS = ("size-tl", "size-tr", "size-br", "size-bl")


def frame(things: Sequence[Thing], camera: Camera) -> Box:
    """The frame round a selection, in the view."""
    box = union(view_of(thing).box(thing) for thing in things)
    badges = BADGE * camera.scale if any(thing.shown for thing in things) else 0.0
    return camera.box_to_view(box).grown(APART + badges)


def frame_handles(things: Sequence[Thing], camera: Camera, at_board: bool) -> list[tuple[str, str, Point]]:
    """Handles of the frame as (id, name, place in the view)."""
    free = [thing for thing in things if not thing.locked]
    if not free or at_board:
        return []
    box = frame(things, camera)
    found: list[tuple[str, str, Point]] = []
    if any(thing.resizable for thing in free):
        found += [("", name, corner) for name, corner in zip(CORNERS, box.corners(), strict=True)]
    only = free[0] if len(free) == 1 else None
    if only is not None and only.resizable and not only.placement.turn and only.stretched(1.0, 1.0) is not None:
        found.append(("", "size-r", (box.x1, (box.y0 + box.y1) / 2)))
        if only.stretched(1.0, 1.5) != only:
            found.append(("", "size-b", ((box.x0 + box.x1) / 2, box.y1)))
    if any(thing.turnable for thing in free):
        found.append(("", "turn", (box.x1 + STEM, box.y0 - STEM)))
    if only is not None and only.supply:
        found.append((only.id, "carry", ((box.x0 + box.x1) / 2, box.y0)))
    return found


def own_handles(things: Sequence[Thing], camera: Camera, held: bool = False) -> list[tuple[str, str, Point]]:
    """The handles that a single thing states itself; with `held`, those that need no selecting."""
    if len(things) != 1 or things[0].locked or things[0].supply:
        return []
    thing = things[0]
    cramped = min(_sides(thing, camera)) < ROOMY
    shown = [h for h in thing.handles() if not (cramped and (h.roomy or held)) and (h.held or not held)]
    return [(thing.id, h.name, camera.to_view(*thing.placement.to_page(h.x, h.y))) for h in shown]


def paint_opened(painter: QPainter, things: Sequence[Thing], camera: Camera) -> None:
    """The frame of an opened group: dashes, and a word that says how to leave it."""
    if not things:
        return
    box = frame(things, camera).grown(6)
    painter.setPen(QPen(GOLD, 1.6, Qt.PenStyle.DashLine))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawRoundedRect(QRectF(box.x0, box.y0, box.width, box.height), 8, 8)
    painter.setFont(interface_font(13))
    painter.setPen(GOLD_TEXT)
    painter.drawText(QPointF(box.x0 + 8, box.y0 - 7), _("group opened · Esc closes it"))


def _sides(thing: Thing, camera: Camera) -> tuple[float, float]:
    box = thing.extent()
    scale = thing.placement.scale * camera.scale
    return (box.width * scale, box.height * scale)


def handle_at(handles: Sequence[tuple[str, str, Point]], pos: Point, reach: float = REACH) -> tuple[str, str] | None:
    """The nearest handle within reach."""
    near = [(math.dist(place, pos), id, name) for id, name, place in handles]
    best = min(near, default=None)
    return (best[1], best[2]) if best is not None and best[0] <= reach else None


def paint_selection(
    painter: QPainter, page: Page, things: Sequence[Thing], camera: Camera, at_board: bool, focus: str
) -> None:
    if not things:
        return
    painter.setBrush(Qt.BrushStyle.NoBrush)
    for thing in things:
        _outline(painter, thing, camera)
    box = frame(things, camera)
    for _id, name, place in frame_handles(things, camera, at_board):
        _frame_handle(painter, name, QPointF(*place), box)
    for _id, name, place in own_handles(things, camera):
        painter.setPen(QPen(GOLD, 3))
        painter.setBrush(GOLD if name == focus else PAPER)
        painter.drawEllipse(QPointF(*place), 9, 9)
        if name.startswith("grow"):
            _plus(painter, QPointF(*place))
    grip = grip_of(things[0], focus) if focus and len(things) == 1 else None
    if grip is not None and grip.part:  # what the keys have in hand
        painter.setPen(QPen(GOLD, 5))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(QPointF(*camera.to_view(*things[0].placement.to_page(*grip.at))), 15, 15)
    device = painter.device()
    room = Box(4, 4, device.width() - 4, device.height() - 4) if device is not None else box.grown(200)
    counted = total_place(page, things, camera, room)
    if counted is not None:
        _total(painter, *counted)


def _seen(page: Page, things: Sequence[Thing], camera: Camera) -> list[tuple[Box, float]]:
    """Where things lie, in the view: those that are counted matter most."""
    counted = {thing.id for thing in things}
    listed = [*things, *(t for t in page.things[-MOST_LOOKED_AT:] if t.id not in counted and not t.hidden)]
    return [(camera.box_to_view(view_of(t).box(t)), 3.0 if t.id in counted else 1.0) for t in listed]


def _plus(painter: QPainter, at: QPointF) -> None:
    painter.setPen(QPen(GOLD, 2.4))
    painter.drawLine(at - QPointF(4.5, 0), at + QPointF(4.5, 0))
    painter.drawLine(at - QPointF(0, 4.5), at + QPointF(0, 4.5))


def _outline(painter: QPainter, thing: Thing, camera: Camera) -> None:
    if thing.shown and isinstance(thing, Constructible) and not thing.locked:
        return  # its own sides and rings show it, and their measures stay free
    local = view_of(thing).extent(thing)
    corners = [camera.to_view(*thing.placement.to_page(*corner)) for corner in local.corners()]
    painter.setPen(QPen(GOLD, 1.5, Qt.PenStyle.DashLine if thing.locked else Qt.PenStyle.SolidLine))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawPolygon(QPolygonF([QPointF(*corner) for corner in corners]))


def _frame_handle(painter: QPainter, name: str, at: QPointF, box: Box) -> None:
    """Corners are brackets, edges short bars, turning a disc on a stem, carrying a small grip."""
    pen = QPen(GOLD, 3.5, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap)
    painter.setPen(pen)
    painter.setBrush(PAPER)
    if name in CORNERS:
        inx, iny = (13 if "l" in name[5:] else -13), (13 if "t" in name[5:] else -13)
        points = [QPointF(at.x() + inx, at.y()), at, QPointF(at.x(), at.y() + iny)]
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPolyline(QPolygonF(points))
    elif name == "size-r":
        painter.drawLine(QPointF(at.x(), at.y() - 10), QPointF(at.x(), at.y() + 10))
    elif name == "size-b":
        painter.drawLine(QPointF(at.x() - 10, at.y()), QPointF(at.x() + 10, at.y()))
    elif name == "turn":
        painter.setPen(QPen(GOLD, 1.5))
        painter.drawLine(QPointF(box.x1 + 4, box.y0 - 4), at)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(GOLD)
        painter.drawEllipse(at, 14, 14)
        icon("rotate-cw", hues.PAPER).paint(painter, round(at.x()) - 9, round(at.y()) - 9, 18, 18)
    else:
        painter.setPen(QPen(GOLD, 1.5))
        painter.setBrush(GOLD)
        painter.drawRoundedRect(QRectF(at.x() - 16, at.y() - 6, 32, 12), 6, 6)


def total_place(page: Page, things: Sequence[Thing], camera: Camera, room: Box) -> tuple[str, Box] | None:
    """What the selected things come to together, and where that is shown: beside what it counts, where least lies."""
    from larch.core.actions.arrange.arrange import total

    worth = total(things)
    if worth is None:
        return None
    text, box = number_text(worth, 3), frame(things, camera)
    wide, high = QFontMetrics(interface_font(TOTAL, bold=True)).horizontalAdvance(text) + 28, 38
    middle = box.centre[1] - high / 2
    corners = [
        (box.x1 + 12, middle), (box.x0 - 12 - wide, middle), (box.x1 + 12, box.y1 - high),
        (box.x0 - 12 - wide, box.y1 - high),
        (box.x0, box.y0 - high - 12), (box.centre[0] - wide / 2, box.y0 - high - 12), (box.x1 + 12, box.y1 + 12),
        (box.x0 - 12 - wide, box.y1 + 12), (box.x1 + 60, middle),
    ]  # fmt: skip
    place = freest([Box(x, y, x + wide, y + high) for x, y in corners], _seen(page, things, camera), room)
    return text, place if place is not None else Box(box.x1 + 12, middle, box.x1 + 12 + wide, middle + high)


def _total(painter: QPainter, text: str, at: Box) -> None:
    rect = QRectF(at.x0, at.y0, at.width, at.height)
    painter.setFont(interface_font(TOTAL, bold=True))
    painter.setPen(QPen(NEEDLE, 1.5))
    painter.setBrush(PAPER)
    painter.drawRoundedRect(rect, 6, 6)
    painter.setPen(NEEDLE)
    painter.drawText(rect, Qt.AlignmentFlag.AlignCenter, text)


def paint_snap(painter: QPainter, snap: Snap, camera: Camera) -> None:
    """A thin gold line and a word: why it fell into place there."""
    if snap.line is None:
        return
    a, b = (QPointF(*camera.to_view(*point)) for point in snap.line)
    painter.setPen(QPen(GOLD, 1.5))
    painter.drawLine(a, b)
    painter.setFont(interface_font(15, bold=True))
    wide = painter.fontMetrics().horizontalAdvance(snap.reason) + 16
    rect = QRectF(b.x() + 8, b.y() - 12, wide, 25)
    painter.setBrush(PAPER)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.drawRoundedRect(rect, 4, 4)
    painter.setPen(GOLD_TEXT)
    painter.drawText(rect, Qt.AlignmentFlag.AlignCenter, snap.reason)


def paint_marquee(painter: QPainter, box: Box, camera: Camera) -> None:
    view = camera.box_to_view(box)
    wash = QColor(GOLD)
    wash.setAlpha(24)
    painter.setPen(QPen(GOLD, 1.5, Qt.PenStyle.DashLine))
    painter.setBrush(wash)
    painter.drawRect(QRectF(view.x0, view.y0, view.width, view.height))
