"""How a sign stands on its line tells between those of like shape: s and 5, g and 9, c and C, p and P."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence

from larch.core.recognise.maths.layout import Line, Place, Symbol
from larch.core.recognise.maths.place import USUAL, framed
from larch.core.recognise.maths.signs import Stand, stands

SPREAD = 0.18  # heights of an x, by which tops and bottoms differ from hand to hand and from time to time
FAR = 3.0  # heights of an x, beyond which a neighbour tells little
LOOSE = frozenset("()[]{}|/!?%√,;.'")  # written as large as one likes: by twice as much
LEAST = 0.1  # of a neighbour, that is needed at least
WEIGHT, MOST = 0.65, 4.0  # how much it counts against the shape, and how much at most


def stood(line: Line, symbols: Sequence[Symbol], labels: Sequence[str]) -> list[Symbol]:
    """The symbols with what their places say added to their labels. labels: what each is taken for."""
    made, table = list(symbols), stands()
    for row in _rows(line):
        own = [place.symbol for place in row if place.kind == "sign"]
        frames = {k: framed(table, labels[k], symbols[k].box) for k in own}
        sized = [(k, base, scale) for k, (base, scale) in frames.items() if scale]
        for k in own:
            others = [one for one in sized if one[0] != k]
            if others:
                made[k] = _told(symbols[k], others, symbols, table)
    return made


def _rows(line: Line) -> Iterator[Sequence[Place]]:
    yield line
    for place in line:
        for part in (*place.parts, place.raised, place.lowered):
            yield from _rows(part)


def _told(
    symbol: Symbol, others: Sequence[tuple[int, float, float]], symbols: Sequence[Symbol], table: Mapping[str, Stand]
) -> Symbol:
    """others: signs on its row, each with its baseline and the height of an x."""
    x0, y0, x1, y1 = symbol.box
    total, base, size = 0.0, 0.0, 0.0
    for k, own, scale in others:
        left, _top, right, _bottom = symbols[k].box
        share = math.exp(-max(0.0, left - x1, x0 - right) / (FAR * scale))
        total, base, size = total + share, base + share * own, size + share * math.log(scale)
    if total < LEAST:
        return symbol
    base, unit = base / total, math.exp(size / total)
    fits = []
    for sign, _odds in symbol.labels:
        stand = table.get(sign, USUAL)
        off = ((y0 - base) / unit - stand.top) ** 2 + ((y1 - base) / unit - stand.bottom) ** 2
        spread = SPREAD**2 * (1 + 1 / total) * (4 if sign in LOOSE else 1)
        fits.append(max(-MOST, -0.5 * off / spread))
    best = max(fits)
    told = [(sign, odds + WEIGHT * (fit - best)) for (sign, odds), fit in zip(symbol.labels, fits, strict=True)]
    return symbol._replace(labels=tuple(sorted(told, key=lambda one: -one[1])))
