"""Instruments under pens, fingers and two fingers, through real events on the canvas."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QEventPoint
from PyQt6.QtTest import QTest

from larch.board.pointer import Sample
from larch.core.base.shape import Placement
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.line import Line
from larch.core.things.geometry.polygon import polygon_on
from larch.core.things.ink.ink import Ink
from larch.core.things.instruments.compasses import Compasses
from larch.core.things.instruments.protractor import RADIUS, Protractor
from larch.core.things.instruments.ruler import Ruler
from tests.board.test_tools import Hand, move
from tests.board.touch import send_touch, touch_device

LEFT, NONE = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier


def drag_through(hand: Hand, *places: tuple[float, float]) -> None:
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(*places[0]))
    for a, b in pairwise(places):
        for k in range(1, 7):
            move(hand.canvas, hand.at(a[0] + (b[0] - a[0]) * k / 6, a[1] + (b[1] - a[1]) * k / 6))
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(*places[-1]))


def newest(hand: Hand):  # type: ignore[no-untyped-def]
    return max(hand.canvas.page.things, key=lambda thing: int(thing.id[1:]))


def finger(hand: Hand, pointer: str, x: float, y: float, time: float = 0.0) -> Sample:
    view = hand.canvas.camera.to_view(x, y)
    return Sample(pointer=pointer, kind="touch", view_pos=view, page_pos=(x, y), time=time)


def test_a_pen_along_the_ruler_draws_straight_ink(hand: Hand) -> None:
    hand.put(Ruler(placement=Placement(300, 400)))
    hand.window.ledge.take("pen")
    drag_through(hand, (332, 394), (420, 380), (460, 398))  # the hand is not steady, the line is
    stroke = newest(hand)
    assert isinstance(stroke, Ink)
    ends = [stroke.placement.to_page(*point) for line, _closed in stroke.edges() for point in line]
    assert {round(y, 3) for _x, y in ends} == {400.0}
    assert max(x for x, _y in ends) == pytest.approx(460, abs=2)


def test_it_can_be_a_figure_that_knows_its_length(hand: Hand) -> None:
    hand.put(Ruler(placement=Placement(300, 400, 30), draws="figure"))
    ruler = newest(hand)
    hand.window.ledge.take("pen")
    drag_through(hand, ruler.placement.to_page(64, -4), ruler.placement.to_page(320, -4))
    segment = newest(hand)
    assert isinstance(segment, Line)
    facts = {fact.name: fact for fact in segment.facts(hand.canvas.page)}
    assert facts["length"].value == pytest.approx(8, abs=0.1)
    assert facts["lean"].value == pytest.approx(30)
    assert segment.shown == ("length",)


def test_a_finger_on_the_body_slides_it_while_the_pen_is_in_hand(hand: Hand) -> None:
    hand.put(Ruler(placement=Placement(300, 400)))
    hand.window.ledge.take("pen")
    drag_through(hand, (420, 436), (470, 476))
    ruler = newest(hand)
    assert (ruler.placement.x, ruler.placement.y) == pytest.approx((350, 440), abs=2)
    assert len(hand.canvas.page.things) == 1  # nothing was drawn
    hand.window.undo()
    assert newest(hand).placement == Placement(300, 400)


def test_two_fingers_slide_and_turn_it_at_the_board_with_any_tool(hand: Hand) -> None:
    for tool in ("select", "pen"):
        hand.put(Ruler(placement=Placement(300, 400)))
        hand.window.ledge.take(tool)
        pointers = hand.canvas.pointers
        pointers.press(finger(hand, "one", 360, 436))
        pointers.press(finger(hand, "two", 660, 436))
        assert len(hand.canvas._lifts) <= 1
        turn = math.radians(40)
        to = (360 + 300 * math.cos(turn), 436 - 300 * math.sin(turn))
        pointers.move(finger(hand, "two", *to))
        pointers.release(finger(hand, "two", *to))
        pointers.release(finger(hand, "one", 360, 436))
        ruler = newest(hand)
        assert ruler.placement.turn == pytest.approx(40, abs=0.5), tool
        held = ruler.placement.to_page(60, 36)
        assert held[1] > 400 and not hand.canvas.pointers.busy
        hand.window.undo()
        assert newest(hand).placement == Placement(300, 400)


def test_the_ring_turns_it_and_falls_onto_a_line(hand: Hand) -> None:
    slope = math.degrees(math.atan2(96, 256))
    hand.put(Ruler(placement=Placement(300, 480)), Line(ends=((340.0, 330.0), (596.0, 234.0))))
    ruler = hand.canvas.page.things[0]
    hand.canvas.select([ruler.id])
    ring = next(handle for handle in ruler.handles() if handle.name == "turn about")
    start = ruler.placement.to_page(ring.x, ring.y)
    away = math.dist(start, (300, 480))
    lean = math.radians(math.degrees(math.atan2(480 - start[1], start[0] - 300)) + slope + 1.2)
    hand.drag(start, (300 + away * math.cos(lean), 480 - away * math.sin(lean)))
    assert hand.canvas.page.things[0].placement.turn == pytest.approx(slope, abs=1e-6)


def test_a_protractor_falls_onto_a_vertex_and_a_pen_at_its_rim_draws_from_there(hand: Hand) -> None:
    hand.put(
        polygon_on(hand.canvas.page, [(400.0, 480.0), (700.0, 480.0), (600.0, 280.0)]),
        Protractor(placement=Placement(330, 420)),
    )
    hand.drag((330, 380), (402, 442))
    protractor = newest(hand)
    assert protractor.centre() == pytest.approx((400, 480))
    reads = next(fact for fact in protractor.facts(hand.canvas.page) if fact.name == "reads")
    assert reads.text == "45°"
    hand.window.ledge.take("pen")
    rim = (400 + RADIUS * math.cos(math.radians(119.7)), 480 - RADIUS * math.sin(math.radians(119.7)))
    drag_through(hand, rim, rim)
    stroke = newest(hand)
    ends = [stroke.placement.to_page(*point) for line, _closed in stroke.edges() for point in line]
    assert ends[0] == pytest.approx((400, 480), abs=0.1)
    assert math.degrees(math.atan2(480 - ends[-1][1], ends[-1][0] - 400)) == pytest.approx(120, abs=0.1)


@pytest.mark.parametrize("tool", ["pen", "select"])
def test_compasses_swung_by_their_knob_draw_a_real_arc(hand: Hand, tool: str) -> None:
    hand.put(Compasses(opening=128, placement=Placement(500, 460)))
    compasses = newest(hand)
    hand.window.ledge.take(tool)
    if tool == "select":
        hand.canvas.select([compasses.id])
    knob = compasses.placement.to_page(*compasses.knob())
    away, first = math.dist(knob, (500, 460)), math.degrees(math.atan2(460 - knob[1], knob[0] - 500))
    places = [
        (500 + away * math.cos(math.radians(first + t)), 460 - away * math.sin(math.radians(first + t)))
        for t in range(0, 61, 10)
    ]
    drag_through(hand, *places)
    arc = newest(hand)
    assert isinstance(arc, Circle)
    assert (arc.piece, arc.radius) == ("arc", 128)
    assert arc.span == pytest.approx(60, abs=2)
    assert arc.form().centre == (500, 460)
    hand.window.undo()
    assert len(hand.canvas.page.things) == 1


def test_swung_all_round_it_is_a_circle(hand: Hand) -> None:
    hand.put(Compasses(opening=64, placement=Placement(600, 400)))
    compasses = newest(hand)
    hand.window.ledge.take("pen")
    knob = compasses.placement.to_page(*compasses.knob())
    away, first = math.dist(knob, (600, 400)), math.degrees(math.atan2(400 - knob[1], knob[0] - 600))
    drag_through(
        hand,
        *(
            (600 + away * math.cos(math.radians(first + t)), 400 - away * math.sin(math.radians(first + t)))
            for t in range(0, 366, 15)
        ),
    )
    assert newest(hand).piece == "circle"


def test_the_opening_is_carried_from_one_place_to_another(hand: Hand) -> None:
    hand.put(
        polygon_on(hand.canvas.page, [(300.0, 500.0), (460.0, 500.0), (380.0, 400.0)]),
        Compasses(opening=100, placement=Placement(600, 480)),
    )
    hand.window.ledge.take("pen")
    drag_through(hand, (600, 480), (302, 498))  # the needle onto A
    compasses = newest(hand)
    assert compasses.needle() == (300, 500)
    drag_through(hand, compasses.pencil(), (458, 503))  # the pencil onto B
    compasses = newest(hand)
    assert compasses.opening == pytest.approx(160)
    drag_through(hand, compasses.needle(), (700, 300))
    assert newest(hand).opening == pytest.approx(160)


def test_a_locked_ruler_stays_and_still_rules(hand: Hand) -> None:
    hand.put(Ruler(placement=Placement(300, 400), locked=True))
    hand.window.ledge.take("pen")
    drag_through(hand, (340, 396), (500, 396))
    assert isinstance(newest(hand), Ink)
    assert hand.canvas.page.things[0].placement == Placement(300, 400)


def test_real_touch_events_move_a_ruler_at_the_board(hand: Hand) -> None:
    hand.put(Ruler(placement=Placement(300, 400)))
    hand.window.go_to_board()
    hand.window.showNormal()
    device, canvas = touch_device(), hand.canvas
    one, two = hand.at(380, 436), hand.at(640, 436)

    def send(state: QEventPoint.State, down: int) -> None:
        send_touch(canvas, device, [(1, state, one.x(), one.y() + down), (2, state, two.x(), two.y() + down)])

    send(QEventPoint.State.Pressed, 0)
    for k in range(1, 6):
        send(QEventPoint.State.Updated, 8 * k)
    send(QEventPoint.State.Released, 40)
    moved = newest(hand)
    assert moved.placement.y == pytest.approx(400 + 40 / canvas.camera.scale, abs=3)
    assert moved.placement.turn == pytest.approx(0, abs=1e-6)
    hand.window.go_to_desk()
