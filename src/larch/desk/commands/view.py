"""Commands of the view: Board and Desk, zoom, the ledge, motion, sound."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QWidget

from larch.core.base.words import _
from larch.desk.commands.command import Command
from larch.desk.theme import LABELS

if TYPE_CHECKING:
    from larch.desk.context import Context


ORDER = 80
ZOOM_STEP = 1.25


def build(w: Context) -> list[Command]:
    edges = [
        Command(f"ledge {edge}", label, partial(lambda edge: w.part("set_ledge")(edge), edge), "View",
                "hand" if edge == "float" else f"panel-{edge}", words=_("ledge tools strip toolbar"),
                apart=edge == "bottom", fold=_("Ledge"))
        for edge, label in (
            ("bottom", _("Ledge along the bottom")), ("top", _("Ledge along the top")),
            ("left", _("Ledge on the left")), ("right", _("Ledge on the right")),
            ("float", _("Ledge afloat")),
        )
    ]  # fmt: skip
    return [
        Command("board", _("To the Board"), w.go_to_board, "View", "presentation", "F5", _("present full screen"),
                board=True),
        Command("desk", _("Back to the Desk"), w.go_to_desk, "", "monitor", words=_("leave board"),
                enabled=lambda: w.at_board, board=True),
        Command("whole page", _("Whole page"), lambda: w.canvas.whole_page(), "View", "maximize", "Ctrl+0",
                _("fit zoom"), apart=True, board=True, stays=True),
        Command("whole extent", _("Everything on the page"), lambda: w.canvas.whole_extent(), "View", "",
                "Ctrl+Shift+0", _("extent fit zoom all"), board=True, stays=True),
        Command("true size", _("100 %"), lambda: w.canvas.true_size(), "View", "square", "Ctrl+1", _("zoom actual"),
                board=True, stays=True),
        Command("zoom in", _("Larger"), lambda: _zoom(w, ZOOM_STEP), "View", "zoom-in", "Ctrl++ or Ctrl+=", _("zoom in"),
                board=True, stays=True),
        Command("zoom out", _("Smaller"), lambda: _zoom(w, 1 / ZOOM_STEP), "View", "zoom-out", "Ctrl+-", _("zoom out"),
                board=True, stays=True),
        Command("next part", _("To the next part of the window"), lambda: step_round(w, 1), "View", "", "F6",
                _("keyboard focus tag facts ledge shelf page"), apart=True),
        Command("part before", _("To the part of the window before"), lambda: step_round(w, -1), "", "", "Shift+F6",
                _("keyboard focus")),
        Command("motion", _("Motion on or off"), lambda: w.part("set_still")(not w.canvas.still), "View", "",
                words=_("animation still reduce"), apart=True),
        Command("sounds", _("Sounds on or off"), lambda: w.part("set_sounds")(not w.settings.sounds), "View", "volume-2",
                words=_("silent quiet loud click")),
        *edges,
        *(Command(f"theme {name}", _("Theme: {name}").format(name=_(label)), partial(_theme, w, name), "View", "contrast",
                  words=_("look dark light colours night contrast"), fold=_("Theme")) for name, label in LABELS.items()),
    ]  # fmt: skip


def step_round(w: Context, by: int) -> None:
    """The keys go on to the next part of the window that is seen: page, tag, cards, shelf, ledge, menus."""
    named = [w.part(name) for name in ("tag", "facts", "shelf") if w.shows(name)]
    parts: list[QWidget] = [w.canvas, *named, *w.part("shown_cards")(), w.part("ledge"), w.part("top_bar")]
    held = w.top.focusWidget()
    inner = [k for k, part in enumerate(parts) if held is not None and (part is held or part.isAncestorOf(held))]
    where = max(inner, default=0)
    for _k in range(len(parts)):
        where = (where + by) % len(parts)
        if _enter(parts[where]):
            return


def _enter(part: QWidget) -> bool:
    """Gives the keys to the first control of a part that takes them."""
    if part.focusPolicy() & Qt.FocusPolicy.TabFocus:
        part.setFocus(Qt.FocusReason.TabFocusReason)
        return True
    inner = [child for child in part.findChildren(QWidget) if child.isVisibleTo(part) and child.isEnabled()]
    first = next((child for child in inner if child.focusPolicy() & Qt.FocusPolicy.TabFocus), None)
    if first is not None:
        first.setFocus(Qt.FocusReason.TabFocusReason)
    return first is not None


def _theme(w: Context, name: str) -> None:
    from PyQt6.QtWidgets import QApplication

    from larch.desk.style import paint_over

    app = QApplication.instance()
    assert isinstance(app, QApplication)
    paint_over(app, name)
    w.keep_setting(theme=name)


def _zoom(w: Context, factor: float) -> None:
    w.canvas.zoom_by(factor, (w.canvas.width() / 2, w.canvas.height() / 2))
