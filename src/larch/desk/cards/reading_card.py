"""What ink was read as, offered beside it: the likeliest first, two others, and to stay as ink."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import NamedTuple

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QAbstractButton, QVBoxLayout, QWidget

from larch.board.canvas import Canvas
from larch.board.look import colour, icon, interface_font, page_font, text_colour
from larch.board.typeset.boxes import paint_setting
from larch.board.typeset.mathset import set_row
from larch.core.base.shape import Box
from larch.core.base.words import _
from larch.core.maths.layout.rows import Row
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
    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setAccessibleName(_("stay as ink"))
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
        painter.drawText(self.rect().adjusted(52, 0, 0, 0), Qt.AlignmentFlag.AlignVCenter, _("stay as ink"))


class ReadingCard(QWidget):
    """Beside the ink, never on it; it follows the page as that is moved."""

    stayed = pyqtSignal()

    def __init__(self, canvas: Canvas, box: Box, offers: Sequence[Offer]) -> None:
        super().__init__(canvas)
        self.canvas, self.box = canvas, box
        self.setAttribute(Qt.WidgetAttribute.WA_NoMousePropagation)
        self.setAccessibleName(_("read as"))
        self._points_left = True
        column = QVBoxLayout(self)
        column.setContentsMargins(POINTER + 8, 8, POINTER + 8, 8)
        column.setSpacing(6)
        self.choices: list[QAbstractButton] = []
        for k, offer in enumerate(offers):
            choice = _Choice(offer, k == 0, self)
            choice.clicked.connect(lambda _on=False, one=offer: one.take())
            column.addWidget(choice)
            self.choices.append(choice)
        stay = _Stay(self)
        stay.clicked.connect(lambda _on=False: self.stayed.emit())
        column.addWidget(stay)
        self.choices.append(stay)
        lift(self)
        canvas.viewed.connect(self.place)
        self.adjustSize()
        self.place()
        self.show()
        self.raise_()

    def place(self) -> None:
        """To the right of the ink, else to the left, else where there is most room."""
        x0, y0 = self.canvas.camera.to_view(self.box.x0, self.box.y0)
        x1, y1 = self.canvas.camera.to_view(self.box.x1, self.box.y1)
        wide, high = self.width(), self.height()
        low = self.canvas.height() - self.canvas.covered.below
        y = min(max(8, int((y0 + y1) / 2 - high / 2)), max(8, low - high - 8))
        self._points_left = x1 + GAP + wide <= self.canvas.width() or x0 - GAP - wide < 0
        x = int(x1 + GAP) if self._points_left else int(x0 - GAP - wide)
        if x + wide > self.canvas.width():  # neither side: below it, or above
            x = max(4, min(int(x0), self.canvas.width() - wide - 4))
            y = int(y1 + GAP) if y1 + GAP + high <= low else max(4, int(y0 - GAP - high))
        self.move(x, y)
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        body = QRectF(self.rect()).adjusted(POINTER, 0, -POINTER, 0)
        painter.setPen(QPen(QColor(HAIRLINE), 1))
        painter.setBrush(QColor(PAPER))
        painter.drawRoundedRect(body.adjusted(0.5, 0.5, -0.5, -0.5), 10, 10)
        middle = (self.canvas.camera.to_view(self.box.x0, (self.box.y0 + self.box.y1) / 2)[1]) - self.y()
        middle = min(max(24.0, middle), self.height() - 24.0)
        tip = 0.0 if self._points_left else float(self.width())
        root = POINTER if self._points_left else self.width() - POINTER
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(GOLD))
        painter.drawPolygon(QPolygonF([QPointF(tip, middle), QPointF(root, middle - 9), QPointF(root, middle + 9)]))

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
            next((one for one in self.choices if one.hasFocus()), self.choices[0]).click()
        else:
            super().keyPressEvent(event)
