"""Keys that act on the page itself: tools, arrows, corners, Enter, Esc, and the things' own keys."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent

from larch.core.actions.arrange.arrange import nudge
from larch.core.base.words import _
from larch.core.model.action import actions_for
from larch.core.model.edit import Edit
from larch.core.model.thing import Thing

if TYPE_CHECKING:
    from larch.desk.window import Window

ARROWS = {
    Qt.Key.Key_Left: (-1, 0),
    Qt.Key.Key_Right: (1, 0),
    Qt.Key.Key_Up: (0, -1),
    Qt.Key.Key_Down: (0, 1),
}
NUDGE, NUDGE_FAR = 2.0, 32.0  # page units


class PageKeys:
    """What a key pressed on the page does."""

    def __init__(self, window: Window) -> None:
        self.window = window

    def press(self, event: QKeyEvent) -> bool:
        """Keys that act on the page itself."""
        key, held = event.key(), event.modifiers()
        if key in ARROWS and not held & (Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier):
            far = bool(held & Qt.KeyboardModifier.ShiftModifier)
            self._arrow(*ARROWS[Qt.Key(key)], NUDGE_FAR if far else NUDGE)
            return True
        if key == Qt.Key.Key_Space and not event.isAutoRepeat():
            self.window.canvas.pointers.space_held = True
            return True
        if key == Qt.Key.Key_Escape:
            self._escape()
            return True
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and len(self.window.canvas.things()) == 1:
            thing = self.window.canvas.things()[0]
            if not self.window.canvas.tap(thing, thing.box().centre):
                self.window.canvas.edit_thing(thing)
            return True
        if not held and (tool := next((t for t in self.window.ledge.tools if t.shortcut == event.text().upper()), None)):
            self.window.ledge.take(tool.name)
            return True
        return self._action_key(event)

    def _action_key(self, event: QKeyEvent) -> bool:
        """A selected thing's own key, such as R for roll."""
        if event.modifiers() or not event.text():
            return False
        for action in actions_for(self.window.canvas.page, self.window.canvas.things()):
            if action.shortcut == event.text().upper():
                self.window.canvas.do(action)
                return True
        return False

    def _arrow(self, across: int, down: int, step: float) -> None:
        things = self.window.canvas.things()
        focus = self.window.canvas.handle_focus
        if len(things) == 1 and focus and not things[0].locked:
            self._nudge_handle(things[0], focus, across * step, down * step)
        elif things:
            self.window.canvas.commit(nudge(self.window.canvas.page, things, across * step, down * step))
        else:
            self.window.canvas.pan_by(-across * 64, -down * 64)

    def _nudge_handle(self, thing: Thing, name: str, dx: float, dy: float) -> None:
        handle = next((h for h in thing.handles() if h.name == name), None)
        if handle is None:
            return
        x, y = thing.placement.to_page(handle.x, handle.y)
        moved = thing.with_handle(name, *thing.placement.to_local(x + dx, y + dy))
        page = self.window.canvas.page
        merge = f"corner {thing.id} {name}"
        self.window.canvas.commit(Edit(_("Drag a corner"), page, page.with_things({thing.id: moved}), merge))

    def next_handle(self) -> None:
        """Takes the next corner of the selected thing in hand, for the arrow keys."""
        things = self.window.canvas.things()
        names = [handle.name for handle in things[0].handles()] if len(things) == 1 else []
        if names:
            where = names.index(self.window.canvas.handle_focus) + 1 if self.window.canvas.handle_focus in names else 0
            self.window.canvas.handle_focus = names[where] if where < len(names) else ""
            self.window.canvas.update()

    def _escape(self) -> None:
        """Gives up what is under way; else clears the selection; else leaves the Board."""
        if self.window.canvas.pointers.busy:
            self.window.canvas.pointers.cancel()
        elif self.window.canvas.handle_focus:
            self.window.canvas.handle_focus = ""
            self.window.canvas.update()
        elif self.window.shows("choices"):
            self.window.choices.hide()
        elif self.window.canvas.opened:
            group, self.window.canvas.opened = self.window.canvas.opened, ""
            page = self.window.canvas.page
            self.window.canvas.select([thing.id for thing in page.things if group in thing.groups])
        elif self.window.canvas.selection:
            self.window.canvas.select(())
        elif self.window.shows("shelf"):
            self.window.show_shelf(False)
        elif self.window.at_board:
            self.window.go_to_desk()
