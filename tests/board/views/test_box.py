"""Words stand inside their box."""

from __future__ import annotations

import pytest

from larch.core.things.organisers.box import WordBox
from tests.board.test_tools import Hand


@pytest.mark.parametrize("shape", ["oval", "diamond", "round"])
def test_words_stand_inside_the_outline_of_their_box(hand: Hand, shape: str) -> None:
    from larch.board.views import view_of
    from larch.board.views.organisers.box import laid_out

    box = WordBox(text="is it straight?", shape=shape, width=260, height=60)
    outline = view_of(box).extent(box)
    words = laid_out(box)
    u, v = words.idealWidth() / outline.width, words.size().height() / outline.height
    assert {"diamond": u + v, "oval": (u * u + v * v) ** 0.5, "round": max(u, v)}[shape] <= 1.02
