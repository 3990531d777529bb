"""What is kept on the shelf for other lessons."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint
from PyQt6.QtTest import QTest

from larch.core.base.shape import Placement
from larch.core.things.numbers.block import Block
from larch.core.things.papers.sheet import Sheet
from larch.core.things.words.text import Text
from larch.desk.shelf import kept
from larch.desk.window import Window
from tests.board.test_tools import LEFT, NONE, Hand, move


@pytest.fixture
def hand(window: Window) -> Hand:
    made = Hand(window)
    made.put()
    return made


def test_what_is_kept_is_found_on_the_shelf_in_another_lesson(hand: Hand, qtbot: object) -> None:
    window = hand.window
    hand.put(Sheet(placement=Placement(300, 200)), Text(text="answer", placement=Placement(320, 220)))
    window.keeping.keep(hand.canvas.page, hand.canvas.page.things, "my/answer: sheet")
    qtbot.waitUntil(lambda: bool(kept.items()), timeout=10_000)  # type: ignore[attr-defined]
    (item,) = kept.items()
    assert item.label == "my answer sheet"
    window.pages.new()
    window.show_shelf(True)
    window.shelf.search.setText("answer sheet")
    next(card for card in window.shelf.cards if card.item.tray == "Kept").click()
    assert [thing.kind() for thing in hand.canvas.page.things] == ["sheet", "text"]
    assert kept.forget(item.label) and not kept.items()


def test_a_whole_page_is_kept_with_its_paper_and_put_out_as_a_page(hand: Hand, qtbot: object) -> None:
    window = hand.window
    window.run("paper dotted")
    hand.canvas.commit(
        __import__("larch.core.actions.arrange.arrange", fromlist=["put"]).put(hand.canvas.page, [Block()], "x")
    )
    window.keeping.keep(hand.canvas.page, hand.canvas.page.things, "dots", whole=True)
    qtbot.waitUntil(lambda: bool(kept.items()), timeout=10_000)  # type: ignore[attr-defined]
    count = len(window.session.lesson.pages)
    window.putting.put_out(kept.items()[0])
    assert len(window.session.lesson.pages) == count + 1
    assert hand.canvas.page.paper.pattern == "dotted" and len(hand.canvas.page.things) == 1


def test_a_disk_that_refuses_is_told_and_nothing_is_lost(
    hand: Hand, said: list[str], qtbot: object, monkeypatch: pytest.MonkeyPatch
) -> None:
    def refuse(*_args: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(kept, "write_lesson", refuse)
    hand.put(Block())
    hand.window.keeping.keep(hand.canvas.page, hand.canvas.page.things, "x")
    qtbot.waitUntil(lambda: bool(said), timeout=10_000)  # type: ignore[attr-defined]
    assert "No space left" in said[0] and len(hand.canvas.page.things) == 1


def test_things_dragged_onto_the_open_shelf_are_kept(hand: Hand, qtbot: object) -> None:
    window = hand.window
    hand.put(Sheet(placement=Placement(300, 200), width=80, height=60, name="leaf"))
    window.show_shelf(True)
    target = hand.canvas.mapFromGlobal(window.shelf.mapToGlobal(window.shelf.rect().center()))
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(340, 230))
    move(hand.canvas, hand.at(350, 260), NONE)
    before = window.shelf.tray
    move(hand.canvas, target, NONE)
    assert window.shelf.tray == before != "Kept"  # one may only be passing over it
    qtbot.waitUntil(lambda: window.shelf.tray == "Kept", timeout=10_000)  # type: ignore[attr-defined]
    QTest.mouseRelease(hand.canvas, LEFT, NONE, target)
    qtbot.waitUntil(lambda: [item.label for item in kept.items()] == ["leaf"], timeout=10_000)  # type: ignore[attr-defined]
    assert len(hand.canvas.page.things) == 1  # it stays on the page as well


def test_the_number_of_a_page_dragged_onto_the_shelf_keeps_the_page(hand: Hand, qtbot: object) -> None:
    window = hand.window
    hand.put(Block())
    window.show_shelf(True)
    number = window.ledge.number
    target = number.mapFromGlobal(window.shelf.mapToGlobal(window.shelf.rect().center()))
    QTest.mousePress(number, LEFT, NONE, number.rect().center())
    for at in (QPoint(30, -20), target):
        move(number, at, NONE)
    QTest.mouseRelease(number, LEFT, NONE, target)
    qtbot.waitUntil(lambda: bool(kept.items()), timeout=10_000)  # type: ignore[attr-defined]
    assert kept.page_of(kept.items()[0]) is not None
    assert not window.shows("spread")  # the press did not mean the list of pages
    window.show_shelf(False)
    QTest.mouseClick(number, LEFT, NONE, number.rect().center())
    assert window.shows("spread")
