"""At the Board, with one finger alone: a line entered beside axes, moved, met by another; sliders, tables, staircases."""

from __future__ import annotations

import pytest

from larch.core.base.shape import Placement
from larch.core.maths.layout.reading import meaning
from larch.core.things.geometry.point import Point
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import TOLD_AT, Equation
from larch.core.things.graphs.slider import Slider
from larch.core.things.graphs.staircase import Staircase
from larch.core.things.graphs.value_table import ValueTable
from tests.board.test_tools import Hand
from tests.desk.flows.finger import Finger, at_the_board

AXES = Axes(x_min=-6, x_max=6, y_min=-5, y_max=5, width=480, height=400, placement=Placement(100, 120))
BESIDE = Placement(700, 150)


@pytest.fixture
def finger(hand: Hand) -> Finger:
    return at_the_board(hand)


def put(hand: Hand, *things: object) -> list[str]:
    from larch.core.model.action import put as put_out

    hand.canvas.commit(put_out(hand.canvas.page, things, "put"))  # type: ignore[arg-type]
    hand.canvas.select(())
    hand.window.ledge.take("select")
    return [thing.id for thing in hand.canvas.page.things]


def at(hand: Hand, x: float, y: float) -> tuple[float, float]:
    axes = next(thing for thing in hand.canvas.page.things if isinstance(thing, Axes))
    return axes.page_of((x, y))


def source(hand: Hand, id: str) -> str:
    found = hand.thing(id)
    assert isinstance(found, Equation)
    return found.source


def test_a_line_tapped_in_beside_axes_is_drawn_and_dragged_through_a_pupils_point(hand: Hand, finger: Finger) -> None:
    put(hand, AXES)
    axes = hand.canvas.page.things[0].id
    put(hand, Point(rule="plotted", of=(axes,), values=(4.0, -1.0), name="P"))
    hand.window.ledge.take("equation")
    finger.tap_page(*BESIDE.to_page(0, 0))
    finger.keys("y", "equals", "fraction", "3", "to the right", "4", "to the right", "x", "minus", "6")
    hand.window.editors.finish()
    line = hand.canvas.page.things[-1]
    assert isinstance(line, Equation) and line.axes == axes
    hand.window.ledge.take("select")
    finger.drag_page(at(hand, 3.2, -3.6), at(hand, 4.1, -1.1))
    assert meaning(source(hand, line.id)) == meaning("y = 3/4 x - 4")
    hand.window.undo()
    assert meaning(source(hand, line.id)) == meaning("y = 3/4 x - 6")
    finger.drag_page(at(hand, 2, -4.5), at(hand, 4.1, -1.1))  # by the ring that turns it
    assert meaning(source(hand, line.id)) == meaning("y = 5/4 x - 6")


def test_two_lines_are_met_by_two_taps(hand: Hand, finger: Finger) -> None:
    put(hand, AXES)
    axes = hand.canvas.page.things[0].id
    put(hand, Equation(source="y = x - 1", axes=axes, placement=BESIDE))
    put(hand, Equation(source="(3cos t, 2sin t)", axes=axes, placement=BESIDE.moved(0, 90)))
    hand.window.hand.construct("meet")
    finger.tap_page(*at(hand, -3, -4))
    finger.tap_page(*at(hand, 0, 2))
    found = [thing for thing in hand.canvas.page.things if isinstance(thing, Point)]
    assert found
    for point in found:
        form = point.form_on(hand.canvas.page)
        x, y = hand.thing(axes).plane_of((form.x, form.y))  # type: ignore[union-attr]
        assert y == pytest.approx(x - 1, abs=1e-6)
        assert (x / 3) ** 2 + (y / 2) ** 2 == pytest.approx(1, abs=1e-6)


def test_a_tap_on_a_curve_says_what_stands_out_there(hand: Hand, finger: Finger, qtbot) -> None:  # type: ignore[no-untyped-def]
    put(hand, AXES)
    axes = hand.canvas.page.things[0].id
    id = put(hand, Equation(source="r = 1 + 2cos(θ)", axes=axes, placement=BESIDE))[-1]
    from larch.board.views.graphs.graph_facts import marks_of

    qtbot.waitUntil(lambda: bool(marks_of(hand.thing(id), hand.canvas.page)), timeout=8000)
    finger.tap_page(*at(hand, 3.0, 0.02))
    assert [name for name in hand.thing(id).shown if name.startswith(TOLD_AT)] == [f"{TOLD_AT}zero 3"]


def test_a_slider_runs_along_under_the_finger(hand: Hand, finger: Finger) -> None:
    put(hand, AXES)
    axes = hand.canvas.page.things[0].id
    ids = put(
        hand, Equation(source="y = a x", axes=axes, placement=BESIDE),
        Slider(letter="a", value=1, low=-5, high=5, placement=Placement(700, 300)),
    )  # fmt: skip
    slider = hand.thing(ids[-1])
    thumb = slider.part_place(slider.parts()[0])
    start = slider.placement.to_page(*thumb)
    finger.drag_page(start, (start[0] + 60, start[1]))
    assert hand.thing(ids[-1]).value > 1
    told = dict(hand.thing(ids[-2]).told)
    assert float(told["a"]) == pytest.approx(hand.thing(ids[-1]).value)


def test_a_row_of_a_table_is_tapped_in_and_its_dot_dragged(hand: Hand, finger: Finger) -> None:
    put(hand, AXES)
    axes = hand.canvas.page.things[0].id
    id = put(hand, ValueTable(xs=("1",), ys=("2",), axes=axes, placement=BESIDE))[-1]
    finger.drag_page(at(hand, 1, 2), at(hand, 3, -1))
    table = hand.thing(id)
    assert (table.xs[0], table.ys[0]) == ("3", "-1")


def test_the_first_member_of_a_staircase_is_dragged(hand: Hand, finger: Finger) -> None:
    put(hand, AXES)
    axes = hand.canvas.page.things[0].id
    line = put(hand, Equation(source="y = x/2 + 1", axes=axes, placement=BESIDE))[-1]
    id = put(hand, Staircase(equation=line, start=1, placement=BESIDE.moved(0, 120)))[-1]
    finger.drag_page(at(hand, 1, 0), at(hand, -4, 0))
    assert hand.thing(id).start == -4


def test_a_rule_becomes_a_staircase_with_the_first_member_it_has(hand: Hand, finger: Finger) -> None:
    put(hand, AXES)
    axes = hand.canvas.page.things[0].id
    put(hand, Equation(source="a_1 = 4", placement=BESIDE))
    id = put(hand, Equation(source="a_(n+1) = a_n/2 + 1", axes=axes, placement=BESIDE.moved(0, 90)))[-1]
    hand.canvas.select([id])
    action = next(one for one in hand.window.tag.actions_now if one.name == "staircase")
    hand.canvas.commit(action.run(hand.canvas.page, (hand.thing(id),)))
    stairs = hand.canvas.page.things[-1]
    assert isinstance(stairs, Staircase) and stairs.start == 4
    assert meaning(source(hand, stairs.equation)) == meaning("y = x/2 + 1")
    finger.drag_page(at(hand, 4, 0), at(hand, 2, 0))
    assert hand.thing(stairs.id).start == 2
