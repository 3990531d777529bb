"""Arrangements by name, and a page of contents."""

from __future__ import annotations

import pytest

from larch.core.base.shape import Placement
from larch.core.things.numbers.block import Block
from larch.desk.commands.arrange import remember
from larch.desk.finder.findable import findable
from larch.desk.window import Window
from tests.board.test_tools import Hand


@pytest.fixture
def hand(window: Window) -> Hand:
    made = Hand(window)
    made.put()
    return made


def test_arrangements_are_remembered_by_name(hand: Hand) -> None:
    (block,) = hand.put(Block(placement=Placement(100, 100)))
    remember(hand.window.context, "start")
    hand.drag(hand.thing(block).box().centre, (600, 400))
    remember(hand.window.context, "end")
    found = {one.label: one for one in findable(hand.window.context)}
    found["set out again: start"].run()
    assert (hand.thing(block).placement.x, hand.thing(block).placement.y) == (100, 100)
    {one.label: one for one in findable(hand.window.context)}["set out again: end"].run()
    assert hand.thing(block).placement.x > 400


def test_a_page_of_contents_leads_to_every_titled_page(hand: Hand) -> None:
    window = hand.window
    window.run("contents")
    links = [thing.link for thing in hand.canvas.page.things if thing.link]
    titled = [page.id for page in window.session.lesson.pages[1:] if page.title]
    assert links[: len(titled)] == [f"#{id}" for id in titled][: len(links)] and links
    window.undo()
    assert window.session.lesson.pages[0].title != "Contents"
