"""What a person points at for a construction: a point, a corner, a side, a circle; or a new point where there is none."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any, NamedTuple

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import _
from larch.core.figures.figure import Figure, free_letters, place, side, used_letters
from larch.core.figures.on_axes import axes_under
from larch.core.figures.rule import Rule
from larch.core.figures.rules import RULES, fits, made_by
from larch.core.figures.settle import Settler, plan_of, settle
from larch.core.maths.plane.forms import Angle, Circle, Ellipse, Form, Graph, Line, NotThere, Path, Spot, box_round
from larch.core.maths.plane.meet import meetings
from larch.core.maths.plane.near import distance, on_form, parameter, within
from larch.core.model.action import named
from larch.core.model.capabilities import Geometric, LooksAt, Plots
from larch.core.model.edit import Edit
from larch.core.model.kinds import kinds
from larch.core.model.page import Page
from larch.core.model.snapping import hold_point
from larch.core.model.thing import Thing
from larch.core.things.geometry.point import Point as PointThing

PRIME = "′"


class Pick(NamedTuple):
    """ref: what was pointed at, or "" for `fresh`, a point that is to be put there. at: where it is."""

    ref: str
    at: Point
    fresh: Figure | None = None
    why: str = ""


def figures_near(page: Page, things: Sequence[Thing], at: Point, reach: float) -> list[tuple[Thing, Form]]:
    """The figures, and the graphs on axes, whose line comes within reach of a place, the topmost first."""
    found: list[tuple[Thing, Form]] = []
    candidates = list(reversed(things))
    for axes in [thing for thing in candidates if isinstance(thing, Plots) and isinstance(thing, LooksAt)]:
        candidates += [curve for curve in axes.uses(page) if curve not in candidates]
    for thing in candidates:
        form = thing.form_on(page) if isinstance(thing, Geometric) else None
        if form is not None and (isinstance(thing, Figure) or isinstance(form, Graph)):
            endless = isinstance(form, Line) and form.form in ("ray", "line")
            if endless or box_round(form).grown(reach).holds(*at):
                found.append((thing, form))
    return found


def point_at(page: Page, things: Sequence[Thing], at: Point, reach: float, snap: bool = True) -> Pick:
    """A point of the page near a place: one that is there, a corner, a crossing, a place on a line; else a new one."""
    near = figures_near(page, things, at, reach)
    old = _old_point(near, at, reach)
    if old is not None:
        return old
    curves = [(ref, form) for figure, form in near for ref, form in _curves(figure, form) if distance(form, at) <= reach]
    crossing = _crossing(curves, at, reach)
    if crossing is not None:
        return crossing
    if curves:
        ref, form = min(curves, key=lambda curve: distance(curve[1], at))
        t = parameter(form, at)
        return Pick("", on_form(form, t), PointThing(rule="on", of=(ref,), values=(t,)), _("on the line"))
    return new_point(page, at, reach, snap)


def _old_point(near: list[tuple[Thing, Form]], at: Point, reach: float) -> Pick | None:
    best: tuple[float, Pick] | None = None
    for figure, form in near:
        for k, spot in enumerate(_places(form)):
            away = math.dist(spot, at) - (1.0 if isinstance(form, Spot) else 0.0)  # a point before a corner under it
            if away <= reach and (best is None or away < best[0]):
                ref = figure.id if isinstance(form, Spot) else f"{figure.id}:{k}"
                best = (away, Pick(ref, spot))
    return best[1] if best is not None else None


def _places(form: Form) -> list[Point]:
    found: list[Point] = []
    for k in range(200):
        try:
            spot = place(form, k)
        except NotThere:
            break
        found.append((spot.x, spot.y))
    return found


def _curves(figure: Thing, form: Form) -> list[tuple[str, Form]]:
    """The lines of a figure, each with what it is called: sides one by one, round ones as a whole."""
    if isinstance(form, Path):
        return [(f"{figure.id}/{k}", one) for k, one in enumerate(form.sides())]
    if isinstance(form, Angle):
        return [(f"{figure.id}/{k}", side(form, k)) for k in (0, 1)]
    return [] if isinstance(form, Spot) else [(figure.id, form)]


def _crossing(curves: list[tuple[str, Form]], at: Point, reach: float) -> Pick | None:
    best: tuple[float, Pick] | None = None
    for i, (one, form) in enumerate(curves[:6]):
        for other, second in curves[i + 1 : 6]:
            try:
                points = meetings(form, second)
            except NotThere:
                continue
            for k, point in enumerate(points):
                away = math.dist(point, at)
                if away <= reach and (best is None or away < best[0]):
                    fresh = PointThing(rule="meet", of=(one, other), values=(float(k),))
                    best = (away, Pick("", point, fresh, _("where they meet")))
    return best[1] if best is not None else None


def new_point(page: Page, at: Point, reach: float, snap: bool = True) -> Pick:
    """A new free point: on axes a plotted one, at crossings of grid or paper where those are near."""
    axes = axes_under(page, [at])
    if axes is not None:
        crossing = axes.grid_point(at)
        near = crossing if snap and math.dist(crossing, at) <= 1.4 * reach else at
        x, y = axes.plane_of(near)
        return Pick("", near, PointThing(rule="plotted", of=(axes.id,), values=(x, y)), f"({x:g}; {y:g})")
    held = hold_point(page, [], at, reach) if snap else None
    to = held.at if held is not None else at
    return Pick("", to, PointThing(placement=Placement(*to)), held.reason if held is not None else "")


def form_at(page: Page, things: Sequence[Thing], at: Point, reach: float, wanted: str) -> Pick | None:
    """A line, a circle or a figure near a place; None if there is none of that sort."""
    near = figures_near(page, things, at, reach)
    if wanted == "figure":
        for figure, form in near:
            if isinstance(form, Spot) and math.dist(form, at) <= reach:
                return Pick(figure.id, at)
        for figure, form in near:
            if fits(wanted, form) and (distance(form, at) <= reach or within(form, at)):
                return Pick(figure.id, at)
        return None
    curves = [(ref, form) for figure, form in near for ref, form in _curves(figure, form)]
    fitting = [(distance(form, at), ref) for ref, form in curves if fits(wanted, form)]
    best = min(fitting, default=None)
    return Pick(best[1], at) if best is not None and best[0] <= reach else None


def pick(page: Page, things: Sequence[Thing], at: Point, reach: float, wanted: str, snap: bool = True) -> Pick | None:
    if wanted in ("point", "point…"):
        return point_at(page, things, at, reach, snap)
    return form_at(page, things, at, reach, wanted)


class Made(NamedTuple):
    """A page with a construction on it, and the ids of what is new."""

    page: Page
    ids: tuple[str, ...]


def built(page: Page, name: str, picks: Sequence[Pick], values: Sequence[float] = (), hue: str = "") -> Made:
    """Puts new points where they were wanted, and then what the rule makes of all picks."""
    after, refs = with_points(page, picks)
    rule = RULES.get(name)
    if name == "locus":
        kind, of = "locus", refs[:2]
    else:
        assert rule is not None
        kind, of = rule.makes or _kind_of(after, refs[0]), refs
    numbers = tuple(values) or (rule.starts if rule is not None else ())
    fields: dict[str, Any] = {"rule": name, "of": tuple(of), "values": numbers}
    if hue and kind != "point":
        fields["hue"] = hue
    thing = kinds()[kind](**fields)
    own = after.put_ids(1)
    after = put_below_points(after, _named(after, thing, refs))
    old = {thing.id for thing in page.things}
    ids = [thing.id for thing in after.things if thing.id not in old and thing.id not in own]
    return Made(settle(after), (*ids, *own))


def put_below_points(page: Page, thing: Thing) -> Page:
    """On top, but not over points, which are to be seen and touched."""
    if thing.kind() == "point":
        return page.put(thing)
    lowest = next((i for i, other in enumerate(page.things) if other.kind() == "point"), len(page.things))
    return page.insert(lowest, thing)


def with_points(page: Page, picks: Sequence[Pick]) -> tuple[Page, list[str]]:
    """Puts the new points among the picks on the page; returns it with what all picks are called then."""
    refs: list[str] = []
    seen: dict[Point, str] = {}
    for one in picks:
        if one.ref:
            refs.append(one.ref)
        elif one.at in seen:
            refs.append(seen[one.at])
        else:
            assert one.fresh is not None
            page = page.put(named(page, one.fresh))
            refs.append(page.things[-1].id)
            seen[one.at] = refs[-1]
    return settle(page), refs


def _kind_of(page: Page, ref: str) -> str:
    """The kind of an image: that of what it is an image of."""
    settler = Settler(page, plan_of(page), {})
    form = settler.form(ref)
    return {Spot: "point", Line: "line", Circle: "circle", Ellipse: "ellipse", Angle: "angle"}.get(
        type(form), "polygon" if isinstance(form, Path) and form.closed else "polyline"
    )


def _primes(page: Page, names: Sequence[str]) -> str:
    """As many primes as no letter of the page has yet: the second image of A is A″."""
    used = used_letters(page)
    return next(PRIME * k for k in range(1, 100) if used.isdisjoint(name + PRIME * k for name in names))


def _named(page: Page, thing: Thing, refs: Sequence[str]) -> Thing:
    """Images take the letters of what they are images of, with a prime; points the next free letter."""
    rule: Rule | None = RULES.get(getattr(thing, "rule", ""))
    original = page.thing(refs[0]) if refs else None
    if rule is not None and not rule.makes and original is not None and ":" not in refs[0] and "/" not in refs[0]:
        fields: dict[str, object] = {"hue": original.hue}
        names_of = getattr(original, "corner_names", None)
        if names_of is not None:
            own = [name for name in names_of() if name.strip()]
            mark = _primes(page, own)
            fields["letters"] = "".join(f"{name}{mark}" if name.strip() else " " for name in names_of())
            fields["drawn"] = getattr(original, "drawn", False)
            fields["shown"] = tuple(name for name in original.shown if name == "marks")
        elif original.name:
            fields["name"] = original.name + _primes(page, [original.name])
        thing = thing.replace(**fields)
    if thing.kind() == "point" and not thing.name:
        return thing.replace(name=free_letters(page, 1)[0])  # type: ignore[no-any-return]
    return thing


def nearest_value(page: Page, name: str, picks: Sequence[Pick], at: Point) -> tuple[float, ...]:
    """Of a rule with several results, the number of the one nearest to where a person pointed."""
    if name not in ("meet", "tangent"):
        return ()
    after, refs = with_points(page, picks)
    settler = Settler(after, plan_of(after), {})
    best: tuple[float, float] | None = None
    for k in range(12):
        try:
            form = made_by(name, [settler.form(ref) for ref in refs], (float(k),))
        except NotThere:
            break
        away = distance(form, at) if not isinstance(form, Spot) else math.dist(form, at)
        if name == "tangent" and isinstance(form, Line):
            away = math.dist(form.b, at)
        if best is None or away < best[0] - 1e-9:
            best = (away, float(k))
    return (best[1],) if best is not None else (0.0,)


def construct(page: Page, name: str, picks: Sequence[Pick], values: Sequence[float] = (), hue: str = "") -> Edit:
    """The edit that carries a construction out."""
    made = built(page, name, picks, values, hue)
    label = RULES[name].label if name in RULES else "locus"
    return Edit(_(label).capitalize(), page, made.page, select=made.ids[-1:])


def near_box(at: Point, reach: float) -> Box:
    return Box(*at, *at).grown(reach)
