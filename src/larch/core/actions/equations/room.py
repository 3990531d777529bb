"""Where what is made stands without covering anything."""

from __future__ import annotations

import math

from larch.core.base.shape import Box, Point
from larch.core.model.page import Page

STEP = 20  # page units between the places that are tried
AIR = 8.0  # round what is placed, if there is so much


def room(page: Page, box: Box, wanted: Point) -> Point:
    """The place nearest to a wanted one at which nothing lies; where the page is full, the one where least is covered."""
    taken = [thing.box() for thing in page.things]
    across, down = max(0.0, page.size[0] - box.width), max(0.0, page.size[1] - box.height)
    xs, ys = ([*range(0, int(end), STEP), end] for end in (across, down))
    places = sorted(((float(x), float(y)) for x in xs for y in ys), key=lambda at: math.dist(at, wanted))
    for air in (AIR, 1.0):
        for x, y in places:
            if not any(box.moved(x, y).grown(air).meets(other) for other in taken):
                return x, y
    return min(places, key=lambda at: (sum(_shared(box.moved(*at), other) for other in taken), math.dist(at, wanted)))


def _shared(one: Box, other: Box) -> float:
    """The area that two boxes share."""
    across = min(one.x1, other.x1) - max(one.x0, other.x0)
    down = min(one.y1, other.y1) - max(one.y0, other.y0)
    return max(0.0, across) * max(0.0, down)
