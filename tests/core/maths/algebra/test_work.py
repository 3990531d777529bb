"""Solutions written line by line: every line follows, every answer solves what was given."""

from __future__ import annotations

from fractions import Fraction
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.algebra.compare import same
from larch.core.maths.algebra.follows import follows
from larch.core.maths.algebra.steps import Unsolved
from larch.core.maths.algebra.work import work
from larch.core.maths.expression import parse
from larch.core.maths.expression.plain import compact
from larch.core.maths.expression.precise import holds, precise
from larch.core.maths.expression.tree import Relation


@pytest.mark.parametrize(
    ("given", "answer"),
    [
        ("2x+5=15", ["x = 5"]), ("3(x-2)=2x+7", ["x = 13"]), ("x/2+1/3=5/6", ["x = 1"]), ("5-2x<11", ["x > -3"]),
        ("x^2=9", ["x = -3", "x = 3"]), ("x^2-5x+6=0", ["x = 2", "x = 3"]), ("x^2+4=0", ["no solution"]),
        ("x^2+x-1=0", ["x = (-1 - sqrt(5))/2", "x = (-1 + sqrt(5))/2"]), ("1/(x-1)=2/(x+3)", ["x = 5"]),
        ("x/(x-1)=1/(x-1)", ["no solution"]), ("sqrt(x+2)=x", ["x = 2"]), ("|x-1|=3", ["x = -2", "x = 4"]),
        ("2^x=8", ["x = 3"]), ("e^x=5", ["x = ln(5)"]), ("log2(x)=5", ["x = 32"]), ("x^2<4", ["-2 < x < 2"]),
        ("x^2-5x+6>=0", ["x ≤ 2 or x ≥ 3"]), ("1/x>2", ["0 < x < 1/2"]), ("x+y=5 and x-y=1", ["x = 3", "y = 2"]),
        ("2(x+1)=2x+2", ["true for every x"]), ("x=x+1", ["no solution"]), ("2+3*4", ["14"]), ("(1/2+1/3)*6", ["5"]),
        ("2(x+3)-4x", ["-2x + 6"]), ("(a+b)^2", ["a^2 + 2ab + b^2"]), ("(x^2-1)/(x-1)", ["x + 1"]),
        ("sqrt(8)+sqrt(2)", ["3sqrt(2)"]), ("d/dx(x^2+3x)", ["2x + 3"]), ("x^2 = 2x", ["x = 0", "x = 2"]),
        ("x^3=2", ["x = cbrt(2)"]), ("3 < 2x+1 < 7", ["1 < x < 3"]), ("x^2 ≤ 0", ["x = 0"]),
    ],
)  # fmt: skip
def test_answers(given: str, answer: list[str]) -> None:
    assert list(work(parse(given)).answer) == answer


@pytest.mark.parametrize(
    "given",
    ["3(x-2)=2x+7", "x^2-5x+6=0", "2x^2+3=11", "5-2x<11", "1/(x-1)=2/(x+3)", "x^2<4", "x+y=5 and x-y=1",
    "x/2+1/3=5/6", "|x-1|=3",
     "2+3*4-6/2", "2(x+3)-4x"],
)  # fmt: skip
def test_each_line_follows_and_can_be_read_again(given: str) -> None:
    steps = work(parse(given)).steps
    assert len(steps) > 1 and all(step.reason for step in steps)
    for above, below in pairwise(steps):
        assert follows(above.line, below.line).follows == "yes", (compact(above.line), compact(below.line))
        assert same(parse(compact(below.line)), below.line).same is True


@given(st.integers(-9, 9), st.integers(-20, 20), st.integers(-9, 9), st.integers(-20, 20), st.sampled_from(["=", "<", "≥"]))
def test_linear_ones_of_any_numbers(a: int, b: int, c: int, d: int, op: str) -> None:
    line = parse(f"{a}x + ({b}) {op} {c}x + ({d})")
    found = work(line)
    if "x" in found.answer[0] and "every" not in found.answer[0]:
        assert same(line, parse(found.answer[0])).same is True
    else:
        truth = holds(line, {"x": Fraction(3)})
        assert truth == found.answer[0].startswith("true")


@given(st.integers(1, 6), st.integers(-12, 12), st.integers(-12, 12))
def test_quadratics_of_any_numbers(a: int, b: int, c: int) -> None:
    line = parse(f"{a}x^2 + ({b})x + ({c}) = 0")
    found = [parse(text) for text in work(line).answer if "=" in text]
    assert len(found) == (2 if b * b > 4 * a * c else 1 if b * b == 4 * a * c else 0)
    for one in found:
        assert isinstance(one, Relation) and holds(line, {"x": precise(one.right, {})})


@pytest.mark.parametrize("given", ["1/0", "sqrt(-4)", "9^9^9^9"])
def test_what_has_no_value_says_why(given: str) -> None:
    with pytest.raises(Unsolved, match=r"\.$"):
        work(parse(given))
