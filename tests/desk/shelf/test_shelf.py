"""The shelf: drawings found and put out, organisers put out whole."""

from __future__ import annotations

import pytest
from PyQt6.QtGui import QGuiApplication

from larch.core.things.pictures.picture import Picture
from larch.desk.finder.findable import pictures_found
from larch.desk.window import Window
from tests.board.test_tools import Hand


@pytest.fixture
def hand(window: Window) -> Hand:
    made = Hand(window)
    made.put()
    return made


def test_the_shelf_finds_drawings_and_puts_them_out(hand: Hand) -> None:
    window = hand.window
    window.show_shelf(True)
    window.shelf.search.setText("laterne")
    labels = [card.item.label for card in window.shelf.cards]
    assert "red paper lantern" in labels
    window.shelf.cards[labels.index("red paper lantern")].click()
    (picture,) = hand.canvas.page.things
    assert isinstance(picture, Picture) and picture.name == "red paper lantern"
    assert hand.canvas.selection == (picture.id,)
    window.shelf.search.setText("zzqq")
    assert not window.shelf.cards
    window.shelf.choose("Pictures")
    first = len(window.shelf.cards)
    bar = window.shelf._area.horizontalScrollBar()
    assert bar is not None
    for _k in range(3):
        QGuiApplication.processEvents()
        bar.setValue(bar.maximum())
    assert len(window.shelf.cards) > first  # more come as one scrolls
    assert any("lantern" in found.label for found in pictures_found(window.context, "lantern"))


def test_an_organiser_is_put_out_whole_in_one_step(hand: Hand) -> None:
    hand.window.show_shelf(True)
    hand.window.shelf.search.setText("flow chart")
    hand.window.shelf.cards[0].click()
    kinds = [thing.kind() for thing in hand.canvas.page.things]
    assert kinds.count("box") == 5 and kinds.count("connector") == 5
    assert not any(getattr(thing, "why", "") for thing in hand.canvas.page.things)
    hand.window.undo()
    assert not hand.canvas.page.things
