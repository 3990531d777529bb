"""What ink was read as, offered beside it: the likeliest first, two others, and to stay as ink."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import NamedTuple

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QAbstractButton, QVBoxLayout, QWidget

from larch.board.canvas import Canvas
from larch.board.free_place import overlap
from larch.board.look import colour, icon, interface_font, page_font, text_colour
from larch.board.typeset.boxes import paint_setting
from larch.board.typeset.mathset import set_row
from larch.board.views import view_of
from larch.core.base.shape import Box
from larch.core.base.words import _
from larch.core.maths.layout.rows import Row
from larch.desk.cards.sign_keys import ReadSign, SignKeys
from larch.desk.style import lift
from larch.desk.theme import GOLD, HAIRLINE, PAPER

FIRST, OTHER, STAY = 92, 66, 52  # heights, pixels
WIDEST, LEAST = 420, 190
GAP = 14  # pixels from the ink
POINTER = 12


class Offer(NamedTuple):
    """One thing that it may be. words: for a screen reader, and what is shown where there is neither a row nor a picture.
    row: of mathematics; picture: places in a unit square that are joined, of a shape. take: when it is chosen."""

    words: str
    take: Callable[[], object]
    row: Row = ()
    picture: tuple[tuple[float, float], ...] = ()
    hue: str = "needle"


class _Choice(QAbstractButton):
    def __init__(self, offer: Offer, first: bool, parent: QWidget) -> None:
        super().__init__(parent)
        self.offer, self.first = offer, first
        self.setAccessibleName(offer.words)
        self.setMinimumHeight(FIRST if first else OTHER)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def sizeHint(self) -> QSize:
        em = self._em()
        if self.offer.row:
            wide = set_row(self.offer.row).width * em
        else:
            wide = len(self.offer.words) * em * 0.56 + (self.height() if self.offer.picture else 0)
        return QSize(int(min(WIDEST, max(LEAST, wide + 40))), self.minimumHeight())

    def _em(self) -> float:
        return 40.0 if self.first else 30.0

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        edge = QRectF(self.rect()).adjusted(1.5, 1.5, -1.5, -1.5)
        chosen = self.first or self.hasFocus()
        painter.setPen(QPen(QColor(GOLD) if chosen else QColor(HAIRLINE), 2.5 if chosen else 1.2))
        light = QColor(GOLD)
        light.setAlpha(30)
        painter.setBrush(light if self.first or self.isDown() else QColor(PAPER))
        painter.drawRoundedRect(edge, 7, 7)
        if self.offer.row:
            self._paint_row(painter)
        else:
            self._paint_words(painter)

    def _paint_row(self, painter: QPainter) -> None:
        made, em = set_row(self.offer.row), self._em()
        room = self.width() - 28
        em = min(em, room / max(made.width, 0.1), (self.height() - 12) / max(made.above + made.below, 0.1))
        x = (self.width() - made.width * em) / 2
        y = self.height() / 2 + (made.above - made.below) / 2 * em
        paint_setting(painter, made, QPointF(x, y), em, text_colour(self.offer.hue))

    def _paint_words(self, painter: QPainter) -> None:
        left = 16.0
        if self.offer.picture:
            side = self.height() - 34
            painter.setPen(QPen(colour(self.offer.hue), 2.5, join=Qt.PenJoinStyle.RoundJoin))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            corners = [QPointF(16 + x * side, 17 + y * side) for x, y in self.offer.picture]
            painter.drawPolyline(QPolygonF(corners))
            left += side + 16
        painter.setPen(text_colour(self.offer.hue))
        painter.setFont(page_font(self._em() * 0.8))
        metrics = painter.fontMetrics()
        room = int(self.width() - left - 10)
        words = metrics.elidedText(self.offer.words.replace("\n", " ⏎ "), Qt.TextElideMode.ElideRight, room)
        painter.drawText(QRectF(left, 0, room, self.height()), Qt.AlignmentFlag.AlignVCenter, words)


class _Stay(QAbstractButton):
    def __init__(self, parent: QWidget, words: str) -> None:
        super().__init__(parent)
        self.words = words
        self.setAccessibleName(words)
        self.setMinimumHeight(STAY)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def sizeHint(self) -> QSize:
        return QSize(LEAST, STAY)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(QColor(GOLD if self.hasFocus() else HAIRLINE), 1.2))
        painter.setBrush(QColor(PAPER))
        painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 7, 7)
        icon("pencil").paint(painter, 16, (self.height() - 22) // 2, 22, 22)
        painter.setFont(interface_font(15, True))
        painter.setPen(text_colour("needle"))
        painter.drawText(self.rect().adjusted(52, 0, 0, 0), Qt.AlignmentFlag.AlignVCenter, self.words)


class ReadingCard(QWidget):
    """Beside the ink, never on it; it follows the page as that is moved. box: what it keeps off, which is the ink (at) and
    perhaps the thing on which it was written. instead: what is likeliest stands on the page already; then none of these is
    the first, and the card keeps off where the pen writes on, beside it and below. signs: of the likeliest reading, which
    can be exchanged one by one. stay: what it is called to change nothing."""

    stayed = pyqtSignal()

    def __init__(
        self,
        canvas: Canvas,
        box: Box,
        offers: Sequence[Offer],
        instead: bool = False,
        signs: Sequence[ReadSign] = (),
        stay: str = "",
        at: Box | None = None,
    ) -> None:
        super().__init__(canvas)
        self.canvas, self.box, self.instead, self.at = canvas, box, instead, at or box
        self.shapes = any(offer.picture for offer in offers)
        self.setAttribute(Qt.WidgetAttribute.WA_NoMousePropagation)
        self.setAccessibleName(_("read as"))
        self._points = "left"
        column = QVBoxLayout(self)
        column.setContentsMargins(*([POINTER + 8] * 4))
        column.setSpacing(6)
        self.choices: list[QAbstractButton] = []
        self.signs: SignKeys | None = None
        for k, offer in enumerate(offers):
            choice = _Choice(offer, k == 0 and not instead, self)
            choice.clicked.connect(lambda _on=False, one=offer: one.take())
            column.addWidget(choice)
            self.choices.append(choice)
            if k == 0 and signs:
                column.addWidget(self._signs(signs))
        if not offers and signs:
            column.addWidget(self._signs(signs))
        staying = _Stay(self, stay or _("stay as ink"))
        staying.clicked.connect(lambda _on=False: self.stayed.emit())
        column.addWidget(staying)
        self.choices.append(staying)
        lift(self)
        canvas.viewed.connect(self.place)
        self.adjustSize()
        self.place()
        self.show()
        self.raise_()

    def _signs(self, signs: Sequence[ReadSign]) -> SignKeys:
        self.signs = SignKeys(signs, self)
        self.signs.resized.connect(self._fit)
        return self.signs

    def _fit(self) -> None:
        self.adjustSize()
        self.place()

    def _ways(self) -> tuple[tuple[str, ...], ...]:
        """To which side it points, the likeliest first; those behind only where none of the first has room.

        It lies right of the ink, else left, below or above; where the pen writes on, above or left; of a thing that was
        written on, above or below; of a shape that a pen has drawn, above, left, below or right."""
        if not self.instead:
            return (("left", "right", "up", "down"),)
        if self.shapes:
            return (("down", "right", "up", "left"),)
        return (("down", "right"), ("left", "up")) if self.at == self.box else (("down", "up"), ("right", "left"))

    def place(self) -> None:
        """Where it covers nothing of the page, else where there is room: by the order of `_ways`."""
        canvas = self.canvas
        ink, own = (canvas.camera.box_to_view(box) for box in (self.box, self.at))
        wide, high = self.width(), self.height()
        room = Box(0, 0, canvas.width(), canvas.height() - canvas.covered.below)
        beside = min(max(4.0, ink.centre[1] - high / 2), max(4.0, room.y1 - high - 4))
        along = [max(4.0, min(x, room.x1 - wide - 4)) for x in (own.x0, own.x1 - wide)]
        tops = {
            "left": [(ink.x1 + GAP, beside)],
            "right": [(ink.x0 - GAP - wide, beside)],
            "up": [(x, ink.y1 + GAP) for x in along],
            "down": [(x, ink.y0 - GAP - high) for x in along],
        }
        around = self.box.grown((max(wide, high) + GAP) / canvas.camera.scale)
        taken = [canvas.camera.box_to_view(view_of(one).box(one)) for one in canvas.things_in(around)]
        for ways in self._ways():
            pointing = {Box(x, y, x + wide, y + high): way for way in ways for x, y in tops[way]}
            fitting = [place for place in pointing if room.covers(place)]
            if fitting:
                found = next((place for place in fitting if not any(overlap(place, box) for box in taken)), fitting[0])
                self._points = pointing[found]
                break
        else:
            self._points = "down" if self.instead else "left"
            x, y = tops[self._points][0]
            found = Box(x, y, x + wide, y + high)
        self.move(int(max(4, min(found.x0, room.x1 - wide - 4))), int(max(4, min(found.y0, room.y1 - high - 4))))
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        body = QRectF(self.rect()).adjusted(POINTER, POINTER, -POINTER, -POINTER)
        painter.setPen(QPen(QColor(HAIRLINE), 1))
        painter.setBrush(QColor(PAPER))
        painter.drawRoundedRect(body, 10, 10)
        middle = self.canvas.camera.to_view(*self.at.centre)
        at = QPointF(
            min(max(body.left() + 20, middle[0] - self.x()), body.right() - 20),
            min(max(body.top() + 20, middle[1] - self.y()), body.bottom() - 20),
        )
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(GOLD))
        tips: dict[str, list[tuple[float, float]]] = {
            "left": [(0, at.y()), (POINTER, at.y() - 9), (POINTER, at.y() + 9)],
            "right": [(self.width(), at.y()), (body.right(), at.y() - 9), (body.right(), at.y() + 9)],
            "up": [(at.x(), 0), (at.x() - 9, POINTER), (at.x() + 9, POINTER)],
            "down": [(at.x(), self.height()), (at.x() - 9, body.bottom()), (at.x() + 9, body.bottom())],
        }
        painter.drawPolygon(QPolygonF([QPointF(x, y) for x, y in tips[self._points]]))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        if event.key() == Qt.Key.Key_Escape:
            self.stayed.emit()
        elif event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Up):
            at = next((k for k, one in enumerate(self.choices) if one.hasFocus()), -1)
            step = 1 if event.key() == Qt.Key.Key_Down else -1
            self.choices[(at + step) % len(self.choices)].setFocus()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            keys = [*self.choices, *(self.signs.keys + self.signs.others if self.signs is not None else [])]
            next((one for one in keys if one.hasFocus()), self.choices[0]).click()
        else:
            super().keyPressEvent(event)
