"""Tallies of chance, as they are drawn."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PyQt6.QtGui import QColor, QImage, QPainter
from PyQt6.QtWidgets import QApplication

from larch.board.views import view_of
from larch.board.views.chance.bars import middle_over
from larch.core.base.shape import Placement
from larch.core.model.thing import Thing
from larch.core.things.chance.die import Die
from larch.core.things.chance.spinner import Spinner
from tests.samples import page_with

PLACE = Placement(40, 40, 0, 1)


@given(st.floats(0, 400), st.floats(0, 400), st.floats(8, 40))
def test_the_dash_of_what_is_expected_strikes_no_number_through(top: float, dash: float, size: float) -> None:
    middle = middle_over(top, dash, size)
    assert abs(middle - dash) >= 0.5 * size - 1e-9
    assert middle <= top - 0.5 * size, "it stands over its own bar, not inside"


@pytest.mark.parametrize(
    "thing",
    [
        Die(id="d", placement=PLACE, tally=(3, 0, 2, 4, 1, 2), shown=("tally",)),
        Spinner(id="s", placement=PLACE, tally=(3, 1, 2), shares=(3, 1, 2), shown=("tally",)),
    ],
)
def test_a_tally_is_painted_below_its_thing(qapp: QApplication, thing: Thing) -> None:
    def painted(thing: Thing) -> QImage:
        page = page_with(thing)
        image = QImage(500, 700, QImage.Format.Format_RGB32)
        image.fill(QColor("white"))
        painter = QPainter(image)
        view_of(thing).paint(painter, thing, page)
        view_of(thing).paint_upright(painter, thing, page)
        painter.end()
        return image

    assert painted(thing) != painted(thing.replace(shown=()))
