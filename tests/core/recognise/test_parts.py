"""The parts of the reader of mathematics, each by itself: covers, language, places, lines, spelling."""

from __future__ import annotations

import math
from itertools import combinations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from larch.core.maths.layout.latex import latex
from larch.core.recognise.groups import MOST, candidates
from larch.core.recognise.ink import boxes_of, clean, evenly, height_of
from larch.core.recognise.lines import lines_of, picture_of
from larch.core.recognise.maths.beam import texts
from larch.core.recognise.maths.language import language
from larch.core.recognise.maths.layout import Symbol, parsed
from larch.core.recognise.maths.partition import partitions
from larch.core.recognise.maths.place import placed
from larch.core.recognise.maths.rows import row_of
from larch.core.recognise.pictures import AROUND, EDGE, SIDE, pictures
from larch.core.recognise.words import spelt, word_bonus


@settings(max_examples=40)
@given(st.integers(1, 6), st.randoms(use_true_random=False))
def test_the_best_cover_is_the_best_of_all(count: int, r) -> None:  # type: ignore[no-untyped-def]
    groups = [g for n in (1, 2, 3) for g in combinations(range(count), n)]
    scores = [r.uniform(-3, 0) for _ in groups]

    def best(rest: frozenset[int]) -> float:
        if not rest:
            return 0.0
        first = min(rest)
        return max(s + best(rest - set(g)) for g, s in zip(groups, scores, strict=True) if first in g and set(g) <= rest)

    found = partitions(count, groups, scores, list(range(count)))
    assert found[0][0] == pytest.approx(best(frozenset(range(count))))
    for _score, chosen in found:
        assert sorted(k for g in chosen for k in groups[g]) == list(range(count))


def stroke(x0: float, y0: float, x1: float, y1: float) -> np.ndarray:
    return np.linspace((x0, y0), (x1, y1), 12)


def test_strokes_that_touch_or_stand_above_each_other_may_belong_together() -> None:
    plus = [stroke(0, 50, 100, 50), stroke(50, 0, 50, 100)]
    equals = [stroke(200, 40, 300, 40), stroke(200, 80, 300, 80)]
    far = [stroke(900, 0, 900, 100)]
    all_strokes = [*plus, *equals, *far]
    boxes = boxes_of(all_strokes)
    found = candidates(all_strokes, boxes, 100.0)
    assert {(0, 1), (2, 3), (4,)} <= set(found)
    assert not any(4 in group and len(group) > 1 for group in found)
    assert all(len(group) <= MOST and tuple(sorted(group)) == group for group in found)


def test_late_strokes_are_candidates_with_those_they_belong_to() -> None:
    letters = [stroke(0, 30, 0, 100), stroke(80, 0, 80, 100), stroke(160, 0, 160, 100), stroke(0, 5, 3, 8)]
    assert (0, 3) in candidates(letters, boxes_of(letters), 100.0)


def test_pictures_show_the_group_and_not_the_rest_and_stay_within_bounds() -> None:
    ink = [stroke(0, 0, 0, 100), stroke(40, 0, 40, 100)]
    points, owner = np.concatenate(ink), np.repeat([0, 1], 12)
    images, runs, facts = pictures(points, owner, [(0,), (0, 1)], 100.0)
    assert images.shape == (2, 3, SIDE, SIDE) and runs.shape == (2, 5, 40) and facts.shape == (2, 6)
    assert images.min() >= 0 and images.max() <= 1
    assert images[0, 2].sum() > 0 and images[1, 2].sum() == 0  # the second stands beside the first, and is part of both


def plainly(points: np.ndarray, scale: float) -> np.ndarray:
    """A picture point by point: each spread over four pixels, by how near it lies to them."""
    image = np.zeros((SIDE + 1, SIDE + 1))
    for x, y in points * scale + SIDE / 2:
        if 0 <= x < SIDE - 1 and 0 <= y < SIDE - 1:
            for row in (int(y), int(y) + 1):
                for column in (int(x), int(x) + 1):
                    image[row, column] += (1 - abs(x - column)) * (1 - abs(y - row))
    return np.minimum(1.0, 1.6 * image[:SIDE, :SIDE])


@settings(max_examples=40)
@given(st.integers(0, 2**32 - 1), st.integers(2, 8))
def test_pictures_are_those_made_point_by_point(seed: int, count: int) -> None:
    rng = np.random.default_rng(seed)
    ink = [np.cumsum(rng.normal(0, 4, (rng.integers(1, 40), 2)), axis=0) + rng.uniform(0, 250, 2) for _ in range(count)]
    points, owner = np.concatenate(ink), np.repeat(np.arange(count), [len(one) for one in ink])
    groups = [tuple(sorted(rng.choice(count, rng.integers(1, min(4, count) + 1), replace=False).tolist())) for _ in range(6)]
    images, _runs, facts = pictures(points, owner, groups, 60.0)
    for group, image, told in zip(groups, images, facts, strict=True):
        own = np.concatenate([ink[k] for k in group])
        rest = np.concatenate([np.empty((0, 2)), *(one for k, one in enumerate(ink) if k not in group)])
        middle, size = (own.min(axis=0) + own.max(axis=0)) / 2, own.max(axis=0) - own.min(axis=0)
        near = SIDE / (AROUND * 60.0)
        assert np.allclose(image[0], plainly(own - middle, (SIDE - 2 * EDGE) / max(*size, 0.12 * 60.0)), atol=1e-4)
        assert np.allclose(image[1], plainly(own - middle, near), atol=1e-4)
        assert np.allclose(image[2], plainly(rest - middle, near), atol=1e-4)
        assert told[2] == len(group) and np.allclose(told[:2], np.minimum(6, size / 60.0), atol=1e-4)


def symbol(sign: str, x: float, y: float, wide: float, high: float) -> Symbol:
    return Symbol((0,), (x, y, x + wide, y + high), ((sign, 0.0),))


def read(*symbols: Symbol) -> str:
    labels = [one.labels[0][0] for one in symbols]
    return latex(row_of(parsed(symbols, labels).line, labels))


def test_fractions_roots_powers_and_indices_by_their_places() -> None:
    assert read(symbol("-", 0, 50, 60, 3), symbol("3", 20, 5, 20, 35), symbol("4", 20, 60, 20, 35)) == "\\frac{3}{4}"
    assert read(symbol("x", 0, 30, 25, 25), symbol("2", 30, 0, 15, 25)) == "x^{2}"
    assert read(symbol("a", 0, 30, 25, 25), symbol("1", 30, 45, 8, 25)) == "a_{1}"
    assert read(symbol("√", 0, 0, 100, 60), symbol("5", 50, 10, 25, 45)) == "\\sqrt{5}"
    assert read(symbol("2", 0, 20, 20, 36), symbol("-", 30, 40, 20, 2), symbol("3", 60, 20, 20, 36)) == "2-3"


def test_a_fraction_in_a_fraction() -> None:
    inner = [symbol("-", 20, 25, 20, 2), symbol("1", 28, 2, 4, 18), symbol("2", 25, 30, 10, 18)]
    outer = [symbol("-", 0, 60, 60, 3), symbol("7", 22, 70, 16, 30)]
    assert read(*inner, *outer) == "\\frac{\\frac{1}{2}}{7}"


@pytest.mark.parametrize("between", ["+", "×", "="])
def test_a_sign_between_two_sides_does_not_end_what_a_root_or_a_bar_holds(between: str) -> None:
    """Where the root, or the bar, reaches a little too far."""
    after = [symbol(between, 82, 40, 20, 20), symbol("8", 115, 25, 25, 50)]
    under = [symbol("√", 0, 0, 100, 80), symbol("5", 50, 20, 25, 50)]
    shown = {"+": "+", "×": "\\times ", "=": "="}[between]
    assert read(*under, *after) == f"\\sqrt{{5}}{shown}8"
    over = [symbol("-", 0, 58, 100, 3), symbol("5", 20, 5, 25, 45), symbol("9", 20, 70, 25, 45)]
    high = [symbol(between, 78, 35, 20, 20), symbol("8", 115, 35, 25, 50)]
    assert read(*over, *high) == f"\\frac{{5}}{{9}}{shown}8"


@given(st.sampled_from("abx3"), st.sampled_from("2n5"), st.floats(0.5, 3))
def test_the_same_at_any_size(one: str, other: str, scale: float) -> None:
    box, second = (0.0, 30.0, 25.0, 55.0), (30.0, 0.0, 45.0, 25.0)
    larger = [tuple(v * scale for v in b) for b in (box, second)]
    small, large = placed(one, box, other, second), placed(one, larger[0], other, larger[1])  # type: ignore[arg-type]
    for way in small:
        assert small[way] == pytest.approx(large[way], abs=1e-6)


def test_the_language_likes_what_is_written_at_school_and_knows_no_answers() -> None:
    lm = language()
    assert lm.log("(x+", "5") > lm.log("(x+", "=")
    assert lm.log("5+5", "=") == lm.log("5+5", "=")
    shares = sum(math.exp(lm.log("x=", sign)) for sign in set("".join(k for k in lm.counts if len(k) == 1)))
    assert 0.9 < shares < 1.1


def test_wrong_answers_survive() -> None:
    """2 + 2 = 5 is read as it stands, all digits being one to the language."""
    line = [symbol(sign, 30.0 * k, 0, 20, 36) for k, sign in enumerate("2+2=5")]
    doubtful = [
        one._replace(labels=((one.labels[0][0], -0.3), ("4", -0.9))) if one.labels[0][0].isdigit() else one for one in line
    ]
    tree = parsed(doubtful, [one.labels[0][0] for one in doubtful])
    assert "".join(texts(tree.line, doubtful, language())[0].labels) == "2+2=5"


def test_ink_is_cleaned_of_what_is_no_number() -> None:
    found = clean([[(0, 0), (math.nan, 1), (2, 2)], [], [(1, 1), (1, 1)]])
    assert [len(one) for one in found] == [2, 0, 1]
    assert len(evenly(found[0], 0.1)) > 20
    ink = [stroke(0, 0, 0, 40), stroke(19, 0, 19, 42), stroke(9, 5, 10, 6)]
    assert height_of(ink, boxes_of(ink)) in (40, 42)


def test_strokes_that_touch_make_one_sign_and_bars_touch_nothing() -> None:
    five = [stroke(0, 0, 30, 0), stroke(0, 0, 0, 30), stroke(0, 30, 30, 60)]
    assert height_of(five, boxes_of(five)) == 60
    fraction = [stroke(0, 0, 0, 40), stroke(-30, 43, 30, 43), stroke(0, 48, 0, 88)]
    assert height_of(fraction, boxes_of(fraction)) == 40


def test_two_lines_of_writing_with_their_baselines() -> None:
    upper = [stroke(30.0 * k, 0, 30.0 * k + 4, 40) for k in range(8)]
    lower = [stroke(30.0 * k, 100 + k, 30.0 * k + 4, 140 + k) for k in range(8)]
    found = lines_of([*lower, *upper])
    assert [len(line.strokes) for line in found] == [8, 8]
    assert found[0].base_at(60) == pytest.approx(40, abs=4) and found[1].base_at(60) == pytest.approx(142, abs=5)
    image, _left, scale = picture_of(upper, found[0])
    assert image.shape[0] == 48 and image.min() == 0 and image.max() == 1 and scale > 0


def test_a_doubtful_word_is_settled_by_the_list_of_words() -> None:
    letters = ["", "b", "o", "a", "t", "u"]
    odds = np.full((7, 6), -6.0)
    for step, (first, second) in enumerate([(1, 0), (0, 0), (2, 0), (0, 0), (5, 3), (0, 0), (4, 0)]):
        odds[step, first], odds[step, second] = -0.5, -0.9
    known = {"boat": 12.0}
    assert spelt(odds, letters, {})[0][0] == "bout"
    assert spelt(odds, letters, known)[0][0] == "boat"
    assert word_bonus("boat,", known) > 0 > word_bonus("bout", known)
    assert word_bonus("63", known) == 0


def test_what_says_something_is_told_from_what_does_not() -> None:
    from larch.core.maths.layout.latex import row_from_latex
    from larch.core.maths.layout.rows import signs
    from larch.core.recognise.maths.answers import has_meaning

    assert has_meaning(row_from_latex("7+5=12")) and has_meaning(row_from_latex("y=\\frac{3}{4}x-6"))
    assert not has_meaning(signs("7+5=/2")) and not has_meaning(signs("(2+"))
