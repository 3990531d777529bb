"""Commands for putting things out, and for taking tools."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from larch.core.base.words import _
from larch.desk.commands.command import Command

if TYPE_CHECKING:
    from larch.desk.context import Context


ORDER = 50


def build(w: Context) -> list[Command]:
    tools = [
        Command(f"tool {tool.name}", tool.label(), partial(w.take_tool, tool.name), "", tool.icon,
                words=_("tool") + " " + tool.shortcut)
        for tool in w.tools()
    ]  # fmt: skip
    return [
        Command("shelf", _("Shelf"), lambda: w.show_shelf(not w.shows("shelf")), "Put out", "library", "Ctrl+B",
                _("drawer things equipment"), enabled=lambda: w.canvas.may("shelf"), board=True),
        Command("picture file", _("Picture from a file…"), lambda: w.part("bringing").ask(), "Put out", "image-plus",
                words=_("photograph drawing import insert own image svg png jpeg")),
        Command("note", _("Sticky note"), lambda: w.part("putting").put_out_named("note"), "Put out", "sticky-note",
                words=_("memo write fold tab")),
        Command("finder", _("Find anything…"), lambda: w.part("finder").open(), "Put out", "search", "Ctrl+K",
                _("finder search command")),
        *tools,
    ]  # fmt: skip
