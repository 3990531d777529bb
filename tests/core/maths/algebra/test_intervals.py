"""Where statements about one letter hold, as intervals."""

from __future__ import annotations

import math
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.algebra.intervals import Interval, intervals
from larch.core.maths.expression.precise import holds
from larch.core.maths.layout.reading import meaning
from larch.core.model.page import Page
from larch.core.things.numbers.number_line import NumberLine

FAR = math.inf


@pytest.mark.parametrize(("source", "found"), [
    ("x > 2", [(2, FAR, False, False)]), ("x <= -1", [(-FAR, -1, False, True)]), ("-1 <= x < 3", [(-1, 3, True, False)]),
    ("x < -2 or x >= 1", [(-FAR, -2, False, False), (1, FAR, True, False)]), ("x = 4", [(4, 4, True, True)]),
    ("x != 2", [(-FAR, 2, False, False), (2, FAR, False, False)]), ("x^2 < 4", [(-2, 2, False, False)]),
    ("x^2 >= 9", [(-FAR, -3, False, True), (3, FAR, True, False)]), ("|x - 1| <= 2", [(-1, 3, True, True)]),
    ("x^2 = 4", [(-2, -2, True, True), (2, 2, True, True)]), ("x^2 < 0", []), ("x^2 >= 0", [(-FAR, FAR, False, False)]),
    ("1/x > 0", [(0, FAR, False, False)]), ("2a + 1 < 7", [(-FAR, 3, False, False)]), ("x > 5 and x < 3", []),
])  # fmt: skip
def test_statements_of_school(source: str, found: list[tuple[float, float, bool, bool]]) -> None:
    assert intervals(source) == tuple(Interval(*one) for one in found)


@given(st.integers(-6, 6), st.integers(-6, 6), st.sampled_from(["<", "<=", ">", ">=", "=", "!="]), st.integers(-40, 40))
def test_a_number_is_in_one_of_them_just_where_it_is_true(a: int, b: int, op: str, n: int) -> None:
    source = f"(x - ({a}))(x - ({b})) {op} 0"
    x = n / 4
    inside = any(
        one.low < x < one.high or (x == one.low and one.low_in) or (x == one.high and one.high_in)
        for one in intervals(source)
    )
    assert inside == holds(meaning(source), {"x": Fraction(n, 4)})


@pytest.mark.parametrize("source", ["x + y > 2", "3 > 2", "x + 1", "x >", ""])
def test_what_is_no_statement_about_one_letter_is_said(source: str) -> None:
    with pytest.raises(ValueError, match=r".+"):
        intervals(source)


def test_a_number_line_takes_a_statement_by_its_facts() -> None:
    line = NumberLine(first=-5, last=5)
    facts = {fact.name: fact for fact in line.facts(Page(id="p1"))}
    after = facts["statement"].set("x > 2 or x <= -4")  # type: ignore[misc]
    assert [(one.low, one.high) for one in after.true_on()] == [(-FAR, -4), (2, FAR)]
    with pytest.raises(ValueError, match="statement"):
        facts["statement"].set("x + y > 2")  # type: ignore[misc]
    assert facts["statement"].set("").true_on() == ()  # type: ignore[misc]
    assert NumberLine(first=-5, last=5, statement="x > 90").true_on() == ()
