"""The bar over words that are being typed: how large, how they look, how their lines stand."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QFontDatabase, QIcon
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QMenu, QToolButton

from larch.board.look import hue_icon, load_fonts
from larch.core.base.hues import HUES
from larch.core.base.words import _
from larch.core.things.words.rich import DISTANCES, LARGEST, SMALLEST, STEP, TITLE, fonts
from larch.desk.style import lift
from larch.desk.toolbar.buttons import icon_button

if TYPE_CHECKING:
    from larch.desk.editors.words import TextEditor

GAP = 10  # pixels between the bar and the words


class TextBar(QFrame):
    """Buttons that never take the keys away from the words."""

    def __init__(self, editor: TextEditor) -> None:
        super().__init__(editor.editors.canvas)
        self.editor = editor
        self.setObjectName("card")
        self.setAccessibleName(_("style of the words"))
        self.setAttribute(Qt.WidgetAttribute.WA_NoMousePropagation)
        lift(self)
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)  # a press on a button would else give the keys to the page
        self.setFocusProxy(editor)
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(6, 3, 6, 3)
        self._row.setSpacing(0)
        self.buttons: dict[str, QToolButton] = {}
        self._menus: list[QMenu] = []
        self._fill()
        self.adjustSize()
        self.show()
        self.raise_()

    def _fill(self) -> None:
        e = self.editor
        self._menu("size", "a-large-small", _("size, by how far away it is read"), self._sizes())
        for field, picture, label in (
            ("bold", "bold", _("bold (Ctrl+B)")), ("italic", "italic", _("italic (Ctrl+I)")),
            ("underline", "underline", _("underlined (Ctrl+U)")),
        ):  # fmt: skip
            self._button(field, picture, label, partial(lambda field: e.style(**{field: not self._is(field)}), field))
        self._menu("colour", "palette", _("colour"), self._hues())
        for rise, picture, label in (
            ("super", "superscript", _("raised (Ctrl+.)")), ("sub", "subscript", _("lowered (Ctrl+,)")),
        ):  # fmt: skip
            self._button(
                rise, picture, label, partial(lambda rise: e.style(rise="" if e.run_here().rise == rise else rise), rise)
            )
        self._button("maths", "square-function", _("as mathematics (Ctrl+M)"), e.maths)
        for align, picture, label in (
            ("", "text-align-start", _("lines to the left")), ("centre", "text-align-center", _("lines centred")),
            ("right", "text-align-end", _("lines to the right")),
        ):  # fmt: skip
            self._button(f"align {align}", picture, label, partial(lambda align: e.arrange(align=align), align))
        for kind, picture, label in (
            ("dots", "list", _("list with dots")),
            ("numbers", "list-ordered", _("list with numbers")),
        ):
            self._button(
                kind, picture, label, partial(lambda kind: e.arrange(list="" if self._list() == kind else kind), kind)
            )
        self._menu("font", "type", _("font"), self._fonts())
        self.refresh()

    def _sizes(self) -> list[tuple[str, QIcon | None, Callable[[], None]]]:
        scale = self.editor.thing.placement.scale
        listed: list[tuple[str, QIcon | None, Callable[[], None]]] = []
        for metres, size in DISTANCES.items():
            label = _("read from {m} m").format(m=metres)
            listed.append((label, None, partial(lambda size: self.editor.style(size=size / scale), size)))
        listed.append((_("title"), None, lambda: self.editor.style(size=TITLE / scale)))
        listed.append((_("larger"), None, lambda: self._resize(STEP)))
        listed.append((_("smaller"), None, lambda: self._resize(1 / STEP)))
        return listed

    def _resize(self, by: float) -> None:
        now = self.editor.run_here().size or self.editor.thing.size
        self.editor.style(size=min(LARGEST, max(SMALLEST, now * by)))

    def _hues(self) -> list[tuple[str, QIcon | None, Callable[[], None]]]:
        return [(_(hue), hue_icon(hue), partial(lambda hue: self.editor.style(hue=hue), hue)) for hue in HUES]

    def _fonts(self) -> list[tuple[str, QIcon | None, Callable[[], None]]]:
        """Those that are shipped first, then what the machine has; a long list is cut into what can be read."""
        load_fonts()
        shipped = [(label, None, partial(lambda f: self.editor.style(font=f), family)) for family, label in fonts()]
        known = {family for family, _label in fonts()} | {"Andika"}
        own = [f for f in QFontDatabase.families() if f not in known and not QFontDatabase.isPrivateFamily(f)][:40]
        return [*shipped, *((f, None, partial(lambda f: self.editor.style(font=f), f)) for f in own)]

    def _done(self, run: Callable[[], None]) -> None:
        run()
        self.refresh()

    def _button(self, name: str, picture: str, label: str, run: Callable[[], None]) -> QToolButton:
        button = icon_button(picture, label, self, pixels=22)
        button.setObjectName("pick")
        button.setCheckable(True)
        button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        button.clicked.connect(lambda: self._done(run))
        self.buttons[name] = button
        self._row.addWidget(button)
        return button

    def _menu(self, name: str, picture: str, label: str, listed: list[tuple[str, QIcon | None, Callable[[], None]]]) -> None:
        menu = QMenu(self)
        for text, sign, run in listed:
            action = menu.addAction(sign, text) if sign is not None else menu.addAction(text)
            if action is not None:
                action.triggered.connect(partial(lambda run, _on=False: self._done(run), run))
        button = self._button(name, picture, label, lambda: None)
        button.clicked.disconnect()
        button.setMenu(menu)
        button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        button.setStyleSheet("QToolButton::menu-indicator { image: none; }")
        self._menus.append(menu)

    def _is(self, field: str) -> bool:
        return self.editor.is_bold() if field == "bold" else bool(getattr(self.editor.run_here(), field))

    def _list(self) -> str:
        return self.editor.paragraph_at().list

    def refresh(self) -> None:
        """Shows how the words at the caret look."""
        run, paragraph = self.editor.run_here(), self.editor.paragraph_at()
        on = {"bold": self.editor.is_bold(), "italic": run.italic, "underline": run.underline}
        on |= {rise: run.rise == rise for rise in ("super", "sub")}
        on["maths"] = run.maths
        on |= {f"align {align}": paragraph.align == align for align in ("", "centre", "right")}
        on |= {kind: paragraph.list == kind for kind in ("dots", "numbers")}
        for name, state in on.items():
            self.buttons[name].setChecked(state)

    def has_focus(self) -> bool:
        return any(menu.isVisible() for menu in self._menus)

    def place(self) -> None:
        """Over the words; under them where there is no room."""
        canvas, words = self.editor.editors.canvas, self.editor.geometry()
        above = words.top() - self.height() - GAP
        bottom = canvas.height() - canvas.covered.below - self.height() - 4
        y = above if above >= 4 else min(words.bottom() + GAP, bottom)
        self.move(max(4, min(words.left(), canvas.width() - self.width() - 4)), y)
        self.raise_()
