"""Figures on axes know their coordinates, gradients and equations; points are plotted by typing."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.base.shape import Placement
from larch.core.figures.on_axes import axes_under, line_equation
from larch.core.figures.settle import carried, settle
from larch.core.model.page import Page
from larch.core.model.scale import Scale
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.line import Line
from larch.core.things.geometry.point import Point, read_pair
from larch.core.things.geometry.polygon import polygon_on
from larch.core.things.graphs.axes import Axes, read_points

AXES = Axes(x_min=-6, x_max=6, y_min=-5, y_max=5, width=384, height=320, placement=Placement(100, 100))


def page_of(*things: object, **fields: object) -> Page:
    return settle(Page(id="p", **fields).put(AXES, *things))  # type: ignore[arg-type]


def facts(page: Page, id: str) -> dict:
    return {fact.name: fact for fact in page.thing(id).facts(page)}


def on(x: float, y: float) -> tuple[float, float]:
    return AXES.page_of((x, y))


@given(st.floats(-6, 6, allow_nan=False), st.floats(-5, 5, allow_nan=False))
def test_the_way_onto_the_axes_and_back(x: float, y: float) -> None:
    assert AXES.plane_of(on(x, y)) == pytest.approx((x, y), abs=1e-8)


@pytest.mark.parametrize(
    ("ends", "gradient", "equation", "distance"),
    [
        (((0, 0), (3, 4)), "1.33", "y = 1.33x", "5"), (((1, 1), (3, 5)), "2", "y = 2x − 1", "4.47"),
        (((-2, 3), (4, 3)), "0", "y = 3", "6"), (((2, -1), (2, 4)), None, "x = 2", "5"),
        (((0, 2), (4, 0)), "−0.5", "y = −0.5x + 2", "4.47"),
        (((0, 1), (1, 2)), "1", "y = x + 1", "1.41"), (((0, 0), (1, -1)), "−1", "y = −x", "1.41"),
    ],
)  # fmt: skip
def test_a_segment_on_axes(ends: tuple, gradient: str | None, equation: str, distance: str) -> None:
    page = page_of(Line(ends=tuple(on(*end) for end in ends)))
    known = facts(page, "t2")
    assert known["equation"].text == equation
    assert known["distance"].text == distance
    if gradient is None:
        assert known["gradient"].value is None
    else:
        assert known["gradient"].text == gradient


def test_exact_gradients_and_circles() -> None:
    page = page_of(
        Line(ends=(on(0, 1), on(3, 2))), Circle(radius=64, placement=Placement(*on(1, -2))), scale=Scale(exact=True)
    )
    assert facts(page, "t2")["equation"].text == "y = (1/3)x + 1"
    assert facts(page, "t3")["equation"].text == "(x − 1)² + (y + 2)² = 4"
    vector = page_of(Line(ends=(on(1, 1), on(-2, 3)), reach="vector"))
    assert facts(vector, "t2")["components"].text == "(−3; 2)"


def test_corners_and_points_know_where_they_lie() -> None:
    corners = [on(0, 0), on(4, 0), on(1, 3)]
    page = page_of(polygon_on(Page(id="p"), corners), Point(name="P", placement=Placement(*on(2.5, -1))))
    assert facts(page, "t2")["at B"].text == "(4; 0)"
    assert facts(page, "t3")["at"].text == "(2.5; −1)"
    moved = facts(page, "t3")["at"].set("(−3; 2,5)")
    assert AXES.plane_of((moved.placement.x, moved.placement.y)) == pytest.approx((-3, 2.5))
    beside = page_of(Point(name="P", placement=Placement(10, 10)))
    assert "at" not in facts(beside, "t2")
    assert axes_under(beside, [(10, 10)]) is None


def test_points_are_plotted_by_typing_and_go_with_their_axes() -> None:
    page = page_of()
    plotted = facts(page, "t1")["plot"].set("(2; 3) (−1,5; 4)")
    assert isinstance(plotted, Page)
    assert [thing.name for thing in plotted.things[1:]] == ["A", "B"]
    assert plotted.thing("t3").form() == pytest.approx(on(-1.5, 4))
    moved = plotted.with_things(carried(plotted, ["t1"], 40, 30))
    assert moved.thing("t3").form() == pytest.approx((on(-1.5, 4)[0] + 40, on(-1.5, 4)[1] + 30))
    dragged = plotted.with_things(carried(plotted, ["t2"], 32, 0))
    assert dragged.thing("t2").values == pytest.approx((3, 3))
    narrower = settle(plotted.with_things({"t1": plotted.thing("t1").replace(x_max=1.0)}), plotted)
    assert narrower.thing("t2").why == "It lies beyond the axes."
    with pytest.raises(ValueError, match="beyond these axes"):
        facts(page, "t1")["plot"].set("(20; 3)")


@pytest.mark.parametrize(
    ("typed", "read"),
    [
        ("(2; 3.5)", (2, 3.5)), ("2 | 3,5", (2, 3.5)), ("-1, 4", (-1, 4)),
        ("(1/2; −3)", (0.5, -3)), ("2 3", (2, 3)), ("(0,5)", (0, 5)),
    ],
)  # fmt: skip
def test_pairs_are_read_as_people_write_them(typed: str, read: tuple) -> None:
    assert read_pair(typed) == pytest.approx(read)


@pytest.mark.parametrize("typed", ["", "5", "(1; 2; 3)", "(a; b)", "lantern", "(" * 200])
def test_what_is_no_pair_is_one_sentence(typed: str) -> None:
    with pytest.raises(ValueError, match=r"\.$"):
        read_pair(typed)
    with pytest.raises(ValueError, match=r"\.$"):
        read_points("(1; 2)" * 500)


def test_a_line_is_written_by_hand() -> None:
    page = Page(id="p")
    assert line_equation(page, 2, -3) == "y = 2x − 3"
    assert line_equation(page, 0, 0) == "y = 0"
