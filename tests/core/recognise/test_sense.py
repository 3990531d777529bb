"""Of two likely readings the one that says something is meant; a piece of a line says something, too."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.expression.parse import read
from larch.core.maths.layout.from_tree import row_of as row_from
from larch.core.maths.layout.latex import row_from_latex
from larch.core.maths.layout.rows import Row, signs
from larch.core.recognise.maths.reading import SENSELESS, _Found, _sensible
from larch.core.recognise.maths.sense import says_something


def row(source: str) -> Row:
    return row_from_latex(source)


@pytest.mark.parametrize(
    "source",
    [
        "3+?=7", "\\frac{?}{4}=\\frac{3}{12}", "\\pi\\approx3,14", "7\\cdot 8=", "x=", ":2", "+5", "-5", "=12", "<", "+",
        "A(3|-2)", "(0,5|1)", "B(\\frac{1}{2}|3)", "[0,5)", "a:b=3:4", "60km/h", "x^{2}-9", "\\sqrt{x+1}", "2,50€", "k",
    ],
)  # fmt: skip
def test_what_is_written_at_school_says_something(source: str) -> None:
    assert says_something(row(source))


@pytest.mark.parametrize(
    "source",
    [
        "3^{-}", "144:12.=12", "\\frac{5-}{6}", "f(x+1)=2x+_{3}-", "A(3|)", "(|3)", "4+=7", "",
        "\\sqrt{2\\cdot}8", "\\frac{}{3}", "x=\\cdot",
    ],
)  # fmt: skip
def test_what_nobody_means_says_nothing(source: str) -> None:
    assert not says_something(row(source))


def test_a_bracket_that_closes_none_says_nothing() -> None:
    """As it is read sign by sign, where an interval's 3 might be a ]."""
    assert says_something(signs("[0,5]")) and says_something(signs("P(2|3)")) and not says_something(signs("[0,53"))


sums = st.recursive(
    st.one_of(st.integers(0, 99).map(str), st.sampled_from("xyab")),
    lambda inner: st.builds(
        lambda a, op, b: f"({a}) {op} ({b})" if op != "^" else f"({a})^({b})", inner, st.sampled_from("+-*/^"), inner
    ),
    max_leaves=6,
)


@given(sums, st.sampled_from(["", "=", "≈"]), sums)
def test_every_expression_and_equation_says_something(one: str, relation: str, other: str) -> None:
    left = row_from(read(one).node)
    whole = (*left, *row(relation.replace("≈", "\\approx")), *row_from(read(other).node)) if relation else left
    assert says_something(whole)


def found(score: float) -> _Found:
    return _Found(score, (), (), [])


def test_a_row_that_says_nothing_stands_back_behind_one_nearly_as_likely() -> None:
    senseless, plain, far = row("3^{-}"), row("5"), row("7")
    near = {senseless: found(0.0), plain: found(-0.5 * SENSELESS), far: found(-4 * SENSELESS)}
    assert list(_sensible(near)) == [plain, senseless, far]
    assert list(_sensible({senseless: found(0.0), plain: found(-1.5 * SENSELESS)})) == [senseless, plain]
    assert list(_sensible({plain: found(0.0), far: found(-0.1)})) == [plain, far]
    assert list(_sensible({senseless: found(0.0)})) == [senseless]
