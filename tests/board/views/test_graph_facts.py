"""What the worker finds about a graph: told on the facts card, and by a tap on the curve."""

from __future__ import annotations

from pytestqt.qtbot import QtBot

from larch.board.marks import marks
from larch.board.views import view_of
from larch.board.views.graphs.graph_facts import marks_of
from larch.core.base.shape import Placement
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from tests.board.test_tools import Hand

AXES = Axes(x_min=-6, x_max=6, y_min=-5, y_max=5, width=480, height=400, placement=Placement(100, 120))


def put(hand: Hand, source: str) -> str:
    return hand.put(AXES, Equation(source=source, axes="t1", placement=Placement(700, 150)))[1]


def facts(hand: Hand, id: str) -> dict[str, str]:
    thing = hand.thing(id)
    return {fact.name: fact.text for fact in view_of(thing).stated(thing, hand.canvas.page)}


def test_the_facts_come_when_the_worker_has_found_them(hand: Hand, qtbot: QtBot) -> None:
    id = put(hand, "y = (x - 1)^2 - 4")
    facts(hand, id)
    qtbot.waitUntil(lambda: {"graph zero", "graph range"} <= facts(hand, id).keys(), timeout=8000)
    found = facts(hand, id)
    assert found["graph zero"] == "−1; 3"
    assert found["graph minimum"] == "(1; −4)"
    assert found["graph range"] == "y ≥ −4"
    hand.canvas.select([id])
    hand.window.shows("facts")
    card = hand.window.facts
    card.want(True)
    assert "range" in [row.name.removeprefix("graph ") for row in card._rows]


def test_a_curve_of_another_kind_has_none(hand: Hand) -> None:
    assert facts(hand, put(hand, "x^2 + y^2 = 9")) == {}
    assert facts(hand, put(hand, "y > x")) == {}


def test_a_tap_near_a_minimum_says_what_it_is_and_another_takes_it_away(hand: Hand, qtbot: QtBot) -> None:
    id = put(hand, "y = (x - 1)^2 - 4")
    hand.window.go_to_board()
    qtbot.waitUntil(lambda: bool(marks_of(hand.thing(id), hand.canvas.page)), timeout=8000)
    spot = AXES.page_of((1.1, -3.99))
    hand.tap(*spot)
    assert [name for name in hand.thing(id).shown if name.startswith("told minimum")]
    before = hand.canvas.grab().toImage()
    hand.tap(*spot)
    assert hand.thing(id).shown == ()
    assert hand.canvas.grab().toImage() != before
    hand.tap(*AXES.page_of((2.2, -2.56)))  # nothing stands out there
    assert hand.thing(id).shown == ()
    assert hand.canvas.selection == (id,)


def test_what_is_known_already_is_not_asked_again(hand: Hand, qtbot: QtBot) -> None:
    id = put(hand, "y = x^3 - x")
    facts(hand, id)
    qtbot.waitUntil(lambda: "graph range" in facts(hand, id), timeout=8000)
    asked = len(marks.asked())
    for _again in range(5):
        facts(hand, id)
    assert len(marks.asked()) == asked
