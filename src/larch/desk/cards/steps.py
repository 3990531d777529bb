"""The list of steps of a construction, and playing them again one by one."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QListWidget, QListWidgetItem, QVBoxLayout

from larch.board.canvas import Canvas
from larch.board.timers import timer
from larch.core.base.shape import Box
from larch.core.base.words import _
from larch.core.figures.steps import Step, steps
from larch.desk.cards.docked import Docked
from larch.desk.context import Context
from larch.desk.plain import Words
from larch.desk.toolbar.buttons import icon_button

PACE = 1100  # ms from one step to the next
EVERYWHERE = Box(-1e6, -1e6, 1e6, 1e6)


class StepsCard(Docked):
    """At the left edge. The page shows as much as the list says; closing it shows all again."""

    wide = 400

    def __init__(self, canvas: Canvas) -> None:
        super().__init__(canvas)
        self.setAccessibleName(_("steps of the construction"))
        self.steps: list[Step] = []
        self.done = 0  # steps that are shown
        title = Words(_("Steps"), self)
        title.setStyleSheet("font-size: 18px; font-weight: 600;")
        close = icon_button("x", _("close the steps"), self)
        close.clicked.connect(self.finish)
        head = QHBoxLayout()
        head.addWidget(title, 1)
        head.addWidget(close)
        self.list = QListWidget(self)
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setAccessibleName(_("steps"))
        self.list.setStyleSheet(
            "QListWidget { border: none; background: transparent; font-size: 17px; }"
            "QListWidget::item { padding: 3px 4px; border-radius: 5px; }"
            "QListWidget::item:selected { background: #F1E4C8; color: #17332E; }"
        )
        self.list.itemClicked.connect(lambda item: self.go(self.list.row(item) + 1))
        row = QHBoxLayout()
        self.buttons = {}
        for name, picture, label, run in (
            ("start", "skip-back", _("to the start"), lambda: self.go(0)),
            ("back", "step-back", _("one step back"), lambda: self.go(self.done - 1)),
            ("play", "play", _("play the steps"), self.play),
            ("on", "step-forward", _("one step on"), lambda: self.go(self.done + 1)),
        ):
            button = icon_button(picture, label, self, 52)
            button.clicked.connect(lambda _on=False, run=run: run())
            self.buttons[name] = button
            row.addWidget(button)
        row.addStretch(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(14, 8, 8, 8)
        layout.addLayout(head)
        layout.addWidget(self.list, 1)
        layout.addLayout(row)
        self._timer = timer(self, self._tick, PACE)
        canvas.committed.connect(self._changed)
        self.hide()

    def shut(self) -> None:
        self.finish()

    def open(self) -> None:
        """Reads the steps of the page and shows the list beside it."""
        self._fill()
        self.go(len(self.steps))
        self.dock(140 + 44 * max(3, len(self.steps)))
        self.show()
        self.raise_()
        self.list.setFocus()

    def finish(self) -> None:
        """Closes the list; the page shows everything again."""
        self._timer.stop()
        self.canvas.end_instead(self)
        self.hide()
        self.canvas.setFocus()

    def _fill(self) -> None:
        self.steps = steps(self.canvas.page)
        self.list.clear()
        for number, step in enumerate(self.steps, 1):
            words = f"{number}.  {step.words}" + (f"\n      {step.why}" if step.why else "")
            item = QListWidgetItem(words)
            self.list.addItem(item)
        if not self.steps:
            self.list.addItem(_("Nothing is constructed on this page yet."))

    def _changed(self) -> None:
        if self.isVisible():
            self._fill()
            self.go(len(self.steps))

    def go(self, count: int) -> None:
        """Shows the page as it is after so many steps."""
        self.done = max(0, min(count, len(self.steps)))
        for i in range(self.list.count()):
            item = self.list.item(i)
            if item is not None:
                item.setForeground(Qt.GlobalColor.black if i < self.done else Qt.GlobalColor.gray)
        if self.steps:
            self.list.setCurrentRow(self.done - 1)
        hidden = {step.id: () for step in self.steps[self.done :]}
        if hidden:
            self.canvas.show_instead(self, hidden, [EVERYWHERE])
        else:
            self.canvas.end_instead(self)
            self.canvas.repaint_page()
        self.buttons["back"].setEnabled(self.done > 0)
        self.buttons["on"].setEnabled(self.done < len(self.steps))
        if self.done == len(self.steps):
            self._timer.stop()

    def play(self) -> None:
        """From the start, or on from here."""
        if self.done == len(self.steps):
            self.go(0)
        self._timer.start()

    def _tick(self) -> None:
        self.go(self.done + 1)


def make(context: Context) -> StepsCard:
    return StepsCard(context.canvas)
