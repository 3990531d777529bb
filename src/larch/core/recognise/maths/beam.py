"""From places to texts: which sign each is, by its shape and by what stands beside it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from larch.core.recognise.maths.grids import CLOSING, OPENING, first_of
from larch.core.recognise.maths.language import CLOSE, END, OPEN_DOWN, OPEN_UP, OVER, START, UNDER, Language, folded
from larch.core.recognise.maths.layout import Line, Place, Symbol

WEIGHT = 0.25  # of the language against the shapes
WIDE = 14
LABELS, UNLIKELY = 7, 7.0  # labels of a sign that are tried, and how much less likely than the best they may be
PAIRS = {")": "(", "]": "[", "}": "{"}
UNBALANCED = 1.6
NAMES = ("sin", "cos", "tan", "log", "ln")
NAMED = 2.0  # what the last letter of a name gains: letters of a name are less sure one by one than together


class Told(NamedTuple):
    labels: tuple[str, ...]
    score: float


def linear(line: Line) -> Iterator[int | str]:
    """Symbol numbers and marks of the language, in the order of the training texts."""
    for place in line:
        if place.kind == "fraction":
            yield place.symbol * 2  # even: the bar itself, which is told by its place
            yield OVER
            yield from linear(place.parts[0])
            yield UNDER
            yield from linear(place.parts[1])
            yield CLOSE
        elif place.kind == "root":
            yield place.symbol * 2
            yield "√"
            yield from linear(place.parts[0])
            yield CLOSE
        elif place.kind == "grid":
            yield place.symbol * 2
            for cell in place.parts:
                yield from linear(cell)
                yield ","
            if place.closing >= 0:
                yield place.closing * 2
        else:
            yield place.symbol * 2 + 1
        for mark, inner in ((OPEN_DOWN, place.lowered), (OPEN_UP, place.raised)):
            if inner:
                yield mark
                yield from linear(inner)
                yield CLOSE


def texts(line: Line, symbols: Sequence[Symbol], language: Language, most: int = WIDE) -> list[Told]:
    """The likeliest labels of all symbols, best first."""
    fixed: dict[int, str] = {}
    order: list[int | str] = []
    for item in linear(line):
        if isinstance(item, int) and item % 2 == 0:
            continue
        order.append(item if isinstance(item, str) else item // 2)
    for place in _all(line):
        if place.kind == "fraction":
            fixed[place.symbol] = "-"
        elif place.kind == "root":
            fixed[place.symbol] = "√"
        elif place.kind == "grid":
            fixed[place.symbol] = first_of(symbols[place.symbol], OPENING)
            if place.closing >= 0:
                fixed[place.closing] = first_of(symbols[place.closing], CLOSING)
    beams: list[tuple[float, str, tuple[tuple[int, str], ...], str]] = [(0.0, START, (), "")]
    for item in order:
        fresh: list[tuple[float, str, tuple[tuple[int, str], ...], str]] = []
        for score, before, chosen, brackets in beams:
            if isinstance(item, str):
                fresh.append((score + WEIGHT * language.log(before, item), (before + item)[-3:], chosen, brackets))
                continue
            likely = symbols[item].labels[:LABELS]
            for sign, shape in likely:
                if shape < likely[0][1] - UNLIKELY:
                    break
                if sign == "√":
                    shape -= 3.0  # with nothing in it
                own = folded(sign)
                gain = shape + WEIGHT * language.log(before, own) + (NAMED if (before + own).endswith(NAMES) else 0.0)
                inner, penalty = _balanced(brackets, sign)
                fresh.append((score + gain - penalty, (before + own)[-3:], (*chosen, (item, sign)), inner))
        fresh.sort(key=lambda one: -one[0])
        beams = fresh[:WIDE]
    done = []
    for score, before, chosen, brackets in beams:
        labels = dict(chosen) | fixed
        total = score + WEIGHT * language.log(before, END) - UNBALANCED * len(brackets)
        for k, sign in fixed.items():
            total += dict(symbols[k].labels).get(sign, -6.0)
        done.append(Told(tuple(labels.get(k, "") for k in range(len(symbols))), total))
    done.sort(key=lambda one: -one.score)
    return done[:most]


def _all(line: Line) -> Iterator[Place]:
    for place in line:
        yield place
        for part in (*place.parts, place.raised, place.lowered):
            yield from _all(part)


def _balanced(brackets: str, sign: str) -> tuple[str, float]:
    if sign in "([{":
        return brackets + sign, 0.0
    if sign in ")]}":
        if brackets and brackets[-1] in "([{":
            # [2, 3) is an interval: any opened bracket may be closed by any other.
            return brackets[:-1], 0.0 if brackets[-1] == PAIRS[sign] else 0.5
        return brackets, UNBALANCED
    return brackets, 0.0
