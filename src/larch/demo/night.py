"""The first pages of the demo: directions, blocks, dice, panels, an equation, a row of lanterns."""

from __future__ import annotations

from typing import TYPE_CHECKING

from larch.core.base.shape import Placement
from larch.core.base.words import _
from larch.core.model.nibs import Pen
from larch.core.model.page import Page, Paper
from larch.core.model.paper import four_lines
from larch.core.model.thing import Thing
from larch.demo.parts import READABLE, fresh_page, lettering

if TYPE_CHECKING:
    from larch.core.things.geometry.polygon import Polygon


def directions() -> Page:
    """Directions on ruled paper, in type that is read from the back of the room, and a note in two sizes."""
    from larch.core.things.words.note import Note
    from larch.core.things.words.rich import BASE, Run
    from larch.core.things.words.text import Text

    page = fresh_page(_("Tonight at the river"), paper=Paper("ruled", 104.0, margin=112.0, top=88.0))
    steps = [
        _("Take one sheet of lantern paper."),
        _("Measure its sides and its angles."),
        _("Fold, glue, and write your name."),
        _("Count the lanterns of your table."),
    ]
    for i, step in enumerate(steps):
        line = 192 + i * 104  # the second line of the paper, and on
        number = Text(text=str(i + 1), size=60, bold=True, hue="clay", placement=Placement(64, line - BASE * 60))
        page = page.put(number, lettering(step, 128, line - BASE * 52, 52))
    head = _("Tonight")
    words = head + "\n" + _("the first lanterns float at half past six.")
    note = Note(text=words, runs=(Run(len(head), bold=True, size=60.0, hue="clay"),), size=READABLE, width=300.0)
    return page.put(note.replace(placement=Placement(952, 196)))


def counting() -> Page:
    """Hundreds, tens and ones, to be taken from supplies and exchanged."""
    from larch.core.things.numbers.block import Block

    page = fresh_page(_("How many lanterns are on the river?"), squared=True)
    page = page.put(
        lettering(_("Lay out the number, then add 28 more."), 56, 88),
        lettering("134", 1040, 130, 104, "plum"),
    )
    columns = ((_("hundreds"), 64, 100), (_("tens"), 288, 10), (_("ones"), 416, 1))
    for title, x, value in columns:
        page = page.put(
            lettering(title, x, 488, hue="slate"),
            Block(value=value, placement=Placement(x + 8, 552), supply=True, locked=False),
        )
    out: list[Thing] = [Block(value=100, placement=Placement(96, 192))]
    out += [Block(value=10, placement=Placement(288 + 32 * i, 192)) for i in range(3)]
    out += [Block(value=1, placement=Placement(448, 192 + 32 * i)) for i in range(4)]
    page = page.put(*out)
    return page.put(lettering(_("Ten of a kind?\nSelect them and exchange\nten for one."), 720, 500))


def dice_row() -> Page:
    """A game of chance: roll, and light as many lanterns."""
    from larch.core.things.chance.die import Die
    from larch.core.things.geometry.polygon import Polygon

    page = fresh_page(_("Light the row"), paper=Paper(colour="sky"))
    page = page.put(
        lettering(_("Roll the die. Drag as many flames onto the row.\nWho lights the last lantern?"), 56, 92),
        Die(placement=Placement(110, 260), shown=("tally",), hue="berry"),
    )
    lanterns = [_lantern(300 + 90 * (i % 10), 260 + 130 * (i // 10)) for i in range(20)]
    page = page.put(*lanterns)
    flame = ((13.0, 0.0), (24.0, 22.0), (13.0, 34.0), (2.0, 22.0))
    supply = Polygon(
        vertices=flame, letters="    ", hue="straw", name=_("flame"), supply=True, placement=Placement(138, 604)
    )
    return page.put(supply, lettering(_("flames"), 196, 596, hue="slate"))


def _lantern(x: float, y: float) -> Polygon:
    from larch.core.things.geometry.polygon import Polygon

    shape = ((14.0, 0.0), (56.0, 0.0), (70.0, 40.0), (56.0, 90.0), (14.0, 90.0), (0.0, 40.0))
    return Polygon(vertices=shape, letters="      ", hue="berry", name=_("lantern"), locked=True, placement=Placement(x, y))


def panel_triangle() -> Page:
    """One panel as a triangle, with everything measured."""
    from larch.core.things.geometry.polygon import polygon_on

    page = fresh_page(_("How much paper for one lantern panel?"), squared=True)
    corners = [(192.0, 544.0), (576.0, 544.0), (448.0, 224.0)]
    panel = polygon_on(page, corners, hue="lake", shown=("sides", "angles"))
    return page.put(
        panel,
        lettering(
            _("Drag the corner C.\n\nWhich angles change?\nWhich side does not?\nWhen is the area largest?"), 704, 176
        ),
        lettering(_("A square is 1 cm wide."), 704, 520, hue="slate"),
    )


def panel_four() -> Page:
    """A four-sided panel: angles that always make 360°."""
    from larch.core.things.geometry.polygon import polygon_on

    page = fresh_page(_("A panel with four sides"), squared=True)
    corners = [(160.0, 576.0), (544.0, 576.0), (480.0, 224.0), (224.0, 256.0)]
    return page.put(
        polygon_on(page, corners, hue="moss", shown=("sides", "angles")),
        lettering(_("Add the four angles.\nDrag a corner. Add again."), 704, 192),
        lettering(_("Can three of them\nbe right angles and\nthe fourth not?"), 704, 384, hue="clay"),
    )


def candle() -> Page:
    """The burning candle as a straight line on axes."""
    from larch.core.things.graphs.axes import axes_at
    from larch.core.things.graphs.equation import Equation

    page = fresh_page(_("How long does the candle burn?"))
    axes = axes_at(120, 190, x_min=0, x_max=10, y_min=0, y_max=8, width=560, height=400)
    page = page.put(axes.replace(x_name="h", y_name="cm", locked=True))
    axes_id = page.things[-1].id
    line = Equation(source="y = 6 - 3/4 x", axes=axes_id, hue="plum", size=52, placement=Placement(780, 130))
    other = Equation(source="y = 7 - 1.4x", axes=axes_id, hue="clay", size=52, placement=Placement(780, 256))
    return page.put(
        line,
        other,
        lettering(_("How tall is each at first?\nHow much burns\nin an hour?\nWhich goes out first?"), 780, 380),
    )


def worked_steps() -> Page:
    """A solution of which each step has a colour of its own, with arrows, a highlighted answer and a folded check."""
    from larch.core.things.graphs.equation import Equation
    from larch.core.things.ink.ink import ink_from, line_from
    from larch.core.things.ink.mark import Mark
    from larch.core.things.words.note import Note

    page = fresh_page(_("What does one lantern cost?"), paper=Paper("ruled", 112.0, margin=112.0, top=104.0))
    page = page.put(lettering(_("Three lanterns and a candle for 4 crowns cost 19 crowns."), 128, 158, 42))
    steps = (
        ("3x + 4 = 19", "lake", _("write it down")),
        ("3x = 15", "plum", _("less the candle: − 4")),
        ("x = 5", "berry", _("shared by three: ÷ 3")),
    )
    for i, (source, hue, words) in enumerate(steps):
        y = 262 + 112 * i
        page = page.put(
            Equation(source=source, hue=hue, size=64, placement=Placement(150, y)), lettering(words, 620, y + 8, 46, hue)
        )
        if i:
            arrow = Pen("pen", "curve", 5.0, hue, ends="end")
            page = page.put(line_from([(590, y - 62), (556, y - 16), (590, y + 34)], arrow).replace(locked=True))
    marker = [(140.0 + 4 * i, 530.0 + i / 9, 1.0, 9.0 * i) for i in range(45)]
    under = next(i for i, thing in enumerate(page.things) if isinstance(thing, Equation))
    page = page.insert(under, ink_from(marker, pen=Pen("highlighter", width=52.0, hue="straw")).replace(locked=True))
    check = Note(text=_("Check") + "\n3 × 5 + 4 = 19", size=READABLE, hue="moss", height=150.0, folded=True)
    check = check.replace(placement=Placement(900, 566))
    return page.put(Mark(shape="tick", size=64, hue="moss", placement=Placement(400, 528)), check)


def row_of_lanterns() -> Page:
    """Marks on a line of handwriting paper, a painted drawing, and room to write."""
    from larch.core.things.ink.ink import line_from
    from larch.core.things.ink.mark import Mark
    from larch.core.things.pictures.painted import Painted
    from larch.core.things.words.note import Note

    page = fresh_page(_("Write how many"), paper=Paper("handwriting", 176.0, top=88.0))
    base = 88 + four_lines(page.paper)[2]
    row = [Mark(shape="lantern", size=84, hue="berry", placement=Placement(110 + 76 * i, base - 38)) for i in range(12)]
    page = page.put(*row)
    outline = [(150.0, 40.0), (250.0, 40.0), (300.0, 180.0), (240.0, 320.0), (160.0, 320.0), (100.0, 180.0)]
    corners = [(x + 850, y + 330) for x, y in outline]
    left = (corners[0], ((corners[0][0] + corners[1][0]) / 2, corners[0][1]), (1050.0, 650.0), corners[4], corners[5])
    right = ((1050.0, 370.0), corners[1], corners[2], corners[3], (1050.0, 650.0))
    for ring, hue in ((left, "straw"), (right, "clay")):
        page = page.put(Painted(rings=(ring,), hue=hue, locked=True))
    pen = Pen("broad", "line", 8.0, "needle")
    for a, b in zip([*corners, (1050.0, 370.0)], [*corners[1:], corners[0], (1050.0, 650.0)], strict=True):
        page = page.put(line_from([a, b], pen).replace(locked=True))
    handle = line_from([corners[0], (1050.0, 296.0), corners[1]], Pen("crayon", "curve", 12.0, "moss"))
    tassels = [
        line_from([(1010 + 40 * i, 656.0), (1010 + 40 * i, 706.0)], Pen("crayon", "line", 12.0, "moss")) for i in range(3)
    ]
    page = page.put(*(ink.replace(locked=True) for ink in (handle, *tassels)))
    size = _("twelve")
    answer = Note(
        text=size + "\n" + _("is one dozen."), size=READABLE, hue="lake", folded=True, placement=Placement(64, 600)
    )
    return page.put(answer)
