"""Where the end of a line falls into place, and why."""

from __future__ import annotations

import math
from collections.abc import Iterable
from typing import NamedTuple

from larch.core.base.shape import Point
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.model.paper import FINEST
from larch.core.model.thing import Thing

STEP = 15.0  # degrees between the directions that Shift holds a line to
LEVEL = 1.6  # degrees from level or upright within which a line falls there by itself


class Held(NamedTuple):
    """A place and the word for why it is just there; "" if it fell nowhere."""

    at: Point
    reason: str


def hold_point(page: Page, things: Iterable[Thing], at: Point, reach: float) -> Held:
    """Falls onto the nearest corner or end of a thing within `reach`, or onto a crossing of the paper."""
    best: tuple[float, Point, str] | None = None
    for thing in things:
        for handle in thing.handles():
            place = thing.placement.to_page(handle.x, handle.y)
            away = math.dist(place, at)
            if away <= reach and (best is None or away < best[0]):
                best = (away, place, _("meets {what}").format(what=handle.label or thing.label(page)))
    if best is not None:
        return Held(best[1], best[2])
    step = page.paper.step
    if page.paper.pattern in ("squared", "dotted", "graph") and step >= FINEST:
        crossing = (round(at[0] / step) * step, round(at[1] / step) * step)
        if math.dist(crossing, at) <= min(reach, step / 3):
            return Held(crossing, _("on the paper"))
    return Held(at, "")


def hold_direction(start: Point, at: Point, strict: bool) -> Held:
    """Turns the way from `start` to a multiple of 15°, or, if not `strict`, to level or upright when nearly so."""
    length = math.dist(start, at)
    if length == 0:
        return Held(at, "")
    angle = math.degrees(math.atan2(start[1] - at[1], at[0] - start[0]))
    step = STEP if strict else 90.0
    held = round(angle / step) * step
    if not strict and abs(angle - held) > LEVEL:
        return Held(at, "")
    c, s = math.cos(math.radians(held)), math.sin(math.radians(held))
    along = (at[0] - start[0]) * c - (at[1] - start[1]) * s
    names = {0: _("level"), 180: _("level"), 90: _("upright"), 270: _("upright")}
    reason = f"{held % 360:g}°" if strict else names[round(held) % 360]
    return Held((start[0] + along * c, start[1] - along * s), reason)
