"""How a shape falls into place beside others: corner on corner."""

from __future__ import annotations

import math
from collections.abc import Iterable
from typing import TYPE_CHECKING

from larch.core.base.shape import Point
from larch.core.base.words import _
from larch.core.model.thing import Snap, Thing
from larch.core.things.geometry.cornered import Cornered

if TYPE_CHECKING:
    from larch.core.model.page import Page

MOST = 600  # pairs of corners that are compared


def corners_of(thing: Thing, page: Page) -> list[Point]:
    """The corners of a figure or an outline, on the page."""
    from larch.core.figures.figure import Figure
    from larch.core.maths.plane.forms import Path, Spot

    own = getattr(thing, "page_corners", None)
    if own is not None:
        return list(own())
    form = thing.form_on(page) if isinstance(thing, Figure) else None
    if isinstance(form, Path):
        return list(form.corners)
    return [(form.x, form.y)] if isinstance(form, Spot) else []


def corner_snap(shape: Cornered, page: Page, others: Iterable[Thing], reach: float) -> Snap | None:
    """The shift that lays the nearest pair of corners on each other, if one is within reach."""
    mine = shape.form().corners
    best: tuple[float, Point, Point] | None = None
    compared = 0
    for other in others:
        if other.id == shape.id:
            continue
        for corner in corners_of(other, page):
            compared += len(mine)
            if compared > MOST:
                break
            for own in mine:
                away = math.dist(own, corner)
                if away <= reach and (best is None or away < best[0]):
                    best = (away, own, corner)
    if best is None:
        return None
    _away, own, to = best
    return Snap(to[0] - own[0], to[1] - own[1], _("corner on corner"), (own, to))
