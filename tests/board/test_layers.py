"""What is hidden, and what lies above what."""

from __future__ import annotations

from larch.core.model.edit import Edit
from tests.board.test_tools import Hand
from tests.samples import sheet


def test_hidden_things_are_neither_seen_nor_touched_and_can_be_shown_again(hand: Hand) -> None:
    under, over = hand.put(sheet(300, 200, 200, 200), sheet(320, 220, 100, 100))
    hand.canvas.select([over])
    hide = next(a for a in hand.window.tag.actions_now if a.name == "hide")
    hand.canvas.do(hide)
    hand.tap(360, 260)
    assert hand.canvas.selection == (under,)
    hand.window.run("show hidden")
    hand.tap(360, 260)
    assert hand.canvas.selection == (over,)


def test_layers_follow_a_change_of_depth(hand: Hand) -> None:
    a, b = hand.put(sheet(300, 200, 200, 200), sheet(320, 220, 100, 100))
    page = hand.canvas.page
    hand.canvas.commit(Edit("order", page, page.replace(things=tuple(reversed(page.things)))))
    hand.tap(360, 260)
    assert hand.canvas.selection == (a,) and b
