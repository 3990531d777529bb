"""Turning, reaching and moving pages."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.core.model.page import SIZES
from tests.board.test_tools import Hand, click

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier
KEYS = Qt.Key


def test_a_new_page_has_the_paper_and_size_of_the_one_before(hand: Hand) -> None:
    hand.put()
    hand.window.run("paper handwriting")
    hand.window.run("size A4")
    hand.window.pages.new()
    page = hand.canvas.page
    assert (page.paper.pattern, page.size) == ("handwriting", SIZES["A4"])


def test_a_page_is_reached_by_its_number(hand: Hand) -> None:
    w = hand.window
    w.show_page("p1")
    w.run("go to page")
    pad = w.pages._pad
    assert pad is not None and pad.isVisible()
    click(pad.buttons["9"])
    click(pad.buttons["x"])
    click(pad.buttons["4"])
    click(pad.buttons["go"])
    assert hand.canvas.page_id == "p4"
    assert not pad.isVisible()
    w.run("go to page")
    QTest.keyClicks(pad.field, "77")
    QTest.keyClick(pad.field, KEYS.Key_Return)
    assert hand.canvas.page_id == "p4"
    assert "There are" in w.notice.text()


def test_a_page_moves_sooner_and_later_by_key(hand: Hand) -> None:
    w = hand.window
    w.show_page("p2")
    w.run("page sooner")
    assert [page.id for page in w.session.lesson.pages[:2]] == ["p2", "p1"]
    w.run("page sooner")
    assert w.session.lesson.pages[0].id == "p2"
    w.run("page later")
    assert hand.canvas.page_id == "p2"
    assert w.ledge.number.text().startswith("2 of")


def test_turning_back_shows_the_kept_picture_at_once(hand: Hand) -> None:
    w = hand.window
    w.show_page("p3")
    hand.canvas.surface.sharpen(5000)
    before = hand.canvas.grab().toImage()
    w.show_page("p4")
    w.show_page("p3")
    assert hand.canvas.surface.sharp
    assert hand.canvas.grab().toImage() == before
