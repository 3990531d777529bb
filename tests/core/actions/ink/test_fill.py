"""Paint: regions are what the lines enclose; what is open is said, with its gap."""

from __future__ import annotations

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon as Shape

from larch.core.actions.ink.fill import Open, Region, find_region, paint
from larch.core.base.shape import Placement
from larch.core.files.codec import page_from_json, page_to_json
from larch.core.model.page import Page
from larch.core.things.geometry.polygon import Polygon, polygon_on
from larch.core.things.ink.ink import ink_from
from larch.core.things.pictures.painted import Painted
from tests.samples import page_with, ring, stroke


def filled(page: Page, seed: tuple[float, float], gap: float = 16.0) -> Region:
    found = find_region(page, seed, gap)
    assert isinstance(found, Region), found
    return found


def area(region: Region) -> float:
    shapes = sorted((Shape(points) for points in region.rings), key=lambda s: -s.area)
    return float(shapes[0].area - sum(hole.area for hole in shapes[1:]))


@settings(max_examples=25)
@given(st.floats(40, 250), st.floats(-500, 1500), st.floats(-500, 900))
def test_a_circle_is_filled_to_its_line(radius: float, x: float, y: float) -> None:
    page = page_with(ring(x, y, radius))
    region = filled(page, (x + radius / 3, y))
    assert region.bridged == 0
    assert area(region) == pytest.approx(math.pi * radius**2, rel=0.03)


@settings(max_examples=25)
@given(st.lists(st.tuples(st.floats(50, 900), st.floats(50, 600)), min_size=3, max_size=3))
def test_a_triangle_agrees_with_shapely_also_in_its_corners(corners: list[tuple[float, float]]) -> None:
    shape = Shape(corners)
    if shape.area < 2500 or shape.buffer(-14).is_empty:
        return
    page = page_with(polygon_on(page_with(), corners))
    region = filled(page, (shape.centroid.x, shape.centroid.y))
    ours = Shape(region.rings[0])
    assert ours.symmetric_difference(shape).area < 0.6 * shape.length + 20


@pytest.mark.parametrize("gap", [3.0, 8.0, 14.0])
def test_a_small_gap_is_bridged_without_flooding(gap: float) -> None:
    radius = 150
    page = page_with(ring(400, 300, radius, math.asin(gap / 2 / radius)))
    region = filled(page, (400, 300), gap=20)
    assert area(region) == pytest.approx(math.pi * radius**2, rel=0.02)
    assert region.bridged <= 20


@pytest.mark.parametrize("half", [0.2, 0.35, 0.5])
def test_a_wide_gap_is_shown_instead(half: float) -> None:
    found = find_region(page_with(ring(400, 300, 150, half)), (400, 300), 16.0)
    assert isinstance(found, Open) and found.gap is not None
    assert found.width == pytest.approx(300 * math.sin(half), abs=4)
    assert math.dist(found.gap, (550, 300)) < 0.5 * found.width + 6


def test_no_outline_at_all_is_said() -> None:
    assert find_region(page_with(), (5, 5), 16.0) == Open(None, 0.0)
    assert find_region(page_with(stroke()), (600, 600), 16.0) == Open(None, 0.0)
    assert find_region(page_with(ring(0, 0, 50)), (9e8, 9e8), 16.0) == Open(None, 0.0)


def test_an_island_stays_free() -> None:
    page = page_with(ring(400, 300, 200), ring(400, 300, 80))
    region = filled(page, (400 + 140, 300))
    assert len(region.rings) == 2
    assert area(region) == pytest.approx(math.pi * (200**2 - 80**2), rel=0.03)
    painted = paint(page, region, (540, 300), "straw").after.things[0]
    assert isinstance(painted, Painted)
    assert not painted.touches(*painted.placement.to_local(400, 300), 0)
    assert painted.touches(*painted.placement.to_local(540, 300), 0)
    facts = {fact.name: fact for fact in painted.facts(page)}
    assert facts["area"].value == pytest.approx(area(region) / 32**2, rel=1e-6)


def test_paint_lies_behind_its_lines_and_takes_another_colour_in_place() -> None:
    page = page_with(stroke(600), ring(400, 300, 100), stroke(700))
    first = paint(page, filled(page, (400, 300)), (400, 300), "straw").after
    assert isinstance(first, Page)
    assert [t.kind() for t in first.things] == ["ink", "painted", "ink", "ink"]
    assert page_from_json(page_to_json(first)) == first  # plain numbers, that a file takes
    again = paint(first, filled(first, (390, 310)), (390, 310), "berry").after
    assert isinstance(again, Page)
    assert [t.hue for t in again.things if t.kind() == "painted"] == ["berry"]


def test_a_region_cut_in_two_is_painted_in_halves_on_top_of_the_whole() -> None:
    page = page_with(ring(400, 300, 100))
    whole = paint(page, filled(page, (400, 300)), (400, 300), "straw").after
    assert isinstance(whole, Page)
    cut = whole.put(ink_from([(400.0, 190.0 + 5 * i, 0.5, 0.0) for i in range(45)]))
    half = filled(cut, (360, 300))
    assert area(half) == pytest.approx(math.pi * 100**2 / 2, rel=0.05)
    after = paint(cut, half, (360, 300), "lake").after
    assert [t.hue for t in after.things if t.kind() == "painted"] == ["straw", "lake"]


def test_a_turned_and_enlarged_shape_holds_paint_too() -> None:
    square = Polygon(vertices=((0.0, 0.0), (50.0, 0.0), (50.0, 50.0), (0.0, 50.0)), placement=Placement(500, 300, 30, 3))
    region = filled(page_with(square), square.placement.to_page(25, 25))
    assert area(region) == pytest.approx(150**2, rel=0.03)


def test_a_seed_on_the_line_means_the_place_beside_it() -> None:
    region = find_region(page_with(ring(400, 300, 100)), (300, 300), 16.0)
    assert isinstance(region, Open) or area(region) == pytest.approx(math.pi * 100**2, rel=0.03)


@pytest.mark.parametrize(
    "rings", [(), (((0.0, 0.0), (1.0, 1.0)),), (((0.0, 0.0), (1e300, 1.0), (2.0, 2.0)),), (((0.0, 0.0),) * 30_000,)]
)
def test_a_painted_region_from_a_bad_file_is_refused(rings: tuple[tuple[tuple[float, float], ...], ...]) -> None:
    with pytest.raises(ValueError, match="painted"):
        Painted(rings=rings)
