"""Handwritten mathematics: strokes in any order to the likeliest rows, with what each sign else could be.

Candidates of one to four strokes are told by a small network from their shape and from what stands round them; covers of
all strokes are found by dynamic programming; each is laid out, and a beam over labels weighs shapes against what is written
at school. With the labels the layout is made again.
"""

from __future__ import annotations

import math
import re
from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING, Any, NamedTuple

from larch.core.maths.layout.rows import Row, Sign
from larch.core.recognise.crossings import crossing
from larch.core.recognise.groups import CLOSE, DOT, candidates
from larch.core.recognise.ink import EVEN, MOST_STROKES, TOWERING, boxes_of, clean, evenly, height_of
from larch.core.recognise.maths.beam import linear, texts
from larch.core.recognise.maths.grids import bracket_of
from larch.core.recognise.maths.language import language
from larch.core.recognise.maths.layout import Line, Symbol, parsed
from larch.core.recognise.maths.partition import partitions
from larch.core.recognise.maths.rows import row_of
from larch.core.recognise.maths.sense import says_something
from larch.core.recognise.maths.signs import ALPHABET, NONE
from larch.core.recognise.maths.standing import stood
from larch.core.recognise.net import signs
from larch.core.recognise.pictures import pictures

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

KEPT = 8  # labels of a symbol
ROWS, MOST_TEXTS = 6, 60  # readings that are told, and among how many they are looked for
UNLIKELY = 8.0  # covers that are less likely than the best by more are not looked at
LAYOUT = 0.9  # of how likely the places are
FLIPS, DOUBT = 3, 4.0  # decisions of the layout that are also tried the other way, and how unsure they are at least
NUMBER = r"-?\d+(?:[.,]\d+)?"
POINTS = (
    (re.compile(rf"[A-Z]=?\({NUMBER}[;|]{NUMBER}\)$"), 3.0),
    (re.compile(r"[A-Z]=?\(-?[\d.]+,-?[\d.]+\)$"), 1.5),  # the comma might be one of a decimal
    (re.compile(rf"\({NUMBER}[;|]{NUMBER}\)$"), 1.5),
)
FORMS = (
    (re.compile(r"[fgh]\([a-z]\)="), 1.5),  # a function
    (re.compile(r"\d{1,2}/\d{1,2}$"), 1.0),  # a fraction on one line, seldomer than a number with a slanted 1
    (re.compile(r"-?\d+$"), 3.0),  # a whole number: what might be a 1 among digits is one
)
SELDOM = (
    (re.compile(r"\d↓[a-z]"), 2.5),  # an index at a digit; only the base of a number may be one
    (re.compile(r"(?<![\d.,])1[xyznabuvw]"), 1.0),  # a factor that nobody writes
    (re.compile(r"[.,]\d+↓"), 2.5),  # an index at a decimal
    (re.compile(r"[.,;:][·.,;:]|·[.,;:]"), 2.5),  # two stops, one after the other
)
STOPS = (Sign("."), Sign(","))
SENSELESS = 2.5  # what a row loses that can't be understood
UNCLEAR, NO_SIGN = 2.5, -0.5  # signs that the likeliest label leads by less, and that are signs likely enough,
MOST_UNCLEAR = 12  # so many at most, are looked at again
LEANS = (-0.15, 0.15)  # of all that is written, for that
COLON = 0.9  # how sure two dots above each other are one
BARS = re.compile(r"[^|]*\|[^|=<>≤≥,]+\|[^|]*$")
PAIRED = 4.0  # what bars of an absolute value gain; others lose half of it
WHOLE, SUREST = 0.5, 4.0  # how much it counts that strokes would be no sign at all by themselves; beyond that, no more
SETTLED = -30.0  # the log-probability of what a settled sign is not
CLEAR, EACH = 0.5, 0.5  # for covers: how much it counts that a sign is clearly one of them; and what each costs


class Told(NamedTuple):
    """A symbol of the best reading: its sign, the strokes it was made of, how sure it is, and what else it could be."""

    token: str
    strokes: tuple[int, ...]
    confidence: float
    others: tuple[str, ...]


class MathsReading(NamedTuple):
    """row, and the likeliest rows in all, best first; symbols as they are read."""

    row: Row
    rows: tuple[Row, ...]
    symbols: tuple[Told, ...]
    confidence: float


Fixed = Sequence[tuple[Sequence[int], str]]  # strokes that are one sign, and which


def read_maths(strokes: Sequence[Any], fixed: Fixed = (), leaning: Mapping[str, float] | None = None) -> MathsReading:
    """An empty row where nothing is written, or more than any line of mathematics.

    fixed: what is settled already. leaning: by how much likelier a sign is in this hand where the network says another, as
    {"1>7": 0.5}."""
    import numpy as np

    cleaned = clean(strokes)
    numbers = [k for k, stroke in enumerate(cleaned) if len(stroke)]
    if not 0 < len(numbers) <= MOST_STROKES:
        return MathsReading((), (), (), 0.0)
    kept = [cleaned[k] for k in numbers]
    boxes = boxes_of(kept)
    across = crossing(kept, boxes)
    height = height_of(kept, boxes, across)
    even = [evenly(stroke, EVEN * height) for stroke in kept]
    settled = _brackets(even, boxes, height) | _settled(fixed, numbers)
    groups = _agreeing(candidates(even, boxes, height, across), settled)
    odds = _odds(even, groups, height)
    _stacked_dots(odds, groups, boxes, height)
    _leant(odds, leaning or {})
    _fixed(odds, groups, settled)
    sure = np.log(np.maximum(1.0 - np.exp(odds[:, NONE]), 1e-6)) + WHOLE * np.minimum(-odds[:, NONE], SUREST)
    order = np.argsort(boxes[:, 0]).tolist()
    shape = odds[:, :NONE].max(axis=1)
    scores = sure + CLEAR * (shape - sure) - EACH
    found: list[_Found] = []
    covers = partitions(len(kept), groups, scores.tolist(), order)
    for score, chosen in covers:
        if score < covers[0][0] - UNLIKELY:
            break
        symbols = [_symbol(groups[k], boxes, odds[k], numbers) for k in chosen]
        found += _texts(symbols, float(sure[list(chosen)].sum()))
    found = [one._replace(score=one.score + form_bonus(_plain(one))) for one in found]
    found.sort(key=lambda one: -one.score)
    distinct: dict[Row, _Found] = {}
    for one in found[:MOST_TEXTS]:
        distinct.setdefault(row_of(one.line, one.labels), one)
        if len(distinct) == ROWS:
            break
    if not distinct:
        return MathsReading((), (), (), 0.0)
    distinct = _sensible(_unstopped(distinct))
    rows = tuple(distinct)[:ROWS]
    best = distinct[rows[0]]
    share = np.exp([distinct[row].score - best.score for row in rows])
    return MathsReading(rows[0], rows, _told(best.line, best.symbols, best.labels), float(share[0] / share.sum()))


def _unstopped(distinct: dict[Row, _Found]) -> dict[Row, _Found]:
    """A stop at the end ends a sentence, or is a speck of ink: each such row without it, too."""
    made: dict[Row, _Found] = {}
    for row, one in distinct.items():
        if len(row) > 1 and row[-1] in STOPS:
            made.setdefault(row[:-1], one)
        made.setdefault(row, one)
    return made


def _sensible(distinct: dict[Row, _Found]) -> dict[Row, _Found]:
    """In a new order: rows that say nothing stand back behind those nearly as likely that do."""
    scores = [found.score for found in distinct.values()]
    if len(scores) < 2 or scores[1] < scores[0] - SENSELESS:
        return distinct
    lost = {row: 0.0 if says_something(row) else SENSELESS for row in distinct}
    found = [(row, one._replace(score=one.score - lost[row])) for row, one in distinct.items()]
    return dict(sorted(found, key=lambda pair: -pair[1].score))


def form_bonus(text: str) -> float:
    """What a reading gains whose whole says more than runs of four signs can see."""
    point, form = (next((gain for one, gain in known if one.match(text)), 0.0) for known in (POINTS, FORMS))
    bars = 0.0 if "|" not in text or point else PAIRED if BARS.match(text) else -PAIRED / 2
    return point + form + bars - sum(loss for one, loss in SELDOM if one.search(text))


def _plain(found: _Found) -> str:
    return "".join(item if isinstance(item, str) else found.labels[item // 2] for item in linear(found.line))


def _settled(fixed: Fixed, numbers: Sequence[int]) -> dict[tuple[int, ...], str]:
    """By the numbers of those strokes that are read, without what those don't know."""
    place = {number: k for k, number in enumerate(numbers)}
    found: dict[tuple[int, ...], str] = {}
    for own, sign in fixed:
        group = tuple(sorted(place[k] for k in set(own) if k in place))
        if group and sign in ALPHABET and not any(set(group) & set(other) for other in found):
            found[group] = sign
    return found


def _brackets(even: Sequence[Array], boxes: Array, height: float) -> dict[tuple[int, ...], str]:
    """Those round several rows, by their form: the network knows them only as high as a line."""
    found: dict[tuple[int, ...], str] = {}
    for k, (x0, y0, x1, y1) in enumerate(boxes.tolist()):
        if y1 - y0 > TOWERING * height and x1 - x0 < 0.42 * (y1 - y0):
            found[(k,)] = bracket_of(even[k])
    return found


def _agreeing(groups: list[tuple[int, ...]], settled: Mapping[tuple[int, ...], str]) -> list[tuple[int, ...]]:
    """Without groups that hold a part only of what is settled."""
    taken = {stroke for group in settled for stroke in group}
    return [*(group for group in groups if group in settled or not taken.intersection(group)),
            *(group for group in settled if group not in groups)]  # fmt: skip


def _stacked_dots(odds: Array, groups: Sequence[tuple[int, ...]], boxes: Array, height: float) -> None:
    """In place: two marks above each other with nothing at them are a colon, however they were put down."""
    import numpy as np

    colon = ALPHABET.index(":")
    small = [max(x1 - x0, y1 - y0) < DOT * height for x0, y0, x1, y1 in boxes.tolist()]
    for k, group in enumerate(groups):
        if len(group) != 2 or not all(small[n] for n in group):
            continue
        one, other = (boxes[n] for n in group)
        aside = abs((one[0] + one[2]) - (other[0] + other[2])) / 2
        gap = max(one[1], other[1]) - min(one[3], other[3])
        whole = np.array([*np.minimum(one, other)[:2], *np.maximum(one, other)[2:]])
        meets = (boxes[:, :2] < whole[2:]).all(axis=1) & (boxes[:, 2:] > whole[:2]).all(axis=1)
        if aside < CLOSE * height and 0.15 * height < gap and meets.sum() == 2:
            odds[k] += math.log(1 - COLON)
            odds[k, colon] = np.logaddexp(odds[k, colon], math.log(COLON))


def _fixed(odds: Array, groups: Sequence[tuple[int, ...]], settled: Mapping[tuple[int, ...], str]) -> None:
    for k, group in enumerate(groups):
        if group in settled:
            odds[k] = SETTLED
            odds[k, ALPHABET.index(settled[group])] = -1e-3


def _leant(odds: Array, leaning: Mapping[str, float]) -> None:
    """In place; what one sign gains the others lose, so that it stays as sure that it is a sign at all."""
    import numpy as np

    first = odds[:, :NONE].argmax(axis=1)
    for change, gain in leaning.items():
        one, _mark, other = change.partition(">")
        if one not in ALPHABET or other not in ALPHABET:
            continue
        rows = np.flatnonzero(first == ALPHABET.index(one))
        before = np.log(np.exp(odds[rows, :NONE]).sum(axis=1))
        odds[rows, ALPHABET.index(other)] += gain
        odds[rows, :NONE] += (before - np.log(np.exp(odds[rows, :NONE]).sum(axis=1)))[:, None]


class _Found(NamedTuple):
    score: float
    line: Line
    labels: tuple[str, ...]
    symbols: list[Symbol]


def _odds(even: Sequence[Array], groups: Sequence[tuple[int, ...]], height: float) -> Array:
    """The log-probabilities of all labels for each group. Doubtful ones are looked at again, leaning to either side."""
    import numpy as np

    points = np.concatenate(even)
    owner = np.repeat(np.arange(len(even)), [len(stroke) for stroke in even])

    def asked(points: Array, groups: Sequence[tuple[int, ...]]) -> Array:
        images, runs, facts = pictures(points, owner, groups, height)
        return signs.ask(images=images, runs=runs, facts=facts)

    odds = asked(points, groups)
    first, second = np.sort(odds, axis=1)[:, :-3:-1].T
    doubtful = np.flatnonzero((first - second < UNCLEAR) & (odds[:, NONE] < NO_SIGN))[:MOST_UNCLEAR]
    if len(doubtful):
        again = [groups[k] for k in doubtful]
        total = odds[doubtful] + sum(asked(points @ np.array([[1.0, 0.0], [lean, 1.0]]), again) for lean in LEANS)
        total /= 1 + len(LEANS)
        odds[doubtful] = total - np.log(np.exp(total).sum(axis=1, keepdims=True))
    return odds


def _symbol(group: tuple[int, ...], boxes: Array, odds: Array, numbers: Sequence[int]) -> Symbol:
    import numpy as np

    own = boxes[list(group)]
    labels = np.argsort(-odds[:NONE])[:KEPT]
    known = odds[labels] - np.log(np.exp(odds[:NONE]).sum() + 1e-12)
    box = (float(own[:, 0].min()), float(own[:, 1].min()), float(own[:, 2].max()), float(own[:, 3].max()))
    return Symbol(tuple(numbers[k] for k in group), box,
                  tuple((ALPHABET[k], float(value)) for k, value in zip(labels, known, strict=True)))  # fmt: skip


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
            for tree, off in trees for one in texts(tree.line, stood(tree.line, symbols, labels), language())
        ]  # fmt: skip
        made += here
        labels = max(here, key=lambda one: one.score).labels
    return made


def _told(line: Line, symbols: Sequence[Symbol], labels: Sequence[str]) -> tuple[Told, ...]:
    """In the order in which they are read: of a fraction the bar, what stands above it, what stands below it."""
    order = [item // 2 for item in linear(line) if isinstance(item, int)]
    return tuple(
        Told(labels[k], symbols[k].strokes, math.exp(dict(symbols[k].labels).get(labels[k], -6.0)),
             tuple(sign for sign, _odds in symbols[k].labels if sign != labels[k])[:4])
        for k in order
    )  # fmt: skip
