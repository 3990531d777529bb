"""What is being typed is safe: saving keeps it with the caret where it is, and a kill gives it back as it was typed."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.core.base.shape import Placement
from larch.core.files.journal import recover
from larch.core.files.lesson_file import read_lesson
from larch.core.things.graphs.equation import Equation
from larch.core.things.numbers.column_sum import ColumnSum
from larch.core.things.words.note import Note
from larch.core.things.words.text import Text
from larch.desk.editors.editors import DRAFT_EVERY
from tests.board.test_tools import Hand

CONTROL = Qt.KeyboardModifier.ControlModifier
KEYS = Qt.Key


def begun(hand: Hand, thing: Text | Note | Equation | ColumnSum):  # type: ignore[no-untyped-def]
    """An editor for something that is not on the page yet."""
    hand.canvas.edit_thing(thing)
    return hand.window.editors.open


def saved(hand: Hand, path: Path, qtbot) -> list[str]:  # type: ignore[no-untyped-def]
    """What is in the file after Ctrl+S was pressed where the keys go."""
    hand.window.files.work.path = path
    QTest.keyClick(hand.window.editors.open, KEYS.Key_S, CONTROL)
    qtbot.waitUntil(lambda: path.exists() and not hand.window.files._saving, timeout=20_000)
    page = read_lesson(path).lesson.page(hand.canvas.page_id)
    assert page is not None
    return [getattr(t, "text", "") or getattr(t, "source", "") for t in page.things]


@pytest.mark.parametrize("thing", [Text(placement=Placement(300, 200)), Note(placement=Placement(300, 200))])
def test_saving_keeps_words_and_the_caret(hand: Hand, tmp_path: Path, qtbot, thing) -> None:  # type: ignore[no-untyped-def]
    hand.put()
    editor = begun(hand, thing)
    QTest.keyClicks(editor, "Bring 4 candles")
    for _k in range(3):
        QTest.keyClick(editor, KEYS.Key_Left)
    assert saved(hand, tmp_path / "a.larch", qtbot) == ["Bring 4 candles"]
    assert hand.window.editors.open is editor and editor.item.textCursor().position() == 12
    QTest.keyClicks(editor, "X")
    hand.window.editors.finish()
    assert [t.text for t in hand.canvas.page.things] == ["Bring 4 candXles"]
    assert hand.window.files.modified


def test_nothing_is_left_to_save_when_nothing_is_typed_after_it(hand: Hand, tmp_path: Path, qtbot) -> None:  # type: ignore[no-untyped-def]
    hand.put()
    begun(hand, Text(placement=Placement(300, 200)))
    QTest.keyClicks(hand.window.editors.open, "Float")
    saved(hand, tmp_path / "a.larch", qtbot)
    assert not hand.window.files.modified
    lesson = hand.canvas.session.lesson
    hand.window.editors.finish()
    assert hand.canvas.session.lesson is lesson


def test_saving_keeps_an_equation_and_the_caret(hand: Hand, tmp_path: Path, qtbot) -> None:  # type: ignore[no-untyped-def]
    hand.put()
    editor = begun(hand, Equation(source="", placement=Placement(300, 200)))
    QTest.keyClicks(editor, "y=2x+1")
    QTest.keyClick(editor, KEYS.Key_Left)
    before = editor.writing
    (source,) = saved(hand, tmp_path / "a.larch", qtbot)
    assert source.replace(" ", "") == "y=2x+1"
    assert hand.window.editors.open is editor and editor.writing == before
    where = hand.canvas.page.things[0].placement
    QTest.keyClicks(editor, "3")
    hand.window.editors.finish()
    (kept,) = hand.canvas.page.things
    assert kept.source.replace(" ", "") == "y=2x+31" and kept.placement == where


def test_keys_of_editing_stay_with_the_words(hand: Hand) -> None:
    hand.put(Text(text="Fold", placement=Placement(200, 200)))
    hand.window.editors.edit(hand.canvas.page.things[0])
    editor = hand.window.editors.open
    for key in (KEYS.Key_D, KEYS.Key_L, KEYS.Key_G, KEYS.Key_B):
        QTest.keyClick(editor, key, CONTROL)
    QTest.keyClick(editor, KEYS.Key_PageDown)
    assert hand.window.editors.open is editor and len(hand.canvas.page.things) == 1


def test_a_zoom_leaves_the_editor_and_the_board_ends_it(hand: Hand) -> None:
    hand.put(Text(text="Fold", placement=Placement(200, 200)))
    hand.window.editors.edit(hand.canvas.page.things[0])
    editor, scale = hand.window.editors.open, hand.canvas.camera.scale
    QTest.keyClick(editor, KEYS.Key_Minus, CONTROL)
    assert hand.window.editors.open is editor and hand.canvas.camera.scale < scale
    QTest.keyClicks(editor, "ed")
    QTest.keyClick(editor, KEYS.Key_F5)
    assert hand.window.at_board and hand.window.editors.open is None
    assert hand.canvas.page.things[0].text == "ed"


def recovered(hand: Hand) -> list[str]:
    """The words on the page as a kill now would leave them."""
    assert hand.window.files.journal.flush()
    found = recover(hand.window.files.work.folder)
    assert found is not None and not found.lost
    page = found.lesson.page(hand.canvas.page_id)
    assert page is not None
    return [getattr(t, "text", "") or getattr(t, "source", "") for t in page.things]


def test_what_is_typed_is_in_the_journal_within_two_seconds(hand: Hand, qtbot) -> None:  # type: ignore[no-untyped-def]
    assert DRAFT_EVERY <= 1000
    hand.put()
    editor = begun(hand, Text(placement=Placement(300, 200)))
    QTest.keyClicks(editor, "Seven lan")
    qtbot.waitUntil(lambda: recovered(hand) == ["Seven lan"], timeout=2000)
    QTest.keyClicks(editor, "terns")
    qtbot.waitUntil(lambda: recovered(hand) == ["Seven lanterns"], timeout=2000)
    assert not hand.canvas.page.things  # nothing was committed
    hand.window.editors.finish()
    assert recovered(hand) == ["Seven lanterns"]
    hand.window.undo()
    assert recovered(hand) == []


def test_what_is_given_up_does_not_come_back(hand: Hand, qtbot) -> None:  # type: ignore[no-untyped-def]
    hand.put()
    editor = begun(hand, Equation(source="", placement=Placement(300, 200)))
    QTest.keyClicks(editor, "y=x")
    hand.window.editors.draft()
    assert [source.replace(" ", "") for source in recovered(hand)] == ["y=x"]
    for _k in range(3):
        QTest.keyClick(editor, KEYS.Key_Backspace)
    hand.window.editors.finish()
    assert recovered(hand) == []


def test_a_draft_gives_way_to_what_is_committed_meanwhile_and_comes_again(hand: Hand) -> None:
    hand.put()
    editor = begun(hand, Text(placement=Placement(300, 200)))
    QTest.keyClicks(editor, "one")
    hand.window.editors.draft()
    page = hand.canvas.page
    from larch.core.model.action import put

    hand.canvas.session.commit(put(page, [Text(text="by another hand", placement=Placement(300, 500))], "write"))
    assert recovered(hand) == ["by another hand"]
    hand.window.editors.draft()
    assert recovered(hand) == ["by another hand", "one"]


def test_a_save_meanwhile_takes_the_draft_along(hand: Hand, tmp_path: Path, qtbot) -> None:  # type: ignore[no-untyped-def]
    hand.put()
    editor = begun(hand, Text(placement=Placement(300, 200)))
    QTest.keyClicks(editor, "one")
    saved(hand, tmp_path / "a.larch", qtbot)
    QTest.keyClicks(editor, " two")
    hand.window.editors.draft()
    work = hand.window.files.work
    work.save(hand.canvas.session.lesson, tmp_path / "a.larch")
    assert recovered(hand) == ["one two"]
