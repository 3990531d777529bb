"""What can be done with a selection, as a menu: the likely things first, those that belong together in menus within it."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from functools import partial

from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import QMenu, QWidget

from larch.board.canvas import Canvas
from larch.board.look import icon
from larch.core.base.words import _, many
from larch.core.model.action import Action

LIKELY = 6  # actions that stand in the menu itself; what else there is lies in its last fold


def add_actions(menu: QMenu, canvas: Canvas, actions: Iterable[Action], keys: bool = False) -> None:
    """Adds actions of the selection, with their keys if wanted."""
    page, things = canvas.page, canvas.things()
    listed = list(actions)
    plain = [action for action in listed if action.fold is None]
    rest = plain[LIKELY:] if len(plain) > LIKELY + 2 else []
    folded: dict[str, QMenu] = {}

    def add(target: QMenu, action: Action) -> None:
        key = f"\t{action.shortcut}" if keys and action.shortcut else ""
        entry = target.addAction(icon(action.icon), action.label(page, things) + key)
        assert entry is not None
        entry.triggered.connect(partial(lambda action, _on=False: canvas.do(action), action))

    for action in plain[: len(plain) - len(rest)]:
        add(menu, action)
    if any(action.fold for action in listed) and plain:
        menu.addSeparator()
    for action in listed:
        if action.fold is not None:
            if action.fold.name not in folded:
                folded[action.fold.name] = _within(menu, _(action.fold.label), action.fold.icon)
            add(folded[action.fold.name], action)
    if rest:
        more = _within(menu, _("more"), "ellipsis")
        for action in rest:
            add(more, action)


def _within(menu: QMenu, label: str, picture: str) -> QMenu:
    made = QMenu(label, menu)
    made.setIcon(icon(picture))
    menu.addMenu(made)
    return made


def selection_menu(parent: QWidget, canvas: Canvas, facts: Callable[[], object], keys: bool = False) -> QMenu:
    """All that can be done with the selection; its facts come first."""
    from larch.core.model.action import actions_for

    menu = QMenu(parent)
    entry: QAction | None = None
    if not canvas.at_board:
        entry = menu.addAction(icon("info"), _("facts") + ("\tCtrl+I" if keys else ""))
        assert entry is not None
        entry.triggered.connect(lambda: facts())
    offered = actions_for(canvas.page, canvas.things())
    add_actions(menu, canvas, [action for action in offered if action.board or not canvas.at_board], keys)
    return menu


def add_selection(menu: QMenu, canvas: Canvas, want_facts: Callable[[], object]) -> None:
    """What the selection can do, as one entry of a menu; made anew each time."""
    for old in [a for a in menu.actions() if a.property("selection")]:
        menu.removeAction(old)
    things = canvas.things()
    if not things:
        return
    within = selection_menu(menu, canvas, want_facts, keys=True)
    label = things[0].label(canvas.page) if len(things) == 1 else many("1 thing", "{n} things", len(things))
    within.setTitle(label.replace("&", "&&"))
    before = next((a for a in menu.actions() if a.objectName() == "select all"), None)
    entry = menu.insertMenu(before, within)
    assert entry is not None
    entry.setProperty("selection", True)
