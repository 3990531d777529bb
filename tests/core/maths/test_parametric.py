"""Curves run through by a letter of their own: on the curve, unbroken where it is, parted where it is not."""

from __future__ import annotations

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.graph import NotDrawn, curve_of
from larch.core.maths.hand.moving import moved
from larch.core.maths.layout.reading import meaning
from larch.core.maths.parametric import run_through, terms
from larch.core.things.graphs.equation import Equation


def lines(source: str, low: float = 0.0, high: float = 2 * math.pi):  # type: ignore[no-untyped-def]
    curve = Equation(source=source, span=(low, high)).curve()
    assert curve is not None
    return run_through(curve)


@given(st.floats(0.2, 8), st.floats(0.2, 8))
def test_an_ellipse_is_one_closed_piece_on_its_own_equation(a: float, b: float) -> None:
    (line,) = lines(f"({a:.6f} cos t, {b:.6f} sin t)")
    a, b = round(a, 6), round(b, 6)
    assert np.allclose((line[:, 0] / a) ** 2 + (line[:, 1] / b) ** 2, 1, atol=1e-9)
    assert np.allclose(line[0], line[-1], atol=1e-6)


@given(st.integers(1, 6), st.floats(0.5, 4))
def test_a_rose_lies_at_its_distance_from_the_origin(k: int, a: float) -> None:
    a = round(a, 4)
    (line,) = lines(f"r = {a} cos({k}θ)")
    assert np.hypot(line[:, 0], line[:, 1]).max() == pytest.approx(a, rel=1e-4)
    angles = np.linspace(0, 2 * math.pi, len(line))
    r = a * np.cos(k * angles)
    assert np.allclose(line, np.column_stack([r * np.cos(angles), r * np.sin(angles)]), atol=1e-9)


def test_nothing_is_joined_across_a_pole() -> None:
    found = lines("(tan t, t)", -2, 5)
    assert len(found) == 4
    for one in found:
        steps = np.diff(one[:, 1])
        assert (steps > 0).all()
        assert all(math.floor((a + math.pi / 2) / math.pi) == math.floor((b + math.pi / 2) / math.pi) for a, b in pairwise(
            one[1:-1, 1]))  # fmt: skip


def test_a_curve_that_ends_is_drawn_as_far_as_it_goes() -> None:
    (line,) = lines("(t, sqrt(t))", -3, 4)
    assert line[0] == pytest.approx((0, 0), abs=0.02)
    assert line[-1] == pytest.approx((4, 2))


def test_a_sequence_has_its_members_and_nothing_between() -> None:
    curve = curve_of("a_n = 2n + 1")
    assert terms(curve, -5, 4).tolist() == [[1, 3], [2, 5], [3, 7], [4, 9]]
    assert terms(curve_of("u_n = 1/(n - 2)"), 0, 3).tolist() == [[1, -1], [3, 1]]
    assert len(terms(curve, 1, 1e9)) <= 2001


@pytest.mark.parametrize("source", ["r = 2cos θ", "a_n = 2n + 1", "(cos t, sin t)"])
def test_their_letters_are_no_letters_of_the_page(source: str) -> None:
    from larch.core.model.page import Page

    assert Equation(source=source).definition(Page(id="p1")) is None


def test_a_letter_that_the_page_gives_makes_a_point_of_it() -> None:
    assert curve_of("(cos t, sin t)", (("t", "0"),)).along == "point"
    assert curve_of("(cos t, sin t)").along == "t"
    with pytest.raises(NotDrawn):
        curve_of("(cos t, sin s)")


def test_a_curve_is_moved_by_what_stands_behind_its_coordinates() -> None:
    after = moved(meaning("(2cos t, 2sin t + 1)"), (3, -1), {}).node
    assert after == meaning("(2cos t + 3, 2sin t)")


@pytest.mark.parametrize("span", [(1.0, 1.0), (2.0, 1.0), (0.0, 1e9), (float("nan"), 1.0)])
def test_a_letter_runs_from_a_smaller_to_a_larger_number(span: tuple[float, float]) -> None:
    with pytest.raises(ValueError, match="smaller"):
        Equation(source="(cos t, sin t)", span=span)


def test_a_slope_field_is_read_as_a_fraction_and_in_a_line() -> None:
    for source in ("dy/dx = x - y", r"\\frac{dy}{dx} = x - y".replace("\\\\", "\\")):
        curve = curve_of(source)
        assert (curve.along, curve.formula) == ("field", meaning("x - y"))
    with pytest.raises(NotDrawn):
        curve_of("dy/dx = x - t")
