"""What swings too fast to be followed is drawn as its whole reach; what can be followed stays a line."""

from __future__ import annotations

import numpy as np
import pytest

from larch.board.views.graphs.curve_lines import curve_bands, curve_polylines
from larch.board.views.graphs.swinging import COLUMN, swings
from larch.core.maths.graph import curve_of
from larch.core.maths.layout.reading import meaning
from larch.core.things.graphs.axes import Axes

AXES = Axes(width=560, height=420, x_min=-1, x_max=1, y_min=-1.5, y_max=1.5)


def heights(source: str, x: float, axes: Axes = AXES) -> tuple[float, float]:
    """The lowest and highest value that is filled at a place."""
    at = axes.to_local(x, 0)[0]
    found = [row for band in curve_bands(axes, curve_of(source)) for row in band if abs(row[0] - at) <= COLUMN]
    plane = [axes.to_plane(0, y)[1] for row in found for y in row[1:]]
    return (min(plane), max(plane))


@pytest.mark.parametrize("x", [-0.02, -0.004, 0.001, 0.01, 0.02])
def test_the_whole_reach_is_filled_where_it_swings_without_end(x: float) -> None:
    low, high = heights("y = sin(1/x)", x)
    assert low == pytest.approx(-1, abs=0.03) and high == pytest.approx(1, abs=0.03)


def test_the_reach_is_that_of_the_function() -> None:
    axes = AXES.replace(y_min=-0.1, y_max=0.1)
    for x in (0.008, 0.015):
        low, high = heights("y = x sin(1/x)", x, axes)
        assert x * 0.9 <= high <= x + 0.03
        assert -x - 0.03 <= low <= -x * 0.9


def test_a_wave_that_can_be_followed_stays_one_line_on_its_function() -> None:
    for source, f in (("y = sin(20x)", lambda x: np.sin(20 * x)), ("y = cos(3x)", lambda x: np.cos(3 * x))):
        lines = curve_polylines(AXES, curve_of(source))
        assert len(lines) == 1 and not curve_bands(AXES, curve_of(source))
        x = AXES.x_min + lines[0][:, 0] / AXES.units()[0]
        y = AXES.y_max - lines[0][:, 1] / AXES.units()[1]
        assert np.allclose(y, f(x), atol=1e-9)


def test_the_line_outside_a_band_is_still_the_function() -> None:
    for line in curve_polylines(AXES, curve_of("y = sin(1/x)")):
        x = AXES.x_min + line[:, 0] / AXES.units()[0]
        if np.abs(x).min() > 0.12:
            y = AXES.y_max - line[:, 1] / AXES.units()[1]
            assert np.allclose(y, np.sin(1 / x), atol=1e-9)


def test_along_y_it_is_the_same_turned_over() -> None:
    axes = Axes(width=420, height=560, x_min=-1.5, x_max=1.5, y_min=-1, y_max=1)
    found = [row for band in curve_bands(axes, curve_of("x = sin(1/y)")) for row in band if abs(row[0] - 280) < 4]
    plane = [axes.to_plane(x, 0)[0] for row in found for x in row[1:]]
    assert min(plane) == pytest.approx(-1, abs=0.03) and max(plane) == pytest.approx(1, abs=0.03)


def test_what_can_not_swing_is_not_looked_into() -> None:
    assert not swings(meaning("x^3 - 1/x"))
    assert swings(meaning("x^2 + tan(1/x)"))
