"""A ring drawn round things."""

from __future__ import annotations

from PyQt6.QtTest import QTest

from tests.board.test_tools import LEFT, NONE, Hand, move
from tests.samples import sheet


def test_a_ring_selects_what_has_its_middle_inside(hand: Hand) -> None:
    a, b, c = hand.put(sheet(300, 200), sheet(500, 300), sheet(800, 500))
    hand.window.run("ring select")
    corners = [(250, 150), (700, 150), (650, 420), (260, 420), (250, 160)]
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(*corners[0]))
    for corner in corners[1:]:
        move(hand.canvas, hand.at(*corner), NONE)
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(*corners[-1]))
    assert set(hand.canvas.selection) == {a, b} and c not in hand.canvas.selection
    assert not hand.canvas.overlay.marks
