"""Tangents, normals and secants of graphs and circles at their points."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.figures.rule_makers import make_secant, make_touching
from larch.core.maths.graph import curve_of
from larch.core.maths.plane.forms import Circle, Form, Line, NotThere, Spot
from larch.core.things.graphs.axes import axes_at

AXES = axes_at(100, 50)
SLOPES = {
    "x^2/4": lambda x: x / 2,
    "sin(x)": math.cos,
    "2^(x/2)": lambda x: math.log(2) / 2 * 2 ** (x / 2),
    "3 - x": lambda x: -1,
}


def graph(source: str) -> Form:
    return AXES.graph(curve_of(source))


def slope(line: Form) -> float:
    assert isinstance(line, Line)
    (ax, ay), (bx, by) = AXES.plane_of(line.a), AXES.plane_of(line.b)
    return (by - ay) / (bx - ax)


@given(st.sampled_from(sorted(SLOPES)), st.floats(-3, 3))
def test_a_tangent_has_the_slope_of_its_graph(source: str, x: float) -> None:
    from larch.core.maths.expression import value_at
    from larch.core.maths.layout.reading import meaning

    place = Spot(*AXES.page_of((x, float(value_at(meaning(source), x=x)))))  # type: ignore[arg-type]
    tangent = make_touching(False)([place, graph(source)], [])
    assert slope(tangent) == pytest.approx(SLOPES[source](x), abs=1e-4)
    normal = make_touching(True)([place, graph(source)], [])
    assert isinstance(tangent, Line) and isinstance(normal, Line)
    across = [(b[0] - a[0], b[1] - a[1]) for a, b in ((tangent.a, tangent.b), (normal.a, normal.b))]
    assert across[0][0] * across[1][0] + across[0][1] * across[1][1] == pytest.approx(0, abs=1e-6)


@given(st.floats(-2, 2), st.floats(-2, 2))
def test_a_secant_becomes_the_tangent_where_its_points_meet(x: float, other: float) -> None:
    curve = graph("x^2/4")
    a, b = (Spot(*AXES.page_of((t, t * t / 4))) for t in (x, other))
    found = make_secant([a, b, curve], [])
    assert slope(found) == pytest.approx((x + other) / 4, abs=2e-2)
    assert slope(make_secant([a, a, curve], [])) == pytest.approx(x / 2, abs=1e-4)


@given(st.floats(0, 360))
def test_a_tangent_of_a_circle_stands_on_its_radius(degrees: float) -> None:
    at = (200 + 50 * math.cos(math.radians(degrees)), 100 + 50 * math.sin(math.radians(degrees)))
    line = make_touching(False)([Spot(*at), Circle((200, 100), 50)], [])
    assert isinstance(line, Line)
    dx, dy = line.b[0] - line.a[0], line.b[1] - line.a[1]
    assert dx * (at[0] - 200) + dy * (at[1] - 100) == pytest.approx(0, abs=1e-2)


@pytest.mark.parametrize(("source", "x", "y"), [("|x|", 0, 0)])
def test_where_a_curve_has_no_direction_there_is_no_tangent(source: str, x: float, y: float) -> None:
    with pytest.raises(NotThere):
        make_touching(False)([Spot(*AXES.page_of((x, y))), graph(source)], [])
