"""What stands out on curves that are no functions, against places known in closed form."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.graph import Curve, curve_of
from larch.core.maths.plot.answer import curve_marks
from larch.core.maths.plot.running import curve_places, run_places

TURN = 2 * math.pi


def of(source: str, low: float = 0.0, high: float = TURN) -> dict[str, list[tuple[float, float]]]:
    curve = curve_of(source)
    made: dict[str, list[tuple[float, float]]] = {}
    for kind, x, y in run_places(Curve(curve.formula, curve.along, span=(low, high))):
        made.setdefault(kind, []).append((float(x), float(y)))
    return made


def near(found: list[tuple[float, float]], wanted: list[tuple[float, float]]) -> bool:
    return len(found) == len(wanted) and all(
        any(math.dist(a, b) < 1e-9 * (1 + math.hypot(*b)) for a in found) for b in wanted
    )


@given(st.integers(1, 9), st.integers(1, 9), st.integers(-9, 9), st.integers(-9, 9))
def test_an_ellipse_turns_at_its_four_ends(a: int, b: int, h: int, k: int) -> None:
    found = of(f"({a} cos t + {h}, {b} sin t + {k})")
    assert near(found["rightmost"], [(h + a, k)]) and near(found["leftmost"], [(h - a, k)])
    assert near(found["maximum"], [(h, k + b)]) and near(found["minimum"], [(h, k - b)])
    assert "closed" not in found and "double" not in found


@given(st.integers(1, 6))
def test_a_loop_crosses_itself_once(a: int) -> None:
    """(t² , t³ − a² t) is at (a², 0) for t = ±a."""
    found = of(f"(t^2, t^3 - {a * a} t)", -3.0 * a, 3.0 * a)
    assert near(found["double"], [(a * a, 0)])
    assert near(found["leftmost"], [(0, 0)])
    low = 2 * a**3 / (3 * math.sqrt(3))
    assert near(found["minimum"], [(a * a / 3, -low)]) and near(found["maximum"], [(a * a / 3, low)])
    assert len(found["closed"]) == 2


def test_a_curve_run_through_twice_does_not_cross_itself_everywhere() -> None:
    assert len(of("r = 2cos(3θ)")["double"]) == 1
    assert "double" not in of("(cos t, sin t)", 0.0, 2 * TURN)


def test_a_figure_of_eight() -> None:
    found = of("(cos(t), sin(2t))")
    assert near(found["double"], [(0, 0)])
    half = math.sqrt(0.5)
    assert near(found["maximum"], [(half, 1), (-half, 1)])


def test_a_spiral_begins_and_ends() -> None:
    found = of("r = θ", 0.0, 6.0)
    assert near(found["closed"], [(0, 0), (6 * math.cos(6), 6 * math.sin(6))])
    assert "minimum" not in found or (0.0, 0.0) not in found["minimum"]


def test_a_circle_typed_in_x_and_y() -> None:
    found = curve_places(curve_of("(x-1)^2 + (y+2)^2 = 25").formula, (-10, 10, -10, 10))
    by_kind = {kind: [(float(x), float(y)) for k, x, y in found if k == kind] for kind, _x, _y in found}
    assert near(by_kind["rightmost"], [(6, -2)]) and near(by_kind["leftmost"], [(-4, -2)])
    assert near(by_kind["minimum"], [(1, -7)]) and near(by_kind["maximum"], [(1, 3)])
    root = math.sqrt(21)
    assert near(by_kind["zero"], [(1 - root, 0), (1 + root, 0)])


def test_what_is_told_stands_as_plain_values() -> None:
    told = curve_marks("(k cos t, sin t)", {"k": "3"}, "t", 0.0, TURN)
    assert {"kind": "rightmost", "at": 3.0, "height": 0.0, "text": "(3; 0)"} in told


@pytest.mark.parametrize("source", ["(1/t, t)", "(sqrt(t - 1), ln(t))", "(|t|, floor(t))", "(2, 3t)"])
def test_poles_corners_and_jumps_are_survived(source: str) -> None:
    assert isinstance(run_places(Curve(curve_of(source).formula, "t", span=(-3.0, 3.0))), list)
