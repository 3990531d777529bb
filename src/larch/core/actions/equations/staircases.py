"""Staircases: a function used again and again."""

from __future__ import annotations

from larch.core.actions.equations.plotting import curve_hue
from larch.core.actions.equations.room import room
from larch.core.base.shape import Placement
from larch.core.base.words import N_, _
from larch.core.maths.expression import Node, names_in
from larch.core.maths.expression.tree import Name, Relation
from larch.core.maths.graph import Curve
from larch.core.maths.hand.slots import replaced
from larch.core.maths.layout.from_tree import row_of
from larch.core.maths.layout.terms import source_of
from larch.core.maths.recursion import before
from larch.core.model.action import Action, Things, register
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.staircase import MOST_STEPS, Staircase
from larch.core.things.graphs.ticks import step_of

GAP = 16.0


def _can(page: Page, things: Things) -> bool:
    if len(things) != 1 or not isinstance(things[0], Equation) or things[0].axes_on(page) is None:
        return False
    curve = things[0].curve()
    if curve is None or curve.op != "=":
        return False
    return curve.along == "x" or (curve.along == "rule" and _stepping(curve) is not None)


def _stepping(curve: Curve) -> Node | None:
    """The function of x that makes each member of a sequence of the one before it; None where it is none of that alone."""
    found = replaced(curve.formula, Name(before(1)), Name("x"))
    return found if len(curve.firsts) == 1 and names_in(found) <= {"x"} else None


def _staircase(page: Page, things: Things) -> Edit:
    line = things[0]
    assert isinstance(line, Equation)
    axes, start = line.axes_on(page), 1.0
    if isinstance(axes, Axes):
        step = step_of(axes.x_min, axes.x_max, axes.width / 88)
        start = step if axes.x_min < step < axes.x_max else axes.x_min + step
    curve, after = line.curve(), page
    if curve is not None and curve.along == "rule":
        formula = _stepping(curve)
        assert formula is not None and axes is not None
        start = float(curve.firsts[0])
        function = Equation(source=source_of(row_of(Relation("=", Name("y"), formula))), axes=axes.id, size=line.size)
        spot = room(after, function.extent(), (line.placement.x, line.box().y1 + GAP))
        after = after.put(function.replace(placement=Placement(*spot), hue=curve_hue(after, function, axes)))
        line = after.things[-1]
    made = Staircase(equation=line.id, start=start, hue=line.hue)
    place = room(after, made.extent(), (line.placement.x, line.box().y1 + GAP))
    after = after.put(made.replace(placement=Placement(*place)))
    return Edit(_("Staircase"), page, after, select=(after.things[-1].id,))


def _more(page: Page, things: Things) -> Edit:
    changed = {t.id: t.replace(steps=t.steps + 1) for t in things if isinstance(t, Staircase) and t.steps < MOST_STEPS}
    return Edit(_("One step more"), page, page.with_things(changed))


def _fewer(page: Page, things: Things) -> Edit:
    changed = {t.id: t.replace(steps=t.steps - 1) for t in things if isinstance(t, Staircase) and t.steps > 1}
    return Edit(_("One step fewer"), page, page.with_things(changed))


register(
    (
        Action("staircase", lambda p, ts: _("staircase"), "corner-down-right", _staircase, _can, rank=25,
               board=True, words=N_("cobweb iteration fixed point recursive sequence repeat")),
    ),
    Equation,
)  # fmt: skip
register(
    (
        Action("step more", lambda p, ts: _("one step more"), "step-forward", _more,
               lambda p, ts: any(getattr(t, "steps", 0) < MOST_STEPS for t in ts), rank=5, board=True,
               words=N_("iterate next")),
        Action("step fewer", lambda p, ts: _("one step fewer"), "step-back", _fewer,
               lambda p, ts: any(getattr(t, "steps", 0) > 1 for t in ts), rank=6, board=True, words=N_("iterate back")),
    ),
    Staircase,
)  # fmt: skip
