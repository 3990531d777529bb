"""Sequences by a rule, against what is known of them in closed form."""

from __future__ import annotations

import math
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.expression.plain import reading
from larch.core.maths.graph import Curve, NotDrawn, curve_of
from larch.core.maths.layout.reading import meaning
from larch.core.maths.parametric import terms
from larch.core.maths.recursion import comes_to, exact_members, members, round_of
from larch.core.model.page import Page
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation


def first_members(source: str, count: int, letters: tuple[tuple[str, str], ...] = ()) -> list[Fraction | float]:
    curve = curve_of(source, letters)
    assert curve.along == "rule"
    return exact_members(curve.formula, curve.firsts, int(curve.span[0]), count)


@given(st.integers(-20, 20), st.integers(-20, 20), st.integers(1, 12))
def test_adding_the_same_again_and_again_is_the_line_that_it_is(start: int, step: int, n: int) -> None:
    found = first_members(f"a_1 = {start}; a_(n+1) = a_n + {step}", n)
    assert found == [start + k * step for k in range(n)]


@given(st.integers(1, 9), st.fractions(-3, 3, max_denominator=7), st.integers(1, 9))
def test_multiplying_by_the_same_gives_its_powers_exactly(start: int, q: Fraction, n: int) -> None:
    found = first_members(f"b_n = b_(n-1) * ({q})", n, (("b_0", str(start)),))
    assert found == [start * q**k for k in range(n)]


@given(st.integers(2, 30))
def test_the_sum_of_the_two_before_is_cassinis(n: int) -> None:
    """Law: F(n−1) F(n+1) − F(n)² = (−1)ⁿ (Cassini)."""
    found = [int(x) for x in first_members("f_1 = 1; f_2 = 1; f_(n+2) = f_(n+1) + f_n", n + 2)]
    assert found[n - 2] * found[n] - found[n - 1] ** 2 == (-1) ** n


def test_the_number_of_a_member_may_stand_in_the_rule_on_either_side() -> None:
    triangles = [k * (k + 1) // 2 for k in range(8)]
    assert first_members("a_0 = 0; a_n = a_(n-1) + n", 8) == triangles
    assert first_members("a_0 = 0; a_(n+1) = a_n + n + 1", 8) == triangles


@pytest.mark.parametrize("source", ["a_(n+1) = a_n/2 + 3", "a_{n+1} = \\frac{a_n}{2} + 3", "aₙ₊₁ = aₙ/2 + 3"])
def test_it_is_read_however_the_index_is_typed(source: str) -> None:
    assert first_members(source, 3, (("a_1", "4"),)) == [4, 5, Fraction(11, 2)]


def test_what_is_written_out_is_read_again_as_the_same() -> None:
    node = meaning("a_(n+2) = a_(n+1) + a_n")
    assert meaning(reading(node)) == node
    assert reading(meaning("a_n + 1 = 3")) == "a_n + 1 = 3"


@pytest.mark.parametrize(
    ("source", "letters", "says"),
    [
        ("a_(n+1) = a_n + 2", (), "a_1 = …"),
        ("a_(n+2) = a_(n+1) + a_n", (("a_1", "1"),), "a_1 = …, a_2 = …"),
        ("a_1 = 2; a_(n+1) = k a_n", (), "k"),
        ("a_1 = 1/0; a_(n+1) = a_n", (), "no value"),
    ],
)
def test_what_is_missing_is_said(source: str, letters: tuple[tuple[str, str], ...], says: str) -> None:
    with pytest.raises(NotDrawn, match=says.replace(".", "\\.")):
        curve_of(source, letters)


def test_a_member_after_the_new_one_is_no_rule() -> None:
    with pytest.raises(NotDrawn):
        curve_of("a_n = a_(n+1) + 1", (("a_1", "2"),))


@given(st.integers(-9, 9))
def test_where_members_come_to(tenths: int) -> None:
    curve = curve_of(f"a_1 = 5; a_(n+1) = {tenths}/10*a_n + 3")
    found = members(curve.formula, curve.firsts, 1, 400)
    assert comes_to(found) == pytest.approx(3 / (1 - tenths / 10))


def test_round_and_round() -> None:
    curve = curve_of("a_1 = 3; a_(n+1) = 1/a_n")
    assert round_of(members(curve.formula, curve.firsts, 1, 100)) == pytest.approx((1 / 3, 3))
    assert round_of((1.0, 2.0, 3.0, 4.0)) == ()


def test_only_members_between_the_ends_of_an_axis_are_drawn() -> None:
    found = terms(curve_of("a_1 = 1; a_(n+1) = 2a_n"), 2.5, 5.2)
    assert found.tolist() == [[3, 4], [4, 8], [5, 16]]


def test_it_stops_where_there_is_no_value() -> None:
    curve = curve_of("a_1 = 2; a_(n+1) = 1/(a_n - 1) - 0")
    assert members(Curve(curve.formula, "rule").formula, (Fraction(2),), 1, 5)[:2] == (2.0, 1.0)
    assert len(members(curve.formula, (Fraction(2),), 1, 5)) == 2


def test_on_a_page_the_first_member_stands_in_an_equation_of_its_own() -> None:
    page = Page(id="p1").put(Axes(), Equation(source="a_1 = 4"), Equation(source="a_(n+1) = a_n/2 + 3"))
    line = page.things[-1]
    assert isinstance(line, Equation)
    line = line.told_on(page)
    facts = {fact.name: fact.text for fact in line.facts(page)}
    assert facts["members"].startswith("4; 5; 5.5; 5.75")
    assert facts["course"] == "towards 6"
    assert "graph" not in facts
    assert line.definition(page) is None
    assert math.isinf(line.curve().span[1])  # type: ignore[union-attr]
