"""Tables of values: put beside an equation, filled by it or filling it, left to the class; curves through own values."""

from __future__ import annotations

from larch.core.actions.equations.plotting import curve_hue
from larch.core.base.shape import Placement
from larch.core.base.words import N_, _
from larch.core.maths.hand.fits import fitted
from larch.core.model.action import Action, Fold, Things, only, register
from larch.core.model.edit import Edit
from larch.core.model.fact import number_text
from larch.core.model.page import Page
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.steering import pushed_onto
from larch.core.things.graphs.value_table import COLUMN, ValueTable, number_in

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
        isinstance(t, Equation) and (curve := t.curve()) is not None and curve.along == "x" and curve.op == "="
        for t in things
    )


def _table(page: Page, things: Things) -> Edit:
    """A table beside the axes, or beside the equation where it is on none."""
    after = page
    made = []
    for equation in things:
        if not isinstance(equation, Equation):
            continue
        axes = equation.axes_on(page)
        xs: tuple[str, ...] = ("-2", "-1", "0", "1", "2")
        box = equation.box()
        x, y = box.x0, box.y1 + GAP / 2
        if isinstance(axes, Axes):
            marks = axes.ticks()[0]
            middle = len(marks) // 2
            chosen = marks[max(0, middle - ROWS // 2) : middle + ROWS // 2 + 1]
            xs = tuple(f"{mark:.6f}".rstrip("0").rstrip(".") for mark in chosen) or xs
            xs = tuple("0" if one in ("-0", "") else one for one in xs)
            right = axes.box().x1 + GAP
            tops = [t.box().y1 for t in page.things if t.box().x1 > right and t.box().x0 < right + 2 * COLUMN]
            x, y = max(right, box.x0), max([axes.box().y0, *tops]) + GAP / 2
        table = ValueTable(xs=xs, equation=equation.id, axes=axes.id if axes is not None else "", hue=equation.hue,
                           placement=Placement(x, y))  # fmt: skip
        tall = table.extent().height
        if y + tall > page.size[1] and y > tall:
            table = table.replace(placement=Placement(x, max(0.0, page.size[1] - tall)))
        after = after.put(table)
        made.append(after.things[-1].id)
    return Edit(_("Table of values"), page, after, select=tuple(made))


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
            size = number_text(found.r, 3)
            said = _("r = {r}").format(r=size) if kind == "line" else _("r² = {r}").format(r=number_text(found.r**2, 3))
        return Edit(_(FITTED[kind]), page, after, select=tuple(made), said=said)

    def fits(page: Page, things: Things) -> bool:
        return only(ValueTable)(page, things) and all(
            isinstance(t, ValueTable) and len(t.points_on(page)) > 1 for t in things
        )

    return Action(f"fit {kind}", lambda p, ts: _(FITTED[kind]), "spline", run, fits, rank=20, board=True,
                  words=N_("regression trend correlation"), fold=FIT)  # fmt: skip


register(
    (
        *(_fit(kind) for kind in FITTED),
        Action("ask values", _ask_label, "eye-off", _ask, _filled, rank=5, board=True, words=N_("hide task check fill")),
    ),
    ValueTable,
)  # fmt: skip
