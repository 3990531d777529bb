"""Graphs on logarithmic axes: an exponential is straight on one, a power on two; nothing below zero is drawn within."""

from __future__ import annotations

import numpy as np
import pytest

from larch.board.views.graphs.curve_lines import curve_polylines
from larch.core.maths.graph import curve_of
from larch.core.things.graphs.axes import Axes

HALF = Axes(x_min=-2, x_max=4, y_min=0.1, y_max=1000, y_marks="log", width=400, height=300)
BOTH = HALF.replace(x_min=0.1, x_max=1000, x_marks="log")


@pytest.mark.parametrize(("axes", "source"), [(HALF, "y = 3*2^x"), (BOTH, "y = 5x^2"), (BOTH, "y = 20/sqrt(x)")])
def test_what_is_straight_there_is_straight(axes: Axes, source: str) -> None:
    (line,) = curve_polylines(axes, curve_of(source))
    assert len(line) > 100
    slope, start = np.polyfit(line[:, 0], line[:, 1], 1)
    assert np.abs(slope * line[:, 0] + start - line[:, 1]).max() < 1e-6


def test_what_is_not_above_zero_lies_beyond_the_window() -> None:
    lines = curve_polylines(HALF, curve_of("y = x"))
    inside = np.concatenate([line[(line[:, 1] >= 0) & (line[:, 1] <= HALF.height)] for line in lines])
    assert (HALF.x_min + inside[:, 0] / HALF.units()[0] > 0).all()


def test_the_left_end_is_as_finely_drawn_as_the_right() -> None:
    (line,) = curve_polylines(BOTH, curve_of("y = x + 1"))
    steps = np.diff(line[:, 0])
    assert steps.max() < 2.0 and steps.min() > 0
