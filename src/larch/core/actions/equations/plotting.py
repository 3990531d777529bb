"""How an equation that is typed gets its graph: which axes it goes to, in which hue, and where it stands beside them."""

from __future__ import annotations

from collections.abc import Callable

from larch.core.base.shape import Box
from larch.core.base.words import N_, _
from larch.core.maths.expression import ExpressionError, names_in
from larch.core.maths.expression.tree import Name, Relation, children
from larch.core.maths.graph import MARKED
from larch.core.maths.layout.reading import meaning
from larch.core.model.action import Action, Things, only, register
from larch.core.model.capabilities import Plots
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.things.graphs.equation import FAMILY, HIDDEN, STANDS_OUT, Equation
from larch.core.things.graphs.members import members

HUES = ("lake", "berry", "plum", "moss", "clay", "straw", "sky", "slate")  # of curves, one after the other
GAP = 28.0  # page units between axes and what stands beside them
BETWEEN = 14.0
NAME = 46.0  # beyond the right edge of axes, for the arrow and its letter


def curve_hue(page: Page, equation: Equation, axes: Plots) -> str:
    """Its own hue if no other curve on the axes has it, else the first that none has."""
    taken = {thing.hue for thing in page.things
             if isinstance(thing, Equation) and thing.id != equation.id and axes.draws(thing)}  # fmt: skip
    if equation.hue not in taken:
        return equation.hue
    return next((hue for hue in HUES if hue not in taken), equation.hue)


def means_a_graph(equation: Equation) -> bool:
    """Whether it is typed for its graph: it has y in it, is y of x by name, is a point, or an expression of x alone."""
    curve = equation.curve()
    if curve is None or equation.above:
        return False
    if curve.along in ("point", "t", "polar", "n", "rule"):
        return True
    try:
        node = meaning(equation.source)
    except ExpressionError:
        return False
    if not isinstance(node, Relation):
        return names_in(node) == {"x"} and not isinstance(node, Name)
    left = children(node)[0]
    return "y" in names_in(node) or getattr(left, "name", "").endswith("(x)")


def plotted(page: Page, equation: Equation, size: tuple[float, float]) -> Equation:
    """A new equation as it is put down: on the axes it lies on, beside which it goes, or on the only ones of the page.

    size: of what is seen of it, page units.
    """
    if not means_a_graph(equation.told_on(page)):
        return equation
    found = [thing for thing in page.things if isinstance(thing, Plots)]
    under = equation.axes_on(page)
    axes = under if under is not None else found[0] if len(found) == 1 else None
    if axes is None:
        return equation
    made: Equation = equation.replace(axes=axes.id, hue=curve_hue(page, equation, axes))
    box = axes.box()
    middle = (equation.placement.x + size[0] / 2, equation.placement.y + size[1] / 2)
    return _beside(page, made, box, size) if box.holds(*middle) else made


def _beside(page: Page, equation: Equation, box: Box, size: tuple[float, float]) -> Equation:
    """Right of the axes, else left, below what stands there already; where there is no room it stays."""
    wide, tall = size
    right, left = box.x1 + NAME + GAP / 2, box.x0 - GAP - wide
    x = right if right + wide <= page.size[0] else left if left >= 0 else None
    if x is None:
        return equation
    y = box.y0
    others = sorted((thing.box() for thing in page.things if thing.id != equation.id), key=lambda other: other.y0)
    for other in others:
        if other.x0 < x + wide and other.x1 > x and other.y0 < y + tall and other.y1 + BETWEEN > y:
            y = other.y1 + BETWEEN
    if y + tall > max(box.y1, page.size[1]):
        return equation
    moved: Equation = equation.replace(
        placement=equation.placement.moved(x - equation.placement.x, y - equation.placement.y)
    )
    return moved


def _one_axes(page: Page, things: Things) -> bool:
    """Some equations and exactly one pair of axes are selected."""
    axes = [thing for thing in things if isinstance(thing, Plots)]
    return len(axes) == 1 and any(isinstance(thing, Equation) for thing in things)


def _link(page: Page, things: Things) -> Edit:
    axes = next(thing for thing in things if isinstance(thing, Plots))
    after = page
    for thing in things:
        if isinstance(thing, Equation):
            hue = curve_hue(after, thing, axes)
            after = after.with_things({thing.id: thing.replace(axes=axes.id, hue=hue)})
    return Edit(_("Draw on these axes"), page, after)


def _has_graph(page: Page, things: Things) -> bool:
    return only(Equation)(page, things) and all(
        isinstance(thing, Equation) and thing.axes_on(page) is not None and (curve := thing.curve()) is not None
        and curve.along in MARKED and curve.op == "=" for thing in things
    )  # fmt: skip


def _marked(things: Things) -> bool:
    return all(STANDS_OUT in thing.shown for thing in things)


def _mark(page: Page, things: Things) -> Edit:
    on = not _marked(things)
    changed = {}
    for thing in things:
        rest = tuple(name for name in thing.shown if name != STANDS_OUT)
        changed[thing.id] = thing.replace(shown=(*rest, STANDS_OUT) if on else rest)
    label = _("Mark what stands out") if on else _("Take the marks away")
    return Edit(label, page, page.with_things(changed))


def _toggled(word: str, on_label: str, off_label: str) -> Callable[[Page, Things], Edit]:
    def run(page: Page, things: Things) -> Edit:
        on = not all(word in thing.shown for thing in things)
        changed = {}
        for thing in things:
            rest = tuple(name for name in thing.shown if name != word)
            changed[thing.id] = thing.replace(shown=(*rest, word) if on else rest)
        return Edit(_(on_label) if on else _(off_label), page, page.with_things(changed))

    return run


def _drawn(page: Page, things: Things) -> bool:
    return only(Equation)(page, things) and all(isinstance(t, Equation) and t.axes_on(page) is not None for t in things)


def _has_members(page: Page, things: Things) -> bool:
    return _drawn(page, things) and all(isinstance(t, Equation) and members(page, t) for t in things)


def _hide_label(page: Page, things: Things) -> str:
    return _("show the equation") if all(HIDDEN in thing.shown for thing in things) else _("which equation is it?")


def _family_label(page: Page, things: Things) -> str:
    return _("only this one") if all(FAMILY in thing.shown for thing in things) else _("several members")


register(
    (
        Action("hide equation", _hide_label, "circle-help",
               _toggled(HIDDEN, N_("Hide the equation"), N_("Show the equation")), _drawn, rank=22, board=True,
               words=N_("guess find task cover")),
        Action("family", _family_label, "waves", _toggled(FAMILY, N_("Several members"), N_("Only this one")), _has_members,
               rank=23, board=True, words=N_("family parameter slider")),
        Action("mark graph", lambda p, ts: _("take the marks away") if _marked(ts) else _("mark what stands out"), "pin",
               _mark, _has_graph, rank=7, board=True,
               words=N_("roots zeros extrema minimum maximum turning points inflections poles intercept features")),
        Action("link to axes", lambda p, ts: _("draw on these axes"), "link", _link, _one_axes, rank=10,
               words=N_("graph plot connect")),
    ),
    Equation,
)  # fmt: skip
