"""Tables of values: put beside an equation, filled by it or filling it, left to the class; curves through own values."""

from __future__ import annotations

import math

from larch.core.actions.equations.plotting import curve_hue
from larch.core.actions.equations.room import room
from larch.core.base.shape import Placement
from larch.core.base.words import N_, _
from larch.core.maths.hand.fits import fitted
from larch.core.model.action import Action, Fold, Things, only, register
from larch.core.model.edit import Edit
from larch.core.model.fact import number_text
from larch.core.model.page import Page
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.steering import places_on, pushed_onto
from larch.core.things.graphs.value_table import FILLING, RESIDUALS, ValueTable, number_in

GAP = 40.0
ROWS = 5


def typed_in_cell(page: Page, table: ValueTable, row: int, column: int, text: str) -> Page:
    """The page with something written into a cell. A value that differs from the one an equation fills in takes its graph
    there. Raises ValueError with one sentence."""
    after = table.written(row, column, text)
    equation = page.thing(table.equation) if table.equation else None
    at, height = number_in(table.typed_in(row, 0)), number_in(text) if text.strip() else None
    if column == 1 and not table.asked and isinstance(equation, Equation) and at is not None and height is not None:
        changed = pushed_onto(equation, page, (float(at), float(height)))
        if changed is not None:
            return page.with_things(changed)
    return page.with_things({table.id: after})


def _has_values(page: Page, things: Things) -> bool:
    return only(Equation)(page, things) and all(
        isinstance(t, Equation) and (curve := t.curve()) is not None and curve.along in FILLING and curve.op == "="
        for t in things
    )


def _table(page: Page, things: Things) -> Edit:
    """A table where there is room beside the axes, or beside the equation where it is on none."""
    after = page
    made = []
    for equation in things:
        if not isinstance(equation, Equation):
            continue
        axes = equation.axes_on(page)
        curve = equation.curve()
        table = ValueTable(equation=equation.id, axes=axes.id if axes is not None else "", hue=equation.hue)
        if curve is not None and curve.along != "x":
            begin = math.ceil(curve.span[0])
            letter = equation.source.strip()[:1]
            table = table.replace(xs=tuple(str(begin + k) for k in range(ROWS)), x_name="n", y_name=f"{letter}_n")
        elif isinstance(axes, Axes):
            table = table.replace(xs=_round_the_middle(page, equation, axes))
        box = equation.box() if axes is None else axes.box()
        wanted = (box.x0, box.y1 + GAP / 2) if axes is None else (box.x1 + 1.5 * GAP, box.y0)
        after = after.put(table.replace(placement=Placement(*room(after, table.extent(), wanted))))
        made.append(after.things[-1].id)
    return Edit(_("Table of values"), page, after, select=tuple(made))


def _round_the_middle(page: Page, equation: Equation, axes: Axes) -> tuple[str, ...]:
    """Numbers at the marks of an axis, round the chief place of a graph or the middle of the axis."""
    marks = axes.ticks()[0]
    step = marks[1] - marks[0] if len(marks) > 1 else 1.0
    main = next((place.x for place in places_on(equation, axes, page) if place.main), None)
    middle = round((main if main is not None else (axes.x_min + axes.x_max) / 2) / step)
    found = (f"{(middle + k) * step:.6f}".rstrip("0").rstrip(".") for k in range(-(ROWS // 2), ROWS // 2 + 1))
    return tuple("0" if one in ("-0", "") else one for one in found)


def _ask(page: Page, things: Things) -> Edit:
    on = not all(getattr(t, "asked", False) for t in things)
    changed = {t.id: t.replace(asked=on, ys=()) for t in things if isinstance(t, ValueTable)}
    return Edit(_("Leave it to the class") if on else _("Fill it"), page, page.with_things(changed))


def _ask_label(page: Page, things: Things) -> str:
    return _("fill the values in") if all(getattr(t, "asked", False) for t in things) else _("leave the values to the class")


def _filled(page: Page, things: Things) -> bool:
    return only(ValueTable)(page, things) and all(isinstance(t, ValueTable) and t.equation for t in things)


register(
    (
        Action("value table", lambda p, ts: _("table of values"), "table-2", _table, _has_values, rank=9, board=True,
               words=N_("values x y points function")),
    ),
    Equation,
)  # fmt: skip
FIT = Fold("fit", N_("a curve through its points"), "spline")
FITTED = {
    "line": N_("line of best fit"), "quadratic": N_("parabola of best fit"),
    "exponential": N_("exponential of best fit"), "power": N_("power of best fit"), "sine": N_("sine of best fit"),
}  # fmt: skip


def _fit(kind: str) -> Action:
    def run(page: Page, things: Things) -> Edit:
        after, made, said = page, [], ""
        for table in things:
            points = table.points_on(page) if isinstance(table, ValueTable) else []
            found = fitted(kind, [(x, y) for _row, x, y in points])
            assert isinstance(table, ValueTable)
            axes, box = table.axes_on(page), table.box()
            equation = Equation(source=found.source, axes=axes.id if axes is not None else "", size=36.0,
                                placement=Placement(box.x0, box.y1 + GAP / 2))  # fmt: skip
            if axes is not None:
                equation = equation.replace(hue=curve_hue(after, equation, axes))
            after = after.put(equation)
            made.append(after.things[-1].id)
            after = after.with_things({table.id: table.replace(fit=made[-1])})
            size = number_text(found.r, 3)
            said = _("r = {r}").format(r=size) if kind == "line" else _("r² = {r}").format(r=number_text(found.r**2, 3))
        return Edit(_(FITTED[kind]), page, after, select=tuple(made), said=said)

    def fits(page: Page, things: Things) -> bool:
        return only(ValueTable)(page, things) and all(
            isinstance(t, ValueTable) and len(t.points_on(page)) > 1 for t in things
        )

    return Action(f"fit {kind}", lambda p, ts: _(FITTED[kind]), "spline", run, fits, rank=61, board=True,
                  words=N_("regression trend correlation"), fold=FIT)  # fmt: skip


def _residuals(page: Page, things: Things) -> Edit:
    on = not all(RESIDUALS in thing.shown for thing in things)
    changed = {}
    for thing in things:
        rest = tuple(name for name in thing.shown if name != RESIDUALS)
        changed[thing.id] = thing.replace(shown=(*rest, RESIDUALS) if on else rest)
    return Edit(_("Show the residuals") if on else _("Hide the residuals"), page, page.with_things(changed))


def _residuals_label(page: Page, things: Things) -> str:
    return _("hide the residuals") if all(RESIDUALS in thing.shown for thing in things) else _("show the residuals")


def _has_fit(page: Page, things: Things) -> bool:
    return only(ValueTable)(page, things) and all(isinstance(t, ValueTable) and t.residuals(page) for t in things)


register(
    (
        Action("residuals", _residuals_label, "align-vertical-distribute-center", _residuals, _has_fit, rank=6, board=True,
               words=N_("distance fit squares regression")),
        *(_fit(kind) for kind in FITTED),
        Action("ask values", _ask_label, "eye-off", _ask, _filled, rank=5, board=True, words=N_("hide task check fill")),
    ),
    ValueTable,
)  # fmt: skip
