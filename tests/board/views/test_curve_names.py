"""Names at curves: they keep clear of every curve, and are left out where there is no room."""

from __future__ import annotations

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from PyQt6.QtCore import QRectF

from larch.board.views.graphs.curve_names import Drawn

places = st.floats(-300, 300).map(lambda v: round(v, 2))


@given(places, places, places, places, st.floats(0.1, 0.9))
def test_a_stretch_through_a_box_crosses_it(ax: float, ay: float, bx: float, by: float, share: float) -> None:
    drawn = Drawn([np.array([[ax, ay], [bx, by]])])
    x, y = ax + share * (bx - ax), ay + share * (by - ay)
    assert drawn.crosses(QRectF(x - 10, y - 10, 20, 20))


@given(places, places, st.floats(20, 200))
def test_what_runs_beside_a_box_does_not_cross_it(x: float, y: float, away: float) -> None:
    box = QRectF(x, y, 40, 20)
    beside = [
        np.array([[x - 500, y - away], [x + 500, y - away]]),
        np.array([[x + 40 + away, y - 500], [x + 40 + away, y + 500]]),
    ]
    assert not Drawn(beside).crosses(box)
    # Slanted past its corner: the boxes overlap, the line does not.
    assert not Drawn([np.array([[x - away - 20, y + 5], [x + 20, y - away - 35]])]).crosses(box)


def test_between_two_curves_nothing_is_drawn() -> None:
    apart = [np.array([[0.0, 0.0], [10.0, 0.0]]), np.array([[90.0, 0.0], [100.0, 0.0]])]
    assert not Drawn(apart).crosses(QRectF(40, -10, 20, 20))
    assert Drawn([np.concatenate(apart)]).crosses(QRectF(40, -10, 20, 20))
    assert not Drawn([]).crosses(QRectF(0, 0, 10, 10))
