"""Constructing by taps and drags, through real mouse events on the canvas."""

from __future__ import annotations

import math

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.board.gestures.base import Prompt
from larch.board.tools.construct import ConstructTool
from larch.core.base.shape import Placement
from larch.core.figures.rules import RULES
from larch.core.model.edit import Edit
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.line import Line
from larch.core.things.geometry.point import Point
from larch.core.things.geometry.polygon import Polygon, polygon_on
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from larch.desk.window import Window
from tests.board.test_tools import Hand


@pytest.fixture
def hand(window: Window) -> Hand:
    made = Hand(window)
    made.put()
    window.run("paper plain") if any(c.name == "paper plain" for c in window.commands.listed) else None
    return made


def kinds(hand: Hand) -> list[str]:
    return [thing.kind() for thing in hand.canvas.page.things]


def prompt(hand: Hand) -> str:
    tool = hand.window.ledge.tool("construct")
    return next(mark.text for mark in hand.canvas.overlay.marks.get(tool, ()) if isinstance(mark, Prompt))


def named(hand: Hand, name: str):  # type: ignore[no-untyped-def]
    return next(thing for thing in hand.canvas.page.things if thing.name == name)


def test_a_drag_joins_two_new_points(hand: Hand) -> None:
    hand.window.hand.construct("segment")
    assert prompt(hand) == "Segment: tap one end"
    hand.drag((200, 400), (500, 300))
    assert kinds(hand) == ["line", "point", "point"]  # points lie on top, where they can be touched
    assert [thing.name for thing in hand.canvas.page.things[1:]] == ["A", "B"]
    hand.window.undo()
    assert kinds(hand) == []  # one step


def test_two_taps_do_as_well_and_the_question_changes(hand: Hand) -> None:
    hand.window.hand.construct("circle")
    hand.tap(300, 300)
    assert prompt(hand) == "Circle through a point: tap a point on the rim"
    assert kinds(hand) == []
    hand.tap(420, 300)
    circle = next(thing for thing in hand.canvas.page.things if isinstance(thing, Circle))
    assert circle.radius == pytest.approx(120, abs=2)


def test_what_is_there_is_used_again(hand: Hand) -> None:
    hand.window.hand.construct("segment")
    hand.drag((200, 400), (500, 400))
    hand.drag((500, 400), (380, 200))
    hand.drag((380, 200), (200, 400))
    assert kinds(hand).count("point") == 3
    hand.window.hand.construct("bisector")
    hand.tap(200, 400)
    hand.tap(500, 400)
    line = next(thing for thing in hand.canvas.page.things if getattr(thing, "rule", "") == "bisector")
    assert line.form().a[0] == pytest.approx(350, abs=2)
    hand.window.ledge.take("select")
    hand.drag((500, 400), (600, 400))
    line = hand.canvas.page.thing(line.id)
    assert line.form().a[0] == pytest.approx(400, abs=3)


def test_crossings_corners_and_places_on_lines_are_found(hand: Hand) -> None:
    hand.put(
        Circle(radius=100, placement=Placement(400, 400)),
        Line(ends=((200.0, 400.0), (600.0, 400.0))),
        polygon_on(hand.canvas.page, [(700.0, 500.0), (900.0, 500.0), (800.0, 300.0)]),
    )
    hand.window.hand.construct("point")
    hand.tap(500, 400)
    assert hand.canvas.page.things[-1].rule == "meet"
    assert hand.canvas.page.things[-1].form() == pytest.approx((500, 400), abs=1e-6)
    hand.tap(240, 402)
    assert hand.canvas.page.things[-1].rule == "on"
    assert hand.canvas.page.things[-1].form().y == pytest.approx(400)
    hand.window.hand.construct("midpoint")
    hand.tap(700, 500)
    hand.tap(900, 500)
    assert hand.canvas.page.things[-1].form() == pytest.approx((800, 500), abs=1e-6)
    assert all(ref.startswith("t3:") for ref in hand.canvas.page.things[-1].of)


def test_a_side_serves_as_a_line_and_a_miss_is_said(hand: Hand) -> None:
    hand.put(polygon_on(hand.canvas.page, [(300.0, 500.0), (600.0, 500.0), (420.0, 260.0)]))
    hand.window.hand.construct("perpendicular")
    hand.tap(420, 260)
    hand.tap(900, 150)  # nothing is there
    captions = [
        mark.text
        for marks in hand.canvas.overlay.marks.values()
        for mark in marks
        if hasattr(mark, "at") and hasattr(mark, "text")
    ]
    assert any("nothing like that" in text for text in captions)
    assert len(hand.canvas.page.things) == 1
    hand.tap(380, 500)
    made = next(thing for thing in hand.canvas.page.things if getattr(thing, "rule", "") == "perpendicular")
    assert made.of == ("t1:2", "t1/0")
    assert made.form().way[0] == pytest.approx(0, abs=1e-9)


def test_a_polygon_by_its_corners_is_closed_at_the_first(hand: Hand) -> None:
    hand.window.hand.construct("polygon")
    for place in ((300, 300), (500, 280), (560, 420), (360, 460)):
        hand.tap(*place)
    assert prompt(hand).endswith("or the first to close")
    hand.tap(300, 300)
    (shape,) = hand.canvas.page.things
    assert isinstance(shape, Polygon)
    assert len(shape.vertices) == 4
    assert shape.corner_names() == list("ABCD")
    assert hand.window.ledge.tool("construct").picks == []


def test_a_polygon_on_points_follows_them(hand: Hand) -> None:
    hand.put(*(Point(placement=Placement(x, y)) for x, y in ((300, 300), (500, 300), (400, 460))))
    hand.window.hand.construct("polygon")
    for place in ((300, 300), (500, 300), (400, 460), (300, 300)):
        hand.tap(*place)
    shape = next(thing for thing in hand.canvas.page.things if isinstance(thing, Polygon))
    assert shape.rule == "polygon"
    assert shape.letters == "ABC"


def test_a_shape_drawn_by_hand_closes_itself(hand: Hand) -> None:
    hand.window.hand.construct("drawn")
    centre, radius = (500, 350), 120
    places = [(centre[0] + radius * math.cos(t / 20 * 6.2), centre[1] + radius * math.sin(t / 20 * 6.2)) for t in range(21)]
    QTest.mousePress(hand.canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, hand.at(*places[0]))
    from tests.board.test_tools import move

    for place in places[1:]:
        move(hand.canvas, hand.at(*place))
    QTest.mouseRelease(hand.canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, hand.at(*places[-1]))
    (shape,) = hand.canvas.page.things
    area = next(fact.value for fact in shape.facts(hand.canvas.page) if fact.name == "area")
    assert area == pytest.approx(math.pi * radius**2 / 32**2, rel=0.05)
    assert shape.sort() == "shape drawn by hand"
    hand.tap(200, 200)  # a tap encloses nothing
    assert len(hand.canvas.page.things) == 1


def test_a_tap_on_axes_plots_a_point_on_the_grid(hand: Hand) -> None:
    hand.put(Axes(placement=Placement(300, 150)))
    axes = hand.canvas.page.things[0]
    hand.window.hand.construct("point")
    x, y = axes.page_of((2, 3))
    hand.tap(x + 4, y - 3)
    point = hand.canvas.page.things[-1]
    assert point.rule == "plotted"
    assert point.values == (2, 3)


def test_the_nearer_of_two_meetings_is_meant(hand: Hand) -> None:
    hand.put(Circle(radius=100, placement=Placement(400, 400)), Line(ends=((200.0, 400.0), (600.0, 400.0)), reach="line"))
    hand.window.hand.construct("meet")
    hand.tap(400, 300)
    hand.tap(310, 400)
    assert hand.canvas.page.things[-1].form().x == pytest.approx(300)


def test_a_preview_is_seen_and_leaves_no_trace_when_given_up(hand: Hand) -> None:
    hand.window.hand.construct("circle")
    QTest.mousePress(hand.canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, hand.at(400, 300))
    from tests.board.test_tools import move

    move(hand.canvas, hand.at(500, 300))
    shown = [thing.kind() for lift in hand.canvas._lifts.values() for thing in lift.new]
    assert "circle" in shown
    hand.canvas.pointers.cancel()
    assert not hand.canvas._lifts
    assert kinds(hand) == []


@pytest.mark.parametrize("name", [*RULES, "point", "drawn", "locus"])
def test_every_construction_asks_for_what_it_needs(hand: Hand, name: str) -> None:
    hand.window.hand.construct(name)
    tool = hand.window.ledge.tool("construct")
    assert isinstance(tool, ConstructTool)
    assert tool.mode == name
    assert prompt(hand).strip().endswith(tool.question())
    hand.tap(500, 300)  # whatever it is, nothing breaks
    hand.tap(640, 380)
    hand.tap(560, 470)
    hand.window.ledge.take("select")
    assert tool.picks == []


def test_dragging_a_vertex_moves_dependants_in_the_same_frame(hand: Hand) -> None:
    hand.put(*(Point(placement=Placement(x, y)) for x, y in ((300, 300), (500, 300))))
    a, b = (thing.id for thing in hand.canvas.page.things)
    hand.window.canvas.select([a, b])
    from larch.core.model.action import actions_for

    joined = next(
        action for action in actions_for(hand.canvas.page, hand.canvas.things()) if action.name == "construct midpoint"
    )
    hand.canvas.do(joined)
    middle = hand.canvas.page.things[-1].id
    hand.canvas.select(())
    QTest.mousePress(hand.canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, hand.at(500, 300))
    from tests.board.test_tools import move

    move(hand.canvas, hand.at(560, 300))
    move(hand.canvas, hand.at(600, 340))
    seen = hand.canvas.preview_page().thing(middle).form()
    assert seen == pytest.approx((450, 320), abs=6)
    QTest.mouseRelease(hand.canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, hand.at(600, 340))
    assert hand.canvas.page.thing(middle).form() == pytest.approx((450, 320), abs=6)


def test_two_graphs_on_axes_meet_by_taps(hand: Hand) -> None:
    axes = Axes(placement=Placement(200, 150), width=480, height=400)
    hand.put(
        axes,
        Equation(source="y = x^2 - 3", placement=Placement(800, 150)),
        Equation(source="y = x - 1", placement=Placement(800, 250)),
    )
    page = hand.canvas.page
    axes = page.things[0]
    links = {thing.id: thing.replace(axes=axes.id) for thing in page.things if isinstance(thing, Equation)}
    hand.canvas.commit(Edit("link", page, page.with_things(links)))
    hand.window.hand.construct("meet")
    for x in (1.0, 3.0):  # a place on the parabola, one on the line; each away from the other
        y = x * x - 3 if x == 1.0 else x - 1
        hand.tap(*axes.page_of((x, y)))
    point = next(thing for thing in hand.canvas.page.things if isinstance(thing, Point))
    assert axes.plane_of(point.form()) == pytest.approx((2, 1))


def test_what_was_picked_may_be_gone_by_then(hand: Hand) -> None:
    said: list[str] = []
    hand.canvas.said.connect(said.append)
    hand.put(Circle(radius=100, placement=Placement(400, 400)))
    hand.window.hand.construct("rotate")
    hand.tap(400, 300)
    page = hand.canvas.page
    hand.canvas.commit(Edit("gone", page, page.replace(things=())))
    tool = hand.window.ledge.tool("construct")
    for k in range(1, len(tool.takes())):
        hand.tap(700 + 40 * k, 500 - 60 * k)
    assert "circle" not in kinds(hand)
    assert "gone" in said[-1]
