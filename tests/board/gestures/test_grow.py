"""Boxes that grow joined neighbours."""

from __future__ import annotations

from larch.core.base.shape import Placement
from larch.core.things.organisers.box import WordBox
from larch.core.things.organisers.connector import Connector
from tests.board.test_tools import Hand
from tests.samples import sheet


def test_a_press_beside_a_box_grows_a_joined_neighbour_and_a_drag_joins_another(hand: Hand) -> None:
    box, other = hand.put(WordBox(text="lantern", placement=Placement(300, 200)), sheet(300, 500))
    hand.canvas.select([box])
    own = hand.thing(box).box()
    right = (own.x1 + 40, own.centre[1])
    hand.tap(*right)
    grown = [t for t in hand.canvas.page.things if isinstance(t, WordBox) and t.id != box]
    lines = [t for t in hand.canvas.page.things if isinstance(t, Connector)]
    assert len(grown) == 1 and lines[0].of == (box, grown[0].id)
    assert hand.window.editors.open is not None  # its words are typed at once
    hand.window.editors.finish()
    hand.canvas.select([box])
    hand.drag((own.centre[0], own.y1 + 40), (340, 530))
    assert [t.of for t in hand.canvas.page.things if isinstance(t, Connector)][-1] == (box, other)
    hand.canvas.select([box])
    hand.drag((own.x0 - 40, own.centre[1]), (150, 600))
    assert sum(isinstance(t, WordBox) for t in hand.canvas.page.things) == 3
