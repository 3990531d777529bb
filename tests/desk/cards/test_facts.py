"""The facts card: what is typed comes true."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.core.base.shape import Placement
from larch.core.things.geometry.polygon import polygon_on
from larch.core.things.papers.sheet import Sheet
from larch.core.things.words.text import Text
from larch.desk.window import Window
from tests.board.test_tools import Hand


@pytest.fixture
def hand(window: Window) -> Hand:
    made = Hand(window)
    made.put()
    return made


def test_laying_out_copies_from_the_facts(hand: Hand) -> None:
    hand.put(Sheet(placement=Placement(100, 100), width=40, height=40))
    hand.canvas.select([hand.canvas.page.things[0].id])
    hand.window.facts.want(True)
    hand.window.facts.set_fact("copies", "4 x 3")
    assert len(hand.canvas.page.things) == 12
    hand.window.facts.set_fact("moves", "board")
    assert hand.canvas.page.things[0].hold == "board"
    hand.window.facts.set_fact("link", "2")
    assert hand.canvas.page.things[0].link == f"#{hand.window.session.lesson.pages[1].id}"


KEYS = Qt.Key


def type_fact(window: Window, name: str, typed: str) -> None:
    row = next(row for row in window.facts._rows if row.name == name)
    row.value.selectAll()
    QTest.keyClicks(row.value, typed)
    QTest.keyClick(row.value, KEYS.Key_Return)


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
