"""The ledge: the strip on which the tools lie, along any edge of the window or floating over the page."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QBoxLayout, QButtonGroup, QHBoxLayout, QPushButton, QToolButton, QWidget

from larch.board.look import STONE, icon
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
from larch.desk.toolbar.buttons import ToolButton, icon_button


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
            button.setToolTip(f"{tool.label()} ({tool.shortcut})")
            button.pressed.connect(lambda tool=tool: self._pressed(tool))
        self.current = self.tools[0]
        self.buttons[self.current.name].setChecked(True)
        self._make_rest()
        self._box = QBoxLayout(QBoxLayout.Direction.LeftToRight, self)
        self._arrange()

    def _make_rest(self) -> None:
        self.back = icon_button("chevron-left", _("page before"), self)
        self.back.clicked.connect(lambda: self.turned.emit(-1))
        self.number = QPushButton("1", self)
        self.number.setObjectName("pageno")
        self.number.setFlat(True)
        self.number.setStyleSheet("QPushButton { border: none; background: transparent; font-weight: 600; padding: 4px; }")
        self.number.setMinimumHeight(44)
        self.number.setToolTip(_("all pages, laid out"))
        self.number.clicked.connect(lambda: self.pressed.emit("spread"))
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
        _empty(self._box)
        upright = self.edge in ("left", "right")
        self._box.setDirection(QBoxLayout.Direction.TopToBottom if upright else QBoxLayout.Direction.LeftToRight)
        self._box.setContentsMargins(*((6, 8, 6, 8) if upright else (16, 2, 16, 4)))
        self._box.setSpacing(0 if upright else 2)
        turner: list[list[QWidget]] = (
            [[self.back, self.onwards], [self.number]] if upright else [[self.back, self.number, self.onwards]]
        )
        for row in turner:
            self._add_row(row)
        self._box.addStretch(1)
        for button in self.buttons.values():
            self._box.addWidget(button, 0, Qt.AlignmentFlag.AlignCenter)
        self._box.addStretch(1)
        self._add_row([self.undo, self.redo])
        self._add_row([self.bin, self.again])
        self._box.addSpacing(10)
        self._box.addWidget(self.shelf, 0, Qt.AlignmentFlag.AlignCenter)
        self._fit_buttons()

    def _add_row(self, widgets: list[QWidget]) -> None:
        row = QHBoxLayout()
        row.setSpacing(2)
        for widget in widgets:
            row.addWidget(widget, 0, Qt.AlignmentFlag.AlignCenter)
        self._box.addLayout(row)

    def _fit_buttons(self) -> None:
        for button in self.buttons.values():
            button.resize_for(self._large, self.edge in ("left", "right"))

    def set_edge(self, edge: str) -> None:
        self.edge = edge
        self._arrange()

    def set_large(self, large: bool) -> None:
        """Board size: every target at least 56 pixels."""
        size = 56 if large else 44
        self._large = large
        self._fit_buttons()
        for small in (self.back, self.onwards, self.undo, self.redo, self.bin, self.again):
            small.setFixedSize(size, size)
        self.shelf.setMinimumHeight(size)
        self.number.setMinimumHeight(size)

    def show_page(self, number: int, count: int) -> None:
        text = _("{n} of {count}").format(n=number, count=count)
        self.number.setText(text)
        self.number.setAccessibleName(_("page {text}").format(text=text))
        self.back.setEnabled(number > 1)
        last = number == count
        self.onwards.setIcon(icon("plus" if last else "chevron-right"))
        label = _("new page") if last else _("next page")
        self.onwards.setToolTip(label)
        self.onwards.setAccessibleName(label)

    def _pressed(self, tool: Tool) -> None:
        if tool is self.current:
            self.choices_wanted.emit(tool)
        else:
            self.take(tool.name)

    def take(self, name: str) -> None:
        """Takes a tool in hand."""
        self.current = next(tool for tool in self.tools if tool.name == name)
        self.buttons[name].setChecked(True)
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
        size = self.sizeHint().expandedTo(self.minimumSizeHint())
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
