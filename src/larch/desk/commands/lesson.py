"""Commands of the lesson: opening, saving, exporting."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QMenu

from larch.core.base.words import _
from larch.core.model.edit import Edit
from larch.desk.commands.command import Command, ask_title

if TYPE_CHECKING:
    from larch.desk.context import Context


ORDER = 10


def build(w: Context) -> list[Command]:
    return [
        Command("new", _("New lesson"), lambda: w.part("files").new(), "Lesson", "file-plus", "Ctrl+N", _("blank empty")),
        Command("open", _("Open…"), lambda: w.part("files").ask_open(), "Lesson", "folder-open", "Ctrl+O", _("load file")),
        Command("unsaved", _("Lessons without a file…"), lambda: _unsaved(w), "Lesson", "history",
                words=_("unsaved never saved lost recover find back")),
        Command("save", _("Save"), lambda: w.part("files").save(), "Lesson", "save", "Ctrl+S", _("keep store"), apart=True,
                stays=True),
        Command("save as", _("Save as…"), lambda: w.part("files").ask_save(), "Lesson", "", "Ctrl+Shift+S", stays=True),
        Command("back to saved", _("Back to the saved lesson"), lambda: w.part("files").back_to_saved(), "Lesson", "history",
                enabled=lambda: w.part("files").path is not None and w.part("files").modified, words=_("revert discard")),
        Command("rename lesson", _("Title of the lesson…"), lambda: _rename(w), "Lesson", "pencil", words=_("rename name")),
        Command("export", _("Export…"), lambda: w.part("files").ask_export(), "Lesson", "file-output", "Ctrl+E",
                _("pdf png svg print picture share"), apart=True),
        Command("print", _("Print…"), lambda: _print(w), "Lesson", "printer", "Ctrl+P", _("paper printer hand out")),
        Command("demo", _("Demo lesson from the start"), lambda: w.part("files").demo_afresh(), "Lesson", "flag",
                words=_("example river lantern night")),
        Command("quit", _("Quit"), lambda: w.top.close(), "Lesson", "x", "Ctrl+Q", _("exit end"), apart=True),
    ]  # fmt: skip


def _unsaved(w: Context) -> None:
    from larch.desk.dialogs.unsaved import UnsavedDialog

    UnsavedDialog(w).open()


def _print(w: Context) -> None:
    from larch.desk.dialogs.printing import ask_print

    ask_print(w)


def _rename(w: Context) -> None:
    lesson = w.session.lesson
    title = ask_title(w, _("What is the lesson called?"), lesson.title)
    if title is not None:
        w.session.commit(Edit(_("Title"), lesson, lesson.replace(title=title)))
        w.refresh_title()


def fill_recent(w: Context, menu: QMenu) -> None:
    """Recent lessons, at the end of the Lesson menu; made anew each time."""
    from larch.services.recent import recent_lessons

    for old in [action for action in menu.actions() if action.property("recent")]:
        menu.removeAction(old)
    entries = [(path.stem, lambda path=path: w.part("files").open(path)) for path in recent_lessons()[:8]]
    if not entries:
        return
    within = QMenu(_("Opened lately"), menu)
    entry = menu.insertMenu(next((a for a in menu.actions() if a.objectName() == "unsaved"), None), within)
    assert entry is not None
    entry.setProperty("recent", True)
    for label, run in entries:
        action = within.addAction(label.replace("&", "&&"))
        assert action is not None
        action.triggered.connect(lambda _on=False, run=run: run())
