"""Words in the cells of a table."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.core.base.shape import Placement
from larch.core.model.edit import Edit
from larch.core.things.organisers.table import Table
from tests.board.test_tools import LEFT, NONE, Hand


def test_words_are_typed_into_cells_and_tab_goes_on(hand: Hand) -> None:
    (table,) = hand.put(Table(placement=Placement(200, 150)))
    cell = hand.thing(table).cell(1, 0).centre
    spot = hand.at(200 + cell[0], 150 + cell[1])
    QTest.mouseClick(hand.canvas, LEFT, NONE, spot)
    QTest.mouseDClick(hand.canvas, LEFT, NONE, spot)
    QTest.mouseRelease(hand.canvas, LEFT, NONE, spot)
    editor = hand.window.editors.open
    assert editor is not None
    QTest.keyClicks(editor, "kite")
    QTest.keyClick(editor, Qt.Key.Key_Tab)
    QTest.keyClicks(hand.window.editors.open, "12")
    hand.window.editors.finish()
    now = hand.thing(table)
    words = [now.words_in(hand.canvas.page, 1, k) for k in range(3)]
    assert [w.text if w else "" for w in words] == ["kite", "12", ""]


def test_a_row_grows_with_the_words_in_it_and_takes_the_rows_below_along(hand: Hand) -> None:
    (table,) = hand.put(Table(placement=Placement(200, 100)))
    now = hand.thing(table)
    below = now.new_words(2, 1).replace(text="below")
    page = hand.canvas.page
    hand.canvas.commit(Edit("below", page, page.put(below)))
    below_id = hand.canvas.page.things[-1].id
    before = hand.thing(below_id).placement.y
    hand.window.editors.edit(hand.thing(table).new_words(1, 1))
    QTest.keyClicks(hand.window.editors.open, "many more kites than anyone had made before")
    hand.window.editors.finish()
    grown = hand.thing(table)
    assert grown.rows[1] > 120 and grown.rows[2] == 72
    assert hand.thing(below_id).placement.y - before == pytest.approx(grown.rows[1] - 72, abs=1)
    words = grown.words_in(hand.canvas.page, 1, 1)
    assert words is not None and words.text.startswith("many")
    assert grown.words_in(hand.canvas.page, 2, 1).text == "below"
    hand.window.undo()  # one step
    assert hand.thing(table).rows[1] == 72 and hand.thing(below_id).placement.y == before
