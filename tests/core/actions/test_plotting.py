"""An equation gets its graph as soon as it is typed: on which axes, in which hue, and where it stands."""

from __future__ import annotations

from itertools import pairwise

import pytest

from larch.core.actions.equations.plotting import HUES, curve_hue, means_a_graph, plotted
from larch.core.base.shape import Placement
from larch.core.maths.plane.forms import Spot
from larch.core.model.action import actions_for
from larch.core.model.page import Page
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation

SIZE = (180.0, 60.0)
AXES = Axes(placement=Placement(100, 100))


def typed(source: str, x: float, y: float) -> Equation:
    return Equation(source=source, placement=Placement(x, y))


def test_on_the_only_axes_of_the_page_in_the_next_hue() -> None:
    page = Page(id="p").put(AXES)
    axes = page.things[0]
    for k, source in enumerate(["y = x", "y = 2x", "x^2 + y^2 = 4", "f(x) = 3", "(2, 3)", "x y = 2", "y > 1", "y = 4"]):
        made = plotted(page, typed(source, 700, 60 + 70 * k), SIZE)
        assert made.axes == axes.id and made.hue == (HUES[2], *HUES[:2], *HUES[3:])[k]
        assert made.placement == Placement(700, 60 + 70 * k)
        page = page.put(made)


@pytest.mark.parametrize("source", ["2x + 5 = 15", "a = 3", "x", "y = ", "2 + 3 ="])
def test_what_is_not_surely_a_graph_is_left(source: str) -> None:
    page = Page(id="p").put(AXES)
    assert not means_a_graph(typed(source, 700, 60))
    assert plotted(page, typed(source, 700, 60), SIZE) == typed(source, 700, 60)


def test_a_line_of_a_solution_and_a_page_with_two_axes_are_left() -> None:
    page = Page(id="p").put(AXES)
    line = typed("y = 3x", 700, 60).replace(above="t9")
    assert plotted(page, line, SIZE) == line
    two = page.put(Axes(placement=Placement(600, 100)))
    assert plotted(two, typed("y = x", 100, 550), SIZE).axes == ""


def test_what_is_typed_on_axes_goes_beside_them_and_under_each_other() -> None:
    page = Page(id="p").put(AXES)
    box = AXES.box()
    boxes = []
    for source in ("y = x", "y = x + 1", "y = x + 2"):
        made = plotted(page, typed(source, 200, 200), SIZE)
        assert made.axes == page.things[0].id and made.placement.x >= box.x1
        boxes.append((made.placement.y, made.box().y1))
        page = page.put(made)
    assert all(below[0] >= above[1] for above, below in pairwise(boxes))


def test_where_there_is_no_room_it_stays() -> None:
    page = Page(id="p").put(Axes(placement=Placement(0, 0), width=1280, height=720))
    made = plotted(page, typed("y = x", 200, 200), SIZE)
    assert made.axes == page.things[0].id and made.placement == Placement(200, 200)


def test_linking_gives_each_its_own_hue() -> None:
    page = Page(id="p").put(AXES, typed("y = x", 900, 0), typed("y = 2x", 900, 100))
    link = next(action for action in actions_for(page, page.things) if action.name == "link to axes")
    after = link.run(page, page.things).after
    assert isinstance(after, Page)
    assert [thing.hue for thing in after.things[1:]] == ["plum", "lake"]
    assert curve_hue(after, after.things[1], after.things[0]) == "plum"  # type: ignore[arg-type]


def test_a_point_lies_where_it_says() -> None:
    page = Page(id="p").put(AXES)
    for source in ("(2, 3)", "A(2, 3)", "A = (2, 3)", "(2; 3)"):
        form = page.put(typed(source, 700, 60).replace(axes=page.things[0].id)).things[1].form_on(page)
        assert form == Spot(*AXES.page_of((2, 3)))
    assert page.put(typed("(9, 3)", 700, 60).replace(axes=page.things[0].id)).things[1].form_on(page) is None
