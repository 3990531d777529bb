"""Words: full stops, likely other words, lines of writing; and models that are let go."""

from __future__ import annotations

import threading

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.recognise import net as net_module
from larch.core.recognise.lines import WrittenLine, lines_of
from larch.core.recognise.net import Net
from larch.core.recognise.words import (
    JOINED,
    LETTER,
    _cased,
    _full_stop,
    _odds_of,
    joined,
    lexicon,
    neighbours,
    read_words,
    words_answer,
)

LINE = WrittenLine((0, 1, 2), 100.0, 0.0, 40.0)


def stroke(x0: float, y0: float, x1: float, y1: float) -> np.ndarray:
    return np.linspace((x0, y0), (x1, y1), 8)


@pytest.mark.parametrize(
    ("last", "meant"),
    [
        (stroke(90, 97, 92, 100), "."),
        (stroke(92, 95, 87, 112), ","),
        (stroke(90, 50, 92, 53), ""),  # the dot of an i
        (stroke(90, 60, 90, 100), ""),  # a letter
        (stroke(60, 98, 62, 100), ""),  # not behind the others
    ],
)
def test_a_dot_at_the_end_is_a_full_stop(last: np.ndarray, meant: str) -> None:
    assert _full_stop([stroke(0, 60, 20, 100), stroke(40, 60, 80, 100), last], LINE) == meant
    assert _full_stop([last], LINE) == ""


@pytest.mark.parametrize(
    ("text", "high", "second", "meant"),
    [
        ("Square", 1.0, 1.0, "square"),
        ("Square", 1.5, 1.0, "Square"),
        ("which", 1.5, 1.6, "Which"),
        ("Which", 1.0, 1.6, "which"),  # a tall second letter says nothing of the first
        ("Third", 1.0, 1.0, "Third"),  # a T is no larger t
        ("SO", 1.0, 1.0, "SO"),
        ("SUM", 1.0, 1.0, "SUM"),
    ],
)
def test_a_capital_of_the_same_form_is_told_by_its_height(text: str, high: float, second: float, meant: str) -> None:
    letter = 30.0
    tall = [high, second, *[1.0] * (len(text) - 2)]
    points = np.concatenate([stroke(letter * k + 2, 100 - 40 * h, letter * k + 24, 100) for k, h in enumerate(tall)])
    box = (2.0, 100 - 40 * max(tall), 2.0 + letter * len(text), 100.0)
    assert _cased(text, points, box, LINE) == meant
    _cased(text, points, (2.0, 0.0, 2.0, 100.0), LINE)  # however narrow


def test_words_that_look_alike_cost_less_than_words_with_another_letter() -> None:
    known = {"class": 9.0, "clash": 8.0, "dash": 8.0, "brings": 9.0}
    assert dict(neighbours("dass", known)) == {"class": JOINED, "dash": LETTER}
    assert dict(neighbours("Bnngs,", known)) == {"Brings,": JOINED}
    assert dict(neighbours("it", known)) == {}


@given(st.integers(2, 5), st.integers(0, 10))
def test_the_odds_of_a_text_are_summed_over_all_its_ways(steps: int, seed: int) -> None:
    rng = np.random.default_rng(seed)
    odds = np.log(rng.dirichlet(np.ones(3), size=steps))
    letters = ["", "a", "b"]
    total = 0.0
    for way in np.ndindex(*(3,) * steps):
        text, before = "", 0
        for k in way:
            if k and k != before:
                text += letters[k]
            before = k
        if text == "ab":
            total += float(np.exp(sum(odds[n, k] for n, k in enumerate(way))))
    assert np.exp(_odds_of("ab", odds, letters)) == pytest.approx(total)
    assert _odds_of("xy", odds, letters) == -np.inf


def test_every_language_of_the_lists_has_usual_words() -> None:
    for language, word in (("en", "bridge"), ("de", "haus"), ("fr", "pont"), ("es", "casa")):
        assert word in lexicon(language)
    assert lexicon("xx") == {}


@given(st.lists(st.integers(0, 3), min_size=1, max_size=12))
def test_strokes_stay_on_the_line_on_which_they_were_written(rows: list[int]) -> None:
    strokes = [stroke(50.0 * k, 120.0 * row, 50.0 * k + 20, 120.0 * row + 40) for k, row in enumerate(rows)]
    found = lines_of(strokes)
    assert sorted(k for line in found for k in line.strokes) == list(range(len(rows)))
    assert len(found) == len(set(rows))
    for line in found:
        assert len({rows[k] for k in line.strokes}) == 1
        assert list(line.strokes) == sorted(line.strokes)


def test_lines_are_parted_by_line_breaks() -> None:
    found = read_words([])
    assert found == [] and joined(found, []) == ""
    assert words_answer([])["words"] == []


def test_a_model_is_let_go_when_nobody_asks_and_comes_back_when_asked(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(net_module, "IDLE", 0.05)
    net = Net("signs.onnx")
    given = {"images": np.zeros((1, 3, 32, 32), np.float32), "runs": np.zeros((1, 5, 40), np.float32),
             "facts": np.zeros((1, 6), np.float32)}  # fmt: skip
    first = net.ask(**given)
    keeper = next(thread for thread in threading.enumerate() if getattr(thread, "_target", None) == net._let_go)
    keeper.join(5)
    assert net._session is None
    assert np.allclose(net.ask(**given), first)
    assert np.allclose(np.exp(first).sum(axis=1), 1, atol=1e-4)
