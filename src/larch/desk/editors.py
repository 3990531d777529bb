"""Editors on the page: text where it stands, an equation with its graph following every key."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QEvent, QObject, QPointF, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QFrame, QLabel, QLineEdit, QPlainTextEdit, QVBoxLayout

from larch.board.canvas import Canvas
from larch.board.look import colour, page_font
from larch.board.views import view_of
from larch.core.arrange import put
from larch.core.edit import Edit
from larch.core.expression import ExpressionError, parse, reading
from larch.core.graph import readable
from larch.core.hues import GOLD
from larch.core.thing import Thing
from larch.core.things.equation import LONGEST, Equation
from larch.core.things.text import LONGEST as LONGEST_TEXT
from larch.core.things.text import Text
from larch.core.words import _
from larch.desk.style import lift


class Editors(QObject):
    """Opens the editor of a thing; one at a time, and leaving it keeps what was typed."""

    def __init__(self, canvas: Canvas, tell: Callable[[str], None]) -> None:
        super().__init__(canvas)
        self.canvas = canvas
        self.tell = tell
        self.open: TextEditor | EquationEditor | None = None
        canvas.edit_wanted.connect(self.edit)
        canvas.viewed.connect(lambda: self.open.place() if self.open is not None else None)

    def edit(self, thing: Thing) -> None:
        """Opens the editor for a text or an equation; other kinds have none."""
        self.finish()
        self.canvas.editing = not thing.locked and isinstance(thing, Text | Equation)
        self.canvas.viewed.emit()
        if thing.locked:
            self.tell(_("It is locked; unlock it to change it."))
        elif isinstance(thing, Text):
            self.open = TextEditor(self, thing)
        elif isinstance(thing, Equation):
            self.open = EquationEditor(self, thing)

    def finish(self) -> None:
        """Keeps what was typed and closes."""
        if self.open is not None:
            editor, self.open = self.open, None
            self.canvas.editing = False
            editor.keep()

    def take_away(self, editor: TextEditor | EquationEditor) -> None:
        """Removes an editor from the page and gives the keys back to the page."""
        self.canvas.end_preview(editor)
        editor.hide()
        editor.deleteLater()
        self.canvas.setFocus()

    def store(self, before: Thing, after: Thing, label: str, empty: bool) -> None:
        """Commits a finished edit: a new thing, a changed one, or none at all if nothing is left."""
        page = self.canvas.page
        if page.thing(before.id) is None:
            if not empty:
                self.canvas.commit(put(page, [after.replace(id="")], label))
        elif empty:
            self.canvas.commit(Edit(_("Delete"), page, page.without([before.id])))
        else:
            self.canvas.commit(Edit(label, page, page.with_things({before.id: after})))


class TextEditor(QPlainTextEdit):
    """Types right on the page, at the size and place of the text."""

    def __init__(self, editors: Editors, thing: Text) -> None:
        super().__init__(editors.canvas)
        self.editors = editors
        self.thing = thing
        self._done = False
        self.setAccessibleName(_("text"))
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setLineWrapMode(QPlainTextEdit.LineWrapMode.WidgetWidth if thing.width else QPlainTextEdit.LineWrapMode.NoWrap)
        self.document().setDocumentMargin(0)
        self.setPlainText(thing.text)
        if thing.text:
            self.selectAll()
        self.textChanged.connect(self.place)
        if editors.canvas.page.thing(thing.id) is not None:
            editors.canvas.hide_things(self, [thing.id])
        self.place()
        self.show()
        self.setFocus()

    def current(self) -> Text:
        changed: Text = self.thing.replace(text=self.toPlainText().rstrip("\n")[:LONGEST_TEXT])
        return changed

    def place(self) -> None:
        if self._done:
            return
        camera = self.editors.canvas.camera
        size = self.thing.size * self.thing.placement.scale * camera.scale
        font = page_font(max(6, size), self.thing.bold)
        if self.font().pixelSize() != font.pixelSize():
            self._dress(max(6, round(size)))
        box = view_of(self.thing).extent(self.current().replace(text=(self.toPlainText() + "MM")[:LONGEST_TEXT]))
        x, y = camera.to_view(self.thing.placement.x, self.thing.placement.y)
        k = self.thing.placement.scale * camera.scale
        self.setGeometry(round(x), round(y), round(max(120, box.width * k + 24)), round(box.height * k * 1.12 + 10))

    def _dress(self, pixels: int) -> None:
        """Looks like the text it will be. Set by style sheet, which would overrule a font set otherwise."""
        weight = "bold" if self.thing.bold else "normal"
        self.setStyleSheet(
            f"QPlainTextEdit {{ font-family: Andika; font-size: {pixels}px; font-weight: {weight};"
            f" color: {colour(self.thing.hue).name()}; background: rgba(252, 251, 247, 235);"
            f" border: none; border-bottom: 2px solid {GOLD}; }}"
        )

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        control = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        if event.key() == Qt.Key.Key_Escape or (control and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter)):
            self.editors.finish()
            return
        super().keyPressEvent(event)

    def focusOutEvent(self, event: QEvent | None) -> None:  # type: ignore[override]
        super().focusOutEvent(event)  # type: ignore[arg-type]
        if not self._done and self.editors.open is self:
            self.editors.finish()

    def keep(self) -> None:
        if len(self.toPlainText()) > LONGEST_TEXT:
            self.editors.tell(_("A text holds {n} characters; the rest was left out.").format(n=LONGEST_TEXT))
        after = self.current()
        self.drop()
        self.editors.store(self.thing, after, _("Text"), not after.text.strip())

    def drop(self) -> None:
        self._done = True
        self.editors.take_away(self)


class EquationEditor(QFrame):
    """A line to type in; the equation and its graph follow every key, and a mistake is pointed at."""

    def __init__(self, editors: Editors, thing: Equation) -> None:
        super().__init__(editors.canvas)
        self.editors = editors
        self.thing = thing
        self._done = False
        self.setObjectName("card")
        lift(self)
        self.field = QLineEdit(thing.source, self)
        self.field.setMaxLength(LONGEST)
        self.field.setAccessibleName(_("equation"))
        self.field.setPlaceholderText(_("y = 2x + 1"))
        self.field.setStyleSheet("font-size: 22px; font-family: Andika;")
        self.field.setMinimumWidth(340)
        self.says = QLabel(self)
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
            self.editors.canvas.preview(self, {self.thing.id: self.current()})
        else:
            self.editors.canvas.preview(self, {}, [self.current()] if source.strip() else [])
        self.adjustSize()

    def place(self) -> None:
        if self._done:
            return
        canvas = self.editors.canvas
        x, y = canvas.camera.to_view(self.thing.placement.x, self.thing.placement.y)
        below = y + view_of(self.thing).extent(self.thing).height * canvas.camera.scale + 14
        self.adjustSize()
        if below + self.height() > canvas.height() - canvas.covered_below:
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
