"""The choices of the tool in hand."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, pyqtSignal
from PyQt6.QtWidgets import QFrame, QGridLayout, QPushButton, QWidget

from larch.board.look import icon
from larch.board.tools.base import Tool
from larch.board.tools.draw import WIDTHS, EraserTool, PenTool
from larch.board.tools.place import HandTool, TextTool
from larch.board.tools.select import SelectTool
from larch.core.hues import HUES
from larch.core.words import _
from larch.desk.buttons import HueButton, WidthButton
from larch.desk.style import lift

TEXT_SIZES = (28.0, 40.0, 56.0, 80.0)


class Choices(QFrame):
    """The choices of the tool in hand, just above it."""

    chosen = pyqtSignal()
    pressed = pyqtSignal(str)

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setObjectName("card")
        lift(self)
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(8, 6, 8, 6)
        self._grid.setSpacing(2)
        self.tool: Tool | None = None
        self.hide()

    def open_for(self, tool: Tool) -> None:
        """Fills itself with what can be chosen for a tool."""
        self.tool = tool
        while self._grid.count():
            item = self._grid.takeAt(0)
            if item is not None and item.widget() is not None:
                item.widget().deleteLater()
        self.setAccessibleName(_("choices for {tool}").format(tool=tool.label()))
        column = 0
        if isinstance(tool, PenTool):
            column = self._sizes([(w, _("line {w} wide").format(w=f"{w:g}")) for w in WIDTHS], "width")
        if isinstance(tool, EraserTool):
            column = self._sizes([(r, _("rubber {w} wide").format(w=f"{2 * r:g}")) for r in (8.0, 14.0, 26.0)], "radius")
            self._commands([("brush-cleaning", _("wipe all ink"), "wipe")], column)
        if isinstance(tool, TextTool):
            for size in TEXT_SIZES:
                button = QPushButton("Aa", self)
                button.setStyleSheet(f"font-family: Andika; font-size: {10 + size / 4:.0f}px; padding: 2px 10px;")
                button.setCheckable(True)
                button.setChecked(tool.size == size)
                button.setAccessibleName(_("type size {size}").format(size=f"{size:g}"))
                button.setMinimumHeight(44)
                button.clicked.connect(lambda _on=False, size=size: self._choose("size", size))
                self._grid.addWidget(button, 0, column)
                column += 1
        if isinstance(tool, HandTool | SelectTool):
            self._commands(
                [
                    ("zoom-out", _("smaller"), "zoom out"), ("zoom-in", _("larger"), "zoom in"),
                    ("maximize", _("whole page"), "whole page"), ("square", _("100 %"), "true size"),
                ], 0,
            )  # fmt: skip
        if hasattr(tool, "hue"):
            for k, hue in enumerate(HUES):
                dot = HueButton(hue, self)
                dot.setChecked(tool.hue == hue)
                dot.clicked.connect(lambda _on=False, hue=hue: self._choose("hue", hue))
                self._grid.addWidget(dot, 0, column + k)
        self.adjustSize()
        self.show()
        self.raise_()

    def _sizes(self, sizes: list[tuple[float, str]], field: str) -> int:
        for k, (size, label) in enumerate(sizes):
            button = WidthButton(size, label, self)
            button.setChecked(getattr(self.tool, field) == size)
            button.clicked.connect(lambda _on=False, size=size: self._choose(field, size))
            self._grid.addWidget(button, 0, k)
        return len(sizes)

    def _commands(self, listed: list[tuple[str, str, str]], column: int) -> None:
        for k, (picture, label, name) in enumerate(listed):
            button = QPushButton(icon(picture), label, self)
            button.setMinimumHeight(44)
            button.clicked.connect(lambda _on=False, name=name: self._command(name))
            self._grid.addWidget(button, 0, column + k)

    def _command(self, name: str) -> None:
        self.pressed.emit(name)

    def _choose(self, field: str, value: object) -> None:
        setattr(self.tool, field, value)
        self.chosen.emit()
        if self.tool is not None:
            self.open_for(self.tool)

    def stand_by(self, button: QWidget, edge: str) -> None:
        """Places itself beside a tool's button, towards the page."""
        parent = self.parentWidget()
        assert parent is not None
        at = button.mapTo(parent, QPoint(0, 0))
        middle = (at.x() + button.width() // 2 - self.width() // 2, at.y() + button.height() // 2 - self.height() // 2)
        places = {
            "bottom": (middle[0], at.y() - self.height() - 8),
            "top": (middle[0], at.y() + button.height() + 8),
            "left": (at.x() + button.width() + 8, middle[1]),
            "right": (at.x() - self.width() - 8, middle[1]),
        }
        places["float"] = places["bottom"] if at.y() > self.height() + 16 else places["top"]
        x, y = places[edge]
        self.move(max(8, min(x, parent.width() - self.width() - 8)), max(8, min(y, parent.height() - self.height() - 8)))
