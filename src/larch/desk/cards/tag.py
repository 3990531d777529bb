"""The tag that hangs on a selection: its few likeliest actions, then more."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPoint, QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QAbstractButton, QHBoxLayout, QMenu, QWidget

from larch.board import chrome
from larch.board.canvas import Canvas
from larch.board.free_place import freest
from larch.board.timers import retire
from larch.board.views import view_of
from larch.core.base.shape import Box, union
from larch.core.base.words import _
from larch.core.model.action import Action, actions_for
from larch.desk.action_menu import selection_menu
from larch.desk.fields import ENTER
from larch.desk.style import lift
from larch.desk.theme import GOLD, HAIRLINE, PAPER
from larch.desk.toolbar.buttons import icon_button

FEW = 6
PIN = 16  # height of the thread it hangs on
SWEEP = 24  # places tried along a row, where no likely one is free
GAP = 6


class Tag(QWidget):
    """Follows the canvas's selection. `facts_wanted` asks for the facts card."""

    facts_wanted = pyqtSignal()

    def __init__(self, canvas: Canvas) -> None:
        super().__init__(canvas)
        self.canvas = canvas
        self.setAccessibleName(_("actions for the selection"))
        self.setAttribute(Qt.WidgetAttribute.WA_NoMousePropagation)
        self._row = QHBoxLayout(self)
        self._row.setSpacing(2)
        self._above = False
        self._hangs = True  # whether it is right above or below the selection
        self._pin = 0.0  # where its thread hangs: under the middle of the selection
        self._made: tuple[object, ...] = ()
        self.actions_now: list[Action] = []
        lift(self)
        self.hide()
        canvas.selection_changed.connect(self.refresh)
        canvas.committed.connect(self.refresh)
        canvas.viewed.connect(self.place)
        canvas.dragging_changed.connect(lambda _on: self.place())

    def refresh(self) -> None:
        """Builds the strip anew if other actions fit now."""
        things = self.canvas.things()
        page = self.canvas.page
        self.actions_now = actions_for(page, things) if things else []
        if self.canvas.at_board:
            self.actions_now = [action for action in self.actions_now if action.board]
        if not self.actions_now:
            self._made = ()
            self.hide()
            return
        shown = tuple((a.name, a.label(page, things)) for a in self.actions_now[:FEW])
        if shown != self._made:
            self._made = shown
            self._build()
        self.place()

    def _build(self) -> None:
        page, things = self.canvas.page, self.canvas.things()
        while self._row.count():
            item = self._row.takeAt(0)
            old = item.widget() if item is not None else None
            if old is not None:
                retire(old)
        size = 56 if self.canvas.at_board else 44
        for action in self.actions_now[:FEW]:
            label = action.label(page, things)
            name = "lock-open" if action.name == "lock" and all(thing.locked for thing in things) else action.icon
            button = icon_button(name, label, self, size)
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.clicked.connect(lambda _on=False, action=action: self.canvas.do(action))
            if action.rank < 50:  # the kind's own actions carry their words
                button.setText(label)
                button.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextBesideIcon)
                button.setMinimumWidth(0)
                button.setMaximumWidth(260)
                button.setFixedWidth(30 + 8 + button.fontMetrics().horizontalAdvance(label) + 10)
            self._row.addWidget(button)
            button.show()  # a child that comes while the strip is seen counts for its size only when shown
        if not self.canvas.at_board:
            more = icon_button("ellipsis", _("more"), self, size)
            more.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            more.clicked.connect(lambda: self.open_menu())
            self._row.addWidget(more)
            more.show()
        self.adjustSize()

    def menu(self) -> QMenu:
        """All actions of the selection."""
        return selection_menu(self, self.canvas, self.facts_wanted.emit)

    def open_menu(self, at: QPoint | None = None) -> None:
        """Opens the menu beside the selection, or at a place of the screen; neither thing nor top bar are covered."""
        menu, window = self.menu(), self.canvas
        size = menu.sizeHint()
        corner = window.mapToGlobal(QPoint(0, 0))
        room = Box(corner.x(), corner.y(), corner.x() + window.width(), corner.y() + window.height())
        frame = chrome.frame(self.canvas.things(), self.canvas.camera).moved(corner.x(), corner.y())
        x, y = (at.x(), at.y()) if at is not None else (frame.x1 + GAP, frame.y0)
        tops = [max(room.y0, min(top, room.y1 - size.height())) for top in (y, frame.y0, frame.y1 - size.height())]
        lefts = [x, x - size.width(), frame.x1 + GAP, frame.x0 - GAP - size.width(), room.x0, room.x1 - size.width()]
        places = [Box(left, top, left + size.width(), top + size.height()) for left in lefts for top in tops]
        found = freest(places, [(frame, 1.0)], room)
        menu.exec(QPoint(int(found.x0), int(found.y0)) if found is not None else QPoint(int(x), int(y)))
        retire(menu)

    def place(self) -> None:
        """Hangs below the selection, or stands above it where there is no room."""
        things = self.canvas.things()
        busy = self.canvas.pointers.busy or self.canvas.tool_writes() or self.canvas.editing
        if not self._made or not things or busy:
            self.hide()
            return
        frame = chrome.frame(things, self.canvas.camera)
        hang = union(view_of(thing).hang(thing) for thing in things)
        below = self.canvas.camera.box_to_view(hang)
        box = frame._replace(y0=min(frame.y0, below.y0), y1=max(frame.y1, below.y1))
        free = self.canvas.free().grown(-4)
        if box.x1 < free.x0 or box.x0 > free.x1 or box.y1 < free.y0 or box.y0 > free.y1:
            self.hide()
            return
        width, height = self.sizeHint().width(), self.sizeHint().height()
        place = freest(self._places(box, width, height, free), self._taken(frame, box, set(self.canvas.selection)), free)
        if place is None:
            x, y = max(free.x0, min(box.centre[0] - width / 2, free.x1 - width)), free.y1 - height
        else:
            x, y = place.x0, place.y0
        self._above = y + height / 2 < box.centre[1]
        self._row.setContentsMargins(*((8, 4, 8, PIN + 4) if self._above else (8, PIN + 4, 8, 4)))
        self.setGeometry(int(x), int(y), width, height)
        self._pin = max(20.0, min(box.centre[0] - x, width - 20.0))
        self._hangs = -GAP < y - box.y1 < 3 * GAP or -GAP < box.y0 - y - height < 3 * GAP
        self.update()
        self.show()
        self.raise_()

    def _places(self, box: Box, width: float, height: float, free: Box) -> list[Box]:
        """Below the selection, above it, then beside it and further off: the likeliest first."""

        def along(y: float) -> list[Box]:
            middle = box.centre[0] - width / 2
            starts = (
                middle,
                box.x0,
                box.x1 - width,
                middle - width / 3,
                middle + width / 3,
                box.x0 - width / 2,
                box.x1 - width / 2,
            )
            inside = [max(free.x0, min(x, free.x1 - width)) for x in starts]
            return [Box(x, y, x + width, y + height) for x in inside]

        under, over = box.y1 + GAP, box.y0 - height - GAP
        found = [*along(under)[:3], *along(over)[:3], *along(under)[3:], *along(over)[3:]]
        for y in (box.centre[1] - height / 2, box.y0, box.y1 - height):
            y = max(free.y0, min(y, free.y1 - height))
            found += [Box(x, y, x + width, y + height) for x in (box.x1 + GAP, box.x0 - width - GAP)]
        rows = (under, over, under + height, over - height, free.y1 - height, free.y0)
        for y in rows[2:]:
            found += along(y)
        spare = max(0.0, free.width - width)
        far = [Box(x, y, x + width, y + height)
               for y in rows for x in (free.x0 + spare * k / SWEEP for k in range(SWEEP + 1))]  # fmt: skip
        (x0, y0), (cx, cy) = (width / 2, height / 2), box.centre
        return found + sorted(far, key=lambda place: math.hypot(place.x0 + x0 - cx, place.y0 + y0 - cy))

    def _taken(self, frame: Box, box: Box, chosen: set[str]) -> list[tuple[Box, float]]:
        """What should stay seen: the selection with its handles above all, then the things round it."""
        canvas = self.canvas
        ring = next((at for _id, name, at in chrome.frame_handles(canvas.things(), canvas.camera, canvas.at_board)
                     if name == "turn"), None)  # fmt: skip
        taken = [(box, 6.0)]
        if ring is not None:
            taken.append((Box(*ring, *ring).grown(chrome.REACH), 6.0))
        boxes = canvas.surface.index.boxes
        room = Box(4, 4, canvas.width() - 4, canvas.height() - 4)
        counted = chrome.total_place(canvas.page, canvas.things(), canvas.camera, room)
        if counted is not None:
            taken.append((counted[1], 6.0))
        near = canvas.things_in(canvas.seen())
        return taken + [(canvas.camera.box_to_view(boxes[t.id]), 1.0) for t in near if t.id not in chosen and t.id in boxes]

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Esc gives the keys back to the page; the arrows go along the strip."""
        if event is None:
            return
        if event.key() == Qt.Key.Key_Escape:
            self.canvas.setFocus()
        elif event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            self.focusNextPrevChild(event.key() == Qt.Key.Key_Right)
        elif event.key() in ENTER and isinstance(held := self.focusWidget(), QAbstractButton):
            held.click()
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        top = 0 if self._above else PIN
        body = QRectF(1, top, self.width() - 2, self.height() - PIN - 1)
        painter.setPen(QPen(HAIRLINE, 1))
        painter.setBrush(PAPER)
        painter.drawRoundedRect(body, 8, 8)
        middle = self._pin
        knot, foot = (self.height() - 4, self.height() - PIN) if self._above else (4, PIN)
        if not self._hangs:
            return
        painter.setPen(QPen(GOLD, 2))
        painter.drawLine(QPointF(middle, knot), QPointF(middle, foot))
        painter.setBrush(GOLD)
        painter.drawEllipse(QPointF(middle, knot), 2.5, 2.5)
