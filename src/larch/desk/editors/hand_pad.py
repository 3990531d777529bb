"""A place to write by hand while mathematics is entered: what is written is read after a pause and put at the caret."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial
from typing import Any

from PyQt6.QtCore import QPointF, QRect, QRectF, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF, QResizeEvent
from PyQt6.QtWidgets import QAbstractButton, QWidget

from larch.board.look import GOLD, HAIRLINE, NEEDLE, PAPER, SOFT, interface_font
from larch.board.timers import retire
from larch.board.typeset.boxes import paint_setting
from larch.board.typeset.mathset import set_row
from larch.core.base.shape import box_of
from larch.core.base.words import _
from larch.core.maths.layout.reading import look
from larch.core.maths.layout.rows import Row, Sign
from larch.core.recognise.strike import strikes_out, struck
from larch.desk.editors.key_sets import Key
from larch.desk.jobs import Job
from larch.services.settings import Settings
from larch.services.worker import worker

CALL = "larch.core.recognise.maths.answers:maths_answer"
SECONDS = 12.0
OTHERS = 3  # readings that can be taken instead
OTHER = (110, 56)  # size of one, pixels
INK = 4.5  # width of the pen, pixels
SHORTEST = 600  # ms that it waits at least


class _Other(QAbstractButton):
    """Another reading of what was written last."""

    def __init__(self, row: Row, source: str, parent: QWidget) -> None:
        super().__init__(parent)
        self.row = row
        self.setAccessibleName(_("read as {reading}").format(reading=source))
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(GOLD if self.isDown() else SOFT, 1.2))
        painter.setBrush(PAPER)
        painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 6, 6)
        made = set_row(self.row)
        em = min(28.0, (self.width() - 14) / max(made.width, 0.1), (self.height() - 10) / max(made.above + made.below, 0.1))
        at = QPointF((self.width() - made.width * em) / 2, self.height() / 2 + (made.above - made.below) / 2 * em)
        paint_setting(painter, made, at, em, NEEDLE)


class HandPad(QWidget):
    """pressed: keys, as the tray has them: what was read, and for another reading first "take back". offers: others can be
    taken instead."""

    pressed = pyqtSignal(object)

    def __init__(self, parent: QWidget, offers: bool = True) -> None:
        super().__init__(parent)
        self.offers = offers
        self.setAccessibleName(_("write here by hand"))
        self.setCursor(Qt.CursorShape.CrossCursor)
        self.setAttribute(Qt.WidgetAttribute.WA_NoMousePropagation)
        self.strokes: list[list[tuple[float, float]]] = []
        self.others: list[_Other] = []
        self.waiting = False
        self.unread = False  # what stands there was not made out
        self._asked = 0
        self._writing = False
        self._pause = QTimer(self)
        self._pause.setSingleShot(True)
        self._pause.timeout.connect(self._read)

    # Writing

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        self._pause.stop()
        self._asked += 1  # what is being read is not all of it
        self._writing, self.unread = True, False
        self._offer([])
        self.strokes.append([(event.position().x(), event.position().y())])
        self.update()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._writing:
            self.strokes[-1].append((event.position().x(), event.position().y()))
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if not self._writing:
            return
        self._writing = False
        self._strike()
        settings = getattr(self.window(), "settings", None) or Settings()
        if self.strokes:
            self._pause.start(max(SHORTEST, settings.pause))

    def _strike(self) -> None:
        """A stroke to and fro takes away what it covers, or, over nothing, what stands before the caret."""
        *before, last = self.strokes
        if not strikes_out(last):
            return
        gone = struck(last, [box_of(stroke) for stroke in before])
        if gone or not before:
            self.strokes = [stroke for k, stroke in enumerate(before) if k not in gone]
            if not before:
                self.pressed.emit(Key((), "rub out", does="rub out"))
            self.update()

    # Reading

    def _read(self) -> None:
        if self._writing or not self.strokes:
            return
        self._asked += 1
        number, strokes = self._asked, [list(stroke) for stroke in self.strokes]
        settings = getattr(self.window(), "settings", None) or Settings()
        leaning = settings.hand.leaning()

        def asked(job: Job) -> Any:
            return worker().ask(CALL, strokes, (), leaning, seconds=SECONDS).wait()

        job = Job(asked)
        job.answered = True
        job.finished.connect(partial(self._came, number))
        job.failed.connect(lambda _error: self._came(number, {}))
        self.waiting = True
        job.start()

    def _came(self, number: int, answer: dict[str, Any]) -> None:
        if number != self._asked:
            return  # the hand went on
        self.waiting = False
        sources = [source for source in (answer.get("latex", ""), *answer.get("alternatives", ())) if source]
        self.unread = not sources
        if sources:
            self.strokes = []
            self.pressed.emit(key_of(look(sources[0])))
        self._offer([(look(source), source) for source in sources[1 : OTHERS + 1]] if self.offers else [])
        self.update()

    def _offer(self, readings: Sequence[tuple[Row, str]]) -> None:
        for old in self.others:
            retire(old)
        self.others = []
        for row, source in readings:
            other = _Other(row, source, self)
            other.clicked.connect(partial(self._instead, row))
            other.show()
            self.others.append(other)
        self._place()

    def _instead(self, row: Row) -> None:
        self._offer([])
        self.pressed.emit(Key((), "take back", does="take back"))
        self.pressed.emit(key_of(row))

    # Looks

    def _place(self) -> None:
        for k, other in enumerate(self.others):
            other.setGeometry(QRect(self.width() - OTHER[0] - 8, 8 + k * (OTHER[1] + 6), *OTHER))

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self._place()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(SOFT, 1.2))
        painter.setBrush(PAPER)
        painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 6, 6)
        base = 0.7 * self.height()
        painter.setPen(QPen(HAIRLINE, 1.5))
        painter.drawLine(QPointF(16, base), QPointF(self.width() - 16, base))
        if self.unread or (not self.strokes and not self.others):
            painter.setPen(SOFT)
            painter.setFont(interface_font(16))
            words = _("Write here: it is put at the caret. To and fro rubs out.")
            words = _("This was not made out: go on writing, or strike it out to and fro.") if self.unread else words
            painter.drawText(
                self.rect().adjusted(20, 12, -20, 0), Qt.AlignmentFlag.AlignTop | Qt.TextFlag.TextWordWrap, words
            )
        pen = QPen(NEEDLE, INK, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap, Qt.PenJoinStyle.RoundJoin)
        painter.setPen(pen)
        for stroke in self.strokes:
            points = [QPointF(x, y) for x, y in stroke]
            painter.drawPolyline(QPolygonF(points if len(points) > 1 else [points[0], points[0] + QPointF(0.1, 0.1)]))


def key_of(row: Row) -> Key:
    """A key that puts it; plain signs also as what is typed, for fields that take those alone."""
    plain = "".join(item.text for item in row if isinstance(item, Sign))
    return Key(row, "by hand", types=plain if all(isinstance(item, Sign) for item in row) else "", puts=row)
