"""Graphs of equations are met and constructed on like other curves, by the function itself and not by its picture."""

from __future__ import annotations

import math

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from larch.core.actions.geometry.picks import built, form_at, point_at
from larch.core.base.shape import Placement
from larch.core.figures.settle import followers, settle, without
from larch.core.figures.steps import sentence
from larch.core.maths.plane.forms import Circle, Ellipse, Graph, Line, NotThere, Path, Spot
from larch.core.maths.plane.meet import meetings
from larch.core.maths.plane.near import distance, on_form, parameter
from larch.core.model.page import Page
from larch.core.things.geometry.line import Line as LineThing
from larch.core.things.geometry.point import Point
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation

AXES = Axes(id="ax", placement=Placement(100, 80), width=480, height=400)


def page_of(*sources: str, axes: Axes = AXES) -> Page:
    page = Page(id="p").put(axes)
    axes = page.things[0]  # type: ignore[assignment]
    return page.put(
        *(Equation(source=source, axes=axes.id, placement=Placement(700, 100 + 80 * k)) for k, source in enumerate(sources))
    )


def graph_of(page: Page, k: int = 1) -> Graph:
    form = page.things[k].form_on(page)
    assert isinstance(form, Graph)
    return form


def met(page: Page, *forms: object) -> list[tuple[float, float]]:
    axes = page.things[0]
    assert isinstance(axes, Axes)
    return [axes.plane_of(p) for p in meetings(*forms)]  # type: ignore[arg-type]


def close(found: list, wanted: list) -> bool:
    return len(found) == len(wanted) and all(math.dist(a, b) < 1e-8 for a, b in zip(found, wanted, strict=True))


def test_a_parabola_and_a_line_meet_where_algebra_says() -> None:
    page = page_of("y = x^2 - 3", "y = x - 1")
    assert close(met(page, graph_of(page, 1), graph_of(page, 2)), [(-1, -2), (2, 1)])
    assert close(met(page, graph_of(page, 2), graph_of(page, 1)), [(-1, -2), (2, 1)])


@settings(max_examples=40)
@given(st.integers(-8, 8), st.integers(-6, 6), st.integers(-4, 4), st.integers(-4, 4))
def test_meetings_of_a_parabola_with_a_line_solve_the_quadratic(p: int, q: int, m: int, c: int) -> None:
    page = page_of(f"y = x^2/4 + {p}x/4 + {q}".replace("+ -", "- "), f"y = {m}x + {c}".replace("+ -", "- "))
    root = (p / 4 - m) ** 2 - (q - c)
    assume(abs(root) > 1e-3 or root == 0)
    xs = sorted({2 * (-(p / 4 - m) - math.sqrt(root)), 2 * (-(p / 4 - m) + math.sqrt(root))}) if root >= 0 else []
    wanted = [(x, m * x + c) for x in xs if abs(x) < 5.99 and abs(m * x + c) < 4.99]
    assume(all(abs(abs(x) - 6) > 0.02 and abs(abs(m * x + c) - 5) > 0.02 for x in xs))
    try:
        found = met(page, *(thing.form_on(page) or Spot(0, 0) for thing in page.things[1:]))
    except NotThere:
        found = []
    assert len(found) == len(wanted)
    assert all(math.dist(a, b) < 1e-5 for a, b in zip(found, wanted, strict=True))


def test_every_other_form_meets_a_graph() -> None:
    page = page_of("y = x")
    graph = graph_of(page)
    at = AXES.page_of
    side = AXES.units()[0]
    circle = Circle(at((0, 0)), math.sqrt(2) * side)
    assert close(met(page, circle, graph), [(-1, -1), (1, 1)])
    assert close(met(page, Circle(*circle[:2], "arc", 0.0, 90.0), graph), [(1, 1)])
    assert close(met(page, Ellipse(at((0, 0)), 2 * side, 2 * side), graph), [(-math.sqrt(2),) * 2, (math.sqrt(2),) * 2])
    assert close(met(page, Path((at((0, 1)), at((3, 1)), at((3, -1))), False), graph), [(1, 1)])
    assert close(met(page, Line(at((2, -1)), at((2, 0)), "ray"), graph), [(2, 2)])
    with pytest.raises(NotThere, match="end before"):
        meetings(Line(at((2, -1)), at((2, 0))), graph)
    with pytest.raises(NotThere, match="does not meet"):
        meetings(Spot(*at((1, 1))), graph)


def test_touching_and_lying_on_each_other_are_told() -> None:
    page = page_of("y = x^2", "y = 2x - 1", "y = x*x", "y = 7x^0 + 90")
    assert close(met(page, graph_of(page, 1), graph_of(page, 2)), [(1, 1)])
    with pytest.raises(NotThere, match="lie on each other"):
        meetings(graph_of(page, 1), graph_of(page, 3))
    assert page.things[4].form_on(page) is None  # beyond the axes


def test_branches_are_not_joined_across_a_pole() -> None:
    page = page_of("y = 1/x", "y = 0.01")
    with pytest.raises(NotThere):
        meetings(graph_of(page, 1), graph_of(page, 2))
    assert close(met(page, graph_of(page, 1), Line(AXES.page_of((-5, -2)), AXES.page_of((5, -2)), "line")), [(-0.5, -2)])


@given(st.floats(-2.5, 2.5), st.floats(-4.5, 4.5))
def test_the_nearest_place_is_on_the_graph_and_near(x: float, y: float) -> None:
    page = page_of("y = x^3/3 - x")
    graph = graph_of(page)
    at = AXES.page_of((x, y))
    t = parameter(graph, at)
    on = AXES.plane_of(on_form(graph, t))
    assert on[1] == pytest.approx(on[0] ** 3 / 3 - on[0], abs=1e-7)
    least = min(math.dist(p, at) for run in graph.points for p in run)
    assert distance(graph, at) <= least + 0.01


def test_a_point_where_graphs_meet_follows_equation_and_axes() -> None:
    page = page_of("y = x^2 - 3", "y = x - 1")
    axes, parabola, line = page.things
    at = AXES.page_of((2, 1))
    chosen = point_at(page, [axes], (at[0] + 3, at[1] - 2), 13.0)
    assert chosen.why == "where they meet"
    made = built(page, "segment", [chosen, point_at(page, [axes], AXES.page_of((0.1, -2.95)), 13.0)])
    points = [thing for thing in made.page.things if isinstance(thing, Point)]
    assert axes.plane_of(points[0].form()) == pytest.approx((2, 1))  # type: ignore[attr-defined]
    steeper = followers(made.page, {parabola.id: parabola.replace(source="y = x^2 - 2x - 1")})
    assert axes.plane_of(steeper[points[0].id].form()) == pytest.approx((3, 2))  # type: ignore[attr-defined]
    shifted = followers(made.page, {axes.id: axes.moved(30, 40)})
    assert shifted[points[0].id].form() == pytest.approx((at[0] + 30, at[1] + 40))
    apart = followers(made.page, {line.id: line.replace(source="y = -6")})
    assert "do not meet" in apart[points[0].id].why or apart[points[0].id].why
    assert not any(isinstance(thing, Point | LineThing) for thing in without(made.page, [axes.id]).things)
    assert "the graph of y = x^2 - 3" in sentence(made.page, points[0])


def test_a_point_on_a_graph_slides_and_an_equation_that_leaves_its_axes_takes_it_away() -> None:
    loose = page_of()
    page = loose.put(Equation(source="y = x^2 - 3", placement=Placement(150, 120)))
    axes, parabola = page.things
    pick = point_at(page, [axes], (AXES.page_of((1, -2))[0] + 6, AXES.page_of((1, -2))[1]), 13.0)
    assert pick.why == "on the line" and pick.fresh is not None
    page = settle(page.put(pick.fresh.replace(name="P")))
    point = page.things[-1]
    x, y = AXES.plane_of(point.form())  # type: ignore[attr-defined]
    assert y == pytest.approx(x * x - 3)
    away = page.with_things({parabola.id: parabola.moved(2000, 0)})
    assert settle(away, page).things[-1].why  # type: ignore[attr-defined]
    gone = page.with_things({axes.id: axes.moved(2000, 0)})
    assert settle(gone, page).things[-1].why  # type: ignore[attr-defined]


def test_a_graph_is_a_curve_but_no_figure() -> None:
    page = page_of("y = 1")
    at = AXES.page_of((1, 1))
    assert form_at(page, page.things, at, 10.0, "curve") is not None
    assert form_at(page, page.things, at, 10.0, "figure") is None
    assert form_at(page, page.things, at, 10.0, "line") is None


WIDE = Axes(id="ax", placement=Placement(100, 80), width=480, height=400, x_min=-10, x_max=10, y_min=-10, y_max=10)


@pytest.mark.parametrize(
    ("one", "other", "wanted"),
    [
        ("x", "1/(x-2)", [1 - math.sqrt(2), 1 + math.sqrt(2)]),
        ("x", "floor(x)+0.5", [k - 0.5 for k in range(-9, 11)]),
        ("-x/2+1", "tan(x)", [-8.050412, -4.991028, -2.03133, 0.608027, 2.772845, 5.262352, 8.16756]),
        ("x^2", "tan(x)", [-1.853927, 0]),
        ("x^2+0.0001", "1/(x-2)^2", [-0.414111, 0.992878, 1.007022, 2.414211]),
        ("1/(x-2)^2", "sqrt(x+4)", [-3.999228, 1.342237, 2.623348]),
        ("x floor(x)", "x^2", [-3, -2, -1, 0, 1, 2, 3]),
        ("sqrt(x-1)", "0", [1]),
        ("abs(x-0.013)+1", "1", [0.013]),
        ("(x^2-1)/(x-1)", "2", []),
        ("2x-1.0001", "2x-1", []),
        ("1/x", "0", []),
    ],
)
def test_graphs_meet_where_they_do_and_only_there_whichever_is_first(one: str, other: str, wanted: list[float]) -> None:
    page = page_of(f"y = {one}", f"y = {other}", axes=WIDE)
    for first, second in ((1, 2), (2, 1)):
        try:
            found = met(page, graph_of(page, first), graph_of(page, second))
        except NotThere:
            found = []
        assert [x for x, _y in found] == pytest.approx(wanted, abs=2e-6)


@pytest.mark.parametrize(
    ("one", "other", "wanted"),
    [
        ("x^2 + y^2 = 9", "y = x", [(-(4.5**0.5), -(4.5**0.5)), (4.5**0.5, 4.5**0.5)]),
        ("x^2 + y^2 = 9", "x = 2", [(2, -(5**0.5)), (2, 5**0.5)]),
        ("x^2 = 4", "y = 1", [(-2, 1), (2, 1)]),
        ("x^2 + y^2 = 9", "y = 10", []),
        ("x^2 + y^2 = 9", "x^2 + y^2 = 9", []),
    ],
)
def test_curves_that_are_not_solved_meet_too_whichever_is_first(
    one: str, other: str, wanted: list[tuple[float, float]]
) -> None:
    page = page_of(one, other, axes=WIDE)
    for first, second in ((1, 2), (2, 1)):
        try:
            found = sorted(met(page, graph_of(page, first), graph_of(page, second)))
        except NotThere:
            found = []
        assert close(found, wanted)


def test_facts_of_a_line_that_was_solved_for_y_are_exact() -> None:
    from larch.core.model.page import Page
    from larch.core.things.graphs.equation import Equation

    facts = {fact.name: fact.text for fact in Equation(source="x + y <= 8").facts(Page(id="p1"))}
    assert (facts["gradient"], facts["intercept"]) == ("−1", "8")


# Curves that a letter of their own runs through


@settings(max_examples=25)
@given(st.floats(-2.5, 2.5), st.floats(1.0, 4.0))
def test_a_line_meets_a_run_through_circle_where_it_meets_the_circle(height: float, radius: float) -> None:
    radius, height = round(radius, 3), round(height, 3)
    assume(abs(abs(height) - radius) > 0.05)
    page = page_of(f"({radius} cos t, {radius} sin t)", f"y = {height}")
    if abs(height) > radius:
        with pytest.raises(NotThere):
            meetings(graph_of(page, 1), graph_of(page, 2))
        return
    axes = page.things[0]
    assert isinstance(axes, Axes)
    across = math.sqrt(radius**2 - height**2)
    for order in ((1, 2), (2, 1)):
        found = sorted(axes.plane_of(p) for p in meetings(graph_of(page, order[0]), graph_of(page, order[1])))
        assert len(found) == 2
        for (x, y), wanted in zip(found, (-across, across), strict=True):
            assert (x, y) == pytest.approx((wanted, height), abs=1e-7)


def test_a_rose_and_a_circle_meet() -> None:
    page = page_of("r = 2cos(3θ)", "x^2 + y^2 = 1", "(cos t, sin t)")
    axes = page.things[0]
    assert isinstance(axes, Axes)
    for pair in ((1, 2), (2, 1), (1, 3), (3, 1)):
        found = {
            tuple(round(v, 6) + 0.0 for v in axes.plane_of(p))
            for p in meetings(graph_of(page, pair[0]), graph_of(page, pair[1]))
        }
        wanted = {
            (round(math.cos(a), 6) + 0.0, round(math.sin(a), 6) + 0.0)
            for a in (math.radians(120 * k + by) for k in range(3) for by in (-20, 20))
        }
        assert found == wanted, pair


@settings(max_examples=20)
@given(st.floats(0.1, 6.0))
def test_the_tangent_of_a_cycloid_goes_through_the_top_of_its_circle(t: float) -> None:
    """Known of a cycloid (t − sin t, 1 − cos t): its tangent goes through (t, 2), where its circle is highest."""
    from larch.core.figures.rule_makers import touching

    page = page_of("(t - sin t, 1 - cos t)", axes=AXES.replace(x_min=-1.0, x_max=9.0))
    axes, graph = page.things[0], graph_of(page)
    assert isinstance(axes, Axes)
    at, way = touching(graph, graph.place(t))
    (x, y), (bx, by) = axes.plane_of(at), axes.plane_of((at[0] + way[0], at[1] + way[1]))
    cross = (bx - x) * (2 - y) - (by - y) * (t - x)
    assert abs(cross) < 1e-4 * math.hypot(bx - x, by - y)


def test_it_is_measured_from_the_end_of_a_curve_that_ends() -> None:
    page = page_of("(t, t)")
    thing = page.things[1]
    page = page.with_things({thing.id: thing.replace(span=(0.0, 1.0))})
    axes, graph = page.things[0], graph_of(page)
    assert isinstance(axes, Axes)
    (off,) = graph.offs([axes.page_of((2.0, 2.0))])
    assert abs(off) == pytest.approx(math.dist(axes.page_of((2, 2)), axes.page_of((1, 1))))


def test_a_point_is_bound_to_a_run_through_curve_and_stays_on_it() -> None:
    page = page_of("(3cos t, 2sin t)")
    graph = graph_of(page)
    t = parameter(graph, graph.place(1.0))
    assert distance(graph, on_form(graph, t)) < 1e-3
    assert t == pytest.approx(1.0, abs=1e-3)


def test_on_logarithmic_axes_a_graph_lies_where_it_is_drawn() -> None:
    axes = AXES.replace(x_min=1.0, x_max=1000.0, y_min=1.0, y_max=1000.0, x_marks="log", y_marks="log")
    page = page_of("y = x", "(t, t^2)", axes=axes)
    thing = page.things[2]
    page = page.with_things({thing.id: thing.replace(span=(1.0, 100.0))})
    made = page.things[0]
    assert isinstance(made, Axes)
    for k, value in ((1, (30.0, 30.0)), (2, (30.0, 900.0))):
        assert distance(graph_of(page, k), made.page_of(value)) < 0.1
