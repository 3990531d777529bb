"""Handwritten mathematics: strokes in any order to the likeliest rows, with what each sign else could be.

Candidates of one to four strokes are told by a small network from their shape and from what stands round them; covers of
all strokes are found by dynamic programming; each is laid out, and a beam over labels weighs shapes against what is written
at school. With the labels the layout is made again.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import TYPE_CHECKING, Any, NamedTuple

from larch.core.maths.layout.latex import latex
from larch.core.maths.layout.rows import Row, Sign
from larch.core.recognise.groups import candidates
from larch.core.recognise.ink import EVEN, MOST_STROKES, boxes_of, clean, evenly, height_of
from larch.core.recognise.maths.beam import texts
from larch.core.recognise.maths.language import language
from larch.core.recognise.maths.layout import Line, Symbol, parsed
from larch.core.recognise.maths.partition import partitions
from larch.core.recognise.maths.rows import row_of
from larch.core.recognise.maths.signs import ALPHABET, NONE
from larch.core.recognise.net import signs
from larch.core.recognise.pictures import pictures

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

KEPT = 8  # labels of a symbol
ROWS, MOST_TEXTS = 6, 60  # readings that are told, and among how many they are looked for
UNLIKELY = 8.0  # covers that are less likely than the best by more are not looked at
LAYOUT = 0.6  # of how likely the places are
FLIPS, DOUBT = 3, 4.0  # decisions of the layout that are also tried the other way, and how unsure they are at least
CLEAR, EACH = 0.5, 0.5  # for covers: how much it counts that a sign is clearly one of them; and what each costs


class Told(NamedTuple):
    """A symbol of the best reading: its sign, the strokes it was made of, how sure it is, and what else it could be."""

    token: str
    strokes: tuple[int, ...]
    confidence: float
    others: tuple[str, ...]


class MathsReading(NamedTuple):
    """row, and the likeliest rows in all, best first; symbols from left to right."""

    row: Row
    rows: tuple[Row, ...]
    symbols: tuple[Told, ...]
    confidence: float


def read_maths(strokes: Sequence[Any]) -> MathsReading:
    """An empty row where nothing is written, or more than any line of mathematics."""
    import numpy as np

    cleaned = clean(strokes)
    numbers = [k for k, stroke in enumerate(cleaned) if len(stroke)]
    if not 0 < len(numbers) <= MOST_STROKES:
        return MathsReading((), (), (), 0.0)
    kept = [cleaned[k] for k in numbers]
    boxes = boxes_of(kept)
    height = height_of(kept, boxes)
    even = [evenly(stroke, EVEN * height) for stroke in kept]
    groups = candidates(even, boxes, height)
    odds = _odds(even, groups, height)
    sure = np.log(np.maximum(1.0 - np.exp(odds[:, NONE]), 1e-6))
    order = np.argsort(boxes[:, 0]).tolist()
    shape = odds[:, :NONE].max(axis=1)
    scores = sure + CLEAR * (shape - sure) - EACH
    found: list[_Found] = []
    covers = partitions(len(kept), groups, scores.tolist(), order)
    for score, chosen in covers:
        if score < covers[0][0] - UNLIKELY:
            break
        symbols = [_symbol(groups[k], boxes, odds[k], float(sure[k]), numbers) for k in chosen]
        found += _texts(symbols, float(sure[list(chosen)].sum()))
    found.sort(key=lambda one: -one.score)
    distinct: dict[Row, _Found] = {}
    for one in found[:MOST_TEXTS]:
        distinct.setdefault(row_of(one.line, one.labels), one)
        if len(distinct) == ROWS:
            break
    if not distinct:
        return MathsReading((), (), (), 0.0)
    rows = tuple(distinct)
    best = distinct[rows[0]]
    share = np.exp([distinct[row].score - best.score for row in rows])
    return MathsReading(rows[0], rows, _told(best.symbols, best.labels), float(share[0] / share.sum()))


class _Found(NamedTuple):
    score: float
    line: Line
    labels: tuple[str, ...]
    symbols: list[Symbol]


def _odds(even: Sequence[Array], groups: Sequence[tuple[int, ...]], height: float) -> Array:
    """The log-probabilities of all labels for each group."""
    import numpy as np

    points = np.concatenate(even)
    owner = np.repeat(np.arange(len(even)), [len(stroke) for stroke in even])
    images, runs, facts = pictures(points, owner, groups, height)
    return signs.ask(images=images, runs=runs, facts=facts)


def _symbol(group: tuple[int, ...], boxes: Array, odds: Array, sure: float, numbers: Sequence[int]) -> Symbol:
    import numpy as np

    own = boxes[list(group)]
    labels = np.argsort(-odds[:NONE])[:KEPT]
    known = odds[labels] - np.log(np.exp(odds[:NONE]).sum() + 1e-12)
    box = (float(own[:, 0].min()), float(own[:, 1].min()), float(own[:, 2].max()), float(own[:, 3].max()))
    return Symbol(tuple(numbers[k] for k in group), box,
                  tuple((ALPHABET[k], float(value)) for k, value in zip(labels, known, strict=True)), sure)  # fmt: skip


def _texts(symbols: list[Symbol], start: float) -> list[_Found]:
    """Laid out by shapes alone, then once more by what the signs were taken for."""
    labels = tuple(symbol.labels[0][0] for symbol in symbols)
    made: list[_Found] = []
    tried: set[tuple[str, ...]] = set()
    for _turn in range(2):
        if labels in tried:
            break
        tried.add(labels)
        first = parsed(symbols, labels)
        trees = [(first, 0.0)]
        for off, pair, way in first.doubts[:FLIPS]:
            if off < DOUBT:
                trees.append((parsed(symbols, labels, {pair: way}), off))
        here = [
            _Found(start + LAYOUT * (tree.score - off) + one.score, tree.line, one.labels, symbols)
            for tree, off in trees for one in texts(tree.line, symbols, language())
        ]  # fmt: skip
        made += here
        labels = max(here, key=lambda one: one.score).labels
    return made


def _told(symbols: Sequence[Symbol], labels: Sequence[str]) -> tuple[Told, ...]:
    order = sorted(range(len(symbols)), key=lambda k: symbols[k].box[0])
    return tuple(
        Told(labels[k], symbols[k].strokes, math.exp(dict(symbols[k].labels).get(labels[k], -6.0)),
             tuple(sign for sign, _odds in symbols[k].labels if sign != labels[k])[:4])
        for k in order
    )  # fmt: skip


def maths_answer(strokes: Sequence[Any]) -> dict[str, Any]:
    """{"latex", "text", "alternatives", "symbols": [{"token", "strokes", "confidence", "others"}]}, as plain values."""
    found = read_maths(strokes)
    others = sorted(found.rows[1:], key=lambda row: not has_meaning(row))  # what says something sooner than what does not
    return {
        "latex": latex(found.row),
        "text": plain(found.row),
        "alternatives": [latex(row) for row in others],
        "symbols": [
            {
                "token": one.token,
                "strokes": list(one.strokes),
                "confidence": round(one.confidence, 4),
                "others": list(one.others),
            }
            for one in found.symbols
        ],
    }


def has_meaning(row: Row) -> bool:
    """Whether it can be read as mathematics."""
    from larch.core.maths.expression.tree import ExpressionError
    from larch.core.maths.layout.to_tree import read_row

    try:
        read_row(row)
    except (ExpressionError, RecursionError):
        return False
    return True


def plain(row: Row) -> str:
    """In one line: read and written out, or sign by sign where it can't be read."""
    from larch.core.maths.expression.plain import reading
    from larch.core.maths.expression.tree import ExpressionError
    from larch.core.maths.layout.to_tree import read_row

    if all(isinstance(item, Sign) for item in row):
        return "".join(item.text for item in row if isinstance(item, Sign))
    try:
        return reading(read_row(row).node)
    except (ExpressionError, RecursionError):
        return latex(row)
