"""Curves drawn freehand on axes: the equation of best fit, and how far one lies off a written equation."""

from __future__ import annotations

import math

from larch.core.actions.equations.plotting import curve_hue
from larch.core.actions.equations.tables import FIT, FITTED, GAP
from larch.core.base.shape import Placement
from larch.core.base.words import N_, _
from larch.core.maths.expression import Undefined, value_at
from larch.core.maths.hand.fits import fitted
from larch.core.model.action import Action, Things, register
from larch.core.model.edit import Edit
from larch.core.model.fact import number_text
from larch.core.model.page import Page
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from larch.core.things.ink.ink import Ink

MOST = 160  # points of a stroke that are looked at
DIGITS = 3


def _axes_under(page: Page, ink: Ink) -> Axes | None:
    """The axes on which a stroke lies."""
    centre = ink.box().centre
    return next((t for t in reversed(page.things) if isinstance(t, Axes) and t.box().holds(*centre)), None)


def points_of(page: Page, ink: Ink) -> list[tuple[float, float]]:
    """A stroke in the coordinates of the axes that it lies on."""
    axes = _axes_under(page, ink)
    samples = ink.samples()
    if axes is None or not samples:
        return []
    every = max(1, len(samples) // MOST)
    return [axes.plane_of(ink.placement.to_page(x, y)) for x, y, *_rest in samples[::every]]


def _one_stroke(page: Page, things: Things) -> Ink | None:
    one = things[0] if len(things) == 1 else None
    return one if isinstance(one, Ink) and _axes_under(page, one) is not None else None


def _fit(kind: str) -> Action:
    def run(page: Page, things: Things) -> Edit:
        ink = _one_stroke(page, things)
        assert ink is not None
        axes = _axes_under(page, ink)
        assert axes is not None
        points = points_of(page, ink)
        found = fitted(kind, points, DIGITS)
        box = axes.box()
        made = Equation(source=found.source, axes=axes.id, placement=Placement(box.x1 + GAP, box.y0))
        made = made.replace(hue=curve_hue(page, made, axes))
        after = page.put(made)
        off = _off(made, points)
        said = "" if off is None else _("On average it lies {n} off.").format(n=number_text(off[0], 2))
        return Edit(_(FITTED[kind]), page, after, select=(after.things[-1].id,), said=said)

    return Action(f"fit {kind} to ink", lambda p, ts: _(FITTED[kind]), "spline", run,
                  lambda p, ts: _one_stroke(p, ts) is not None, rank=60, board=True, words=N_("regression freehand graph"),
                  fold=FIT)  # fmt: skip


def _off(equation: Equation, points: list[tuple[float, float]]) -> tuple[float, float] | None:
    """How far points lie above or below a graph: on average and at most; None where it has no values there."""
    curve = equation.curve()
    if curve is None or curve.along != "x":
        return None
    found = []
    for x, y in points:
        try:
            value = value_at(curve.formula, x=x)
        except Undefined:
            continue
        if isinstance(value, int | float) and math.isfinite(value):
            found.append(abs(y - value))
    return (math.fsum(found) / len(found), max(found)) if found else None


def _pair(page: Page, things: Things) -> tuple[Ink, Equation] | None:
    ink = next((t for t in things if isinstance(t, Ink)), None)
    equation = next((t for t in things if isinstance(t, Equation)), None)
    fits = len(things) == 2 and ink is not None and equation is not None
    return (ink, equation) if fits and ink is not None and equation is not None and points_of(page, ink) else None


def _compare(page: Page, things: Things) -> Edit:
    pair = _pair(page, things)
    assert pair is not None
    off = _off(pair[1], points_of(page, pair[0]))
    if off is None:
        raise ValueError(_("The graph has no values there."))
    average, most = (number_text(value, 2) for value in off)
    said = _("On average the drawn curve lies {average} off, at most {most}.").format(average=average, most=most)
    return Edit(_("Compare"), page, page, said=said)


register(tuple(_fit(kind) for kind in FITTED), Ink)
register(
    (
        Action("compare with graph", lambda p, ts: _("how far off"), "gauge", _compare,
               lambda p, ts: _pair(p, ts) is not None, rank=5, board=True, words=N_("compare freehand curve graph")),
    ),
)  # fmt: skip
