"""Integrals, areas and strips against what is known of them."""

from __future__ import annotations

import math
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.hand.quadrature import WAYS, area, integral, strips, sum_of_strips
from larch.core.maths.layout.reading import meaning

whole = st.integers(-5, 5)


@given(whole, whole, whole, whole, whole)
def test_a_polynomial_is_integrated_exactly(a: int, b: int, c: int, low: int, high: int) -> None:
    node = meaning(f"({a})x^2 + ({b})x + ({c})") if a or b else meaning(f"{c} + 0x")
    found = integral(node, low, high)

    def primitive(x: int) -> Fraction:
        return Fraction(a, 3) * x**3 + Fraction(b, 2) * x**2 + c * x

    assert found == primitive(high) - primitive(low) or float(found) == pytest.approx(
        float(primitive(high) - primitive(low))
    )  # type: ignore[arg-type]


@pytest.mark.parametrize(("source", "low", "high", "value"), [
    ("sin(x)", 0, math.pi, 2.0), ("1/x", 1, 2, math.log(2)), ("sqrt(x)", 0, 4, 16 / 3),
    ("x sin(x)", 0, 1, 0.3011686789397568),
    ("e^(2x)", 0, 1, (math.e**2 - 1) / 2), ("|x|", -1, 2, 2.5), ("floor(x)", 0, 3, 3.0), ("ln(x)", 1, math.e, 1.0),
    ("1/(1+x^2)", 0, 1, math.pi / 4), ("2^x", -1, 1, 1.5 / math.log(2)),
])  # fmt: skip
def test_functions_of_school(source: str, low: float, high: float, value: float) -> None:
    found = integral(meaning(source), low, high)
    assert found is not None and float(found) == pytest.approx(value, rel=1e-7)
    back = integral(meaning(source), high, low)
    assert back is not None and float(back) == pytest.approx(-value, rel=1e-7)


@pytest.mark.parametrize(("source", "low", "high"), [
    ("1/x", -1, 1), ("1/(x-1)^2", 0, 2), ("tan(x)", 0, 2), ("ln(x)", -1, 1), ("ln(x)", 0, 1), ("sqrt(x)", -1, 1),
])  # fmt: skip
def test_across_a_pole_or_a_gap_there_is_no_value(source: str, low: float, high: float) -> None:
    assert integral(meaning(source), low, high) is None
    assert area(meaning(source), low, high) is None


def test_an_area_counts_on_both_sides() -> None:
    assert (integral(meaning("x^3 - x"), -1, 1), area(meaning("x^3 - x"), -1, 1)) == (0, Fraction(1, 2))
    assert float(area(meaning("sin(x)"), 0, 2 * math.pi)) == pytest.approx(4)  # type: ignore[arg-type]


@given(st.sampled_from(["x^2 + 1", "2^x", "sqrt(x)"]), st.integers(1, 60))
def test_strips_of_what_rises_lie_on_both_sides_of_it(source: str, count: int) -> None:
    node = meaning(source)
    sums = {way: sum_of_strips(node, 0, 3, count, way) for way in WAYS}
    exact = integral(node, 0, 3)
    assert sums["left"] <= float(exact) <= sums["right"]  # type: ignore[operator,arg-type]
    assert sums["trapezium"] == pytest.approx((sums["left"] + sums["right"]) / 2)  # type: ignore[operator]
    found = strips(node, 0, 3, count, "middle")
    assert [one[0] for one in found] == pytest.approx([3 * k / count for k in range(count)])


def test_more_strips_come_nearer() -> None:
    node = meaning("sin(x) + 2")
    exact = float(integral(node, 0, 2))  # type: ignore[arg-type]
    for way in WAYS:
        off = [abs(sum_of_strips(node, 0, 2, count, way) - exact) for count in (4, 16, 64)]  # type: ignore[operator]
        assert off[0] > off[1] > off[2]


def test_a_strip_without_a_height_leaves_no_sum() -> None:
    assert sum_of_strips(meaning("1/x"), 0, 2, 4, "left") is None
    assert sum_of_strips(meaning("1/x"), 0, 2, 4, "right") is not None
