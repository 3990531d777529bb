"""What belongs together by how it lies: strokes that cross, hats apart, signs by how they stand on their line."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.maths.layout.latex import latex
from larch.core.recognise.crossings import crossing, hanging, touching
from larch.core.recognise.groups import candidates
from larch.core.recognise.ink import boxes_of, height_of
from larch.core.recognise.maths.grids import grid_in
from larch.core.recognise.maths.layout import Symbol, parsed
from larch.core.recognise.maths.reading import form_bonus
from larch.core.recognise.maths.rows import row_of
from larch.core.recognise.maths.standing import stood

places = st.tuples(st.floats(-50, 50), st.floats(-50, 50))


def stroke(x0: float, y0: float, x1: float, y1: float, count: int = 12) -> np.ndarray:
    return np.linspace((x0, y0), (x1, y1), count)


@given(places, places, places, places, st.floats(0, 6.3))
def test_two_straight_strokes_cross_where_their_lines_do(a, b, c, d, turn: float) -> None:  # type: ignore[no-untyped-def]
    """By the signs of areas, and however all is turned."""

    def area(p, q, r) -> float:  # type: ignore[no-untyped-def]
        return float((q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]))

    areas = [area(a, b, c), area(a, b, d), area(c, d, a), area(c, d, b)]
    assume(all(abs(one) > 1 for one in areas))
    across = areas[0] * areas[1] < 0 and areas[2] * areas[3] < 0
    c_, s_ = math.cos(turn), math.sin(turn)
    ink = [np.array([*one]) @ np.array([[c_, s_], [-s_, c_]]) for one in (stroke(*a, *b, 2), stroke(*c, *d, 2))]
    found = crossing(ink, boxes_of(ink))
    assert found[0, 1] == found[1, 0] == across and not found[0, 0]


def test_what_only_meets_touches_and_does_not_cross() -> None:
    ink = [stroke(0, 0, 0, 100), stroke(2, 50, 60, 50), stroke(90, 0, 90, 100)]
    boxes = boxes_of(ink)
    assert not crossing(ink, boxes).any()
    assert np.argwhere(np.triu(touching(ink, boxes, 5.0), 1)).tolist() == [[0, 1]]


@given(st.integers(1, 9), st.sets(st.tuples(st.integers(0, 8), st.integers(0, 8)), max_size=12))
def test_groups_that_hang_together_are_a_partition_without_ties(count: int, pairs: set[tuple[int, int]]) -> None:
    joined = np.zeros((count, count), dtype=bool)
    for i, j in pairs:
        if i < count and j < count and i != j:
            joined[i, j] = joined[j, i] = True
    groups = hanging(joined)
    assert sorted(k for group in groups for k in group) == list(range(count))
    where = {k: n for n, group in enumerate(groups) for k in group}
    assert all(where[i] == where[j] for i, j in np.argwhere(joined).tolist())
    assert len(groups) >= count - int(joined.sum()) // 2  # no more is joined than the ties say


def test_a_sign_in_many_pieces_is_a_candidate_whole() -> None:
    """As a thinned digit comes: five pieces, each across the one before."""
    pieces = [stroke(20 * k, 0, 20 * k + 28, 60) if k % 2 else stroke(20 * k + 28, 0, 20 * k, 60) for k in range(5)]
    beside = [stroke(300, 0, 300, 60)]
    ink = [*pieces, *beside]
    assert (0, 1, 2, 3, 4) in candidates(ink, boxes_of(ink), 60.0)


def test_a_sign_in_pieces_that_nothing_joins_is_a_candidate_whole() -> None:
    """As a digit comes from a bad picture: five pieces above each other, each by itself; and beside it another sign."""
    pieces = [stroke(4 * (k % 2), 18 * k, 12, 18 * k + 9, 6) for k in range(5)]
    ink = [*pieces, stroke(20, 0, 20, 80)]
    found = candidates(ink, boxes_of(ink), 80.0)
    assert (0, 1, 2, 3, 4) in found
    assert (0, 1, 2, 3, 4, 5) in found  # the gap of a tenth might be within the sign
    apart = [*pieces, stroke(40, 0, 40, 80), stroke(200, 0, 200, 80)]
    assert (0, 1, 2, 3, 4, 5) not in candidates(apart, boxes_of(apart), 80.0)


@pytest.mark.parametrize(("far", "alone"), [(0.0, True), (22.0, True), (160.0, False)])
def test_all_that_is_written_may_be_one_sign_if_it_is_no_wider_than_one(far: float, alone: bool) -> None:
    """A 5 whose hook stands off its body: what is measured as the height of signs is that of the body alone."""
    ink = [stroke(0, 40, 30, 80), stroke(32 + far, 20, 76 + far, 12)]
    boxes = boxes_of(ink)
    assert ((0, 1) in candidates(ink, boxes, height_of(ink, boxes))) is alone
    beside = [*ink, stroke(260, 10, 262, 80), stroke(300, 10, 302, 80)]
    assert (0, 1, 2, 3) not in candidates(beside, boxes_of(beside), 70.0)


marks = st.tuples(st.floats(0, 300), st.floats(-40, 40), st.floats(1, 60), st.floats(1, 90))


@given(st.lists(marks, min_size=1, max_size=5))  # of so few none is left out
def test_candidates_are_the_same_in_whatever_order_strokes_came(boxes: list[tuple[float, float, float, float]]) -> None:
    """As sets of strokes; and each is small enough for a sign, or alone."""
    ink = [stroke(x, y, x + w, y + h) for x, y, w, h in boxes]
    found = candidates(ink, boxes_of(ink), 80.0)
    assert len(set(found)) == len(found) and {(k,) for k in range(len(ink))} <= set(found)
    back = ink[::-1]
    other = {tuple(sorted(len(ink) - 1 - k for k in group)) for group in candidates(back, boxes_of(back), 80.0)}
    assert other == set(found)
    for group in found:
        x0, x1 = min(boxes[k][0] for k in group), max(boxes[k][0] + boxes[k][2] for k in group)
        assert len(group) in (1, len(ink)) or x1 - x0 <= 2.2 * 80 + 1e-6  # all of it may be wider, alone


@pytest.mark.parametrize(("x", "y", "together"), [(60, 2, True), (60, -12, True), (60, 45, False), (120, 2, False)])
def test_the_upper_stroke_of_a_5_may_be_put_down_apart(x: float, y: float, together: bool) -> None:
    """Only at its top, and not far off; a minus beside it is none."""
    body = np.array([(5, 0), (2, 35), (25, 40), (35, 65), (20, 90), (0, 85)], dtype=float)
    ink = [body, stroke(x, y, x + 50, y - 3), stroke(400, 0, 400, 90)]
    assert ((0, 1) in candidates(ink, boxes_of(ink), 90.0)) is together


def test_an_upright_that_is_crossed_is_no_bracket_round_rows() -> None:
    """Else what is left of a t or a 2 in pieces would say how large all is written."""
    ink = [stroke(0, 0, 4, 100), stroke(-15, 30, 20, 30), stroke(-15, 92, 3, 80), stroke(0, 85, 25, 95)]
    assert height_of(ink, boxes_of(ink)) >= 100


def symbol(labels: str, x: float, top: float, bottom: float, wide: float = 20.0) -> Symbol:
    """Top and bottom in heights of an x (30), as in signs.stands()."""
    return Symbol((0,), (x, 30 * top, x + wide, 30 * bottom), tuple((sign, -0.2 * k) for k, sign in enumerate(labels)))


@pytest.mark.parametrize(
    ("labels", "top", "bottom", "meant"),
    [
        ("5s", -1.0, 0.0, "s"),
        ("s5", -1.4, 0.0, "5"),
        ("9g", -1.0, 0.6, "g"),
        ("g9", -1.45, 0.0, "9"),
        ("Pp", -0.95, 0.6, "p"),
        ("hn", -1.0, 0.0, "n"),
        ("cC", -1.4, 0.0, "C"),
    ],
)
def test_how_it_stands_beside_others_tells_signs_of_like_shape(labels: str, top: float, bottom: float, meant: str) -> None:
    row = [symbol("2", 0, -1.4, 0), symbol(labels, 30, top, bottom), symbol("7", 60, -1.45, 0)]
    known = ["2", meant, "7"]
    told = stood(parsed(row, known).line, row, known)
    assert told[1].labels[0][0] == meant
    assert [one.labels[0][0] for one in (told[0], told[2])] == ["2", "7"]


def test_a_sign_by_itself_is_taken_as_it_looks() -> None:
    alone = [symbol("5s", 0, -1.0, 0.0)]
    assert stood(parsed(alone, ["5"]).line, alone, ["5"]) == alone


@pytest.mark.parametrize(("lift", "size", "meant"), [(0.75, 0.6, "10^{-3}"), (0.0, 1.0, "10-3")])
def test_where_a_minus_stands_is_told_by_the_number_behind_it(lift: float, size: float, meant: str) -> None:
    """The minus stands at two thirds of the height of the 0, in both."""
    three = symbol("3", 90, -1.4 * size - lift, -lift, 18 * size)
    row = [symbol("1", 0, -1.45, 0, 5), symbol("0", 20, -1.4, 0), symbol("-", 55, -0.97, -0.94), three]
    labels = ["1", "0", "-", "3"]
    assert latex(row_of(parsed(row, labels).line, labels)) == meant


def test_a_bracket_that_closes_and_a_1_are_no_brackets_round_rows() -> None:
    """g(x) = 1/x: behind the bracket stand a bar and an x below it, and the 1 is upright."""
    boxes = [(0.0, 0.0, 10.0, 90.0), (30.0, 60.0, 70.0, 62.0), (30.0, 66.0, 50.0, 88.0), (80.0, 0.0, 84.0, 60.0)]
    assert grid_in(range(4), boxes, [")", "-", "x", "1"]) is None
    assert grid_in(range(4), boxes, ["1", "-", "x", "1"]) is None


def test_a_power_in_brackets_is_no_second_row() -> None:
    """What is raised stands beside its base; the cells of a column stand below each other."""
    brackets = [(0.0, 0.0, 20.0, 100.0), (130.0, 0.0, 150.0, 100.0)]
    base, power = (30.0, 60.0, 60.0, 95.0), (66.0, 8.0, 96.0, 43.0)
    assert grid_in(range(4), [brackets[0], base, power, brackets[1]], ["(", "x", "n", ")"]) is None
    below = (34.0, 8.0, 64.0, 43.0)
    found = grid_in(range(4), [brackets[0], base, below, brackets[1]], ["(", "x", "n", ")"])
    assert found is not None and found.rows == [[[2]], [[1]]]


def test_what_nobody_writes_is_less_likely() -> None:
    assert form_bonus("5↓n⟩") < form_bonus("s↓n⟩")
    assert form_bonus("1011↓2⟩") == form_bonus("1011↓2⟩+0")  # the base of a number
    assert form_bonus("1x-2=3") < form_bonus("11x-2=3")
    assert form_bonus("G(7|5)") > form_bonus("G(715)") and form_bonus("(9|-53)") > form_bonus("(91-53)")
    assert form_bonus("f(x)=|x-3|") > form_bonus("f(x)=1x-31") and form_bonus("|x|=3") > form_bonus("1x1=3")
    assert form_bonus("0,6↓1⟩") < form_bonus("0,61") and form_bonus("(6;·1)") < form_bonus("(6;1)")
