"""Cutting rings of points: along a line, into equal areas, into shares of a circle. Own coordinates of the shape."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import accumulate, pairwise
from typing import Any

from larch.core.base.shape import Point
from larch.core.base.words import _
from larch.core.figures.figure import Figure
from larch.core.maths import geometry
from larch.core.maths.plane.forms import Circle, Ellipse
from larch.core.things.geometry.circle import Circle as CircleThing
from larch.core.things.geometry.polygon import Polygon

Ring = tuple[Point, ...]
Piece = tuple[Ring, tuple[Ring, ...]]  # an outline and its holes
ARC_SIDES = 240  # of a circle that is cut
DIRECTIONS = 12  # tried for parallel cuts that leave every part in one piece
SMALLEST = 1e-9  # share of the whole below which a piece is dust
MOST_CORNERS = 900


def rings_of(thing: Figure, on_page: bool = False) -> tuple[tuple[Ring, ...], bool]:
    """The outline and the holes of a closed figure, and whether arcs were made of short sides."""
    if isinstance(thing, CircleThing):
        rings: tuple[Ring, ...] = (arc_ring(thing.local()),)
        about = True
    else:
        assert isinstance(thing, Polygon)
        rings, about = (thing.vertices, *thing.holes), thing.about
    if on_page:
        rings = tuple(tuple(thing.placement.to_page(*point) for point in ring) for ring in rings)
    return rings, about


def arc_ring(form: Circle | Ellipse) -> Ring:
    """A circle or a sector as short sides that enclose just its area."""
    if isinstance(form, Ellipse):
        return tuple(form.at(360 * k / ARC_SIDES) for k in range(ARC_SIDES))
    count = max(2, round(ARC_SIDES * form.span / 360))
    step = math.radians(form.span / count)
    grown = form._replace(radius=form.radius * math.sqrt(step / math.sin(step)))
    arc = tuple(grown.at(form.start + form.span * k / count) for k in range(count + 1))
    if form.form == "circle":
        return arc[:-1]
    return (form.centre, *arc) if form.form == "sector" else arc


def area_of(rings: Sequence[Ring]) -> Any:
    """As a Shapely area, valid even if the outline crosses itself."""
    import shapely

    made = shapely.Polygon(rings[0], list(rings[1:]))
    return made if made.is_valid else shapely.make_valid(made)


def pieces_of(area: Any) -> list[Piece]:
    """The pieces of a Shapely area, without dust, from left to right."""
    polygons = [part for part in getattr(area, "geoms", [area]) if part.geom_type in ("Polygon", "MultiPolygon")]
    flat = [piece for part in polygons for piece in getattr(part, "geoms", [part])]
    total = sum(piece.area for piece in flat)
    kept = [piece for piece in flat if piece.area > max(SMALLEST * total, 1e-9)]
    kept.sort(key=lambda piece: (round(piece.bounds[0], 6), piece.bounds[1]))
    found = []
    for piece in kept:
        outline = _ring(piece.exterior.coords)
        if len(outline) >= 3:
            found.append((outline, tuple(_ring(hole.coords) for hole in piece.interiors)))
    return found


def _ring(coords: Any) -> Ring:
    points = [(float(x), float(y)) for x, y in coords][:-1]
    return (
        tuple(points[: MOST_CORNERS + 1])
        if len(points) <= MOST_CORNERS
        else tuple(points[:: len(points) // MOST_CORNERS + 1])
    )


def cut_by(rings: Sequence[Ring], line: Sequence[Point]) -> list[Piece]:
    """What a line cuts an area into; the pieces share the points of the cut. One piece if it does not run across."""
    import shapely
    from shapely.ops import split

    if len(line) < 2 or all(point == line[0] for point in line):
        return []
    blade = shapely.LineString(line)
    area = area_of(rings)
    if not blade.is_simple:
        whole = shapely.union_all([shapely.LineString(pair) for pair in pairwise(line) if pair[0] != pair[1]])
        faces = shapely.polygonize([shapely.union(area.boundary, whole)])
        inside = [face for face in faces.geoms if area.contains(face.representative_point())]
        return pieces_of(shapely.MultiPolygon(inside)) if inside else []
    return pieces_of(split(area, blade))


def round_shares(form: Circle, n: int) -> list[Circle]:
    """A circle, or a sector of one, in n equal sectors; from the top, or from where it begins."""
    first = 90.0 if form.form == "circle" else form.start
    step = form.span / n
    return [form._replace(form="sector", start=(first + k * step) % 360, span=step) for k in range(n)]


def grid(ring: Ring, columns: int, rows: int) -> list[Piece]:
    """A parallelogram in rows and columns, along its sides."""
    a, b, _c, d = ring

    def at(i: int, j: int) -> Point:
        u, v = i / columns, j / rows
        return (a[0] + u * (b[0] - a[0]) + v * (d[0] - a[0]), a[1] + u * (b[1] - a[1]) + v * (d[1] - a[1]))

    corners = [[at(i, j) for i in range(columns + 1)] for j in range(rows + 1)]
    corners[0][columns], corners[rows][columns], corners[rows][0] = ring[1], ring[2], ring[3]
    return [
        ((corners[j][i], corners[j][i + 1], corners[j + 1][i + 1], corners[j + 1][i]), ())
        for j in range(rows)
        for i in range(columns)
    ]


def split_regular(ring: Ring, n: int) -> list[Piece]:
    """A regular polygon from its middle. Every part of the rim of one length has one area with the middle, since the
    middle is as far from every side."""
    count = len(ring)
    middle = (math.fsum(x for x, _y in ring) / count, math.fsum(y for _x, y in ring) / count)
    marks = [count * k / n for k in range(n + 1)]

    def at(place: float) -> Point:
        k, t = int(place + 1e-12) % count, place - int(place + 1e-12)
        if abs(t) < 1e-12:
            return ring[k]
        a, b = ring[k], ring[(k + 1) % count]
        return (a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]))

    found = []
    for low, high in pairwise(marks):
        between = [ring[k % count] for k in range(math.floor(low + 1e-12) + 1, math.ceil(high - 1e-12))]
        found.append(((middle, at(low), *between, at(high)), ()))
    return [_clean(piece) for piece in found]


def _clean(piece: Piece) -> Piece:
    """Without a middle that lies on the straight way between its neighbours (a half of an even polygon)."""
    ring, holes = piece
    a, middle, b = ring[-1], ring[0], ring[1]
    cross = (middle[0] - a[0]) * (b[1] - a[1]) - (middle[1] - a[1]) * (b[0] - a[0])
    size = max(math.dist(middle, point) for point in ring) ** 2
    return (ring[1:], holes) if abs(cross) <= 1e-12 * size and len(ring) > 3 else piece


def fan(ring: Ring, corner: int, n: int) -> list[Piece]:
    """Equal areas by straight cuts from one corner. Raises ValueError with one sentence if the corner does not see all."""
    points = [*ring[corner:], *ring[:corner]]
    apex, rest = points[0], points[1:]
    areas = [geometry.signed_area([apex, a, b]) for a, b in pairwise(rest)]
    total = math.fsum(areas)
    if any(area * total < 0 for area in areas):
        raise ValueError(_("Not all of it can be seen from that corner; choose another."))
    sums = [0.0, *accumulate(areas)]

    def at(share: float) -> tuple[int, Point]:
        wanted = total * share
        k = next((k for k in range(len(areas)) if abs(sums[k + 1]) >= abs(wanted) - 1e-12 * abs(total)), len(areas) - 1)
        t = (wanted - sums[k]) / areas[k] if areas[k] else 0.0
        a, b = rest[k], rest[k + 1]
        return (k + 1, b) if abs(t - 1) < 1e-12 else (k, (a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])))

    marks = [(0, rest[0]), *(at(k / n) for k in range(1, n)), (len(rest) - 1, rest[-1])]
    found: list[Piece] = []
    for (i, first), (j, last) in pairwise(marks):
        between = [rest[k] for k in range(i + 1, j + 1) if rest[k] not in (first, last)]
        found.append(((apex, first, *between, last), ()))
    return found


def equal_strips(ring: Ring, holes: Sequence[Ring], n: int) -> list[Piece]:
    """Equal areas by parallel cuts, upright if that leaves every part in one piece, else in another direction.

    Raises ValueError with one sentence if no direction does.
    """
    for k in range(DIRECTIONS):
        turn = math.pi * k / DIRECTIONS
        pieces = _strips(ring, holes, n, (math.cos(turn), math.sin(turn)))
        if pieces is not None:
            return pieces
    raise ValueError(_("No parallel cuts leave all {n} parts in one piece; cut it along lines of your own.").format(n=n))


def _strips(ring: Ring, holes: Sequence[Ring], n: int, way: Point) -> list[Piece] | None:
    """Cut across a way, where the area up to there is k/n of the whole; each place by bisection."""
    total = geometry.area(ring) - math.fsum(map(geometry.area, holes))
    heights = [x * way[0] + y * way[1] for x, y in ring]
    low, high = min(heights), max(heights)
    size = 2 * max(high - low, max(math.dist(ring[0], point) for point in ring))
    middle = ring[0]

    def blade(at: float) -> list[Point]:
        off = at - (middle[0] * way[0] + middle[1] * way[1])
        x, y = middle[0] + off * way[0], middle[1] + off * way[1]
        return [(x - size * way[1], y + size * way[0]), (x + size * way[1], y - size * way[0])]

    rings = [ring, *holes]
    rest: list[Piece] = [(ring, tuple(holes))]
    found: list[Piece] = []
    for k in range(1, n):
        a, b = low, high
        for _round in range(70):
            at = (a + b) / 2
            if _area_below(rings, way, at) < total * k / n:
                a = at
            else:
                b = at
        cut = cut_by([rest[0][0], *rest[0][1]], blade((a + b) / 2))
        if len(cut) != 2:
            return None
        cut.sort(key=lambda piece: min(x * way[0] + y * way[1] for x, y in piece[0]))
        found.append(cut[0])
        rest = [cut[1]]
    return [*found, rest[0]]


def _area_below(rings: Sequence[Ring], way: Point, at: float) -> float:
    """The area on one side of a line, without a library: rings clipped by a half plane (Sutherland and Hodgman 1974)."""
    areas = [geometry.area(_clipped(ring, way, at)) for ring in rings]
    return areas[0] - math.fsum(areas[1:])


def _clipped(ring: Ring, way: Point, at: float) -> list[Point]:
    kept: list[Point] = []
    for (ax, ay), (bx, by) in geometry.pairs(ring):
        a, b = ax * way[0] + ay * way[1] - at, bx * way[0] + by * way[1] - at
        if a <= 0:
            kept.append((ax, ay))
        if (a < 0 < b) or (b < 0 < a):
            t = a / (a - b)
            kept.append((ax + t * (bx - ax), ay + t * (by - ay)))
    return kept
