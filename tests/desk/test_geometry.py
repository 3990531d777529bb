"""Geometry at the desk: the steps, the facts that say what moved, the choices of constructions, keys on shapes."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.board.views.measure_labels import laid_out
from larch.core.base.shape import Placement
from larch.core.figures.rules import RULES
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.point import Point
from larch.core.things.geometry.polygon import Polygon, polygon_on
from larch.core.things.words.text import Text
from larch.desk.finder.findable import findable
from larch.desk.toolbar.rule_button import RuleButton, example
from larch.desk.window import Window
from tests.board.test_surface import differing
from tests.board.test_tools import Hand
from tests.desk.test_window import key

KEYS = Qt.Key


@pytest.fixture
def hand(window: Window) -> Hand:
    return Hand(window)


def picture(window: Window):  # type: ignore[no-untyped-def]
    window.canvas.surface.sharpen(5000)
    return window.canvas.surface.base.toImage()


def meeting_place(window: Window) -> None:
    window.show_page("p12")


def type_fact(window: Window, name: str, typed: str) -> None:
    row = next(row for row in window.facts._rows if row.name == name)
    row.value.selectAll()
    QTest.keyClicks(row.value, typed)
    QTest.keyClick(row.value, KEYS.Key_Return)


def test_the_steps_are_listed_played_and_the_page_follows(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    meeting_place(window)
    whole = picture(window)
    window.run("steps")
    card = window._cards["steps"]
    assert card is not None and card.isVisible()
    assert card.list.count() == len(card.steps) == 8
    assert card.steps[-1].words == "Draw the circle about P through A."
    assert "the perpendicular bisector of AB" in card.steps[-2].words
    card.go(3)
    assert differing(picture(window), whole) > 500
    card.buttons["on"].click()
    assert card.done == 4
    card._timer.setInterval(1)
    card.play()
    qtbot.waitUntil(lambda: card.done == 8 and not card._timer.isActive())
    assert differing(picture(window), whole) == 0
    card.go(1)
    card.finish()
    assert differing(picture(window), whole) == 0  # closed, it shows everything again
    assert not card.isVisible()


def test_what_is_gone_is_said_in_the_steps(window: Window) -> None:
    meeting_place(window)
    points = {thing.name: thing for thing in window.canvas.page.things if isinstance(thing, Point)}
    a, b, c = (points[name] for name in "ABC")
    page = window.canvas.page
    flat = page.with_things(
        {c.id: c.replace(placement=Placement(2 * b.placement.x - a.placement.x, 2 * b.placement.y - a.placement.y))}
    )
    from larch.core.model.edit import Edit

    window.canvas.commit(Edit("Move", page, flat))
    assert window.canvas.page.thing(points["P"].id).why == "They are parallel."
    window.run("steps")
    assert any(step.why == "They are parallel." for step in window._cards["steps"].steps)
    window.undo()
    assert not window.canvas.page.thing(points["P"].id).why


def test_a_typed_wish_comes_true_and_says_what_moved(hand: Hand) -> None:
    hand.put(polygon_on(hand.canvas.page, [(200.0, 500.0), (520.0, 500.0), (360.0, 300.0)]))
    hand.canvas.select(["t1"])
    hand.window.facts.want(True)
    type_fact(hand.window, "angle C", "angle C = 90°")
    assert hand.window.facts._said.text().endswith("moved.")
    type_fact(hand.window, "AB", "100")
    assert "can't close" in hand.window.facts._trouble.text()
    assert hand.window.facts._said.text() == ""
    type_fact(hand.window, "share into", "3")
    assert len(hand.canvas.page.things) == 3
    hand.window.undo()
    assert len(hand.canvas.page.things) == 1


def test_the_page_is_given_a_scale_and_every_measure_follows(hand: Hand) -> None:
    hand.put(
        polygon_on(hand.canvas.page, [(200.0, 500.0), (520.0, 500.0), (360.0, 300.0)]),
        Text(text="{AB}", placement=Placement(600, 200)),
    )
    hand.canvas.select(())
    hand.window.facts.want(True)
    type_fact(hand.window, "scale", "1 cm = 5 m")
    known = {fact.name: fact.text for fact in hand.canvas.page.things[0].facts(hand.canvas.page)}
    assert known["AB"] == "50 m"
    assert hand.canvas.page.things[1].told == ("50",)
    type_fact(hand.window, "scale", "as you like")
    assert "4 squares = 1 m" in hand.window.facts._trouble.text()


def test_points_are_plotted_from_the_facts_card(window: Window) -> None:
    window.show_page("p6")
    axes = next(thing for thing in window.canvas.page.things if thing.kind() == "axes")
    window.canvas.select([axes.id])
    before = len(window.canvas.page.things)
    window.facts.want(True)
    fact = next(fact for fact in axes.facts(window.canvas.page) if fact.name == "plot")
    window.facts._change(fact, axes, fact.set("(2; 3) (4; 1,5)"))
    assert [thing.name for thing in window.canvas.page.things[before:]] == ["A", "B"]


@pytest.mark.parametrize("name", RULES)
def test_every_construction_has_a_picture_that_carries_it_out(window: Window, name: str) -> None:
    given, made = example(name)
    assert made is not None, given
    button, plain = RuleButton(name, name, window), RuleButton("point", "point", window)
    assert differing(button.grab().toImage(), plain.grab().toImage()) > 20


def test_a_construction_is_chosen_by_its_picture(window: Window) -> None:
    window.ledge.take("construct")
    tool = window.ledge.tool("construct")
    window.hand.toggle_choices(tool)
    buttons = {
        button.name: button for button in window.choices.findChildren(RuleButton) if button.parent() is window.choices
    }
    assert set(RULES) | {"point", "drawn", "locus"} == set(buttons)
    assert all(button.accessibleName() for button in buttons.values())
    buttons["tangent"].click()
    assert tool.mode == "tangent"
    window.hand.run("construct parallel")
    assert tool.mode == "parallel"


def test_keys_grow_turn_and_recolour_the_shape_in_hand(hand: Hand) -> None:
    hand.put(Polygon(placement=Placement(300, 300)))
    hand.canvas.select(["t1"])
    hand.canvas.setFocus()
    before = hand.canvas.page.thing("t1")
    QTest.keyClicks(hand.canvas, "+")
    assert hand.canvas.page.thing("t1").placement.scale == pytest.approx(1.1)
    QTest.keyClicks(hand.canvas, "]")
    assert hand.canvas.page.thing("t1").placement.turn == pytest.approx(15)
    QTest.keyClicks(hand.canvas, ".")
    assert hand.canvas.page.thing("t1").hue != before.hue
    for _time in range(3):
        hand.window.undo()
    assert hand.canvas.page.thing("t1") == before


def test_badges_keep_out_of_each_others_way(hand: Hand) -> None:
    from larch.board.views.measure_labels import box_at

    shown = ("sides", "angles", "area", "perimeter")
    hand.put(
        polygon_on(hand.canvas.page, [(160.0, 500.0), (420.0, 500.0), (270.0, 290.0)], shown=shown),
        polygon_on(hand.canvas.page, [(420.0, 500.0), (700.0, 470.0), (560.0, 280.0)], shown=shown),
        Circle(radius=70, placement=Placement(520, 560), shown=("radius", "area", "circumference")),
    )
    boxes = [box_at(laid.slip, laid.at) for slips in laid_out(hand.canvas.page).values() for laid in slips]
    assert len(boxes) == 2 * 8 + 3
    overlaps = [(a, b) for i, a in enumerate(boxes) for b in boxes[i + 1 :] if a.grown(-2).meets(b.grown(-2))]
    assert len(overlaps) <= 1, overlaps


def test_a_slip_that_is_pushed_is_painted_anew(hand: Hand) -> None:
    """After any change the picture at rest is the same as one painted from nothing."""
    first = polygon_on(hand.canvas.page, [(200.0, 500.0), (520.0, 500.0), (300.0, 330.0)], shown=("sides", "area"))
    hand.put(first, first.moved(300, 0))
    hand.canvas.surface.sharpen(5000)
    hand.drag((520 + 100, 470), (520 - 120, 440))
    kept = picture(hand.window)
    hand.canvas.repaint_page()
    assert differing(picture(hand.window), kept) == 0


def test_actions_that_cannot_be_done_say_why(hand: Hand) -> None:
    hand.put(
        Polygon(
            placement=Placement(300, 300),
            keeps="",
            vertices=((0.0, 0.0), (70.0, -5.0), (100.0, 50.0), (60.0, 90.0), (5.0, 80.0)),
        )
    )
    hand.canvas.select(["t1"])
    from larch.core.model.action import actions_for

    tessellate = next(a for a in actions_for(hand.canvas.page, hand.canvas.things()) if a.name == "tessellate")
    hand.canvas.do(tessellate)
    assert hand.window.notice.isVisible()
    assert len(hand.canvas.page.things) == 1


def test_the_keyboard_alone_constructs(hand: Hand) -> None:
    hand.put(Point(placement=Placement(300, 300)), Point(placement=Placement(500, 300)))
    hand.canvas.select([thing.id for thing in hand.canvas.page.things])
    found = {one.label: one for one in findable(hand.window.context)}
    found["midpoint"].run()
    assert hand.canvas.page.things[-1].rule == "midpoint"
    key(hand.window, KEYS.Key_G)
    assert hand.window.ledge.current.name == "construct"
    hand.window.run("steps")
    assert hand.window._cards["steps"].isVisible()
