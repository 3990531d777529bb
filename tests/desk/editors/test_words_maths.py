"""Mathematics in a line of words: made, told, unmade, copied and kept, by real keys."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QMimeData, QPointF, Qt
from PyQt6.QtGui import QColor, QGuiApplication, QImage, QPainter, QTextCursor
from PyQt6.QtTest import QTest

from larch.board.typeset.inline_maths import OBJECT
from larch.board.typeset.rich_text import document_of, paint_document, read_document
from larch.core.base.shape import Placement
from larch.core.files.rich_html import read_html
from larch.core.things.words.note import Note
from larch.core.things.words.rich import Run
from larch.core.things.words.text import Text
from tests.board.test_tools import Hand
from tests.desk.editors.test_words import typing

CONTROL = Qt.KeyboardModifier.ControlModifier
KEYS = Qt.Key
AT = Placement(200, 200)


def end(editor) -> None:  # type: ignore[no-untyped-def]
    QTest.keyClick(editor, KEYS.Key_End, CONTROL)


def test_what_stands_before_the_caret_becomes_mathematics_and_words_go_on(hand: Hand) -> None:
    editor = typing(hand, Text(text="Half of x/2", placement=AT))
    end(editor)
    QTest.keyClick(editor, KEYS.Key_M, CONTROL)
    assert editor.toPlainText() == f"Half of {OBJECT}"
    QTest.keyClick(editor, KEYS.Key_M, CONTROL)
    assert editor.toPlainText() == "Half of x/2"
    QTest.keyClick(editor, KEYS.Key_M, CONTROL)
    QTest.keyClicks(editor, " is a quarter")
    hand.window.editors.finish()
    (text,) = hand.canvas.page.things
    assert text.text == "Half of x/2 is a quarter"
    assert text.runs == (Run(8), Run(3, maths=True))


def test_the_same_keys_make_words_of_it_again(hand: Hand) -> None:
    editor = typing(hand, Text(text="so x/2", runs=(Run(3), Run(3, maths=True)), placement=AT))
    end(editor)
    QTest.keyClick(editor, KEYS.Key_M, CONTROL)
    assert editor.toPlainText() == "so x/2"
    QTest.keyClicks(editor, "3")
    hand.window.editors.finish()
    (text,) = hand.canvas.page.things
    assert (text.text, text.runs) == ("so x/23", ())


def test_what_is_selected_becomes_mathematics_by_its_button_with_the_spaces_round_it_kept(hand: Hand) -> None:
    editor = typing(hand, Text(text="take 1/2 + 1/3 away", placement=AT))
    cursor = editor.item.textCursor()
    cursor.setPosition(4)
    cursor.setPosition(15, QTextCursor.MoveMode.KeepAnchor)
    editor.item.setTextCursor(cursor)
    QTest.mouseClick(editor.bar.buttons["maths"], Qt.MouseButton.LeftButton)
    assert editor.toPlainText() == f"take {OBJECT} away"
    hand.window.editors.finish()
    (text,) = hand.canvas.page.things
    assert (text.text, text.runs) == ("take 1/2 + 1/3 away", (Run(5), Run(9, maths=True)))


def test_with_nothing_there_it_says_what_to_do(hand: Hand, said: list[str]) -> None:
    editor = typing(hand, Text(text="", placement=AT))
    QTest.keyClick(editor, KEYS.Key_M, CONTROL)
    assert "mathematics" in said[0]
    assert editor.toPlainText() == ""


def test_a_style_leaves_mathematics_what_it_is(hand: Hand) -> None:
    editor = typing(hand, Text(text="so x/2 ok", runs=(Run(3), Run(3, maths=True)), bold=True, placement=AT))
    QTest.keyClick(editor, KEYS.Key_A, CONTROL)
    editor.style(hue="berry")
    QTest.keyClick(editor, KEYS.Key_B, CONTROL)
    hand.window.editors.finish()
    (text,) = hand.canvas.page.things
    assert text.text == "so x/2 ok"
    assert text.runs[1] == Run(3, hue="berry", maths=True)


def test_it_is_copied_with_its_meaning_and_comes_back(hand: Hand) -> None:
    editor = typing(hand, Text(text="so x/2 ok", runs=(Run(3), Run(3, maths=True)), placement=AT))
    QTest.keyClick(editor, KEYS.Key_A, CONTROL)
    QTest.keyClick(editor, KEYS.Key_X, CONTROL)
    clipboard = QGuiApplication.clipboard()
    assert clipboard is not None
    data = clipboard.mimeData()
    assert data is not None
    assert data.text() == "so x/2 ok"
    assert "<mfrac>" in data.html()
    assert editor.toPlainText() == ""
    QTest.keyClick(editor, KEYS.Key_V, CONTROL)
    hand.window.editors.finish()
    (text,) = hand.canvas.page.things
    assert (text.text, text.runs) == ("so x/2 ok", (Run(3), Run(3, maths=True)))


def test_mathml_in_what_a_web_page_gives_is_read() -> None:
    source = "<p>Then <math><mfrac><mi>x</mi><mn>2</mn></mfrac></math> is left</p>"
    text, runs, _paragraphs = read_html(source)
    assert text == "Then x/2 is left"
    assert runs == (Run(5), Run(3, maths=True))


@pytest.mark.parametrize("source", ["<p>a <math><mfrac></math> b</p>", "<p>a <math>", "<p><math></math></p>"])
def test_mathml_that_is_none_costs_no_words(source: str) -> None:
    data = QMimeData()
    data.setHtml(source)
    text, runs, _paragraphs = read_html(source)
    assert text.replace(" ", "") in ("ab", "a", "")
    assert not any(run.maths for run in runs)


@pytest.mark.parametrize("size", [20.0, 40.0, 90.0])
@pytest.mark.parametrize("maths", ["1", "11/22 + 1"])
def test_it_stands_on_the_line_of_the_words(size: float, maths: str) -> None:
    """The lowest ink of the digit that ends it is where it is for a digit in words, in another colour."""
    runs = (Run(2), Run(len(maths), hue="berry", maths=True))
    image = QImage(1200, 400, QImage.Format.Format_RGB32)
    image.fill(QColor("white"))
    painter = QPainter(image)
    paint_document(painter, document_of(Text(text="1 " + maths, size=size, runs=runs)), QPointF(10, 40))
    painter.end()
    dark = [(x, y) for y in range(400) for x in range(1200) if image.pixelColor(x, y).lightness() < 150]
    red = [(x, y) for x, y in dark if image.pixelColor(x, y).red() > image.pixelColor(x, y).green() + 40]
    last = max(x for x, _y in red)
    words = max(y for x, y in dark if (x, y) not in red)
    assert abs(max(y for x, y in red if x > last - 0.3 * size) - words) <= max(1.0, 0.03 * size)


def test_facts_are_told_within_it_and_it_stays_as_it_was_typed() -> None:
    note = Note(text="h = {AB}/2", runs=(Run(4), Run(6, maths=True)), told=("5",))
    shown = read_document(document_of(note), note)
    assert shown.text == "h = 5/2"
    assert shown.runs == (Run(4), Run(3, maths=True))
