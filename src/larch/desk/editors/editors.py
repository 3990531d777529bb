"""Editors on the page: text where it stands, an equation with its graph following every key."""

from __future__ import annotations

import contextlib
import importlib
from collections.abc import Callable
from functools import cached_property
from typing import TYPE_CHECKING, Protocol, cast

from msgspec import structs
from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QKeyEvent, QKeySequence
from PyQt6.QtWidgets import QWidget

from larch.board.canvas import Canvas
from larch.board.timers import retire, timer
from larch.core.base.words import _
from larch.core.model.action import put
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.desk.editors.cells import kept_on, with_room

if TYPE_CHECKING:
    from larch.desk.editors.spelling import Spelling


DRAFT_EVERY = 800  # ms; what is typed is in the journal within two seconds


def heard_by_window(editor: QWidget, event: QEvent | None) -> bool:
    """Answers Qt's question whether a key may be a shortcut: keys belong to what is being typed, but for those of commands
    that make sense meanwhile (`Command.while_typing`), such as saving. True if it was that question, and is answered."""
    if not isinstance(event, QKeyEvent) or event.type() != QEvent.Type.ShortcutOverride:
        return False
    asked, window = QKeySequence(event.keyCombination()), editor.window()
    moves = event.key() in (Qt.Key.Key_PageUp, Qt.Key.Key_PageDown) and not event.modifiers()  # the caret
    actions = window.actions() if window is not None and not moves else []
    event.setAccepted(not any(a.property("while typing") and a.isEnabled() and asked in a.shortcuts() for a in actions))
    return True


class Editor(Protocol):
    """What is open on the page while something is typed."""

    def result(self) -> Edit | None:
        """What would be committed if typing ended now; None if nothing. Raises ValueError if it makes no sense as yet."""
        ...

    def state(self) -> object:
        """Is another whenever what is typed is; cheap to ask for."""
        ...

    def keep(self) -> None:
        """Stores what was typed and goes away."""
        ...

    def go_on(self, page: Page) -> None:
        """What was typed so far has just been committed, and the page is this: the rest is typed into what is there now."""
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
        self._drafted: tuple[object, ...] = ()
        self._looks = timer(self, self.draft, DRAFT_EVERY)

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
        if self.open is not None:
            self._looks.start()

    def draft(self) -> None:
        """Has the journal hold what is being typed: it comes back as typed if Larch is killed now."""
        if self.open is None:
            return
        now = (self.open, self.open.state(), self.canvas.page)
        if len(now) != len(self._drafted) or any(a is not b and a != b for a, b in zip(now, self._drafted, strict=True)):
            self._drafted = now
            self.canvas.session.draft(self._so_far())

    def _so_far(self) -> Edit | None:
        with contextlib.suppress(ValueError):
            edit = self.open.result() if self.open is not None else None
            return None if edit is None or edit.is_empty() else edit
        return None

    def keep_so_far(self) -> None:
        """Commits what has been typed, and the caret stays where it is."""
        edit = self._so_far()
        if self.open is not None and edit is not None:
            self.canvas.commit(structs.replace(edit, select=None))
            self.open.go_on(self.canvas.page)

    def finish(self) -> None:
        """Keeps what was typed and closes."""
        if self.open is not None:
            editor, self.open = self.open, None
            self.canvas.editing = False
            self._looks.stop()
            self._drafted = ()
            before = self.canvas.session.revision
            editor.keep()
            if self.canvas.session.revision == before:  # an edit would have taken the draft's place
                self.canvas.session.draft(None)

    def take_away(self, editor: Editor) -> None:
        """Removes an editor from the page and gives the keys back to the page."""
        self.canvas.end_preview(editor)
        retire(cast(QWidget, editor))
        self.canvas.setFocus()

    def stored(self, before: Thing, after: Thing, label: str, empty: bool) -> Edit | None:
        """A finished edit: a new thing, a changed one, or none at all if nothing is left."""
        page = self.canvas.page
        if page.thing(before.id) is None:
            if empty:
                return None
            edit = put(page, [kept_on(page, after.replace(id=""))], label)
            assert isinstance(edit.after, Page)
            roomy = with_room(edit.after, edit.after.things[-1])
            return Edit(label, page, roomy, select=edit.select)
        if empty:
            return Edit(_("Delete"), page, page.without([before.id]))
        changed = page.with_things({before.id: after})
        return Edit(label, page, with_room(changed, after))
