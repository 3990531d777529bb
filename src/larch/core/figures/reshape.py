"""Giving a figure another form: a free one takes it, one that follows from free points moves those."""

from __future__ import annotations

import math
from typing import Any

from larch.core.base.shape import Placement, Point
from larch.core.base.words import _
from larch.core.figures.figure import Figure, place, split_ref
from larch.core.maths.plane.forms import Form
from larch.core.model.page import Page
from larch.core.model.thing import Thing

CLOSE = 1e-6


def reshaped(page: Page, figure: Figure, form: Form) -> Any:
    """The figure with another form, or the page with the points moved that it follows from.

    Raises ValueError with one sentence if what it follows from can't bring that form about.
    """
    if not figure.rule:
        return fitted(figure, form)
    moved = moved_points(page, figure, points_for(page, figure, form))
    from larch.core.figures.settle import followers

    settled = followers(page, moved)
    after = settled.get(figure.id, figure)
    if not isinstance(after, Figure) or after.why or not _alike(after.form(), form):
        raise ValueError(follows(page, figure))
    return page.with_things(settled)


def follows(page: Page, figure: Figure) -> str:
    from larch.core.figures.steps import ref_name

    names = ", ".join(filter(None, (ref_name(page, ref) for ref in figure.of)))
    return _("It follows from {names}; change that instead.").format(names=names or _("other things"))


def fitted(figure: Figure, form: Form) -> Figure:
    """A free figure with a form in page coordinates, keeping its placement where it has corners of its own."""
    from larch.core.maths.plane.forms import Path

    place = figure.placement
    if isinstance(form, Path) and hasattr(figure, "vertices"):
        changed: Figure = figure.replace(vertices=tuple(place.to_local(*corner) for corner in form.corners))
        return changed
    return figure.formed(form)


def points_for(page: Page, figure: Figure, form: Form) -> list[Point | None]:
    """Where the points that a figure follows from must be for it to have a form; None for those that may stay."""
    from larch.core.maths.plane.forms import Circle, Line, Path

    match form, figure.rule:
        case Line(a, b), "segment" | "ray" | "line" | "vector":
            return [a, b]
        case Path(corners), "polygon" | "polyline":
            return list(corners)
        case Circle(centre, radius), "circle":
            id, sign, k = split_ref(figure.of[1])
            through = page.thing(id)
            if isinstance(through, Figure):
                at = place(through.form(), k if sign else 0)
                grown = radius / (math.dist(centre, at) or 1.0)
                return [None, (centre[0] + (at.x - centre[0]) * grown, centre[1] + (at.y - centre[1]) * grown)]
    return []


def moved_points(page: Page, figure: Figure, wanted: list[Point | None]) -> dict[str, Thing]:
    moved: dict[str, Thing] = {}
    for ref, at in zip(figure.of, wanted, strict=False):
        if at is None:
            continue
        id, sign, k = split_ref(ref)
        thing = moved.get(id) or page.thing(id)
        fresh = _point_moved(thing, sign, k, at)
        if fresh is None:
            raise ValueError(follows(page, figure))
        moved[id] = fresh
    if not moved:
        raise ValueError(follows(page, figure))
    return moved


def _point_moved(thing: Thing | None, sign: str, k: int, at: Point) -> Thing | None:
    """A free point, or a corner of a free figure, put elsewhere; the thing itself if it is there already."""
    if not isinstance(thing, Figure) or thing.why:
        return None
    now = place(thing.form(), k if sign == ":" else 0)
    if abs(now.x - at[0]) <= CLOSE and abs(now.y - at[1]) <= CLOSE:
        return thing
    if thing.rule or thing.locked:
        return None
    if not sign:
        changed: Thing = thing.replace(placement=Placement(*at))
        return changed
    handles = {handle.name: handle for handle in thing.handles()}
    return thing.with_handle(str(k), *thing.placement.to_local(*at)) if str(k) in handles else None


def _alike(one: Any, other: Any) -> bool:
    if isinstance(one, float | int):
        return bool(abs(one - other) <= CLOSE * max(1.0, abs(other)))
    if isinstance(one, tuple):
        return len(one) == len(other) and all(_alike(a, b) for a, b in zip(one, other, strict=True))
    return bool(one == other)
