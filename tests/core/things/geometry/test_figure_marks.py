"""Marks: equal sides, parallels, fold lines, where they are and nowhere else."""

from __future__ import annotations

import math

import pytest

from larch.core.maths.classify import symmetry
from larch.core.maths.plane import Line, moves
from larch.core.maths.special import STARTS, regular_corners, star_corners
from larch.core.things.geometry.figure_marks import alongside, equal_sides, fold_axes
from larch.core.things.geometry.polygon import Polygon

SHAPES = {name: corners for name, (_keeps, corners) in STARTS.items()}
SHAPES |= {"star": star_corners(5), "hexagon": regular_corners(6)}
SHAPES["odd"] = ((0.0, 0.0), (100.0, 0.0), (70.0, 60.0), (10.0, 95.0))


@pytest.mark.parametrize("name", sorted(SHAPES))
def test_fold_lines_are_as_many_as_the_symmetry_says_and_fold_the_shape_onto_itself(name: str) -> None:
    shape = Polygon(vertices=SHAPES[name])
    axes = fold_axes(shape)
    assert len(axes) == symmetry(shape.vertices).axes
    for a, b in axes:
        mirror = moves.reflection(Line(a, b))
        for corner in shape.vertices:
            image = mirror.point(corner)
            assert min(math.dist(image, other) for other in shape.vertices) < 1e-6


@pytest.mark.parametrize(
    ("name", "equal", "parallel"),
    [("square", [4], [2, 2]), ("rectangle", [2, 2], [2, 2]), ("kite", [2, 2], []), ("parallelogram", [2, 2], [2, 2]),
     ("trapezium", [], [2]), ("isosceles trapezium", [2], [2]), ("equilateral triangle", [3], []), ("odd", [], [])],
)  # fmt: skip
def test_equal_and_parallel_sides(name: str, equal: list[int], parallel: list[int]) -> None:
    shape = Polygon(vertices=SHAPES[name])
    assert sorted(map(len, equal_sides(shape)), reverse=True) == equal
    assert sorted(map(len, alongside(shape)), reverse=True) == parallel
