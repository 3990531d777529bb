"""Where what is made stands without covering anything."""

from __future__ import annotations

import math

from larch.core.base.shape import Box, Point
from larch.core.model.page import Page

STEP = 20  # page units between the places that are tried


def room(page: Page, box: Box, wanted: Point) -> Point:
    """The place nearest to a wanted one at which nothing lies; that one itself where the page is full."""
    taken = [thing.box().grown(8) for thing in page.things]
    across, down = page.size[0] - box.width, page.size[1] - box.height
    places = [(x, y) for x in range(0, max(1, int(across)), STEP) for y in range(0, max(1, int(down)), STEP)]
    for x, y in sorted(places, key=lambda at: math.dist(at, wanted)):
        if not any(box.moved(x, y).meets(other) for other in taken):
            return float(x), float(y)
    return min(wanted[0], max(0.0, across)), min(wanted[1], max(0.0, down))
