"""Everything on the page as a list, the topmost first: what it looks like, what it is called, whether it is locked or
hidden. Dragging a row changes the order in depth."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, QRect, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QDropEvent, QPainter, QPixmap
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QVBoxLayout,
    QWidget,
)

from larch.board.canvas import Canvas
from larch.board.look import GOLD, PAPER
from larch.board.paint import can_paint, painting
from larch.board.views import view_of
from larch.core.actions.arrange.arrange import to_depth
from larch.core.actions.arrange.holds import said
from larch.core.base.folding import folded
from larch.core.base.words import _, many
from larch.core.model.action import toggle
from larch.core.model.edit import Edit
from larch.core.model.page import Page, with_groups
from larch.core.model.thing import Thing
from larch.desk.cards.docked import Docked
from larch.desk.context import Context
from larch.desk.fields import Field
from larch.desk.plain import Words, tip
from larch.desk.toolbar.buttons import icon_button

WIDTH = 340
SIDE = 44  # of a row's picture
STEP = 14  # by which the members of a group stand in
MOST = 1000  # rows; the topmost ones


class Rows(QListWidget):
    """reordered: the row that was dragged and the row it now stands at."""

    reordered = pyqtSignal(int, int)

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setDragDropMode(QAbstractItemView.DragDropMode.InternalMove)
        self.setDefaultDropAction(Qt.DropAction.MoveAction)
        self.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setIconSize(QSize(SIDE, SIDE))
        self.setStyleSheet(
            "QListWidget { border: none; background: transparent; font-size: 15px; }"
            "QListWidget::item { border-radius: 6px; }"
            "QListWidget::item:selected { background: #F1E4C8; color: #17332E; }"
        )

    def dropEvent(self, event: QDropEvent | None) -> None:
        """The order of the page decides; the list is filled anew from it."""
        if event is None:
            return
        start = self.currentRow()
        at = event.position().toPoint()
        target = self.indexAt(at).row()
        if target < 0:
            target = self.count()
        elif at.y() > self.visualItemRect(self.item(target)).center().y():
            target += 1
        event.setDropAction(Qt.DropAction.IgnoreAction)
        event.accept()
        if start >= 0 and target not in (start, start + 1):
            self.reordered.emit(start, target)


class LayersCard(Docked):
    """At the left edge of the page."""

    wide = WIDTH

    def __init__(self, canvas: Canvas) -> None:
        super().__init__(canvas)
        self.setAccessibleName(_("everything on the page, the topmost first"))
        self._filling = False
        self._shown: tuple[Thing, ...] = ()
        self._things: list[Thing] = []
        self.ids: list[str] = []
        self.title = Words(_("Layers"), self)
        self.title.setStyleSheet("font-size: 18px; font-weight: 600;")
        close = icon_button("x", _("close the layers"), self)
        close.clicked.connect(self.hide)
        head = QHBoxLayout()
        head.addWidget(self.title, 1)
        head.addWidget(close)
        self.search = Field(self)
        self.search.setPlaceholderText(_("Find on this page"))
        self.search.setAccessibleName(_("find on this page"))
        self.search.setClearButtonEnabled(True)
        self.search.textChanged.connect(lambda _text: self._fill())
        self.list = Rows(self)
        self.list.setAccessibleName(_("layers"))
        self.list.itemSelectionChanged.connect(self._chosen)
        self.list.reordered.connect(self._reordered)
        bar = self.list.verticalScrollBar()
        assert bar is not None
        bar.valueChanged.connect(self._make_rows)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(12, 8, 8, 8)
        layout.setSpacing(4)
        layout.addLayout(head)
        layout.addWidget(self.search)
        layout.addWidget(self.list, 1)
        canvas.committed.connect(self.refresh)
        canvas.selection_changed.connect(self._select_rows)
        canvas.viewed.connect(self.refresh)
        self.hide()

    def shut(self) -> None:
        self.hide()
        self.canvas.setFocus()

    def open(self) -> None:
        self._shown = ()
        self.show()
        self.raise_()
        self.refresh()
        self.list.setFocus()

    def refresh(self) -> None:
        """Shows the page as it is now; nothing is done if it is the same."""
        if not self.isVisible():
            return
        self.raise_()
        self.dock()
        if self.canvas.page.things is not self._shown:
            self._fill()
        else:
            self._make_rows()

    def _fill(self) -> None:
        page = self.canvas.page
        self._shown = page.things
        wanted = folded(self.search.text().strip())
        things = [t for t in reversed(page.things) if not wanted or wanted in folded(f"{t.label(page)} {t.title()}")][:MOST]
        self.title.setText(many("Layers: 1 thing", "Layers: {n} things", len(page.things)))
        self._filling = True
        self.list.clear()
        self.ids = [thing.id for thing in things]
        for thing in things:
            item = QListWidgetItem()
            item.setSizeHint(QSize(WIDTH - 40, SIDE + 8))
            item.setData(Qt.ItemDataRole.AccessibleTextRole, self._words(page, thing))
            self.list.addItem(item)
        self._things = things
        self._filling = False
        self._select_rows()
        self._make_rows()

    def _make_rows(self) -> None:
        """Makes the rows that are seen; the others when one scrolls to them."""
        seen = self.list.viewport()
        if seen is None or not self.isVisible():
            return
        for number, thing in enumerate(self._things):
            item = self.list.item(number)
            if item is None:
                return
            box = self.list.visualItemRect(item)
            if box.top() > seen.height():
                return
            now = self.canvas.page.thing(thing.id)  # None: it has just been taken away, and `refresh` is about to come
            if now is not None and box.bottom() >= 0 and self.list.itemWidget(item) is None:
                self.list.setItemWidget(item, Row(self, self.canvas.page, now))

    @staticmethod
    def _words(page: Page, thing: Thing) -> str:
        states = [_("in a group of {n}").format(n=size)] if (size := group_size(page, thing)) else []
        states += [_("locked")] if thing.locked else []
        states += [_("hidden")] if thing.hidden else []
        return ", ".join([thing.label(page), *states])

    def _select_rows(self) -> None:
        if not self.isVisible():
            return
        self.raise_()  # above the tag
        if self._filling:
            return
        chosen = set(self.canvas.selection)
        self._filling = True
        first = None
        for row, id in enumerate(self.ids):
            item = self.list.item(row)
            if item is not None:
                item.setSelected(id in chosen)
                first = item if id in chosen and first is None else first
        if first is not None:
            self.list.scrollToItem(first)
        self._filling = False

    def _chosen(self) -> None:
        """A row that is pressed selects its thing, also one that lies behind others."""
        if self._filling:
            return
        ids = [self.ids[self.list.row(item)] for item in self.list.selectedItems()]
        self._filling = True
        self.canvas.select(ids)
        self._filling = False

    def _reordered(self, start: int, target: int) -> None:
        page = self.canvas.page
        moved = self.ids[start]
        if target < len(self.ids):  # just above what stood there
            below = self.ids[target]
            rest = [thing.id for thing in page.things if thing.id != moved]
            depth = rest.index(below) + 1 if below != moved else page.things.index(page.some([moved])[0])
        else:
            last = next(id for id in reversed(self.ids) if id != moved)
            depth = [thing.id for thing in page.things if thing.id != moved].index(last)
        self.canvas.commit(to_depth(page, moved, depth))

    def switch(self, id: str, field: str) -> None:
        """Locks or hides a thing, or the other way round."""
        page = self.canvas.page
        words = {"locked": (_("Lock"), _("Unlock")), "hidden": (_("Hide"), _("Show"))}[field]
        self.canvas.commit(toggle(page, page.some([id]), field, *words))

    def resizeEvent(self, event: object) -> None:
        self._make_rows()

    def rename(self, id: str, name: str) -> None:
        page = self.canvas.page
        thing = page.thing(id)
        if thing is not None and name.strip() != thing.label(page):
            changed = thing.replace(name=name.strip()[:200])
            self.canvas.commit(Edit(_("Name"), page, page.with_things({id: changed})))


class Row(QWidget):
    """A picture, a name that can be typed over, an eye and a lock."""

    def __init__(self, card: LayersCard, page: Page, thing: Thing) -> None:
        super().__init__(card.list)
        self.thing, self.page = thing, page
        self._picture: QPixmap | None = None
        self.name = Field(thing.label(page), self)
        self.name.setFrame(False)
        self.name.setStyleSheet(
            "border: none; background: transparent; padding: 2px; min-height: 0;"
            + (" color: #8A948F;" if thing.hidden else "")
        )
        self.name.setCursorPosition(0)
        self.name.setAccessibleName(_("name"))
        self.name.setReadOnly(True)
        self.name.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        held = said(thing)
        self.setToolTip(tip(f"{thing.label(page)}, {held}" if held else thing.label(page)))
        eye = icon_button("eye-off" if thing.hidden else "eye", _("show") if thing.hidden else _("hide"), self, 36)
        eye.clicked.connect(lambda: card.switch(thing.id, "hidden"))
        lock = icon_button("lock" if thing.locked else "lock-open", _("unlock") if thing.locked else _("lock"), self, 36)
        lock.clicked.connect(lambda: card.switch(thing.id, "locked"))
        row = QHBoxLayout(self)
        self._group = group_size(page, thing)
        self._heads = heads_group(page, thing)
        row.setContentsMargins(SIDE + 14 + (STEP if self._group else 0), 0, 4, 0)
        row.setSpacing(0)
        row.addWidget(self.name, 1)
        if self._group and heads_group(page, thing):
            whole = icon_button("group", _("select the group of {n}").format(n=self._group), self, 36)
            whole.clicked.connect(lambda: card.canvas.select(with_groups(page, [thing.id])))
            row.addWidget(whole)
        row.addWidget(eye)
        row.addWidget(lock)
        self.name.editingFinished.connect(lambda: self._named(card))
        self._card = card

    def mouseDoubleClickEvent(self, event: object) -> None:
        """A double press lets one type another name."""
        self.name.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents, False)
        self.name.setReadOnly(False)
        self.name.setFocus()
        self.name.selectAll()

    def _named(self, card: LayersCard) -> None:
        if not self.name.isReadOnly():
            self.name.setReadOnly(True)
            card.rename(self.thing.id, self.name.text())

    def paintEvent(self, event: object) -> None:
        """The picture is made when the row is first seen."""
        if self._picture is None:
            self._picture = picture_of(self.page, self.thing)
        painter = QPainter(self)
        if self.thing.hidden:
            painter.setOpacity(0.4)
        if self._group:  # what belongs together hangs on one line
            painter.fillRect(QRect(8, 0 if not self._heads else 8, 3, self.height()), QColor(GOLD))
        painter.drawPixmap(QPoint(6 + (STEP if self._group else 0), (self.height() - SIDE) // 2), self._picture)
        painter.end()


def group_size(page: Page, thing: Thing) -> int:
    """How many belong to the outermost group of a thing; 0 if it is in none."""
    if not thing.groups:
        return 0
    return sum(thing.groups[0] in other.groups for other in page.things)


def heads_group(page: Page, thing: Thing) -> bool:
    """Whether it is the topmost of its group."""
    if not thing.groups:
        return False
    return next(other for other in reversed(page.things) if thing.groups[0] in other.groups).id == thing.id


def picture_of(page: Page, thing: Thing, side: int = SIDE) -> QPixmap:
    """A thing by itself on a small piece of paper."""
    picture = QPixmap(side * 2, side * 2)
    picture.setDevicePixelRatio(2.0)
    picture.fill(QColor(PAPER))
    if not can_paint(thing):
        return picture
    box = view_of(thing).box(thing).grown(4)
    scale = min(side / max(box.width, 1.0), side / max(box.height, 1.0), 1.6)
    with painting(picture) as painter:
        painter.setClipRect(QRectF(0, 0, side, side))
        painter.translate(side / 2, side / 2)
        painter.scale(scale, scale)
        painter.translate(-box.centre[0], -box.centre[1])
        view_of(thing).paint(painter, thing.replace(shown=(), hidden=False, supply=False), page)
    return picture


def make(context: Context) -> LayersCard:
    return LayersCard(context.canvas)
