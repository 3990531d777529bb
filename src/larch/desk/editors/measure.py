"""A measure typed where it stands: a field over its slip on the page."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QFocusEvent, QKeyEvent

from larch.board.timers import retire
from larch.board.views.base import box_at
from larch.board.views.measure_labels import laid_out
from larch.core.base.words import _
from larch.desk.fields import ENTER, Field

if TYPE_CHECKING:
    from larch.desk.context import Context


class MeasureField(Field):
    """Enter makes it come true or says why it can't; Esc leaves it as it was."""

    def __init__(self, context: Context, id: str, name: str) -> None:
        super().__init__(context.canvas)
        self.context, self.id, self.name = context, id, name
        self._done = False
        canvas = context.canvas
        laid = next((one for one in laid_out(canvas.page).get(id, []) if one.slip.name == name), None)
        thing = canvas.page.thing(id)
        fact = next((f for f in thing.facts(canvas.page) if f.name == name), None) if thing is not None else None
        if laid is None or fact is None or fact.set is None:
            self._done = True
            if fact is not None:
                context.say(_("{fact} follows from the rest; change that.").format(fact=fact.label.capitalize()))
            retire(self)
            return
        self.setAccessibleName(fact.label)
        self.setText(fact.text)
        self.selectAll()
        box = canvas.camera.box_to_view(box_at(laid.slip, laid.at))
        wide, high = max(110, round(box.width) + 24), max(44, round(box.height) + 8)
        x, y = round(box.centre[0] - wide / 2), round(box.centre[1] - high / 2)
        free = canvas.free()
        self.setGeometry(max(4, min(x, round(free.x1) - wide - 4)), max(4, min(y, round(free.y1) - high - 4)), wide, high)
        self.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._camera, self._page = canvas.camera, canvas.page_id
        canvas.viewed.connect(self._viewed)
        self.show()
        self.raise_()
        self.setFocus()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in ENTER:
            event.accept()
            self._take()
        elif event is not None and event.key() == Qt.Key.Key_Escape:
            event.accept()
            self._leave()
        else:
            super().keyPressEvent(event)

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        super().focusOutEvent(event)
        if event is None or event.reason() != Qt.FocusReason.PopupFocusReason:
            self._take()

    def _viewed(self) -> None:
        """The page moved away under it."""
        canvas = self.context.canvas
        if canvas.camera is not self._camera or canvas.page_id != self._page:
            self._leave()

    def _take(self) -> None:
        if self._done:
            return
        typed, changed = self.text(), self.isModified()
        self._leave()
        if changed:
            card = self.context.part("facts")
            self.context.canvas.select((self.id,))
            said = card.set_fact(self.name, typed)
            if said and not card.isVisible():
                self.context.say(said)

    def _leave(self) -> None:
        if not self._done:
            self._done = True
            self.hide()
            retire(self)
            self.context.canvas.setFocus()
