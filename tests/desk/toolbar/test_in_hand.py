"""The tool in hand: chosen, kept, remembered, and what it asks of the window."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QAbstractButton, QApplication, QCheckBox

from larch.core.base.shape import Placement
from larch.core.things.numbers.block import Block
from larch.core.things.words.note import Note
from larch.core.things.words.text import Text
from larch.desk.finder.findable import findable
from larch.desk.toolbar.chip import Chip
from larch.desk.window import Window
from larch.services.settings import load_settings
from tests.board.test_tools import Hand, click
from tests.samples import ring, stroke

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier


def choice(window: Window, name: str) -> QAbstractButton:
    QApplication.processEvents()
    shown = [b for b in window.choices.findChildren(QAbstractButton) if not b.isHidden() and b.accessibleName() == name]
    texts = [b for b in window.choices.findChildren(QAbstractButton) if not b.isHidden() and b.text() == name]
    return (shown or texts)[0]


def open_choices(window: Window, tool: str) -> None:
    window.ledge.take(tool)
    window.hand.toggle_choices(window.ledge.tool(tool))


def _lightness(hand: Hand, x: float, y: float) -> int:
    return hand.canvas.grab(hand.canvas.rect()).toImage().pixelColor(hand.at(x, y)).lightness()


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


@pytest.mark.parametrize("width", [1024, 1280])
def test_the_choices_of_the_pen_are_wholly_seen_at_the_board(hand: Hand, width: int) -> None:
    hand.window.go_to_board()
    hand.window.showNormal()
    hand.window.resize(width, 600)
    hand.window.ledge.take("pen")
    hand.window.hand.toggle_choices(hand.window.ledge.tool("pen"))
    card = hand.window.choices
    assert card.isVisible()
    assert hand.window.room.rect().contains(card.geometry())
