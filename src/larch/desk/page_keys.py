"""Keys that act on the page itself: tools, arrows, corners, Enter, Esc, and the things' own keys."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QApplication

from larch.core.base.shape import Box
from larch.core.base.words import _, many
from larch.core.model.action import actions_for
from larch.core.model.capabilities import HasParts
from larch.core.model.edit import Edit
from larch.core.model.grips import Grip, grip_of, grips, nudged, tapped
from larch.core.model.thing import Thing
from larch.desk.fields import ENTER

if TYPE_CHECKING:
    from larch.desk.context import Context

ARROWS = {
    Qt.Key.Key_Left: (-1, 0),
    Qt.Key.Key_Right: (1, 0),
    Qt.Key.Key_Up: (0, -1),
    Qt.Key.Key_Down: (0, 1),
}
NUDGE, NUDGE_FAR = 2.0, 32.0  # page units


class PageKeys:
    """What a key pressed on the page does."""

    def __init__(self, context: Context) -> None:
        self.context = context

    def press(self, event: QKeyEvent) -> bool:
        """Keys that act on the page itself."""
        key, held = event.key(), event.modifiers()
        if not held & ~Qt.KeyboardModifier.KeypadModifier and self.context.part("reading_key")(key):
            return True
        if key in ARROWS and not held & (Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier):
            far = bool(held & Qt.KeyboardModifier.ShiftModifier)
            self._arrow(*ARROWS[Qt.Key(key)], NUDGE_FAR if far else NUDGE)
            return True
        if key == Qt.Key.Key_Space and not event.isAutoRepeat():
            self.context.canvas.pointers.space_held = True
            return True
        if key == Qt.Key.Key_Escape:
            self._escape()
            return True
        if key in ENTER and not self.context.canvas.selection and self.context.canvas.pointers.tool.places:
            self._place()
            return True
        if key in ENTER and len(self.context.canvas.things()) == 1:
            thing = self.context.canvas.things()[0]
            if self._tap_grip(thing):
                return True
            if not self.context.canvas.tap(thing, thing.box().centre):
                self.context.canvas.edit_thing(thing)
            return True
        if self.types_here(event):
            self._begin_typing(event)
            return True
        if not held and (tool := next((t for t in self.context.tools() if t.shortcut == event.text().upper()), None)):
            if self.context.part("ledge").offers(tool):
                self.context.take_tool(tool.name)
            return True
        return self._action_key(event)

    def _place(self) -> None:
        """The text or equation in hand is begun in the middle of what is seen, or beside what lies there."""
        canvas = self.context.canvas
        x, y = canvas.camera.to_page(*canvas.free().centre)
        dx, dy = self.context.part("putting").free_spot(Box(x - 120, y - 40, x + 120, y + 40))
        fresh = canvas.pointers.tool.fresh((x - 120 + dx, y + dy))
        if fresh is not None:
            canvas.edit_thing(fresh)

    def gather(self) -> None:
        """Keeps what is selected while Tab goes on to the next thing, so that several are chosen by keys."""
        canvas = self.context.canvas
        if canvas.selection:
            canvas.gathered = canvas.selection
            count = len(canvas.selection)
            self.context.say(many("1 thing is kept; Tab adds to it.", "{n} things are kept; Tab adds to them.", count))

    def types_here(self, event: QKeyEvent) -> bool:
        """Whether a key is the first letter of what is to be written on the selected thing, such as a note just put out."""
        things = self.context.canvas.things()
        if len(things) != 1 or things[0].locked or things[0].editor != "words":
            return False
        if str(getattr(things[0], "text", " ")) and not self.context.part("putting").is_fresh(things[0]):
            return False
        text = event.text()
        commands = Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier | Qt.KeyboardModifier.MetaModifier
        return bool(text) and text.isprintable() and text != " " and not event.modifiers() & commands

    def _begin_typing(self, event: QKeyEvent) -> None:
        canvas = self.context.canvas
        canvas.edit_thing(canvas.things()[0])
        editor = self.context.part("editors").open
        if editor is not None:
            QApplication.sendEvent(editor, QKeyEvent(event.type(), event.key(), event.modifiers(), event.text()))

    def _action_key(self, event: QKeyEvent) -> bool:
        """A selected thing's own key, such as R for roll. Many keyboards have "+" on the shift key or the number pad."""
        text = event.text()
        allowed = Qt.KeyboardModifier.KeypadModifier
        if text.upper() == text.lower():
            allowed |= Qt.KeyboardModifier.ShiftModifier
        if event.modifiers() & ~allowed or not text:
            return False
        for action in actions_for(self.context.canvas.page, self.context.canvas.things()):
            if action.shortcut == text.upper() and (action.board or not self.context.at_board):
                self.context.canvas.do(action)
                return True
        return False

    def _arrow(self, across: int, down: int, step: float) -> None:
        from larch.core.actions.arrange.arrange import nudge

        things = self.context.canvas.things() if self.context.canvas.may("move") else ()
        focus = self.context.canvas.handle_focus
        if len(things) == 1 and focus and not things[0].locked:
            self._nudge_handle(things[0], focus, across, down, step)
        elif things:
            self.context.canvas.commit(nudge(self.context.canvas.page, things, across * step, down * step))
        else:
            self.context.canvas.pan_by(-across * 64, -down * 64)

    def _nudge_handle(self, thing: Thing, name: str, across: int, down: int, step: float) -> None:
        grip = grip_of(thing, name)
        if grip is None:
            return
        if grip.part:
            self._change_part(thing, grip, nudged(thing, grip, across, down))
            return
        x, y = thing.placement.to_page(*grip.at)
        moved = thing.with_handle(name, *thing.placement.to_local(x + across * step, y + down * step))
        page = self.context.canvas.page
        merge = f"corner {thing.id} {name}"
        self.context.canvas.commit(Edit(_("Drag a corner"), page, page.with_things({thing.id: moved}), merge))

    def _change_part(self, thing: Thing, grip: Grip, after: Thing) -> None:
        assert isinstance(thing, HasParts)
        page = self.context.canvas.page
        edit = Edit(thing.part_label(grip.part), page, page.with_things({thing.id: after}), f"part {thing.id} {grip.name}")
        self.context.canvas.commit(edit)

    def _tap_grip(self, thing: Thing) -> bool:
        """Enter on a part that is in hand is a tap on it."""
        grip = grip_of(thing, self.context.canvas.handle_focus)
        if grip is None or not grip.part:
            return False
        after = tapped(thing, grip)
        if after is thing:
            return False
        self._change_part(thing, grip, after)
        return True

    def next_handle(self) -> None:
        """Takes the next corner or part of the selected thing in hand, for the arrow keys and Enter."""
        things = self.context.canvas.things()
        names = [grip.name for grip in grips(things[0])] if len(things) == 1 else []
        if names:
            where = names.index(self.context.canvas.handle_focus) + 1 if self.context.canvas.handle_focus in names else 0
            self.context.canvas.handle_focus = names[where] if where < len(names) else ""
            self.context.canvas.viewed.emit()
            self.context.canvas.update()

    def _escape(self) -> None:
        """Gives up what is under way; else clears the selection; else leaves the Board."""
        if self.context.canvas.pointers.busy:
            self.context.canvas.pointers.cancel()
        elif self.context.canvas.handle_focus:
            self.context.canvas.handle_focus = ""
            self.context.canvas.viewed.emit()
            self.context.canvas.update()
        elif self.context.shows("choices"):
            self.context.part("choices").hide()
        elif self.context.canvas.opened:
            group, self.context.canvas.opened = self.context.canvas.opened, ""
            page = self.context.canvas.page
            self.context.canvas.select([thing.id for thing in page.things if group in thing.groups])
        elif self.context.canvas.selection:
            self.context.canvas.select(())
        elif self.context.shows("shelf"):
            self.context.show_shelf(False)
        elif self.context.at_board:
            self.context.go_to_desk()
