"""Where something can change on the line: every zero, pole and end of a domain is found, and nothing lies unseen between."""

from __future__ import annotations

import math
from fractions import Fraction
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from larch.core.maths.algebra.critical import WINDOW, critical_points, distinct, samples, zeros
from larch.core.maths.expression import parse
from larch.core.maths.expression.precise import Value, decimal
from larch.core.maths.layout.reading import meaning

quarters = st.integers(-40, 40).map(lambda n: Fraction(n, 4))


def found(source: str) -> list[Value]:
    return distinct(zeros(parse(source), "x", {}))


def near(value: Value, meant: float) -> bool:
    return abs(float(decimal(value)) - meant) < 1e-12 * max(1.0, abs(meant))


@given(st.lists(quarters, min_size=1, max_size=3), st.integers(1, 3))
def test_zeros_and_poles_of_a_quotient_are_exact(places: list[Fraction], below: int) -> None:
    above, under = places[:-1], places[-1:]
    top = "".join(f"(x - ({zero}))" for zero in above) or str(below)
    assert found(f"{top}/({below}(x - ({under[0]})))") == sorted(set(places))


@settings(max_examples=60)
@given(quarters, st.integers(1, 9), st.sampled_from(["abs", "sqrt", "exp", "ln", "cube"]))
def test_what_is_no_quotient_has_its_zeros_found_to_full_precision(shift: Fraction, height: int, kind: str) -> None:
    """And besides them nothing but corners and ends of domains."""
    source, meant = {
        "abs": (f"|x - ({shift})| - {height}", [float(shift) - height, float(shift), float(shift) + height]),
        "sqrt": (f"√(x - ({shift})) - {height}", [float(shift), float(shift) + height**2]),
        "exp": (f"e^(x - ({shift})) - {height}", [float(shift) + math.log(height)]),
        "ln": (f"ln(x - ({shift})) - {height}/10", [float(shift), float(shift) + math.exp(height / 10)]),
        "cube": (f"(x - ({shift}))^3 - {height}", [float(shift) + height ** (1 / 3)]),
    }[kind]
    told = found(source)
    wanted = [meant[-1], *([meant[0]] if kind == "abs" else [])]
    assert all(any(near(value, one) for value in told) for one in wanted)
    assert all(any(near(value, one) for one in meant) for value in told)


@settings(max_examples=25)
@given(st.integers(1, 3), st.sampled_from(["sin", "cos"]))
def test_all_zeros_of_waves_within_the_window(k: int, name: str) -> None:
    told = found(f"{name}({k} x)")
    start = 0.0 if name == "sin" else 0.5
    meant = [(start + n) * math.pi / k for n in range(-60, 60) if abs((start + n) * math.pi / k) < WINDOW - 0.1]
    inside = [value for value in told if abs(float(decimal(value))) < WINDOW - 0.1]
    assert len(inside) == len(meant) and all(near(value, one) for value, one in zip(inside, meant, strict=True))


@pytest.mark.parametrize(
    ("source", "meant"),
    [
        ("√(x - 2) > 1", [2, 3]),
        ("1/(x - 1) < 2", [1, 1.5]),
        ("ln x = 0", [0, 1]),
        ("|x - 3| ≤ 2", [1, 3, 5]),
        ("(x - 1)^(-2) > 4", [0.5, 1, 1.5]),
        ("e^x = 1", [0]),
    ],
)
def test_statements_change_only_there(source: str, meant: list[float]) -> None:
    told = critical_points([meaning(source)], "x", {})
    assert [float(decimal(value)) for value in told] == pytest.approx(meant)


def test_letters_that_have_values_shift_the_places() -> None:
    assert critical_points([meaning("x^2 > a")], "x", {"a": Fraction(9)}) == [-3, 3]
    assert critical_points([meaning("a > 2")], "x", {"a": Fraction(9)}) == []


@given(st.lists(quarters, max_size=6), st.booleans())
def test_samples_lie_at_each_place_between_each_two_and_beyond(places: list[Fraction], bounded: bool) -> None:
    points = distinct(places)
    told = samples(points, bounded)
    assert [place for place, at in told if at] == points
    between = [place for place, at in told if not at]
    if points:
        assert min(between) < points[0] and max(between) > points[-1]
        for a, b in pairwise(points):
            assert any(a < place < b for place in between)


@given(st.lists(quarters, max_size=8))
def test_distinct_is_sorted_and_keeps_exact_values(values: list[Fraction]) -> None:
    blurred = [decimal(value) for value in values]
    assert distinct([*blurred, *values]) == distinct([*values, *blurred]) == sorted(set(values))
