"""Commands of the selection: undo, the clipboard, and the keys of its likeliest actions."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from larch.core.base.words import _
from larch.core.model.action import actions_for
from larch.desk.commands.command import Command

if TYPE_CHECKING:
    from larch.desk.context import Context


ORDER = 20


def build(w: Context) -> list[Command]:
    keyed = [
        Command(name, label, partial(lambda name: _do(w, name), name), "", picture, key, enabled=lambda: _selected(w))
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
        Command("undo", _("Undo"), w.undo, "Edit", "undo-2", "Ctrl+Z", enabled=lambda: bool(w.session.history.done),
                board=True),
        Command("redo", _("Redo"), lambda: w.undo(redo=True), "Edit", "redo-2", "Ctrl+Shift+Z or Ctrl+Y",
                enabled=lambda: bool(w.session.history.undone), board=True),
        Command("cut", _("Cut"), lambda: _copy(w, cut=True), "Edit", "", "Ctrl+X", enabled=lambda: _selected(w), apart=True),
        Command("copy", _("Copy"), lambda: _copy(w), "Edit", "copy", "Ctrl+C", enabled=lambda: _selected(w)),
        Command("paste", _("Paste"), lambda: _paste(w), "Edit", "", "Ctrl+V"),
        Command("delete", _("Delete"), lambda: _do(w, "delete"), "Edit", "trash-2", "Del or Backspace",
                _("remove bin"), lambda: _selected(w) and w.canvas.may("shelf"), board=True),
        Command("select all", _("Select all"), lambda: _select_all(w), "Edit", "mouse-pointer-2", "Ctrl+A", apart=True),
        Command("facts", _("Facts of the selection or the page"), lambda: _facts(w), "Edit", "info", "Ctrl+I",
                _("measures properties numbers paper")),
        Command("next corner", _("Next corner or part in hand"), w.part("keys").next_handle, "", "", "N",
                _("vertex handle part bead keyboard"), lambda: _selected(w), board=True),
        Command("gather", _("Keep selected while Tab goes on"), w.part("keys").gather, "", "", "K",
                _("add several selection keyboard"), lambda: _selected(w)),
        *keyed,
    ]  # fmt: skip


def _facts(w: Context) -> None:
    """Opens the card and goes to it; where the keys are in it already, closes it."""
    card = w.part("facts")
    if card.isVisible() and card.isAncestorOf(w.top.focusWidget()):
        card.want(False)
        w.canvas.setFocus()
    elif card.isVisible() and not w.canvas.has_keys():
        card.want(False)
    else:
        card.want(True)
        card.take_focus()


def _do(w: Context, name: str) -> None:
    page, things = w.canvas.page, w.canvas.things()
    action = next((a for a in actions_for(page, things) if a.name == name), None)
    if action is not None:
        w.canvas.do(action)


def _selected(w: Context) -> bool:
    return bool(w.canvas.selection)


def _select_all(w: Context) -> None:
    w.take_tool("select")
    w.canvas.select([thing.id for thing in w.canvas.page.things if not (thing.locked or thing.hidden)])


def _copy(w: Context, cut: bool = False) -> None:
    """To the clipboard, for this or another lesson."""
    from larch.desk.media.clipboard import copy_things

    copy_things(w.canvas.page, w.canvas.things())
    if cut:
        _do(w, "delete")


def _paste(w: Context) -> None:
    from larch.desk.media.clipboard import bring_picture, paste_edit

    if bring_picture(w):
        return
    edit = paste_edit(w.canvas.page, w.canvas.camera.to_page(w.canvas.width() / 2, w.canvas.height() / 2))
    if edit is None:
        w.say(_("There is nothing on the clipboard that can be put on a page."))
    else:
        w.take_tool("select")
        w.canvas.commit(edit)
