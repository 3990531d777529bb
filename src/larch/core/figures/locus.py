"""Loci: the construction between a moving point and a tracing one is worked out for many places of the moving one."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Any

from larch.core.base.shape import Point
from larch.core.base.words import N_
from larch.core.figures.figure import Figure, split_ref
from larch.core.figures.rules import made_by
from larch.core.maths.plane.forms import Circle, Ellipse, Form, Graph, Line, NotThere, Path, Spot
from larch.core.maths.plane.near import on_form

if TYPE_CHECKING:
    from larch.core.figures.settling import Settling

PLACES = 180
MOST_BETWEEN = 40  # steps of the construction; longer ones are traced at fewer places
WORK = 3600  # steps worked out for one locus, at most
LONG = 1200.0  # page units to either side along which an endless line is run through
JUMP = 220.0  # page units between two places of the path that are not joined


def traced(locus: Figure, settler: Settling) -> Any:
    """The branches of the path. Raises NotThere with the reason where there is none."""
    if len(locus.of) != 2:
        raise NotThere(N_("It needs something else to follow from."))
    tracer, driver_id = locus.of[0], split_ref(locus.of[1])[0]
    driver = settler.thing(driver_id)
    if not isinstance(driver, Figure) or driver.rule != "on":
        raise NotThere(N_("The moving point must lie on a line or a circle."))
    track = settler.form(driver.of[0])
    chain = _between(settler, driver_id, split_ref(tracer)[0])
    if not chain:
        raise NotThere(N_("The one point does not hang on the other."))
    lines: list[list[Point]] = [[]]
    for t in _places(track, max(24, min(PLACES, WORK // len(chain)))):
        at = _at(settler, chain, driver_id, track, t, tracer)
        if at is None:
            lines.append([])
        else:
            if lines[-1] and math.dist(lines[-1][-1], at) > JUMP:
                lines.append([])
            lines[-1].append(at)
    kept = tuple(tuple(line) for line in lines if len(line) > 1)
    if not kept:
        raise NotThere(N_("The point leaves no path."))
    return kept


def _places(track: Form, count: int) -> list[float]:
    """Parameters along what the moving point lies on."""
    match track:
        case Line(a, b):
            low, high = track.bounds()
            reach = LONG / (math.dist(a, b) or 1.0)
            low, high = max(low, -reach), min(high, reach)
        case Ellipse():
            low, high = 0.0, 360.0
        case Circle():
            low, high = track.start, track.start + track.span
        case Path():
            low, high = 0.0, float(len(track.sides())) - 1e-9
        case Graph(ts):
            runs = [t for run in ts for t in run]
            return runs[:: max(1, len(runs) // count)]
        case _:
            raise NotThere(N_("The moving point must lie on a line or a circle."))
    return [low + (high - low) * k / count for k in range(count + 1)]


def _between(settler: Settling, start: str, end: str) -> list[Figure]:
    """What hangs on the one point and carries the other, in the order in which it follows."""
    plan = settler.plan
    below = {start}
    ordered = []
    for id in plan.order:
        if not below.isdisjoint(plan.parents[id]):
            below.add(id)
            ordered.append(id)
        if id == end:
            break
    if end not in below:
        return []
    needed, chain = {end}, []
    for id in reversed(ordered):
        if id in needed:
            needed.update(plan.parents[id])
            thing = settler.thing(id)
            if isinstance(thing, Figure):
                chain.append(thing)
    return chain[::-1][:MOST_BETWEEN]


def _at(settler: Settling, chain: list[Figure], driver: str, track: Form, t: float, tracer: str) -> Point | None:
    """Where the tracing point is while the moving one is at a place; None where it is not there."""
    from larch.core.figures.figure import part_of

    forms: dict[str, Form] = {}

    def form(ref: str) -> Form:
        id, sign, k = split_ref(ref)
        return part_of(forms[id], sign, k) if id in forms else settler.form(ref)

    try:
        forms[driver] = Spot(*on_form(track, t))
        for thing in chain:
            if thing.rule in ("locus", "plotted"):
                return None
            forms[thing.id] = made_by(thing.rule, [form(ref) for ref in thing.of], thing.values)
        at = form(tracer)
    except NotThere:
        return None
    return (at.x, at.y) if isinstance(at, Spot) else None
