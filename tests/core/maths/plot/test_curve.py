"""Equations that are solved for no letter, plotted: pieces on the curve, turning points and zeros to nine digits."""

from __future__ import annotations

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from larch.core.maths.plot.answer import plot_answer


def features(source: str) -> dict:  # type: ignore[type-arg]
    found = plot_answer(source, -10, 10)
    assert found["kind"] == "curve"
    return found["features"]  # type: ignore[no-any-return]


@settings(max_examples=25, deadline=None)
@given(st.integers(-3, 3), st.integers(-3, 3), st.integers(1, 5), st.integers(1, 5))
def test_an_ellipse_turns_at_its_ends(h: int, k: int, a: int, b: int) -> None:
    source = f"(x - ({h}))^2/{a * a} + (y - ({k}))^2/{b * b} = 1"
    found = plot_answer(source, -10, 10)
    for branch in found["branches"]:
        assert all(abs((x - h) ** 2 / a**2 + (y - k) ** 2 / b**2 - 1) < 1e-9 for x, y in branch)
    places = [(one["x"], one["y"], one["kind"]) for one in found["features"]["extrema"]]
    assert [place[2] for place in places] == ["minimum", "maximum"]
    for (x, y, _kind), top in zip(places, (k - b, k + b), strict=True):
        assert (x, y) == (pytest.approx(h, abs=1e-9), pytest.approx(top, abs=1e-9))
    assert found["features"]["domain"] == f"{h - a} ≤ x ≤ {h + a}".replace("-", "−")
    inside = 1 - k * k / b**2
    roots = [h - a * math.sqrt(inside), h + a * math.sqrt(inside)] if inside > 0 else [h] if inside == 0 else []
    assert found["features"]["roots"] == pytest.approx(roots, abs=1e-9)


def test_a_loop_has_its_top_and_no_turning_point_at_its_crossing() -> None:
    found = features("x^3 + y^3 = 3x y")
    assert [(one["x"], one["y"]) for one in found["extrema"]] == [
        (pytest.approx(2 ** (1 / 3), abs=1e-9), pytest.approx(4 ** (1 / 3), abs=1e-9))
    ]
    assert found["y_intercept"] == 0


def test_a_curve_that_goes_on_has_no_domain_that_is_told() -> None:
    assert features("x^2 - y^2 = 1")["domain"] == ""
    assert features("x^2 - y^2 = 1")["roots"] == pytest.approx([-1, 1])
    assert features("x^2 + y^2 = -1") == {
        "roots": [], "extrema": [], "inflections": [], "poles": [], "holes": [], "jumps": [], "y_intercept": None,
        "domain": "",
    }  # fmt: skip
