"""Writing by hand into the places of an equation that is being entered, and into the cells of column arithmetic."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from larch.core.maths.layout.rows import Sign
from larch.core.things.graphs.equation import Equation
from larch.core.things.numbers.column_sum import ColumnSum
from larch.desk.editors.equation import EquationEditor
from larch.desk.editors.hand_pad import HandPad, key_of
from larch.desk.editors.key_tray import KeyTray
from tests.board.test_tools import Hand, click
from tests.core.recognise.drawn import Strokes, row
from tests.core.recognise.test_written_maths import to_and_fro
from tests.desk.test_readings import WAIT


def write(pad: HandPad, strokes: Strokes) -> None:
    for run in strokes:
        places = [QPoint(round(x), round(y)) for x, y in run]
        QTest.mousePress(pad, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, places[0])
        for place in places[1:]:
            at = QPointF(place)
            held, none = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
            move = QMouseEvent(QEvent.Type.MouseMove, at, pad.mapToGlobal(at), Qt.MouseButton.NoButton, held, none)
            QApplication.sendEvent(pad, move)
        QTest.mouseRelease(pad, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, places[-1])


def opened(hand: Hand, source: str) -> tuple[EquationEditor, HandPad]:
    hand.window.keep_setting(pause=600)
    (id,) = hand.put(Equation(source=source, size=60.0))
    hand.window.editors.edit(hand.thing(id))
    editor = hand.window.editors.open
    assert isinstance(editor, EquationEditor)
    editor.show_tray()
    assert editor.tray is not None
    editor.tray.choose("hand")
    pad = editor.tray.pad
    assert pad is not None and pad.isVisibleTo(editor.tray)
    return editor, pad


def test_what_is_written_is_put_into_the_place_in_hand(hand: Hand, qtbot: QtBot) -> None:
    editor, pad = opened(hand, r"\frac{3}{}+1")
    editor.writing = editor.writing.moved(((0, 1),), 0)
    write(pad, row("4", 40, 150, 40))
    qtbot.waitUntil(lambda: not pad.strokes and bool(editor.writing.here()), timeout=WAIT)
    assert editor.current().source.replace(" ", "") in ("3/4+1", r"\frac{3}{4}+1")
    KeyTray.chosen = "letters"


def test_another_reading_takes_its_place(hand: Hand, qtbot: QtBot) -> None:
    editor, pad = opened(hand, "x=")
    write(pad, row("5/2", 40, 150, 40))
    qtbot.waitUntil(lambda: bool(pad.others), timeout=WAIT)
    first = editor.current().source
    assert first in ("x = 5/2", r"x=\frac{5}{2}")
    click(pad.others[0])
    second = editor.current().source
    assert second != first and second.replace(" ", "").startswith("x=") and not pad.others
    editor.take_back()
    KeyTray.chosen = "letters"


def test_to_and_fro_rubs_out_what_was_written_or_what_stands_before_the_caret(hand: Hand) -> None:
    editor, pad = opened(hand, "x=46")
    write(pad, row("46", 40, 150, 40))
    count = len(pad.strokes)
    boxes = sorted((min(x for x, _y in run), max(x for x, _y in run)) for run in pad.strokes)
    write(pad, [to_and_fro(boxes[-1][0] - 5, boxes[-1][1] + 5, 110)])
    assert len(pad.strokes) == count - 1
    pad.strokes = []
    write(pad, [to_and_fro(60, 200, 100)])
    assert not pad.strokes and editor.current().source.replace(" ", "") == "x=4"
    KeyTray.chosen = "letters"


def test_a_hand_that_goes_on_is_waited_for(hand: Hand, qtbot: QtBot) -> None:
    editor, pad = opened(hand, "x=")
    write(pad, row("4", 40, 150, 40))
    pad._read()
    write(pad, row("6", 110, 150, 40))  # before the answer is there
    qtbot.waitUntil(lambda: not pad.strokes, timeout=WAIT)
    assert editor.current().source.replace(" ", "") == "x=46"
    KeyTray.chosen = "letters"


def test_digits_go_into_the_cells_of_column_arithmetic(hand: Hand, qtbot: QtBot) -> None:
    hand.window.keep_setting(pause=600)
    (id,) = hand.put(ColumnSum(numbers=("47", "35")))
    hand.window.editors.edit(hand.thing(id))
    editor = hand.window.editors.open
    editor.tray.choose("hand")
    write(editor.tray.pad, row("2", 40, 150, 40))
    qtbot.waitUntil(lambda: hand.thing(id).answer() == "2", timeout=WAIT)
    assert not editor.tray.pad.others
    KeyTray.chosen = "letters"


def test_what_is_not_made_out_stays_and_is_said(hand: Hand) -> None:
    editor, pad = opened(hand, "x=")
    write(pad, row("4", 40, 150, 40))
    pad._pause.stop()
    before = [list(stroke) for stroke in pad.strokes]
    pad._came(pad._asked, {})
    assert pad.strokes == before and pad.unread and editor.current().source.replace(" ", "") == "x="
    write(pad, row("6", 110, 150, 40))
    assert not pad.unread and len(pad.strokes) > len(before)
    KeyTray.chosen = "letters"


def test_a_cell_says_that_it_takes_digits_alone(hand: Hand) -> None:
    (id,) = hand.put(ColumnSum(numbers=("47", "35")))
    hand.window.editors.edit(hand.thing(id))
    said: list[str] = []
    hand.window.editors.tell = said.append
    hand.window.editors.open.press(key_of((Sign("x"),)))
    assert said == ["A cell takes digits alone."] and hand.thing(id).written == ()
