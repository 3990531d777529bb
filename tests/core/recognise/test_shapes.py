"""Outlines: exact figures are read as what they are, wherever they lie, and hands that shake change nothing."""

from __future__ import annotations

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from larch.core.recognise.shapes.features import crossings
from larch.core.recognise.shapes.fits import circle_through, ellipse_through, laid_on, regular
from larch.core.recognise.shapes.path import CUT, chain, corners, line_through, outline_of, rolled, straight_pieces
from larch.core.recognise.shapes.reading import read_shape, shape_answer, shape_choices

sizes, places, angles = st.floats(30, 400), st.floats(-500, 500), st.floats(0, 360)


def ring(corners: list[tuple[float, float]], closed: bool = True, fine: int = 24) -> np.ndarray:
    ends = [*corners, corners[0]] if closed else corners
    parts = [np.linspace(a, b, fine) for a, b in pairwise(ends)]
    return np.concatenate(parts)


def turned(points: np.ndarray, degrees: float, size: float, x: float, y: float) -> np.ndarray:
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    return points @ np.array([[c, s], [-s, c]]) * size + (x, y)


def shaken(points: np.ndarray, seed: int, by: float) -> np.ndarray:
    return points + np.random.default_rng(seed).normal(0, by, points.shape)


FIGURES = {
    "square": [(0, 0), (1, 0), (1, 1), (0, 1)],
    "rectangle": [(0, 0), (1, 0), (1, 0.5), (0, 0.5)],
    "rhombus": [(0, -0.35), (0.65, 0), (0, 0.35), (-0.65, 0)],
    "parallelogram": [(0, 0), (0.8, 0), (1.1, 0.45), (0.3, 0.45)],
    "trapezium": [(0, 0), (1, 0), (0.7, 0.5), (0.15, 0.5)],
    "kite": [(0, -0.25), (0.35, 0), (0, 0.8), (-0.35, 0)],
    "triangle_right": [(0, 0), (1, 0), (0, 0.6)],
    "triangle_equilateral": [(0, 0), (1, 0), (0.5, math.sqrt(0.75))],
    "triangle_isosceles": [(0, 0), (0.6, 0), (0.3, 0.9)],
    "triangle_scalene": [(0, 0), (1, 0), (1.15, 0.5)],
}


@pytest.mark.parametrize("kind", FIGURES)
@settings(max_examples=12, deadline=None)
@given(angles, sizes, places, places, st.integers(0, 99))
def test_a_figure_is_read_wherever_it_lies(kind: str, angle: float, size: float, x: float, y: float, seed: int) -> None:
    points = shaken(turned(ring(FIGURES[kind]), angle, size, x, y), seed, 0.004 * size)
    found = read_shape([points])
    assert found.kind == kind
    true = turned(np.array(FIGURES[kind]), angle, size, x, y)
    for corner in true:
        assert min(math.dist(corner, v) for v in found.vertices) < 0.03 * size


@settings(max_examples=15, deadline=None)
@given(angles, st.floats(0.35, 0.7), sizes, places)
def test_an_ellipse_has_its_radii_and_its_turn(angle: float, ratio: float, size: float, x: float) -> None:
    turn = np.linspace(0, 2 * math.pi, 90)
    points = turned(np.column_stack([np.cos(turn), ratio * np.sin(turn)]), angle, size, x, 50)
    found = read_shape([points])
    assert found.kind == "ellipse"
    assert found.radii == pytest.approx([size, ratio * size], rel=0.02)
    assert abs((found.angle - angle + 90) % 180 - 90) < 3
    assert math.dist(found.center, (x, 50)) < 0.02 * size


@settings(max_examples=10, deadline=None)
@given(sizes, places, st.floats(0, 6))
def test_a_circle_wherever_it_is_begun(size: float, x: float, start: float) -> None:
    turn = np.linspace(start, start + 2 * math.pi, 80)
    found = read_shape([np.column_stack([np.cos(turn), np.sin(turn)]) * size + (x, 0)])
    assert found.kind == "circle" and found.radii[0] == pytest.approx(size, rel=0.02)
    assert "ellipse" in found.alternatives


@pytest.mark.parametrize("parts", [1, 2, 3])
def test_an_arrow_in_one_stroke_or_several_points_to_its_tip(parts: int) -> None:
    shaft, head = ring([(0, 0), (200, 0)], False), ring([(165, -30), (200, 0), (165, 30)], False)
    one = [ring([(0, 0), (200, 0), (165, -30), (200, 0), (165, 30)], False)]
    strokes = {1: one, 2: [shaft, head], 3: [shaft, head[: len(head) // 2], head[len(head) // 2 :]]}[parts]
    found = read_shape([shaken(stroke, 3, 0.6) for stroke in strokes])
    assert found.kind == "arrow"
    assert math.dist(found.vertices[0], (0, 0)) < 8 and math.dist(found.vertices[1], (200, 0)) < 8


@pytest.mark.parametrize(("count", "kind"), [(5, "pentagon"), (6, "hexagon"), (8, "octagon")])
def test_regular_polygons(count: int, kind: str) -> None:
    corners = [(100 * math.cos(2 * math.pi * k / count), 100 * math.sin(2 * math.pi * k / count)) for k in range(count)]
    found = read_shape([ring(corners)])
    assert found.kind == kind and len(found.vertices) == count


def test_a_star_over_itself_has_five_tips() -> None:
    tips = [(100 * math.sin(2 * math.pi * k / 5), -100 * math.cos(2 * math.pi * k / 5)) for k in range(5)]
    found = read_shape([ring([tips[(2 * k) % 5] for k in range(5)])])
    assert found.kind == "star" and len(found.vertices) == 5
    assert all(min(math.dist(tip, v) for v in found.vertices) < 5 for tip in tips)


def test_a_square_in_four_strokes_in_any_order_and_direction() -> None:
    sides = [
        ring([a, b], False) for a, b in (((0, 0), (90, 0)), ((90, 90), (90, 0)), ((0, 90), (90, 90)), ((0, 90), (0, 0)))
    ]
    assert read_shape([sides[k] for k in (2, 0, 3, 1)]).kind == "square"


def cloud(t: np.ndarray) -> np.ndarray:
    radius = 1 + 0.25 * np.abs(np.sin(24 * t))
    return np.column_stack([radius * np.cos(6.28 * t), 0.7 * radius * np.sin(6.28 * t)])


SCRIBBLES = {
    "spiral": lambda t: np.column_stack([t * np.cos(30 * t), t * np.sin(30 * t)]),
    "knot": lambda t: np.column_stack([np.sin(7 * t), np.sin(11 * t + 1)]),
    "wave": lambda t: np.column_stack([t, 0.2 * np.sin(40 * t)]),
    "cloud": cloud,
}


@pytest.mark.parametrize("name", SCRIBBLES)
def test_scribbles_are_left_alone(name: str) -> None:
    assert shape_choices([SCRIBBLES[name](np.linspace(0, 1, 200)) * 100]) == {"readings": []}


@pytest.mark.parametrize(
    "strokes",
    [[], [[]], [[(5, 5)]], [[(5, 5), (5, 5)]], [[(math.nan, 1), (math.inf, 2)]], [[(0, 0), (1e300, 1)]],
     [[(0, 0)], [(0, 0)]]],
)  # fmt: skip
def test_what_has_no_shape_is_none(strokes) -> None:  # type: ignore[no-untyped-def]
    assert shape_answer(strokes)["kind"] == "none"


def test_a_hundred_thousand_points_are_a_circle_like_any_other() -> None:
    turn = np.linspace(0, 2 * math.pi, 100_000)
    assert read_shape([np.column_stack([np.cos(turn), np.sin(turn)]) * 80]).kind == "circle"


# What they are made of


@given(st.integers(2, 6))
def test_straight_pieces_are_cut_at_the_corners(count: int) -> None:
    corners = [(50.0 * k, 40.0 * (k % 2)) for k in range(count + 1)]
    outline = outline_of([ring(corners, False)])
    assert outline is not None
    pieces = straight_pieces(outline.points, count)
    assert pieces[count - 1].error < 0.004 < pieces[count - 2].error


@given(st.floats(-3, 3), st.floats(0.2, 3), st.floats(-9, 9))
def test_a_figure_is_laid_onto_itself_however_it_was_turned(turn: float, size: float, x: float) -> None:
    model = regular(5)
    moved = model * size * np.exp(1j * turn) + x
    made, off = laid_on(model, np.column_stack([moved.real, moved.imag]))
    assert off < 1e-9 and np.allclose(made, np.column_stack([moved.real, moved.imag]))


def test_fits_of_ovals_are_exact_on_exact_points() -> None:
    turn = np.linspace(0, 5, 40)
    circle = circle_through(np.column_stack([3 * np.cos(turn) + 1, 3 * np.sin(turn) - 2]))
    assert (circle.x, circle.y, circle.a) == pytest.approx((1, -2, 3))
    oval = ellipse_through(np.column_stack([4 * np.cos(turn), np.sin(turn)]))
    assert oval is not None and (oval.a, oval.b) == pytest.approx((4, 1))
    assert ellipse_through(np.column_stack([turn, turn])) is None


def test_chains_join_the_nearest_ends_and_tell_the_widest_gap() -> None:
    one, other = np.array([[0, 0], [1, 0.0]]), np.array([[3, 0], [1.5, 0.0]])
    made, gap = chain([one, other])
    assert gap == pytest.approx(0.5) and np.ptp(made[:, 0]) == 3


def test_crossings_of_a_line_with_itself() -> None:
    t = np.linspace(0.5, 0.5 + 2 * math.pi, 200)  # begun away from where it crosses
    assert crossings(np.column_stack([np.sin(t), np.sin(2 * t + 0.1)])) == 1
    assert crossings(np.column_stack([np.cos(t), np.sin(t)])) == 0
    assert len(rolled(np.column_stack([np.cos(t), np.sin(t)]))) == 201


@settings(max_examples=40)
@given(st.integers(0, 2**32 - 1), st.integers(3, 8))
def test_corners_lie_on_the_lines_of_their_pieces(seed: int, count: int) -> None:
    """Unless the lines hardly meet: then it is the place where the outline is cut."""
    rng = np.random.default_rng(seed)
    bends, along = rng.normal(0, 1, (count, 2)), np.linspace(0, count - 1, 90)
    points = np.column_stack([np.interp(along, range(count), bends[:, k]) for k in (0, 1)]) + rng.normal(0, 0.01, (90, 2))
    for pieces in straight_pieces(points, 5)[1:]:
        ends = list(pairwise(pieces.cuts))
        made = corners(points, pieces, closed=False)
        assert len(made) == len(ends) + 1
        lines = []
        for start, stop in ends:
            part = points[start : stop + 1]
            trim = int(CUT * len(part))
            part = part[trim : len(part) - trim] if len(part) - 2 * trim >= 3 else part
            middle = part.mean(axis=0)
            way = np.linalg.svd(part - middle)[2][0]
            lines.append((middle, way))
            assert abs(float(line_through(part)[1] @ way)) > 1 - 1e-9
        for at, cut, before, after in zip(made[1:-1], pieces.cuts[1:-1], lines, lines[1:], strict=False):
            off = [abs(float((at - middle)[0] * way[1] - (at - middle)[1] * way[0])) for middle, way in (before, after)]
            assert max(off) < 1e-9 or np.allclose(at, points[cut])
        for at, first, (middle, way) in ((made[0], points[0], lines[0]), (made[-1], points[-1], lines[-1])):
            assert abs(float((at - middle)[0] * way[1] - (at - middle)[1] * way[0])) < 1e-9
            assert abs(float((at - first) @ way)) < 1e-9  # brought onto it, and not along it
