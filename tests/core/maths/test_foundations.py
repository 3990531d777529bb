"""Exact values, bounds over stretches, and derivatives: each against the others, on expressions at random."""

from __future__ import annotations

import math
from fractions import Fraction
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from larch.core.maths.expression import Undefined, exact_at, parse, value_at
from larch.core.maths.expression.derive import derivative
from larch.core.maths.expression.exactly import NotRational, exact_power
from larch.core.maths.expression.interval import Stretches, _over, unbroken
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number

whole = st.integers(-5, 5)
leaves = st.one_of(st.just(Name("x")), whole.map(lambda n: Number(Fraction(n), str(n))))
rational: st.SearchStrategy[Node] = st.recursive(
    leaves,
    lambda inner: st.one_of(
        st.builds(Binary, st.sampled_from("+-*/"), inner, inner),
        st.builds(Negative, inner),
        st.builds(lambda base, n: Binary("^", base, Number(Fraction(n), str(n))), inner, st.integers(-2, 3)),
    ),
    max_leaves=7,
)
functions = st.sampled_from(["sin", "cos", "exp", "sqrt", "ln", "abs", "tan", "atan"])
school: st.SearchStrategy[Node] = st.recursive(
    leaves,
    lambda inner: st.one_of(
        st.builds(Binary, st.sampled_from("+-*/"), inner, inner),
        st.builds(lambda name, of: Call(name, (of,)), functions, inner),
    ),
    max_leaves=6,
)


def at(node: Node, x: float) -> float | None:
    try:
        value = value_at(node, x=x)
    except (Undefined, OverflowError, ZeroDivisionError):
        return None
    return value if isinstance(value, float | int) and math.isfinite(value) else None


@given(rational, st.fractions(min_value=-4, max_value=4, max_denominator=8))
def test_exact_values_are_those_of_decimals(node: Node, x: Fraction) -> None:
    try:
        exact = exact_at(node, x=float(x))
    except Undefined:
        assert at(node, float(x)) is None
        return
    assert exact is not None
    assume(abs(exact) < 1e12)
    assert at(node, float(x)) == pytest.approx(float(exact), rel=1e-9, abs=1e-9)


@given(st.fractions(min_value=-30, max_value=30, max_denominator=30), st.integers(1, 7), st.integers(-4, 4))
def test_roots_of_powers_are_exact(base: Fraction, degree: int, n: int) -> None:
    assume(base != 0 and (base > 0 or degree % 2))
    root = Fraction(1, degree)
    assert exact_power(exact_power(base, Fraction(degree)), root) == base
    if n:
        assert exact_power(exact_power(base, Fraction(degree)), n * root) == base**n


@pytest.mark.parametrize(
    ("base", "exponent"), [(2, Fraction(1, 2)), (Fraction(4, 3), Fraction(1, 2)), (10, Fraction(1, 61))]
)
def test_what_is_no_fraction_is_not_told_as_one(base: Fraction, exponent: Fraction) -> None:
    with pytest.raises(NotRational):
        exact_power(Fraction(base), exponent)


@pytest.mark.parametrize(("base", "exponent"), [(0, Fraction(0)), (0, Fraction(-1)), (-4, Fraction(1, 2))])
def test_what_is_no_number_is_refused(base: int, exponent: Fraction) -> None:
    with pytest.raises(Undefined):
        exact_power(Fraction(base), exponent)


@settings(max_examples=200)
@given(school, st.floats(-6, 6), st.floats(0.01, 3))
def test_bounds_hold_over_the_whole_of_an_unbroken_stretch(node: Node, low: float, wide: float) -> None:
    """Where a stretch counts as unbroken, the expression has a value all over it, and none beyond the bounds."""
    ends = np.array([low]), np.array([low + wide])
    if not unbroken(node, "x", *ends)[0]:
        return
    with np.errstate(all="ignore"):
        bounds = _over(node, "x", Stretches(*ends, np.ones(1, dtype=bool)))
    least, most = float(bounds.low[0]), float(bounds.high[0])
    room = 1e-9 * (1 + abs(least) + abs(most))
    for share in (0.0, 0.13, 0.37, 0.5, 0.71, 0.94, 1.0):
        value = at(node, low + share * wide)
        assert value is not None, share
        assert least - room <= value <= most + room


@pytest.mark.parametrize(
    ("source", "broken"),
    [
        ("1/x", 0.0),
        ("1/(x - 1)", 1.0),
        ("tan x", math.pi / 2),
        ("floor(x)", 1.0),
        ("√x", 0.0),
        ("ln x", 0.0),
        ("x/|x|", 0.0),
    ],
)
def test_no_stretch_over_a_break_counts_as_unbroken(source: str, broken: float) -> None:
    edges = np.linspace(broken - 0.5, broken + 0.47, 12)
    found = unbroken(parse(source), "x", edges[:-1], edges[1:])
    over = [k for k, (a, b) in enumerate(pairwise(edges)) if a < broken < b]
    assert not found[over].any()
    after = edges[:-1] > broken + 0.1
    assert found[after].all()  # and it does not give up where nothing is broken


@settings(max_examples=200)
@given(school, st.floats(-3, 3))
def test_derivatives_are_the_slopes_of_short_chords(node: Node, x: float) -> None:
    """Where the graph is smooth: chords to either side agree with each other."""
    step = 1e-4
    left, middle, right = (at(node, x + k * step) for k in (-1, 0, 1))
    assume(left is not None and middle is not None and right is not None)
    assert left is not None and middle is not None and right is not None
    before, after = (middle - left) / step, (right - middle) / step
    chord = (before + after) / 2
    assume(abs(middle) < 1e4 and abs(chord) < 1e4 and abs(after - before) <= 1e-2 * (1 + abs(chord)))
    assume(unbroken(node, "x", np.array([x - step]), np.array([x + step]))[0])
    told = at(derivative(node, "x"), x)
    assume(told is not None)  # at the corner of an absolute value there is none
    assert told == pytest.approx(chord, rel=1e-2, abs=1e-2)
