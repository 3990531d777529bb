"""Spinners: every direction lies in one sector, sectors are as wide as their shares, and spins follow them."""

from __future__ import annotations

import math
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.page import Page
from larch.core.things.chance.spinner import RADIUS, Spinner, spin, spin_often

SHARES = st.lists(st.integers(1, 9).map(float), min_size=1, max_size=8).map(tuple)


@given(SHARES, st.floats(0, 359.999))
def test_a_direction_lies_in_the_sector_whose_bounds_hold_it(shares: tuple[float, ...], at: float) -> None:
    spinner = Spinner(shares=shares, at=at)
    bounds = spinner.bounds()
    assert bounds[0] == 0 and bounds[-1] == pytest.approx(360)
    k = spinner.sector()
    assert bounds[k] <= at < bounds[k + 1] or math.isclose(at, 360, abs_tol=1e-3)
    assert sum(Fraction(spinner.chance_of(k)) for k in range(len(shares))) == 1


@given(SHARES, st.integers(0, 10**6))
def test_spins_are_counted_where_the_arrow_points(shares: tuple[float, ...], seed: int) -> None:
    page = Page(id="p1", seed=seed).put(Spinner(shares=shares))
    edit = spin(page, [page.things[0]])
    spun = edit.after.things[0]  # type: ignore[union-attr]
    assert isinstance(spun, Spinner)
    assert spun.tally[spun.sector()] == 1 == sum(spun.tally)
    assert spin(page, [page.things[0]]).after == edit.after


def test_a_thousand_spins_follow_the_shares() -> None:
    page = Page(id="p1", seed=5).put(Spinner(shares=(3.0, 1.0, 2.0)))
    spun = spin_often(page, [page.things[0]]).after.things[0]  # type: ignore[union-attr]
    assert isinstance(spun, Spinner)
    assert sum(spun.tally) == 1000
    for count, chance in zip(spun.tally, (1 / 2, 1 / 6, 1 / 3), strict=True):
        assert abs(count - 1000 * chance) < 4.5 * math.sqrt(1000 * chance * (1 - chance))


@given(st.floats(0, 359), st.floats(-179, 179))
def test_the_arrow_turns_with_the_finger(at: float, by: float) -> None:
    spinner = Spinner(at=at)
    start = spinner.part_place("arrow")
    angle = math.radians(at + by)
    to = (RADIUS + 80 * math.sin(angle), RADIUS - 80 * math.cos(angle))
    turned = spinner.drag_part("arrow", start, to)
    assert math.isclose(math.sin(math.radians(turned.at)), math.sin(angle), abs_tol=1e-6)
    assert math.isclose(math.cos(math.radians(turned.at)), math.cos(angle), abs_tol=1e-6)
    assert spinner.part_at(*start, 0) == "arrow"
