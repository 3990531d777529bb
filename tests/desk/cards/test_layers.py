"""The list of everything on the page."""

from __future__ import annotations

import pytest

from larch.core.base.shape import Placement
from larch.core.things.papers.sheet import Sheet
from larch.desk.window import Window
from tests.board.test_tools import Hand


@pytest.fixture
def hand(window: Window) -> Hand:
    made = Hand(window)
    made.put()
    return made


def test_the_list_of_layers_finds_what_lies_behind_and_changes_the_order(hand: Hand) -> None:
    low, high = hand.put(
        Sheet(placement=Placement(300, 200), width=80, height=60, name="under"),
        Sheet(placement=Placement(280, 180), width=200, height=160, name="over"),
    )
    hand.window.run("layers")
    card = hand.window._cards["layers"]
    assert card is not None and card.ids == [high, low]
    card.list.setCurrentRow(1)
    assert hand.canvas.selection == (low,)
    card._reordered(1, 0)
    assert [t.id for t in hand.canvas.page.things] == [high, low] and card.ids == [low, high]
    card._reordered(0, 2)
    assert [t.id for t in hand.canvas.page.things] == [low, high]
    card.switch(high, "hidden")
    assert hand.thing(high).hidden
    hand.tap(340, 230)
    assert hand.canvas.selection == (low,)
    card.switch(high, "hidden")
    card.switch(low, "locked")
    assert hand.thing(low).locked and not hand.thing(high).hidden
    card.rename(low, "the answer")
    assert hand.thing(low).name == "the answer"
    card.search.setText("answer")
    assert card.ids == [low]
    hand.window.run("layers")
    assert not card.isVisible()


def test_ink_is_among_the_layers_and_hundreds_of_them_open_quickly(hand: Hand) -> None:
    from tests.samples import stroke

    hand.put(*(stroke(y=100 + k) for k in range(300)))
    hand.window.run("layers")
    assert len(hand.window._cards["layers"].ids) == 300
    rows = hand.window._cards["layers"].list
    made = [rows.itemWidget(rows.item(k)) is not None for k in range(300)]
    assert made[0] and not made[-1]  # rows are made as they are seen
    rows.scrollToBottom()
    assert rows.itemWidget(rows.item(299)) is not None
