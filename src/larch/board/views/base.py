"""What every view does."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import ClassVar, NamedTuple

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QBrush, QColor, QFontMetricsF, QPainter, QPen, QPolygonF, QTransform

from larch.board.gestures.base import Gesture, Stage
from larch.board.look import GOLD, PAPER, SOFT, STONE, page_font
from larch.board.pointer import Sample
from larch.board.ticking import at_present
from larch.core.base.shape import Box, Placement, Point
from larch.core.model.fact import Fact
from larch.core.model.guarded import BLANK, Answer, guard, hold, trouble_of
from larch.core.model.nibs import Pen as InkPen
from larch.core.model.page import Page
from larch.core.model.thing import Thing

WITHIN = QBrush(QColor(1, 2, 3))  # a background that nobody sees: by it the states within a thing's painting are known
LABEL = 22.0  # size of the letters of a measure, page units


class Slip(NamedTuple):
    """A measure to be shown. spots: where its middle may lie, the best first. bare: without paper under it. fixed: it stays
    at the first of them, whatever lies there. name: of the fact that it shows."""

    text: str
    spots: Sequence[Point]
    shade: str
    bare: bool = False
    size: float = LABEL
    fixed: bool = False
    name: str = ""


def box_at(slip: Slip, at: Point) -> Box:
    """How much room it takes at a place."""
    metrics = QFontMetricsF(page_font(slip.size, True))
    width = metrics.horizontalAdvance(slip.text) + (4.0 if slip.bare else slip.size * 0.8)
    height = slip.size * (1.2 if slip.bare else 1.55)
    return Box(at[0] - width / 2, at[1] - height / 2, at[0] + width / 2, at[1] + height / 2)


def fitting_slip(text: str, at: Point, room: float, hue: str) -> Slip | None:
    """A slip within a round of a radius: on paper where that leaves it large enough, else bare."""
    for bare, largest, least in ((False, 26.0, 20.0), (True, 26.0, 9.0)):
        whole = box_at(Slip(text, [at], hue, bare=bare, size=100.0), at)
        size = min(largest, 100.0 * 2 * room / math.hypot(whole.width, whole.height))
        if size >= least:
            return Slip(text, [at], hue, bare=bare, size=size, fixed=True)
    return None


class View:
    """Paints one kind. The painter is in page coordinates, already antialiasing.

    margin: how far badges and letters reach beyond the thing's own box, page units.
    shown_below: how far the facts that it shows reach below its box, page units.
    keeps_state: its painting puts no state of the painter aside itself, so that none has to be put back for it: there may be
    very many of its kind.
    needs_numpy: it can't paint before NumPy has been imported, which is done after the first paint.
    """

    def __init_subclass__(cls) -> None:
        """What a view gets wrong is held to the thing concerned, as with the hooks of the thing itself."""
        guard(cls, ANSWERS, of=1)
        guard(cls, PAINTED, of=2)

    kind: ClassVar[type[Thing]]
    margin: ClassVar[float] = 2.0
    shown_below: ClassVar[float] = 0.0
    keeps_state: ClassVar[bool] = False
    needs_numpy: ClassVar[bool] = False

    def waits(self, thing: Thing) -> bool:
        """Whether it can't be painted before NumPy is there."""
        return self.needs_numpy

    def awaits(self, thing: Thing) -> bool:
        """Whether it shows what is worked out elsewhere, and is painted anew when that has come."""
        return False

    def extent(self, thing: Thing) -> Box:
        """The box round it in its own coordinates."""
        return thing.extent()

    def box(self, thing: Thing) -> Box:
        """The box round it on the page, as selected and hit."""
        return thing.placement.box_on_page(self.extent(thing))

    def reach(self, thing: Thing, page: Page) -> Box:
        """All it may paint on, on the page."""
        return self.box(thing).grown(self.margin + (44.0 if thing.limit else 14.0 if thing.supply or thing.link else 0.0))

    def hang(self, thing: Thing) -> Box:
        """The box below which a tag may hang without covering what the thing shows."""
        box = self.box(thing)
        return box._replace(y1=box.y1 + self.shown_below) if self.shown_below and thing.shown else box

    def touches(self, thing: Thing, x: float, y: float, slack: float) -> bool:
        return thing.touches(x, y, slack)

    def paint(self, painter: QPainter, thing: Thing, page: Page) -> None:
        """All of it. Where its kind fails, a blank with the reason stands in its place."""
        if why := trouble_of(thing):
            paint_blank(painter, thing, why)
            return
        if not self.keeps_state:
            painter.save()
            painter.setBackground(WITHIN)
        try:
            self.paint_whole(painter, thing, page)
        except Exception as error:
            while not self.keeps_state and painter.background() == WITHIN:  # however many states its kind had put aside
                painter.restore()
            paint_blank(painter, thing, hold(thing, error))
        else:
            if not self.keeps_state:
                painter.restore()

    def paint_whole(self, painter: QPainter, thing: Thing, page: Page) -> None:
        thing = at_present(thing)
        if type(self).paint_local is not View.paint_local:  # many figures have no body of their own
            painter.save()
            painter.setTransform(transform(thing.placement), True)
            try:
                self.paint_local(painter, thing, page)
            finally:
                painter.restore()
        self.paint_upright(painter, thing, page)
        if thing.supply:
            from larch.core.actions.arrange.arrange import taken_from  # here, for most things are none

            supply_sign(painter, self.box(thing), max(0, thing.limit - taken_from(page, thing)) if thing.limit else None)
        if thing.link:
            link_sign(painter, self.box(thing))

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        """Its body, in its own coordinates."""

    def paint_upright(self, painter: QPainter, thing: Thing, page: Page) -> None:
        """What stays upright when it is turned: letters and badges, in page coordinates."""

    def gesture(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        """What a press on a part, a handle or, with "", on its body begins, where that is something of its own.

        `part` is RUB where an eraser asks.
        """
        return None

    def pen_gesture(self, stage: Stage, sample: Sample, thing: Thing, pen: InkPen) -> Gesture | None:
        """What a pen that comes down on it or beside it begins; None if it writes as ever."""
        return None

    def stated(self, thing: Thing, page: Page) -> Iterator[Fact]:
        """Facts that are worked out elsewhere, as far as they are known by now."""
        return iter(())

    def slips(self, thing: Thing, page: Page) -> Iterator[Slip]:
        """The measures shown on it, with the places that each may take."""
        return iter(())

    def kept_free(self, thing: Thing) -> Sequence[Box]:
        """Where no measures should lie."""
        return ()

    def motion(self, before: Thing, after: Thing) -> int:
        """For how many ms its change should be shown as a motion; 0 for not at all."""
        return 0

    def paint_motion(self, painter: QPainter, before: Thing, after: Thing, page: Page, t: float) -> None:
        """A moment of that motion, t from 0 to 1."""
        self.paint(painter, after, page)


def paint_blank(painter: QPainter, thing: Thing, why: str) -> None:
    """In the place of what can't be painted: a dashed sheet that says so."""
    box = thing.placement.box_on_page(BLANK)
    painter.save()
    painter.setBrush(STONE)
    painter.setPen(QPen(SOFT, 1.5, Qt.PenStyle.DashLine))
    area = QRectF(box.x0, box.y0, box.width, box.height)
    painter.drawRect(area)
    painter.setFont(page_font(18.0))
    painter.setPen(SOFT)
    painter.drawText(area.adjusted(6, 4, -6, -4), Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap, why)
    painter.restore()


def _blank(_view: View, thing: Thing, *_given: object) -> Box:
    return BLANK


def _blank_box(_view: View, thing: Thing, *_given: object) -> Box:
    return thing.placement.box_on_page(BLANK)


ANSWERS: dict[str, Answer] = {
    "extent": _blank, "box": _blank_box, "reach": _blank_box, "hang": _blank_box,
    "touches": lambda _view, thing, x, y, slack: BLANK.grown(slack).holds(x, y), "waits": lambda *_given: False,
    "awaits": lambda *_given: False, "stated": lambda *_given: (), "slips": lambda *_given: (),
    "kept_free": lambda *_given: (), "motion": lambda *_given: 0,
}  # fmt: skip
PAINTED: dict[str, Answer] = {
    "paint_motion": lambda _view, painter, before, after, page, t: paint_blank(painter, after, trouble_of(after)),
}  # fmt: skip
guard(View, ANSWERS, of=1)


def transform(placement: Placement) -> QTransform:
    made = QTransform.fromTranslate(placement.x, placement.y)
    made.rotate(-placement.turn)
    made.scale(placement.scale, placement.scale)
    return made


def link_sign(painter: QPainter, box: Box) -> None:
    """A small arrow that leaves a corner, at the upper right: a tap leads elsewhere."""
    painter.save()
    painter.translate(box.x1 + 2, box.y0 - 4)
    pen = QPen(GOLD, 2.4)
    pen.setCapStyle(Qt.PenCapStyle.RoundCap)
    painter.setPen(pen)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawLine(QPointF(0, 8), QPointF(9, -1))
    painter.drawPolyline(QPolygonF([QPointF(2, -1), QPointF(9, -1), QPointF(9, 6)]))
    painter.restore()


def supply_sign(painter: QPainter, box: Box, left: int | None = None) -> None:
    """Two sheets behind one another at the lower right corner: there is always one more; or how many there are left."""
    painter.save()
    painter.translate(box.x1 + 3, box.y1 + 1)
    painter.setPen(QPen(GOLD, 1.6))
    painter.setBrush(PAPER)
    for shift in (7, 3.5, 0):
        painter.drawRoundedRect(QRectF(shift - 2, shift - 2, 11, 11), 2.5, 2.5)
    if left is not None:
        words(painter, QPointF(34, 6), str(left), GOLD, 20.0, bold=True)
    painter.restore()


def badge(painter: QPainter, centre: Point, text: str, shade: QColor, size: float = 22.0) -> QRectF:
    """A measure on a paper slip with a hairline of its colour; returns where it was put."""
    font = page_font(size, True)
    metrics = QFontMetricsF(font)
    width, height = metrics.horizontalAdvance(text) + size * 0.8, size * 1.55
    box = QRectF(centre[0] - width / 2, centre[1] - height / 2, width, height)
    painter.setPen(QPen(shade, 1.2))
    painter.setBrush(PAPER)
    painter.drawRoundedRect(box, 5, 5)
    painter.setFont(font)
    painter.setPen(shade.darker(112))
    painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
    return box


def words(painter: QPainter, at: QPointF, text: str, shade: QColor, size: float, bold: bool = False) -> None:
    """Page text centred on a point."""
    font = page_font(size, bold)
    metrics = QFontMetricsF(font)
    painter.setFont(font)
    painter.setPen(shade)
    wide = metrics.horizontalAdvance(text)
    painter.drawText(QPointF(at.x() - wide / 2, at.y() + metrics.capHeight() / 2), text)
