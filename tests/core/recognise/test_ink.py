"""A frozen set of ink by hands that training never saw: nothing may read it worse than this."""

from __future__ import annotations

import gzip
import json
from functools import cache
from itertools import pairwise
from pathlib import Path
from typing import Any

import pytest

from larch.core.recognise.maths.answers import maths_answer
from larch.core.recognise.maths.reading import read_maths
from larch.core.recognise.shapes.reading import read_shape
from larch.core.recognise.words import read_words, words_answer

LEAST_EXACT, LEAST_IN_THREE, LEAST_SHAPES, LEAST_WORDS = 0.9, 0.95, 0.95, 0.95


@cache
def ink() -> dict[str, list[dict[str, Any]]]:
    path = Path(__file__).parents[2] / "data" / "ink.json.gz"
    found: dict[str, list[dict[str, Any]]] = json.loads(gzip.decompress(path.read_bytes()))
    return found


def test_expressions() -> None:
    answers = [(one["latex"], maths_answer(one["strokes"])) for one in ink()["maths"]]
    exact = sum(found["latex"] == meant for meant, found in answers) / len(answers)
    three = sum(meant in (found["latex"], *found["alternatives"][:2]) for meant, found in answers) / len(answers)
    wrong = [(meant, found["latex"]) for meant, found in answers if found["latex"] != meant]
    assert exact >= LEAST_EXACT and three >= LEAST_IN_THREE, (exact, three, wrong)


def test_shapes_and_scribbles() -> None:
    answers = [(one["kind"], read_shape(one["strokes"]).kind) for one in ink()["shapes"]]
    right = sum(a == b for a, b in answers) / len(answers)
    assert right >= LEAST_SHAPES, [pair for pair in answers if pair[0] != pair[1]]


def test_words() -> None:
    pairs = [(one["text"].lower().split(), [w.text.lower() for w in read_words(one["strokes"])]) for one in ink()["words"]]
    right = sum(sum(a == b for a, b in zip(meant, found, strict=False)) for meant, found in pairs)
    assert right >= LEAST_WORDS * sum(len(meant) for meant, _found in pairs), pairs


@pytest.mark.parametrize("k", [0, 2, 5])
def test_strokes_in_any_order_are_the_same_mathematics(k: int) -> None:
    strokes = ink()["maths"][k]["strokes"]
    assert maths_answer(strokes[::-1])["latex"] == maths_answer(strokes)["latex"]


@pytest.mark.parametrize("factor", [0.1, 7.0])
def test_the_same_at_any_size_and_place(factor: float) -> None:
    strokes = ink()["maths"][1]["strokes"]
    moved = [[(x * factor + 900, y * factor - 300) for x, y in stroke] for stroke in strokes]
    assert maths_answer(moved)["latex"] == maths_answer(strokes)["latex"]


def test_every_stroke_belongs_to_just_one_symbol() -> None:
    for one in ink()["maths"][:12]:
        found = read_maths(one["strokes"])
        assert sorted(k for symbol in found.symbols for k in symbol.strokes) == list(range(len(one["strokes"])))


def test_words_stand_where_they_were_written() -> None:
    one = ink()["words"][0]
    found = words_answer(one["strokes"])
    boxes = [word["box"] for word in found["words"]]
    assert all(a[2] <= b[0] for a, b in pairwise(boxes))
    assert sorted(k for word in found["words"] for k in word["strokes"]) == list(range(len(one["strokes"])))
    for word in found["words"]:
        assert word["box"][1] < word["baseline"] < word["box"][3] + 8


@pytest.mark.parametrize("strokes", [[], [[]], [[(3, 3)]], [[(float("nan"), 0)]], [[(0, 0), (0, 0)]]])
def test_next_to_nothing_is_read_without_complaint(strokes: list[Any]) -> None:
    assert isinstance(maths_answer(strokes)["latex"], str)
    assert isinstance(words_answer(strokes)["text"], str)


def test_far_too_much_ink_is_no_disaster() -> None:
    many = [[(9.0 * k, 0), (9.0 * k + 5, 30)] for k in range(900)]
    assert isinstance(maths_answer(many)["latex"], str)
