"""Areas laid over each other: they add up, whatever nearly equal edges there are."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.overlay import overlaid

SHARED = (53.605663896794994, 101.79816786246343), (7.325077473570559, 98.56351626381849)
NEARLY = (7.3250774735705875, 98.56351626381849), (53.60566389679502, 101.79816786246343)
ONE = [*SHARED, (83.64874315211134, -16.44409710783566)]
OTHER = [*NEARLY, (-22.718001781745755, 216.80578123411757)]
places = st.tuples(st.floats(-400, 400), st.floats(-400, 400))
triangles = st.lists(places, min_size=3, max_size=3).map(shapely.Polygon).filter(lambda t: t.is_valid and t.area > 1)


def test_two_triangles_on_one_side_become_one_shape() -> None:
    one, other = shapely.Polygon(ONE), shapely.Polygon(OTHER)
    joined = overlaid("join", one, other)
    assert joined.geom_type == "Polygon"
    assert joined.area == pytest.approx(5569.50, abs=0.01)
    assert overlaid("overlap", one, other).area == 0


@given(triangles, triangles)
def test_areas_add_up(one: shapely.Polygon, other: shapely.Polygon) -> None:
    joined, both, rest = (overlaid(how, one, other).area for how in ("join", "overlap", "subtract"))
    total = one.area + other.area
    assert joined + both == pytest.approx(total, rel=1e-5, abs=1e-4)
    assert rest + both == pytest.approx(one.area, rel=1e-5, abs=1e-4)


@given(triangles, st.floats(-1e-12, 1e-12))
def test_a_shape_joined_to_its_image_in_a_side_has_twice_its_area(triangle: shapely.Polygon, off: float) -> None:
    (ax, ay), (bx, by), (cx, cy) = list(triangle.exterior.coords)[:3]
    length = math.hypot(bx - ax, by - ay)
    ux, uy = (bx - ax) / length, (by - ay) / length
    share = (cx - ax) * ux + (cy - ay) * uy
    image = (2 * (ax + share * ux) - cx, 2 * (ay + share * uy) - cy)
    other = shapely.Polygon([(ax + off, ay - off), (bx, by + off), image])
    joined = overlaid("join", triangle, other)
    assert joined.area == pytest.approx(2 * triangle.area, rel=1e-5)
    assert joined.geom_type == "Polygon"


whole = st.tuples(st.integers(-400, 400), st.integers(-400, 400))
apart = st.lists(whole, min_size=3, max_size=3, unique=True).map(shapely.Polygon).filter(lambda t: t.is_valid and t.area > 1)


@given(apart, st.integers(-9, 9).map(lambda k: 1000 * (k or 1)))
def test_corners_that_were_there_keep_their_digits(one: shapely.Polygon, off: int) -> None:
    other = shapely.transform(one, lambda points: points + np.array([off, 1 / 3]))
    joined = overlaid("join", one, other)
    own = {point for shape in (one, other) for point in shape.exterior.coords}
    assert {point for part in joined.geoms for point in part.exterior.coords} == own
