"""Handles that say themselves what they do."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt

from larch.core.base.shape import Placement
from larch.core.things.numbers.block import Block
from larch.core.things.organisers.table import Table
from larch.core.things.pictures.picture import Picture
from larch.desk.window import Window
from tests.board.test_tools import Hand


@pytest.fixture
def hand(window: Window) -> Hand:
    made = Hand(window)
    window.ledge.take("select")
    return made


def place(hand: Hand, id: str) -> tuple[float, float]:
    at = hand.thing(id).placement
    return (round(at.x, 3), round(at.y, 3))


def test_the_trim_marks_of_a_picture_trim_it(hand: Hand) -> None:
    (picture,) = hand.put(Picture(width=200, height=200, placement=Placement(300, 200)))
    hand.canvas.select([picture])
    hand.drag((500, 300), (400, 300))
    assert hand.thing(picture).trim == pytest.approx((0, 0, 0.5, 0), abs=0.02)
    hand.window.undo()
    assert hand.thing(picture).trim == (0, 0, 0, 0)


def test_a_table_takes_along_what_lies_in_it(hand: Hand) -> None:
    table, inside, beside = hand.put(
        Table(placement=Placement(200, 150)), Block(placement=Placement(230, 180)), Block(placement=Placement(900, 500))
    )
    edge = hand.thing(table).box()
    hand.drag((edge.x1 - 20, edge.y1 - 20), (edge.x1 + 80, edge.y1 + 30), Qt.KeyboardModifier.AltModifier)
    assert place(hand, inside)[0] == pytest.approx(330, abs=2) and place(hand, beside) == (900, 500)
