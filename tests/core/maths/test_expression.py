"""Expressions: read as a mathematician writes them, right in their values, pointing at mistakes."""

from __future__ import annotations

import math
from fractions import Fraction

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.expression import ExpressionError, Undefined, exact_at, names_in, parse, reading, value_at, values
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number


@pytest.mark.parametrize(
    ("source", "x", "value"),
    [
        ("3/4 x - 6", 8, 0),
        ("2x(x+1)", 3, 24),
        ("(x+1)(x-1)", 5, 24),
        ("-2^2", 0, -4),
        ("2^3^2", 0, 512),
        ("2^-1", 0, 0.5),
        ("||x|-3|", 1, 2),
        ("2|x|", -3, 6),
        ("|x||x|", -3, 9),
        ("1 1/2 x", 2, 3),
        ("½x + ¼", 1, 0.75),
        ("√9 x", 2, 6),
        ("sqrt(x)", 16, 4),
        ("x²+x³", 2, 12),
        ("10x⁻¹", 5, 2),
        ("5!", 0, 120),
        ("sin 30°", 0, 0.5),
        ("sin^2 x + cos²x", 1.3, 1),
        ("sin 2x cos x", 1, math.sin(2) * math.cos(1)),
        ("tan⁻¹(1)", 0, math.pi / 4),
        ("2π", 0, math.tau),
        ("e^x", 1, math.e),
        ("(-8)^(1/3)", 0, -2),
        ("min(x, 3) + max(x, 3)", 5, 8),
        ("mod(-1, 5)", 0, 4),
        ("round(2.5)", 0, 3),
        ("6 ÷ 2 · 3", 0, 9),
        ("6 : 2 × 3", 0, 9),
        ("x − −x", 4, 8),
        ("log 1000", 0, 3),
        ("ln(e)", 0, 1),
        ("root(27, 3)", 0, 3),
    ],
)
def test_reads_and_computes(source: str, x: float, value: float) -> None:
    assert value_at(parse(source), x=x) == pytest.approx(value, rel=1e-12, abs=1e-12)


@pytest.mark.parametrize(
    ("source", "position"),
    [("2+", 2), ("(x", 0), ("3 4", 2), ("x)", 1), ("sin", 3), ("@", 0), ("|x", 0),
     ("", 0), ("x^", 2), ("mod(1)", 0), ("1 1/0", 4), ("x ⁻ ", 2)],
)  # fmt: skip
def test_a_mistake_is_pointed_at(source: str, position: int) -> None:
    with pytest.raises(ExpressionError) as caught:
        parse(source)
    assert caught.value.position == position
    assert caught.value.message.endswith(".")


@pytest.mark.parametrize(
    "source", ["1/x", "x^0", "x^-1", "ln x", "sqrt(x-1)", "mod(3, x)", "asin(x+2)", "(x-1)^0.5", "(x-3)!", "y"]
)
def test_no_value_gives_a_reason(source: str) -> None:
    with pytest.raises(Undefined, match=r"\w+.*\.$"):
        value_at(parse(source), x=0)


@pytest.mark.parametrize("source", ["9^9^9^9", "(10!)!", "e^(e^(e^9))", "10^400", "2^(2^(2^30))"])
def test_runaway_numbers_end_in_a_sentence(source: str) -> None:
    with pytest.raises(Undefined, match=r"large|factorial"):
        value_at(parse(source))


@pytest.mark.parametrize("source", ["(" * 5000, "-" * 5000, "x^" * 400 + "x", "((((x))))" * 200, "√" * 900 + "2", "|" * 500])
def test_hostile_text_is_bounded(source: str) -> None:
    try:
        reading(parse(source))
    except ExpressionError as error:
        assert 0 <= error.position <= len(source)


@given(st.text(alphabet="0123456789.xy+-*/^()|= πe√²sincolgabqrt!°,<≤", max_size=40))
def test_any_text_is_read_or_pointed_at(source: str) -> None:
    try:
        node = parse(source)
    except ExpressionError as error:
        assert 0 <= error.position <= len(source)
    else:
        assert names_in(node) is not None
        parse(reading(node))


numbers = st.integers(0, 50).map(lambda n: Number(Fraction(n), str(n)))
trees: st.SearchStrategy[Node] = st.recursive(
    numbers | st.just(Name("x")),
    lambda inner: st.one_of(
        st.builds(Binary, st.sampled_from("+-*/"), inner, inner),
        st.builds(Negative, inner),
        st.builds(lambda node: Call("abs", (node,)), inner),
        st.builds(lambda node, k: Binary("^", node, Number(Fraction(k), str(k))), inner, st.integers(1, 3)),
    ),
    max_leaves=10,
)


@given(trees, st.integers(-9, 9))
def test_reading_back_gives_the_same_value(node: Node, x: int) -> None:
    """Law: brackets in the reading are enough, so reading it again means the same."""
    try:
        expected = exact_at(node, x=x)
    except Undefined:
        return
    assert exact_at(parse(reading(node)), x=x) == expected


@given(trees, st.lists(st.floats(-20, 20), min_size=1, max_size=6))
def test_arrays_agree_with_single_values(node: Node, xs: list[float]) -> None:
    computed = values(node, x=np.array(xs))
    for x, got in zip(xs, computed, strict=True):
        try:
            wanted = float(value_at(node, x=x))
        except Undefined:
            continue
        if np.isnan(got):  # too large for float64 on the way, though not exactly
            continue
        scale = max(1.0, abs(wanted))
        assert got == pytest.approx(wanted, rel=1e-6, abs=1e-6 * scale) or abs(wanted) > 1e12


def test_exact_values_stay_exact() -> None:
    assert exact_at(parse("1/3 + 1/6")) == Fraction(1, 2)
    assert exact_at(parse("sqrt(9/4)")) == Fraction(3, 2)
    assert exact_at(parse("√2")) is None


def test_a_constant_fills_the_array() -> None:
    assert values(parse("3"), x=np.zeros(4)).tolist() == [3, 3, 3, 3]


def test_an_error_names_a_place_inside_the_text() -> None:
    with pytest.raises(ExpressionError) as caught:
        parse("2 + + ) 3")
    assert caught.value.position == 6
