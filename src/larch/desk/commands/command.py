"""Commands: all that the window can do, listed once for menus, keys and the Finder."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QMenu, QWidget

from larch.board.look import icon


class Command:
    """name: stable; menu: where it stands ("" for only the Finder); label as read; enabled asked when shown."""

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


class Commands:
    """The list, turned into QActions of one window."""

    def __init__(self, window: QWidget, listed: list[Command]) -> None:
        self.listed = listed
        self.actions: dict[str, QAction] = {}
        for command in (one for one in listed if one.menu or one.shortcut):  # the others are only for the Finder
            action = QAction(command.label, window)
            if command.icon:
                action.setIcon(icon(command.icon))
            if command.shortcut:
                action.setShortcuts([QKeySequence(key) for key in command.shortcut.split(" or ")])
            action.triggered.connect(lambda _checked=False, run=command.run: run())
            action.setObjectName(command.name)
            self.actions[command.name] = action
            window.addAction(action)

    def fill(self, menu: QMenu, name: str) -> None:
        for command in self.listed:
            if command.menu == name:
                if command.apart:
                    menu.addSeparator()
                menu.addAction(self.actions[command.name])

    def refresh(self) -> None:
        """Enables what can be done now."""
        for command in self.listed:
            if command.name in self.actions:
                self.actions[command.name].setEnabled(command.enabled())
