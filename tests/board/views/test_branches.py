"""What is known of breaks before they are looked for, and that a graph is the same however its window was cut."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.board.views.graphs.curve_lines import _beyond, bare, polylines
from larch.core.actions.equations.room import room
from larch.core.base.shape import Box, Placement
from larch.core.maths.geometry import crossing_pieces
from larch.core.maths.graph import branches, curve_of, foreseen
from larch.core.maths.layout.reading import meaning
from larch.core.model.page import Page
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.graphs.axes import Axes

small = st.integers(-40, 40).map(lambda k: k / 8)


@given(small, small.filter(bool))
def test_the_zero_of_a_linear_divisor_is_foreseen(a: float, b: float) -> None:
    assert foreseen(meaning(f"3/({b}x - {a})"), "x") == pytest.approx([a / b])


@pytest.mark.parametrize("source", ["1/(x^2 - 1)", "sqrt(x^2)", "tan(x)", "x + 1", "1/(0x + 2)", "1/(x - y)"])
def test_what_is_not_linear_is_not_foreseen(source: str) -> None:
    assert foreseen(meaning(source), "x") == []


@given(small, st.sampled_from(("1/(x - {a})", "sqrt(x - {a})", "ln(x - {a})", "2/(x - {a})^2", "sqrt({a} - x)")))
def test_branches_end_where_the_function_does_and_nowhere_else(a: float, form: str) -> None:
    found = branches(meaning(form.format(a=f"({a})")), -6, 6)
    ends = sorted({round(float(v), 6) for one in found for v in (one[0, 0], one[-1, 0])})
    assert set(ends) <= {-6.0, round(a, 6), 6.0}
    for one in found:
        assert (np.diff(one[:, 0]) > 0).all() and np.isfinite(one).all()
        assert not one[0, 0] < a - 1e-9 < a + 1e-9 < one[-1, 0]


@given(st.floats(-50, 50), st.floats(0.5, 40))
def test_what_is_worked_out_reaches_beyond_the_window_and_not_far(low: float, wide: float) -> None:
    a, b = _beyond(low, low + wide)
    assert a <= low and b >= low + wide
    assert b - a <= wide * 1.51
    again = _beyond(a + (b - a) * 0.01, a + (b - a) * 0.01 + wide)
    assert math.isclose((again[0] - a) / (wide / 4), round((again[0] - a) / (wide / 4)), abs_tol=1e-6)


@given(st.floats(-3, 3))
def test_axes_that_were_pushed_show_the_same_graph(by: float) -> None:
    curve = curve_of("y = x^2/4 - 2")
    axes = Axes(x_min=-6, x_max=6, y_min=-5, y_max=5, width=480, height=400)
    for one in (axes, axes.replace(x_min=-6 + by, x_max=6 + by)):
        (line,) = polylines(bare(one), curve)
        plane = np.array([one.to_plane(*p) for p in line])
        near = np.abs(plane[:, 1]) < 5
        assert np.allclose(plane[near, 1], plane[near, 0] ** 2 / 4 - 2, atol=1e-9)
        assert plane[:, 0].min() <= one.x_min and plane[:, 0].max() >= one.x_max


@given(st.integers(4, 40))
def test_only_what_crosses_crosses(count: int) -> None:
    turn = np.linspace(0.3, 0.3 + 1.9 * math.pi, count)
    assert len(crossing_pieces(np.column_stack([np.cos(turn), np.sin(turn)]))) == 0
    bow = np.array([[0.0, 0.0], [2.0, 2.0], [2.0, 0.0], [0.0, 2.0]])
    assert crossing_pieces(bow).tolist() == [[0, 2]]


@given(st.floats(0, 1000), st.floats(0, 500), st.floats(20, 300), st.floats(20, 200))
def test_what_is_made_lies_where_nothing_does_or_covers_least(x: float, y: float, wide: float, tall: float) -> None:
    square = ((0.0, 0.0), (200.0, 0.0), (200.0, 150.0), (0.0, 150.0))
    page = Page(id="p").put(*(Polygon(vertices=square, placement=Placement(40.0 + 260 * k, 80.0)) for k in range(4)))
    box = Box(0, 0, wide, tall)
    assume(wide < page.size[0] and tall < page.size[1])
    placed = box.moved(*room(page, box, (x, y)))
    assert placed.x0 >= 0 and placed.y0 >= 0 and placed.x1 <= page.size[0] + 1e-6 and placed.y1 <= page.size[1] + 1e-6
    assert not any(placed.meets(thing.box()) for thing in page.things)


def test_a_full_page_is_covered_where_least_is_lost() -> None:
    wide, tall = Page(id="p").size
    whole = ((0.0, 0.0), (wide, 0.0), (wide, tall - 60), (0.0, tall - 60))
    page = Page(id="p").put(Polygon(vertices=whole))
    _x, y = room(page, Box(0, 0, 300, 200), (100.0, 50.0))
    assert y == pytest.approx(tall - 200, abs=20)
