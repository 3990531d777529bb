"""Things dragged: into line, as they are held, from supplies, to the bin, in groups."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.core.base.shape import Placement
from larch.core.things.numbers.block import Block
from tests.board.test_tools import LEFT, NONE, Hand, move, place
from tests.samples import sheet


def plain(hand: Hand) -> None:
    hand.window.run("paper plain")


def test_a_dragged_thing_falls_into_line_and_says_why_unless_alt_is_held(hand: Hand) -> None:
    other, mine = hand.put(sheet(300, 200), sheet(600, 400))
    plain(hand)
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(640, 430))
    for k in range(1, 6):
        move(hand.canvas, hand.at(640 + k, 430 - 39.6 * k), NONE)
    snap = next(iter(hand.canvas._snaps.values()))
    assert "middle" in snap.reason and snap.line is not None
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(645, 232))
    assert place(hand, mine)[1] == place(hand, other)[1]
    hand.drag((645, 230), (645, 228), Qt.KeyboardModifier.AltModifier)
    hand.drag((645, 230), (665, 233), Qt.KeyboardModifier.AltModifier)
    assert place(hand, mine)[1] != place(hand, other)[1]


@pytest.mark.parametrize(
    ("how", "to"), [("along 0", (700, 200)), ("along 90", (600, 300)), ("turn", (600, 200)), ("", (700, 300))]
)
def test_things_move_only_as_they_are_held(hand: Hand, how: str, to: tuple[float, float]) -> None:
    (mine,) = hand.put(sheet(600, 200, hold=how))
    plain(hand)
    if how == "turn":
        hand.canvas.select([mine])
    hand.drag((640, 230), (740, 330), Qt.KeyboardModifier.AltModifier)
    box = hand.thing(mine).box()
    assert (box.centre[0], box.centre[1]) == pytest.approx((to[0] + 40, to[1] + 30), abs=2)
    assert bool(hand.thing(mine).placement.turn) == (how == "turn")


def test_not_at_the_board_means_a_hand_goes_through_it(hand: Hand) -> None:
    under, over = hand.put(Block(placement=Placement(500, 300)), sheet(460, 260, 200, 200, hold="board"))
    hand.canvas.at_board = True
    centre = hand.thing(under).box().centre
    hand.drag(centre, (centre[0] + 200, centre[1]), Qt.KeyboardModifier.AltModifier)
    assert place(hand, over) == (460, 260)
    assert hand.thing(under).placement.x == pytest.approx(700, abs=2)


def test_a_double_press_opens_a_group_and_a_press_elsewhere_closes_it(hand: Hand) -> None:
    a, b, c = hand.put(sheet(300, 200), sheet(500, 200), sheet(300, 400))
    hand.canvas.select([a, b])
    hand.window.run("group")
    hand.tap(340, 230)
    assert set(hand.canvas.selection) == {a, b}
    QTest.mouseDClick(hand.canvas, LEFT, NONE, hand.at(340, 230))
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(340, 230))
    assert hand.canvas.selection == (a,) and hand.canvas.opened
    hand.drag((340, 230), (340, 300), Qt.KeyboardModifier.AltModifier)
    assert place(hand, b) == (500, 200) and place(hand, a)[1] == pytest.approx(270, abs=2)
    hand.tap(340, 430)
    assert hand.canvas.selection == (c,) and not hand.canvas.opened
    hand.tap(540, 230)
    assert set(hand.canvas.selection) == {a, b}


def test_a_limited_supply_gives_so_many_and_then_says_so(hand: Hand, qtbot: object) -> None:
    (supply,) = hand.put(Block(placement=Placement(200, 200), supply=True, limit=2))
    heard: list[str] = []
    hand.canvas.said.connect(heard.append)
    start = hand.thing(supply).box().centre
    for k in range(3):
        hand.drag(start, (500, 200 + 150 * k), Qt.KeyboardModifier.AltModifier)
    taken = [t for t in hand.canvas.page.things if t.copy_of == supply]
    assert len(taken) == 2 and heard == ["It gives only 2."]
    hand.canvas.select([taken[0].id])
    hand.window.run("delete")
    hand.drag(start, (500, 500), Qt.KeyboardModifier.AltModifier)
    assert sum(t.copy_of == supply for t in hand.canvas.page.things) == 2


def test_things_dragged_to_the_bin_go_and_come_back(hand: Hand) -> None:
    a, b = hand.put(sheet(300, 200), sheet(500, 200))
    hand.canvas.select([a, b])
    centre = hand.window.ledge.bin.mapTo(hand.window.room, hand.window.ledge.bin.rect().center())
    target = hand.canvas.mapFrom(hand.window.room, centre)
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(340, 230))
    move(hand.canvas, hand.at(400, 300), NONE)
    move(hand.canvas, target, NONE)
    assert hand.window.ledge.bin.isDown()
    QTest.mouseRelease(hand.canvas, LEFT, NONE, target)
    assert not hand.canvas.page.things and not hand.window.ledge.bin.isDown()
    hand.window.undo()
    assert [place(hand, id) for id in (a, b)] == [(300, 200), (500, 200)]


def test_arrow_keys_keep_to_how_a_thing_is_held(hand: Hand) -> None:
    level, free, turning = hand.put(sheet(300, 200, hold="along 0"), sheet(500, 200), sheet(700, 200, hold="turn"))
    hand.canvas.select([level, free, turning])
    hand.canvas.setFocus()
    for key in (Qt.Key.Key_Right, Qt.Key.Key_Down):
        QTest.keyClick(hand.canvas, key)
    assert (place(hand, level), place(hand, free), place(hand, turning)) == ((302, 200), (502, 202), (700, 200))
    hand.window.undo()


def test_escape_closes_an_opened_group_and_selects_it_whole(hand: Hand) -> None:
    a, b = hand.put(sheet(300, 200), sheet(500, 200))
    hand.canvas.select([a, b])
    hand.window.run("group")
    QTest.mouseDClick(hand.canvas, LEFT, NONE, hand.at(340, 230))
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(340, 230))
    assert hand.canvas.opened and hand.canvas.selection == (a,)
    hand.canvas.grab()  # its frame can be painted
    QTest.keyClick(hand.canvas, Qt.Key.Key_Escape)
    assert not hand.canvas.opened and set(hand.canvas.selection) == {a, b}
