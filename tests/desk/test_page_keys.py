"""Keys pressed on the page: steps and great steps, corners, tools, what Enter and Esc do in turn."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.core.base.shape import Placement
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.numbers.ten_frame import TenFrame
from larch.core.things.time.clock import Clock
from larch.core.things.words.text import Text
from larch.desk.page_keys import NUDGE, NUDGE_FAR
from tests.board.test_tools import Hand

KEYS = Qt.Key
SHIFT = Qt.KeyboardModifier.ShiftModifier


@pytest.fixture
def hand(window) -> Hand:  # type: ignore[no-untyped-def]
    window.canvas.setFocus()
    return Hand(window)


def press(hand: Hand, key: Qt.Key, held: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier) -> None:
    QTest.keyClick(hand.canvas, key, held)


def triangle(**fields: object) -> Polygon:
    return Polygon(vertices=((0.0, 0.0), (160.0, 0.0), (0.0, 120.0)), placement=Placement(300, 200), **fields)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("key", "across", "down"),
    [(KEYS.Key_Left, -1, 0), (KEYS.Key_Right, 1, 0), (KEYS.Key_Up, 0, -1), (KEYS.Key_Down, 0, 1)],
)
def test_arrows_take_all_that_is_selected_a_step_or_a_great_one(hand: Hand, key: Qt.Key, across: int, down: int) -> None:
    ids = hand.put(triangle(), triangle())
    hand.canvas.select(ids)
    press(hand, key)
    press(hand, key, SHIFT)
    far = NUDGE + NUDGE_FAR
    for id in ids:
        assert (hand.thing(id).placement.x, hand.thing(id).placement.y) == (300 + across * far, 200 + down * far)


def test_steps_in_a_row_are_undone_in_one(hand: Hand) -> None:
    (id,) = hand.put(triangle())
    hand.canvas.select([id])
    for _step in range(5):
        press(hand, KEYS.Key_Right)
    hand.window.undo()
    assert hand.thing(id).placement.x == 300


def test_a_locked_thing_stays(hand: Hand) -> None:
    (id,) = hand.put(triangle(locked=True))
    hand.canvas.select([id])
    press(hand, KEYS.Key_Right, SHIFT)
    assert hand.thing(id).placement.x == 300


def test_with_nothing_selected_arrows_move_the_view(hand: Hand) -> None:
    hand.put(triangle())
    hand.canvas.zoom_by(2.0, (400, 300))
    before = hand.canvas.camera
    press(hand, KEYS.Key_Right)
    assert hand.canvas.camera.to_view(0, 0)[0] < before.to_view(0, 0)[0]
    assert hand.thing(hand.canvas.page.things[0].id).placement.x == 300


def test_corners_are_taken_one_after_another_and_moved(hand: Hand) -> None:
    (id,) = hand.put(triangle())
    hand.canvas.select([id])
    for _corner in range(2):
        press(hand, KEYS.Key_N)
    press(hand, KEYS.Key_Right, SHIFT)
    x, y = hand.thing(id).placement.to_page(*hand.thing(id).vertices[1])
    assert (x, y) == pytest.approx((300 + 160 + NUDGE_FAR, 200))
    for _corner in range(2):  # past the last corner none is in hand
        press(hand, KEYS.Key_N)
    assert hand.canvas.handle_focus == ""


def test_esc_gives_up_one_thing_at_a_time(hand: Hand) -> None:
    (id,) = hand.put(triangle())
    hand.canvas.select([id])
    hand.window.show_shelf(True)
    hand.window.go_to_board()
    hand.window.show_shelf(True)
    hand.canvas.select([id])
    press(hand, KEYS.Key_N)
    press(hand, KEYS.Key_Escape)
    assert hand.canvas.handle_focus == "" and hand.canvas.selection
    press(hand, KEYS.Key_Escape)
    assert not hand.canvas.selection and hand.window.shows("shelf")
    press(hand, KEYS.Key_Escape)
    assert not hand.window.shows("shelf") and hand.window.at_board
    press(hand, KEYS.Key_Escape)
    assert not hand.window.at_board


def test_enter_opens_words_and_a_tools_key_takes_the_tool(hand: Hand) -> None:
    (id,) = hand.put(Text(text="boats", placement=Placement(200, 200)))
    hand.canvas.select([id])
    press(hand, KEYS.Key_Return)
    assert hand.window.editors.open is not None
    hand.window.finish_typing()
    tool = next(one for one in hand.window.ledge.tools if one.shortcut and one.name != hand.canvas.pointers.tool.name)
    hand.canvas.select(())
    QTest.keyClicks(hand.canvas, tool.shortcut)
    assert hand.canvas.pointers.tool.name == tool.name


def test_a_key_of_a_thing_acts_only_while_the_thing_is_selected(hand: Hand) -> None:
    from larch.core.things.chance.die import Die

    (id,) = hand.put(Die(placement=Placement(300, 200)))
    press(hand, KEYS.Key_R)
    assert sum(hand.thing(id).counts()) == 0
    hand.canvas.select([id])
    press(hand, KEYS.Key_R)
    assert sum(hand.thing(id).counts()) == 1


@pytest.mark.parametrize("held", [Qt.KeyboardModifier.NoModifier, SHIFT, Qt.KeyboardModifier.KeypadModifier])
def test_plus_is_plus_wherever_the_keyboard_has_it(hand: Hand, held: Qt.KeyboardModifier) -> None:
    from larch.core.things.numbers.abacus import Abacus

    (id,) = hand.put(Abacus(placement=Placement(300, 200)))
    hand.canvas.select([id])
    QTest.keyEvent(QTest.KeyAction.Click, hand.canvas, "+", held)
    assert hand.thing(id).worth() == 1


def test_a_letter_with_shift_is_not_the_things_key(hand: Hand) -> None:
    from larch.core.things.chance.die import Die

    (id,) = hand.put(Die(placement=Placement(300, 200)))
    hand.canvas.select([id])
    press(hand, KEYS.Key_R, SHIFT)
    assert sum(hand.thing(id).counts()) == 0


def test_parts_are_taken_in_hand_moved_and_tapped_by_keys(hand: Hand) -> None:
    frame, clock = hand.put(TenFrame(placement=Placement(200, 120)), Clock(minutes=0, placement=Placement(700, 120)))
    hand.canvas.setFocus()
    hand.canvas.select([frame])
    press(hand, KEYS.Key_N)
    press(hand, KEYS.Key_Return)
    assert hand.thing(frame).cells[0] == 1
    press(hand, KEYS.Key_Right)
    assert hand.thing(frame).cells[:2] == (0, 1)
    hand.canvas.select([clock])
    press(hand, KEYS.Key_N)
    press(hand, KEYS.Key_Right)
    assert 0 < hand.thing(clock).minutes < 15
    hand.window.undo()
    assert hand.thing(clock).minutes == 0
