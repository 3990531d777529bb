"""What to export, as what, and how large."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtWidgets import QCheckBox, QComboBox, QDialog, QDialogButtonBox, QFormLayout, QSpinBox, QWidget

from larch.board.export import FORMATS, WIDEST
from larch.board.paint import outside
from larch.core.base.words import _, many
from larch.core.model.page import Page
from larch.desk.plain import Words


class ExportDialog(QDialog):
    """format: pdf, png or svg; whole: all pages or only the open one; width: of a PNG in pixels; the others: see `Asked`."""

    def __init__(self, pages: Sequence[Page], open_page: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._numbered = list(enumerate(pages, 1))
        self._open = next((n for n, page in self._numbered if page.id == open_page), 1)
        self.setWindowTitle(_("Export"))
        self._format = QComboBox(self)
        for name, label in zip(
            FORMATS, (_("PDF, for printing and handing on"), _("PNG, a picture"), _("SVG, a drawing")), strict=True
        ):
            self._format.addItem(label, name)
        self._format.setAccessibleName(_("as"))
        self._pages = QComboBox(self)
        self._pages.addItem(_("the whole lesson"), True)
        self._pages.addItem(_("this page"), False)
        self._pages.setAccessibleName(_("what"))
        self._width = QSpinBox(self)
        self._width.setRange(16, WIDEST)
        self._width.setValue(1920)
        self._width.setSuffix(_(" pixels wide"))
        self._width.setAccessibleName(_("size"))
        self._fonts = QComboBox(self)
        self._fonts.addItem(_("drawn as outlines, the same everywhere"), "outlined")
        self._fonts.addItem(_("text, with its fonts inside"), "embedded")
        self._fonts.addItem(_("text, its fonts only named"), "named")
        self._fonts.setAccessibleName(_("letters"))
        form = self._form = QFormLayout(self)
        form.setContentsMargins(24, 20, 24, 18)
        form.setVerticalSpacing(14)
        form.setHorizontalSpacing(14)
        for words, field in (
            (_("what"), self._pages),
            (_("as"), self._format),
            (_("size"), self._width),
            (_("letters"), self._fonts),
        ):
            named = Words(words, self)
            named.setMinimumHeight(field.sizeHint().height())
            form.addRow(named, field)
        self._format.currentIndexChanged.connect(lambda _i: self._ask_what_matters())
        self._ask_what_matters()
        self._beyond = Words(self)
        self._beyond.setWordWrap(True)
        self._grow = QCheckBox(_("make those sheets larger, so that nothing is cut off"), self)
        self._grow.setChecked(True)
        self._pages.currentIndexChanged.connect(lambda _i: self._say_what_lies_outside())
        self._answers = QCheckBox(_("with answers: what frost covers is shown"), self)
        form.addRow(self._answers)
        form.addRow(self._beyond)
        form.addRow(self._grow)
        self._say_what_lies_outside()
        buttons = QDialogButtonBox(self)
        go = buttons.addButton(_("Choose where…"), QDialogButtonBox.ButtonRole.AcceptRole)
        buttons.addButton(_("Not now"), QDialogButtonBox.ButtonRole.RejectRole)
        assert go is not None
        go.setDefault(True)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        form.addRow(buttons)

    def _ask_what_matters(self) -> None:
        """A size is a picture's, a manner of letters a drawing's."""
        self._form.setRowVisible(self._width, self.format == "png")
        self._form.setRowVisible(self._fonts, self.format == "svg")
        self.adjustSize()

    def _say_what_lies_outside(self) -> None:
        """Working, a page has no edge; printing, it has: what lies beyond is named before anything is written."""
        numbers = [str(n) for n, page in self._numbered if (self.whole or n == self._open) and outside(page)]
        self._beyond.setText(
            many("On page {{pages}}, some things reach outside the printed part.",
                 "On pages {{pages}}, some things reach outside the printed part.", len(numbers)).format(
                     pages=", ".join(numbers))
        )  # fmt: skip
        self._beyond.setVisible(bool(numbers))
        self._grow.setVisible(bool(numbers))

    @property
    def grow(self) -> bool:
        return self._grow.isChecked()

    @property
    def answers(self) -> bool:
        return self._answers.isChecked()

    @property
    def fonts(self) -> str:
        return str(self._fonts.currentData())

    @property
    def format(self) -> str:
        return str(self._format.currentData())

    @property
    def whole(self) -> bool:
        return bool(self._pages.currentData())

    @property
    def width_in_pixels(self) -> int:
        return self._width.value()
