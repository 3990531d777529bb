"""Curves of best fit: exact points give their own curve; noisy ones the least squares, which no other curve undercuts."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from larch.core.maths.expression import value_at
from larch.core.maths.expression.tree import Relation
from larch.core.maths.hand.fits import LEAST, fitted
from larch.core.maths.layout.reading import meaning

small = st.integers(-8, 8).filter(bool).map(lambda n: n / 2)


def at(source: str, x: float) -> float:
    node = meaning(source)
    assert isinstance(node, Relation)
    return float(value_at(node.right, x=x))


@given(small, st.integers(-10, 10))
def test_points_on_a_line_give_that_line(m: float, c: int) -> None:
    found = fitted("line", [(x, m * x + c) for x in (-2, 0, 1, 5)])
    assert found.values == pytest.approx((m, c), abs=1e-9)
    assert found.r == pytest.approx(math.copysign(1, m))
    assert at(found.source, 3) == pytest.approx(3 * m + c, abs=1e-2)


@given(small, small, st.integers(-10, 10))
def test_points_on_a_parabola_give_that_parabola(a: float, b: float, c: int) -> None:
    found = fitted("quadratic", [(x, a * x * x + b * x + c) for x in (-3, -1, 0, 2, 4)])
    assert found.values == pytest.approx((a, b, c), abs=1e-8)
    assert at(found.source, 1.5) == pytest.approx(a * 2.25 + b * 1.5 + c, abs=2e-2)


@given(small, st.floats(0.3, 3.0))
def test_points_on_an_exponential_give_that_one(a: float, base: float) -> None:
    found = fitted("exponential", [(x, a * base**x) for x in (-2, 0, 1, 3)])
    assert found.values == pytest.approx((a, base), rel=1e-5)


@given(st.floats(0.2, 9), st.floats(-2, 3))
def test_points_on_a_power_give_that_one(a: float, n: float) -> None:
    found = fitted("power", [(x, a * x**n) for x in (0.5, 1, 2, 4)])
    assert found.values == pytest.approx((a, n), rel=1e-5, abs=1e-6)


@settings(max_examples=30, deadline=None)
@given(st.floats(0.5, 5), st.floats(0.3, 1.5), st.floats(-2, 2), st.floats(-3, 3))
def test_points_on_a_sine_give_its_height_period_and_middle(a: float, b: float, h: float, d: float) -> None:
    points = [(0.5 * k, a * math.sin(b * (0.5 * k - h)) + d) for k in range(40)]
    found = fitted("sine", points)
    assert found.r > 0.9999
    assert (found.values[0], found.values[1], found.values[3]) == pytest.approx((a, b, d), rel=1e-3, abs=1e-3)


@given(st.sampled_from(["line", "quadratic", "exponential", "power"]), st.lists(st.floats(0.5, 9), min_size=5, max_size=5))
def test_no_curve_beside_it_lies_nearer(kind: str, heights: list[float]) -> None:
    points = [(k + 1.0, y) for k, y in enumerate(heights)]
    found = fitted(kind, points)
    x, y = np.array([p[0] for p in points]), np.array(heights)
    models = {
        "line": lambda v: v[0] * x + v[1], "quadratic": lambda v: v[0] * x * x + v[1] * x + v[2],
        "exponential": lambda v: v[0] * v[1] ** x, "power": lambda v: v[0] * x ** v[1],
    }  # fmt: skip
    values = np.array(found.values)
    assume(np.abs(values).max() < 1e3)

    def off(v):  # type: ignore[no-untyped-def]
        return ((models[kind](v) - y) ** 2).sum()

    least = off(values)
    for k in range(len(values)):
        for by in (1e-3, -1e-3):
            other = values.copy()
            other[k] *= 1 + by
            assert off(other) >= least - 1e-7 * (1 + least)


@pytest.mark.parametrize("kind", LEAST)
def test_too_few_points_are_said(kind: str) -> None:
    with pytest.raises(ValueError, match="points"):
        fitted(kind, [(1.0, 2.0)] * 9)


@pytest.mark.parametrize(
    ("kind", "points"), [("exponential", [(0, 1), (1, -1), (2, 3)]), ("power", [(0, 1), (1, 2), (2, 3)])]
)
def test_points_that_no_such_curve_passes_are_said(kind: str, points: list[tuple[float, float]]) -> None:
    with pytest.raises(ValueError, match="points"):
        fitted(kind, points)


def test_level_points_have_no_slope_and_fit_wholly() -> None:
    found = fitted("line", [(0, 2), (1, 2), (2, 2)])
    assert found.source == "y = 0x + 2"
    assert found.r == 1.0
