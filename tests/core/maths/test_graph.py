"""Graphs as arrays: right values, and never a line across a pole, a jump or a gap."""

from __future__ import annotations

import math
import time
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.expression import ExpressionError, parse, values
from larch.core.maths.graph import BOUNDED, NotDrawn, branches, curve_of, linear_parts


def breaks(source: str, low: float = -6, high: float = 6) -> list[float]:
    """Where the branches of a graph part."""
    found = branches(parse(source), low, high)
    return [(float(a[-1, 0]) + float(b[0, 0])) / 2 for a, b in pairwise(found)]


@pytest.mark.parametrize(
    ("source", "expected"),
    [
        ("1/x", [0]),
        ("1/(x-1)^2", [1]),
        ("tan x", [-1.5 * math.pi, -0.5 * math.pi, 0.5 * math.pi, 1.5 * math.pi]),
        ("floor x", list(range(-5, 6))),
        ("|x|/x", [0]),
        ("sign(x-2)", [2]),
        ("1/(1000x)^2", [0]),
        ("1/(x^2-2)", [-math.sqrt(2), math.sqrt(2)]),
        ("mod(x, 3)", [-3, 0, 3]),
        ("x^-1", [0]),
        ("sqrt(x^2-1)", [0]),
        ("x floor x", [k for k in range(-5, 6) if k]),
        ("(x^2-1)/(x-1)", [1]),
        ("cases(x, x<1, 5)", [1]),
        ("cot x", [-math.pi, 0, math.pi]),
        ("sec x", [-1.5 * math.pi, -0.5 * math.pi, 0.5 * math.pi, 1.5 * math.pi]),
        ("csc x", [-math.pi, 0, math.pi]),
        ("log(2, x)", [1]),
    ],
)
def test_branches_part_where_the_function_breaks(source: str, expected: list[float]) -> None:
    assert breaks(source) == pytest.approx(expected, abs=1e-6)


@pytest.mark.parametrize(
    "source",
    [
        "x",
        "3",
        "x^3-x",
        "sin x",
        "e^x",
        "|x-1|",
        "x^(1/3)",
        "min(x, 2)",
        "1/(x^2+1)",
        "x^2/(2+cos x)",
        "sqrt(x^4-2x^2+1)",
        "sqrt(x^2+2x+1)",
        "root(x, 3)",
        "cases(x^2, x<1, 2-x, x>=1)",
        "50% x",
        "max(x, 1, 2)",
    ],
)
def test_continuous_functions_are_one_branch(source: str) -> None:
    found = branches(parse(source), -6, 6)
    assert len(found) == 1
    assert (found[0][0, 0], found[0][-1, 0]) == (-6, 6)


@pytest.mark.parametrize(
    ("source", "low", "high"), [("sqrt(x-1)", 1, 6), ("ln x", 0, 6), ("sqrt(9-x^2)", -3, 3), ("asin x", -1, 1)]
)
def test_domain_ends_are_reached(source: str, low: float, high: float) -> None:
    found = branches(parse(source), -6, 6)
    assert len(found) == 1
    assert found[0][0, 0] == pytest.approx(low, abs=1e-9)
    assert found[0][-1, 0] == pytest.approx(high, abs=1e-9)


@given(
    st.sampled_from(["1/(x-{a})", "tan({a}x)", "floor(x+{a})", "sqrt(x-{a})/(x+1)", "ln|x-{a}|", "x/(x^2-{a}^2)"]),
    st.integers(1, 5),
)
def test_no_step_of_a_branch_hides_a_break(template: str, a: int) -> None:
    """Law: between two neighbouring points of a branch the function stays between or near them."""
    node = parse(template.format(a=a))
    for branch in branches(node, -6, 6):
        x0, x1 = branch[:-1, 0], branch[1:, 0]
        inner = values(node, x=(x0 + x1) / 2)
        low, high = np.minimum(branch[:-1, 1], branch[1:, 1]), np.maximum(branch[:-1, 1], branch[1:, 1])
        slack = (high - low) + 1e-6 * (1 + np.abs(low))
        assert np.all(np.isfinite(inner))
        assert np.all((inner >= low - slack) & (inner <= high + slack))


def test_points_lie_on_the_graph() -> None:
    node = parse("x^3 - 2x")
    for branch in branches(node, -3, 3):
        assert np.allclose(branch[:, 1], branch[:, 0] ** 3 - 2 * branch[:, 0], rtol=1e-9)


@pytest.mark.parametrize(
    ("source", "along", "op"),
    [("y = 2x + 1", "x", "="), ("2x + 3y = 6", "x", "="), ("x = 3", "y", "="), ("f(x) = x^2", "x", "="),
     ("x^2 - 1", "x", "="), ("y < x", "x", "<"), ("3 - y < x", "x", ">"), ("x ≥ 2", "y", "≥"), ("x < y", "x", ">")],
)  # fmt: skip
def test_what_an_equation_means_on_axes(source: str, along: str, op: str) -> None:
    curve = curve_of(source)
    assert (curve.along, curve.op) == (along, op)


def test_a_solved_line_has_the_right_values() -> None:
    curve = curve_of("2x + 3y = 6")
    assert values(curve.formula, x=np.array([0.0, 3.0])).tolist() == pytest.approx([2, 0])


@pytest.mark.parametrize("source", ["y = a x", "x! = y", "y = sum(k, 1, 3, k x)", "y ≠ 2", "0y = 1", "a + b"])
def test_what_is_not_drawn_says_why(source: str) -> None:
    with pytest.raises(NotDrawn, match=r"\.$"):
        curve_of(source)
    with pytest.raises(ExpressionError):
        curve_of("y = ")


def test_linear_parts() -> None:
    parts = linear_parts(parse("(6 - 3x)/4"), "x")
    assert parts is not None
    assert [float(values(part)) for part in parts] == [-0.75, 1.5]
    assert linear_parts(parse("x^2"), "x") is None


@pytest.mark.parametrize("source", ["floor(1000x)", "sin(1/x)", "tan(100x)", "1/floor(50x)", "x!", "1/sin(300x)"])
def test_wild_functions_are_bounded_in_time(source: str) -> None:
    branches(parse("x"), 0, 1)
    began = time.perf_counter()
    found = branches(parse(source), -6, 6)
    assert time.perf_counter() - began < 2
    assert sum(map(len, found)) < 60_000


def test_every_function_that_is_said_to_be_drawn_has_bounds() -> None:
    known = {"cases": "cases(x, x<1, 2)", "root": "root(x, 3)", "mod": "mod(x, 2)", "min": "min(x, 2)", "max": "max(x, 2)",
             "percent": "x%", "permille": "x‰", "degrees": "x°"}  # fmt: skip
    for name in BOUNDED - {"otherwise"}:
        assert branches(curve_of(known.get(name, f"{name}(x)")).formula, 0.1, 0.9), name


def test_a_power_that_is_nothing_is_its_base_that_is_nothing() -> None:
    from larch.core.maths.graph import curve_of

    assert curve_of("(x + y)^2 = 0") == curve_of("x + y = 0")
    assert curve_of("0 = (x^2 + y^2 - 4)^4") == curve_of("x^2 + y^2 - 4 = 0")
    assert curve_of("(x + y)^2 = 1").along == "xy"
