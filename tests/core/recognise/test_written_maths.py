"""More than a line of mathematics: lines below each other, sums in columns, matrices, cases; what is settled by hand."""

from __future__ import annotations

import itertools
import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from larch.core.recognise.hand import KnownHand
from larch.core.recognise.ink import boxes_of, clean, height_of
from larch.core.recognise.maths.answers import maths_answer
from larch.core.recognise.maths.grids import bracket_of
from larch.core.recognise.maths.lines import column_of, lines_of
from larch.core.recognise.strike import strikes_out, struck
from larch.core.recognise.words import words_answer
from tests.core.recognise.drawn import SIZE, Strokes, bar, columns, row, sign


def shifted(strokes: Strokes, dx: float, dy: float) -> Strokes:
    return [[(x + dx, y + dy) for x, y in run] for run in strokes]


def tall(name: str, x: float, high: float) -> Strokes:
    strokes, _end = sign(name, x, 0.0)
    ys = [y for run in strokes for _x, y in run]
    return [[(px, (y - min(ys)) / (max(ys) - min(ys)) * high) for px, y in run] for run in strokes]


def test_lines_below_each_other_are_read_one_by_one() -> None:
    answer = maths_answer(row("2x+5=13") + row("2x=8", 20, 90) + row("x=4", 40, 180))
    assert [line["latex"] for line in answer["lines"]] == ["2x+5=13", "2x=8", "x=4"]
    assert sorted(k for line in answer["lines"] for k in line["strokes"]) == list(range(25))
    assert answer["latex"] == r"2x+5=13 \\ 2x=8 \\ x=4"


@pytest.mark.parametrize("text", ["2x+5=13", "x=4", "3x-y=8", "4+1=5"])
def test_one_line_stays_one(text: str) -> None:
    strokes = clean(row(text))
    boxes = boxes_of(strokes)
    assert lines_of(boxes, height_of(strokes, boxes)) == [list(range(len(strokes)))]


def test_a_fraction_is_one_line_and_no_sum() -> None:
    strokes = [*row("3", 10, 0), bar(0, 60, 20), *row("4", 10, 90)]
    boxes = boxes_of(clean(strokes))
    assert len(lines_of(boxes, 49.0)) == 1 and column_of(boxes, 49.0) is None
    assert maths_answer(strokes)["latex"] == r"\frac{3}{4}"


def boxes_at(y: float, *wide: float) -> list[list[float]]:
    """Signs of a line, 40 high, side by side."""
    return [[50.0 * k, y, 50.0 * k + w, y + 40.0] for k, w in enumerate(wide)]


@pytest.mark.parametrize("marks", [[[48.0, 39.0, 80.0, 42.0]], [[50.0, 52.0, 82.0, 55.0]], [[48.0, 12.0, 84.0, 15.0]]])
def test_the_foot_of_a_2_and_the_top_of_a_7_part_no_fraction(marks: list[list[float]]) -> None:
    """Level strokes with a sign of one line above them and a sign of the other below; but a sign of their own meets them."""
    upper, lower = boxes_at(0, 24, 30, 24, 26), boxes_at(53, 24, 30, 24, 26)
    found = lines_of(np.array([*upper, *marks, *lower]), 40.0)
    assert len(found) == 2 and all(len(line) in (4, 5) for line in found)


def test_what_lies_across_a_plus_parts_no_fraction_either() -> None:
    upper, lower = boxes_at(0, 24, 20, 24, 26), boxes_at(53, 24, 3, 24, 26)
    found = lines_of(np.array([*upper, [36.0, 62.0, 68.0, 65.0], *lower]), 40.0)
    assert [len(line) for line in found] == [4, 5]


def test_a_bar_between_two_numbers_still_parts_a_fraction() -> None:
    """Also where it is as long as they are wide, nearly touches them, and other signs stand beside it."""
    over, under = boxes_at(0, 24, 24), boxes_at(52, 24, 24)
    beside = [[110.0, 38.0, 130.0, 40.0], [150.0, 20.0, 175.0, 62.0]]
    assert len(lines_of(np.array([*over, [-6.0, 45.0, 84.0, 47.0], *under, *beside]), 40.0)) == 1


@pytest.mark.parametrize("lean", [-0.15, 0.0, 0.15])
@pytest.mark.parametrize("long", [0.02, 0.2])
def test_two_marks_above_each_other_are_a_colon_however_they_are_put_down(lean: float, long: float) -> None:
    """Dots, and short strokes that slant; a comma and a 1 beside each other would be likelier by their shapes."""
    before, end = sign("7", 0.0, 0.0)
    x = end + 0.35 * SIZE
    marks = [[(x, y * SIZE), (x + (lean + 0.04) * SIZE, (y + long) * SIZE)] for y in (-0.85, -0.3)]
    strokes = [*before, *marks, *row("30", x + 0.5 * SIZE)]
    assert maths_answer(strokes)["text"].replace(" ", "") == "7:30"


def test_two_marks_with_a_bar_between_them_are_no_colon() -> None:
    assert maths_answer(row("48÷6"))["text"].replace(" ", "") == "48÷6"


@pytest.mark.parametrize("inside", ["3+1", "3+4+5+1+2"])
def test_a_root_holds_its_first_sign_however_long_it_is(inside: str) -> None:
    strokes = row(inside, 0.45 * SIZE)
    end = max(x for run in strokes for x, _y in run) + 0.2 * SIZE
    corners = [(-0.1, -0.7), (0.0, -0.75), (0.15, 0.05), (0.3, -1.7), (end / SIZE, -1.7)]
    root = [
        (SIZE * (a + (c - a) * k / 12), SIZE * (b + (d - b) * k / 12))
        for (a, b), (c, d) in itertools.pairwise(corners)
        for k in range(12)
    ]
    assert maths_answer([root, *strokes])["latex"] == rf"\sqrt{{{inside}}}"


def test_a_minus_behind_a_fraction_stands_on_the_line() -> None:
    """At the level of its bar, and close behind it."""
    strokes = [*row("1", 14, -14), bar(0, 44, 0), *row("2", 8, 64), bar(50, 78, -4), *row("3", 90, 24)]
    assert maths_answer(strokes)["latex"] == r"\frac{1}{2}-3"


@pytest.mark.parametrize(
    ("text", "latex"), [("x=5.", "x=5"), ("9.", "9"), ("y=-3,", "y=-3"), ("0.5", "0.5"), ("2,4", "2,4")]
)
def test_a_stop_at_the_end_is_no_part_of_an_equation(text: str, latex: str) -> None:
    """It is offered second; and its ink is told as read."""
    strokes = row(text)
    answer = maths_answer(strokes)
    assert answer["latex"] == latex
    assert text == latex or text in answer["alternatives"]
    assert sorted(k for one in answer["symbols"] for k in one["strokes"]) == list(range(len(strokes)))


def test_a_stop_behind_a_number_in_words_stays() -> None:
    assert words_answer(row("1234."))["text"] == "1234."


@pytest.mark.parametrize("text", ["y=(1,1)", "(1,7)", "(1,-1)", "y=(7,1)"])
def test_brackets_among_narrow_signs_hold_no_rows(text: str) -> None:
    """Ones and sevens are as narrow as brackets, and a comma is small; that makes no bracket a tall one."""
    strokes = clean(row(text))
    boxes = boxes_of(strokes)
    assert "matrix" not in maths_answer(strokes)["latex"]
    assert height_of(strokes, boxes) > 0.4 * (boxes[:, 3] - boxes[:, 1]).max()


def test_bars_of_an_absolute_value_are_read_together() -> None:
    assert maths_answer(row("|x-2|=3"))["text"].replace(" ", "").replace("−", "-") == "|x-2|=3"


@pytest.mark.parametrize(
    ("lines", "result", "told"),
    [
        ([" 47", "+35"], "", ("+", ["47", "35"], "")),
        ([" 47", "+35"], "82", ("+", ["47", "35"], "82")),
        ([" 47", "+35"], "72", ("+", ["47", "35"], "72")),  # a pupil's mistake survives
        (["465", "-38"], "", ("−", ["465", "38"], "")),
        (["46", "×3"], "", ("×", ["46", "3"], "")),
    ],
)
def test_a_sum_in_columns(lines: list[str], result: str, told: tuple[str, list[str], str]) -> None:
    wide = max(map(len, lines))
    strokes = [*columns([line.rjust(wide) for line in lines]), bar(-5, 52 * wide + 5, 100)]
    if result:
        strokes += shifted(columns([result.rjust(wide)]), 0, 165)
    column = maths_answer(strokes)["column"]
    assert (column["op"], column["numbers"], column["result"]) == told
    assert column["pitch"] == pytest.approx(52, abs=6)


@pytest.mark.parametrize(
    ("left", "cells", "right", "latex"),
    [
        ("(", ["1 2", "3 4"], ")", r"\begin{pmatrix}1 & 2 \\ 3 & 4\end{pmatrix}"),
        ("(", ["3", "4"], ")", r"\begin{pmatrix}3 \\ 4\end{pmatrix}"),
        ("[", ["5", "2"], "]", r"\begin{bmatrix}5 \\ 2\end{bmatrix}"),
        ("|", ["1 2", "3 4"], "|", r"\begin{vmatrix}1 & 2 \\ 3 & 4\end{vmatrix}"),
    ],
)
def test_brackets_round_rows(left: str, cells: list[str], right: str, latex: str) -> None:
    inside = shifted(columns(cells, 44, 80), 30, 70)
    end = max(x for run in inside for x, _y in run) + 18
    assert maths_answer(tall(left, 0, 170) + inside + tall(right, end, 170))["latex"] == latex


def test_cases_behind_a_brace() -> None:
    rows = shifted(row("x+y=5") + row("x-y=1", 0, 80), 40, 75)
    assert maths_answer(tall("{", 0, 170) + rows)["latex"] == r"\begin{cases}x+y=5 \\ x-y=1\end{cases}"


@pytest.mark.parametrize("name", list("()[]{}|"))
def test_a_tall_bracket_is_told_by_its_form(name: str) -> None:
    (stroke,) = clean(tall(name, 0, 200))
    assert bracket_of(stroke) == name


def test_what_is_settled_stays_and_the_rest_is_read_round_it() -> None:
    strokes = row("7+5=12")
    first = maths_answer(strokes)
    assert first["latex"] == "7+5=12"
    own = first["symbols"][0]["strokes"]
    assert maths_answer(strokes, [(own, "1")])["latex"] == "1+5=12"
    assert maths_answer(strokes, [([999], "4"), (own, "no sign")])["latex"] == "7+5=12"


def test_strokes_that_are_settled_as_one_sign_are_not_parted() -> None:
    strokes = row("x=4")
    both = maths_answer(strokes)["symbols"][1]["strokes"]
    assert len(both) == 2
    symbols = maths_answer(strokes, [(both, "=")])["symbols"]
    assert [one["token"] for one in symbols] == ["x", "=", "4"] and symbols[1]["confidence"] > 0.99


# What is remembered of a hand


def test_a_sign_that_was_put_right_leans_that_way_and_back() -> None:
    hand = KnownHand().changed("1", "7")
    assert hand.leaning() == {"1>7": pytest.approx(0.9)}
    assert hand.changed("1", "7").leaning()["1>7"] > 0.9
    assert hand.changed("7", "1").leaning() == {} and hand.changed("3", "3") is hand


@given(st.lists(st.tuples(st.sampled_from("1l7("), st.sampled_from("1l7(")), max_size=40))
def test_leaning_is_bounded(changes: list[tuple[str, str]]) -> None:
    hand = KnownHand()
    for was, now in changes:
        hand = hand.changed(was, now)
    assert all(0 < gain <= 2.7 for gain in hand.leaning().values())
    assert not any(f"{b}>{a}" in hand.signs for a, b in (one.split(">") for one in hand.signs))


def test_leaning_settles_only_what_is_in_doubt() -> None:
    strokes = row("7+5=12")
    assert maths_answer(strokes, (), {"7>1": 0.9, "no>sign": 2.0, "": 1.0})["latex"] == "7+5=12"


def test_words_that_were_chosen_are_kept_newest_first_without_signs_and_numbers() -> None:
    hand = KnownHand().chose("Lampion,").chose("Wharf").chose("lampion").chose("7a").chose("x")
    assert hand.words == ("lampion", "wharf")


# Striking out


def to_and_fro(x0: float, x1: float, y: float, legs: int = 6, drop: float = 5.0) -> list[tuple[float, float]]:
    made = []
    for leg in range(legs):
        for k in range(12):
            share = k / 12 if leg % 2 == 0 else 1 - k / 12
            made.append((x0 + (x1 - x0) * share, y + drop * (leg + k / 12)))
    return made


@settings(max_examples=60)
@given(st.floats(0, math.pi), st.floats(20, 400), st.integers(6, 12))
def test_a_stroke_to_and_fro_strikes_out_whichever_way_it_lies(turn: float, long: float, legs: int) -> None:
    c, s = math.cos(turn), math.sin(turn)
    stroke = [(x * c - y * s, x * s + y * c) for x, y in to_and_fro(-long / 2, long / 2, 0, legs, long / 25)]
    assert strikes_out(stroke)


@pytest.mark.parametrize("text", ["2x+5=13", "8-3=5", "60%"])
def test_no_sign_strikes_out(text: str) -> None:
    assert not any(strikes_out(run) for run in row(text))


def test_only_what_is_covered_is_struck_out() -> None:
    from larch.core.base.shape import box_of

    strokes = row("463")
    boxes = [box_of(run) for run in strokes]
    six = max(range(len(boxes)), key=lambda k: -abs(boxes[k].centre[0] - boxes[2].centre[0]))
    over = to_and_fro(boxes[six].x0 - 3, boxes[six].x1 + 3, boxes[six].centre[1] - 15)
    assert struck(over, boxes) == [six]
    assert struck(row("1")[0], boxes) == []
