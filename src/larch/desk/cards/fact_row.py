"""One fact on the card: its label, its value to be read, typed or chosen, and an eye where it can be shown on the page."""

from __future__ import annotations

from typing import Protocol

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QFontMetrics
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QToolButton, QVBoxLayout, QWidget

from larch.board.look import hue_icon, icon, interface_font
from larch.core.base.hues import GOLD_TEXT, HUES, NEEDLE_SOFT, is_hex
from larch.core.base.words import _
from larch.core.model.fact import Fact
from larch.desk.fields import Field
from larch.desk.plain import Words, tip
from larch.desk.toolbar.buttons import icon_button

MIX = "mix"  # chosen in a list of colours, it opens the dialog in which one is mixed
LINE = 300  # pixels of a line without its eye
EYE = 44
LABEL = 156  # the most of a line that a label takes
ARROW = 44  # what a list needs beside its words
HIGH = 36


class Taker(Protocol):
    """What a row asks of its card."""

    def set_fact(self, name: str, typed: str) -> str: ...
    def toggle(self, name: str) -> None: ...
    def refresh(self) -> None: ...
    def parent_of_rows(self) -> QWidget: ...


def width_of(text: str, bold: bool = False) -> int:
    return QFontMetrics(interface_font(15, bold)).horizontalAdvance(text)


class FactRow:
    """A long value stands below its label, so that all of it is read.

    eyed: whether other rows have an eye, so that values stand in one line all the same."""

    def __init__(self, card: Taker, fact: Fact, eyed: bool) -> None:
        self.card = card
        self.name = fact.name
        self.box = body = QWidget(card.parent_of_rows())
        self.label = Words(fact.label, body)
        self.label.setObjectName("soft")
        self.label.setWordWrap(True)
        self.value = Field(body)
        self.value.setObjectName("wish" if fact.group() == "doing" and fact.set is not None else "fact")
        self.value.setReadOnly(fact.set is None)
        self.value.setAccessibleName(fact.label)
        self.label.setBuddy(self.value)
        if fact.set is None:
            self.value.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.value.editingFinished.connect(self._typed)
        self.list: QComboBox | None = None
        if fact.options:
            self.list = self._list_of(fact, body)
            self.label.setBuddy(self.list)
            self.value.hide()
        shown = max((width_of(label, True) for _value, label in fact.options), default=width_of(fact.text, True))
        room = LINE - min(LABEL, width_of(fact.label)) - (EYE if fact.badge or (eyed and not fact.options) else 0)
        self.lines = 2 if shown + (ARROW + 22 * bool(self.list) if self.list else 16) > room else 1
        self.told: QLabel | None = None
        if self.lines == 2 and fact.set is None and width_of(fact.text, True) > LINE - 20:
            self.told = Words(fact.text, body)
            self.told.setWordWrap(True)
            self.told.setStyleSheet("font-weight: 600; padding: 0 4px 4px 4px;")
            self.value.hide()
        self.value.setAlignment(Qt.AlignmentFlag.AlignRight if self.lines == 1 else Qt.AlignmentFlag.AlignLeft)
        self.eye = self._eye(fact, body) if fact.badge else None
        self._lay(self.told or self.list or self.value, fact, eyed)
        self.show(fact, False)

    def _lay(self, held: QWidget, fact: Fact, eyed: bool) -> None:
        column = QVBoxLayout(self.box)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        line = QHBoxLayout()
        line.setSpacing(6)
        column.addLayout(line)
        line.addWidget(self.label)
        if self.lines == 1:
            self.label.setFixedWidth(min(LABEL, width_of(fact.label) + 4))
            self.box.setMinimumHeight(HIGH)
            line.addWidget(held, 1)
        else:
            self.label.setMinimumHeight(HIGH - 12)
            column.addWidget(held)
        if self.eye is not None:
            line.addWidget(self.eye)
        elif eyed and self.lines == 1 and self.list is None:
            line.addSpacing(EYE)

    def _eye(self, fact: Fact, body: QWidget) -> QToolButton:
        eye = icon_button("eye", _("show {fact} on the page").format(fact=fact.label), body, EYE, 22)
        eye.setFixedHeight(HIGH)
        eye.setObjectName("eye")
        eye.setCheckable(True)
        eye.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        eye.clicked.connect(lambda: self.card.toggle(self.name))
        return eye

    def _list_of(self, fact: Fact, body: QWidget) -> QComboBox:
        made = QComboBox(body)
        made.setObjectName("factlist")
        made.setAccessibleName(fact.label)
        made.setMaxVisibleItems(16)
        made.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        made.setMinimumContentsLength(4)
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

        picked = QColorDialog.getColor(parent=self.value.window(), title=_("Mix a colour"))
        if picked.isValid():
            self.card.set_fact(self.name, picked.name())
        else:
            self.card.refresh()

    def show(self, fact: Fact, shown: bool) -> None:
        """The fact as it is now; what is being typed stays."""
        if self.list is not None:
            where = next((i for i, (value, _label) in enumerate(fact.options) if value == fact.value), -1)
            self.list.setCurrentIndex(where)
            self.list.setPlaceholderText(fact.text)
        if self.told is not None:
            self.told.setText(fact.text)
        self.value.setPlaceholderText(fact.hint)
        if not self.value.isModified() and (self.value.text() != fact.text or self.value.isUndoAvailable()):
            self.value.setText(fact.text)
            self.value.setCursorPosition(0)
            self.value.setToolTip(tip(fact.text if width_of(fact.text, True) > LINE - 20 else ""))
        if self.eye is not None:
            self.eye.setChecked(shown)
            self.eye.setIcon(icon("eye" if shown else "eye-off", GOLD_TEXT if shown else NEEDLE_SOFT))

    def focus(self) -> None:
        (self.list or self.value).setFocus(Qt.FocusReason.TabFocusReason)

    def has_focus(self) -> bool:
        return self.value.hasFocus() or (self.list is not None and self.list.hasFocus())

    def takes_focus(self) -> bool:
        return self.list is not None or not self.value.isReadOnly()

    def _typed(self) -> None:
        if self.value.isModified():
            typed = self.value.text()
            self.value.setModified(False)
            self.card.set_fact(self.name, typed)
