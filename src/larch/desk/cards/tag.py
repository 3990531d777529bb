"""The tag that hangs on a selection: its few likeliest actions, then more."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QHBoxLayout, QMenu, QWidget

from larch.board import chrome
from larch.board.canvas import Canvas
from larch.board.look import GOLD, HAIRLINE, PAPER, icon
from larch.board.views import view_of
from larch.core.base.shape import union
from larch.core.base.words import _
from larch.core.model.action import Action, actions_for
from larch.desk.action_menu import add_actions
from larch.desk.style import lift
from larch.desk.toolbar.buttons import icon_button

FEW = 6
PIN = 16  # height of the thread it hangs on
GAP = 6


class Tag(QWidget):
    """Follows the canvas's selection. `facts_wanted` asks for the facts card."""

    facts_wanted = pyqtSignal()

    def __init__(self, canvas: Canvas) -> None:
        super().__init__(canvas)
        self.canvas = canvas
        self.setAccessibleName(_("actions for the selection"))
        self._row = QHBoxLayout(self)
        self._row.setSpacing(2)
        self._above = False
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
                old.deleteLater()
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
            more.clicked.connect(lambda: self.menu().exec(more.mapToGlobal(QPoint(0, more.height()))))
            self._row.addWidget(more)
            more.show()
        self.adjustSize()

    def menu(self) -> QMenu:
        """All actions of the selection."""
        page, things = self.canvas.page, self.canvas.things()
        menu = QMenu(self)
        offered = actions_for(page, things)
        add_actions(menu, self.canvas, [a for a in offered if a.board or not self.canvas.at_board])
        menu.addSeparator()
        facts = menu.addAction(icon("info"), _("facts"))
        if facts is not None:
            facts.triggered.connect(lambda: self.facts_wanted.emit())
        return menu

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
        width, height = self.sizeHint().width(), self.sizeHint().height()
        if box.x1 < 0 or box.x0 > self.canvas.width() or box.y1 < 0 or box.y0 > self.canvas.height():
            self.hide()
            return
        bottom = self.canvas.height() - self.canvas.covered_below
        self._above = box.y1 + GAP + height > bottom and box.y0 - height - GAP > 0
        self._row.setContentsMargins(*((8, 4, 8, PIN + 4) if self._above else (8, PIN + 4, 8, 4)))
        width, height = self.sizeHint().width(), self.sizeHint().height()
        y = box.y0 - height - GAP if self._above else min(box.y1 + GAP, bottom - height - 4)
        x = box.centre[0] - width / 2
        if self._above:  # leaves the ring that turns the selection free
            x = min(x, box.x1 + chrome.STEM - 20 - width)
        x = max(4, min(x, self.canvas.width() - width - 4))
        self.setGeometry(int(x), int(y), width, height)
        self._pin = max(20.0, min(box.centre[0] - x, width - 20.0))
        self.update()
        self.show()
        self.raise_()

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
        painter.setPen(QPen(GOLD, 2))
        painter.drawLine(QPointF(middle, knot), QPointF(middle, foot))
        painter.setBrush(GOLD)
        painter.drawEllipse(QPointF(middle, knot), 2.5, 2.5)
