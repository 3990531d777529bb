"""Strokes from elsewhere as ink on a page."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Protocol

from larch.core.base.hues import HUES, hex_of
from larch.core.base.shape import Point
from larch.core.base.words import many
from larch.core.model.action import put
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.things.ink.ink import Ink, ink_from

ROOM = 0.7  # of a page that it takes at most
LEAST = 60.0  # page units; smaller ink is enlarged to this
WIDTH = 5.0


class Stroke(Protocol):
    """points: in any units, y downwards; colour: "#rrggbb" or ""."""

    @property
    def points(self) -> Sequence[Point]: ...
    @property
    def colour(self) -> str: ...


def brought_ink(page: Page, strokes: Sequence[Stroke], at: Point | None = None) -> Edit:
    """At its own place and size where that is on the page, else fitted onto it; at: its middle, if that is given."""
    points = [point for stroke in strokes for point in stroke.points]
    x0, x1 = min(x for x, _y in points), max(x for x, _y in points)
    y0, y1 = min(y for _x, y in points), max(y for _x, y in points)
    wide, tall = page.size
    size = max(x1 - x0, y1 - y0) or 1.0
    fits = x0 >= 0 and y0 >= 0 and x1 <= wide and y1 <= tall and size >= LEAST
    scale = 1.0 if fits else min(ROOM * wide / max(x1 - x0, 1e-9), ROOM * tall / max(y1 - y0, 1e-9))
    middle = at or (((x0 + x1) / 2, (y0 + y1) / 2) if fits else (wide / 2, tall / 2))
    made: list[Ink] = []
    for stroke in strokes:
        if stroke.points:
            placed = [
                (middle[0] + (x - (x0 + x1) / 2) * scale, middle[1] + (y - (y0 + y1) / 2) * scale, 0.75, 0.0)
                for x, y in stroke.points
            ]
            made.append(ink_from(placed, WIDTH, _hue(stroke.colour)))
    return put(page, made, many("Put out a stroke", "Put out {n} strokes", len(made)))


def _hue(colour: str) -> str:
    """Larch's own name of a colour, where it has one."""
    return next((hue for hue in HUES if hex_of(hue).lower() == colour), colour or "needle")
