"""The spread of all pages: their order, names and ends."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from larch.desk.window import Window
from tests.desk.test_window import KEYS


def test_the_spread_reorders_copies_renames_and_deletes(window: Window) -> None:
    ids = [page.id for page in window.session.lesson.pages]
    window.run("spread")
    spread = window.spread
    spread.list.setCurrentRow(1)
    QTest.keyClick(spread.list, KEYS.Key_Right, Qt.KeyboardModifier.AltModifier)
    assert [p.id for p in window.session.lesson.pages][:3] == [ids[0], ids[2], ids[1]]
    spread.do("copy")
    assert len(window.session.lesson.pages) == len(ids) + 1
    spread.list.currentItem().setText("Lanterns again")
    assert "Lanterns again" in [page.title for page in window.session.lesson.pages]
    QTest.keyClick(spread.list, KEYS.Key_Delete)
    assert len(window.session.lesson.pages) == len(ids)
    for _ in range(4):
        window.undo()
    assert [page.id for page in window.session.lesson.pages] == ids
    spread.do("open")
    assert not spread.isVisible()


def test_delete_in_the_spread_means_the_sheet(window: Window) -> None:
    window.show_page("p4")
    things = window.canvas.page.things
    window.canvas.select(["t2"])
    window.run("spread")
    QTest.keyClick(window.spread.list, KEYS.Key_Delete)
    assert window.session.lesson.page("p4") is None
    window.undo()
    assert window.session.lesson.page("p4").things == things  # type: ignore[union-attr]


def test_sheets_dragged_together_anew_become_the_order(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    ids = [page.id for page in window.session.lesson.pages]
    window.run("spread")
    sheets = window.spread.list
    qtbot.waitUntil(lambda: sheets.verticalScrollBar().maximum() > 0)  # laid out: the pages are more than fit
    first, third = (sheets.visualItemRect(sheets.item(row)) for row in (0, 2))
    sheets.setPositionForIndex(third.topLeft() + QPoint(first.width() - 30, 0), sheets.indexFromItem(sheets.item(0)))
    sheets.moved.emit()  # what a drop ends with
    qtbot.waitUntil(lambda: [page.id for page in window.session.lesson.pages] != ids)
    assert [page.id for page in window.session.lesson.pages][:3] == [ids[1], ids[2], ids[0]]
    window.undo()
    assert [page.id for page in window.session.lesson.pages] == ids


def test_deleting_every_page_leaves_a_blank_one(window: Window) -> None:
    for _ in range(len(window.session.lesson.pages)):
        window.run("delete page")
    assert len(window.session.lesson.pages) == 1
    assert window.canvas.page.things == ()
    window.undo()
    assert window.canvas.page.things
