"""Geometry by keys and by actions that say why not."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.core.base.shape import Placement
from larch.core.things.geometry.point import Point
from larch.core.things.geometry.polygon import Polygon
from larch.desk.finder.findable import findable
from tests.board.test_tools import Hand
from tests.desk.test_window import key

KEYS = Qt.Key


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
