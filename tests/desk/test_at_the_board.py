"""The Board belongs to the class: what a page leaves to the pupils, and that the Desk's keys do nothing there."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QContextMenuEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from larch.core.base.shape import Placement
from larch.core.model.page import PUPILS, Page
from larch.core.things.chance.die import Die
from larch.core.things.papers.sheet import Sheet
from larch.desk.window import Window
from tests.board.test_tools import Hand

KEYS, CONTROL = Qt.Key, Qt.KeyboardModifier.ControlModifier


def let(window: Window, *what: str) -> None:
    for name in PUPILS:
        window.canvas.select(())
        window.facts.set_fact(f"pupils {name}", "yes" if name in what else "no")
    assert window.canvas.page.pupils == what


def test_a_fresh_page_leaves_to_the_class_what_can_do_no_harm() -> None:
    assert set(Page(id="p1").pupils) == {"move", "write", "turn"}


def test_keys_of_the_desk_do_nothing_at_the_board(hand: Hand) -> None:
    hand.put(Sheet(placement=Placement(300, 200), width=80, height=60), Die(placement=Placement(600, 300)))
    window = hand.window
    window.go_to_board()
    lesson, page = window.session.lesson, window.canvas.page
    for key in (KEYS.Key_A, KEYS.Key_N, KEYS.Key_L, KEYS.Key_D, KEYS.Key_P, KEYS.Key_B, KEYS.Key_K, KEYS.Key_I, KEYS.Key_V):
        QTest.keyClick(window.canvas, key, CONTROL)
    QTest.keyClick(window.canvas, KEYS.Key_N, CONTROL | Qt.KeyboardModifier.ShiftModifier)
    window.canvas.select([page.things[0].id])
    QTest.keyClick(window.canvas, KEYS.Key_Delete)
    assert window.session.lesson is lesson
    assert (
        not window.shows("shelf") and not window.shows("finder") and not window.shows("spread") and not window.shows("facts")
    )
    assert window.at_board


@pytest.mark.parametrize("what", list(PUPILS))
def test_what_a_page_leaves_to_the_class_is_what_lies_on_the_ledge(window: Window, what: str) -> None:
    ledge = window.ledge
    seen = {
        "write": lambda: ledge.buttons["pen"].isVisible() and ledge.buttons["text"].isVisible(),
        "paint": lambda: ledge.buttons["paint"].isVisible(),
        "shelf": lambda: ledge.shelf.isVisible() and ledge.bin.isVisible(),
        "turn": lambda: ledge.onwards.isVisible() and ledge.number.isEnabled(),
        "move": lambda: window.canvas.may("move"),
    }
    window.resize(1500, 900)
    let(window, what)
    window.go_to_board()
    for name, look in seen.items():
        assert look() == (name == what), name
    window.go_to_desk()
    assert all(look() for look in seen.values())


def test_a_tool_that_the_next_page_does_not_leave_is_laid_down(window: Window) -> None:
    window.show_page("p2")
    let(window, "move", "turn")
    window.show_page("p1")
    window.go_to_board()
    window.ledge.take("pen")
    window.turn(1)
    assert window.ledge.current.name == "select"
    QTest.keyClicks(window.canvas, "P")
    assert window.ledge.current.name == "select"


def test_things_stay_where_they_are_but_still_roll(hand: Hand) -> None:
    sheet, die = hand.put(Sheet(placement=Placement(300, 200), width=80, height=60), Die(placement=Placement(600, 300)))
    let(hand.window, "write")
    hand.window.go_to_board()
    before = hand.thing(sheet), hand.thing(die)
    hand.drag((340, 230), (500, 400))
    hand.drag((640, 340), (800, 500))
    assert (hand.thing(sheet), hand.thing(die)) == before
    hand.tap(640, 340)
    hand.tap(640, 340)
    assert sum(hand.thing(die).counts()) >= 1


def test_a_menu_at_the_board_offers_only_what_the_class_may(hand: Hand) -> None:
    (id,) = hand.put(Sheet(placement=Placement(300, 200), width=80, height=60))
    hand.window.go_to_board()
    hand.canvas.select([id])
    QApplication.sendEvent(hand.canvas, QContextMenuEvent(QContextMenuEvent.Reason.Mouse, hand.at(330, 230)))
    assert QApplication.activePopupWidget() is None  # there is nothing that a class may do with a sheet
    assert hand.window.tag.isHidden()


def test_undo_in_the_spread_is_seen(window: Window) -> None:
    window.run("spread")
    count = window.spread.list.count()
    window.spread.do("delete")
    assert window.spread.list.count() == count - 1
    window.run("undo")
    assert window.spread.list.count() == count
    assert window.shows("spread")
    assert window.spread.list.hasFocus() or not window.isActiveWindow()
