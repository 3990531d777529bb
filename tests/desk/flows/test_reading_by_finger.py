"""At the Board, with one finger: a shape by a pen that reads, ink trued up from its tag, what it was taken for changed."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF
from PyQt6.QtWidgets import QWidget
from pytestqt.qtbot import QtBot

from larch.core.model.nibs import Pen
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.ellipse import Ellipse
from larch.core.things.ink.ink import Ink, ink_from
from tests.board.test_tools import Hand
from tests.board.touch import State
from tests.desk.flows.finger import Finger, at_the_board

WAIT = 20_000  # ms: the first reading loads what it needs
RING = [(400 + 90 * math.cos(k / 8), 300 + 90 * math.sin(k / 8)) for k in range(51)]


def through(finger: Finger, places: list[tuple[float, float]]) -> None:
    """A stroke by the finger through places of the page."""
    canvas = finger.hand.canvas
    at = [QPointF(canvas.mapTo(finger.hand.window, QPointF(*canvas.camera.to_view(*place)))) for place in places]
    finger._send(State.Pressed, at[0])
    for point in at[1:]:
        finger._send(State.Updated, point)
    finger._send(State.Released, at[-1])


def test_a_circle_is_trued_up_while_drawing_and_can_be_an_ellipse_after_all(hand: Hand, qtbot: QtBot) -> None:
    finger = at_the_board(hand)
    hand.window.ledge.take("pen")
    hand.window.ledge.tool("pen").choose(Pen(form="shapes", hue="moss"))
    through(finger, RING)
    qtbot.waitUntil(lambda: any(isinstance(t, Circle) for t in hand.canvas.page.things), timeout=WAIT)
    card = hand.window.readings.card
    assert card is not None
    finger.tap(next(one for one in card.choices if one.accessibleName() == "ellipse?"))
    assert [type(thing) for thing in hand.canvas.page.things] == [Ellipse]
    assert hand.window.readings.card is None


def test_ink_is_trued_up_from_its_tag_and_stays_ink_when_that_is_tapped(hand: Hand, qtbot: QtBot) -> None:
    finger = at_the_board(hand)
    hand.put(ink_from([(x, y, 0.7, 0.0) for x, y in RING], hue="clay"))
    hand.window.ledge.take("select")
    for choice, kind in ((-1, Ink), (0, Circle)):
        finger.tap_page(490, 300)
        tag = hand.window.tag
        button = next(b for b in tag.findChildren(QWidget) if b.accessibleName() == "true up" and b.isVisible())
        finger.tap(button)
        qtbot.waitUntil(lambda: hand.window.readings.card is not None, timeout=WAIT)
        shown = hand.window.readings.card
        assert shown is not None
        finger.tap(shown.choices[choice])
        assert [type(thing) for thing in hand.canvas.page.things] == [kind]
        hand.canvas.select(())
