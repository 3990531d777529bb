"""Tiles cover without gap or overlap; what does not tile says why."""

from __future__ import annotations

import math

import pytest
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.actions.geometry.tessellate import take_apart, tessellate
from larch.core.base.shape import Box, Placement, box_of
from larch.core.figures.semi_regular import SEMI_REGULAR, cell, semi_regular
from larch.core.figures.tiling import Cannot, placements, tiling_of
from larch.core.maths import geometry
from larch.core.maths.special import regular_corners
from larch.core.model.page import Page
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.geometry.silhouette import PICTURES, Silhouette, covered
from larch.core.things.geometry.tiles import Tiles, tiles_of

ROOM = Box(0, 0, 420, 300)
coordinate = st.floats(-90, 90, allow_nan=False).map(lambda v: round(v, 1))
place = st.tuples(coordinate, coordinate)


def assert_covers(rings: list, room: Box) -> None:
    polygons = [shapely.Polygon(ring).buffer(-1e-6) for ring in rings]
    tree = shapely.STRtree(polygons)
    for k, one in enumerate(polygons):
        for other in tree.query(one):
            assert other == k or not one.intersects(polygons[other]), "two tiles overlap"
    whole = shapely.union_all([shapely.Polygon(ring).buffer(1e-5) for ring in rings])
    assert whole.contains(shapely.box(*room))


TILING = {
    "L": [(0, 0), (80, 0), (80, 40), (40, 40), (40, 80), (0, 80)],
    "T": [(0, 0), (120, 0), (120, 40), (80, 40), (80, 80), (40, 80), (40, 40), (0, 40)],
    "house": [(0, 0), (80, 0), (80, 60), (40, 90), (0, 60)],
    "hexagon": [(0, 0), (50, -20), (100, 0), (110, 60), (60, 80), (10, 60)],
    "dart": [(0, 0), (100, 0), (25, 25), (0, 100)],
    "regular hexagon": list(regular_corners(6)),
    "parallelogram": [(0, 0), (70, 10), (90, 60), (20, 50)],
}


@pytest.mark.parametrize("name", TILING)
def test_shapes_that_tile_do(name: str) -> None:
    ring = tuple((float(x), float(y)) for x, y in TILING[name])
    assert_covers([tuple(move.point(p) for p in ring) for move, _k in placements(ring, tiling_of(ring), ROOM)], ROOM)


@given(place, place, place)
def test_every_triangle_tiles(a: tuple, b: tuple, c: tuple) -> None:
    ring = (a, b, c)
    assume(geometry.area(ring) > 1200 and min(geometry.sides(ring)) > 30)
    assert_covers(
        [tuple(m.point(p) for p in ring) for m, _k in placements(ring, tiling_of(ring), Box(0, 0, 200, 150))],
        Box(0, 0, 200, 150),
    )


@given(st.lists(st.tuples(st.floats(40, 100), st.floats(8, 80)), min_size=4, max_size=4))
def test_every_quadrilateral_tiles(polar: list) -> None:
    ring = tuple(
        (round(r * math.cos(math.radians(90 * k + t)), 1), round(r * math.sin(math.radians(90 * k + t)), 1))
        for k, (r, t) in enumerate(polar)
    )
    assume(geometry.area(ring) > 1500 and not geometry.crosses_itself(ring))
    assert_covers(
        [tuple(m.point(p) for p in ring) for m, _k in placements(ring, tiling_of(ring), Box(0, 0, 150, 150))],
        Box(0, 0, 150, 150),
    )


@pytest.mark.parametrize("corners", [5, 7, 8, 12])
def test_other_regular_polygons_say_why_not(corners: int) -> None:
    with pytest.raises(Cannot, match="makes 360°"):
        tiling_of(regular_corners(corners))


def test_what_is_no_shape_or_has_no_way_says_so() -> None:
    with pytest.raises(Cannot, match="no shape"):
        tiling_of(((0.0, 0.0), (50.0, 50.0), (50.0, 0.0), (0.0, 50.0)))
    with pytest.raises(Cannot, match="can't be split"):
        tiling_of(((0.0, 0.0), (70.0, -5.0), (100.0, 50.0), (60.0, 90.0), (5.0, 80.0), (-30.0, 30.0)))


@pytest.mark.parametrize("name", SEMI_REGULAR)
def test_semi_regular_sets_cover_and_are_the_same_round_every_corner(name: str) -> None:
    rings = semi_regular(name, 40.0, ROOM)
    assert_covers(rings, ROOM)
    around: dict[tuple[int, int], list[int]] = {}
    for ring in rings:
        for x, y in ring:
            around.setdefault((round(x), round(y)), []).append(len(ring))
    inner = [kinds for (x, y), kinds in around.items() if 90 < x < 330 and 90 < y < 210]
    assert inner
    assert all(sorted(kinds) == sorted(SEMI_REGULAR[name]) for kinds in inner)


@pytest.mark.parametrize("name", SEMI_REGULAR)
def test_one_cell_fills_one_parallelogram(name: str) -> None:
    made = cell(name)
    area = abs(made.u[0] * made.v[1] - made.u[1] * made.v[0])
    assert math.fsum(map(geometry.area, made.rings)) == pytest.approx(area, rel=1e-9)


@pytest.mark.parametrize("base", ["square", "hexagon"])
def test_a_changed_edge_is_followed_by_its_partner(base: str) -> None:
    tiles = Tiles(pattern=base, side=90.0, width=420, height=300)
    straight = geometry.area(tiles.tile())
    knot = next(handle for handle in tiles.handles() if handle.name == "knot 0 1")
    changed = tiles.with_handle(knot.name, knot.x + 9, knot.y + 14)
    assert changed != tiles
    assert geometry.area(changed.tile()) == pytest.approx(straight, rel=1e-9)  # what one edge gives, the other takes
    assert_covers([ring for ring, _k in tiles_of(changed)], Box(40, 40, 380, 260))


def test_a_knot_that_would_cross_the_edges_stays() -> None:
    tiles = Tiles(pattern="square", side=90.0)
    knot = next(handle for handle in tiles.handles() if handle.name == "knot 0 0")
    changed = tiles.with_handle(knot.name, knot.x + 400, knot.y - 400)
    assert not geometry.crosses_itself(changed.tile())


def test_a_shape_covers_the_page_and_comes_apart_again() -> None:
    page = Page(id="p").put(Polygon(placement=Placement(300, 200)))
    edit = tessellate(page, page.things)
    assert "half turns" in edit.said
    tiles = edit.after.things[-1]
    corners = {tuple(round(v, 6) for v in tiles.placement.to_page(*p)) for ring, _k in tiles_of(tiles) for p in ring}
    assert {tuple(round(v, 6) for v in p) for p in page.things[0].form().corners} <= corners  # the shape is one of them
    loose = take_apart(
        edit.after.with_things({tiles.id: tiles.replace(width=500, height=400)}), [tiles.replace(width=500, height=400)]
    )
    assert len(loose.select or ()) > 3
    page = Page(id="p").put(Polygon(vertices=regular_corners(5)))
    with pytest.raises(ValueError, match="108°"):
        tessellate(page, page.things)


def test_too_small_a_tile_is_refused_not_waited_for() -> None:
    tiny = ((0.0, 0.0), (0.5, 0.0), (0.0, 0.5))
    with pytest.raises(Cannot, match="too small"):
        placements(tiny, tiling_of(tiny), Box(0, 0, 2000, 2000))


def test_an_outline_knows_how_much_of_it_is_covered() -> None:
    outline = Silhouette(vertices=PICTURES["lantern"], placement=Placement(100, 100))
    page = Page(id="p").put(outline)
    assert covered(page.things[0], page) == (0.0, 0, 0)
    whole = Polygon(vertices=PICTURES["lantern"], placement=Placement(100, 100))
    full = page.put(whole)
    known = {fact.name: fact for fact in full.things[0].facts(full)}
    assert known["covered"].text == "full, with 1 shapes"
    twice = full.put(whole)
    assert covered(twice.things[0], twice)[2] == 1  # one lies on another
    beyond = page.put(whole.moved(60, 0))
    share, pieces, over = covered(beyond.things[0], beyond)
    assert 0 < share < 1 and pieces == 1 and over == 1


@pytest.mark.parametrize("name", PICTURES)
def test_outlines_can_be_filled_with_triangles_of_one_side(name: str) -> None:
    """Every corner lies on the triangular grid, or halfway."""
    side = 64.0
    for x, y in PICTURES[name]:
        row = y / (side * 3**0.5 / 2)
        assert row == pytest.approx(round(row), abs=1e-9)
        assert 2 * x / side == pytest.approx(round(2 * x / side), abs=1e-9)
    assert not geometry.crosses_itself(PICTURES[name])
    assert box_of(PICTURES[name]).width > 100
