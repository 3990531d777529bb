"""The path of a teacher through the real window, by real events."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QAbstractButton, QLineEdit, QPlainTextEdit, QToolButton, QWidget

from larch.board.canvas import Canvas
from larch.core.model.action import put
from larch.core.model.capabilities import IsInk
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.numbers.block import Block
from larch.desk.finder.findable import findable
from larch.desk.window import Window
from tests.desk.test_files import reopened, save_to

LEFT = Qt.MouseButton.LeftButton
KEYS = Qt.Key


def key(window: Window, which: Qt.Key, held: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier) -> None:
    QTest.keyClick(window.canvas, which, held)


def click(button: QWidget) -> None:
    QTest.mouseClick(button, LEFT, Qt.KeyboardModifier.NoModifier, QPoint(button.width() // 2, button.height() // 2))


def draw(window: Window, *spots: tuple[int, int]) -> None:
    from tests.board.test_tools import move

    QTest.mousePress(window.canvas, LEFT, Qt.KeyboardModifier.NoModifier, QPoint(*spots[0]))
    for spot in spots[1:]:
        move(window.canvas, QPoint(*spot))
    QTest.mouseRelease(window.canvas, LEFT, Qt.KeyboardModifier.NoModifier, QPoint(*spots[-1]))


def test_turning_pages_and_a_new_one_after_the_last(window: Window) -> None:
    count = len(window.session.lesson.pages)
    for number in range(2, count + 1):
        click(window.ledge.onwards)
        assert window.ledge.number.text() == f"{number} of {count}"
    click(window.ledge.onwards)
    assert window.ledge.number.text() == f"{count + 1} of {count + 1}"
    click(window.ledge.undo)
    assert len(window.session.lesson.pages) == count
    click(window.ledge.back)
    assert window.ledge.number.text() == f"{count - 1} of {count}"


def test_write_wipe_and_set_out_again(window: Window) -> None:
    window.show_page("p2")
    before = window.canvas.page.things
    window.ledge.take("pen")
    for y in (300, 340, 380):
        draw(window, (300, y), (340, y), (400, y + 5))
    window.ledge.take("select")
    block = next(t for t in before if isinstance(t, Block) and not t.supply)
    window.canvas.select([block.id])
    key(window, KEYS.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    window.run("wipe")
    assert "Wiped 3 strokes" in window.notice.text()
    assert sum(isinstance(t, IsInk) for t in window.canvas.page.things) == 0
    assert window.canvas.page.thing(block.id).placement.x == block.placement.x + 32
    click(window.ledge.again)
    assert window.canvas.page.things == before


def test_exchange_from_the_tag(window: Window) -> None:
    window.pages.new()
    window.canvas.commit(put(window.canvas.page, [Block().moved(20 * i, 100) for i in range(12)], "put"))
    buttons = [b.text() for b in window.tag.findChildren(QToolButton) if b.isVisible()]
    assert "exchange ten for one" in buttons
    click(next(b for b in window.tag.findChildren(QToolButton) if b.text() == "exchange ten for one"))
    assert sorted(t.worth() for t in window.canvas.page.things) == [1, 1, 10]


def test_the_shelf_is_searched_and_put_out_by_tap_and_drag(window: Window) -> None:
    window.pages.new()
    click(window.ledge.shelf)
    QTest.keyClicks(window.shelf.search, "probabilty")  # a letter is missing
    assert "die" in [card.item.label for card in window.shelf.cards]
    click(next(card for card in window.shelf.cards if card.item.label == "die"))
    assert [t.kind() for t in window.canvas.page.things] == ["die"]
    window.shelf.search.setText("hundreds")
    card = window.shelf.cards[0]
    target = window.canvas.mapToGlobal(QPoint(300, 200))
    card.dragged.emit(card.item, target)
    assert len(window.canvas.preview_page().things) == 2
    card.dropped.emit(card.item, target)
    assert window.canvas.page.things[-1].box().centre == pytest.approx(window.canvas.camera.to_page(300, 200))
    window.shelf.search.setText("zeppelin")
    assert window.shelf.cards == []


def test_facts_are_typed_and_refused_with_a_sentence(window: Window) -> None:
    window.show_page("p4")
    triangle = next(t for t in window.canvas.page.things if isinstance(t, Polygon))
    window.canvas.select([triangle.id])
    window.run("facts")
    row = next(row for row in window.facts._rows if row.name == "AB")
    row.value.selectAll()
    QTest.keyClicks(row.value, "9 cm")
    QTest.keyClick(row.value, KEYS.Key_Return)
    facts = {f.name: f.text for f in window.canvas.page.thing(triangle.id).facts(window.canvas.page)}
    assert facts["AB"] == "9 cm"
    row = next(row for row in window.facts._rows if row.name == "AB")
    row.value.selectAll()
    QTest.keyClicks(row.value, "long")
    QTest.keyClick(row.value, KEYS.Key_Return)
    assert "not a number" in window.facts._trouble.text()
    window.undo()
    assert window.canvas.page.thing(triangle.id) == triangle


def test_every_eye_shows_its_fact_on_the_page(window: Window) -> None:
    """No eye without something behind it: pressing one changes the picture, pressing it again takes it away."""
    from larch.core.model.kinds import shelf_items
    from tests.board.test_surface import differing

    pressed = 0
    window.resize(900, 560)
    for item in [item for item in shelf_items() if item.name in ("ones", "hundreds", "triangle", "square")]:
        window.pages.new()
        window.canvas.commit(put(window.canvas.page, [item.make().moved(400, 200)], "put"))
        window.facts.want(True)
        for row in list(window.facts._rows):
            if row.eye is None:
                continue
            window.canvas.surface.sharpen(5000)
            before = window.canvas.surface.base.toImage()
            window.facts.toggle(row.name)
            window.canvas.surface.sharpen(5000)
            assert differing(window.canvas.surface.base.toImage(), before) > 5, (item.name, row.name)
            window.facts.toggle(row.name)
            window.canvas.surface.sharpen(5000)
            assert differing(window.canvas.surface.base.toImage(), before) == 0, (item.name, row.name)
            pressed += 1
    assert pressed > 30


def test_the_finder_finds_commands_things_and_pages(window: Window) -> None:
    window.pages.new()
    for query, check in (
        ("hexagon", lambda: window.canvas.page.things[-1].name or len(window.canvas.page.things[-1].vertices) == 6),
        ("duplicate", lambda: len(window.canvas.page.things) == 2),
        ("plain paper", lambda: window.canvas.page.paper.pattern == "plain"),
        ("candle", lambda: window.canvas.page.title == "How long does the candle burn?"),
    ):
        key(window, KEYS.Key_K, Qt.KeyboardModifier.ControlModifier)
        window.finder.open()
        QTest.keyClicks(window.finder.field, query)
        QTest.keyClick(window.finder.field, KEYS.Key_Return)
        assert check(), query


def test_every_command_and_action_is_in_the_finder(window: Window) -> None:
    window.show_page("p2")
    window.canvas.select([t.id for t in window.canvas.page.things])
    found = {f.label for f in findable(window.context)}
    for command in window.commands.listed:
        if command.enabled():
            assert command.label.replace("&", "") in found
    assert {"group", "lock", "to the back", "turn a quarter"} <= found


def test_the_keyboard_alone_goes_through_a_page(window: Window) -> None:
    window.show_page("p4")
    window.canvas.setFocus()
    key(window, KEYS.Key_Tab)
    key(window, KEYS.Key_Tab)
    (triangle,) = window.canvas.things()
    assert isinstance(triangle, Polygon)
    assert "angle A" in window.canvas.accessibleDescription()
    key(window, KEYS.Key_N)
    key(window, KEYS.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    (after,) = window.canvas.things()
    assert after.vertices[0][0] == triangle.vertices[0][0] + 32
    key(window, KEYS.Key_Escape)
    key(window, KEYS.Key_Down)
    assert window.canvas.things()[0].placement.y == after.placement.y + 2
    window.show_page("p3")
    window.canvas.setFocus()
    while not window.canvas.things() or window.canvas.things()[0].kind() != "die":
        key(window, KEYS.Key_Tab)
    key(window, KEYS.Key_R)
    assert sum(window.canvas.things()[0].counts()) == 1
    assert "rolls 1" in window.canvas.accessibleDescription()


def test_the_board_shows_only_page_and_ledge_with_large_targets(window: Window) -> None:
    key(window, KEYS.Key_F5)
    window.run("board")
    assert not window.top_bar.isVisible()
    targets = [window.ledge.undo, window.ledge.onwards, window.ledge.shelf, *window.ledge.buttons.values()]
    assert all(min(button.height(), button.width()) >= 56 for button in targets)
    window.show_page("p3")
    window.canvas.select([t.id for t in window.canvas.page.things if t.kind() == "die"])
    names = {action.name for action in window.tag.actions_now}
    assert names == {"roll", "roll often", "tally"}
    key(window, KEYS.Key_Escape)
    key(window, KEYS.Key_Escape)
    assert window.top_bar.isVisible()


def test_things_go_over_the_clipboard_to_another_lesson(window: Window) -> None:
    window.show_page("p6")
    linked = [t.id for t in window.canvas.page.things if t.kind() in ("equation", "text")]
    window.canvas.select(linked)
    window.run("copy")
    window.pages.new()
    window.run("paste")
    assert len(window.canvas.page.things) == len(linked)
    window.undo()
    from PyQt6.QtGui import QGuiApplication

    QGuiApplication.clipboard().setText("two lanterns")
    window.run("paste")
    assert window.canvas.page.things[-1].text == "two lanterns"
    QGuiApplication.clipboard().clear()
    window.run("paste")
    assert "nothing on the clipboard" in window.notice.text()


def test_every_control_has_an_accessible_name(window: Window) -> None:
    window.show_shelf(True)
    window.show_page("p4")
    window.canvas.select(["t2"])
    window.facts.want(True)
    window.spread.open(window.session, "p1")
    for tool in window.ledge.tools:
        window.choices.open_for(tool)
        nameless = [
            w
            for w in window.findChildren(QWidget)
            if isinstance(w, QAbstractButton | QLineEdit | Canvas)
            and not (w.accessibleName() or getattr(w, "text", str)())
            and not w.objectName().startswith("qt_")
            and not isinstance(w.parent(), QLineEdit)
        ]
        assert nameless == []


def test_a_mistake_of_ours_is_said_logged_and_work_goes_on(window: Window, capsys: pytest.CaptureFixture[str]) -> None:
    from larch.desk.app import Trouble
    from larch.services import log

    trouble = Trouble(window)
    log.report(ZeroDivisionError("oops"), "a test")
    trouble.stumble(ZeroDivisionError, ZeroDivisionError("oops"), None)
    assert "your work is kept" in window.notice.text()
    assert "oops" in capsys.readouterr().err and "ZeroDivisionError: oops" in log.newest()
    window.run("log")
    shown = [one for one in window.findChildren(QPlainTextEdit) if "oops" in one.toPlainText()]
    assert len(shown) == 1 and shown[0].isVisible()
    shown[0].window().close()


def test_a_job_that_fails_unheard_is_logged_and_said(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    from larch.desk.app import Trouble
    from larch.desk.jobs import in_background
    from larch.services import log

    Trouble(window)
    in_background(window, lambda _job: 1 // 0, lambda _result: None)
    qtbot.waitUntil(lambda: "your work is kept" in window.notice.text(), timeout=10_000)
    assert "ZeroDivisionError" in log.newest()
    window.notice.hide()
    heard: list[Exception] = []
    in_background(window, lambda _job: (_ for _ in ()).throw(OSError("full")), lambda _result: None, heard.append)
    qtbot.waitUntil(lambda: bool(heard), timeout=10_000)
    assert "full" not in log.newest()  # a full disk is foreseen, and whoever asked says so


def test_menus_offer_the_selection_and_recent_lessons(window: Window, tmp_path: Path, qtbot) -> None:  # type: ignore[no-untyped-def]
    save_to(window, tmp_path / "lanterns.larch", qtbot)
    window.show_page("p3")
    window.canvas.select(["t3"])
    menus = {action.text().replace("&", ""): action.menu() for action in window.menus.actions()}
    for _ in range(2):  # made anew each time, not piled up
        for menu in menus.values():
            menu.aboutToShow.emit()
    within = [action.menu() for action in menus["Edit"].actions() if action.property("selection")]
    assert len(within) == 1
    assert [action.text() for action in within[0].actions()].count("roll\tR") == 1
    lately = [action.menu() for action in menus["Lesson"].actions() if action.property("recent")]
    assert len(lately) == 1
    assert [action.text() for action in lately[0].actions()] == ["lanterns"]
    assert all(any(a.shortcut() or a.text() for a in menu.actions()) for menu in menus.values())


def test_text_is_edited_at_the_size_it_has(window: Window) -> None:
    window.show_page("p1")
    text = next(t for t in window.canvas.page.things if t.kind() == "text" and not t.locked)
    window.editors.edit(text)
    editor = window.editors.open
    assert editor is not None
    shown = editor.transform().m11() * editor.page_document.defaultFont().pixelSize()
    assert shown == pytest.approx(text.size * window.canvas.camera.scale, rel=0.02)
    at = window.canvas.camera.to_view(text.placement.x, text.placement.y)
    assert abs(editor.x() - at[0]) < 8 and abs(editor.y() - at[1]) < 20
    QTest.keyClick(editor, KEYS.Key_Escape)
    assert window.canvas.page.thing(text.id) == text


def test_a_locked_text_is_not_opened(window: Window) -> None:
    window.show_page("p1")
    heading = window.canvas.page.things[0]
    window.editors.edit(heading)
    assert window.editors.open is None
    assert "locked" in window.notice.text()


def test_an_endless_paste_is_bounded_and_said(window: Window) -> None:
    from PyQt6.QtGui import QGuiApplication

    window.pages.new()
    window.ledge.take("text")
    QTest.mouseClick(window.canvas, LEFT, Qt.KeyboardModifier.NoModifier, QPoint(200, 200))
    QGuiApplication.clipboard().setText("lantern " * 10_000)
    window.editors.open.paste()
    window.editors.finish()
    assert "the rest was left out" in window.notice.text()
    assert len(window.canvas.page.things[-1].text) <= 20_000


def test_the_garbage_collector_works_only_while_nothing_moves(window: Window, monkeypatch: pytest.MonkeyPatch) -> None:
    import gc
    import time

    from larch.desk.quiet import CROWD, YOUNG, Quiet

    collected: list[int] = []
    count = 0
    monkeypatch.setattr(gc, "collect", lambda generation=2: collected.append(generation))
    monkeypatch.setattr(gc, "get_count", lambda: (count, 0, 0))
    quiet = Quiet(window)
    assert not gc.isenabled()  # else a widget may be taken apart in the thread of the journal
    now = time.monotonic()
    monkeypatch.setattr(time, "monotonic", lambda: now + 100)
    window.canvas.painted_at = now + 99.9
    count = YOUNG + 1
    quiet.look()
    assert collected == []
    count = CROWD + 1
    quiet.look()
    assert collected.pop() == 0
    count = YOUNG + 1
    window.canvas.painted_at = now + 99
    quiet.look()
    assert collected.pop() == 0
    window.canvas.painted_at = now + 50
    quiet.look()
    assert collected.pop() == 2
    quiet.look()
    assert collected.pop() == 0
    gc.unfreeze()


def test_motion_is_switched_off_and_stays_off(window: Window) -> None:
    window.canvas.still = False
    window.run("motion")
    assert window.canvas.still
    window.files.new()
    assert window.canvas.still
    again = reopened(demo=True)
    assert again.settings.still
    again.close()


def test_the_help_is_made_from_what_there_is(window: Window) -> None:
    from larch.desk.dialogs.help import HelpDialog, keys_of, topic_html
    from larch.desk.topics import TOPICS

    text = "".join(topic_html(window.context, topic) for topic in TOPICS)
    for word in ("Ctrl+K", "supply", "die", "F5"):
        assert word in text
    keys = " ".join(key for key, _what in keys_of(window.context))
    for command in window.commands.listed:
        for key in command.shortcut.split(" or "):
            assert key in keys
    assert all(len(topic.lines) <= 3 for topic in TOPICS)
    dialog = HelpDialog(window.context)
    dialog.search.setText("cut a shape")
    assert dialog.list.item(0).text() == "Fractions: share and cut a shape"
    dialog.search.setText("number line")
    assert "number lines" in dialog.list.item(0).text()


def test_every_topic_of_the_help_has_a_picture_of_what_it_speaks_of(window: Window) -> None:
    from larch.desk.dialogs.help import picture_of
    from larch.desk.topics import TOPICS

    for topic in TOPICS:
        picture = picture_of(topic)
        assert (picture is None) == (topic.name == "keys")
        if picture is not None:
            assert len({picture.pixelColor(x, y).rgb() for x in range(0, picture.width(), 7)
                        for y in range(0, picture.height(), 5)}) > 2  # fmt: skip
