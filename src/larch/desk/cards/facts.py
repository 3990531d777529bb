"""The facts card: what the selected thing knows, most of it to be changed by typing."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import (
    QComboBox,
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QScrollArea,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from larch.board.canvas import Canvas
from larch.board.look import icon
from larch.board.ticking import at_present
from larch.core.actions.arrange.arrange import recolour, show_fact, shown_on, total
from larch.core.actions.arrange.common_facts import common_facts
from larch.core.base.hues import GOLD_TEXT, HUES, is_hex
from larch.core.base.words import _, many
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, Told
from larch.core.model.page import Page
from larch.core.model.page_facts import page_facts
from larch.core.model.thing import Thing
from larch.desk.style import lift
from larch.desk.toolbar.buttons import HueButton, hue_icon, icon_button

WIDTH = 288
MIX = "mix"  # chosen in a list of colours, it opens the dialog in which one is mixed


class FactRow:
    """One fact: its label, its value to be read or typed, and an eye where it can be shown on the page."""

    def __init__(self, card: FactsCard, fact: Fact, grid: QGridLayout, row: int) -> None:
        self.card = card
        self.name = fact.name
        self.label = QLabel(fact.label, card)
        self.label.setMaximumWidth(150)
        self.label.setToolTip(fact.label if len(fact.label) > 20 else "")
        self.label.setObjectName("soft")
        self.value = QLineEdit(card)
        self.value.setObjectName("fact")
        self.value.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.value.setReadOnly(fact.set is None)
        self.value.setAccessibleName(fact.label)
        if fact.set is None:
            self.value.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.value.editingFinished.connect(self._typed)
        grid.addWidget(self.label, row, 0)
        self.list: QComboBox | None = None
        if fact.options:
            self.list = self._list_of(fact)
            self.value.hide()
        grid.addWidget(self.list or self.value, row, 1)
        self.eye: QToolButton | None = None
        if fact.badge:
            self.eye = icon_button("eye", _("show {fact} on the page").format(fact=fact.label), card, 44, 22)
            self.eye.setObjectName("eye")
            self.eye.setCheckable(True)
            self.eye.clicked.connect(lambda: card.toggle(self.name))
            grid.addWidget(self.eye, row, 2)
        self.show(fact, False)

    def _list_of(self, fact: Fact) -> QComboBox:
        made = QComboBox(self.card)
        made.setObjectName("factlist")
        made.setAccessibleName(fact.label)
        made.setMaxVisibleItems(12)
        for value, label in fact.options:
            if value in HUES or is_hex(value):
                made.addItem(hue_icon(value), label, value)
            else:
                made.addItem(label, value)
        if any(value in HUES for value, _label in fact.options):
            made.addItem(icon("palette"), _("mix a colour…"), MIX)
        made.activated.connect(lambda index: self._chosen(str(made.itemData(index))))
        return made

    def _chosen(self, value: str) -> None:
        if value != MIX:
            self.card.set_fact(self.name, value)
            return
        from PyQt6.QtWidgets import QColorDialog

        picked = QColorDialog.getColor(parent=self.card.window(), title=_("Mix a colour"))
        if picked.isValid():
            self.card.set_fact(self.name, picked.name())
        else:
            self.card.refresh()

    def show(self, fact: Fact, shown: bool) -> None:
        if self.list is not None:
            where = next((i for i, (value, _label) in enumerate(fact.options) if value == fact.value), -1)
            self.list.setCurrentIndex(where)
            self.list.setPlaceholderText(fact.text)
        self.value.setPlaceholderText(fact.hint)
        if not self.value.isModified() and self.value.text() != fact.text:
            self.value.setText(fact.text)
            self.value.setCursorPosition(0)
            self.value.setToolTip(fact.text if len(fact.text) > 18 else "")
        if self.eye is not None:
            self.eye.setChecked(shown)
            self.eye.setIcon(icon("eye" if shown else "eye-off", GOLD_TEXT if shown else "#8A948E"))

    def _typed(self) -> None:
        if self.value.isModified():
            typed = self.value.text()
            self.value.setModified(False)
            self.card.set_fact(self.name, typed)


class FactsCard(QFrame):
    """At the right edge; follows the selection in the same frame as a drag."""

    def __init__(self, canvas: Canvas) -> None:
        super().__init__(canvas)
        self.canvas = canvas
        self.wanted = False
        self.setObjectName("card")
        self.setAccessibleName(_("facts"))
        lift(self)
        self._title = QLabel(self)
        self._title.setStyleSheet("font-size: 18px; font-weight: 600;")
        self._sort = QLabel(self)
        self._sort.setObjectName("soft")
        self._sort.setWordWrap(True)
        self._said = QLabel(self)
        self._said.setWordWrap(True)
        self._said.setObjectName("soft")
        self._trouble = QLabel(self)
        self._trouble.setWordWrap(True)
        self._trouble.setStyleSheet("color: #A13325; font-weight: 600;")
        close = icon_button("x", _("close the facts"), self)
        close.clicked.connect(lambda: self.want(False))
        head = QHBoxLayout()
        head.addWidget(self._title, 1)
        head.addWidget(close)
        self._area = QScrollArea(self)
        self._area.setWidgetResizable(True)
        self._area.setFrameShape(QFrame.Shape.NoFrame)
        self._area.setStyleSheet("QScrollArea, QScrollArea > QWidget > QWidget { background: transparent; }")
        self._hues = QGridLayout()
        self._hues.setSpacing(0)
        self._dots: list[HueButton] = []
        for k, hue in enumerate(HUES):
            dot = HueButton(hue, self, 44)
            dot.clicked.connect(lambda _on=False, hue=hue: self._recolour(hue))
            self._dots.append(dot)
            self._hues.addWidget(dot, k // 5, k % 5)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 8, 10, 12)
        layout.setSpacing(4)
        layout.addLayout(head)
        layout.addWidget(self._sort)
        layout.addWidget(self._said)
        layout.addWidget(self._trouble)
        layout.addWidget(self._area, 1)
        layout.addLayout(self._hues)
        self._rows: list[FactRow] = []
        self._names: tuple[object, ...] = ()
        self.hide()
        canvas.selection_changed.connect(self._selected)
        canvas.committed.connect(self.refresh)
        canvas.viewed.connect(self.refresh)

    def tick(self, ids: set[str]) -> None:
        """Things that run look different by now; what is being typed is left alone."""
        typing = any(row.value.hasFocus() for row in self._rows)
        if not typing and len(self.canvas.selection) == 1 and self.canvas.selection[0] in ids:
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
            return [*at_present(things[0]).facts(page), *common_facts(lesson, page, things)]
        found = [Fact("number", len(things), text=str(len(things)), label=_("things"))]
        worth = total(things)
        if worth is not None:
            found.append(Fact("total", worth, text=str(worth), label=_("total")))
        return [*found, *common_facts(lesson, page, things)]

    def refresh(self) -> None:
        """Shows the facts as they are now; rows are built anew only if there are others."""
        if not self.wanted or self.canvas.at_board or (self.of_page() and self.canvas.tool_writes()):
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
        listed = [fact for fact in facts if fact.name != "sort"]
        names = (thing.id if thing else "", *((fact.name, fact.options) for fact in listed))
        if names != self._names:
            self._build(listed)
            self._names = names
        shown = shown_on(thing) if thing else ()
        for row, fact in zip(self._rows, listed, strict=True):
            row.show(fact, bool(fact.badge) and fact.badge in shown)
        hue = thing.hue if thing else ""
        for dot in self._dots:
            dot.setChecked(dot.hue == hue)
            dot.setVisible(not self.of_page())
        self.place()
        self.show()

    def _build(self, facts: list[Fact]) -> None:
        body = QWidget()
        grid = QGridLayout(body)
        grid.setContentsMargins(0, 0, 4, 0)
        grid.setVerticalSpacing(0)
        grid.setHorizontalSpacing(6)
        grid.setColumnStretch(1, 1)
        self._rows = [FactRow(self, fact, grid, row) for row, fact in enumerate(facts)]
        for row in range(len(facts)):
            grid.setRowMinimumHeight(row, 36)
        grid.setRowStretch(len(facts), 1)
        for field in self._rows:
            field.value.installEventFilter(self)
        self._area.setWidget(body)

    def place(self) -> None:
        height = self.canvas.height() - self.canvas.covered_below - 24
        hues = 0 if self.of_page() else 100
        wanted = 90 + hues + (37 if self.of_page() else 44) * max(2, len(self._rows)) + (0 if self._sort.isHidden() else 24)
        self.setGeometry(self.canvas.width() - WIDTH - 14, 12, WIDTH, max(180, min(height, wanted)))
        self.raise_()

    def set_fact(self, name: str, typed: str) -> None:
        """Changes the thing or the page so that the fact becomes what was typed, or says in one sentence why it can't."""
        page = self.canvas.page
        thing = page.thing(self.canvas.selection[0]) if self.canvas.selection else None
        stated = list(page_facts(page)) if self.of_page() else self._stated(page, self.canvas.things())
        fact = next((f for f in stated if f.name == name), None)
        head, sign, rest = typed.partition("=")
        if fact is not None and sign and head.strip() in (fact.name, fact.label):  # “AB = 5 cm” means 5 cm
            typed = rest.strip()
        if fact is None or fact.set is None or typed == (fact.value if fact.options else fact.text):
            self.refresh()
            return
        if thing is not None and thing.locked and name not in ("moves", "link"):
            self._trouble.setText(_("It is locked; unlock it to change it."))
        else:
            try:
                self._change(fact, thing, fact.set(typed))
            except ValueError as error:
                self._said.clear()
                self._trouble.setText(str(error))
        self.refresh()

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
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress and event.key() == Qt.Key.Key_Escape:
            if isinstance(watched, QLineEdit):
                watched.setModified(False)
            self._names = ()
            self.canvas.setFocus()
            self.refresh()
            return True
        return super().eventFilter(watched, event)
