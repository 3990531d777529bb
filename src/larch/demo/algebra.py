"""Pages with equations: solutions line by line, and letters that hold for the page."""

from __future__ import annotations

from collections.abc import Sequence

from larch.core.actions.equations.working import HUES
from larch.core.base.shape import Placement
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.things.geometry.point import Point
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import CHECK, STANDS_OUT, Equation
from larch.core.things.graphs.slider import Slider
from larch.core.things.graphs.value_table import ValueTable
from larch.core.things.words.rich import Run
from larch.core.things.words.text import Text
from larch.demo.parts import fresh_page, lettering

SIZE, STEP = 50.0, 78.0


def solution(page: Page, lines: Sequence[tuple[str, str]], x: float, y: float, checked: bool = True) -> Page:
    """Lines with their reasons, each below the one that it is to follow from."""
    above = ""
    for k, (source, reason) in enumerate(lines):
        tall = 0.3 * SIZE if "frac" in source else 0.0
        line = Equation(source=source, reason=reason, hue=HUES[k % len(HUES)], size=SIZE, above=above,
                        shown=(CHECK,) if checked else (), placement=Placement(x, y + k * STEP - tall))  # fmt: skip
        page = page.put(line)
        above = page.things[-1].id
    return page


def lanterns() -> Page:
    """Two solutions: one right to the end, one with a sign that was lost."""
    page = fresh_page(_("What does one lantern cost? Say why, line by line."))
    first = (("2x + 5 = 15", _("given")), ("2x = 10", _("− 5 on both sides")), ("x = 5", _("÷ 2 on both sides")))
    page = solution(page, first, 56, 120)
    page = solution(page, (("3x - 4 = 11", _("given")), ("3x = 7", "")), 680, 120)
    words = lettering(_("Write the next line under 3x − 4 = 11. Then check."), 56, 470)
    return page.put(_with_maths(words, "3x − 4 = 11"))


def _with_maths(words: Text, part: str) -> Text:
    """With a part of its words set as mathematics, wherever a translation has it."""
    at = words.text.find(part)
    runs = (Run(at), Run(len(part), maths=True)) if at > 0 else ()
    return words.replace(runs=runs)  # type: ignore[no-any-return]


def tide() -> Page:
    """A letter that is dragged: what depends on it follows, in type and on the axes."""
    page = fresh_page(_("How high is the water at the bridge?"))
    page = page.put(Slider(letter="a", low=0.0, high=5.0, step=0.5, value=1.5, placement=Placement(240, 150)))
    page = page.put(Equation(source="4a =", hue="needle", size=SIZE, placement=Placement(56, 250)))
    page = page.put(Equation(source=r"b = \frac{a}{2}", hue="moss", size=SIZE, placement=Placement(56, 330)))
    page = page.put(Equation(source="2b + 1 =", hue="moss", size=SIZE, placement=Placement(56, 450)))
    axes = Axes(x_min=-5, x_max=5, y_min=-6, y_max=6, width=520, height=480, placement=Placement(690, 150))
    page = page.put(axes)
    id = page.things[-1].id
    page = page.put(Equation(source="y = a sin x", axes=id, hue="lake", size=40.0, placement=Placement(720, 560)))
    return page.put(Equation(source="y = x + b", axes=id, hue="moss", size=40.0, placement=Placement(960, 560)))


def candles() -> Page:
    """Two straight lines with what stands out on them, and where they meet."""
    page = fresh_page(_("Two candles burn down. When are they equally tall?"))
    axes = Axes(x_min=0, x_max=18, y_min=0, y_max=26, x_name="h", y_name="cm", width=560, height=470,
                placement=Placement(90, 170))  # fmt: skip
    page = page.put(axes)
    id = page.things[-1].id
    for k, (source, hue) in enumerate((("y = 24 - 2x", "clay"), ("y = 18 - x", "lake"))):
        page = page.put(Equation(source=source, axes=id, hue=hue, size=SIZE, shown=(STANDS_OUT,),
                                 placement=Placement(760, 180 + 90 * k)))  # fmt: skip
    return solution(page, (("24 - 2x = 18 - x", ""), ("24 = 18 + x", ""), ("x = 6", "")), 760, 400, checked=True)


def arch() -> Page:
    """A parabola that is moved by hand until it stands on both banks; its table beside it."""
    page = fresh_page(_("Set the arch of the bridge on both banks."))
    axes = Axes(x_min=-1, x_max=11, y_min=-1, y_max=6, width=660, height=385, placement=Placement(80, 170))
    page = page.put(axes)
    id = page.things[-1].id
    for name, x in ((_("L"), 1.0), (_("R"), 9.0)):
        page = page.put(Point(rule="plotted", of=(id,), values=(x, 0.0), name=name, hue="moss"))
    page = page.put(Equation(source="y = -0.25(x - 4)^2 + 4", axes=id, hue="berry", size=40.0, placement=Placement(80, 610)))
    arch = page.things[-1].id
    page = page.put(
        ValueTable(xs=("1", "3", "5", "7", "9"), equation=arch, axes=id, hue="berry", placement=Placement(900, 170))
    )
    return page.put(lettering(_("Drag the curve."), 560, 610))


def loads() -> Page:
    """What holds at once: two regions that lie over each other, one with its edge and one without."""
    page = fresh_page(_("Which loads may the lantern boat carry?"))
    axes = Axes(x_min=0, x_max=10, y_min=0, y_max=10, width=470, height=470, x_name=_("lanterns"), y_name=_("baskets"),
                placement=Placement(120, 170))  # fmt: skip
    page = page.put(axes)
    id = page.things[-1].id
    lines = (("x + y <= 8", "lake"), ("y > x/2 - 1", "clay"), ("(3, 4)", "moss"))
    for k, (source, hue) in enumerate(lines):
        page = page.put(Equation(source=source, axes=id, hue=hue, size=SIZE, placement=Placement(860, 200 + 100 * k)))
    return page.put(lettering(_("Move the point.\nIs its load allowed?"), 820, 520))
