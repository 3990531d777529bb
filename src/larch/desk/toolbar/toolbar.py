"""The ledge: the strip on which the tools lie, along any edge of the window or floating over the page."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from PyQt6.QtCore import QPoint, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent, QResizeEvent, QShowEvent
from PyQt6.QtWidgets import QBoxLayout, QButtonGroup, QHBoxLayout, QPushButton, QToolButton, QWidget

from larch.board.look import icon
from larch.board.tools.base import Tool
from larch.board.tools.brush import BrushTool
from larch.board.tools.construct import ConstructTool
from larch.board.tools.draw import PenTool
from larch.board.tools.erase import EraserTool
from larch.board.tools.place import EquationTool, HandTool, TextTool
from larch.board.tools.select import SelectTool
from larch.board.tools.stamp import MarkTool
from larch.core.base.hues import PAPER
from larch.core.base.words import _
from larch.core.model.page import PUPILS
from larch.desk.plain import tip
from larch.desk.theme import STONE
from larch.desk.toolbar.buttons import ToolButton, icon_button
from larch.desk.toolbar.hold_button import HoldButton

if TYPE_CHECKING:
    from larch.desk.toolbar.folded import FoldCard

SPARE = ("move page", "paint", "stamp", "equation", "text", "construct")  # what folds first where room is scarce
NEEDS = {"select": "", "move page": "", "paint": "paint"}  # what a tool needs of PUPILS; the others "write"
MANNERS = [("wide", 0), ("snug", 0), ("snug", 2), ("snug", 3), *(("bare", k) for k in (0, 2, 3, 4, 5, 6))]


class Ledge(QWidget):
    """Signals name what was pressed; the window does it. `tool_taken` carries the Tool now in hand."""

    tool_taken = pyqtSignal(object)
    choices_wanted = pyqtSignal(object)
    turned = pyqtSignal(int)
    pressed = pyqtSignal(str)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName(_("ledge"))
        self.edge = "bottom"
        self._large = False
        self._manner = MANNERS[0]
        self._allowed: tuple[str, ...] = tuple(PUPILS)
        self._lengths: dict[tuple[bool, bool, int, tuple[str, int]], int] = {}
        self._measuring = False  # laying it out resizes it
        self._held: QPoint | None = None
        self.tools: list[Tool] = [
            SelectTool(), PenTool(), EraserTool(), MarkTool(), BrushTool(), ConstructTool(), TextTool(), EquationTool(),
            HandTool(),
        ]  # fmt: skip
        self.buttons = {tool.name: ToolButton(tool.name, tool.icon, tool.label(), self) for tool in self.tools}
        self._group = QButtonGroup(self)
        for tool in self.tools:
            button = self.buttons[tool.name]
            self._group.addButton(button)
            button.setToolTip(tip(f"{tool.label()} ({tool.shortcut})"))
            button.pressed.connect(lambda tool=tool: self._pressed(tool))
        self.current = self.tools[0]
        self.buttons[self.current.name].setChecked(True)
        self.fold = ToolButton("fold", "ellipsis", _("more"), self)
        self.fold.setToolTip(_("more tools"))
        self.fold.setAccessibleName(_("more tools"))
        self.fold.clicked.connect(self._show_folded)
        self._card: FoldCard | None = None
        self._make_rest()
        self._box = QBoxLayout(QBoxLayout.Direction.LeftToRight, self)
        self._arrange()

    def _make_rest(self) -> None:
        self.desk = HoldButton("monitor", _("back to the Desk"), self)
        self.desk.held.connect(lambda: self.pressed.emit("desk"))
        self.desk.hide()
        self.back = icon_button("chevron-left", _("page before"), self)
        self.back.clicked.connect(lambda: self.turned.emit(-1))
        self.number = QPushButton("1", self)
        self.number.setObjectName("pageno")
        self.number.setFlat(True)
        self.number.setStyleSheet("QPushButton { border: none; background: transparent; font-weight: 600; padding: 4px; }")
        self.number.setMinimumHeight(44)
        self.number.setToolTip(_("all pages, laid out"))
        self.number.clicked.connect(lambda: self.pressed.emit("go to page" if self._large else "spread"))
        self.onwards = icon_button("chevron-right", _("next page"), self)
        self.onwards.clicked.connect(lambda: self.turned.emit(1))
        self.undo = self._named("undo-2", _("undo"), "undo")
        self.redo = self._named("redo-2", _("redo"), "redo")
        self.bin = self._named("trash-2", _("bin"), "delete")
        self.again = self._named("flag", _("set out again"), "set out again")
        self.shelf = QPushButton(icon("library", PAPER), _("Shelf"), self)
        self.shelf.setObjectName("strong")
        self.shelf.setCheckable(True)
        self.shelf.setMinimumHeight(46)
        self.shelf.setAccessibleName(_("Shelf"))
        self.shelf.clicked.connect(lambda: self.pressed.emit("shelf"))

    def _named(self, picture: str, label: str, name: str) -> QToolButton:
        button = icon_button(picture, label, self)
        button.clicked.connect(lambda: self.pressed.emit(name))
        return button

    def _arrange(self) -> None:
        """Lies the tools along the edge; upright, small buttons go in pairs so that all find room."""
        measuring, self._measuring = self._measuring, True
        _empty(self._box)
        manner, count = self._manner
        folded = SPARE[:count]
        upright = self._upright()
        self._box.setDirection(QBoxLayout.Direction.TopToBottom if upright else QBoxLayout.Direction.LeftToRight)
        across = 16 if manner == "wide" else 6
        self._box.setContentsMargins(*((6, across // 2, 6, across // 2) if upright else (across, 2, across, 4)))
        self._box.setSpacing(0 if upright else 2)
        pairs = upright and manner == "bare"  # two columns, where even bare tools are too many for one
        if self._large and not pairs:
            self._box.addWidget(self.desk, 0, Qt.AlignmentFlag.AlignCenter)
        self.desk.setVisible(self._large)
        turner: list[list[QWidget]] = (
            [[self.back, self.onwards], [self.number]] if upright else [[self.back, self.number, self.onwards]]
        )
        for row in turner:
            self._add_row(row)
        self._box.addStretch(1)
        offered = {tool.name for tool in self.tools if self.offers(tool)}
        for name, button in self.buttons.items():
            button.setVisible(name in offered)
        folded = tuple(name for name in folded if name in offered)
        shown: list[QWidget] = [b for name, b in self.buttons.items() if name in offered and name not in folded]
        for lying in shown:
            lying.setParent(self)
            lying.show()
        shown += [self.fold] if folded else []
        self.fold.setVisible(bool(folded))
        for k in range(0, len(shown), 2 if pairs else 1):
            if pairs:
                self._add_row(shown[k : k + 2])
            else:
                self._box.addWidget(shown[k], 0, Qt.AlignmentFlag.AlignCenter)
        self._box.addStretch(1)
        keeps = "shelf" in self._allowed
        self.bin.setVisible(keeps)
        self.shelf.setVisible(keeps)
        self.back.setVisible("turn" in self._allowed)
        self.onwards.setVisible("turn" in self._allowed)
        self.number.setEnabled("turn" in self._allowed)
        self._add_row([self.undo, self.redo])
        self._add_row([self.bin, self.again])
        if manner == "wide":
            self._box.addSpacing(10)
        if pairs and self._large:
            self._add_row([self.desk, self.shelf])
        else:
            self._box.addWidget(self.shelf, 0, Qt.AlignmentFlag.AlignCenter)
        self.shelf.setText(_("Shelf") if manner != "bare" else "")
        if folded or self._card is not None:
            self._folded().take([self.buttons[name] for name in self.buttons if name in folded])
        self._fit_buttons()
        self._measuring = measuring

    def _upright(self) -> bool:
        return self.edge in ("left", "right")

    def _room(self) -> int:
        """How long it can be: the window, or the part of it that lies along its edge."""
        parent = self.parentWidget()
        if parent is None:
            return 10000
        return parent.height() if self._upright() else parent.width()

    def refit(self) -> None:
        """Folds what does not find room, and unfolds what does."""
        if self._measuring or not self.isVisible():  # before it is seen, its room is not known
            return
        self._measuring = True
        room = self._room()
        chosen = next((one for one in MANNERS if self._length(one) <= room), MANNERS[-1])
        if chosen != self._manner:
            self._manner = chosen
            self._arrange()
            self._show_hand()
        self._box.invalidate()
        self._box.activate()
        self._measuring = False

    def _length(self, manner: tuple[str, int]) -> int:
        """How long it is for a way of lying, in pixels: laid so once, and measured."""
        upright = self._upright()
        key = (self._large, upright, len(self.number.text()), manner)
        if key not in self._lengths:
            before, self._manner = self._manner, manner
            self._arrange()
            size = self._box.minimumSize()
            self._lengths[key] = size.height() if upright else size.width()
            self._manner = before
            self._arrange()
        return self._lengths[key]

    def minimumSizeHint(self) -> QSize:
        """As small as it can be folded, so that the window can be smaller than all the tools together."""
        hint = super().minimumSizeHint()
        return QSize(hint.width(), 200) if self._upright() else QSize(360, hint.height())

    def showEvent(self, event: QShowEvent | None) -> None:
        super().showEvent(event)
        self._lengths.clear()  # only now do the buttons have their fonts
        self.refit()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self.refit()

    def _folded(self) -> FoldCard:
        """The card of the tools that are folded away; made when the first of them are."""
        if self._card is None:
            from larch.desk.toolbar import folded

            self._card = folded.FoldCard(self)
        return self._card

    def _show_folded(self) -> None:
        """The tools that are folded away, on a card beside their button."""
        self._show_hand()
        self._folded().open_by(self.fold, self.edge)

    def _show_hand(self) -> None:
        """The button of the fold wears the sign of the tool in hand where that is folded away."""
        folded = self.current.name in SPARE[: self._manner[1]]
        self.fold.setChecked(folded)
        self.fold.icon_name = self.current.icon if folded else "ellipsis"
        self.fold.setText(self.current.label() if folded else _("more"))
        self.fold.resize_for(self._large, self._upright(), self._manner[0])

    def button_of(self, tool: Tool) -> QWidget:
        """Where a tool is seen: its own button, or the fold in which that lies."""
        return self.fold if tool.name in SPARE[: self._manner[1]] else self.buttons[tool.name]

    def _add_row(self, widgets: list[QWidget]) -> None:
        row = QHBoxLayout()
        row.setSpacing(2)
        for widget in widgets:
            row.addWidget(widget, 0, Qt.AlignmentFlag.AlignCenter)
        self._box.addLayout(row)

    def _fit_buttons(self) -> None:
        for name, button in self.buttons.items():
            if name in SPARE[: self._manner[1]]:
                button.resize_for(self._large)
            else:
                button.resize_for(self._large, self._upright(), self._manner[0])
        self.fold.resize_for(self._large, self._upright(), self._manner[0])

    def set_edge(self, edge: str) -> None:
        self.edge = edge
        self._manner = MANNERS[0]
        self._arrange()
        self.refit()

    def set_large(self, large: bool) -> None:
        """Board size: every target at least 56 pixels."""
        size = 56 if large else 44
        self._large = large
        for small in (self.desk, self.back, self.onwards, self.undo, self.redo, self.bin, self.again):
            small.setFixedSize(size, size)
        self.shelf.setMinimumHeight(size)
        self.number.setMinimumHeight(size)
        self._arrange()
        self.refit()

    def show_page(self, number: int, count: int) -> None:
        text = _("{n} of {count}").format(n=number, count=count)
        self.number.setText(text)
        self.refit()
        self.number.setAccessibleName(_("page {text}").format(text=text))
        self.back.setEnabled(number > 1)
        last = number == count
        self.onwards.setIcon(icon("plus" if last else "chevron-right"))
        label = _("new page") if last else _("next page")
        self.onwards.setToolTip(tip(label))
        self.onwards.setAccessibleName(label)

    def leave(self, allowed: Sequence[str]) -> None:
        """Shows only what may be used (of PUPILS); all of it at the Desk."""
        if tuple(allowed) == self._allowed:
            return
        self._allowed = tuple(allowed)
        self._lengths.clear()
        self._arrange()
        self.refit()

    def offers(self, tool: Tool) -> bool:
        """Whether a tool lies on the ledge just now."""
        return NEEDS.get(tool.name, "write") in (*self._allowed, "")

    def _pressed(self, tool: Tool) -> None:
        if self._card is not None:
            self._card.hide()
        if tool is self.current:
            self.choices_wanted.emit(tool)
        else:
            self.take(tool.name)

    def take(self, name: str) -> None:
        """Takes a tool in hand."""
        self.current = next(tool for tool in self.tools if tool.name == name)
        self.buttons[name].setChecked(True)
        self._show_hand()
        self.tool_taken.emit(self.current)

    def tool(self, name: str) -> Tool:
        return next(tool for tool in self.tools if tool.name == name)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """The board of the ledge, with a lip along its outer edge; floating, a board with a hairline round it."""
        painter = QPainter(self)
        lip = STONE.darker(112)
        w, h = self.width(), self.height()
        if self.edge == "float":
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(lip)
            painter.setBrush(STONE)
            painter.drawRoundedRect(QRectF(0.5, 0.5, w - 1, h - 1), 8, 8)
            return
        painter.fillRect(self.rect(), STONE)
        outer = {"bottom": QRectF(0, h - 4, w, 3), "top": QRectF(0, 1, w, 3)}
        outer |= {"left": QRectF(1, 0, 3, h), "right": QRectF(w - 4, 0, 3, h)}
        painter.fillRect(outer[self.edge], lip)
        inner = {"bottom": QRectF(0, 0, w, 1), "top": QRectF(0, h - 1, w, 1)}
        inner |= {"left": QRectF(w - 1, 0, 1, h), "right": QRectF(0, 0, 1, h)}
        painter.fillRect(inner[self.edge], lip)

    # Floating, it is dragged by any place that is not a button.

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self.edge == "float":
            self._held = event.position().toPoint()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._held is not None:
            self.float_to(self.mapToParent(event.position().toPoint()) - self._held)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self._held = None

    def float_to(self, corner: QPoint) -> None:
        """Moves the floating ledge, all of it staying in the window."""
        room = self.parentWidget()
        assert room is not None
        self.refit()
        size = self.sizeHint()
        x = max(0, min(corner.x(), room.width() - size.width()))
        y = max(0, min(corner.y(), room.height() - size.height()))
        self.setGeometry(x, y, size.width(), size.height())
        self.raise_()


def _empty(box: QBoxLayout) -> None:
    """Takes everything out of a layout and the rows in it; the widgets stay."""
    while box.count():
        item = box.takeAt(0)
        row = item.layout() if item is not None else None
        if isinstance(row, QBoxLayout):
            _empty(row)
            row.deleteLater()
