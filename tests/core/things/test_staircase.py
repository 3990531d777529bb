"""Members of a function used again and again, against what is known of them."""

from __future__ import annotations

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.model.page import Page
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.staircase import Staircase


def laid(source: str, start: float, steps: int = 5) -> tuple[Page, Staircase]:
    page = Page(id="p1").put(Axes(id="t1"), Equation(id="t2", source=source, axes="t1"))
    axes, line = page.things
    page = page.with_things({line.id: line.replace(axes=axes.id)})
    page = page.put(Staircase(equation=line.id, start=start, steps=steps))
    made = page.things[-1]
    assert isinstance(made, Staircase)
    return page, made


def told(source: str, start: float) -> str:
    page, made = laid(source, start)
    return next(fact.text for fact in made.facts(page) if fact.name == "course")


@given(st.integers(-9, 9), st.integers(-9, 9), st.integers(-20, 20))
def test_the_members_of_a_line_are_those_of_its_closed_form(tenths: int, b: int, start: int) -> None:
    """Law: x_n = k + a^n (x_0 − k) with k = b/(1 − a), which is where they come to."""
    page, made = laid(f"y = {tenths}/10*x + {b}", start, 12)
    a = tenths / 10
    k = b / (1 - a)
    members = made.members(page)
    for n, x in enumerate(members[:13]):
        assert x == pytest.approx(k + a**n * (start - k), abs=1e-9)
    assert members[-1] == pytest.approx(k, abs=1e-9)
    assert made.comes_to(page)


@given(st.floats(-3, 3), st.integers(1, 30))
def test_each_step_goes_to_the_graph_and_then_to_the_line_of_equals(start: float, steps: int) -> None:
    assume(abs(start) > 1e-3)
    page, made = laid("y = cos(x)", start, steps)
    walk = next(line for line, dashed in made.lines_on(page) if not dashed)
    assert walk[0] == (start, 0.0)
    for k, (x, y) in enumerate(walk[1:]):
        assert y == (pytest.approx(math.cos(x)) if k % 2 == 0 else x)


@pytest.mark.parametrize(
    ("source", "start", "course"),
    [
        ("y = (x + 2/x)/2", 3, "towards √2"),
        ("y = 2x", 1, "past 1000000 after 20 steps"),
        ("y = 2x", 0, "towards 0"),
        ("y = sqrt(x) - 1", 3, "stops: there is no value at −0.1444"),
        ("y = 1/x", 4, "round and round: 0.25;  4"),
        ("y = 3.2x(1-x)", 0.5, "round and round: 0.513045;  0.799455"),
        ("y = 4x(1-x)", 0.3, "not settled after 400 steps"),
    ],
)
def test_it_says_what_becomes_of_the_members(source: str, start: float, course: str) -> None:
    assert told(source, start) == course


@pytest.mark.parametrize("wrong", [{"steps": 0}, {"steps": 201}, {"start": math.nan}, {"start": 1e9}, {"size": 0}])
def test_what_makes_no_sense_is_refused(wrong: dict[str, float]) -> None:
    with pytest.raises(ValueError, match="staircase"):
        Staircase(**wrong)
