"""What is said of a function as a whole, on functions of school with known answers."""

from __future__ import annotations

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.layout.reading import meaning
from larch.core.maths.plot.answer import function_of
from larch.core.maths.plot.breaks import slowly
from larch.core.maths.plot.character import asymptote, plot_character

KNOWN = {
    "x^2 - 4x + 1": {"domain": "all real numbers", "range": "y ≥ −3", "symmetry": "to the line x = 2",
                     "rises": "x > 2", "falls": "x < 2"},
    "-(x-3)^2 + 2": {"range": "y ≤ 2", "symmetry": "to the line x = 3"},
    "1/(x-2) + 3": {"domain": "x ≠ 2", "range": "y ≠ 3", "symmetry": "to the point (2; 3)", "asymptotes": "x = 2; y = 3",
                    "falls": "x < 2, x > 2"},
    "sin(2x)": {"range": "−1 ≤ y ≤ 1", "symmetry": "to the origin", "period": "π"},
    "3cos(π x) + 1": {"range": "−2 ≤ y ≤ 4", "symmetry": "to the y-axis", "period": "2"},
    "tan(x)": {"range": "all real numbers", "period": "π"},
    "2^x - 1": {"range": "y > −1", "asymptotes": "y = −1", "rises": "everywhere"},
    "ln(x)": {"domain": "x > 0", "range": "all real numbers", "asymptotes": "x = 0"},
    "sqrt(x-1) + 2": {"domain": "x ≥ 1", "range": "y ≥ 2"},
    "(x^2+1)/(x-1)": {"asymptotes": "x = 1; y = x + 1"},
    "x^3 - 3x": {"range": "all real numbers", "symmetry": "to the origin", "rises": "x < −1, x > 1", "falls": "−1 < x < 1"},
    "|x-2| - 1": {"range": "y ≥ −1", "symmetry": "to the line x = 2"},
    "atan(x)": {"range": "−π/2 < y < π/2", "asymptotes": "y = −π/2; y = π/2"},
    "1/x^2": {"range": "y > 0", "symmetry": "to the y-axis", "asymptotes": "x = 0; y = 0"},
    "x/(x^2+1)": {"range": "−0.5 ≤ y ≤ 0.5", "asymptotes": "y = 0"},
    "(x^2-1)/(x-1)": {"domain": "x ≠ 1", "range": "y ≠ 2"},
    "sqrt(x^2+1)": {"range": "y ≥ 1", "asymptotes": "y = −x; y = x"},
    "e^(-x^2)": {"range": "0 < y ≤ 1", "symmetry": "to the y-axis", "asymptotes": "y = 0"},
    "x + 1/x": {"range": "y ≤ −2 or y ≥ 2", "asymptotes": "x = 0; y = x"},
    "3x + 1": {"range": "all real numbers", "rises": "everywhere"},
    "x^3/(x^2-1)": {"asymptotes": "x = −1; x = 1; y = x"},
    "(2x+1)/(x+3)": {"range": "y ≠ 2", "asymptotes": "x = −3; y = 2"},
}  # fmt: skip
NOT_SAID = [
    ("3x + 1", "asymptotes"), ("x^2", "asymptotes"), ("x sin(x)", "range"), ("sin(x)", "asymptotes"),
    ("x + sin(x)", "period"),
    ("x^3 + x^2", "symmetry"), ("floor(x)", "range"), ("ln(x)", "symmetry"), ("3", "range"),
]  # fmt: skip


def told(source: str) -> dict[str, str]:
    return {one["name"]: one["text"] for one in plot_character(source, {}, -10, 10)}


@pytest.mark.parametrize("source", KNOWN)
def test_what_is_said_of_a_function(source: str) -> None:
    found = told(source)
    assert {name: found.get(name, "") for name in KNOWN[source]} == KNOWN[source]


@pytest.mark.parametrize(("source", "name"), NOT_SAID)
def test_what_is_not_known_is_not_said(source: str, name: str) -> None:
    assert name not in told(source)


whole = st.integers(-6, 6)


@given(whole.filter(bool), whole, whole, whole.filter(bool))
def test_a_slanted_asymptote_is_come_near_to(m: int, c: int, a: int, k: int) -> None:
    """m x + c + k/(x − a): the line, on both sides, whatever the numbers."""
    _kind, node, name = function_of(meaning(f"({m})x + ({c}) + ({k})/(x - ({a}))"))
    for way in (-1, 1):
        found = asymptote(node, name, way)
        assert found is not None
        assert (found.slope, found.start) == (m, c)
        value = slowly(node, name, Fraction(way * 10**7))
        assert value is not None and abs(float(value) - (m * way * 10**7 + c)) < 1e-5


def test_letters_of_the_page_count() -> None:
    found = {one["name"]: one["text"] for one in plot_character("y = a x^2 + c", {"a": "-2", "c": "5"}, -10, 10)}
    assert found["range"] == "y ≤ 5"
