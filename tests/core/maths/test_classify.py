"""What a shape is: exactly, whatever corner comes first, however it is turned, and never more than is true."""

from __future__ import annotations

import math
from decimal import Decimal
from fractions import Fraction

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.maths.classify import classify, polygon_name, symmetry
from larch.core.maths.exact import read_coordinate

fractions = st.fractions(-50, 50, max_denominator=12)
pairs = st.tuples(fractions, fractions)


def shape(text: str) -> list[tuple[object, object]]:
    points = [word.split(",") for word in text.split()]
    return [(read_coordinate(x), read_coordinate(y)) for x, y in points]


KNOWN = {
    "0,0 4,0 4,3": ("right triangle", ("scalene triangle",)),
    "0,0 2,0 1,sqrt(3)": ("equilateral triangle", ("isosceles triangle", "acute triangle")),
    "0,0 1,0 0,1": ("isosceles right triangle", ("right triangle", "isosceles triangle")),
    "0,0 10,0 5,1": ("isosceles triangle", ("obtuse triangle",)),
    "0,0 10,0 1,1": ("obtuse triangle", ("scalene triangle",)),
    "0,0 5,0 2,5": ("acute triangle", ("scalene triangle",)),
    "1/2,0 1,1/2 1/2,1 0,1/2":
        ("square", ("rectangle", "rhombus", "kite", "parallelogram", "isosceles trapezium", "trapezium")),
    "0,0 4,0 4,3 0,3": ("rectangle", ("parallelogram", "isosceles trapezium", "trapezium")),
    "0,0 5,0 8,4 3,4": ("rhombus", ("kite", "parallelogram", "trapezium")),
    "0,0 4,0 5,2 1,2": ("parallelogram", ("trapezium",)),
    "0,0 4,0 3,2 1,2": ("isosceles trapezium", ("trapezium",)),
    "0,0 4,0 4,2 0,3": ("trapezium", ("right trapezium",)),
    "0,0 4,0 3,2 0,3": ("quadrilateral", ()),
    "0,0 2,-1 4,0 2,5": ("kite", ()),
    "0,0 2,1 4,0 2,5": ("dart", ("concave kite",)),
    "0,0 4,0 1,1 0,5": ("concave quadrilateral", ("quadrilateral",)),
    "0,0 2,0 2,2 1,1 0,2": ("concave pentagon", ()),
    "0,0 4,0 5,2 2,5 -1,2": ("convex pentagon", ()),
    "1,0 1/2,sqrt(3)/2 -1/2,sqrt(3)/2 -1,0 -1/2,-sqrt(3)/2 1/2,-sqrt(3)/2":
        ("regular hexagon", ("equilateral hexagon", "equiangular hexagon")),
    "0,0 3,0 3,1 1,1 1,2 0,2": ("concave hexagon", ()),
}  # fmt: skip


@pytest.mark.parametrize("text", list(KNOWN))
@pytest.mark.parametrize("exact", [True, False])
def test_shapes_are_called_what_they_are(text: str, exact: bool) -> None:
    points = shape(text) if exact else [(float(x), float(y)) for x, y in shape(text)]  # type: ignore[arg-type]
    found = classify(points)
    assert (found.kind, found.also) == KNOWN[text]


@pytest.mark.parametrize("text", list(KNOWN))
@given(start=st.integers(0, 5), back=st.booleans(), turn=st.floats(0, 360), size=st.floats(1e-3, 1e5))
def test_no_matter_how_it_lies(text: str, start: int, back: bool, turn: float, size: float) -> None:
    """Law: the first corner, the sense, a turn, a shift and a scale change nothing."""
    points = [(float(x), float(y)) for x, y in shape(text)]  # type: ignore[arg-type]
    points = points[start % len(points) :] + points[: start % len(points)]
    points = points[::-1] if back else points
    c, s = math.cos(math.radians(turn)) * size, math.sin(math.radians(turn)) * size
    moved = [(c * x - s * y + 3, s * x + c * y - 7) for x, y in points]
    assert classify(moved).kind == KNOWN[text][0]


@given(pairs, pairs, st.fractions(-3, 3, max_denominator=7))
def test_exact_parallels_are_never_missed(a: tuple[Fraction, Fraction], b: tuple[Fraction, Fraction], k: Fraction) -> None:
    """A trapezium whose second base is k times the first is one, and nothing within a hair of it is."""
    cross = a[0] * b[1] - a[1] * b[0]
    assume(cross != 0 and 0 < k < 3 and k != 1)
    points = [(Fraction(0), Fraction(0)), a, (a[0] * k + b[0], a[1] * k + b[1]), b]
    found = classify(points)
    assume(not found.kind.startswith("crossed"))
    assert "trapezium" in (found.kind + " " + " ".join(found.also)) or found.kind in ("kite", "rhombus", "degenerate")
    hair = Fraction(1, 10**30)
    bent = [*points[:2], (points[2][0] - a[1] * hair, points[2][1] + a[0] * hair), points[3]]
    assert "trapezium" not in classify(bent).kind


def test_roots_are_told_from_what_is_nearly_one() -> None:
    assert classify(shape("0,0 2,0 1,sqrt(3)")).kind == "equilateral triangle"
    assert classify(shape("0,0 2,0 1,1.7320508075688772935")).kind == "isosceles triangle"
    assert classify(shape("0,0 sqrt(2),sqrt(2) 0,2*sqrt(2) -sqrt(2),sqrt(2)")).kind == "square"
    assert classify(shape("0,0 sqrt(8),0 sqrt(8),sqrt(2)*2 0,2^(3/2)")).kind == "square"


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("0,0 1,1 2,2", "The corners lie in a line."),
        ("1,1 1,1 2,5", "Two corners that follow each other coincide."),
        ("0,0 0,0 0,0", "Two corners that follow each other coincide."),
        ("0,0 1,1", "A polygon has at least three corners."),
        ("0,0 2,2 2,0 0,2", "Its sides cross."),
    ],
)
def test_what_is_no_shape_says_why(text: str, why: str) -> None:
    assert classify(shape(text)).why == why


def test_a_straight_corner_is_none() -> None:
    found = classify(shape("0,0 2,0 4,0 4,4 0,4"))
    assert found.kind == "square"
    assert found.also[-1] == "pentagon with a straight angle"


@pytest.mark.parametrize("count", range(3, 21))
def test_regular_polygons_fold_on_as_many_lines_as_they_have_corners(count: int) -> None:
    points = [(math.cos(2 * math.pi * k / count), math.sin(2 * math.pi * k / count)) for k in range(count)]
    assert symmetry(points) == (count, count)
    kind = classify(points).kind
    assert kind == {3: "equilateral triangle", 4: "square"}.get(count, f"regular {polygon_name(count)}")


@pytest.mark.parametrize(
    ("text", "axes", "turns"),
    [
        ("0,0 4,0 4,3", 0, 1), ("0,0 4,0 2,1", 1, 1), ("0,0 4,0 4,3 0,3", 2, 2), ("0,0 4,0 5,2 1,2", 0, 2),
        ("0,0 2,-1 4,0 2,5", 1, 1),
    ],
)  # fmt: skip
def test_symmetries_are_counted(text: str, axes: int, turns: int) -> None:
    assert symmetry(shape(text)) == (axes, turns)


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("4", Fraction(4)),
        ("-1/2", Fraction(-1, 2)),
        ("0.25", Fraction(1, 4)),
        ("2^(1/2)", Decimal(2).sqrt()),
        ("sin(1)", math.sin(1)),
    ],
)
def test_coordinates_are_read_as_exactly_as_they_are_written(text: str, value: object) -> None:
    found = read_coordinate(text)
    assert float(found) == pytest.approx(float(value), rel=1e-15)  # type: ignore[arg-type]
    assert isinstance(found, Fraction) == isinstance(value, Fraction)


@pytest.mark.parametrize(
    "text", ["", "four", "1/0", "sqrt(-1)", "x", "9" * 5000, "((((", "1 < 2", "2^99999999", "inf", "nan"]
)
def test_what_is_no_coordinate_is_one_sentence(text: str) -> None:
    try:
        found = read_coordinate(text)
    except ValueError as error:
        assert str(error).endswith(".")
    else:
        assert isinstance(found, Fraction | Decimal | float)


@given(st.lists(st.tuples(st.floats(-1e9, 1e9), st.floats(-1e9, 1e9)), min_size=0, max_size=8))
def test_any_floats_get_an_answer(points: list[tuple[float, float]]) -> None:
    found = classify(points)
    assert found.kind
    if len(points) >= 3:
        axes, turns = symmetry(points)
        assert 0 <= axes <= len(points) and 1 <= turns <= len(points)


def surd(text: str) -> list[tuple[object, object]]:
    from larch.core.maths.exact import read_coordinate

    return [tuple(map(read_coordinate, word.split(","))) for word in text.split()]  # type: ignore[misc]


def test_a_corner_just_on_a_slanted_irrational_side_is_seen() -> None:
    touching = "0,0 sqrt(5),sqrt(6) 2sqrt(5)/3-3,2sqrt(6)/3+4 2sqrt(5)/3,2sqrt(6)/3 2sqrt(5)/3-9,2sqrt(6)/3+1"
    assert classify(surd(touching)).kind == "crossed pentagon"
    beside = touching.replace("2sqrt(5)/3,2sqrt(6)/3 ", "2sqrt(5)/3-1/10^30,2sqrt(6)/3 ")
    assert classify(surd(beside)).kind == "concave pentagon"


@pytest.mark.parametrize("far", [0, 10**8, 10**16, 10**30])
def test_a_kite_far_away_is_one(far: int) -> None:
    points = [(far, 0), (far + 2, 1), (far, 5), (far - 2, 1)]
    assert classify(points).kind == "kite"


@pytest.mark.parametrize("thin", [1e-3, 1e-7, 1e-9, 1e-11])
def test_a_thin_rectangle_is_one(thin: float) -> None:
    assert classify([(0.0, 0.0), (100.0, 0.0), (100.0, thin), (0.0, thin)]).kind == "rectangle"


@given(st.floats(0, 360), st.floats(-1000, 1000), st.sampled_from([0.01, 1.0, 300.0]))
def test_a_turned_square_of_floats_is_one_wherever_it_lies(turn: float, away: float, side: float) -> None:
    c, s = math.cos(turn) * side, math.sin(turn) * side
    corners = [(away, -away), (away + c, -away + s), (away + c - s, -away + s + c), (away - s, -away + c)]
    assert classify(corners).kind == "square"
