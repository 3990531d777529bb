"""Lessons that were never saved: each with its first page, its first words and when it was last worked at."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, NamedTuple

from PyQt6.QtCore import QDateTime, QLocale, QSize, Qt
from PyQt6.QtGui import QIcon, QImage, QPixmap
from PyQt6.QtWidgets import QDialog, QDialogButtonBox, QListWidget, QListWidgetItem, QVBoxLayout

from larch.board.paint import page_image
from larch.board.timers import retire
from larch.core.base.words import _, many
from larch.core.files.journal import recover
from larch.core.model.capabilities import HasWords
from larch.core.model.lesson import Lesson
from larch.desk.jobs import Job, in_background
from larch.desk.plain import Words
from larch.services.workspace import last_worked_at, unsaved_folders

if TYPE_CHECKING:
    from larch.desk.context import Context

THUMB = QSize(240, 136)


class Left(NamedTuple):
    """A lesson that is in no file. name: its title or its first words."""

    folder: Path
    name: str
    when: float
    picture: QImage


def name_of(lesson: Lesson) -> str:
    """Its title, or the first words that are on it."""
    if lesson.title:
        return lesson.title
    for page in lesson.pages:
        if page.title:
            return page.title
        for thing in page.things:
            if isinstance(thing, HasWords) and (words := thing.plain_text().strip()):
                first = words.split("\n")[0]
                return first[:47] + "…" if len(first) > 48 else first
    return _("without words")


def look_through(_job: Job) -> list[Left]:
    """All of them, the newest first; to be called off the interface's thread."""
    found = []
    for folder in unsaved_folders():
        kept = recover(folder)
        if kept is not None:
            picture = page_image(kept.lesson.pages[0], THUMB.width(), kept.lesson.pages[0].printed())
            found.append(Left(folder, name_of(kept.lesson), last_worked_at(folder), picture))
    return found


class UnsavedDialog(QDialog):
    def __init__(self, context: Context) -> None:
        super().__init__(context.top)
        self.context = context
        self.setWindowTitle(_("Lessons without a file"))
        self.resize(880, 540)
        self._told = Words(_("Looking…"), self)
        self._told.setWordWrap(True)
        self.list = QListWidget(self)
        self.list.setAccessibleName(_("lessons without a file"))
        self.list.setObjectName("lessons")
        self.list.setViewMode(QListWidget.ViewMode.IconMode)
        self.list.setMovement(QListWidget.Movement.Static)
        self.list.setResizeMode(QListWidget.ResizeMode.Adjust)
        self.list.setIconSize(THUMB)
        self.list.setGridSize(QSize(THUMB.width() + 24, THUMB.height() + 74))
        self.list.setWordWrap(True)
        self.list.itemActivated.connect(self._open)
        buttons = QDialogButtonBox(self)
        self._go = buttons.addButton(_("Open this one"), QDialogButtonBox.ButtonRole.AcceptRole)
        self._back = buttons.addButton(_("Not now"), QDialogButtonBox.ButtonRole.RejectRole)
        assert self._go is not None
        self._go.setEnabled(False)
        self.list.itemSelectionChanged.connect(lambda: self._go.setEnabled(bool(self.list.selectedItems())))  # type: ignore[union-attr]
        buttons.accepted.connect(lambda: self._open(self.list.currentItem()))
        buttons.rejected.connect(self.reject)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(20, 16, 20, 14)
        layout.addWidget(self._told)
        layout.addWidget(self.list, 1)
        layout.addWidget(buttons)
        self.finished.connect(lambda _how: retire(self))
        in_background(self, look_through, self._show)

    def _show(self, found: list[Left]) -> None:
        words = many("1 lesson was worked at and never saved; nothing of it is lost.",
                     "{n} lessons were worked at and never saved; nothing of them is lost.", len(found))  # fmt: skip
        self._told.setText(words if found else _("Every lesson is in a file."))
        if not found:
            self.list.hide()
            self._go.hide()  # type: ignore[union-attr]
            self._back.setText(_("Close"))  # type: ignore[union-attr]
            middle = self.frameGeometry().center()
            self.resize(420, self.minimumSizeHint().height())
            self.move(middle - self.rect().center())
        for left in found:
            when = QLocale().toString(QDateTime.fromSecsSinceEpoch(int(left.when)), _("d MMMM yyyy, HH:mm"))
            label = f"{left.name}\n{when}"
            item = QListWidgetItem(QIcon(QPixmap.fromImage(left.picture)), label)
            item.setData(Qt.ItemDataRole.UserRole, str(left.folder))
            self.list.addItem(item)
        if found:
            self.list.setCurrentRow(0)
            self.list.setFocus()

    def _open(self, item: QListWidgetItem | None) -> None:
        if item is not None:
            self.accept()
            self.context.part("files").open_kept(Path(str(item.data(Qt.ItemDataRole.UserRole))))
