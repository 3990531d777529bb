"""Loose pieces of fractions, as they are drawn and laid over a bar by a finger."""

from __future__ import annotations

import pytest
from PyQt6.QtGui import QColor, QImage, QPainter
from PyQt6.QtWidgets import QApplication

from larch.board.views import view_of
from larch.core.base.shape import Placement
from larch.core.things.fractions.fraction_piece import FractionPiece
from tests.samples import page_with


@pytest.mark.parametrize("parts", [1, 2, 3, 8, 24])
@pytest.mark.parametrize("form", ["bar", "circle"])
def test_a_piece_is_coloured_where_it_is_touched_and_nowhere_else(qapp: QApplication, form: str, parts: int) -> None:
    piece = FractionPiece(id="p", parts_count=parts, form=form, placement=Placement(20, 20))
    page = page_with(piece)
    image = QImage(720, 360, QImage.Format.Format_RGB32)
    image.fill(QColor("white"))
    painter = QPainter(image)
    view_of(piece).paint(painter, piece, page)
    painter.end()
    for x in range(24, 700, 12):
        for y in range(24, 340, 12):
            local = piece.placement.to_local(x, y)
            inside, near = piece.touches(*local, -4 if form == "bar" else 0), piece.touches(*local, 5)
            coloured = image.pixelColor(x, y) != QColor("white")
            if not near:
                assert not coloured, (x, y)
            elif inside and form == "bar":
                assert coloured, (x, y)
