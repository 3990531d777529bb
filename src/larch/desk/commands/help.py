"""Commands of the Help menu."""

from __future__ import annotations

from typing import TYPE_CHECKING

from larch.core.base.words import _
from larch.desk.commands.command import Command

if TYPE_CHECKING:
    from larch.desk.context import Context


ORDER = 90


def build(w: Context) -> list[Command]:
    return [
        Command("help", _("How things work"), lambda: _show_help(w), "Help", "circle-help", "F1", _("manual guide keys")),
        Command("log", _("Show the log"), lambda: _show_log(w), "Help", "scroll-text", words=_("error trouble went wrong")),
    ]  # fmt: skip


def _show_help(w: Context) -> None:
    from larch.desk.dialogs.help import show_help

    show_help(w)


def _show_log(w: Context) -> None:
    from larch.desk.dialogs.help import show_log

    show_log(w)
