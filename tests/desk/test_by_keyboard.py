"""By keys alone: reaching every part of the window, placing, gathering, coming back to the page."""

from __future__ import annotations

from collections import Counter
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtPrintSupport import QPrinter
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QPushButton

from larch.board.printing import print_pages
from larch.core.base.shape import Placement
from larch.core.things.papers.sheet import Sheet
from larch.core.things.words.note import Note
from larch.desk.dialogs.printing import send
from larch.desk.window import Window
from tests.board.test_tools import Hand

KEYS = Qt.Key
CONTROL, SHIFT = Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.ShiftModifier


def key(window: Window, which: Qt.Key, held: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier) -> None:
    QTest.keyClick(window.focusWidget() or window.canvas, which, held)


def test_no_key_is_given_to_two_commands(window: Window) -> None:
    keys = Counter(key for command in window.commands.listed for key in command.shortcut.split(" or ") if key)
    assert [key for key, count in keys.items() if count > 1] == []
    tools = {tool.shortcut for tool in window.ledge.tools}
    assert not tools & set(keys)


def test_the_facts_are_gone_to_and_left_with_the_selection_kept(hand: Hand) -> None:
    (id,) = hand.put(Sheet(placement=Placement(300, 200), width=80, height=60))
    window = hand.window
    window.canvas.setFocus()
    hand.canvas.select([id])
    key(window, KEYS.Key_I, CONTROL)
    assert window.facts.isAncestorOf(window.focusWidget())
    assert hand.canvas.selection == (id,)
    key(window, KEYS.Key_Escape)
    assert window.canvas.hasFocus()
    key(window, KEYS.Key_I, CONTROL)
    assert window.facts.isAncestorOf(window.focusWidget())
    key(window, KEYS.Key_I, CONTROL)
    assert not window.facts.isVisible()
    assert window.canvas.hasFocus()


def test_after_the_finder_the_keys_reach_the_page(window: Window) -> None:
    key(window, KEYS.Key_K, CONTROL)
    QTest.keyClicks(window.finder.field, "die of 8")
    key(window, KEYS.Key_Return)
    assert window.canvas.hasFocus()
    assert window.canvas.things()[0].kind() == "die"
    key(window, KEYS.Key_R)
    assert sum(window.canvas.things()[0].counts()) == 1


def test_on_the_shelf_enter_opens_the_tray_that_has_the_focus(window: Window) -> None:
    key(window, KEYS.Key_B, CONTROL)
    QTest.keyClicks(window.shelf.search, "die")
    before = len(window.canvas.page.things)
    key(window, KEYS.Key_Return)
    assert len(window.canvas.page.things) == before + 1
    window.show_shelf(False)
    key(window, KEYS.Key_B, CONTROL)
    assert window.shelf.search.selectedText() == "die"
    button: QPushButton = window.shelf.trays["Papers"]
    button.setFocus()
    key(window, KEYS.Key_Return)
    assert window.shelf.tray == "Papers"
    assert len(window.canvas.page.things) == before + 1


@pytest.mark.parametrize(("tool", "kind"), [("T", "text"), ("Q", "equation")])
def test_words_are_placed_by_enter(hand: Hand, tool: str, kind: str) -> None:
    hand.put()
    window = hand.window
    window.canvas.setFocus()
    QTest.keyClicks(window.canvas, tool)
    key(window, KEYS.Key_Return)
    editor = window.editors.open
    assert editor is not None
    QTest.keyClicks(window.focusWidget(), "7")
    key(window, KEYS.Key_Escape) if kind == "text" else key(window, KEYS.Key_Return)
    (made,) = hand.canvas.page.things
    assert made.kind() == kind
    assert hand.canvas.page.printed().covers(made.box())
    assert window.canvas.hasFocus()


def test_things_are_gathered_one_by_one(hand: Hand) -> None:
    ids = hand.put(*(Sheet(placement=Placement(100 + 150 * k, 200), width=80, height=60) for k in range(4)))
    window = hand.window
    window.canvas.setFocus()
    key(window, KEYS.Key_Tab)
    assert hand.canvas.selection == (ids[0],)
    key(window, KEYS.Key_K)
    key(window, KEYS.Key_Tab)
    key(window, KEYS.Key_Tab)
    assert set(hand.canvas.selection) == {ids[0], ids[2]}
    key(window, KEYS.Key_K)
    key(window, KEYS.Key_Tab)
    assert set(hand.canvas.selection) == {ids[0], ids[2], ids[3]}
    key(window, KEYS.Key_Escape)
    key(window, KEYS.Key_Tab)
    assert len(hand.canvas.selection) == 1


def test_every_part_of_the_window_is_reached_by_one_key(hand: Hand) -> None:
    (id,) = hand.put(Sheet(placement=Placement(300, 200), width=80, height=60))
    window = hand.window
    window.canvas.setFocus()
    hand.canvas.select([id])
    window.facts.want(True)
    window.run("layers")
    window.canvas.setFocus()
    parts = [window.tag, window.facts, window._cards["layers"], window.ledge]
    for part in parts:
        key(window, KEYS.Key_F6)
        assert part.isAncestorOf(window.focusWidget()), part.accessibleName()
    for part in reversed(parts[:-1]):
        key(window, KEYS.Key_F6, SHIFT)
        assert part.isAncestorOf(window.focusWidget())
    key(window, KEYS.Key_Escape)


def test_the_tags_buttons_are_pressed_by_enter_and_left_by_esc(hand: Hand) -> None:
    (id,) = hand.put(Sheet(placement=Placement(300, 200), width=80, height=60))
    window = hand.window
    window.canvas.setFocus()
    hand.canvas.select([id])
    key(window, KEYS.Key_F6)
    while window.focusWidget().accessibleName() != "duplicate":
        key(window, KEYS.Key_Tab)
        assert window.tag.isAncestorOf(window.focusWidget())
    key(window, KEYS.Key_Return)
    assert len(hand.canvas.page.things) == 2
    window.tag.findChildren(type(window.tag._row.itemAt(0).widget()))[0].setFocus()
    key(window, KEYS.Key_Escape)
    assert window.canvas.hasFocus()


def test_what_is_typed_on_a_note_just_put_out_is_written_on_it(window: Window) -> None:
    window.pages.new()
    window.canvas.setFocus()
    window.run("note")
    QTest.keyClicks(window.canvas, "n")
    QTest.keyClicks(window.focusWidget(), "ine rafts")
    key(window, KEYS.Key_Escape)
    (note,) = window.canvas.page.things
    assert isinstance(note, Note)
    assert note.text == "nine rafts"


def test_pages_are_printed_each_on_its_sheet(window: Window, tmp_path: Path, qtbot, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    said: list[str] = []
    monkeypatch.setattr(window.notice, "say", lambda sentence, *_rest, **_more: said.append(sentence))

    def printer(name: str) -> QPrinter:
        made = QPrinter(QPrinter.PrinterMode.ScreenResolution)
        made.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
        made.setOutputFileName(str(tmp_path / name))
        return made

    pages = list(window.session.lesson.pages)[:3]
    assert print_pages(printer("all.pdf"), pages) == 3
    assert (tmp_path / "all.pdf").stat().st_size > 2000
    assert print_pages(printer("one.pdf"), pages, lambda done, count: False) == 1
    chosen = printer("chosen.pdf")
    chosen.setPrintRange(QPrinter.PrintRange.PageRange)
    chosen.setFromTo(2, 3)
    send(window.context, chosen)
    qtbot.waitUntil(lambda: any("2 pages went" in sentence for sentence in said), timeout=20_000)
    assert QApplication.instance() is not None
