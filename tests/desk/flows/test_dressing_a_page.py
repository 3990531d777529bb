"""A page dressed without help, as a new user would."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QTextCursor
from PyQt6.QtTest import QTest

from larch.core.model.page import Page
from larch.core.things.ink.ink import Ink
from larch.core.things.words.rich import DISTANCES
from tests.board.test_tools import Hand
from tests.samples import ring

KEYS = Qt.Key


def _put(hand: Hand, *things: object):  # type: ignore[no-untyped-def]
    from larch.core.model.action import put

    return put(hand.canvas.page, things, "put")  # type: ignore[arg-type]


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
