"""Instruments that lie on the page as on a desk: what they share, and where a pen is held along them."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from typing import ClassVar, NamedTuple

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure
from larch.core.maths.plane.forms import Angle, Line, NotThere, Path
from larch.core.maths.plane.near import along, at_share
from larch.core.model.action import Action, Things, ids_of
from larch.core.model.capabilities import Snaps, TurnsOnto, Unaligned
from larch.core.model.edit import Edit
from larch.core.model.fact import read_number
from larch.core.model.page import Page
from larch.core.model.thing import Snap, Thing

TURN_STEP = 15.0
TURN_REACH = 2.5  # degrees within which a turn falls onto a direction that is there
BESIDE = 24.0  # page units beside an edge within which a pen is held along it
WITHIN = 10.0  # and within the instrument


class Edge(NamedTuple):
    """A straight edge on the page, from its zero; what lies to the other side is the instrument."""

    a: Point
    b: Point

    @property
    def angle(self) -> float:
        return math.degrees(math.atan2(self.a[1] - self.b[1], self.b[0] - self.a[0]))


class Instrument(Snaps, TurnsOnto, Unaligned, Thing, frozen=True, kw_only=True, tag="_instrument"):
    """draws: what a pen held along it leaves, "ink" or "figure": a segment, a ray's piece, an arc of geometry."""

    draws: str = "ink"
    hue: str = "straw"

    resizable: ClassVar[bool] = False
    order: ClassVar[int] = 35

    def outline(self) -> tuple[Point, ...]:
        """Its body, in its own coordinates."""
        raise TypeError(self.kind())

    def straight_edges(self) -> tuple[tuple[Point, Point], ...]:
        """Along which a pen can be drawn, in its own coordinates, each from its zero."""
        return ()

    def extent(self) -> Box:
        from larch.core.base.shape import box_of

        return box_of(self.outline())

    def touches(self, x: float, y: float, slack: float) -> bool:
        from larch.core.maths import geometry

        ring = self.outline()
        return geometry.inside(ring, x, y) or any(
            geometry.distance_to_side(a, b, x, y) <= slack for a, b in geometry.pairs(ring)
        )

    def edges_on_page(self) -> list[Edge]:
        place = self.placement
        return [Edge(place.to_page(*a), place.to_page(*b)) for a, b in self.straight_edges()]

    def turned_to(self, typed: str) -> Thing:
        """Turned about its zero to an angle that a person typed. Raises ValueError with one sentence."""
        by = read_number(typed) - self.placement.turn
        if not abs(by) <= 1e6:
            raise ValueError(_("A turn lies between 0° and 360°."))
        changed: Thing = self.turned(by, (self.placement.x, self.placement.y))
        return changed

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """An edge falls onto the edge of another instrument, or its zero onto a point."""
        for edge in self.edges_on_page():
            for line in lines_near(page, others):
                if _turn_between(edge.angle, direction_of(line)) > 0.5:
                    continue
                foot = at_share(line, along(line._replace(form="line"), edge.a))
                if math.dist(foot, edge.a) <= reach:
                    return Snap(foot[0] - edge.a[0], foot[1] - edge.a[1], _("along it"), (foot, line.b))
        for edge in self.edges_on_page():
            for at in points_near(page, others):
                if math.dist(at, edge.a) <= reach:
                    return Snap(at[0] - edge.a[0], at[1] - edge.a[1], _("its zero"), (at, edge.b))
        return None

    def held_turn(self, page: Page, others: Sequence[Thing], degrees: float) -> tuple[float, str]:
        return _held_turn(self, page, others, degrees)

    def actions(self) -> tuple[Action, ...]:
        return INSTRUMENT_ACTIONS


def turned_towards(instrument: Instrument, x: float, y: float, rest: float = 0.0) -> Thing:
    """Turned about its zero so that a place of its own coordinates comes to lie on a direction of its own."""
    by = math.degrees(math.atan2(-y, x)) - rest
    changed: Thing = instrument.turned(by, (instrument.placement.x, instrument.placement.y))
    return changed


class Held(NamedTuple):
    """A pen held along an edge: where on it, and at how much from its zero, page units."""

    edge: Edge
    at: Point
    along: float


def held(instrument: Instrument, at: Point, reach: float) -> Held | None:
    """Where a pen at a place would be held along an instrument: beside its edge, or a little within."""
    best: tuple[float, Held] | None = None
    inside = instrument.touches(*instrument.placement.to_local(*at), 0)
    for edge in instrument.edges_on_page():
        line = Line(edge.a, edge.b)
        share = along(line, at)
        foot = at_share(line, share)
        away = math.dist(foot, at)
        most = min(WITHIN, reach) if inside else max(BESIDE, reach)
        if away <= most and (best is None or away < best[0]):
            best = (away, Held(edge, foot, share * math.dist(edge.a, edge.b)))
    return best[1] if best is not None else None


def slid(held: Held, at: Point) -> Held:
    """The pen moved on: still on the edge, as near to a place as that allows."""
    line = Line(held.edge.a, held.edge.b)
    share = along(line, at)
    return Held(held.edge, at_share(line, share), share * math.dist(held.edge.a, held.edge.b))


def lines_near(page: Page, things: Iterable[Thing]) -> list[Line]:
    """The straight lines of figures and the edges of instruments."""
    found: list[Line] = []
    for thing in things:
        if isinstance(thing, Instrument):
            found += [Line(edge.a, edge.b) for edge in thing.edges_on_page()]
        elif isinstance(thing, Figure):
            form = thing.form_on(page)
            match form:
                case Line():
                    found.append(form)
                case Path() if len(form.corners) <= 24:
                    found += form.sides()
                case Angle(vertex, a, b):
                    found += [Line(vertex, a), Line(vertex, b)]
    return [line for line in found if line.a != line.b]


def points_near(page: Page, things: Iterable[Thing]) -> list[Point]:
    """Points, corners, ends and centres of figures."""
    from larch.core.figures.figure import place

    found: list[Point] = []
    for thing in things:
        form = thing.form_on(page) if isinstance(thing, Figure) else None
        for k in range(24 if form is not None else 0):
            try:
                assert form is not None
                spot = place(form, k)
            except NotThere:
                break
            found.append((spot.x, spot.y))
    return found


def direction_of(line: Line) -> float:
    return math.degrees(math.atan2(line.a[1] - line.b[1], line.b[0] - line.a[0]))


def _turn_between(a: float, b: float) -> float:
    """By how much two undirected lines differ, 0 to 90."""
    off = (a - b) % 180
    return min(off, 180 - off)


def _held_turn(instrument: Instrument, page: Page, others: Sequence[Thing], degrees: float) -> tuple[float, str]:
    """A turn of an instrument that falls onto multiples of 15°, or makes an edge parallel to a line nearby; and why."""
    turn = instrument.placement.turn + degrees
    ways = [
        (edge.angle + degrees, direction_of(line))
        for edge in instrument.edges_on_page()
        for line in lines_near(page, others)
    ]
    best: tuple[float, float, str] | None = None
    for own, other in ways:
        off = (other - own + 90) % 180 - 90
        if abs(off) <= TURN_REACH and (best is None or abs(off) < best[0]):
            best = (abs(off), off, _("along it"))
    if best is not None:
        return degrees + best[1], best[2]
    target = round(turn / TURN_STEP) * TURN_STEP
    if abs(turn - target) <= TURN_REACH:
        return degrees + target - turn, f"{target % 360:g}°"
    return degrees, ""


def _all_instruments(page: Page, things: Things) -> bool:
    return bool(things) and all(isinstance(thing, Instrument) for thing in things)


def _toggle_draws(page: Page, things: Things) -> Edit:
    to = "ink" if all(getattr(thing, "draws", "") == "figure" for thing in things) else "figure"
    changed = page.changing(ids_of(things), lambda thing: thing.replace(draws=to))
    said = (
        _("What is drawn along it becomes a figure that knows its measure.")
        if to == "figure"
        else _("What is drawn along it is ink.")
    )
    return Edit(_("What it draws"), page, changed, said=said)


def _put_away(page: Page, things: Things) -> Edit:
    """The work with it is done: at the Board too, without a way to the Desk. What was drawn with it stays."""
    return Edit(_("Put away"), page, page.without(ids_of(things)), select=())


INSTRUMENT_ACTIONS = (
    Action("draws", lambda p, ts: _("draws ink") if getattr(ts[0], "draws", "") == "figure" else _("draws figures"),
           "pencil-ruler", _toggle_draws, _all_instruments, rank=20, board=True,
           words=N_("instrument ruler geometric line ink segment arc")),
    Action("put away", lambda p, ts: _("put away"), "check", _put_away, _all_instruments, rank=21, board=True,
           words=N_("finish end done remove instrument")),
)  # fmt: skip
