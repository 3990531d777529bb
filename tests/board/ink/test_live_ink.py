"""Ink while it is drawn and while it is rubbed out."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.core.base.shape import Placement
from larch.core.model.nibs import Pen
from larch.core.things.words.text import Text
from tests.board.test_tools import Hand
from tests.samples import stroke

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier


def _lightness(hand: Hand, x: float, y: float) -> int:
    return hand.canvas.grab(hand.canvas.rect()).toImage().pixelColor(hand.at(x, y)).lightness()


def _put(hand: Hand, *things: object):  # type: ignore[no-untyped-def]
    from larch.core.model.action import put

    return put(hand.canvas.page, things, "put")  # type: ignore[arg-type]


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


def test_a_stroke_that_crosses_itself_is_highlighted_evenly(hand: Hand) -> None:
    hand.put()
    cross = [(300.0 + 4 * i, 300.0, 1.0, 0.0) for i in range(40)] + [(380.0, 220.0 + 4 * i, 1.0, 0.0) for i in range(40)]
    from larch.core.things.ink.ink import ink_from

    hand.canvas.commit(_put(hand, ink_from(cross, pen=Pen("highlighter", width=30.0, hue="straw"))))
    hand.canvas.surface.sharpen(1000)
    image = hand.canvas.grab().toImage()
    assert image.pixelColor(hand.at(380, 300)) == image.pixelColor(hand.at(320, 300))


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
