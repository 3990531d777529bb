"""Equations written where they stand: a caret in the mathematics itself, by keys, by pointing, or on the tray of keys."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QEvent, QPointF, QRectF, Qt
from PyQt6.QtGui import QFocusEvent, QGuiApplication, QKeyEvent, QKeySequence, QPainter, QPaintEvent, QPen

from larch.board.gestures.base import nothing
from larch.board.look import GOLD, GOLD_TEXT, PAPER, STONE, text_colour
from larch.board.timers import retire
from larch.board.typeset.boxes import Place, Stop, paint_setting
from larch.board.typeset.mathset import set_row
from larch.board.views import view_of
from larch.core.actions.equations.plotting import plotted
from larch.core.base.signs import signs_in_use
from larch.core.base.words import _
from larch.core.maths.expression import ExpressionError, reading
from larch.core.maths.graph import readable
from larch.core.maths.layout import terms
from larch.core.maths.layout import writing as pen
from larch.core.maths.layout.reading import look
from larch.core.maths.layout.rows import Raised
from larch.core.maths.layout.to_tree import read_row
from larch.core.maths.layout.writing import Writing
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.equation import LONGEST, Equation
from larch.desk.editors.editors import heard_by_window
from larch.desk.editors.equation_clipboard import copied_row, pasted_row
from larch.desk.editors.equation_pointing import Pointed
from larch.desk.editors.key_sets import Key
from larch.desk.editors.key_tray import KeysBack, KeyTray
from larch.desk.plain import Words
from larch.desk.style import lift

if TYPE_CHECKING:
    from larch.desk.editors.editors import Editors

AIR = 14  # px between the line and its gold frame
PAD = 0.18  # em round an equation, as its view has it
FRAME, CARET = 2.5, 3.5
UNDONE = 200
STYLES = {Qt.Key.Key_Left: ("step", False), Qt.Key.Key_Right: ("step", True), Qt.Key.Key_Home: ("home", False),
          Qt.Key.Key_End: ("home", True)}  # fmt: skip


class EquationEditor(Pointed):
    """The line in hand, in a gold frame; its graph follows every key, and how it is read stands below."""

    tray_wanted = True  # kept while the program runs: put away, it stays away until it is asked for

    def __init__(self, editors: Editors, thing: Equation) -> None:
        super().__init__(editors.canvas)
        self.editors = editors
        self.thing = thing
        self._done = False
        row = look(thing.source) if thing.source.strip() else ()
        self.writing = Writing(row, (), len(row))
        self._before: list[Writing] = []
        self._after: list[Writing] = []
        self._column: float | None = None  # where the caret wants to be when it goes up and down
        self._start = set_row(row)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAttribute(Qt.WidgetAttribute.WA_InputMethodEnabled)
        self.setAccessibleName(_("equation"))
        self.setCursor(Qt.CursorShape.IBeamCursor)
        self.says = Words(editors.canvas)
        self.says.setObjectName("card")
        self.says.setContentsMargins(10, 5, 10, 5)
        self.tray: KeyTray | None = None
        self.back: KeysBack | None = None
        (self.show_tray if EquationEditor.tray_wanted else self.hide_tray)()
        self._changed()
        self.show()
        self.raise_()
        self.setFocus()

    # What is written

    def current(self) -> Equation:
        """The thing as it would be left now; its baseline stays where it was."""
        made = set_row(self.writing.row)
        size = self.thing.size * self.thing.placement.scale
        rise = (max(made.above, 0.7) - max(self._start.above, 0.7)) * size
        source = terms.source_of(self.writing.row)
        place = self.thing.placement.moved(0, self._lowered() - rise)
        changed: Equation = self.thing.typed(source[:LONGEST]).replace(placement=place)
        return changed

    def _lowered(self) -> float:
        """By how many page units the line goes down to keep clear of the one above: a fraction needs more room."""
        page = self.editors.canvas.page
        above = page.thing(self.thing.above) if self.thing.above else None
        if above is None:
            return 0.0
        size = self.thing.size * self.thing.placement.scale
        rise = (max(set_row(self.writing.row).above, 0.7) - max(self._start.above, 0.7)) * size
        top = self.thing.placement.y - rise + 0.1 * size
        bottom = view_of(above).box(above).y1
        return max(0.0, bottom - top) if above.placement.y < self.thing.placement.y else 0.0

    def write(self, made: Writing) -> None:
        """Takes a new state, which can be taken back."""
        if made == self.writing:
            return
        if made.row != self.writing.row:
            if len(terms.source_of(made.row)) > LONGEST:
                self.editors.tell(_("An equation holds {n} characters; the rest was left out.").format(n=LONGEST))
                return
            self._before = [*self._before[-UNDONE:], self.writing]
            self._after = []
        self.writing = made
        self._changed()

    def _changed(self) -> None:
        self._say()
        canvas = self.editors.canvas
        if canvas.page.thing(self.thing.id) is not None:
            canvas.preview(self, lambda page: {self.thing.id: self.current()})
        else:
            canvas.preview(self, nothing, [self.current()] if self.writing.row else [])
        self.place()
        self.update()

    def _say(self) -> None:
        """How it is read, where that could be doubted, or what is missing."""
        if not self.writing.row:
            self.says.hide()
            return
        try:
            found = read_row(self.writing.row)
            text = _("reads: {reading}").format(reading=signs_in_use().number(reading(found.node)))
            lines = [text, *found.doubts]
            if why := readable(terms.source_of(self.writing.row)):
                lines.append(why) if self.editors.canvas.page.thing(self.thing.axes) is not None else None
            self.says.setText("\n".join(lines))
        except ExpressionError as error:
            self.says.setText(error.message)
        lift(self.says) if self.says.graphicsEffect() is None else None
        self.says.adjustSize()
        self.says.show()
        self.says.raise_()

    # Where it stands

    def place(self) -> None:
        """Over its place on the page; the reading below it, both off the keys."""
        if self._done:
            return
        canvas, made = self.editors.canvas, set_row(self.writing.row)
        k = self._scale()
        at = self.thing.placement.to_page(PAD * self.thing.size, (max(self._start.above, 0.7) + PAD) * self.thing.size)
        x, baseline = canvas.camera.to_view(at[0], at[1] + self._lowered())
        up, down = max(made.above, 0.8) * k, max(made.below, 0.3) * k
        self._origin = QPointF(AIR, up + AIR)
        width = max(made.width * k, 40.0) + 2 * AIR
        self.setGeometry(round(x - AIR), round(baseline - up - AIR), round(width), round(up + down + 2 * AIR))
        if self.tray is not None:
            tall = self.tray.full_height()
            self.tray.setGeometry(0, canvas.height() - tall, canvas.width(), tall)
            self._make_room()
        low = canvas.height() - canvas.covered.below
        below = self.geometry().bottom() + 8
        if below + self.says.height() > low:
            below = self.geometry().top() - self.says.height() - 8
        self.says.move(max(8, min(self.x(), canvas.width() - self.says.width() - 8)), max(8, below))

    def _make_room(self) -> None:
        """The page moves up by just as much as keeps the line above the keys."""
        canvas = self.editors.canvas
        assert self.tray is not None
        hidden = self.geometry().bottom() + 16 + self.says.height() - (canvas.height() - self.tray.full_height())
        if hidden > 0:
            KeyTray.lift_page(canvas, hidden)

    def _scale(self) -> float:
        """Pixels to the em."""
        return self.thing.size * self.thing.placement.scale * self.editors.canvas.camera.scale

    def show_tray(self) -> None:
        EquationEditor.tray_wanted = True
        self._retire_keys()
        if not self._done:
            self.tray = KeyTray(self.editors.canvas)
            self.tray.setFocusPolicy(Qt.FocusPolicy.ClickFocus)  # else a press on a key would give the focus to the page
            self.tray.setFocusProxy(self)
            self.tray.pressed.connect(self.press)
            self.tray.put_away.connect(self.hide_tray)
            self.tray.show()
            self.tray.raise_()
            self.place()

    def hide_tray(self) -> None:
        EquationEditor.tray_wanted = False
        self._retire_keys()
        self.back = KeysBack(self.editors.canvas, self.show_tray)
        self.back.setFocusProxy(self)
        self.back.place(self.editors.canvas)
        self.setFocus()

    def _retire_keys(self) -> None:
        for keys in (self.tray, self.back):
            if keys is not None:
                keys.setFocusProxy(None)  # else it takes the focus of the line away as it goes
                retire(keys)
        self.tray = self.back = None

    # Painting

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHints(QPainter.RenderHint.Antialiasing | QPainter.RenderHint.TextAntialiasing)
        box = QRectF(self.rect()).adjusted(FRAME / 2, FRAME / 2, -FRAME / 2, -FRAME / 2)
        painter.setPen(QPen(GOLD, FRAME))
        painter.setBrush(PAPER)
        painter.drawRoundedRect(box, 7, 7)
        k, made = self._scale(), set_row(self.writing.row)
        origin = self._origin
        stops = {(stop.path, stop.part): stop for stop in made.stops}
        self._paint_selection(painter, stops, origin, k)
        for mark in made.marks:
            if isinstance(mark, Place) and mark.path == self.writing.path:  # the place in hand
                painter.setPen(QPen(GOLD, 2.5))
                painter.setBrush(STONE)
                area = QRectF(origin.x() + mark.x * k, origin.y() + mark.y * k, mark.width * k, mark.height * k)
                painter.drawRoundedRect(area, 4, 4)
        paint_setting(painter, made, origin, k, text_colour(self.thing.hue))
        caret = stops.get((self.writing.path, self.writing.at))
        if caret is not None and self.hasFocus():
            x = origin.x() + caret.x * k
            painter.fillRect(
                QRectF(x - CARET / 2, origin.y() + caret.top * k, CARET, (caret.bottom - caret.top) * k), GOLD_TEXT
            )

    def _paint_selection(
        self, painter: QPainter, stops: dict[tuple[pen.Path, int], Stop], origin: QPointF, k: float
    ) -> None:
        start, end = self.writing.selected()
        first, last = stops.get((self.writing.path, start)), stops.get((self.writing.path, end))
        if start == end or first is None or last is None:
            return
        tint = GOLD.lighter(150)
        area = QRectF(QPointF(origin.x() + first.x * k, origin.y() + first.top * k),
                      QPointF(origin.x() + last.x * k, origin.y() + first.bottom * k))  # fmt: skip
        painter.fillRect(area, tint)

    # Keys

    def event(self, event: QEvent | None) -> bool:
        """Most keys that would be shortcuts of the window belong to the line while it is written."""
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            back = event.key() == Qt.Key.Key_Backtab
            if back or event.key() == Qt.Key.Key_Tab:
                self._tab(back)
                return True
        if heard_by_window(self, event):
            return True
        return super().event(event)

    def _tab(self, back: bool) -> None:
        """To the next empty place; where there is none, out of the part the caret is in."""
        found = pen.next_place(self.writing, back)
        if found is None and self.writing.path:
            outer = self.writing.path[:-1]
            part = self.writing.path[-1][0]
            found = self.writing.moved(outer, part if back else part + 1)
        if found is not None:
            self.write(found)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        shift = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
        control = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        key = event.key()
        if key not in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self._column = None
        if key == Qt.Key.Key_Escape:
            self.entered()
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.next_line() if shift or control else self.entered()
        elif key in STYLES:
            what, forward = STYLES[Qt.Key(key)]
            self.write((pen.step if what == "step" else pen.home)(self.writing, forward, shift))
        elif key in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self._up_or_down(key == Qt.Key.Key_Down)
        elif key in (Qt.Key.Key_Backspace, Qt.Key.Key_Delete):
            self.write(pen.rubbed(self.writing, key == Qt.Key.Key_Delete))
        elif event.matches(QKeySequence.StandardKey.SelectAll):
            self.write(terms.everything(self.writing))
        elif event.matches(QKeySequence.StandardKey.Copy) or event.matches(QKeySequence.StandardKey.Cut):
            self.copy()
            if event.matches(QKeySequence.StandardKey.Cut):
                self.write(pen.rubbed(self.writing)) if self.writing.selection() else None
        elif event.matches(QKeySequence.StandardKey.Paste):
            self.paste()
        elif event.matches(QKeySequence.StandardKey.Undo):
            self.take_back()
        elif event.matches(QKeySequence.StandardKey.Redo):
            self.take_again()
        elif event.text() and event.text().isprintable() and not control:
            for character in event.text():
                self.write(pen.typed(self.writing, character))

    def _up_or_down(self, down: bool) -> None:
        """To the nearest place above or below: from a fraction's part to the other, into powers."""
        made = set_row(self.writing.row)
        here = next((s for s in made.stops if (s.path, s.part) == (self.writing.path, self.writing.at)), None)
        if here is None:
            return
        self._column = here.x if self._column is None else self._column
        middle = (here.top + here.bottom) / 2
        best: tuple[float, Stop] | None = None
        for stop in made.stops:
            other = (stop.top + stop.bottom) / 2
            away = (other - middle) if down else (middle - other)
            beyond = stop.top > here.top + 0.2 if down else stop.bottom < here.bottom - 0.2
            if stop.path == here.path or away <= 0.0 or not beyond:
                continue
            cost = away + 1.5 * abs(stop.x - self._column)
            if best is None or cost < best[0]:
                best = (cost, stop)
        if best is not None:
            self.write(self.writing.moved(best[1].path, best[1].part))

    def take_back(self) -> None:
        if self._before:
            self._after.append(self.writing)
            self.writing = self._before.pop()
            self._changed()

    def take_again(self) -> None:
        if self._after:
            self._before.append(self.writing)
            self.writing = self._after.pop()
            self._changed()

    def press(self, key: Key) -> None:
        """A key of the tray."""
        self.setFocus()
        self._column = None
        if key.puts:
            self.write(pen.insert(self.writing, key.puts))
            if len(key.puts) > 1 and isinstance(key.puts[-1], Raised):
                self.write(self.writing.moved((*self.writing.path,), self.writing.at))
        elif key.types:
            for character in key.types:
                self.write(pen.typed(self.writing, character))
        elif key.does == "take back":
            self.take_back()
        elif key.does == "fraction":
            self.write(pen.fraction(self.writing))
        elif key.does in ("power", "index"):
            self.write(pen.script(self.writing, key.does == "power"))
        elif key.does in ("left", "right"):
            self.write(pen.step(self.writing, key.does == "right"))
        elif key.does == "rub out":
            self.write(pen.rubbed(self.writing))
        elif key.does.startswith("hue "):
            self.write(terms.coloured(self.writing, key.does[4:]))
        elif key.does in ("select more", "select less"):
            self.write(pen.step(self.writing, key.does == "select more", True))
        elif key.does == "over":
            self.write(terms.brought_over(self.writing))
        elif key.does in ("term", "side"):
            self.write(terms.term_at(self.writing) if key.does == "term" else terms.side_at(self.writing))
        elif key.does == "next line":
            self.next_line()

    def entered(self) -> None:
        """Enter ends what is written; no finger is on the page, which can go back to where it was."""
        self.editors.finish()
        KeyTray.lower_page(self.editors.canvas)

    def next_line(self) -> None:
        """Keeps this line and begins one below it, that is to follow from it."""
        if not self.writing.row:
            return self.entered()
        editors, id = self.editors, self.thing.id
        known = {thing.id for thing in editors.canvas.page.things}
        editors.finish()
        page = editors.canvas.page
        kept = page.thing(id) or next((thing for thing in page.things if thing.id not in known), None)
        if isinstance(kept, Equation):
            from larch.core.actions.equations.working import line_below

            editors.canvas.select([])
            drop = view_of(kept).extent(kept).height + 0.35 * kept.size
            editors.edit(line_below(page, kept, drop * kept.placement.scale))

    # The clipboard

    def copy(self) -> None:
        """What is selected, or all."""
        row = self.writing.selection() or self.writing.row
        clipboard = QGuiApplication.clipboard()
        if clipboard is not None and row:
            clipboard.setMimeData(copied_row(row))

    def paste(self) -> None:
        """LaTeX, MathML or plain text from anywhere."""
        clipboard = QGuiApplication.clipboard()
        data = clipboard.mimeData() if clipboard is not None else None
        row, trouble = pasted_row(data, 4 * LONGEST) if data is not None else ((), "")
        if trouble:
            self.editors.tell(trouble)
        if row:
            self.write(pen.insert(Writing(self.writing.row, self.writing.path, self.writing.at, self.writing.anchor), row))

    # Leaving

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        super().focusOutEvent(event)
        away = event is not None and event.reason() not in (
            Qt.FocusReason.PopupFocusReason, Qt.FocusReason.ActiveWindowFocusReason)  # fmt: skip
        if away and not self._done and self.editors.open is self:
            self.editors.finish()
        self.update()

    def state(self) -> object:
        return self.writing.row

    def result(self) -> Edit | None:
        after, page = self.current(), self.editors.canvas.page
        if page.thing(self.thing.id) is None:
            box = view_of(after).box(after)
            after = plotted(page, after, (box.width, box.height))
        return self.editors.stored(self.thing, after, _("Equation"), not after.source)

    def go_on(self, page: Page) -> None:
        stored = page.thing(self.thing.id) or page.things[-1]
        if isinstance(stored, Equation):
            self.thing, self._start = stored, set_row(self.writing.row)
            self._changed()

    def keep(self) -> None:
        edit = self.result()
        self.drop()
        self.editors.canvas.when_free(self._lowered_again)
        if edit is not None:
            self.editors.canvas.commit(edit)

    def _lowered_again(self) -> None:
        """The finger that ended the line is lifted: the page goes back down, unless the next line is being written."""
        if self.editors.open is None:
            KeyTray.lower_page(self.editors.canvas)

    def drop(self) -> None:
        self._done = True
        retire(self.says)
        self._retire_keys()
        self.editors.take_away(self)


def edit(editors: Editors, thing: Thing) -> EquationEditor | None:
    return EquationEditor(editors, thing) if isinstance(thing, Equation) else None
