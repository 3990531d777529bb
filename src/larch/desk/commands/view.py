"""Commands of the view: Board and Desk, zoom, the ledge, motion, sound."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from larch.core.base.words import _
from larch.desk.commands.command import Command

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
        Command("board", _("To the Board"), w.go_to_board, "View", "presentation", "F5", _("present full screen")),
        Command("desk", _("Back to the Desk"), w.go_to_desk, "", "monitor", words=_("leave board"),
                enabled=lambda: w.at_board),
        Command("whole page", _("Whole page"), lambda: w.canvas.whole_page(), "View", "maximize", "Ctrl+0",
                _("fit zoom"), apart=True),
        Command("whole extent", _("Everything on the page"), lambda: w.canvas.whole_extent(), "View", "",
                "Ctrl+Shift+0", _("extent fit zoom all")),
        Command("true size", _("100 %"), lambda: w.canvas.true_size(), "View", "square", "Ctrl+1", _("zoom actual")),
        Command("zoom in", _("Larger"), lambda: _zoom(w, ZOOM_STEP), "View", "zoom-in", "Ctrl++ or Ctrl+=", _("zoom in")),
        Command("zoom out", _("Smaller"), lambda: _zoom(w, 1 / ZOOM_STEP), "View", "zoom-out", "Ctrl+-", _("zoom out")),
        Command("motion", _("Motion on or off"), lambda: w.part("set_still")(not w.canvas.still), "View", "",
                words=_("animation still reduce"), apart=True),
        Command("sounds", _("Sounds on or off"), lambda: w.part("set_sounds")(not w.settings.sounds), "View", "volume-2",
                words=_("silent quiet loud click")),
        *edges,
    ]  # fmt: skip


def _zoom(w: Context, factor: float) -> None:
    w.canvas.zoom_by(factor, (w.canvas.width() / 2, w.canvas.height() / 2))
