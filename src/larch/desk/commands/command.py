"""Commands: all that the window can do, listed once for menus, keys and the Finder."""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QMenu

from larch.board.look import icon
from larch.core.base.words import _

if TYPE_CHECKING:
    from larch.desk.context import Context


HEARD_WHILE_TYPING = ("Lesson", "Page", "View", "Help")  # menus


class Command:
    """name: stable; menu: where it stands ("" for only the Finder); label as read; enabled asked when shown;
    fold: the label of the menu within the menu in which it lies, if any; board: whether it can be
    done at the Board, which belongs to the class; checked: whether it is chosen now, of one that can be; stays: whether
    typing goes on meanwhile."""

    def __init__(
        self,
        name: str,
        label: str,
        run: Callable[[], object],
        menu: str = "",
        icon: str = "",
        shortcut: str = "",
        words: str = "",
        enabled: Callable[[], bool] = lambda: True,
        apart: bool = False,
        fold: str = "",
        board: bool = False,
        checked: Callable[[], bool] | None = None,
        stays: bool = False,
    ) -> None:
        self.name = name
        self.label = label
        self.run = run
        self.menu = menu
        self.icon = icon
        self.shortcut = shortcut
        self.words = words
        self.enabled = enabled
        self.apart = apart
        self.fold = fold
        self.board = board
        self.checked = checked
        self.stays = stays

    def while_typing(self) -> bool:
        """Whether its key is heard while something is typed: those of editing and arranging belong to the words then."""
        return self.menu in HEARD_WHILE_TYPING or self.name in ("finder", "part before")


class Commands:
    """The list, turned into QActions of one window."""

    def __init__(self, context: Context, listed: list[Command]) -> None:
        self.context = context
        window = context.top
        self.listed = listed
        self.actions: dict[str, QAction] = {}
        for command in (one for one in listed if one.menu or one.shortcut):  # the others are only for the Finder
            action = QAction(command.label, window)
            if command.icon:
                action.setIcon(icon(command.icon))
            if command.shortcut:
                action.setShortcuts([QKeySequence(key) for key in command.shortcut.split(" or ")])
            action.setCheckable(command.checked is not None)
            action.triggered.connect(partial(self._run, command))
            action.setProperty("while typing", command.while_typing())
            action.setObjectName(command.name)
            self.actions[command.name] = action
            window.addAction(action)

    def _run(self, command: Command, _checked: bool = False) -> None:
        if command.while_typing() and not command.stays:
            self.context.finish_typing()
        command.run()

    def fill(self, menu: QMenu, name: str) -> None:
        """Adds the commands of a menu to it."""
        folds: dict[str, QMenu] = {}
        for command in self.listed:
            if command.menu != name:
                continue
            if command.apart and (not command.fold or command.fold not in folds):
                menu.addSeparator()
            target = menu
            if command.fold:
                if command.fold not in folds:
                    folds[command.fold] = QMenu(command.fold, menu)
                    menu.addMenu(folds[command.fold])
                target = folds[command.fold]
            target.addAction(self.actions[command.name])

    def refresh(self) -> None:
        """Enables what can be done now."""
        for command in self.listed:
            if command.name in self.actions:
                self.actions[command.name].setEnabled(self.can(command))
                if command.checked is not None:
                    self.actions[command.name].setChecked(command.checked())

    def can(self, command: Command) -> bool:
        """Whether it can be done now, here."""
        return (command.board or not self.context.at_board) and command.enabled()


def all_commands(context: Context) -> list[Command]:
    """The commands of every module of this folder that has `build`, in the order of their `ORDER`."""
    from larch.desk import commands

    modules = [importlib.import_module(f"{commands.__name__}.{m.name}") for m in pkgutil.iter_modules(commands.__path__)]
    building = sorted((m for m in modules if hasattr(m, "build")), key=lambda module: module.ORDER)
    return [command for module in building for command in module.build(context)]


def ask_title(w: Context, question: str, before: str) -> str | None:
    """What a person wants something to be called; None if they think better of it."""
    from PyQt6.QtWidgets import QInputDialog

    text, good = QInputDialog.getText(w.top, _("Title"), question, text=before)
    return text.strip()[:200] if good else None
