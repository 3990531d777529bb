"""What a teacher does in the twenty minutes before a class, from an empty page, by presses and keys alone."""

from __future__ import annotations

from itertools import pairwise
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.core.files.lesson_file import read_lesson, write_lesson
from larch.core.things.organisers.box import WordBox
from larch.core.things.organisers.connector import Connector
from larch.core.things.organisers.table import Table
from larch.core.things.pictures.frost import Frost
from larch.core.things.pictures.picture import Picture
from larch.desk.shelf import kept
from larch.desk.window import Window
from tests.board.test_tools import LEFT, NONE, Hand

ALT = Qt.KeyboardModifier.AltModifier


@pytest.fixture
def hand(window: Window) -> Hand:
    made = Hand(window)
    made.put()
    window.run("paper plain")
    return made


def from_shelf(hand: Hand, query: str, label: str) -> str:
    """Searches the shelf, taps the entry of a name, closes the shelf; returns the id of what came."""
    shelf = hand.window.shelf
    hand.window.show_shelf(True)
    shelf.search.setText(query)
    before = {thing.id for thing in hand.canvas.page.things}
    next(card for card in shelf.cards if card.item.label == label).click()
    hand.window.show_shelf(False)
    return next(thing.id for thing in hand.canvas.page.things if thing.id not in before)


def do(hand: Hand, name: str) -> None:
    from larch.core.model.action import actions_for

    page, things = hand.canvas.page, hand.canvas.things()
    hand.canvas.do(next(action for action in actions_for(page, things) if action.name == name))


def test_forty_counters_are_taken_from_one_supply(hand: Hand) -> None:
    supply = from_shelf(hand, "moneda", "coin")
    hand.canvas.select([supply])
    hand.window.facts.want(True)
    hand.window.facts.set_fact("width", "2")
    do(hand, "supply")
    hand.window.facts.want(False)
    hand.canvas.select([])
    start = hand.thing(supply).box().centre
    for k in range(40):
        hand.drag(start, (80 + k % 8 * 60, 80 + k // 8 * 60), ALT)
    taken = [thing for thing in hand.canvas.page.things if thing.copy_of == supply]
    assert len(taken) == 40 and not any(thing.supply for thing in taken)
    for _k in range(40):
        hand.window.undo()
    assert sum(thing.copy_of == supply for thing in hand.canvas.page.things) == 0


def test_six_pictures_in_a_line_a_table_a_web_and_a_hidden_answer(hand: Hand, tmp_path: Path) -> None:
    names = ("snail", "candle", "sailboat", "fish", "crab", "umbrella")
    ids = [from_shelf(hand, name, name) for name in names]
    for k, id in enumerate(ids):
        hand.canvas.select([])
        hand.drag(hand.thing(id).box().centre, (100 + 190 * k, 90 + 17 * (k % 3)), ALT)
    hand.canvas.select(ids)
    do(hand, "arrange middle")
    do(hand, "arrange spread across")
    boxes = sorted((hand.thing(id).box() for id in ids), key=lambda box: box.x0)
    assert len({round(box.centre[1], 6) for box in boxes}) == 1
    gaps = {round(b.x0 - a.x1, 6) for a, b in pairwise(boxes)}
    assert len(gaps) == 1

    table_id = from_shelf(hand, "table chart", "table with heads")
    table = next(thing for thing in hand.canvas.page.things if isinstance(thing, Table))
    assert table_id and table.words_in(hand.canvas.page, 1, 1) is not None

    box = from_shelf(hand, "box", "box")
    assert isinstance(hand.thing(box), WordBox)
    for side in ("right", "down", "left"):
        hand.canvas.select([box])
        do(hand, f"grow {side}")
    web = [thing for thing in hand.canvas.page.things if isinstance(thing, WordBox)]
    lines = [thing for thing in hand.canvas.page.things if isinstance(thing, Connector)]
    assert len(web) == 4 and len(lines) == 3 and all(line.of[0] == box and not line.why for line in lines)

    answer = table.words_in(hand.canvas.page, 2, 2)
    assert answer is not None
    hand.canvas.select([answer.id])
    do(hand, "frost over")
    frost = hand.canvas.page.things[-1]
    assert isinstance(frost, Frost) and hand.canvas.selection == (frost.id,)

    # What lies behind is found in the list; the page is set out, played with, and put back.
    hand.window.run("set out")
    laid = {thing.id: thing.placement for thing in hand.canvas.page.things}
    hand.window.run("layers")
    layers = hand.window._cards["layers"]
    assert layers is not None
    row = layers.list.item(layers.ids.index(answer.id))
    layers.list.scrollToItem(row)
    QTest.mouseClick(layers.list.viewport(), LEFT, NONE, layers.list.visualItemRect(row).center())
    assert hand.canvas.selection == (answer.id,)
    layers.hide()
    hand.canvas.select([])
    hand.drag(hand.thing(ids[0]).box().centre, (600, 600), ALT)
    hand.canvas.select([ids[1]])
    hand.window.run("delete")
    hand.window.run("set out again")
    assert {thing.id: thing.placement for thing in hand.canvas.page.things} == laid

    # The page is used in another lesson, with all its pictures.
    path = tmp_path / "stall.larch"
    write_lesson(hand.window.session.lesson, path)
    again = read_lesson(path)
    assert not again.losses
    page = next(p for p in again.lesson.pages if p.id == hand.canvas.page_id)
    assert len(page.things) == len(laid)
    kept.keep(page, page.things, "stall", whole=True)
    count = len(hand.window.session.lesson.pages)
    hand.window.putting.put_out(kept.items()[0])
    assert len(hand.window.session.lesson.pages) == count + 1
    assert sum(isinstance(thing, Picture) for thing in hand.canvas.page.things) == 6


def test_all_of_it_by_keyboard(hand: Hand) -> None:
    """Putting out, choosing, ordering, holding and hiding without a pointer."""
    from larch.desk.finder.findable import findable, pictures_found

    pictures_found(hand.window.context, "lantern")[0].run()
    first = hand.canvas.selection[0]
    QTest.keyClick(hand.window.canvas, Qt.Key.Key_D, Qt.KeyboardModifier.ControlModifier)
    found = {one.label: one for one in findable(hand.window.context)}
    for label in ("not at the Board", "one further down", "hide", "mirror left and right", "frost over", "Layers"):
        assert label in found, label
    found["only level"].run()
    assert hand.canvas.things()[0].hold == "along 0"
    copy = hand.canvas.selection[0] if hand.canvas.selection[0] != first else first
    found["one further down"].run()
    assert hand.canvas.page.things[0].id == copy
    QTest.mouseClick(hand.canvas, LEFT, NONE, hand.at(1200, 690))
    hand.window.run("select all")
    assert len(hand.canvas.selection) == len(hand.canvas.page.things)
