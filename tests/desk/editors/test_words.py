"""Words typed, styled, pasted and spelt on the page."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QMimeData, Qt
from PyQt6.QtGui import QGuiApplication, QTextCursor
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QMenu

from larch.core.base.shape import Placement
from larch.core.things.words.note import Note
from larch.core.things.words.rich import DISTANCES, Run
from larch.core.things.words.text import Text
from tests.board.test_tools import Hand, click

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier
CONTROL = Qt.KeyboardModifier.ControlModifier
KEYS = Qt.Key


def typing(hand: Hand, thing: Text | Note):  # type: ignore[no-untyped-def]
    hand.put(thing)
    hand.window.editors.edit(hand.canvas.page.things[0])
    return hand.window.editors.open


def test_text_grows_as_it_is_typed_and_looks_the_same_when_left(hand: Hand) -> None:
    editor = typing(hand, Text(text="Fold", placement=Placement(200, 200)))
    narrow = editor.width()
    QTest.keyClick(editor, KEYS.Key_End)
    QTest.keyClicks(editor, " the whole lantern paper")
    assert editor.width() > 2 * narrow
    inside = editor.grab().toImage()
    hand.window.editors.finish()
    (text,) = hand.canvas.page.things
    assert text.text == "Fold the whole lantern paper"
    assert text.runs == ()
    assert hand.canvas.box_of([text]).width == pytest.approx(inside.width() / hand.canvas.camera.scale, abs=30)


def test_keys_style_the_words_that_are_selected(hand: Hand) -> None:
    editor = typing(hand, Text(text="x2 is four", placement=Placement(200, 200)))
    cursor = editor.item.textCursor()
    cursor.setPosition(1)
    cursor.setPosition(2, QTextCursor.MoveMode.KeepAnchor)
    editor.item.setTextCursor(cursor)
    QTest.keyClick(editor, KEYS.Key_Period, CONTROL)
    cursor.setPosition(6)
    cursor.setPosition(10, QTextCursor.MoveMode.KeepAnchor)
    editor.item.setTextCursor(cursor)
    QTest.keyClick(editor, KEYS.Key_B, CONTROL)
    QTest.keyClick(editor, KEYS.Key_U, CONTROL)
    editor.style(hue="berry", size=60.0)
    hand.window.editors.finish()
    (text,) = hand.canvas.page.things
    assert text.runs == (
        Run(1), Run(1, rise="super"), Run(4), Run(4, bold=True, underline=True, hue="berry", size=60.0)
    )  # fmt: skip
    hand.window.undo()
    assert hand.canvas.page.things[0].runs == ()


def test_a_word_of_a_bold_title_can_be_light(hand: Hand) -> None:
    editor = typing(hand, Text(text="Lantern night", bold=True, placement=Placement(200, 200)))
    cursor = editor.item.textCursor()
    cursor.setPosition(8)
    cursor.setPosition(13, QTextCursor.MoveMode.KeepAnchor)
    editor.item.setTextCursor(cursor)
    click(editor.bar.buttons["bold"])
    hand.window.editors.finish()
    (text,) = hand.canvas.page.things
    assert (text.bold, text.runs) == (False, (Run(8, bold=True),))


def test_the_bar_arranges_lines_and_names_sizes_by_distance(hand: Hand) -> None:
    editor = typing(hand, Text(text="one\ntwo\nthree", placement=Placement(200, 300)))
    click(editor.bar.buttons["align centre"])
    click(editor.bar.buttons["numbers"])
    assert editor.bar.buttons["numbers"].isChecked()
    menu = editor.bar.buttons["size"].menu()
    assert [a.text() for a in menu.actions()][:3] == [f"read from {m} m" for m in DISTANCES]
    menu.actions()[2].trigger()
    hand.window.editors.finish()
    (text,) = hand.canvas.page.things
    assert [(p.align, p.list) for p in text.paragraphs] == [("centre", "numbers")] * 3
    assert {run.size for run in text.runs} == {DISTANCES[9]}


def test_rich_paste_leaves_fonts_and_colours_behind(hand: Hand) -> None:
    editor = typing(hand, Text(text="a ", placement=Placement(200, 200)))
    editor.item.setTextCursor(QTextCursor(editor.page_document))
    QTest.keyClick(editor, KEYS.Key_End, CONTROL)
    data = QMimeData()
    data.setHtml("<p style='font-size:90px;color:red;font-family:Fancy'>very <b>bold</b> word</p>")
    QGuiApplication.clipboard().setMimeData(data)
    QTest.keyClick(editor, KEYS.Key_V, CONTROL)
    hand.window.editors.finish()
    (text,) = hand.canvas.page.things
    assert text.text == "a very bold word"
    assert [run for run in text.runs if not run.is_plain()] == [Run(4, bold=True)]


def test_a_list_pasted_among_words_stays_a_list(hand: Hand) -> None:
    editor = typing(hand, Text(text="", placement=Placement(200, 200)))
    QTest.keyClicks(editor, "Bring")
    QTest.keyClick(editor, KEYS.Key_Return)
    data = QMimeData()
    data.setHtml("<ol><li>paper</li><li><b>glue</b></li></ol>")
    editor.insert(data)
    hand.window.editors.finish()
    (text,) = hand.canvas.page.things
    assert text.text == "Bring\npaper\nglue"
    assert [p.list for p in text.paragraphs] == ["", "numbers", "numbers"]
    assert [run for run in text.runs if not run.is_plain()] == [Run(4, bold=True)]


def test_rich_paste_on_the_page_keeps_lists(hand: Hand) -> None:
    hand.put()
    data = QMimeData()
    data.setHtml("<ul><li>paper</li><li>glue</li></ul>")
    QGuiApplication.clipboard().setMimeData(data)
    hand.window.run("paste")
    (text,) = hand.canvas.page.things
    assert text.text == "paper\nglue"
    assert [p.list for p in text.paragraphs] == ["dots", "dots"]


@pytest.mark.parametrize(
    "words", ["مرحبا بالفوانيس", "שלום 12 עולם", "河灯之夜 🏮🏮", "a\u0301e\u0308 \u200b\ufeff", "\t\t x \t"]
)
def test_any_script_comes_back_as_it_was_typed(hand: Hand, words: str) -> None:
    editor = typing(hand, Text(text="", placement=Placement(200, 200)))
    data = QMimeData()
    data.setText(words)
    editor.insert(data)
    hand.window.editors.finish()
    assert hand.canvas.page.things[0].text == words


def test_a_missing_font_is_kept_and_shown_in_larchs_own(hand: Hand) -> None:
    from larch.board.typeset.rich_text import letter_font

    (id,) = hand.put(Text(text="Lantern", font="No Such Font At All", placement=Placement(200, 200)))
    assert letter_font("No Such Font At All", 40, False, False).family() == "Andika"
    hand.window.editors.edit(hand.thing(id))
    QTest.keyClicks(hand.window.editors.open, "s")
    hand.window.editors.finish()
    assert hand.canvas.page.things[0].font == "No Such Font At All"


def test_a_misspelt_word_is_underlined_and_put_right_from_its_menu(hand: Hand, qtbot) -> None:  # type: ignore[no-untyped-def]
    editor = typing(hand, Text(text="Mesure it", placement=Placement(200, 200)))
    spelling = hand.window.editors.speller
    qtbot.waitUntil(lambda: spelling.speller.ready, timeout=8000)
    block = editor.page_document.begin()
    qtbot.waitUntil(lambda: bool(block.layout().formats()), timeout=3000)
    marked = [(f.start, f.length) for f in block.layout().formats()]
    assert (0, 6) in marked
    word = QTextCursor(editor.page_document)
    word.select(QTextCursor.SelectionType.WordUnderCursor)
    menu = QMenu()
    spelling.fill(menu, word)
    next(a for a in menu.actions() if a.text() == "Measure").trigger()
    hand.window.editors.finish()
    assert hand.canvas.page.things[0].text == "Measure it"
    assert hand.canvas.page.things[0].runs == ()


def test_a_note_is_put_out_written_on_typed_on_folded_and_opened(hand: Hand) -> None:
    w = hand.window
    hand.put()
    w.run("note")
    (note,) = hand.canvas.page.things
    x, y = note.placement.x, note.placement.y
    w.ledge.take("pen")
    hand.drag((x + 40, y + 150), (x + 200, y + 170))
    (note,) = hand.canvas.page.things
    assert len(note.strokes) == 1
    w.ledge.take("select")
    w.editors.edit(note)
    QTest.keyClicks(w.editors.open, "Count to ten")
    w.editors.finish()
    (note,) = hand.canvas.page.things
    assert (note.text, len(note.strokes)) == ("Count to ten", 1)
    hand.canvas.select([note.id])
    hand.canvas.do(next(a for a in w.tag.actions_now if a.name == "fold"))
    assert hand.thing(note.id).folded
    at = hand.at(x + 40, y + 20)
    QTest.mouseClick(hand.canvas, LEFT, NONE, at)
    QTest.mouseDClick(hand.canvas, LEFT, NONE, at)
    QTest.mouseRelease(hand.canvas, LEFT, NONE, at)
    assert not hand.thing(note.id).folded
    assert len(hand.thing(note.id).strokes) == 1


def test_a_double_tap_of_a_finger_opens_a_note_at_the_board_and_one_tap_does_not(hand: Hand) -> None:
    from tests.board.touch import State, send_touch, touch_device

    (id,) = hand.put(Note(text="Answer", folded=True, placement=Placement(300, 300)))
    hand.window.ledge.take("select")
    hand.canvas.at_board = True
    device, spot = touch_device(), hand.at(340, 320)

    def tap() -> None:
        send_touch(hand.canvas, device, [(0, State.Pressed, spot.x(), spot.y())])
        send_touch(hand.canvas, device, [(0, State.Released, spot.x(), spot.y())])

    tap()
    assert hand.thing(id).folded
    tap()
    assert not hand.thing(id).folded
