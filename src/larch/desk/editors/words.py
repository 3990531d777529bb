"""Types right on the page: the words stand where, and as large as, they will stand when they are left."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QEvent, QMimeData, QPointF, QRectF, Qt
from PyQt6.QtGui import (
    QColor,
    QContextMenuEvent,
    QFocusEvent,
    QGuiApplication,
    QKeyEvent,
    QKeySequence,
    QPainter,
    QPen,
    QTextCursor,
    QTransform,
)
from PyQt6.QtWidgets import (
    QFrame,
    QGraphicsScene,
    QGraphicsTextItem,
    QGraphicsView,
    QMenu,
    QStyle,
    QStyleOptionGraphicsItem,
    QWidget,
)

from larch.board.gestures.base import nothing
from larch.board.look import GOLD, PAPER
from larch.board.timers import retire
from larch.board.typeset.inline_maths import OBJECT, knows_maths
from larch.board.typeset.rich_text import (
    char_format,
    document_of,
    format_like,
    lay_out,
    line_height,
    maths_format,
    paragraph_of,
    read_document,
    rise_of,
    run_of,
    set_width,
)
from larch.board.views import view_of
from larch.core.base.words import _
from larch.core.files.rich_html import read_html
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.words.rich import LONGEST, Lettered, Paragraph, Run, spread
from larch.desk.editors.cell import next_cell
from larch.desk.editors.editors import heard_by_window
from larch.desk.editors.text_bar import TextBar
from larch.desk.editors.words_maths import copied, turned

if TYPE_CHECKING:
    from larch.desk.editors.editors import Editors

ROOM = 6.0  # page units round the words, for the caret
TAIL = 0.3  # of the type size that letters reach below a line set close
TAILS = 200.0  # page units; more than any tail is long
LEAST = 120.0  # page units of width for a text that is still empty
PROPORTIONAL = 1  # QTextBlockFormat.LineHeightTypes.ProportionalHeight, which is wanted as a number


class _Words(QGraphicsTextItem):
    """Without the dashed frame that Qt draws round an item with the focus."""

    def paint(
        self, painter: QPainter | None, option: QStyleOptionGraphicsItem | None, widget: QWidget | None = None
    ) -> None:
        if option is not None:
            option.state &= ~(QStyle.StateFlag.State_HasFocus | QStyle.StateFlag.State_Selected)
            option.exposedRect = option.exposedRect.adjusted(0, -TAILS, 0, TAILS)  # Qt would clip at the line's height
        super().paint(painter, option, widget)


class TextEditor(QGraphicsView):
    """A view of one text item at the scale of the page, so that typing looks like what is left behind."""

    def __init__(self, editors: Editors, thing: Lettered) -> None:
        super().__init__(editors.canvas)
        self.editors = editors
        self.thing = thing
        self._done = False
        self._kept_out = 0  # characters of a paste that had no room
        self.setAccessibleName(thing.title())
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setStyleSheet("background: transparent;")
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop)
        self.setRenderHints(QPainter.RenderHint.Antialiasing | QPainter.RenderHint.TextAntialiasing)
        self.setViewportUpdateMode(QGraphicsView.ViewportUpdateMode.FullViewportUpdate)
        self.setAcceptDrops(False)
        self._scene = QGraphicsScene(self)
        self.item = _Words()
        self._width = max(1.0, thing.width - 2 * thing.inset()) if thing.width else 0.0
        self.page_document = document_of(thing.replace(told=()), self._width)
        self.page_document.setParent(self.item)
        self.page_document.setUndoRedoEnabled(True)
        knows_maths(self.page_document)
        self.item.setDocument(self.page_document)
        self.item.setTextInteractionFlags(Qt.TextInteractionFlag.TextEditorInteraction)
        self._scene.addItem(self.item)
        self.setScene(self._scene)
        self.bar = TextBar(self)
        self._show_page()
        cursor = self.item.textCursor()
        if thing.text:
            cursor.select(QTextCursor.SelectionType.Document)
        cursor.setCharFormat(char_format(thing, Run(1))) if not thing.text else None
        self.item.setTextCursor(cursor)
        self.page_document.contentsChanged.connect(self._typed)
        self.place()
        self.show()
        self.setFocus()
        self.item.setFocus()
        self._scene.setFocusItem(self.item)
        self.speller = editors.speller.watch(self.page_document)

    # What is typed

    def current(self) -> Lettered:
        return read_document(self.page_document, self.thing)

    def toPlainText(self) -> str:
        return self.page_document.toPlainText()

    def _typed(self) -> None:
        extra = self.page_document.characterCount() - 1 - LONGEST
        if extra > 0:
            self._kept_out += extra
            cursor = QTextCursor(self.page_document)
            cursor.setPosition(LONGEST)
            cursor.movePosition(QTextCursor.MoveOperation.End, QTextCursor.MoveMode.KeepAnchor)
            cursor.removeSelectedText()
            return
        if not self._width:
            self.page_document.blockSignals(True)
            set_width(self.page_document, 0)
            self.page_document.blockSignals(False)
        self.place()

    def _show_page(self) -> None:
        """The page under the editor shows the thing without its words."""
        page = self.editors.canvas.page
        if page.thing(self.thing.id) is not None:
            box = view_of(self.thing).reach(self.thing, page).grown(4)
            bare = (self.thing.replace(text="", runs=()),) if self.thing.inset() else ()
            self.editors.canvas.show_instead(self, {self.thing.id: bare}, [box])
        elif self.thing.inset():
            self.editors.canvas.preview(self, nothing, [self.thing])

    # Where it stands

    def place(self) -> None:
        """Over its place on the page, upright even if the thing is turned."""
        if self._done:
            return
        camera, place = self.editors.canvas.camera, self.thing.placement
        k = place.scale * camera.scale
        inset, size = self.thing.inset(), self.page_document.size()
        wide = max(size.width(), self._width, 0.0 if self._width else LEAST) + 2 * ROOM
        tall = max(size.height(), self.thing.size) + 2 * ROOM + TAIL * self.thing.size
        at = place.to_page(inset - ROOM, self.thing.words_top(size.height()) - rise_of(self.thing) - ROOM)
        x, y = camera.to_view(*at)
        self._scene.setSceneRect(QRectF(-ROOM, -ROOM, wide, tall))
        self.setTransform(QTransform.fromScale(k, k))
        self.setGeometry(round(x), round(y), max(8, round(wide * k)), max(8, round(tall * k)))
        self.bar.place()

    def drawBackground(self, painter: QPainter | None, rect: QRectF) -> None:
        """A quiet sheet behind loose words and a gold line under them; on a note, only the line."""
        if painter is None:
            return
        scene = self._scene.sceneRect()
        if not self.thing.inset():
            sheet = QColor(PAPER)
            sheet.setAlpha(215)
            painter.fillRect(scene, sheet)
        painter.setPen(QPen(GOLD, 2.0 / max(0.05, self.transform().m11())))
        y = scene.bottom() - 1.5
        painter.drawLine(QPointF(scene.left(), y), QPointF(scene.right(), y))

    # Style

    def run_here(self) -> Run:
        """How the selection begins, or what is typed next will look."""
        cursor = self.item.textCursor()
        if cursor.hasSelection():
            first = QTextCursor(self.page_document)
            first.setPosition(cursor.selectionStart() + 1)
            return run_of(first.charFormat(), self.thing, 1)
        return run_of(cursor.charFormat(), self.thing, 1)

    def is_bold(self) -> bool:
        return self.thing.bold or self.run_here().bold

    def style(self, **changes: object) -> None:
        """Changes how the selected words look, or those typed next."""
        if changes.get("bold") is False and self.thing.bold:
            self._give_bold_to_runs()
        cursor = self.item.textCursor()
        if not cursor.hasSelection():
            cursor.setCharFormat(char_format(self.thing, self.run_here().replace(**changes)))
            self.item.setTextCursor(cursor)
            return
        start, end = cursor.selectionStart(), cursor.selectionEnd()
        single = spread(self._document_runs(), self.page_document.characterCount())
        cursor.beginEditBlock()
        at = start
        while at < end:
            stop = at + 1
            while stop < end and single[stop] == single[at]:
                stop += 1
            part = QTextCursor(self.page_document)
            part.setPosition(at)
            part.setPosition(stop, QTextCursor.MoveMode.KeepAnchor)
            part.setCharFormat(format_like(self.thing, single[at].replace(**changes), part.charFormat()))
            at = stop
        cursor.endEditBlock()
        self.bar.refresh()

    def maths(self) -> None:
        """Sets what is selected, or stands before the caret, as mathematics; mathematics becomes words again."""
        cursor = turned(self.item.textCursor(), self.thing)
        if cursor is None:
            self.editors.tell(_("Write something such as 3/4 x, then make it mathematics."))
            return
        self.item.setTextCursor(cursor)
        self.place()
        self.bar.refresh()

    def _document_runs(self) -> list[Run]:
        """A run for each place of the document, as Qt counts places."""
        found: list[Run] = []
        for position in range(self.page_document.characterCount() - 1):
            probe = QTextCursor(self.page_document)
            probe.setPosition(position + 1)
            found.append(run_of(probe.charFormat(), self.thing, 1))
        return found

    def _give_bold_to_runs(self) -> None:
        """A text that is bold as a whole is so by its parts from now on, so that some can be light."""
        runs = [run.replace(bold=True) for run in self._document_runs()]
        self.thing = self.thing.replace(bold=False)
        for position, run in enumerate(runs):
            part = QTextCursor(self.page_document)
            part.setPosition(position)
            part.setPosition(position + 1, QTextCursor.MoveMode.KeepAnchor)
            part.setCharFormat(format_like(self.thing, run, part.charFormat()))

    def arrange(self, **changes: str) -> None:
        """Changes the alignment or list of the paragraphs that are selected."""
        cursor = self.item.textCursor()
        start, end = cursor.selectionStart(), cursor.selectionEnd()
        block = self.page_document.findBlock(start)
        while block.isValid() and block.position() <= end:
            part = QTextCursor(block)
            now = self.paragraph_at(part)
            fields = {"align": now.align, "list": now.list} | changes
            lay_out(part, self.thing, Paragraph(**fields))
            block = block.next()
        self.place()
        self.bar.refresh()

    def paragraph_at(self, cursor: QTextCursor | None = None) -> Paragraph:
        return paragraph_of((cursor or self.item.textCursor()).block())

    # Keys and the clipboard

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        control = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        key = event.key()
        styles = {Qt.Key.Key_B: "bold", Qt.Key.Key_I: "italic", Qt.Key.Key_U: "underline"}
        if key == Qt.Key.Key_Escape or (control and key in (Qt.Key.Key_Return, Qt.Key.Key_Enter)):
            self.editors.finish()
        elif event.matches(QKeySequence.StandardKey.Paste):
            self.paste()
        elif event.matches(QKeySequence.StandardKey.Copy) or event.matches(QKeySequence.StandardKey.Cut):
            self._copy() if event.matches(QKeySequence.StandardKey.Copy) else self._cut()
        elif control and key == Qt.Key.Key_M:
            self.maths()
        elif control and key in styles:
            field = styles[Qt.Key(key)]
            on = self.is_bold() if field == "bold" else getattr(self.run_here(), field)
            self.style(**{field: not on})
        elif control and key in (Qt.Key.Key_Period, Qt.Key.Key_Comma):
            rise = "super" if key == Qt.Key.Key_Period else "sub"
            self.style(rise="" if self.run_here().rise == rise else rise)
        else:
            super().keyPressEvent(event)
            self.bar.refresh()

    def event(self, event: QEvent | None) -> bool:
        """Most keys that would be shortcuts of the window belong to the words while they are typed."""
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            back = event.key() == Qt.Key.Key_Backtab
            if (back or event.key() == Qt.Key.Key_Tab) and next_cell(self.editors, self.thing, back):
                return True
        if heard_by_window(self, event):
            return True
        return super().event(event)

    def paste(self) -> None:
        clipboard = QGuiApplication.clipboard()
        data = clipboard.mimeData() if clipboard is not None else None
        if data is not None:
            self.insert(data)

    def insert(self, data: QMimeData) -> None:
        """Takes words from another program: their bold, slant and lists, but not their fonts, sizes and colours."""
        runs: tuple[Run, ...] = ()
        paragraphs: tuple[Paragraph, ...] = ()
        if data.hasHtml():
            text, runs, paragraphs = read_html(data.html())
        else:
            text = data.text()
        cursor = self.item.textCursor()
        room = LONGEST - (self.page_document.characterCount() - 1) + len(cursor.selectedText())
        self._kept_out += max(0, len(text) - room)
        text = text[: max(0, room)].replace("\r\n", "\n").replace("\r", "\n").replace("\x00", "")
        here = self.run_here().replace(count=1)
        cursor.beginEditBlock()
        cursor.removeSelectedText()
        first = cursor.blockNumber()
        at = 0
        for run in [*runs, Run(max(1, len(text)))]:
            part = text[at : at + run.count]
            if part and run.maths:
                cursor.insertText(OBJECT, maths_format(self.thing, here, part))
            elif part:
                shown = here if run.is_plain() else run
                cursor.insertText(part, char_format(self.thing, shown.replace(maths=False)))
            at += run.count
        cursor.endEditBlock()
        self.item.setTextCursor(cursor)
        for number, paragraph in enumerate(paragraphs):
            block = self.page_document.findBlockByNumber(first + number)
            if paragraph.list and block.isValid():
                lay_out(QTextCursor(block), self.thing, paragraph)
        self._same_lines()
        self.place()

    def _same_lines(self) -> None:
        """Paragraphs that came in stand as far apart as the others."""
        from PyQt6.QtGui import QTextBlockFormat

        block = self.page_document.begin()
        while block.isValid():
            if block.blockFormat().lineHeight() == 0:
                made = QTextBlockFormat(block.blockFormat())
                made.setLineHeight(line_height(self.thing), PROPORTIONAL)
                QTextCursor(block).setBlockFormat(made)
            block = block.next()

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        """What the word under the pointer might have been meant to be, then the usual."""
        if event is None:
            return
        menu = QMenu(self)
        where = self.mapToScene(event.pos())
        layout = self.page_document.documentLayout()
        position = layout.hitTest(where, Qt.HitTestAccuracy.FuzzyHit) if layout is not None else -1
        word = QTextCursor(self.page_document)
        if position >= 0:
            word.setPosition(position)
            word.select(QTextCursor.SelectionType.WordUnderCursor)
            self.editors.speller.fill(menu, word)
        for label, run in ((_("Cut"), self._cut), (_("Copy"), self._copy), (_("Paste"), self.paste)):
            action = menu.addAction(label)
            if action is not None:
                action.triggered.connect(lambda _on=False, run=run: run())
        menu.exec(event.globalPos())
        retire(menu)

    def _copy(self) -> None:
        clipboard = QGuiApplication.clipboard()
        if clipboard is not None and self.item.textCursor().hasSelection():
            clipboard.setMimeData(copied(self.item.textCursor()))

    def _cut(self) -> None:
        self._copy()
        self.item.textCursor().removeSelectedText()

    # Leaving

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        super().focusOutEvent(event)
        away = event is None or event.reason() not in (
            Qt.FocusReason.PopupFocusReason, Qt.FocusReason.ActiveWindowFocusReason)  # fmt: skip
        if away and not self._done and self.editors.open is self and not self.bar.has_focus():
            self.editors.finish()

    def state(self) -> object:
        return self.page_document.revision()

    def result(self) -> Edit | None:
        after = self.current()
        after = after.seen_as_high(round(view_of(after).extent(after).height, 1))
        empty = not after.text.strip() and not after.inset()  # a note may be without words
        return self.editors.stored(self.thing, after, _("Text"), empty)

    def go_on(self, page: Page) -> None:
        stored = page.thing(self.thing.id) or page.things[-1]
        if isinstance(stored, Lettered):
            canvas, self.thing = self.editors.canvas, stored
            canvas.end_preview(self)
            canvas.end_instead(self)
            self._show_page()
            self.place()

    def keep(self) -> None:
        if self._kept_out:
            self.editors.tell(_("A text holds {n} characters; the rest was left out.").format(n=LONGEST))
        edit = self.result()
        self.drop()
        if edit is not None:
            self.editors.canvas.commit(edit)

    def drop(self) -> None:
        self._done = True
        retire(self.bar)
        self.editors.canvas.end_instead(self)
        self.editors.take_away(self)


def edit(editors: Editors, thing: Thing) -> TextEditor | None:
    return TextEditor(editors, thing) if isinstance(thing, Lettered) else None
