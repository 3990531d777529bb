"""Commands for arranging: layers, selecting, keeping on the shelf, links, set-outs by name, a page of contents."""

from __future__ import annotations

from typing import TYPE_CHECKING

from larch.core.actions.arrange.arrange import same_kind, set_out, set_out_again
from larch.core.actions.links import contents
from larch.core.base.words import _
from larch.core.model.edit import Edit
from larch.desk.commands.command import Command

if TYPE_CHECKING:
    from larch.desk.context import Context

ORDER = 60
MOST_SETOUTS = 12


def build(w: Context) -> list[Command]:
    chosen = lambda: bool(w.canvas.selection)  # noqa: E731
    return [
        Command("layers", _("Layers"), lambda: w.show_card("layers"), "Edit", "layers", "Ctrl+Shift+L",
                _("behind front order list everything hidden eye find")),
        Command("same kind", _("Select all of the same kind"), lambda: _same_kind(w), "Edit", "square-dashed",
                "Ctrl+Shift+A", _("similar alike"), chosen),
        Command("ring select", _("Select with a ring"), lambda: _mode(w, "ring"), "", "lasso", words=_("lasso round free")),
        Command("box select", _("Select with a box"), lambda: _mode(w, "box"), "", "square-dashed", words=_("marquee")),
        Command("show hidden", _("Show all that is hidden"), lambda: _show_hidden(w), "Edit", "eye",
                words=_("unhide visible"), enabled=lambda: any(t.hidden for t in w.canvas.page.things)),
        Command("keep", _("Keep on the shelf…"), lambda: w.part("keeping").ask(), "Edit", "bookmark-plus", "Ctrl+Shift+K",
                _("store reuse favourite gallery own"), chosen),
        Command("keep page", _("Keep this page on the shelf…"), lambda: w.part("keeping").ask(whole=True), "Page",
                "bookmark-plus", words=_("store reuse template")),
        Command("link page", _("Link to a page…"), lambda: w.part("following").ask_page(), "Edit", "link",
                words=_("jump button"), enabled=chosen, apart=True, fold=_("Link")),
        Command("link address", _("Link to an address or a file…"), lambda: w.part("following").ask_address(), "Edit",
                "external-link", words=_("web url website document open"), enabled=chosen, fold=_("Link")),
        Command("link sound", _("Put a sound behind it…"), lambda: w.part("following").ask_sound(), "Edit", "volume-2",
                words=_("audio play music link"), enabled=chosen, fold=_("Link")),
        Command("follow link", _("Follow the link"), lambda: w.part("following").selected(), "Edit", "external-link",
                "Ctrl+Return", _("open go jump"), lambda: any(thing.link for thing in w.canvas.things()), fold=_("Link")),
        Command("contents", _("Page of contents"), lambda: _contents(w), "Page", "list-tree",
                words=_("index table titles overview links")),
        Command("set out as", _("Set out as…"), lambda: ask_set_out(w), "Page", "flag-triangle-right",
                words=_("remember arrangement name several version"), fold=_("Set out")),
        Command("set out which", _("Set out again…"), lambda: ask_again(w), "", "flag", words=_("restore arrangement name"),
                enabled=lambda: len(w.canvas.page.setouts) > 0),
    ]  # fmt: skip


def _same_kind(w: Context) -> None:
    w.take_tool("select")
    w.canvas.select(same_kind(w.canvas.page, w.canvas.things()))


def _mode(w: Context, mode: str) -> None:
    w.take_tool("select")
    w.tool("select").mode = mode


def _show_hidden(w: Context) -> None:
    page = w.canvas.page
    ids = [thing.id for thing in page.things if thing.hidden]
    shown = page.changing(ids, lambda thing: thing.replace(hidden=False))
    w.canvas.commit(Edit(_("Show"), page, shown, select=tuple(ids)))


def _contents(w: Context) -> None:
    """A new first page that lists the others."""
    lesson = w.session.lesson
    page = contents(lesson)
    if len(page.things) < 2:
        w.say(_("No page has a title yet; give them titles first."))
        return
    after = lesson.insert(page, 0)
    w.session.commit(Edit(_("Page of contents"), lesson, after))
    w.show_page(after.pages[0].id)
    w.pages_changed()


def ask_set_out(w: Context) -> None:
    from PyQt6.QtWidgets import QInputDialog

    name, good = QInputDialog.getText(w.top, _("Set out"), _("What is this arrangement called?"))
    if good:
        remember(w, name)


def remember(w: Context, name: str) -> None:
    """Remembers the arrangement of the page by a name."""
    page = w.canvas.page
    if len(page.setouts) >= MOST_SETOUTS and all(kept.name != name.strip() for kept in page.setouts):
        w.say(_("A page remembers up to {n} arrangements.").format(n=MOST_SETOUTS))
        return
    w.canvas.commit(set_out(page, name))
    w.say(_("Remembered as “{name}”.").format(name=name.strip()[:60]) if name.strip() else _("Remembered."))


def ask_again(w: Context) -> None:
    from PyQt6.QtWidgets import QInputDialog

    names = [kept.name for kept in w.canvas.page.setouts]
    shown = [name or _("without a name") for name in names]
    choice, good = QInputDialog.getItem(w.top, _("Set out again"), _("Which arrangement?"), shown, 0, False)
    if good and choice in shown:
        w.canvas.commit(set_out_again(w.canvas.page, names[shown.index(choice)]))
