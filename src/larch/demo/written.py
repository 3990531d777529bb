"""A page to write on, with ink that is already there: by the stroke generator of tools/recognition."""

from __future__ import annotations

from importlib import resources

import msgspec

from larch.core.base.shape import Placement
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.model.paper import Paper, writing_line
from larch.core.things.asking.task import Task
from larch.core.things.graphs.axes import Axes
from larch.core.things.ink.ink import Ink, ink_from
from larch.core.things.numbers.bar_model import BarModel
from larch.core.things.numbers.number_flag import NumberFlag
from larch.core.things.numbers.number_line import NumberLine
from larch.core.things.organisers.brace import Brace
from larch.core.things.words.rich import BASE
from larch.demo.parts import READABLE, fresh_page, lettering

SECOND = 440.0  # where the second part of the question begins
Strokes = list[list[tuple[float, float]]]


def _ink(name: str, x: float, y: float, size: float, hue: str, width: float = 5.0, foot: bool = False) -> list[Ink]:
    """Ink with its top left at a place, or its baseline at that height; size: a factor."""
    data = resources.files("larch").joinpath("assets/demo/ink.json").read_bytes()
    strokes: Strokes = msgspec.json.decode(data, type=dict[str, Strokes])[name]
    left = min(a for stroke in strokes for a, _b in stroke)
    top = 0.0 if foot else min(b for stroke in strokes for _a, b in stroke)
    return [
        ink_from([((a - left) * size + x, (b - top) * size + y, 0.7, 0.0) for a, b in stroke], width, hue)
        for stroke in strokes
    ]


def by_hand() -> Page:
    """A rule beside axes, a question in two colours on a line, two rough shapes."""
    page = fresh_page(_("Select ink and let Larch read it"), paper=Paper("ruled", step=96.0))
    page = page.put(*_ink("rule", 64, 190, 1.6, "lake"))
    line = writing_line(page.paper, 480) or 480.0
    question = _ink("words", 64, line, 1.0, "needle", foot=True)
    page = page.put(*(ink.replace(hue="berry") if ink.box().x0 > SECOND else ink for ink in question))
    page = page.put(*_ink("square", 600, 150, 1.3, "moss"), *_ink("arrow", 920, 590, 1.0, "clay"))
    page = page.put(Axes(x_min=-2, x_max=10, y_min=-7, y_max=3, width=360, height=300, placement=Placement(860, 200)))
    return page.put(lettering(_("A pen can read by itself, too: press the pen again."), 64, line + 96 - BASE * READABLE))


def in_place() -> Page:
    """Numbers on flags for a number line, what boats carry under a brace, and a card that is answered in writing."""
    page = fresh_page(_("Where does each number belong?"))
    page = page.put(NumberLine(last=100.0, step=10.0, named="ends", long=1060.0, placement=Placement(70, 250)))
    for k, (text, hue) in enumerate((("63", "lake"), ("25", "berry"), ("8", "moss"))):
        page = page.put(NumberFlag(text=text, hue=hue, placement=Placement(760.0 + 120 * k, 220)))
    page = page.put(BarModel(whole="24", parts=("?", "?", "?"), long=640.0, placement=Placement(90, 440)))
    page = page.put(Brace(long=427.0, deep=40.0, text=_("two boats"), hue="clay", placement=Placement(90, 606)))
    bars = page.things[-2]
    question = _("24 lanterns on three boats: how many on one?")
    page = page.put(
        Task(of=bars.id, fact="value", wanted="8", by="number", sentence=question, placement=Placement(790, 398))
    )
    return page.put(lettering(_("Write a number on the line:\nit becomes a flag."), 70, 118))
