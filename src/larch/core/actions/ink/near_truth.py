"""What was nearly true of a drawn shape becomes true: through points and corners of the page, level; and it is shown."""

from __future__ import annotations

import math
from collections.abc import Sequence

from larch.core.base.shape import Point, box_of
from larch.core.base.words import _
from larch.core.figures.figure import Figure
from larch.core.maths import geometry
from larch.core.maths.plane.forms import Spot
from larch.core.model.page import Page
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.corner_snap import corners_of
from larch.core.things.geometry.figure_marks import alongside, equal_sides
from larch.core.things.geometry.polygon import Polygon

AT, BY = 16.0, 11.0  # page units: from an end or a middle to a point that is meant, and from a line to one that it goes by
LEVEL = 6.0  # degrees from level or upright within which a shape is taken to stand so
MOST = 400  # places that are looked at


def _places(page: Page) -> tuple[list[Point], list[Point]]:
    """All places of the page that can be meant, and the points among them."""
    corners: list[Point] = []
    spots: list[Point] = []
    for thing in page.things:
        if not isinstance(thing, Figure) or thing.hidden or len(corners) > MOST:
            continue
        own = corners_of(thing, page)
        corners += own
        if isinstance(thing.form_on(page), Spot):
            spots += own
    return corners, spots


def _nearest(place: Point, among: Sequence[Point], reach: float) -> Point | None:
    best = min(among, key=lambda other: math.dist(place, other), default=None)
    return best if best is not None and math.dist(place, best) <= reach else None


def line_near(page: Page, ends: Sequence[Point]) -> tuple[list[Point], str]:
    """Its ends where they were meant to be: at points and corners, else level or upright, through a point that it goes by;
    and what was assumed, in words."""
    corners, spots = _places(page)
    found = [_nearest(end, corners, AT) for end in ends]
    if found[0] is not None and found[1] is not None and found[0] != found[1]:
        return [found[0], found[1]], _("from corner to corner")
    held = next((k for k in (0, 1) if found[k] is not None), None)
    places = levelled(ends) if held is None else list(ends)
    if held is not None:
        places[held] = found[held] or places[held]
    by = [spot for spot in spots if spot not in found and _beside(places, spot) is not None]
    if not by:
        return places, "" if held is None else _("beginning at a point")
    spot = min(by, key=lambda one: abs(_beside(places, one) or 0.0))
    (ax, ay), (bx, by_) = places
    if held is None:
        away = _beside(places, spot) or 0.0
        long = math.dist(*places)
        dx, dy = -(by_ - ay) / long * away, (bx - ax) / long * away
        return [(ax + dx, ay + dy), (bx + dx, by_ + dy)], _("through a point")
    fixed, long = places[held], math.dist(*places)
    share = long / max(math.dist(fixed, spot), 1e-9)
    other = (fixed[0] + (spot[0] - fixed[0]) * share, fixed[1] + (spot[1] - fixed[1]) * share)
    return ([fixed, other] if held == 0 else [other, fixed]), _("through a point")


def _beside(ends: Sequence[Point], spot: Point) -> float | None:
    """How far a place lies to the side of a line, between its ends; None where it doesn't, or too far."""
    (ax, ay), (bx, by) = ends
    long = math.dist((ax, ay), (bx, by))
    if long < 1e-9:
        return None
    along = ((spot[0] - ax) * (bx - ax) + (spot[1] - ay) * (by - ay)) / long
    side = ((bx - ax) * (spot[1] - ay) - (by - ay) * (spot[0] - ax)) / long
    return side if 0 < along < long and abs(side) <= BY else None


def circle_near(page: Page, circle: Circle) -> tuple[Circle, str]:
    """Its middle on a point that is near it, and its edge through one; and what was assumed."""
    corners, spots = _places(page)
    middle = (circle.placement.x, circle.placement.y)
    words = []
    held = _nearest(middle, corners, AT)
    if held is not None:
        circle = circle.replace(placement=circle.placement.moved(held[0] - middle[0], held[1] - middle[1]))
        middle = held
        words.append(_("about a point"))
    by = [spot for spot in spots if abs(math.dist(spot, middle) - circle.radius) <= BY and spot != held]
    if by:
        nearest = min(by, key=lambda spot: abs(math.dist(spot, middle) - circle.radius))
        circle = circle.replace(radius=math.dist(nearest, middle))
        words.append(_("through a point"))
    return circle, ", ".join(words)


def levelled(places: Sequence[Point]) -> list[Point]:
    """Turned about its middle so that a side that is almost level or upright is so; the longest such side counts."""
    best: tuple[float, float] | None = None
    for (ax, ay), (bx, by) in zip(places, [*places[1:], places[0]], strict=True):
        angle = math.degrees(math.atan2(by - ay, bx - ax))
        off = (angle + 45) % 90 - 45
        long = math.hypot(bx - ax, by - ay)
        if abs(off) <= LEVEL and (best is None or long > best[0]):
            best = (long, off)
    if best is None:
        return list(places)
    x0, y0 = box_of(places).centre
    turn = math.radians(-best[1])
    c, s = math.cos(turn), math.sin(turn)
    return [(x0 + (x - x0) * c - (y - y0) * s, y0 + (x - x0) * s + (y - y0) * c) for x, y in places]


def marked(polygon: Polygon) -> Polygon:
    """With what was assumed of it shown: ticks on equal sides, arrows on parallel ones, a right angle."""
    shown = ("marks",) if equal_sides(polygon) or alongside(polygon) else ()
    corners = [polygon.placement.to_page(*vertex) for vertex in polygon.vertices]
    names = polygon.fact_names()
    right = [names[k] for k, angle in enumerate(geometry.interior_angles(corners)) if angle and abs(angle - 90) < 1e-6]
    if right and len(corners) == 3:
        shown = (*shown, f"angle {right[0]}")
    return polygon.replace(shown=shown)  # type: ignore[no-any-return]
