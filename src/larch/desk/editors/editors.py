"""Editors on the page: text where it stands, an equation with its graph following every key."""

from __future__ import annotations

import importlib
from collections.abc import Callable
from functools import cached_property
from typing import TYPE_CHECKING, Protocol, cast

from PyQt6.QtCore import QObject
from PyQt6.QtWidgets import QWidget

from larch.board.canvas import Canvas
from larch.board.timers import retire
from larch.core.base.words import _
from larch.core.model.action import put
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.desk.editors.cells import kept_on, with_room

if TYPE_CHECKING:
    from larch.desk.editors.spelling import Spelling


class Editor(Protocol):
    """What is open on the page while something is typed."""

    def keep(self) -> None:
        """Stores what was typed and goes away."""
        ...

    def place(self) -> None:
        """Goes to where its thing is seen by now."""
        ...

    def hide(self) -> None: ...

    def deleteLater(self) -> None: ...


def opener(name: str) -> Callable[[Editors, Thing], Editor | None]:
    """What opens the editor that a thing names (`Thing.editor`): `edit` of the module of that name in this folder."""
    found: Callable[[Editors, Thing], Editor | None] = importlib.import_module(f"larch.desk.editors.{name}").edit
    return found


class Editors(QObject):
    """Opens the editor of a thing; one at a time, and leaving it keeps what was typed."""

    def __init__(self, canvas: Canvas, tell: Callable[[str], None]) -> None:
        super().__init__(canvas)
        self.canvas = canvas
        self.tell = tell
        self.open: Editor | None = None
        canvas.viewed.connect(lambda: self.open.place() if self.open is not None else None)

    @cached_property
    def speller(self) -> Spelling:
        """Made when words are first typed."""
        from larch.desk.editors.spelling import Spelling

        return Spelling(self, lambda: self.canvas.session.lesson.language)

    def edit(self, thing: Thing, how: str = "") -> None:
        """Opens the editor that a thing asks for, or another of this folder; many have none."""
        self.finish()
        self.canvas.editing = not thing.locked and bool(thing.editor)
        self.canvas.viewed.emit()
        if thing.editor and thing.locked:
            self.tell(_("It is locked; unlock it to change it."))
        elif thing.editor:
            opened = opener(how or thing.editor)(self, thing)
            self.open = opened if opened is not None else self.open

    def finish(self) -> None:
        """Keeps what was typed and closes."""
        if self.open is not None:
            editor, self.open = self.open, None
            self.canvas.editing = False
            editor.keep()

    def take_away(self, editor: Editor) -> None:
        """Removes an editor from the page and gives the keys back to the page."""
        self.canvas.end_preview(editor)
        retire(cast(QWidget, editor))
        self.canvas.setFocus()

    def store(self, before: Thing, after: Thing, label: str, empty: bool) -> None:
        """Commits a finished edit: a new thing, a changed one, or none at all if nothing is left."""
        page = self.canvas.page
        if page.thing(before.id) is None:
            if not empty:
                edit = put(page, [kept_on(page, after.replace(id=""))], label)
                assert isinstance(edit.after, Page)
                roomy = with_room(edit.after, edit.after.things[-1])
                self.canvas.commit(Edit(label, page, roomy, select=edit.select))
        elif empty:
            self.canvas.commit(Edit(_("Delete"), page, page.without([before.id])))
        else:
            changed = page.with_things({before.id: after})
            self.canvas.commit(Edit(label, page, with_room(changed, after)))
