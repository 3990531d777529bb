"""Column arithmetic written digit by digit, by keys and by the tray."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from larch.core.base.shape import Placement
from larch.core.things.numbers.column_sum import ColumnSum
from larch.desk.editors.column_sum import ColumnSumEditor
from larch.desk.editors.key_tray import KeyButton
from tests.board.test_tools import Hand

KEYS = Qt.Key


def opened(hand: Hand, op: str, *numbers: str) -> ColumnSumEditor:
    (id,) = hand.put(ColumnSum(op=op, numbers=numbers, placement=Placement(200, 80)))
    thing = hand.canvas.page.thing(id)
    assert thing is not None
    hand.window.editors.edit(thing)
    editor = hand.window.editors.open
    assert isinstance(editor, ColumnSumEditor)
    return editor


def written(hand: Hand) -> dict[tuple[int, int], str]:
    (thing,) = hand.canvas.page.things
    assert isinstance(thing, ColumnSum)
    return thing.digits()


def test_a_sum_is_written_from_right_to_left_and_is_one_step_of_undo(hand: Hand) -> None:
    editor = opened(hand, "+", "275", "148")
    thing = editor.thing()
    assert thing is not None
    last = max(row for row, _column in thing.wanted())
    editor.cell = max(cell for cell in thing.wanted() if cell[0] == last)
    QTest.keyClicks(editor, "324")
    digits = written(hand)
    assert "".join(digits[cell] for cell in sorted(digits)) == "423"
    QTest.keyClick(editor, KEYS.Key_Escape)
    assert hand.window.editors.open is None
    hand.window.run("undo")
    assert written(hand) == {}


def test_keys_of_the_tray_write_and_rub_out(hand: Hand) -> None:
    editor = opened(hand, "÷", "84", "4")
    for name in ("2", "1"):
        key = next(k for k in editor.tray.findChildren(KeyButton) if k.accessibleName() == name and not k.isHidden())
        QTest.mouseClick(key, Qt.MouseButton.LeftButton)
        assert hand.window.editors.open is editor
    assert "".join(digit for _cell, digit in sorted(written(hand).items())) == "21"
    first = min(written(hand))
    thing = editor.thing()
    assert thing is not None
    box = thing.cell_box(*first).centre
    k = thing.placement.scale * hand.canvas.camera.scale
    QTest.mouseClick(editor, Qt.MouseButton.LeftButton, pos=QPoint(round(box[0] * k) + 3, round(box[1] * k) + 3))
    assert editor.cell == first
    QTest.keyClick(editor, KEYS.Key_Backspace)
    assert "".join(written(hand).values()) == "1"
