"""Lessons that were never saved, the page that was open, named set-outs, groups among the layers."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtWidgets import QApplication, QMenu, QToolButton

from larch.core.actions.arrange.arrange import group
from larch.core.base.shape import Placement
from larch.core.model.lesson import blank_lesson
from larch.core.things.papers.sheet import Sheet
from larch.core.things.words.text import Text
from larch.desk.app import work_to_open
from larch.desk.commands.arrange import remember
from larch.desk.dialogs.unsaved import UnsavedDialog, name_of
from larch.desk.window import Window
from larch.services.workspace import open_new, open_unsaved, unsaved_folders
from tests.board.test_tools import Hand
from tests.samples import page_with


def never_saved(*words: str) -> None:
    for text in words:
        work = open_new(blank_lesson(7))
        page = page_with(Text(text=text, placement=Placement(80, 80)))
        lesson = work.lesson
        journal = work.begin(lambda _error: None)
        after = lesson.replace(pages=(page.replace(id=lesson.pages.ids[0]),))
        journal.record("", lesson, after)
        journal.flush()
        journal.close()
        work.close()


def test_lessons_without_a_file_are_named_by_their_first_words(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    never_saved("Rafts of pine\nand moss", "Seven lanterns")
    dialog = UnsavedDialog(window.context)
    dialog.open()
    qtbot.waitUntil(lambda: dialog.list.count() == 2, timeout=20_000)
    items = [dialog.list.item(row) for row in range(2)]
    assert {item.text().split("\n")[0] for item in items} == {"Rafts of pine", "Seven lanterns"}
    assert all(not item.icon().isNull() and ":" in item.text() for item in items)
    row = next(row for row, item in enumerate(items) if item.text().startswith("Rafts"))
    dialog.list.setCurrentRow(row)
    dialog._open(dialog.list.currentItem())
    assert any(getattr(t, "text", "").startswith("Rafts") for t in window.canvas.page.things)


def test_names_of_lessons() -> None:
    assert name_of(blank_lesson(1).replace(title="Boats")) == "Boats"
    assert name_of(blank_lesson(1)) == "without words"
    long = blank_lesson(1).replace(pages=(page_with(Text(text="m" * 90)),))
    assert len(name_of(long)) == 48


def test_the_page_that_was_open_is_open_again(own_folders: Path, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = Window(open_new(blank_lesson(5)))
    for _k in range(2):
        window.pages.new()
    window.canvas.commit(__import__("larch.core.model.action", fromlist=["put"]).put(window.canvas.page, [Sheet()], "Put"))
    window.turn(-1)
    here = window.canvas.page_id
    window.files.journal.flush()
    window.close()
    (folder,) = unsaved_folders()
    work = open_unsaved(folder)
    assert work is not None
    assert work.page_to_open() == here != work.lesson.pages.ids[0]
    work.close()
    again = work_to_open(None, demo=False)
    assert again.page_to_open() == here
    again.page = "gone"
    assert again.page_to_open() == again.lesson.pages.ids[0]
    again.close()


def test_a_named_set_out_is_seen_and_chosen(hand: Hand, qtbot) -> None:  # type: ignore[no-untyped-def]
    (id,) = hand.put(Sheet(placement=Placement(100, 100)))
    remember(hand.window.context, "start")
    hand.drag((150, 150), (450, 350))
    away = hand.thing(id).placement
    remember(hand.window.context, "end")
    hand.window.run("set out again")
    menu = QApplication.activePopupWidget()
    assert isinstance(menu, QMenu)
    assert [action.text() for action in menu.actions()] == ["start", "end"]
    menu.actions()[0].trigger()
    menu.close()
    assert hand.thing(id).placement != away
    assert (hand.thing(id).placement.x, hand.thing(id).placement.y) == (100, 100)


def test_layers_show_what_belongs_together(hand: Hand) -> None:
    ids = hand.put(*(Sheet(placement=Placement(100 + 200 * k, 100), width=80, height=60) for k in range(4)))
    hand.canvas.commit(group(hand.canvas.page, hand.canvas.page.some(ids[1:3])))
    hand.canvas.select(())
    hand.window.run("layers")
    card = hand.window._cards["layers"]
    rows = [card.list.itemWidget(card.list.item(k)) for k in range(4)]
    assert [row._group for row in rows] == [0, 2, 2, 0]
    assert [row._heads for row in rows] == [False, True, False, False]
    whole = [b for b in rows[1].findChildren(QToolButton) if "group of 2" in b.accessibleName()]
    whole[0].click()
    assert set(hand.canvas.selection) == set(ids[1:3])
