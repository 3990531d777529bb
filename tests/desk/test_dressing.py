"""What a teacher does in the first minute at the board: papers, pens, words, notes, marks, paint; by real events."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QMimeData, QPoint, Qt
from PyQt6.QtGui import QColor, QGuiApplication, QTextCursor
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QAbstractButton, QApplication, QCheckBox, QColorDialog, QMenu

from larch.core.base.shape import Placement
from larch.core.model.nibs import Pen
from larch.core.model.page import SIZES, Page
from larch.core.things.ink.ink import Ink
from larch.core.things.numbers.block import Block
from larch.core.things.words.note import Note
from larch.core.things.words.rich import DISTANCES, Run
from larch.core.things.words.text import Text
from larch.desk.finder.findable import findable
from larch.desk.toolbar.chip import Chip
from larch.desk.window import Window
from larch.services.settings import load_settings
from tests.board.test_tools import Hand
from tests.samples import ring, stroke

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier
CONTROL = Qt.KeyboardModifier.ControlModifier
KEYS = Qt.Key


@pytest.fixture
def hand(window: Window) -> Hand:
    return Hand(window)


def click(button: QAbstractButton) -> None:
    QTest.mouseClick(button, LEFT, NONE, QPoint(button.width() // 2, button.height() // 2))


def choice(window: Window, name: str) -> QAbstractButton:
    QApplication.processEvents()
    shown = [b for b in window.choices.findChildren(QAbstractButton) if not b.isHidden() and b.accessibleName() == name]
    texts = [b for b in window.choices.findChildren(QAbstractButton) if not b.isHidden() and b.text() == name]
    return (shown or texts)[0]


def open_choices(window: Window, tool: str) -> None:
    window.ledge.take(tool)
    window.hand.toggle_choices(window.ledge.tool(tool))


# Papers and pages


def test_a_paper_is_tapped_on_the_shelf_and_its_line_height_typed(hand: Hand, monkeypatch: pytest.MonkeyPatch) -> None:
    w = hand.window
    hand.put()
    w.run("paper plain")
    w.run("papers")
    assert w.shelf.tray == "Papers"
    click(next(card for card in w.shelf.cards if card.item.name == "paper ruled"))
    assert hand.canvas.page.paper.pattern == "ruled"
    assert hand.canvas.page.things == ()
    w.run("page facts")
    rows = {row.name: row for row in w.facts._rows}
    rows["step"].value.setText("3 cm")
    rows["step"].value.setModified(True)
    QTest.keyClick(rows["step"].value, KEYS.Key_Return)
    assert hand.canvas.page.paper.step == 96
    rows = {row.name: row for row in w.facts._rows}
    assert rows["paper colour"].list is not None
    where = rows["paper colour"].list.findData("sky")
    rows["paper colour"].list.activated.emit(where)
    assert hand.canvas.page.paper.colour == "sky"
    monkeypatch.setattr(QColorDialog, "getColor", lambda *_args, **_more: QColor("#f4efe0"))
    rows = {row.name: row for row in w.facts._rows}
    rows["line colour"].list.activated.emit(rows["line colour"].list.findData("mix"))
    assert hand.canvas.page.paper.lines == "#f4efe0"
    w.undo()
    w.undo()
    w.undo()
    w.undo()
    assert hand.canvas.page.paper.pattern == "plain"


def test_a_piece_of_paper_is_dragged_out_and_becomes_that_of_the_page(hand: Hand) -> None:
    w = hand.window
    hand.put()
    w.show_shelf(True)
    w.shelf.choose("Papers")
    item = next(i for i in w.shelf.items if i.name == "paper graph")
    at = hand.canvas.mapToGlobal(QPoint(500, 200))
    w.putting.drop(item, at)
    (sheet,) = hand.canvas.page.things
    assert sheet.kind() == "sheet"
    action = next(a for a in w.tag.actions_now if a.name == "under page")
    hand.canvas.do(action)
    assert (hand.canvas.page.paper.pattern, hand.canvas.page.things) == ("graph", ())


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


def test_what_lies_outside_is_said_before_anything_is_printed(hand: Hand) -> None:
    from larch.desk.dialogs.export import ExportDialog

    hand.put(Block(value=100, placement=Placement(2000, 100)))
    w = hand.window
    number = len(w.session.lesson.pages)
    where = next(i for i, page in enumerate(w.session.lesson.pages, 1) if page.id == hand.canvas.page_id)
    dialog = ExportDialog(w.session.lesson.pages, hand.canvas.page_id, w)
    assert f"page {where}" in dialog._beyond.text()
    assert dialog.grow
    dialog.deleteLater()
    neat = ExportDialog(w.session.lesson.pages[:1], "p1", w)
    assert neat._beyond.isHidden() and neat._grow.isHidden()
    neat.deleteLater()
    assert number


def test_the_export_cuts_or_grows_as_was_chosen(hand: Hand, tmp_path, qtbot) -> None:  # type: ignore[no-untyped-def]
    from PyQt6.QtGui import QImage

    hand.put(Block(value=100, placement=Placement(2000, 100)))
    sizes = []
    for grow in (True, False):
        target = tmp_path / f"{grow}.png"
        hand.window.files.export_to(target, whole=False, width=400, grow=grow)
        qtbot.waitUntil(target.exists, timeout=5000)
        sizes.append(QImage(str(target)).height())
    assert sizes[1] == 225
    assert sizes[0] < 160


# Pens


def test_the_pen_is_chosen_kept_and_remembered(hand: Hand) -> None:
    w = hand.window
    hand.put()
    open_choices(w, "pen")
    click(choice(w, "crayon"))
    click(choice(w, "colour: plum"))
    click(choice(w, "dashes"))
    pen = w.ledge.tool("pen").pen
    assert (pen.nib, pen.hue, pen.dash) == ("crayon", "plum", "dash")
    click(choice(w, "keep this pen"))
    assert w.ledge.tool("pen").kept[-1] == pen
    hand.drag((200, 300), (500, 320))
    (ink,) = hand.canvas.page.things
    assert (ink.nib, ink.hue, ink.dash) == ("crayon", "plum", "dash")
    settings = load_settings()
    assert settings.pen == pen and settings.pens[-1] == pen


def test_tip_colours_are_switched_in_the_choices_and_kept(hand: Hand) -> None:
    w = hand.window
    open_choices(w, "pen")
    box = next(b for b in w.choices.findChildren(QCheckBox) if not b.isHidden())
    QTest.mouseClick(box, LEFT, NONE, QPoint(12, box.height() // 2))
    assert w.ledge.tool("pen").by_tip
    assert load_settings().by_tip


def test_every_pen_setting_is_in_the_finder(hand: Hand) -> None:
    w = hand.window
    for name, expected in (("nib highlighter", "highlighter"), ("nib fine", "fine")):
        w.run(name)
        assert w.ledge.tool("pen").pen.nib == expected
        assert w.ledge.current.name == "pen"
    w.run("form line")
    w.run("ends both")
    w.run("dash dots")
    pen = w.ledge.tool("pen").pen
    assert (pen.form, pen.ends, pen.dash) == ("line", "both", "dots")
    words = {found.label for found in findable(w.context)}
    assert {"Write with: crayon", "Rub out: inside a ring", "Paper: polar", "Page size A4", "Sticky note"} <= words


def test_live_highlighter_darkens_and_lies_under_the_words(hand: Hand) -> None:
    hand.put(Text(text="LANTERN", size=120, bold=True, placement=Placement(200, 200)))
    w = hand.window
    w.run("nib highlighter")
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(150, 290))
    from tests.board.test_tools import move

    for x in range(160, 700, 10):
        move(hand.canvas, hand.at(x, 290))
    dark_live = min(_lightness(hand, x, 290) for x in range(220, 480, 3))
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(700, 290))
    hand.canvas.surface.sharpen(1000)
    dark_after = min(_lightness(hand, x, 290) for x in range(220, 480, 3))
    assert dark_live < 80 and dark_after < 80
    assert [getattr(t, "nib", t.kind()) for t in hand.canvas.page.things] == ["highlighter", "text"]


def _lightness(hand: Hand, x: float, y: float) -> int:
    return hand.canvas.grab(hand.canvas.rect()).toImage().pixelColor(hand.at(x, y)).lightness()


def test_a_stroke_that_crosses_itself_is_highlighted_evenly(hand: Hand) -> None:
    hand.put()
    cross = [(300.0 + 4 * i, 300.0, 1.0, 0.0) for i in range(40)] + [(380.0, 220.0 + 4 * i, 1.0, 0.0) for i in range(40)]
    from larch.core.things.ink.ink import ink_from

    hand.canvas.commit(_put(hand, ink_from(cross, pen=Pen("highlighter", width=30.0, hue="straw"))))
    hand.canvas.surface.sharpen(1000)
    image = hand.canvas.grab().toImage()
    assert image.pixelColor(hand.at(380, 300)) == image.pixelColor(hand.at(320, 300))


def _put(hand: Hand, *things: object):  # type: ignore[no-untyped-def]
    from larch.core.model.action import put

    return put(hand.canvas.page, things, "put")  # type: ignore[arg-type]


# Rubbing out


def test_rubbing_shows_what_is_left_while_the_rubber_moves(hand: Hand) -> None:
    from tests.board.test_tools import move

    hand.put(stroke(300))
    hand.window.ledge.take("rub out")
    hand.canvas.surface.sharpen(1000)
    assert _lightness(hand, 150, 302) < 120
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(150, 260))
    move(hand.canvas, hand.at(150, 340))
    move(hand.canvas, hand.at(150, 500))
    hand.canvas.surface.sharpen(1000)
    assert _lightness(hand, 150, 302) > 200
    assert len(hand.canvas.page.things) == 1
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(150, 500))
    assert len(hand.canvas.page.things) == 2
    assert hand.canvas.surface.instead == {}
    hand.window.undo()
    assert len(hand.canvas.page.things) == 1


def test_the_chip_at_a_ring_confirms_and_a_press_elsewhere_spares(hand: Hand) -> None:
    ids = hand.put(stroke(300), Text(text="Count", placement=Placement(100, 320)))
    w = hand.window
    w.run("rub ring")

    def draw_ring() -> Chip:
        from tests.board.test_tools import move

        QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(30, 260))
        for spot in ((330, 260), (330, 420), (30, 420), (32, 280)):
            move(hand.canvas, hand.at(*spot))
        QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(32, 280))
        return next(chip for chip in hand.canvas.findChildren(Chip) if chip.isVisible())

    chip = draw_ring()
    assert chip.text() == "rub out 1 stroke"
    assert hand.canvas.surface.instead
    hand.tap(900, 500)
    assert [t.id for t in hand.canvas.page.things] == ids
    assert hand.canvas.surface.instead == {}
    draw_ring()
    w.undo()
    assert hand.canvas.surface.instead == {}
    w.undo(redo=True)
    click(draw_ring())
    assert [t.kind() for t in hand.canvas.page.things] == ["text"]
    assert not [chip for chip in hand.canvas.findChildren(Chip) if chip.isVisible()]


def test_only_what_pupils_wrote_goes(hand: Hand) -> None:
    """The teacher keeps what is written; the class writes over it; everything of theirs is wiped, nothing else."""
    hand.put(stroke(200, "berry"), Text(text="x = 5"), Note(text="Fold"))
    w = hand.window
    w.run("keep ink")
    w.ledge.take("pen")
    hand.drag((200, 400), (500, 420))
    hand.drag((200, 210), (500, 190))
    w.run("wipe")
    assert [t.kind() for t in hand.canvas.page.things] == ["ink", "text", "note"]
    assert "1 that is locked stayed" in w.notice.text()
    w.run("keep ink")
    assert "no ink to keep" in w.notice.text()


def test_one_colour_is_wiped(hand: Hand) -> None:
    hand.put(stroke(200, "berry"), stroke(300, "lake"))
    w = hand.window
    open_choices(w, "rub out")
    click(choice(w, "colour: lake"))
    click(choice(w, "wipe this colour"))
    assert [t.hue for t in hand.canvas.page.things] == ["berry"]


# Marks and paint


def test_the_selection_becomes_the_stamp(hand: Hand) -> None:
    hand.put(Block(value=10, placement=Placement(100, 100)), stroke(200))
    w = hand.window
    hand.canvas.select([t.id for t in hand.canvas.page.things])
    w.run("own stamp")
    hand.tap(600, 400)
    things = hand.canvas.page.things
    assert [t.kind() for t in things] == ["block", "ink", "block", "ink"]
    assert hand.canvas.box_of(things[2:]).centre == pytest.approx((600, 400), abs=3)
    hand.canvas.select(())
    w.hand._selected = ()
    w.run("own stamp")
    assert "Select what is to be the picture" in w.notice.text()


def test_paint_fills_off_the_interfaces_thread_and_undoes(hand: Hand, qtbot) -> None:  # type: ignore[no-untyped-def]
    hand.put(ring(500, 350, 120, 0.03))
    w = hand.window
    w.ledge.take("paint")
    hand.tap(480, 350)
    qtbot.waitUntil(lambda: len(hand.canvas.page.things) == 2, timeout=5000)
    painted, line = hand.canvas.page.things
    assert (painted.kind(), line.kind()) == ("painted", "ink")
    hand.canvas.surface.sharpen(1000)
    assert _lightness(hand, 500, 350) < 235
    assert _lightness(hand, 640, 350) > 245
    w.undo()
    assert len(hand.canvas.page.things) == 1


def test_an_open_region_shows_its_gap_and_can_be_bridged_all_the_same(hand: Hand, qtbot) -> None:  # type: ignore[no-untyped-def]
    hand.put(ring(500, 350, 120, 0.3))
    w = hand.window
    w.ledge.take("paint")
    hand.tap(480, 350)
    qtbot.waitUntil(lambda: "open at the ring" in w.notice.text(), timeout=5000)
    assert len(hand.canvas.page.things) == 1
    assert w.hand in hand.canvas.overlay.marks
    w.notice._pressed()
    qtbot.waitUntil(lambda: len(hand.canvas.page.things) == 2, timeout=5000)
    assert w.hand not in hand.canvas.overlay.marks
    hand.tap(1000, 600)
    qtbot.waitUntil(lambda: "no outline" in w.notice.text(), timeout=5000)
    assert len(hand.canvas.page.things) == 2


# Words and notes


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


def test_a_lesson_is_dressed_without_help(hand: Hand, qtbot) -> None:  # type: ignore[no-untyped-def]
    """The issue's own trial: three pages with lined paper, a large title, directions in two sizes on a note, a solution
    whose steps have their own colours, a row of marks on a line, a painted drawing; then only what pupils wrote goes."""
    w = hand.window
    w.files.new()
    canvas = w.canvas
    hand.canvas = canvas
    w.run("paper ruled")
    w.ledge.take("text")
    w.ledge.tool("text").size = 80.0
    hand.tap(100, 60)
    QTest.keyClicks(w.editors.open, "River lanterns")
    w.editors.finish()
    w.run("note")
    w.editors.edit(canvas.page.things[-1])
    QTest.keyClicks(w.editors.open, "Directions")
    QTest.keyClick(w.editors.open, KEYS.Key_Return)
    QTest.keyClicks(w.editors.open, "Fold twice")
    cursor = w.editors.open.item.textCursor()
    cursor.setPosition(0)
    cursor.setPosition(10, QTextCursor.MoveMode.KeepAnchor)
    w.editors.open.item.setTextCursor(cursor)
    w.editors.open.style(size=DISTANCES[9])
    w.editors.finish()
    assert canvas.page.things[-1].runs[0].size == DISTANCES[9]
    w.turn(1)
    assert canvas.page.paper.pattern == "ruled"
    for k, hue in enumerate(("needle", "lake", "berry")):
        w.ledge.take("text")
        w.ledge.tool("text").hue = hue
        w.ledge.tool("text").size = 40.0
        hand.tap(150, 150 + 90 * k)
        QTest.keyClicks(w.editors.open, f"step {k}")
        w.editors.finish()
    assert [t.hue for t in canvas.page.things] == ["needle", "lake", "berry"]
    w.turn(1)
    w.run("form line")
    hand.drag((100, 600), (900, 600))
    w.ledge.take("stamp")
    hand.drag((120, 560), (620, 560))
    w.run("form free")
    canvas.commit(_put(hand, ring(900, 300, 120)))
    w.ledge.take("paint")
    hand.tap(900, 300)
    qtbot.waitUntil(lambda: any(t.kind() == "painted" for t in canvas.page.things), timeout=5000)
    w.run("keep ink")
    before = [t.kind() for t in canvas.page.things]
    w.ledge.take("pen")
    hand.drag((300, 200), (500, 260))
    assert isinstance(canvas.page.things[-1], Ink)
    w.run("wipe")
    assert [t.kind() for t in canvas.page.things] == before
    assert len(w.session.lesson.pages) == 3
    assert isinstance(canvas.page, Page)
