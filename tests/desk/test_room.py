"""What lies over the page makes room for it: cards, the shelf, messages, the tag and menus."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, QRect, Qt
from PyQt6.QtTest import QTest

from larch.core.base.shape import Box, Placement
from larch.core.model.action import actions_for
from larch.core.things.geometry.polygon import polygon_on
from larch.core.things.graphs.equation import Equation
from larch.core.things.papers.sheet import Sheet
from larch.core.things.words.text import Text
from larch.desk.action_menu import selection_menu
from larch.desk.cards.fact_row import FactRow
from larch.desk.window import Window
from tests.board.test_tools import Hand

KEYS = Qt.Key


def printed(window: Window) -> Box:
    return window.canvas.camera.box_to_view(window.canvas.page.printed())


def inside(outer: Box, inner: Box) -> bool:
    return outer.grown(2).covers(inner)


@pytest.mark.parametrize("name", ["facts", "layers", "steps", "shelf"])
def test_the_whole_page_stays_seen_beside_what_is_opened(window: Window, name: str) -> None:
    before = printed(window)
    window.run(name)
    part = window.shelf if name == "shelf" else window.facts if name == "facts" else window._cards[name]
    assert part.isVisible()
    at = QRect(part.mapTo(window, QPoint(0, 0)) - window.canvas.mapTo(window, QPoint(0, 0)), part.size())
    seen = printed(window)
    assert inside(window.canvas.free(), seen)
    assert not at.intersects(QRect(round(seen.x0) + 1, round(seen.y0) + 1, round(seen.width) - 2, round(seen.height) - 2))
    window.run(name)
    assert not part.isVisible()
    assert printed(window) == before


def test_a_page_that_was_zoomed_moves_only_if_the_selection_is_covered(hand: Hand) -> None:
    hand.put(Sheet(placement=Placement(1100, 300), width=60, height=60), Sheet(placement=Placement(300, 300)))
    near, far = [thing.id for thing in hand.canvas.page.things[-2:]]
    hand.canvas.zoom_by(1.1, (0.0, 0.0))
    for id, moves in ((far, False), (near, True)):
        hand.canvas.select([id])
        before = hand.canvas.camera
        hand.window.facts.want(True)
        assert (hand.canvas.camera is not before) == moves
        box = hand.canvas.camera.box_to_view(hand.thing(id).box())
        assert inside(hand.canvas.free(), box)
        hand.window.facts.want(False)


def test_a_message_at_the_desk_lies_beside_the_page(window: Window) -> None:
    window.notice.say("A sentence of a fair length that says what was done and what one could do now instead.")
    notice, canvas = window.notice.geometry(), QRect(window.canvas.mapTo(window, QPoint(0, 0)), window.canvas.size())
    assert window.notice.isVisible()
    assert not notice.intersects(canvas)
    assert notice.left() > window.menus.sizeHint().width()


def test_a_message_at_the_board_looks_for_an_empty_place(window: Window) -> None:
    window.go_to_board()
    page = window.canvas.page
    top = Sheet(placement=Placement(0, 0), width=1280, height=120)
    window.canvas.commit(__import__("larch.core.model.action", fromlist=["put"]).put(page, [top], "Put"))
    window.canvas.select(())
    window.notice.say("One sentence.")
    at = window.canvas.mapFrom(window, window.notice.geometry().center())
    assert window.canvas.camera.to_page(at.x(), at.y())[1] > 120


def test_the_tag_leaves_free_what_lies_below_the_selection(hand: Hand) -> None:
    hand.put(
        Sheet(placement=Placement(500, 250), width=160, height=80),
        Sheet(placement=Placement(300, 345), width=600, height=120),
    )
    upper, lower = [thing.id for thing in hand.canvas.page.things[-2:]]
    hand.canvas.select([upper])
    tag = hand.window.tag.geometry()
    box = Box(tag.left(), tag.top(), tag.right(), tag.bottom())
    for id in (upper, lower):
        assert not box.meets(hand.canvas.camera.box_to_view(hand.thing(id).box()))


def test_a_menu_of_a_thing_is_taken_in_at_a_glance(window: Window) -> None:
    for page in window.session.lesson.pages.ids:
        window.show_page(page)
        for thing in window.canvas.page.things[:12]:
            window.canvas.select([thing.id])
            things = window.canvas.things()
            if not things:
                continue
            menu = selection_menu(window, window.canvas, lambda: None)
            entries = [action for action in menu.actions() if not action.isSeparator()]
            assert len(entries) <= 18
            assert entries[0].text() == "facts"
            reached = [a.text() for a in menu.actions() if not a.menu()]
            for action in menu.actions():
                if action.menu():
                    reached += [a.text() for a in action.menu().actions()]
            assert all(a.label(window.canvas.page, things) in reached for a in actions_for(window.canvas.page, things))


def test_a_value_in_the_facts_is_never_cut(window: Window) -> None:
    window.facts.want(True)
    for page in window.session.lesson.pages.ids:
        window.show_page(page)
        kinds = {thing.kind(): thing.id for thing in window.canvas.page.things}
        for id in kinds.values():
            window.canvas.select([id])
            if not window.canvas.selection:
                continue
            area = window.facts._area
            assert area.widget().minimumSizeHint().width() <= area.viewport().width() + 1
            for row in window.facts._rows:
                if row.name == "text" or row.value.isHidden():
                    continue
                need = row.value.fontMetrics().horizontalAdvance(row.value.text())
                assert need <= row.value.width(), row.name


def test_tab_keeps_what_was_typed_and_goes_on_and_undo_works_from_the_field(hand: Hand) -> None:
    corners = [(200.0, 500.0), (520.0, 500.0), (360.0, 300.0)]
    (id,) = hand.put(polygon_on(hand.canvas.page, corners))
    hand.canvas.select([id])
    hand.window.facts.want(True)

    def row(name: str) -> FactRow:
        return next(row for row in hand.window.facts._rows if row.name == name)

    row("AB").value.setFocus()
    row("AB").value.selectAll()
    QTest.keyClicks(row("AB").value, "9")
    QTest.keyClick(row("AB").value, KEYS.Key_Tab)
    assert hand.canvas.selection == (id,)
    assert row("AB").value.text() == "9 cm"
    assert hand.window.facts.isAncestorOf(hand.window.focusWidget())
    QTest.keyClick(hand.window.focusWidget(), KEYS.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert row("AB").value.text() == "10 cm"
    row("BC").value.setFocus()
    QTest.keyClicks(row("BC").value, "77")
    QTest.keyClick(row("BC").value, KEYS.Key_Z, Qt.KeyboardModifier.ControlModifier)  # takes back what was typed
    assert "77" not in row("BC").value.text()
    assert hand.thing(id).vertices[1][0] == 320


@pytest.mark.parametrize("name", ["equation", "text"])
def test_enter_does_not_open_again_what_it_has_closed(hand: Hand, name: str) -> None:
    hand.put(Equation(source="y = x", placement=Placement(200, 200)) if name == "equation" else Text(text="moss"))
    hand.canvas.select([hand.canvas.page.things[-1].id])
    hand.canvas.setFocus()
    QTest.keyClick(hand.canvas, KEYS.Key_Return)
    editor = hand.window.editors.open
    assert editor is not None
    if name == "equation":
        QTest.keyClicks(editor, "+1")
        QTest.keyClick(editor, KEYS.Key_Return)
        assert hand.canvas.page.things[-1].source.endswith("+ 1")
    else:
        QTest.keyClick(editor, KEYS.Key_Escape)
    assert hand.window.editors.open is None
    assert hand.canvas.hasFocus()
