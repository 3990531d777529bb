"""Marks on the sides of a polygon keep apart: ticks in the first half of a side, arrows in its second."""

from __future__ import annotations

import math

from hypothesis import given
from hypothesis import strategies as st

from larch.board.views.geometry.polygon import marked_sides
from larch.core.base.shape import Point
from larch.core.maths import geometry
from larch.core.things.geometry.polygon import Polygon


@given(st.floats(60, 300), st.floats(60, 300), st.floats(30, 150), st.floats(0, 6.28))
def test_parallel_sides_are_marked_in_one_direction(wide: float, long: float, angle: float, turn: float) -> None:
    """Else the ticks of one side lie where the arrows of the same side are."""
    u = (wide * math.cos(turn), wide * math.sin(turn))
    v = (long * math.cos(turn + math.radians(angle)), long * math.sin(turn + math.radians(angle)))
    corners: list[Point] = [(0.0, 0.0), u, (u[0] + v[0], u[1] + v[1]), v]
    sides = marked_sides(Polygon(vertices=tuple(corners)), corners)
    assert [{*side} for side in sides] == [{*side} for side in geometry.pairs(corners)]
    for one, other in ((sides[0], sides[2]), (sides[1], sides[3])):
        ways = [(b[0] - a[0], b[1] - a[1]) for a, b in (one, other)]
        assert ways[0][0] * ways[1][0] + ways[0][1] * ways[1][1] > 0
