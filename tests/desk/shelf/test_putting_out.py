"""What is put out from the shelf, by a tap and by a drag."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QColor
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QColorDialog

from tests.board.test_tools import Hand, click

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier
KEYS = Qt.Key


def test_a_paper_is_tapped_on_the_shelf_and_its_line_height_typed(hand: Hand, monkeypatch: pytest.MonkeyPatch) -> None:
    w = hand.window
    hand.put()
    w.run("paper plain")
    w.run("papers")
    assert w.shelf.tray == "Papers"
    click(next(card for card in w.shelf.cards if card.item.name == "paper ruled"))
    assert hand.canvas.page.paper.pattern == "ruled"
    assert hand.canvas.page.things == ()
    w.run("page facts")
    rows = {row.name: row for row in w.facts._rows}
    rows["step"].value.setText("3 cm")
    rows["step"].value.setModified(True)
    QTest.keyClick(rows["step"].value, KEYS.Key_Return)
    assert hand.canvas.page.paper.step == 96
    rows = {row.name: row for row in w.facts._rows}
    assert rows["paper colour"].list is not None
    where = rows["paper colour"].list.findData("sky")
    rows["paper colour"].list.activated.emit(where)
    assert hand.canvas.page.paper.colour == "sky"
    monkeypatch.setattr(QColorDialog, "getColor", lambda *_args, **_more: QColor("#f4efe0"))
    rows = {row.name: row for row in w.facts._rows}
    rows["line colour"].list.activated.emit(rows["line colour"].list.findData("mix"))
    assert hand.canvas.page.paper.lines == "#f4efe0"
    w.undo()
    w.undo()
    w.undo()
    w.undo()
    assert hand.canvas.page.paper.pattern == "plain"


def test_a_piece_of_paper_is_dragged_out_and_becomes_that_of_the_page(hand: Hand) -> None:
    w = hand.window
    hand.put()
    w.show_shelf(True)
    w.shelf.choose("Papers")
    item = next(i for i in w.shelf.items if i.name == "paper graph")
    at = hand.canvas.mapToGlobal(QPoint(500, 200))
    w.putting.drop(item, at)
    (sheet,) = hand.canvas.page.things
    assert sheet.kind() == "sheet"
    action = next(a for a in w.tag.actions_now if a.name == "under page")
    hand.canvas.do(action)
    assert (hand.canvas.page.paper.pattern, hand.canvas.page.things) == ("graph", ())
