"""The spread: all pages laid out as on a table, to be reordered, copied, renamed and deleted."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QModelIndex, QRect, QRectF, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QIcon, QKeyEvent, QPainter, QPen, QPixmap
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QFrame,
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)

from larch.board.look import icon, interface_font
from larch.board.paint import page_image
from larch.core.base.words import _
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.session.session import Session
from larch.desk.jobs import Job, in_background
from larch.desk.overview.page_edits import page_edit
from larch.desk.plain import Words
from larch.desk.theme import GOLD, HAIRLINE, NEEDLE, PAPER, SOFT
from larch.desk.toolbar.buttons import icon_button

THUMB = QSize(248, 140)
CELL = QSize(280, 202)


class _Delegate(QStyledItemDelegate):
    """A sheet, its number and its title; the chosen one has a gold edge."""

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex) -> None:
        assert painter is not None
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        cell = option.rect
        sheet = QRect(cell.x() + 14, cell.y() + 12, THUMB.width(), THUMB.height())
        chosen = bool(option.state & QStyle.StateFlag.State_Selected)
        painter.fillRect(sheet, PAPER)
        made = index.data(Qt.ItemDataRole.DecorationRole)
        if isinstance(made, QIcon) and not made.isNull():
            pixmap = made.pixmap(THUMB)
            painter.drawPixmap(sheet.x(), sheet.y(), pixmap)
        painter.setPen(QPen(GOLD, 3) if chosen else QPen(HAIRLINE, 1))
        painter.drawRoundedRect(QRectF(sheet).adjusted(-1, -1, 1, 1), 3, 3)
        painter.setPen(NEEDLE)
        painter.setFont(interface_font(16, bold=True))
        number = str(index.row() + 1)
        painter.drawText(sheet.x(), sheet.bottom() + 26, number)
        painter.setPen(NEEDLE if chosen else SOFT)
        painter.setFont(interface_font(15))
        room = THUMB.width() - 30
        title = painter.fontMetrics().elidedText(index.data(), Qt.TextElideMode.ElideRight, room)
        painter.drawText(sheet.x() + 28, sheet.bottom() + 26, title)
        painter.restore()

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        return CELL

    def updateEditorGeometry(self, editor: QWidget | None, option: QStyleOptionViewItem, index: QModelIndex) -> None:
        if editor is not None:
            editor.setGeometry(option.rect.x() + 14, option.rect.y() + THUMB.height() + 14, THUMB.width(), 44)


class _Pages(QListWidget):
    moved = pyqtSignal()
    pressed_key = pyqtSignal(str)

    def dropEvent(self, event: object) -> None:
        super().dropEvent(event)  # type: ignore[arg-type]
        self.moved.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        held = bool(event.modifiers() & (Qt.KeyboardModifier.AltModifier | Qt.KeyboardModifier.ControlModifier))
        names = {
            Qt.Key.Key_Delete: "delete",
            Qt.Key.Key_F2: "rename",
            Qt.Key.Key_Return: "open",
            Qt.Key.Key_Enter: "open",
        }
        if held:
            names = {Qt.Key.Key_Left: "sooner", Qt.Key.Key_Right: "later", Qt.Key.Key_D: "copy"}
        if event.key() == Qt.Key.Key_Escape:
            self.pressed_key.emit("close")
        elif event.key() in names:
            self.pressed_key.emit(names[Qt.Key(event.key())])
        else:
            super().keyPressEvent(event)


class Spread(QFrame):
    """opened: a page was chosen, by its id; closed: back to the page that was open."""

    opened = pyqtSignal(str)
    closed = pyqtSignal()

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setObjectName("spread")
        self.setAccessibleName(_("spread of all pages"))
        self.session: Session | None = None
        self._thumbs: dict[str, tuple[Page, QIcon]] = {}
        self._job: Job | None = None
        self.list = _Pages(self)
        self.list.setAccessibleName(_("pages"))
        self.list.setViewMode(QListWidget.ViewMode.IconMode)
        self.list.setMovement(QListWidget.Movement.Snap)
        self.list.setFlow(QListWidget.Flow.LeftToRight)
        self.list.setWrapping(True)
        self.list.setResizeMode(QListWidget.ResizeMode.Adjust)
        self.list.setGridSize(CELL)
        self.list.setIconSize(THUMB)
        self.list.setItemDelegate(_Delegate(self.list))
        self.list.setDragDropMode(QAbstractItemView.DragDropMode.InternalMove)
        self.list.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.list.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.list.itemDoubleClicked.connect(lambda _item: self.do("open"))
        self.list.itemChanged.connect(self._renamed)
        self.list.moved.connect(self._dropped)
        self.list.pressed_key.connect(self.do)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(24, 14, 24, 10)
        layout.addLayout(self._head())
        layout.addWidget(self.list)
        self.hide()

    def _head(self) -> QHBoxLayout:
        row = QHBoxLayout()
        title = Words(_("All pages"), self)
        title.setStyleSheet("font-size: 22px; font-weight: 600;")
        row.addWidget(title)
        row.addStretch(1)
        for picture, label, name in (
            ("plus", _("new page"), "new"), ("copy", _("copy page"), "copy"), ("pencil", _("rename"), "rename"),
            ("arrow-left", _("sooner (Alt+Left)"), "sooner"), ("arrow-right", _("later (Alt+Right)"), "later"),
            ("trash-2", _("delete page"), "delete"),
        ):  # fmt: skip
            button = icon_button(picture, label, self)
            button.clicked.connect(lambda _on=False, name=name: self.do(name))
            row.addWidget(button)
        row.addSpacing(14)
        go = QPushButton(icon("check", "#FCFBF7"), _("Open this page"), self)
        go.setObjectName("strong")
        go.setMinimumHeight(44)
        go.clicked.connect(lambda: self.do("open"))
        row.addWidget(go)
        return row

    def open(self, session: Session, page_id: str) -> None:
        self.session = session
        self._fill(page_id)
        self.show()
        self.raise_()
        self.list.setFocus()

    def let_go(self) -> None:
        """The lesson is another; this one is not kept in memory for its pictures."""
        self.hide()
        self.list.clear()
        self._thumbs.clear()
        self.session = None

    def refresh(self) -> None:
        """Shows the pages as they are now, after an undo."""
        self._fill(self.current())

    def _fill(self, chosen: str) -> None:
        assert self.session is not None
        self.list.blockSignals(True)
        self.list.clear()
        for page in self.session.lesson.pages:
            item = QListWidgetItem(page.title or _("untitled"))
            item.setData(Qt.ItemDataRole.UserRole, page.id)
            item.setFlags(item.flags() | Qt.ItemFlag.ItemIsEditable)
            item.setFlags(item.flags() & ~Qt.ItemFlag.ItemIsDropEnabled)
            known = self._thumbs.get(page.id)
            if known is not None:
                item.setIcon(known[1])
            self.list.addItem(item)
            if page.id == chosen:
                self.list.setCurrentItem(item)
        self.list.blockSignals(False)
        self._next_thumb()

    def _next_thumb(self) -> None:
        """Draws the pictures one after the other, off this thread."""
        if self._job is not None or self.session is None:
            return
        stale = [p for p in self.session.lesson.pages if p.id not in self._thumbs or self._thumbs[p.id][0] is not p]
        if not stale:
            return
        page = stale[0]
        self._job = in_background(
            self,
            lambda _job: page_image(page, THUMB.width(), page.printed()),
            lambda image: self._drawn(page, image),
            lambda _error: self._drawn(page, None),
        )

    def _drawn(self, page: Page, image: object) -> None:
        self._job = None
        if self.session is None:
            return
        made = QIcon(QPixmap.fromImage(image)) if image is not None else QIcon()  # type: ignore[arg-type]
        self._thumbs[page.id] = (page, made)
        for row in range(self.list.count()):
            item = self.list.item(row)
            if item is not None and item.data(Qt.ItemDataRole.UserRole) == page.id:
                self.list.blockSignals(True)
                item.setIcon(made)
                self.list.blockSignals(False)
        self._next_thumb()

    def current(self) -> str:
        item = self.list.currentItem()
        return str(item.data(Qt.ItemDataRole.UserRole)) if item is not None else ""

    def do(self, name: str) -> None:
        """One of: open, close, new, copy, rename, sooner, later, delete."""
        assert self.session is not None
        id, lesson = self.current(), self.session.lesson
        if name == "close":
            self.hide()
            self.closed.emit()
            return
        if name == "open":
            self.hide()
            self.opened.emit(id)
            return
        if name == "rename":
            item = self.list.currentItem()
            if item is not None:
                self.list.editItem(item)
            return
        edit = page_edit(self.session, name, id)
        if edit is not None:
            self.session.commit(edit)
            after = self.session.lesson
            fresh = [page.id for page in after.pages if lesson.page(page.id) is None]
            where = next((i for i, p in enumerate(lesson.pages) if p.id == id), 0)
            near = after.pages[min(where, len(after.pages) - 1)].id
            self._fill(fresh[0] if fresh else id if after.page(id) is not None else near)

    def _renamed(self, item: QListWidgetItem) -> None:
        assert self.session is not None
        page = self.session.lesson.page(str(item.data(Qt.ItemDataRole.UserRole)))
        title = item.text().strip()[:200]
        if page is not None and title != (page.title or _("untitled")):
            self.session.commit(Edit(_("Rename page"), page, page.replace(title=title)))

    def _dropped(self) -> None:
        """Reads the order at once: a picture that arrives a moment later lays all sheets out anew."""
        order = self._placed_order()
        QTimer.singleShot(0, lambda: self._reorder(order))

    def _placed_order(self) -> list[str]:
        """The ids of the pages as their sheets lie, row by row."""
        placed = []
        for row in range(self.list.count()):
            item = self.list.item(row)
            if item is not None:
                rect = self.list.visualItemRect(item)
                placed.append(((rect.center().y() // CELL.height(), rect.center().x()), item.data(Qt.ItemDataRole.UserRole)))
        return [str(id) for _place, id in sorted(placed, key=lambda pair: pair[0])]

    def _reorder(self, order: list[str]) -> None:
        """Takes over the order that was dragged together."""
        assert self.session is not None
        lesson = self.session.lesson
        pages = tuple(page for id in order if (page := lesson.page(id)) is not None)
        if len(pages) == len(lesson.pages):
            self.session.commit(Edit(_("Move page"), lesson, lesson.replace(pages=pages)))
        self._fill(self.current())

    def event(self, event: QEvent | None) -> bool:
        """Presses stay here and do not reach the page below."""
        if event is not None and event.type() == QEvent.Type.MouseButtonPress:
            event.accept()
            return True
        return super().event(event)
