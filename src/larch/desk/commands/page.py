"""Commands of the page: turning, papers, sizes, setting out, wiping."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from PyQt6.QtCore import QPoint
from PyQt6.QtWidgets import QMenu

from larch.board.look import icon
from larch.core.actions.arrange.arrange import set_out, set_out_again
from larch.core.base.words import _
from larch.core.model.edit import Edit
from larch.core.model.page import SIZES, Page
from larch.core.model.page_facts import dress, resize
from larch.core.model.paper import PATTERNS, fresh_paper
from larch.desk.commands.command import Command, ask_title

if TYPE_CHECKING:
    from larch.desk.context import Context


ORDER = 30


def build(w: Context) -> list[Command]:
    pages = w.part("pages")
    sizes = [
        Command(f"size {name}", _("Page size {name}").format(name=_(name)), partial(lambda name: w.canvas.commit(
            resize(w.canvas.page, name)), name), "", "proportions", words=_("format portrait landscape printed part"))
        for name in SIZES
    ]  # fmt: skip
    papers = [
        Command(f"paper {name}", _("Paper: {name}").format(name=one.label()), partial(_paper, w, name),
                "", one.icon, words=one.words())
        for name, one in PATTERNS.items()
    ]  # fmt: skip
    return [
        Command("new page", _("New page"), pages.new, "Page", "plus", "Ctrl+Shift+N"),
        Command("copy page", _("Copy page"), pages.copy, "Page", "copy", words=_("duplicate")),
        Command("delete page", _("Delete page"), pages.delete, "Page", "trash-2"),
        Command("rename page", _("Title of the page…"), lambda: _rename_page(w), "Page", "pencil", words=_("rename name")),
        Command("page before", _("Page before"), lambda: w.turn(-1), "Page", "chevron-left", "PgUp", apart=True, board=True),
        Command("next page", _("Next page"), lambda: w.turn(1), "Page", "chevron-right", "PgDown", board=True),
        Command("go to page", _("Go to page…"), pages.ask_number, "Page", "hash", "Ctrl+J", _("jump number"), board=True),
        Command("spread", _("All pages"), pages.spread, "Page", "layout-grid", "Ctrl+Shift+P", _("spread overview sort")),
        Command("page sooner", _("Move page sooner"), lambda: pages.move("sooner"), "", "arrow-left", "Ctrl+Shift+PgUp",
                _("reorder")),
        Command("page later", _("Move page later"), lambda: pages.move("later"), "", "arrow-right", "Ctrl+Shift+PgDown",
                _("reorder")),
        Command("papers", _("Papers…"), lambda: _papers_tray(w), "Page", "file", words=_("background lined"), apart=True),
        Command("page facts", _("Paper and size of this page"), lambda: _page_facts(w), "Page", "info",
                words=_("line height margin colour format facts")),
        Command("set out", _("Set out"), lambda: _set_out(w), "Page", "flag-triangle-right", "Ctrl+Shift+O",
                _("remember arrangement"), apart=True, fold=_("Set out")),
        Command("set out again", _("Set out again"), lambda: _set_out_again(w), "Page",
                "flag", "Ctrl+Shift+R", _("reset restore put back"), lambda: bool(w.canvas.page.setouts), fold=_("Set out"),
                board=True),
        Command("wipe", _("Wipe ink"), w.part("hand").wipe, "Page", "brush-cleaning", "Ctrl+Shift+W",
                _("clear erase remove pen"), fold=_("Ink")),
        Command("keep ink", _("Keep what is written"), w.part("hand").keep_ink, "Page", "lock",
                words=_("lock ink protect eraser pupils"), fold=_("Ink")),
        *sizes, *papers,
    ]  # fmt: skip


def _paper(w: Context, pattern: str) -> None:
    page = w.canvas.page
    kept = {"colour": page.paper.colour, "lines": page.paper.lines}
    w.canvas.commit(dress(page, fresh_paper(pattern).replace(**kept)))


def _page_facts(w: Context) -> None:
    w.take_tool("select")
    w.canvas.select(())
    w.part("facts").want(True)


def _papers_tray(w: Context) -> None:
    w.show_shelf(True)
    w.part("shelf").choose("Papers")


def _set_out(w: Context) -> None:
    w.canvas.commit(set_out(w.canvas.page))
    w.say(_("Remembered. “Set out again” brings the page back to this."))


def _set_out_again(w: Context) -> None:
    """Back to the arrangement of the page; of several, the one that is chosen from their names."""
    page = w.canvas.page
    if len(page.setouts) < 2:
        w.canvas.commit(set_out_again(page))
        return
    menu = QMenu(w.top)
    for kept in page.setouts:
        entry = menu.addAction(icon("flag"), kept.name.replace("&", "&&") or _("without a name"))
        assert entry is not None
        entry.triggered.connect(partial(lambda name, _on=False: w.canvas.commit(set_out_again(page, name)), kept.name))
    button = w.part("ledge").again
    at = button.mapToGlobal(QPoint(0, 0)) - QPoint(0, menu.sizeHint().height())
    menu.popup(at if at.y() > 0 else button.mapToGlobal(QPoint(0, button.height())))


def _rename_page(w: Context) -> None:
    page: Page = w.canvas.page
    title = ask_title(w, _("What is the page called?"), page.title)
    if title is not None:
        w.canvas.commit(Edit(_("Rename page"), page, page.replace(title=title)))
