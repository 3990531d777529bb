"""What can be done with a selection, as a menu: the likely things first, those that belong together in menus within it."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial

from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import QMenu

from larch.board.canvas import Canvas
from larch.board.look import icon
from larch.core.base.words import _
from larch.core.model.action import Action


def add_actions(menu: QMenu, canvas: Canvas, actions: Iterable[Action], keys: bool = False) -> list[QAction]:
    """Adds actions of the selection, with their keys if wanted; returns what now stands in the menu itself."""
    page, things = canvas.page, canvas.things()
    folded: dict[str, QMenu] = {}
    made: list[QAction] = []
    for action in actions:
        fold = action.fold
        if fold is not None and fold.name not in folded:
            within = folded[fold.name] = QMenu(_(fold.label), menu)
            within.setIcon(icon(fold.icon))
            opened = menu.addMenu(within)
            assert opened is not None
            made.append(opened)
        key = f"\t{action.shortcut}" if keys and action.shortcut else ""
        target = menu if fold is None else folded[fold.name]
        entry = target.addAction(icon(action.icon), action.label(page, things) + key)
        assert entry is not None
        entry.triggered.connect(partial(lambda action, _on=False: canvas.do(action), action))
        if fold is None:
            made.append(entry)
    return made
