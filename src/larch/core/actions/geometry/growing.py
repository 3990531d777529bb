"""Keys that grow, turn and recolour the shape in hand."""

from __future__ import annotations

from larch.core.actions.arrange.arrange import COLOUR, SIZE
from larch.core.base.hues import HUES
from larch.core.base.shape import union
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure
from larch.core.figures.settle import free_of
from larch.core.model.action import Action, Things, register
from larch.core.model.capabilities import Constructible
from larch.core.model.edit import Edit
from larch.core.model.page import Page

STEP = 1.1
TURN = 15.0
LARGEST, SMALLEST = 50.0, 0.05


def grow(page: Page, things: Things, factor: float) -> Edit:
    """Larger or smaller about the common middle; quick repeats are one step of undo."""
    centre = union(thing.box() for thing in things).centre
    ids = free_of(page, [thing.id for thing in things if not thing.locked])
    sizes = [thing.placement.scale * factor for thing in page.some(ids)]
    if not all(SMALLEST <= size <= LARGEST for size in sizes):
        return Edit(_("Size"), page, page)
    after = page.changing(ids, lambda thing: thing.enlarged(factor, centre))
    return Edit(_("Size"), page, after, merge="grow " + " ".join(ids))


def turn(page: Page, things: Things, degrees: float) -> Edit:
    centre = union(thing.box() for thing in things).centre
    ids = free_of(page, [thing.id for thing in things if not thing.locked])
    after = page.changing(ids, lambda thing: thing.turned(degrees, centre))
    return Edit(_("Turn"), page, after, merge="turn " + " ".join(ids))


def next_hue(page: Page, things: Things) -> Edit:
    """The next of the eight hues."""
    hues = list(HUES)
    now = things[0].hue
    to = hues[(hues.index(now) + 1) % len(hues)] if now in hues else hues[0]
    ids = [thing.id for thing in things if not thing.locked]
    return Edit(_("Colour"), page, page.changing(ids, lambda thing: thing.replace(hue=to)), merge="hue " + " ".join(ids))


def _free(page: Page, things: Things) -> bool:
    return bool(things) and all(isinstance(thing, Figure) and not thing.locked for thing in things)


GROWING = (
    Action("larger", lambda p, ts: _("larger"), "plus", lambda p, ts: grow(p, ts, STEP), _free, "+", 73,
           fold=SIZE, words=N_("grow scale")),
    Action("smaller", lambda p, ts: _("smaller"), "minus", lambda p, ts: grow(p, ts, 1 / STEP), _free, "-", 73,
           fold=SIZE, words=N_("shrink scale")),
    Action("turn on", lambda p, ts: _("turn by 15°"), "rotate-ccw", lambda p, ts: turn(p, ts, TURN), _free, "]", 73,
           fold=SIZE, words=N_("rotate")),
    Action("turn back", lambda p, ts: _("turn back by 15°"), "rotate-cw", lambda p, ts: turn(p, ts, -TURN), _free, "[", 73,
           fold=SIZE, words=N_("rotate")),
    Action("next hue", lambda p, ts: _("next colour"), "palette", next_hue, _free, ".", 73, fold=COLOUR,
           words=N_("recolour")),
)  # fmt: skip
register(GROWING, Constructible, at=60)
