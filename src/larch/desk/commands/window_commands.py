"""Every command of the main window, in one list."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QMenu

from larch.board.tools.erase import MODES, mode_label
from larch.core.actions.arrange.arrange import set_out, set_out_again
from larch.core.base.words import _
from larch.core.model.action import actions_for
from larch.core.model.edit import Edit
from larch.core.model.nibs import DASHES, ENDS, FORMS, NIBS
from larch.core.model.page import SIZES, Page
from larch.core.model.page_facts import dress, resize
from larch.core.model.paper import PATTERNS, fresh_paper
from larch.desk.commands.arrange import arranging_commands
from larch.desk.commands.command import Command
from larch.desk.commands.geometry import geometry_commands

if TYPE_CHECKING:
    from larch.desk.window import Window

ZOOM_STEP = 1.25


def window_commands(window: Window) -> list[Command]:
    return [
        *_lesson(window), *_edit(window), *_page(window), *_ink(window), *_put_out(window),
        *arranging_commands(window), *geometry_commands(window), *_view(window), *_help(window),
    ]  # fmt: skip


def _lesson(w: Window) -> list[Command]:
    return [
        Command("new", _("New lesson"), lambda: w.files.new(), "Lesson", "file-plus", "Ctrl+N", _("blank empty")),
        Command("open", _("Open…"), lambda: w.files.ask_open(), "Lesson", "folder-open", "Ctrl+O", _("load file")),
        Command("save", _("Save"), lambda: w.files.save(), "Lesson", "save", "Ctrl+S", _("keep store"), apart=True),
        Command("save as", _("Save as…"), lambda: w.files.ask_save(), "Lesson", "", "Ctrl+Shift+S"),
        Command("back to saved", _("Back to the saved lesson"), lambda: w.files.back_to_saved(), "Lesson", "history",
                enabled=lambda: w.files.path is not None and w.files.modified, words=_("revert discard")),
        Command("rename lesson", _("Title of the lesson…"), lambda: _rename(w), "Lesson", "pencil", words=_("rename name")),
        Command("export", _("Export…"), lambda: w.files.ask_export(), "Lesson", "file-output", "Ctrl+E",
                _("pdf png svg print picture share"), apart=True),
        Command("demo", _("Demo lesson from the start"), lambda: w.files.demo_afresh(), "Lesson", "flag",
                words=_("example river lantern night")),
        Command("quit", _("Quit"), w.close, "Lesson", "x", "Ctrl+Q", _("exit end"), apart=True),
    ]  # fmt: skip


def _do(w: Window, name: str) -> None:
    page, things = w.canvas.page, w.canvas.things()
    action = next((a for a in actions_for(page, things) if a.name == name), None)
    if action is not None:
        w.canvas.do(action)


def _selected(w: Window) -> bool:
    return bool(w.canvas.selection)


def _select_all(w: Window) -> None:
    w.ledge.take("select")
    w.canvas.select([thing.id for thing in w.canvas.page.things if not (thing.locked or thing.hidden)])


def _copy(w: Window, cut: bool = False) -> None:
    """To the clipboard, for this or another lesson."""
    from larch.desk.media.clipboard import copy_things

    copy_things(w.canvas.page, w.canvas.things())
    if cut:
        _do(w, "delete")


def _paste(w: Window) -> None:
    from larch.desk.media.clipboard import bring_picture, paste_edit

    if bring_picture(w):
        return
    edit = paste_edit(w.canvas.page, w.canvas.camera.to_page(w.canvas.width() / 2, w.canvas.height() / 2))
    if edit is None:
        w.notice.say(_("There is nothing on the clipboard that can be put on a page."))
    else:
        w.ledge.take("select")
        w.canvas.commit(edit)


def _edit(w: Window) -> list[Command]:
    history = lambda: w.session.history  # noqa: E731
    keyed = [
        Command(name, label, lambda name=name: _do(w, name), "", picture, key, enabled=lambda: _selected(w))
        for name, label, picture, key in (
            ("duplicate", _("duplicate"), "copy", "Ctrl+D"),
            ("lock", _("lock or unlock"), "lock", "Ctrl+L"),
            ("group", _("group"), "group", "Ctrl+G"),
            ("ungroup", _("ungroup"), "ungroup", "Ctrl+Shift+G"),
            ("to front", _("to the front"), "bring-to-front", "Ctrl+Shift+Up"),
            ("to back", _("to the back"), "send-to-back", "Ctrl+Shift+Down"),
            ("up one", _("one further up"), "arrow-up", "Ctrl+Up"),
            ("down one", _("one further down"), "arrow-down", "Ctrl+Down"),
        )
    ]
    return [
        Command("undo", _("Undo"), w.undo, "Edit", "undo-2", "Ctrl+Z", enabled=lambda: bool(history().done)),
        Command("redo", _("Redo"), lambda: w.undo(redo=True), "Edit", "redo-2", "Ctrl+Shift+Z or Ctrl+Y",
                enabled=lambda: bool(history().undone)),
        Command("cut", _("Cut"), lambda: _copy(w, cut=True), "Edit", "", "Ctrl+X", enabled=lambda: _selected(w), apart=True),
        Command("copy", _("Copy"), lambda: _copy(w), "Edit", "copy", "Ctrl+C", enabled=lambda: _selected(w)),
        Command("paste", _("Paste"), lambda: _paste(w), "Edit", "", "Ctrl+V"),
        Command("delete", _("Delete"), lambda: _do(w, "delete"), "Edit", "trash-2", "Del or Backspace",
                _("remove bin"), lambda: _selected(w)),
        Command("select all", _("Select all"), lambda: _select_all(w), "Edit", "mouse-pointer-2", "Ctrl+A", apart=True),
        Command("facts", _("Facts of the selection or the page"), lambda: w.facts.want(not w.facts.isVisible()), "Edit",
                "info", "Ctrl+I", _("measures properties numbers paper")),
        Command("next corner", _("Next corner in hand"), w.keys.next_handle, "Edit", "", "N", _("vertex handle keyboard"),
                lambda: _selected(w)),
        *keyed,
    ]  # fmt: skip


def _paper(w: Window, pattern: str) -> None:
    page = w.canvas.page
    kept = {"colour": page.paper.colour, "lines": page.paper.lines}
    w.canvas.commit(dress(page, fresh_paper(pattern).replace(**kept)))


def _page_facts(w: Window) -> None:
    w.ledge.take("select")
    w.canvas.select(())
    w.facts.want(True)


def _papers_tray(w: Window) -> None:
    w.show_shelf(True)
    w.shelf.choose("Papers")


def _set_out(w: Window) -> None:
    w.canvas.commit(set_out(w.canvas.page))
    w.notice.say(_("Remembered. “Set out again” brings the page back to this."))


def _page(w: Window) -> list[Command]:
    pages = w.pages
    sizes = [
        Command(f"size {name}", _("Page size {name}").format(name=name), lambda name=name: w.canvas.commit(
            resize(w.canvas.page, name)), "", "proportions", words=_("format portrait landscape printed part"))
        for name in SIZES
    ]  # fmt: skip
    papers = [
        Command(f"paper {name}", _("Paper: {name}").format(name=one.label()), lambda name=name: _paper(w, name), "",
                one.icon, words=one.words())
        for name, one in PATTERNS.items()
    ]  # fmt: skip
    return [
        Command("new page", _("New page"), pages.new, "Page", "plus", "Ctrl+Shift+N"),
        Command("copy page", _("Copy page"), pages.copy, "Page", "copy", words=_("duplicate")),
        Command("delete page", _("Delete page"), pages.delete, "Page", "trash-2"),
        Command("rename page", _("Title of the page…"), lambda: _rename_page(w), "Page", "pencil", words=_("rename name")),
        Command("page before", _("Page before"), lambda: w.turn(-1), "Page", "chevron-left", "PgUp", apart=True),
        Command("next page", _("Next page"), lambda: w.turn(1), "Page", "chevron-right", "PgDown"),
        Command("go to page", _("Go to page…"), pages.ask_number, "Page", "hash", "Ctrl+J", _("jump number")),
        Command("spread", _("All pages"), pages.spread, "Page", "layout-grid", "Ctrl+P", _("spread overview sort")),
        Command("page sooner", _("Move page sooner"), lambda: pages.move("sooner"), "", "arrow-left", "Ctrl+Shift+PgUp",
                _("reorder")),
        Command("page later", _("Move page later"), lambda: pages.move("later"), "", "arrow-right", "Ctrl+Shift+PgDown",
                _("reorder")),
        Command("papers", _("Papers…"), lambda: _papers_tray(w), "Page", "file", words=_("background lined"), apart=True),
        Command("page facts", _("Paper and size of this page"), lambda: _page_facts(w), "Page", "info",
                words=_("line height margin colour format facts")),
        Command("set out", _("Set out"), lambda: _set_out(w), "Page", "flag-triangle-right", "Ctrl+Shift+O",
                _("remember arrangement"), apart=True),
        Command("set out again", _("Set out again"), lambda: w.canvas.commit(set_out_again(w.canvas.page)), "Page",
                "flag", "Ctrl+Shift+R", _("reset restore put back"), lambda: bool(w.canvas.page.setouts)),
        Command("wipe", _("Wipe ink"), w.hand.wipe, "Page", "brush-cleaning", "Ctrl+Shift+W",
                _("clear erase remove pen")),
        Command("keep ink", _("Keep what is written"), w.hand.keep_ink, "Page", "lock",
                words=_("lock ink protect eraser pupils")),
        *sizes, *papers,
    ]  # fmt: skip


def _ink(w: Window) -> list[Command]:
    """What the tools that make marks can be set to, for the Finder and the keyboard."""
    hand = w.hand
    nibs = [
        Command(f"nib {name}", _("Write with: {nib}").format(nib=nib.label()), lambda name=name: hand.set_pen(nib=name), "",
                nib.icon, words=_("pen ink nib"))
        for name, nib in NIBS.items()
    ]  # fmt: skip
    fields = [
        Command(f"{field} {value or 'none'}", _("Pen: {what}").format(what=word()),
                lambda field=field, value=value: hand.set_pen(**{field: value}), "", picture, words=_("ink line arrow dash"))
        for field, table in (("form", FORMS), ("dash", DASHES), ("ends", ENDS))
        for value, (word, picture) in table.items()
    ]  # fmt: skip
    modes = [
        Command(f"rub {mode}", _("Rub out: {how}").format(how=mode_label(mode)), lambda mode=mode: hand.set_eraser(mode), "",
                "eraser", words=_("eraser erase wipe remove ink"))
        for mode in MODES
    ]  # fmt: skip
    return [
        Command("wipe this colour", _("Wipe this colour"), hand.wipe_hue, "", "brush-cleaning", words=_("ink erase hue")),
        Command("own stamp", _("Stamp with the selection"), hand.take_stamp, "", "stamp", words=_("own picture mark")),
        Command("tip colours", _("Tip colours on or off"), hand.set_by_tip, "", "fingerprint",
                words=_("pens fingers each device own colour")),
        Command("keep pen", _("Keep this pen ready"), hand.keep_pen, "", "pin", words=_("preset favourite")),
        *nibs, *fields, *modes,
    ]  # fmt: skip


def _put_out(w: Window) -> list[Command]:
    tools = [
        Command(f"tool {tool.name}", tool.label(), lambda name=tool.name: w.ledge.take(name), "", tool.icon,
                words=_("tool") + " " + tool.shortcut)
        for tool in w.ledge.tools
    ]  # fmt: skip
    return [
        Command("shelf", _("Shelf"), lambda: w.show_shelf(not w.shows("shelf")), "Put out", "library", "Ctrl+B",
                _("drawer things equipment")),
        Command("picture file", _("Picture from a file…"), lambda: w.bringing.ask(), "Put out", "image-plus",
                words=_("photograph drawing import insert own image svg png jpeg")),
        Command("note", _("Sticky note"), lambda: w.putting.put_out_named("note"), "Put out", "sticky-note",
                words=_("memo write fold tab")),
        Command("finder", _("Find anything…"), lambda: w.finder.open(), "Put out", "search", "Ctrl+K",
                _("finder search command")),
        *tools,
    ]  # fmt: skip


def _zoom(w: Window, factor: float) -> None:
    w.canvas.zoom_by(factor, (w.canvas.width() / 2, w.canvas.height() / 2))


def _view(w: Window) -> list[Command]:
    edges = [
        Command(f"ledge {edge}", label, lambda edge=edge: w.set_ledge(edge), "View",
                "hand" if edge == "float" else f"panel-{edge}", words=_("ledge tools strip toolbar"), apart=edge == "bottom")
        for edge, label in (
            ("bottom", _("Ledge along the bottom")), ("top", _("Ledge along the top")),
            ("left", _("Ledge on the left")), ("right", _("Ledge on the right")),
            ("float", _("Ledge afloat")),
        )
    ]  # fmt: skip
    return [
        Command("board", _("To the Board"), w.go_to_board, "View", "presentation", "F5", _("present full screen")),
        Command("desk", _("Back to the Desk"), w.go_to_desk, "", "monitor", words=_("leave board"),
                enabled=lambda: w.at_board),
        Command("whole page", _("Whole page"), lambda: w.canvas.whole_page(), "View", "maximize", "Ctrl+0",
                _("fit zoom"), apart=True),
        Command("whole extent", _("Everything on the page"), lambda: w.canvas.whole_extent(), "View", "",
                "Ctrl+Shift+0", _("extent fit zoom all")),
        Command("true size", _("100 %"), lambda: w.canvas.true_size(), "View", "square", "Ctrl+1", _("zoom actual")),
        Command("zoom in", _("Larger"), lambda: _zoom(w, ZOOM_STEP), "View", "zoom-in", "Ctrl++ or Ctrl+=", _("zoom in")),
        Command("zoom out", _("Smaller"), lambda: _zoom(w, 1 / ZOOM_STEP), "View", "zoom-out", "Ctrl+-", _("zoom out")),
        Command("motion", _("Motion on or off"), lambda: w.set_still(not w.canvas.still), "View", "",
                words=_("animation still reduce"), apart=True),
        *edges,
    ]  # fmt: skip


def _show_help(w: Window) -> None:
    from larch.desk.dialogs.help import show_help

    show_help(w)


def _help(w: Window) -> list[Command]:
    return [
        Command("help", _("How things work"), lambda: _show_help(w), "Help", "circle-help", "F1", _("manual guide keys")),
    ]  # fmt: skip


def _ask(w: Window, question: str, before: str) -> str | None:
    from PyQt6.QtWidgets import QInputDialog

    text, good = QInputDialog.getText(w, _("Title"), question, text=before)
    return text.strip()[:200] if good else None


def _rename(w: Window) -> None:
    lesson = w.session.lesson
    title = _ask(w, _("What is the lesson called?"), lesson.title)
    if title is not None:
        w.session.commit(Edit(_("Title"), lesson, lesson.replace(title=title)))
        w.refresh_title()


def _rename_page(w: Window) -> None:
    page: Page = w.canvas.page
    title = _ask(w, _("What is the page called?"), page.title)
    if title is not None:
        w.canvas.commit(Edit(_("Rename page"), page, page.replace(title=title)))


def fill_recent(w: Window, menu: QMenu) -> None:
    """Recent and unsaved lessons, at the end of the Lesson menu; made anew each time."""
    from larch.core.files.journal import recover
    from larch.services.recent import recent_lessons
    from larch.services.workspace import unsaved_folders

    for old in [action for action in menu.actions() if action.property("recent")]:
        menu.removeAction(old)
    entries = [(path.stem, lambda path=path: w.files.open(path)) for path in recent_lessons()[:8]]
    for folder in unsaved_folders()[:5]:
        found = recover(folder)
        if found is not None:
            title = found.lesson.title or _("New lesson")
            label = _("{title} (not saved)").format(title=title)
            entries.append((label, lambda folder=folder: w.files.open_kept(folder)))
    if entries:
        line = menu.addSeparator()
        assert line is not None
        line.setProperty("recent", True)
    for label, run in entries:
        action = menu.addAction(label)
        assert action is not None
        action.setProperty("recent", True)
        action.triggered.connect(lambda _on=False, run=run: run())
