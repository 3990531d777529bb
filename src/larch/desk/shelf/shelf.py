"""The shelf: a drawer with everything that can be put out. Search first, then trays."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import QEvent, QPoint, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QContextMenuEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PyQt6.QtWidgets import (
    QAbstractButton,
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QLineEdit,
    QMenu,
    QPushButton,
    QScrollArea,
    QScroller,
    QVBoxLayout,
    QWidget,
)

from larch.board.look import icon, interface_font
from larch.board.paint import HINTS
from larch.board.timers import retire, show_within
from larch.board.views import view_of
from larch.core.actions.arrange.arrange import laid_out
from larch.core.base.shape import union
from larch.core.base.words import N_, _
from larch.core.media import picture_set
from larch.core.model.kinds import shelf_items
from larch.core.model.thing import ShelfItem
from larch.desk.fields import ENTER, Field
from larch.desk.jobs import in_background
from larch.desk.plain import Words, tip
from larch.desk.search import ranked_apart
from larch.desk.shelf import kept
from larch.desk.theme import FOCUS, HAIRLINE, NEEDLE, PAPER

OWN_TRAYS = (N_("Pictures"), N_("Kept"))
SORT = "min-height: 0; padding: 1px 9px; font-size: 14px;"
AT_ONCE = 12  # cards made before one scrolls on
CARD = (132, 96)
DRAG_START = 8


EMPTY = {
    "Kept": lambda: _(
        "Nothing is kept yet. What you keep or drag here (things, or the number of the page) is there in every lesson."
    ),
}


def shelf_licence() -> str:
    from larch.desk.drawings import licence

    return licence()


def trays(items: Sequence[ShelfItem]) -> list[str]:
    """The trays that entries name, in the order in which they come; the drawings and what is kept have theirs at the end."""
    return [*dict.fromkeys(item.tray for item in items if item.tray not in OWN_TRAYS), *OWN_TRAYS]


class Card(QAbstractButton):
    """One entry: its picture and its name. A tap puts it out, a drag carries it onto the page."""

    dragged = pyqtSignal(object, QPoint)
    dropped = pyqtSignal(object, QPoint)
    forgotten = pyqtSignal(object)

    def __init__(self, item: ShelfItem, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.item = item
        self.page = laid_out([thing.replace(shown=()) for thing in item.things()])
        self._from: QPoint | None = None
        self._dragging = False
        self.setFixedSize(*CARD)
        self.setAccessibleName(item.label)
        self.setToolTip(tip(_("tap or drag to put out: {name}").format(name=item.label)))
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHints(HINTS)
        edge = FOCUS if self.hasFocus() else NEEDLE if self.underMouse() else HAIRLINE
        painter.setPen(QPen(edge, 2 if self.hasFocus() else 1))
        painter.setBrush(PAPER)
        painter.drawRoundedRect(QRectF(1, 1, self.width() - 2, self.height() - 2), 7, 7)
        self._picture(painter, QRectF(12, 8, self.width() - 24, self.height() - 38))
        painter.setPen(NEEDLE)
        painter.setFont(interface_font(14))
        name = painter.fontMetrics().elidedText(self.item.label, Qt.TextElideMode.ElideRight, self.width() - 12)
        painter.drawText(QRectF(4, self.height() - 28, self.width() - 8, 22), Qt.AlignmentFlag.AlignCenter, name)

    def _picture(self, painter: QPainter, room: QRectF) -> None:
        things = self.page.things
        box = union(view_of(t).box(t).grown(34 if view_of(t).margin > 20 else 16 if t.supply else 1) for t in things)
        scale = min(room.width() / box.width, room.height() / box.height, 1.0)
        painter.save()
        painter.translate(room.center())
        painter.scale(scale, scale)
        painter.translate(-box.centre[0], -box.centre[1])
        for thing in things:
            view_of(thing).paint(painter, thing, self.page)
        painter.restore()

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        """What is kept can be taken off the shelf again."""
        if event is None or self.item.tray != "Kept":
            return
        menu = QMenu(self)
        forget = menu.addAction(icon("x"), _("take off the shelf"))
        if forget is not None:
            forget.triggered.connect(lambda: self.forgotten.emit(self.item))
        menu.exec(event.globalPos())
        retire(menu)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            self._from = event.globalPosition().toPoint()
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._from is None:
            return
        at = event.globalPosition().toPoint()
        if self._dragging or (at - self._from).manhattanLength() > DRAG_START:
            self._dragging = True
            self.dragged.emit(self.item, at)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._dragging:
            self.setDown(False)
            self._dragging, self._from = False, None
            self.dropped.emit(self.item, event.globalPosition().toPoint())
            return
        self._from = None
        super().mouseReleaseEvent(event)


class Sideways(QScrollArea):
    """A row that the wheel moves along."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWidgetResizable(True)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setStyleSheet("QScrollArea, QScrollArea > QWidget > QWidget { background: transparent; }")
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        bar = self.horizontalScrollBar()
        if event is None or bar is None:
            return
        turn = event.pixelDelta() if not event.pixelDelta().isNull() else event.angleDelta()
        bar.setValue(bar.value() - (turn.y() if abs(turn.y()) > abs(turn.x()) else turn.x()))
        event.accept()


class Shelf(QFrame):
    """Signals carry the ShelfItem: tapped, or dragged to and dropped at a global position; pressed: the name of a command;
    own_wanted: pictures from files."""

    tapped = pyqtSignal(object)
    dragged = pyqtSignal(object, QPoint)
    dropped = pyqtSignal(object, QPoint)
    closed = pyqtSignal()
    own_wanted = pyqtSignal()
    pressed = pyqtSignal(str)

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setObjectName("drawer")
        self.setAccessibleName(_("Shelf"))
        self.items: list[ShelfItem] = []
        self.search = Field(self)
        self.search.setPlaceholderText(_("Search the shelf"))
        self.search.setAccessibleName(_("Search the shelf"))
        self.search.setClearButtonEnabled(True)
        self.search.addAction(icon("search"), QLineEdit.ActionPosition.LeadingPosition)
        self.search.setMinimumWidth(140)
        self.search.setMaximumWidth(232)
        self.search.textChanged.connect(self._fill)
        self.search.returnPressed.connect(self._tap_first)
        self._top = QHBoxLayout()
        self._top.setSpacing(2)
        self._top.addWidget(self.search, 1)
        self._top.addSpacing(12)
        self._names = Sideways(self)  # of the trays; where the window is narrow it is moved along, never squeezed
        self._names.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._names.setFixedHeight(48)
        QScroller.grabGesture(self._names.viewport(), QScroller.ScrollerGestureType.TouchGesture)
        self._row = QHBoxLayout(inside := QWidget())
        self._row.setContentsMargins(0, 0, 0, 0)
        self._row.setSpacing(2)
        self._names.setWidget(inside)
        self._top.addWidget(self._names, 5)
        self._area = Sideways(self)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 10, 16, 4)
        layout.setSpacing(6)
        layout.addLayout(self._top)
        layout.addWidget(self._area)
        self._waiting: list[ShelfItem] = []
        bar = self._area.horizontalScrollBar()
        assert bar is not None
        bar.valueChanged.connect(self._scrolled)
        self.sort = picture_set.TRAYS[0]
        self.tray = ""
        self.trays: dict[str, QPushButton] = {}
        self.cards: list[Card] = []
        self.hide()

    def open(self) -> None:
        """Opens the drawer; the first time it looks what there is."""
        if not self.items:
            self.items = shelf_items()
            for name in trays(self.items):
                self._add_tray(name)
            self._row.addStretch(1)
            self.choose(next(iter(self.trays)))
            in_background(self, lambda _job: kept.items(), lambda _items: None)  # read once, before they are asked for
        self.show()
        self.raise_()

    def _add_tray(self, name: str) -> None:
        button = QPushButton(_(name), self)
        button.setObjectName("tray")
        button.setCheckable(True)
        button.setMinimumHeight(44)
        button.clicked.connect(lambda: self.choose(name))
        self.trays[name] = button
        self._row.addWidget(button)

    def choose(self, tray: str) -> None:
        """Opens a tray."""
        self.tray = tray
        self.search.blockSignals(True)
        self.search.clear()
        self.search.blockSignals(False)
        self._fill("")

    def _fill(self, query: str) -> None:
        for name, button in self.trays.items():
            button.setChecked(name == self.tray and not query.strip())
            if button.isChecked():
                self._names.ensureWidgetVisible(button)
        found = self._found(query.strip())
        row = QWidget()
        layout = QHBoxLayout(row)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(8)
        self.cards = []
        if not query.strip() and self.tray == "Pictures":
            layout.addWidget(self._sorts(row))
        if not query.strip() and self.tray == "Kept":
            layout.addWidget(self._keepers(row))
        self._row = layout
        self._waiting = found
        self._add_cards()
        if not found:
            words = _("Nothing on the shelf is called “{query}”.").format(query=query.strip()[:40])
            layout.addWidget(Words(words if query.strip() else EMPTY.get(self.tray, lambda: "")()))
        layout.addStretch(1)
        show_within(self._area, row)
        self._scrolled()

    def _found(self, query: str) -> list[ShelfItem]:
        from larch.desk import drawings as shelf_pictures

        if query:
            own = [*self.items, *kept.items()]
            fitting, near = ranked_apart(query, own, lambda item: (item.label, f"{item.words} {_(item.tray)} {item.name}"))
            return [*fitting, *shelf_pictures.found(query), *near]
        if self.tray == "Pictures":
            return shelf_pictures.sort_items(self.sort)
        if self.tray == "Kept":
            return kept.items()
        return [item for item in self.items if item.tray == self.tray]

    def _add_cards(self) -> None:
        """Some more of the cards; the rest when one scrolls towards them."""
        for item in self._waiting[:AT_ONCE]:
            card = Card(item)
            card.clicked.connect(lambda _on=False, item=item: self.tapped.emit(item))
            card.dragged.connect(self.dragged)
            card.dropped.connect(self.dropped)
            card.forgotten.connect(self._forget)
            self._row.insertWidget(self._row.count() - (1 if self.cards and self._stretched() else 0), card)
            self.cards.append(card)
        self._waiting = self._waiting[AT_ONCE:]

    def _forget(self, item: ShelfItem) -> None:
        kept.forget(item.label)
        self.refresh()

    def _stretched(self) -> bool:
        last = self._row.itemAt(self._row.count() - 1)
        return last is not None and last.widget() is None

    def _scrolled(self) -> None:
        bar = self._area.horizontalScrollBar()
        if self._waiting and bar is not None and bar.value() > bar.maximum() - 3 * CARD[0]:
            self._add_cards()

    def _sorts(self, parent: QWidget) -> QWidget:
        """The sorts of drawings, and the way to one's own pictures."""
        block = QWidget(parent)
        grid = QGridLayout(block)
        grid.setContentsMargins(0, 0, 4, 0)
        grid.setSpacing(0)
        for k, sort in enumerate(picture_set.TRAYS):
            button = QPushButton(_(sort), block)
            button.setObjectName("tray")
            button.setCheckable(True)
            button.setChecked(sort == self.sort)
            button.setStyleSheet(SORT)
            button.setFixedHeight(30)
            button.clicked.connect(lambda _on=False, sort=sort: self._choose_sort(sort))
            grid.addWidget(button, k % 3, k // 3)
        own = QPushButton(icon("image-plus"), _("own…"), block)
        own.setObjectName("tray")
        own.setStyleSheet(SORT)
        own.setFixedHeight(30)
        own.setAccessibleName(_("pictures from files"))
        own.clicked.connect(self.own_wanted)
        grid.addWidget(own, 2, 2)
        block.setToolTip(shelf_licence())
        return block

    def _keepers(self, parent: QWidget) -> QWidget:
        """The ways to keep something."""
        block = QWidget(parent)
        column = QVBoxLayout(block)
        column.setContentsMargins(0, 6, 8, 6)
        for name, label in (("keep", _("keep the selection…")), ("keep page", _("keep this page…"))):
            button = QPushButton(icon("bookmark-plus"), label, block)
            button.setMinimumHeight(40)
            button.clicked.connect(lambda _on=False, name=name: self.pressed.emit(name))
            column.addWidget(button)
        return block

    def _choose_sort(self, sort: str) -> None:
        self.sort = sort
        self._fill("")

    def _tap_first(self) -> None:
        """Enter in the search puts out what was found first."""
        if self.cards:
            self.tapped.emit(self.cards[0].item)

    def refresh(self) -> None:
        """Shows anew what may have changed: the tray of kept things."""
        if self.isVisible():
            self._fill(self.search.text())

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() == Qt.Key.Key_Escape:
            self.closed.emit()
            return
        held = self.focusWidget()
        if event is not None and event.key() in ENTER and isinstance(held, QAbstractButton):
            held.click()
            return
        super().keyPressEvent(event)

    def event(self, event: QEvent | None) -> bool:
        """A press beside the cards stays with the drawer and does not reach the page below."""
        if event is not None and event.type() in (QEvent.Type.MouseButtonPress, QEvent.Type.MouseButtonRelease):
            event.accept()
            return True
        return super().event(event)
