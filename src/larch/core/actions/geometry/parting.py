"""Parts of shapes: shared into equal parts, cut along a line, joined, overlapped, taken away; and put together again.

Cutting leaves the same numbers on both sides of a cut, and all parts keep the coordinates of the whole: put together
again they fit exactly, and together they are the whole.
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Sequence
from functools import partial
from typing import Any

from larch.core.actions.geometry.cutting import (
    Piece,
    area_of,
    cut_by,
    equal_strips,
    fan,
    grid,
    pieces_of,
    rings_of,
    round_shares,
    split_regular,
)
from larch.core.base.shape import Placement, Point, box_of, union
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure, Part
from larch.core.figures.settle import without
from larch.core.maths import geometry
from larch.core.maths.overlay import overlaid
from larch.core.model.action import Action, Fold, Things, grants, put, register
from larch.core.model.capabilities import Constructible, IsInk
from larch.core.model.edit import Edit, replaced_by
from larch.core.model.fact import read_number
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.cornered import sorted_out
from larch.core.things.geometry.polygon import Polygon

MOST = 100
SHARES = (2, 3, 4, 5, 6, 8, 10, 12)
GRID = re.compile(r"^\s*(\d+)\s*[x×*]\s*(\d+)\s*$")
FROM = re.compile(r"^\s*(\d+)\s+\D*\s?([A-Z][₀-₉]*)\s*$")
GAP = 26.0  # page units between parts that were moved apart


def closed(thing: Thing) -> bool:
    """Whether it is a figure with an inside that can be parted."""
    if not isinstance(thing, Figure) or thing.why:
        return False
    if thing.kind() == "circle":
        return getattr(thing, "piece", "") in ("circle", "sector")
    return thing.kind() == "polygon" and geometry.area(getattr(thing, "vertices", ())) > 0


def share(page: Page, things: Things, n: int, rows: int = 1, corner: str = "") -> Edit:
    """Each of the things in n equal parts, in the place of the whole. Raises ValueError with one sentence."""
    if not 2 <= n * rows <= MOST:
        raise ValueError(_("A shape can be shared into 2 to {most} parts.").format(most=MOST))
    instead: dict[str, list[Thing]] = {}
    for thing in things:
        if closed(thing) and not thing.locked:
            assert isinstance(thing, Figure)
            instead[thing.id] = parts_of(thing, n, rows, corner, f"{thing.id}.{page.next}")
    if not instead:
        raise ValueError(_("Only a shape with an inside can be shared."))
    return replaced_by(page, instead, _("Share into parts"))


def parts_of(thing: Figure, n: int, rows: int, corner: str, name: str) -> list[Thing]:
    """The parts of one figure."""
    total = n * rows
    common = {"rule": "", "of": (), "values": (), "shown": ("share",), "name": ""}
    if isinstance(thing, Circle):
        shares = round_shares(thing.local(), total)
        return [
            thing.replace(piece="sector", start=form.start, span=form.span, part=Part(name, k + 1, total), **common)
            for k, form in enumerate(shares)
        ]
    assert isinstance(thing, Polygon)
    pieces = polygon_parts(thing, n, rows, corner)
    keeps = thing.keeps
    return [
        thing.replace(
            vertices=ring, holes=holes, letters="", keeps="", drawn=False,
            part=Part(name, k + 1, total, thing.vertices, keeps), **common,
        )
        for k, (ring, holes) in enumerate(pieces)
    ]  # fmt: skip


def polygon_parts(polygon: Figure, n: int, rows: int, corner: str) -> list[Piece]:
    """A rectangle in rows and columns, a regular polygon from its middle, any other by parallel cuts or from a corner."""
    assert isinstance(polygon, Polygon)
    ring = polygon.vertices
    kind = sorted_out(polygon).kind
    if corner:
        names = polygon.corner_names()
        if corner not in names:
            raise ValueError(_("It has no corner {corner}.").format(corner=corner))
        return fan(ring, names.index(corner), n)
    if kind in ("rectangle", "square") or (rows > 1 and kind in ("parallelogram", "rhombus")):
        return grid(ring, n, rows)
    if rows > 1:
        raise ValueError(_("Only rectangles and parallelograms can be shared into rows and columns."))
    if (kind.startswith("regular") or kind == "equilateral triangle") and not polygon.holes:
        return split_regular(ring, n)
    return equal_strips(ring, polygon.holes, n)


def read_share(typed: str) -> tuple[int, int, str]:
    """ "5", "3 x 4" (columns and rows), "4 from A". Raises ValueError with one sentence."""
    if found := GRID.match(typed):
        return int(found[1]), int(found[2]), ""
    if found := FROM.match(typed):
        return int(found[1]), 1, found[2]
    count = read_number(typed)
    if count != int(count) or not 2 <= count <= MOST:
        raise ValueError(_("A shape can be shared into 2 to {most} parts.").format(most=MOST))
    return int(count), 1, ""


def cut(page: Page, things: Things) -> Edit:
    """Cuts the selected shapes along the selected line. Raises ValueError with one sentence if it misses them."""
    lines = [thing for thing in things if not closed(thing) and _cutting_line(page, thing)]
    shapes = [thing for thing in things if closed(thing) and not thing.locked]
    if len(lines) != 1 or not shapes:
        raise ValueError(_("Select one line and the shapes that it is to cut."))
    line = _cutting_line(page, lines[0])
    instead: dict[str, list[Thing]] = {}
    for thing in shapes:
        assert isinstance(thing, Figure)
        pieces = _cut_pieces(thing, line, f"{thing.id}.{page.next}")
        if len(pieces) > 1:
            instead[thing.id] = pieces
    if not instead:
        raise ValueError(_("The line must run right across the shape to cut it."))
    return replaced_by(page, instead, _("Cut"))


def _cutting_line(page: Page, thing: Thing) -> list[Point]:
    """Along which a thing can cut, on the page; endless lines a long way out."""
    if isinstance(thing, Figure) and thing.kind() in ("line", "polyline") and not thing.why:
        from larch.core.things.geometry.line import Line

        points = list(thing.form().corners) if thing.kind() == "polyline" else []  # type: ignore[union-attr]
        if isinstance(thing, Line):
            form = thing.form()
            length = math.dist(form.a, form.b) or 1.0
            out = {"line": (-4000 / length, 1 + 4000 / length), "ray": (0.0, 1 + 4000 / length)}.get(
                thing.reach, (-0.02, 1.02)
            )
            points = [(form.a[0] + t * form.way[0], form.a[1] + t * form.way[1]) for t in out]
        return points
    if isinstance(thing, IsInk):
        return [thing.placement.to_page(*point) for line, _closed in thing.edges() for point in line]
    return []


def _cut_pieces(thing: Figure, line: Sequence[Point], name: str) -> list[Thing]:
    rings, about = rings_of(thing)
    local = [thing.placement.to_local(*point) for point in line]
    pieces = cut_by(rings, local)
    return _as_parts(thing, pieces, name, rings[0], about) if len(pieces) > 1 else []


def _as_parts(thing: Figure, pieces: Sequence[Piece], name: str, outer: tuple[Point, ...], about: bool) -> list[Thing]:
    keeps = getattr(thing, "keeps", "")
    return [
        Polygon(
            vertices=ring, holes=holes, letters=" " * len(ring), placement=thing.placement, hue=thing.hue, about=about,
            part=Part(name, outer=outer, keeps=keeps), groups=thing.groups,
        )
        for ring, holes in pieces
    ]  # fmt: skip


def combine(page: Page, things: Things, how: str) -> Edit:
    """ "join" and "subtract" take the place of the shapes; "overlap" is laid on top of them. With its area."""
    import shapely

    shapes = [thing for thing in things if closed(thing)]
    areas = []
    about = False
    for thing in shapes:
        assert isinstance(thing, Figure)
        rings, nearly = rings_of(thing, on_page=True)
        areas.append(area_of(rings))
        about |= nearly
    made = areas[0]
    for other in areas[1:]:
        made = overlaid(how, made, other)
    pieces = pieces_of(shapely.make_valid(made))
    if not pieces:
        words = {"overlap": _("They do not overlap."), "subtract": _("Nothing is left.")}
        raise ValueError(words.get(how, _("Nothing is left.")))
    new = [_loose(ring, holes, shapes[0].hue if how != "overlap" else "plum", about) for ring, holes in pieces]
    label = {"join": _("Join shapes"), "overlap": _("Overlap of shapes"), "subtract": _("Take shapes away")}[how]
    if how == "overlap":
        return put(page, new, label)
    going = [thing.id for thing in shapes if not thing.locked]
    after = without(page, going)
    ids = tuple(after.put_ids(len(new)))
    return Edit(label, page, after.put(*new), select=ids)


def _loose(ring: tuple[Point, ...], holes: tuple[tuple[Point, ...], ...], hue: str, about: bool) -> Thing:
    """A shape in page coordinates, with an origin of its own."""
    box = box_of(ring)
    local = [tuple((x - box.x0, y - box.y0) for x, y in one) for one in (ring, *holes)]
    return Polygon(
        vertices=local[0], holes=tuple(local[1:]), letters=" " * len(ring), hue=hue, about=about, shown=("area",),
        placement=Placement(box.x0, box.y0),
    )  # fmt: skip


# Apart and together


def same_whole(page: Page, things: Things) -> bool:
    sets = {thing.part.set if isinstance(thing, Figure) and thing.part is not None else "" for thing in things}
    return len(things) > 1 and len(sets) == 1 and "" not in sets


def apart(page: Page, things: Things) -> Edit:
    """Moves parts away from the middle of them all."""
    middle = union(thing.box() for thing in things).centre
    moved = {}
    for thing in things:
        x, y = thing.box().centre
        away = math.dist((x, y), middle) or 1.0
        moved[thing.id] = thing.moved((x - middle[0]) / away * GAP, (y - middle[1]) / away * GAP)
    return Edit(_("Move apart"), page, page.with_things(moved))


def together(page: Page, things: Things) -> Edit:
    """Puts parts where they were cut from, about the first of them: since all have the coordinates of the whole, that
    is to give them one placement."""
    place = things[0].placement
    return Edit(_("Put together"), page, page.changing([t.id for t in things], lambda thing: thing.replace(placement=place)))


def whole_again(page: Page, things: Things) -> Edit:
    """All parts become the whole that they were. Raises ValueError with one sentence if some are missing."""
    first = things[0]
    fields = {"part": None, "shown": (), "placement": first.placement}
    made: Thing
    if isinstance(first, Circle):
        spans = math.fsum(t.span for t in things if isinstance(t, Circle))
        if abs(spans - 360) > 1e-6:
            raise ValueError(_("Some of its parts are not selected."))
        made = first.replace(piece="circle", start=0.0, span=360.0, **fields)
    else:
        assert isinstance(first, Polygon) and first.part is not None
        parts = [t for t in things if isinstance(t, Polygon)]
        inside = math.fsum(geometry.area(t.vertices) - math.fsum(map(geometry.area, t.holes)) for t in parts)
        outer = first.part.outer
        if abs(inside - geometry.area(outer)) > 1e-6 * geometry.area(outer):
            raise ValueError(_("Some of its parts are not selected."))
        made = first.replace(vertices=outer, holes=(), letters="", keeps=first.part.keeps, **fields)
    rest = [thing.id for thing in things[1:]]
    return Edit(_("Make whole"), page, page.without(rest).with_things({first.id: made}), select=(first.id,))


SHARE = Fold("share", N_("share into…"), "chart-pie")


def _sharing(n: int) -> Action:
    return Action(f"share {n}", lambda p, ts: _("share into {n}").format(n=n), "chart-pie",
                  lambda p, ts: share(p, ts, n), lambda p, ts: bool(ts) and all(map(closed, ts)), rank=66, fold=SHARE,
                  words=N_("fraction equal parts divide split half third quarter"))  # fmt: skip


def _several(page: Page, things: Things) -> bool:
    return len(things) > 1 and all(map(closed, things))


def _combining(how: str, label: Callable[[], str], icon: str, words: str) -> Action:
    run: Callable[[Page, Things], Edit] = partial(_combine, how)
    return Action(f"shapes {how}", lambda p, ts: label(), icon, run, _several, rank=58, words=words)


def _combine(how: str, page: Page, things: Things) -> Edit:
    return combine(page, things, how)


def _can_cut(page: Page, things: Things) -> bool:
    return (
        len(things) > 1
        and any(map(closed, things))
        and sum(bool(_cutting_line(page, t)) for t in things if not closed(t)) == 1
    )


@grants("share")
def share_as_typed(page: Page, thing: Thing, typed: str) -> Any:
    """Into as many parts as a person typed; the thing itself where nothing is typed."""
    if not typed.strip():
        return thing
    n, rows, corner = read_share(typed)
    return share(page, [thing], n, rows, corner).after


PARTING: tuple[Action, ...] = (
    Action("put together", lambda p, ts: _("put together"), "puzzle", together, same_whole, rank=30, board=True,
           words=N_("parts whole join again")),
    Action("make whole", lambda p, ts: _("make whole"), "circle", whole_again, same_whole, rank=32,
           words=N_("parts unite again")),
    Action("move apart", lambda p, ts: _("move apart"), "move-3d", apart, same_whole, rank=31, board=True,
           words=N_("parts spread explode")),
    Action("cut", lambda p, ts: _("cut along the line"), "scissors", cut, _can_cut, rank=35,
           words=N_("divide slice scissors")),
    _combining("join", lambda: _("join the shapes"), "squares-unite", "union unite merge area"),
    _combining("overlap", lambda: _("overlap of the shapes"), "squares-intersect", "intersection common area"),
    _combining("subtract", lambda: _("take the upper from the lowest"), "squares-subtract", "difference minus hole area"),
    *(_sharing(n) for n in SHARES),
)  # fmt: skip
register(PARTING, Constructible, at=30)
