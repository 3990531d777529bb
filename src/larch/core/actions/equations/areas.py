"""Areas under graphs and between two of them."""

from __future__ import annotations

from larch.core.actions.equations.room import room
from larch.core.base.shape import Placement
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, register
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.graph_area import GraphArea
from larch.core.things.graphs.ticks import step_of

GAP = 16.0


def _lines(page: Page, things: Things) -> list[Equation]:
    """One or two equations of x on the same axes; else none."""
    found = [
        t for t in things if isinstance(t, Equation) and (c := t.curve()) is not None and c.along == "x" and c.op == "="
    ]
    axes = {on.id for t in found if (on := t.axes_on(page)) is not None}
    return found if len(found) == len(things) and 1 <= len(found) <= 2 and len(axes) == 1 else []


def _area(page: Page, things: Things) -> Edit:
    lines = _lines(page, things)
    axes = lines[0].axes_on(page)
    low, high = 0.0, 1.0
    if isinstance(axes, Axes):
        step = step_of(axes.x_min, axes.x_max, axes.width / 88)
        low = 0.0 if axes.x_min <= 0 < axes.x_max - step else axes.x_min + step
        high = min(low + 2 * step, axes.x_max)
    last = max(lines, key=lambda line: line.box().y1)
    made = GraphArea(equation=lines[0].id, other=lines[1].id if len(lines) > 1 else "", low=low, high=high, hue=lines[0].hue)
    place = room(page, made.extent(), (last.placement.x, last.box().y1 + GAP))
    after = page.put(made.replace(placement=Placement(*place)))
    return Edit(_("Area"), page, after, select=(after.things[-1].id,))


def _label(page: Page, things: Things) -> str:
    return _("area between them") if len(things) > 1 else _("area under it")


def _strips(page: Page, things: Things) -> Edit:
    changed: dict[str, GraphArea] = {}
    for thing in things:
        if isinstance(thing, GraphArea):
            changed[thing.id] = thing.replace(count=min(200, 2 * thing.count)) if thing.way else thing.replace(way="left")
    return Edit(_("Strips"), page, page.with_things(changed))


def _strips_label(page: Page, things: Things) -> str:
    return _("twice as many strips") if all(getattr(t, "way", "") for t in things) else _("strips")


def _exactly(page: Page, things: Things) -> Edit:
    return Edit(_("Exactly"), page, page.with_things({t.id: t.replace(way="") for t in things if isinstance(t, GraphArea)}))


register(
    (
        Action("area", _label, "blend", _area, lambda p, ts: bool(_lines(p, ts)), rank=24, board=True,
               words=N_("integral under between graph")),
    ),
    Equation,
)  # fmt: skip
register(
    (
        Action("strips", _strips_label, "columns-3", _strips, rank=5, board=True,
               words=N_("riemann sum left right middle trapezium approximate")),
        Action("exact area", lambda p, ts: _("exactly"), "equal", _exactly,
               lambda p, ts: any(getattr(t, "way", "") for t in ts), rank=6, board=True, words=N_("integral")),
    ),
    GraphArea,
)  # fmt: skip
