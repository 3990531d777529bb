"""The editor of equations: a line to type in, with the graph following every key."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QEvent, QObject, QPointF, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QFrame, QVBoxLayout

from larch.board.gestures.base import nothing
from larch.board.views import view_of
from larch.core.base.words import _
from larch.core.maths.expression import ExpressionError, parse, reading
from larch.core.maths.graph import readable
from larch.core.model.thing import Thing
from larch.core.things.graphs.equation import LONGEST, Equation
from larch.desk.fields import Field
from larch.desk.plain import Words
from larch.desk.style import lift

if TYPE_CHECKING:
    from larch.desk.editors.editors import Editors


class EquationEditor(QFrame):
    """A line to type in; the equation and its graph follow every key, and a mistake is pointed at."""

    def __init__(self, editors: Editors, thing: Equation) -> None:
        super().__init__(editors.canvas)
        self.editors = editors
        self.thing = thing
        self._done = False
        self.setObjectName("card")
        lift(self)
        self.field = Field(thing.source, self)
        self.field.setMaxLength(LONGEST)
        self.field.setAccessibleName(_("equation"))
        self.field.setPlaceholderText(_("y = 2x + 1"))
        self.field.setStyleSheet("font-size: 22px; font-family: Andika;")
        self.field.setMinimumWidth(340)
        self.says = Words(self)
        self.says.setWordWrap(True)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(10, 10, 10, 8)
        layout.addWidget(self.field)
        layout.addWidget(self.says)
        self.field.textChanged.connect(self._typed)
        self.field.returnPressed.connect(editors.finish)
        self.field.installEventFilter(self)
        self._typed(thing.source)
        self.place()
        self.show()
        self.raise_()
        self.field.setFocus()

    def current(self) -> Equation:
        changed: Equation = self.thing.replace(source=self.field.text().strip())
        return changed

    def _typed(self, source: str) -> None:
        good = self.says
        try:
            text = _("reads: {reading}").format(reading=reading(parse(source)))
            why = readable(source)
            good.setStyleSheet("color: #4C655F;")
            good.setText(f"{text}\n{why}" if why else text)
        except ExpressionError as error:
            start = max(0, error.position - 8)
            spot = source[start : error.position] + "▸" + source[error.position : error.position + 8]
            good.setStyleSheet("color: #4C655F;" if not source.strip() else "color: #A13325; font-weight: 600;")
            good.setText(f"{error.message}   {spot}" if source.strip() else error.message)
        if self.editors.canvas.page.thing(self.thing.id) is not None:
            self.editors.canvas.preview(self, lambda page: {self.thing.id: self.current()})
        else:
            self.editors.canvas.preview(self, nothing, [self.current()] if source.strip() else [])
        self.adjustSize()

    def place(self) -> None:
        if self._done:
            return
        canvas = self.editors.canvas
        x, y = canvas.camera.to_view(self.thing.placement.x, self.thing.placement.y)
        below = y + view_of(self.thing).extent(self.thing).height * canvas.camera.scale + 14
        self.adjustSize()
        if below + self.height() > canvas.height() - canvas.covered.below:
            below = y - self.height() - 14
        at = QPointF(max(8, min(x, canvas.width() - self.width() - 8)), max(8, below))
        self.move(at.toPoint())

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress and event.key() == Qt.Key.Key_Escape:
            self.editors.finish()
            return True
        if event is not None and event.type() == QEvent.Type.FocusOut and not self._done and self.editors.open is self:
            self.editors.finish()
        return super().eventFilter(watched, event)

    def keep(self) -> None:
        after = self.current()
        self.drop()
        self.editors.store(self.thing, after, _("Equation"), not after.source)

    def drop(self) -> None:
        self._done = True
        self.editors.take_away(self)


def edit(editors: Editors, thing: Thing) -> EquationEditor | None:
    return EquationEditor(editors, thing) if isinstance(thing, Equation) else None
