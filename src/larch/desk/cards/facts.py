"""The facts card: what the selected thing knows, most of it to be changed by typing."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6 import sip
from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QComboBox, QFrame, QGridLayout, QHBoxLayout, QLineEdit, QScrollArea, QVBoxLayout, QWidget

from larch.board.canvas import Canvas
from larch.board.media.arrivals import arrivals
from larch.board.ticking import at_present
from larch.board.timers import show_within
from larch.board.views import view_of
from larch.core.actions.arrange.arrange import recolour, show_fact, shown_on, total
from larch.core.actions.arrange.common_facts import common_facts
from larch.core.base.hues import HUES
from larch.core.base.words import _, many
from larch.core.model.edit import Edit
from larch.core.model.fact import PARTS, Fact, Told, number_text
from larch.core.model.page import Page
from larch.core.model.page_facts import page_facts
from larch.core.model.thing import Thing
from larch.desk.cards.docked import Docked
from larch.desk.cards.fact_row import FactRow
from larch.desk.plain import Words
from larch.desk.toolbar.buttons import HueButton, icon_button


class FactsCard(Docked):
    """At the right edge; follows the selection in the same frame as a drag."""

    side = "right"
    wide = 348

    def __init__(self, canvas: Canvas) -> None:
        super().__init__(canvas)
        self.wanted = False
        self.setAccessibleName(_("facts"))
        self._title = Words(self)
        self._title.setWordWrap(True)
        self._title.setStyleSheet("font-size: 18px; font-weight: 600;")
        self._sort, self._said, self._trouble = (Words(self) for _k in range(3))
        for label in (self._sort, self._said, self._trouble):
            label.setWordWrap(True)
            label.setTextFormat(Qt.TextFormat.PlainText)
        self._sort.setObjectName("soft")
        self._said.setObjectName("soft")
        self._trouble.setObjectName("wrong")
        close = icon_button("x", _("close the facts"), self)
        close.clicked.connect(lambda: self.want(False))
        head = QHBoxLayout()
        head.addWidget(self._title, 1)
        head.addWidget(close, 0, Qt.AlignmentFlag.AlignTop)
        self._area = QScrollArea(self)
        self._area.setWidgetResizable(True)
        self._area.setFrameShape(QFrame.Shape.NoFrame)
        self._area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._area.setStyleSheet("QScrollArea, QScrollArea > QWidget > QWidget { background: transparent; }")
        self._area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._body = QWidget()
        self._dots: list[HueButton] = []
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 8, 6, 12)
        layout.setSpacing(4)
        layout.addLayout(head)
        layout.addWidget(self._sort)
        layout.addWidget(self._area, 1)
        layout.addWidget(self._said)
        layout.addWidget(self._trouble)
        self._rows: list[FactRow] = []
        self._names: tuple[object, ...] = ()
        self.hide()
        canvas.selection_changed.connect(self._selected)
        canvas.committed.connect(self.refresh)
        canvas.viewed.connect(self.refresh)
        arrivals.checked.connect(self._known)

    def parent_of_rows(self) -> QWidget:
        return self._body

    def tick(self, ids: set[str]) -> None:
        """Things that run look different by now; what is being typed is left alone."""
        typing = any(row.has_focus() for row in self._rows)
        if not typing and len(self.canvas.selection) == 1 and self.canvas.selection[0] in ids:
            self.refresh()

    def _known(self) -> None:
        """More is known by now of what is selected; what is being typed is left alone."""
        if not sip.isdeleted(self) and self.wanted and not any(row.has_focus() for row in self._rows):
            self.refresh()

    def want(self, on: bool) -> None:
        """Opens or closes the card."""
        self.wanted = on
        self._names = ()
        self.refresh()

    def _selected(self) -> None:
        self._trouble.clear()
        self._said.clear()
        self.refresh()

    def of_page(self) -> bool:
        """Whether the card is about the page itself: nothing is selected."""
        return not self.canvas.selection

    def thing(self) -> Thing | None:
        things = self.canvas.preview_page().some(self.canvas.selection)
        return things[0] if len(things) == 1 else None

    def facts(self) -> list[Fact]:
        page = self.canvas.preview_page()
        if self.of_page():
            return list(page_facts(page))
        things = page.some(self.canvas.selection)
        return self._stated(page, things)

    def _stated(self, page: Page, things: Sequence[Thing]) -> list[Fact]:
        """Of what is selected: its own facts, then what is known of anything."""
        lesson = self.canvas.session.lesson
        if len(things) == 1:
            known = view_of(things[0]).stated(things[0], page)
            return [*at_present(things[0]).facts(page), *known, *common_facts(lesson, page, things)]
        found = [Fact("number", len(things), text=str(len(things)), label=_("things"))]
        worth = total(things)
        if worth is not None:
            found.append(Fact("total", worth, text=number_text(worth, 3), label=_("total")))
        return [*found, *common_facts(lesson, page, things)]

    def refresh(self) -> None:
        """Shows the facts as they are now; rows are built anew only if there are others."""
        if not self.wanted or self.canvas.at_board:
            self.hide()
            return
        facts = self.facts()
        thing = self.thing()
        several = many("1 thing", "{n} things", len(self.canvas.selection))
        title = thing.label(self.canvas.page) if thing is not None else several
        self._title.setText(_("Page") if self.of_page() else title)
        sort = next((fact.text for fact in facts if fact.name == "sort"), "")
        self._sort.setText(sort)
        self._sort.setVisible(bool(sort))
        self._trouble.setVisible(bool(self._trouble.text()))
        self._said.setVisible(bool(self._said.text()))
        order = list(PARTS)
        listed = sorted((fact for fact in facts if fact.name != "sort"), key=lambda fact: order.index(fact.group()))
        names = (thing.id if thing else "", self.of_page(), *((fact.name, fact.options) for fact in listed))
        if names != self._names:
            self._build(listed)
            self._names = names
        shown = shown_on(thing) if thing else ()
        for row, fact in zip(self._rows, listed, strict=True):
            row.show(fact, bool(fact.badge) and fact.badge in shown)
        hue = thing.hue if thing else ""
        for dot in self._dots:
            dot.setChecked(dot.hue == hue)
        self.place()
        self.show()

    def _build(self, facts: list[Fact]) -> None:
        """The rows anew, in groups; the one that had the focus has it again."""
        held = next((row.name for row in self._rows if row.has_focus()), "")
        self._body = QWidget()
        column = QVBoxLayout(self._body)
        column.setContentsMargins(0, 0, 8, 0)
        column.setSpacing(0)
        self._rows, self._dots = [], []
        parts = [fact.group() for fact in facts]
        eyed = any(fact.badge for fact in facts)
        part = ""
        for k, fact in enumerate(facts):
            if parts[k] != part:
                part = parts[k]
                if part in ("place", "doing") and "looks" not in parts:
                    self._add_hues(column)
                if len(set(parts)) > 1:
                    self._head(column, part)
                if part == "looks":
                    self._add_hues(column, False)
            row = FactRow(self, fact, eyed)
            self._rows.append(row)
            column.addWidget(row.box)
        self._add_hues(column)
        column.addStretch(1)
        for row in self._rows:
            row.value.installEventFilter(self)
            if row.list is not None:
                row.list.installEventFilter(self)
        show_within(self._area, self._body)
        again = next((row for row in self._rows if row.name == held), None)
        if again is not None:
            again.focus()

    def _head(self, column: QVBoxLayout, part: str) -> None:
        head = Words(_(PARTS[part]), self._body)
        head.setObjectName("head")
        column.addWidget(head)

    def _add_hues(self, column: QVBoxLayout, headed: bool = True) -> None:
        """The colours, among the looks of what is selected; once."""
        if self.of_page() or self._dots:
            return
        if headed:
            self._head(column, "looks")
        block = QWidget(self._body)
        rows = QGridLayout(block)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(0)
        for k, hue in enumerate(HUES):
            dot = HueButton(hue, block, 44)
            dot.clicked.connect(lambda _on=False, hue=hue: self._recolour(hue))
            self._dots.append(dot)
            rows.addWidget(dot, k // 5, k % 5)
        rows.setColumnStretch(5, 1)
        column.addWidget(block)

    def place(self) -> None:
        body = self._body.sizeHint().height()
        told = sum(label.heightForWidth(self.wide - 24) + 4 for label in (self._said, self._trouble) if not label.isHidden())
        self.dock(84 + body + told + (0 if self._sort.isHidden() else self._sort.heightForWidth(self.wide - 24) + 4))

    def take_focus(self) -> None:
        """The keys go to the first field that can be filled in."""
        first = next((row for row in self._rows if row.takes_focus()), None)
        if first is not None:
            first.focus()

    def set_fact(self, name: str, typed: str) -> str:
        """Changes the thing or the page so that the fact becomes what was typed; returns the sentence that it says about
        that, or about why it can't."""
        page = self.canvas.page
        thing = page.thing(self.canvas.selection[0]) if self.canvas.selection else None
        stated = list(page_facts(page)) if self.of_page() else self._stated(page, self.canvas.things())
        fact = next((f for f in stated if f.name == name), None)
        head, sign, rest = typed.partition("=")
        if fact is not None and sign and head.strip() in (fact.name, fact.label):  # “AB = 5 cm” means 5 cm
            typed = rest.strip()
        if fact is None or fact.set is None or typed == (fact.value if fact.options else fact.text):
            self.refresh()
            return ""
        if thing is not None and thing.locked and name not in ("moves", "link"):
            self._trouble.setText(_("It is locked; unlock it to change it."))
        else:
            try:
                self._change(fact, thing, fact.set(typed))
            except ValueError as error:
                self._said.clear()
                self._trouble.setText(str(error))
        self.refresh()
        return self._trouble.text() or self._said.text()

    def _change(self, fact: Fact, thing: Thing | None, changed: object) -> None:
        """Commits what a fact was set to, and says what moved for it."""
        page = self.canvas.page
        self._trouble.clear()
        self._said.clear()
        if isinstance(changed, Told):
            self._said.setText(changed.said)
            changed = changed.result
        if isinstance(changed, Page):
            after = changed
        else:
            assert thing is not None and isinstance(changed, Thing)
            after = page.with_things({thing.id: changed})
        self.canvas.commit(Edit(_("Set {fact}").format(fact=fact.label), page, after))

    def toggle(self, name: str) -> None:
        """Shows or hides a fact on the page, with those that are shown together with it."""
        page = self.canvas.page
        thing = page.thing(self.canvas.selection[0])
        if thing is not None:
            fact = next(f for f in thing.facts(page) if f.name == name)
            self.canvas.commit(show_fact(page, thing, fact.badge))

    def _recolour(self, hue: str) -> None:
        self.canvas.commit(recolour(self.canvas.page, self.canvas.things(), hue))

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(watched, QComboBox) and event is not None and event.type() == QEvent.Type.Wheel:
            event.ignore()  # the card scrolls; a value is not changed in passing
            return True
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress and event.key() == Qt.Key.Key_Escape:
            if isinstance(watched, QLineEdit):
                watched.setModified(False)
            self._names = ()
            self.canvas.setFocus()
            self.refresh()
            return True
        return super().eventFilter(watched, event)
