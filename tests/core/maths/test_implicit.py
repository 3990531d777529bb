"""Curves that are not solved for a letter: they lie where the equation holds, whole, and nowhere else."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from larch.core.maths.expression import values
from larch.core.maths.expression.tree import Node
from larch.core.maths.graph import curve_of
from larch.core.maths.implicit import filled, traced

WINDOW = (-6.0, 6.0, -5.0, 5.0)


def formula(source: str) -> Node:
    curve = curve_of(source)
    assert curve.along == "xy"
    return curve.formula


def inside(rings: tuple[np.ndarray, ...], x: float, y: float) -> bool:
    """By the odd-even rule."""
    crossed = 0
    for ring in rings:
        (x0, y0), (x1, y1) = ring.T, np.roll(ring, -1, axis=0).T
        over = (y0 > y) != (y1 > y)
        at = x0 + (y - y0) * (x1 - x0) / np.where(over, y1 - y0, 1)
        crossed += int((over & (at > x)).sum())
    return crossed % 2 == 1


@pytest.mark.parametrize(
    ("source", "pieces"),
    [
        ("x^2 + y^2 = 9", 1), ("x y = 1", 2), ("y^2 = x^3 - x", 2), ("x^2 = 4", 2), ("|x| + |y| = 2", 1),
        ("(x^2+y^2-1)^3 - x^2 y^3 = 0", 1), ("x^3 + y^3 = 3x y", 1), ("1/(x y) = 1", 2), ("y^2 = ln x", 1),
        ("(x-1)^2 + (y-1)^2 = 0.0004", 1), ("x^2 + y^2 = -1", 0), ("y^2 = tan x + 1/(x-1)^2", None),
    ],
)  # fmt: skip
def test_a_curve_lies_where_its_equation_holds(source: str, pieces: int | None) -> None:
    node = formula(source)
    lines = traced(node, WINDOW)
    assert pieces is None or len(lines) == pieces
    for line in lines:
        assert np.abs(values(node, x=line[:, 0], y=line[:, 1])).max() < 1e-4  # at a cusp; elsewhere far less
        assert np.hypot(*np.diff(line, axis=0).T).max() < 0.15


@settings(max_examples=30)
@given(st.floats(-2, 2), st.floats(-2, 2), st.floats(0.1, 2.5))
def test_a_circle_is_one_ring_of_its_length(a: float, b: float, r: float) -> None:
    lines = traced(formula(f"(x-({a:.4f}))^2 + (y-({b:.4f}))^2 = {r:.4f}^2"), WINDOW)
    assert len(lines) == 1 and np.allclose(lines[0][0], lines[0][-1], atol=1e-9)
    assert np.abs(np.hypot(lines[0][:, 0] - round(a, 4), lines[0][:, 1] - round(b, 4)) - round(r, 4)).max() < 1e-9
    length = np.hypot(*np.diff(lines[0], axis=0).T).sum()
    assert length == pytest.approx(math.tau * round(r, 4), rel=0.02)


@settings(max_examples=40)
@given(st.sampled_from(["x^2 + y^2 < 9", "x y >= 2", "x^2 > 1 + y^2", "|x| + |y| <= 3"]), st.floats(-5, 5), st.floats(-4, 4))
def test_a_region_is_where_the_inequality_holds(source: str, x: float, y: float) -> None:
    curve = curve_of(source)
    height = float(values(curve.formula, x=np.array([x]), y=np.array([y]))[0])
    if abs(height) > 0.3:
        holds = height < 0 if curve.op in "<≤" else height > 0
        assert inside(filled(curve.formula, curve.op, WINDOW), x, y) == holds
