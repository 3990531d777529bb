"""Axes and the equations on them."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.base.shape import Placement
from larch.core.model.page import Page
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.ticks import marks_between, tick_text
from tests.samples import page_with


def test_an_equation_belongs_by_link_or_by_place() -> None:
    axes = Axes(placement=Placement(100, 100))
    page = page_with(axes, Equation(placement=Placement(200, 200)), Equation(placement=Placement(900, 600)))
    carried = page.things[0]
    assert isinstance(carried, Axes)
    assert [e.id for e in carried.curves(page)] == ["t2"]
    linked = page.changing(["t3"], lambda t: t.replace(axes="t1"))
    assert [e.id for e in carried.curves(linked)] == ["t2", "t3"]


def test_linking_and_unlinking_are_actions() -> None:
    from larch.core.model.action import actions_for

    page = page_with(Axes(), Equation(placement=Placement(900, 600)))
    link = next(a for a in actions_for(page, page.things) if a.name == "link to axes")
    after = link.run(page, page.things).after
    assert isinstance(after, Page)
    assert after.things[1].axes == "t1"  # type: ignore[attr-defined]
    unlink = next(a for a in actions_for(after, after.things[1:]) if a.name == "unlink from axes")
    again = unlink.run(after, after.things[1:]).after
    assert again.things[1].axes == ""  # type: ignore[union-attr]


@given(st.floats(-1e6, 1e6), st.floats(0.001, 1e6), st.floats(1, 40))
def test_ticks_are_round_and_inside(low: float, width: float, most: float) -> None:
    steps = marks_between(low, low + width, most)
    assert len(steps) <= most + 2
    assert all(low - width * 1e-6 <= v <= low + width * (1 + 1e-6) for v in steps)


def test_ticks_read_as_written() -> None:
    assert [tick_text(v, 0.5) for v in (-1, -0.5, 0, 0.5)] == ["−1", "−0.5", "0", "0.5"]


@given(st.floats(-100, 100), st.floats(-100, 100))
def test_plane_and_page_go_there_and_back(x: float, y: float) -> None:
    axes = Axes(x_min=-3, x_max=9, y_min=-2, y_max=2)
    assert axes.to_plane(*axes.to_local(x, y)) == pytest.approx((x, y), abs=1e-9)


def test_a_range_must_run_upwards() -> None:
    page = page_with(Axes())
    setter = next(f.set for f in page.things[0].facts(page) if f.name == "x_min")
    assert setter is not None
    with pytest.raises(ValueError, match="smaller to a larger"):
        setter("7")


def test_a_line_knows_gradient_and_intercept_exactly() -> None:
    page = page_with(Equation(source="2y = 12 - 3/2 x"))
    known = {f.name: f for f in page.things[0].facts(page)}
    assert known["gradient"].text == "−3/4"
    assert known["intercept"].value == 6


def test_what_cannot_be_drawn_says_why() -> None:
    page = page_with(Equation(source="y = x!"))
    fact = next(f for f in page.things[0].facts(page) if f.name == "graph")
    assert fact.value is None
    assert fact.text.endswith(".")
