"""Frost rubbed off."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt

from larch.core.base.shape import Placement
from larch.core.things.pictures.frost import Frost
from larch.core.things.words.text import Text
from tests.board.test_tools import Hand, place


def test_frost_is_rubbed_off_at_the_board_and_by_the_eraser_at_the_desk(hand: Hand) -> None:
    answer, frost = hand.put(Text(text="42", placement=Placement(420, 320)), Frost(placement=Placement(400, 300)))
    hand.drag((420, 320), (470, 320), Qt.KeyboardModifier.AltModifier)
    assert place(hand, frost)[0] == pytest.approx(450, abs=2)  # at the Desk it is dragged
    hand.window.ledge.take("rub out")
    hand.drag((480, 400), (700, 400))
    assert 0.1 < hand.thing(frost).cleared() < 0.9
    hand.window.undo()
    assert hand.thing(frost).cleared() == 0
    hand.window.ledge.take("select")
    hand.canvas.at_board = True
    hand.drag((460, 340), (760, 340))
    assert place(hand, frost)[0] == pytest.approx(450, abs=2) and hand.thing(frost).cleared() > 0.1
    assert hand.canvas.page.thing(answer) is not None


def test_frost_that_was_rubbed_step_by_step_looks_as_if_rubbed_at_once(hand: Hand) -> None:
    from PyQt6.QtGui import QImage

    from larch.board.paint import painting
    from larch.board.views import view_of
    from larch.board.views.pictures import frost as frost_view

    def painted(frost: Frost) -> QImage:
        image = QImage(330, 210, QImage.Format.Format_ARGB32_Premultiplied)
        image.fill(Qt.GlobalColor.white)
        with painting(image) as painter:
            view_of(frost).paint(painter, frost, hand.canvas.page)
        return image

    path = [(20.0 + 9 * k, 40.0 + 30 * (k % 5)) for k in range(30)]
    start = Frost(id="f").with_rub([(10, 180), (300, 190)])
    for k in range(1, len(path) + 1):
        stepwise = painted(start.with_rub(path[:k]))
    other = painted(start.with_rub([(20.0, 40.0), (20.0, 160.0)]))  # begins alike, goes elsewhere
    frost_view._layers.clear()
    frost_view._live.clear()
    at_once = painted(start.with_rub(path))
    far = [
        (x, y) for x in range(0, 330, 3) for y in range(0, 210, 3)
        if abs(stepwise.pixelColor(x, y).lightness() - at_once.pixelColor(x, y).lightness()) > 12
    ]  # fmt: skip
    assert len(far) < 8  # the edges of pieces that were drawn one by one
    assert other != at_once and other != stepwise
