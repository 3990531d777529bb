"""What can be chosen for each tool, row by row."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

from PyQt6.QtWidgets import QCheckBox, QPushButton

from larch.board.look import icon
from larch.board.tools.base import Tool
from larch.board.tools.brush import GAPS, BrushTool
from larch.board.tools.construct import ConstructTool
from larch.board.tools.draw import PenTool
from larch.board.tools.erase import MODES, RADII, EraserTool, mode_label
from larch.board.tools.place import HandTool, TextTool
from larch.board.tools.select import SelectTool
from larch.board.tools.stamp import GAPS as ROW_GAPS
from larch.board.tools.stamp import SIZES, MarkTool
from larch.core.base.words import N_, _
from larch.core.figures.rules import RULES
from larch.core.model.fact import MINUS
from larch.core.model.nibs import DASHES, ENDS, FORMS, NIBS, Pen
from larch.core.things.ink.mark import MARKS
from larch.core.things.words.rich import DISTANCES, TITLE
from larch.desk.plain import Words
from larch.desk.toolbar.buttons import GapButton, MarkButton, PenChip, WidthButton
from larch.desk.toolbar.choices import LARGE, Choices
from larch.desk.toolbar.rule_button import WIDE, RuleButton


def fill(card: Choices, tool: Tool) -> None:
    """Adds a tool's rows to the card."""
    rows = next((rows for kind, rows in ROWS.items() if isinstance(tool, kind)), None)
    if rows is not None:
        rows(card, tool)


UNRULED = {
    "point": ("draw", N_("point")), "drawn": ("draw", N_("shape by hand")), "locus": ("construct", N_("locus")),
}  # fmt: skip
FAMILIES = (("draw", N_("draw")), ("circles", N_("circles")), ("construct", N_("construct")), ("touching", N_("tangents")),
            ("move", N_("images")))  # fmt: skip
NUMBERS: dict[str, tuple[float, ...]] = {
    "rotate": (30, 45, 60, 90, 120, 180, -90), "enlarge": (-1, -0.5, 0.5, 1.5, 2, 3),
    "regular": (3, 4, 5, 6, 8, 10, 12), "circle with radius": (32, 64, 96, 128, 160),
}  # fmt: skip


def family_of(mode: str) -> str:
    """The family in which a construction is listed."""
    rule = RULES.get(mode)
    return rule.family if rule is not None else UNRULED[mode][0]


def _construct(card: Choices, tool: ConstructTool) -> None:
    """One family of what is drawn or constructed; then a number, where a rule has one, and the colour."""
    shown = tool.family or family_of(tool.mode)
    for family, label in FAMILIES:
        tab = QPushButton(_(label), card)
        tab.setObjectName("tray")
        tab.setMinimumHeight(44)
        card.one_of(tab, family == shown, partial(lambda family: setattr(tool, "family", family), family))
    parent = card.parentWidget()
    wide = round(WIDE * LARGE) if card.large else WIDE
    across = max(2, min(5, ((parent.width() if parent is not None else 900) - 40) // (wide + 2)))

    def choose(name: str) -> None:
        tool.choose(name)
        tool.family = ""

    listed = [(name, _(rule.label)) for name, rule in RULES.items() if rule.family == shown]
    listed += [(name, _(words)) for name, (family, words) in UNRULED.items() if family == shown]
    for k, (name, words) in enumerate(listed):
        if k % across == 0:
            card.row()
        card.one_of(RuleButton(name, words, card), name == tool.mode, partial(choose, name))
    card.row()
    head = Words(tool.title(), card)
    head.setFixedWidth(200)
    head.setStyleSheet("font-weight: 600;")
    card.add(head)
    rule = RULES.get(tool.mode)
    if tool.mode in NUMBERS and rule is not None:
        card.apart()
        now = f"{tool.values()[0]:g}"
        unit = {"length": " cm"}.get(rule.values[0][1], rule.values[0][1])
        scale = 32 if unit == " cm" else 1
        listed_numbers = [(f"{n:g}", f"{n / scale:g}{unit}".replace("-", MINUS)) for n in NUMBERS[tool.mode]]
        card.texts(listed_numbers, now, lambda text: tool.numbers.__setitem__(tool.mode, float(text)))
    card.row()
    card.hues(tool.hue, lambda hue: setattr(tool, "hue", hue))


def _pen(card: Choices, tool: PenTool) -> None:
    """Pens kept ready; nib, form, dashes and ends; width and colour; whether each tip keeps its own."""

    def take(pen: Pen) -> Callable[[], None]:
        return lambda: tool.choose(pen)

    for kept in tool.kept:
        card.one_of(PenChip(kept, card), kept == tool.pen, take(kept))
    card.apart()
    card.add(_keeper(card, tool))
    card.row()

    def change(**fields: Any) -> None:
        tool.choose(tool.pen.replace(**fields))

    for name, nib in NIBS.items():
        chip = PenChip(Pen(name, width=nib.widths[1], hue=tool.pen.hue), card, nib.label(), 56)
        card.one_of(chip, name == tool.pen.nib, take(tool.pen.with_nib(name)))
    card.apart()
    forms = [(value, picture, word()) for value, (word, picture) in FORMS.items()]
    card.icons(forms, tool.pen.form, lambda form: change(form=form))
    card.row()  # all in one line would be wider than a small board
    for k, (table, field) in enumerate(((DASHES, "dash"), (ENDS, "ends"))):
        if k:
            card.apart()
        for value, (word, _picture) in table.items():
            chip = PenChip(Pen("fine", "line", 3.0, **{field: value}), card, word(), 56)
            card.one_of(chip, value == getattr(tool.pen, field), take(tool.pen.replace(**{field: value})))
    card.apart()
    for width in NIBS[tool.pen.nib].widths:
        button = WidthButton(width, _("line {w} wide").format(w=f"{width:g}"), card)
        card.one_of(button, tool.pen.width == width, partial(lambda width: change(width=width), width))
    card.row()
    card.hues(tool.pen.hue, lambda hue: change(hue=hue))
    card.row()
    tips = QCheckBox(_("Tip colours: each pen, fingertip and mouse keeps the pen it was last given"), card)
    tips.setMinimumHeight(40)
    tips.setChecked(tool.by_tip)

    def by_tip() -> None:
        tool.by_tip = not tool.by_tip
        tool.choose(tool.pen)

    tips.clicked.connect(lambda: card.changed(by_tip))
    card.add(tips)


def _keeper(card: Choices, tool: PenTool) -> QPushButton:
    """Keeps the pen in hand among those that lie ready, in the place of the one that was kept longest."""
    keep = QPushButton(icon("pin"), _("keep this pen"), card)
    keep.setMinimumHeight(44)
    keep.setEnabled(tool.pen not in tool.kept)

    def change() -> None:
        tool.kept = [*tool.kept[1:], tool.pen]

    keep.clicked.connect(lambda: card.changed(change))
    return keep


def _eraser(card: Choices, tool: EraserTool) -> None:
    def mode(value: str) -> None:
        tool.mode = value

    def hue(value: str) -> None:
        tool.only_hue = value

    card.texts([(name, mode_label(name)) for name in MODES], tool.mode, mode)
    if tool.mode in ("part", "strokes"):
        card.apart()
        for radius in RADII:
            button = WidthButton(radius, _("rubber {w} wide").format(w=f"{2 * radius:g}"), card)
            card.one_of(button, tool.radius == radius, partial(lambda radius: setattr(tool, "radius", radius), radius))
    card.row()
    card.hues(tool.only_hue, hue, every=_("every colour"))
    card.row()
    wiping = ("wipe this colour", _("wipe this colour")) if tool.only_hue else ("wipe", _("wipe all ink"))
    card.commands([("brush-cleaning", wiping[1], wiping[0]), ("lock", _("keep what is written"), "keep ink")])


def _stamp(card: Choices, tool: MarkTool) -> None:
    for shape, word in MARKS.items():
        button = MarkButton(shape, tool.hue, word(), card)
        card.one_of(button, tool.shape == shape, partial(lambda shape: setattr(tool, "shape", shape), shape))
    card.apart()
    if tool.own:
        card.texts([("own", _("own picture"))], tool.shape, lambda shape: setattr(tool, "shape", shape))
    card.commands([("square-dashed", _("take the selection as picture"), "own stamp")])
    card.row()
    for size in SIZES:
        button = MarkButton("dot", "slate", _("{w} large").format(w=f"{size:g}"), card, size / SIZES[-1])
        card.one_of(button, tool.size == size, partial(lambda size: setattr(tool, "size", size), size))
    card.apart()
    for gap in ROW_GAPS:
        label = _("in a row, {gap} sizes apart").format(gap=f"{gap:g}")
        card.one_of(GapButton(gap, label, card), tool.gap == gap, partial(lambda gap: setattr(tool, "gap", gap), gap))
    card.row()
    card.hues(tool.hue, lambda hue: setattr(tool, "hue", hue))


def _brush(card: Choices, tool: BrushTool) -> None:
    card.words(_("bridges gaps up to"))
    for gap in GAPS:
        card.texts(
            [(f"{gap:g}", f"{gap / 32:g} cm")], f"{tool.gap:g}", partial(lambda gap, _v: setattr(tool, "gap", gap), gap)
        )
    card.row()
    card.hues(tool.hue, lambda hue: setattr(tool, "hue", hue))


def _text(card: Choices, tool: TextTool) -> None:
    """Type by the distance it is read from; its colour; a note instead."""
    sizes = [(f"{size:g}", _("read from {m} m").format(m=metres)) for metres, size in DISTANCES.items()]
    sizes.append((f"{TITLE:g}", _("title")))
    card.texts(sizes, f"{tool.size:g}", lambda size: setattr(tool, "size", float(size)))
    card.apart()
    card.commands([("sticky-note", _("sticky note"), "note")])
    card.row()
    card.hues(tool.hue, lambda hue: setattr(tool, "hue", hue))


def _select(card: Choices, tool: SelectTool) -> None:
    """What a drag over the empty page draws; then what all quiet tools offer."""

    def mode(value: str) -> None:
        tool.mode = value

    modes = [("box", "square-dashed", _("a box round things")), ("ring", "lasso", _("a ring round things"))]
    card.icons(modes, tool.mode, mode)
    card.apart()
    card.commands([("layers", _("layers"), "layers"), ("square-dashed", _("same kind"), "same kind")])
    card.row()
    _view(card, tool)


def _view(card: Choices, tool: Tool) -> None:
    card.commands(
        [
            ("zoom-out", _("smaller"), "zoom out"), ("zoom-in", _("larger"), "zoom in"),
            ("maximize", _("whole page"), "whole page"), ("square", _("100 %"), "true size"),
        ]
    )  # fmt: skip


ROWS: dict[type[Tool], Callable[..., None]] = {
    PenTool: _pen, EraserTool: _eraser, MarkTool: _stamp, BrushTool: _brush, TextTool: _text, HandTool: _view,
    SelectTool: _select, ConstructTool: _construct,
}  # fmt: skip
