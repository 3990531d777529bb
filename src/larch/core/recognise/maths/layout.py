"""The places of signs to each other: fractions, roots, what stands raised and lowered, as a tree of places.

Labels can still change afterwards: a node names its sign by number, and the linear order of the tree is what the language
model looks at.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import NamedTuple

from larch.core.recognise.maths.grids import grid_in
from larch.core.recognise.maths.place import Box, placed

ASIDE = 0.3  # of a bar's length, by which what stands over it may reach out
BAR = 1.6  # times as long as high, a line at least
DEEPEST = 8
HOOK = 0.2  # of a root's height: what stands left of that stands before it
ASTRIDE = 0.35  # heights from a bar's level, within which a sign beyond its end stands on the line, as a minus does
BETWEEN = frozenset("+·×÷:=<>≤≥≠≈→.")  # signs that stand between two sides; a dot is as much one as a stop
LEAD, LED = 0.8, 8.0  # how much it counts for a minus where the sign behind it stands, and how much at most


class Symbol(NamedTuple):
    """A group of strokes that is taken for one sign. labels: (sign, log-probability), the likeliest first."""

    strokes: tuple[int, ...]
    box: Box
    labels: tuple[tuple[str, float], ...]


class Place(NamedTuple):
    """symbol: its number. kind: "sign", "fraction" (parts: above, below), "root" (parts: inside) or "grid" (parts: cells,
    row by row, in so many columns; closing: the bracket behind them, or -1); raised, lowered: what stands at it."""

    symbol: int
    kind: str
    parts: tuple[Line, ...]
    raised: Line
    lowered: Line
    columns: int = 0
    closing: int = -1


Line = tuple[Place, ...]


class Held(NamedTuple):
    """What a bar, a root or a bracket holds; see Place."""

    kind: str
    parts: tuple[Line, ...]
    columns: int = 0
    closing: int = -1


PLAIN = Held("sign", ())


class Parsed(NamedTuple):
    """doubts: decisions between the same line, raised and lowered, the least sure first: by how much, which two signs, and
    what else it could be."""

    line: Line
    score: float
    doubts: tuple[tuple[float, tuple[int, int], str], ...] = ()


def parsed(symbols: Sequence[Symbol], labels: Sequence[str], forced: Mapping[tuple[int, int], str] | None = None) -> Parsed:
    """forced: decisions that are made already."""
    return _Parser(symbols, labels, forced or {}).all()


class _Parser:
    def __init__(self, symbols: Sequence[Symbol], labels: Sequence[str], forced: Mapping[tuple[int, int], str]) -> None:
        self.symbols, self.labels, self.forced = symbols, labels, forced
        self.score = 0.0
        self.doubts: list[tuple[float, tuple[int, int], str]] = []

    def all(self) -> Parsed:
        line = self.line(list(range(len(self.symbols))), 0)
        return Parsed(line, self.score, tuple(sorted(self.doubts)))

    def box(self, k: int) -> Box:
        return self.symbols[k].box

    def middle(self, k: int) -> tuple[float, float]:
        x0, y0, x1, y1 = self.box(k)
        return (x0 + x1) / 2, (y0 + y1) / 2

    def line(self, members: list[int], deep: int) -> Line:
        """One row of signs, with what belongs to each."""
        if not members or deep > DEEPEST:
            return ()
        held: dict[int, Held] = {}
        rest = self._grids(members, held, deep)
        rest = self._roots(rest, held, deep)
        rest = self._fractions(rest, held, deep)
        return self._row(sorted(rest, key=lambda k: self._left(k, held)), held, deep)

    def _left(self, k: int, held: dict[int, Held]) -> float:
        x0, _y0, x1, _y1 = self.box(k)
        return x0 if k in held else 0.7 * x0 + 0.3 * x1

    def _grids(self, members: list[int], held: dict[int, Held], deep: int) -> list[int]:
        boxes = [symbol.box for symbol in self.symbols]
        rest, done = list(members), set(held)
        while (found := grid_in([k for k in rest if k not in done], boxes, self.labels)) is not None:
            cells = tuple(self.line(cell, deep + 1) for row in found.rows for cell in row)
            held[found.opening] = Held("grid", cells, len(found.rows[0]), found.closing)
            done.add(found.opening)
            gone = {k for row in found.rows for cell in row for k in cell} | {found.closing}
            rest = [k for k in rest if k not in gone]
        return rest

    def _roots(self, members: list[int], held: dict[int, Held], deep: int) -> list[int]:
        rest = list(members)
        roots = [k for k in members if self.labels[k] == "√"]
        for root in sorted(roots, key=lambda k: self.box(k)[0] - self.box(k)[2]):  # the widest first
            if root not in rest:
                continue
            x0, y0, x1, y1 = self.box(root)
            inside = []
            for k in rest:
                x, y = self.middle(k)
                start = x0 + min(0.12 * (x1 - x0), HOOK * (y1 - y0))
                if k != root and start < x < x1 + 0.05 * (x1 - x0) and y0 < y < y1 + 0.35 * (y1 - y0):
                    inside.append(k)
            inside = self._ended(inside)
            if inside:
                held[root] = Held("root", (self.line(inside, deep + 1),))
                rest = [k for k in rest if k not in inside]
        return rest

    def _fractions(self, members: list[int], held: dict[int, Held], deep: int) -> list[int]:
        rest = list(members)
        bars = [k for k in members if self.labels[k] == "-" and self._is_bar(k)]
        for bar in sorted(bars, key=lambda k: self.box(k)[0] - self.box(k)[2]):
            if bar not in rest:
                continue
            x0, y0, x1, y1 = self.box(bar)
            level = (y0 + y1) / 2
            aside = ASIDE * (x1 - x0)
            usual = self._usual(rest)
            over: list[int] = []
            under: list[int] = []
            for k in rest:
                x, y = self.middle(k)
                bx0, by0, bx1, by1 = self.box(k)
                outside = max(0.0, x0 - bx0) + max(0.0, bx1 - x1)
                if (
                    k == bar
                    or not x0 - 0.1 * (x1 - x0) <= x <= x1 + 0.1 * (x1 - x0)
                    or outside > max(aside, 0.5 * (bx1 - bx0))
                    or (not x0 <= x <= x1 and abs(y - level) < ASTRIDE * usual)
                ):
                    continue
                if by1 <= level + 0.25 * (by1 - by0):
                    over.append(k)
                elif by0 >= level - 0.25 * (by1 - by0):
                    under.append(k)
            over, under = (self._ended(self._reaching(part, level, part is over)) for part in (over, under))
            if over and under:
                held[bar] = Held("fraction", (self.line(over, deep + 1), self.line(under, deep + 1)))
                gone = {*over, *under}
                rest = [k for k in rest if k not in gone]
        return rest

    def _ended(self, members: list[int]) -> list[int]:
        """Of what a root or a bar holds, without signs between two sides at its end: the other side stands outside."""
        found = sorted(members, key=lambda k: self.middle(k)[0])
        while len(found) > 1 and self.labels[found[-1]] in BETWEEN:
            found.pop()
        return found

    def _usual(self, members: list[int]) -> float:
        """The height of those signs that are not flat."""
        heights = sorted(y1 - y0 for x0, y0, x1, y1 in map(self.box, members) if y1 - y0 > 0.5 * (x1 - x0))
        return heights[len(heights) // 2] if heights else 0.0

    def _is_bar(self, k: int) -> bool:
        x0, y0, x1, y1 = self.box(k)
        return x1 - x0 > BAR * (y1 - y0)

    def _reaching(self, members: list[int], level: float, above: bool) -> list[int]:
        """Without what lies so far off that it belongs to another line."""
        if not members:
            return []
        heights = sorted(self.box(k)[3] - self.box(k)[1] for k in members)
        usual = max(heights[len(heights) // 2], heights[-1] * 0.5)
        found: list[int] = []
        edge = level
        for k in sorted(members, key=lambda k: abs(self.middle(k)[1] - level)):
            _x0, y0, _x1, y1 = self.box(k)
            gap = edge - y1 if above else y0 - edge
            if gap > 1.3 * usual:
                continue
            found.append(k)
            edge = min(edge, y0) if above else max(edge, y1)
        return found

    def _row(self, members: list[int], held: dict[int, Held], deep: int) -> Line:
        """Signs from left to right: each on the line, or at the one on the line before it."""
        row: list[int] = []
        raised: dict[int, list[int]] = {}
        lowered: dict[int, list[int]] = {}
        for at, k in enumerate(members):
            if not row:
                row.append(k)
                continue
            base = row[-1]
            behind = members[at + 1] if at + 1 < len(members) and members[at + 1] not in held else None
            way = self._way(base, k, raised.get(base), lowered.get(base), behind)
            if way == "same":
                row.append(k)
            else:
                (raised if way == "up" else lowered).setdefault(base, []).append(k)
        made = []
        for k in row:
            own = held.get(k, PLAIN)
            inner = []
            for group in (raised.get(k, []), lowered.get(k, [])):
                inner.append(self._row(group, {m: held[m] for m in group if m in held}, deep + 1) if deep < DEEPEST else ())
            made.append(Place(k, own.kind, own.parts, inner[0], inner[1], own.columns, own.closing))
        return tuple(made)

    def _way(self, base: int, k: int, raised: list[int] | None, lowered: list[int] | None, behind: int | None) -> str:
        """behind: the sign that comes after k, if any."""
        one, other = self.labels[base], self.labels[k]
        if (base, k) in self.forced:
            return self.forced[base, k]
        odds = placed(one, self.box(base), other, self.box(k))
        for way, group in (("up", raised), ("down", lowered)):
            odds[way] += self._fitting(way, one, other, [self.labels[m] for m in group or ()])
            if group:  # what goes on beside it goes on where it stands
                beside = placed(self.labels[group[-1]], self.box(group[-1]), other, self.box(k))
                odds[way] = max(odds[way], beside["same"] - 0.5 + min(0.0, self._fitting(way, one, other, ["x"]))) + 0.7
        if other == "-" and not raised and behind is not None:
            # A minus says little of where it stands; the number behind it does.
            there = placed(one, self.box(base), self.labels[behind], self.box(behind))
            odds["up"] += max(-LED, min(LED, LEAD * (there["up"] - there["same"])))
        order = sorted(odds, key=lambda way: -odds[way])
        best, second = order[0], order[1]
        total = sum(math.exp(value - odds[best]) for value in odds.values())
        self.score -= min(6.0, math.log(total))
        self.doubts.append((odds[best] - odds[second], (base, k), second))
        return best

    def _fitting(self, way: str, one: str, other: str, inside: list[str]) -> float:
        """By how much less likely what can't stand there is: signs between sides, a bracket that closes none."""
        off = 0.0
        if one in "=<>≤≥≠≈+×÷±→([{,;:·-/|%√" and one != "":
            off -= 7.0 if one in "=<>≤≥≠≈+×÷±→([{,;:·-" else 2.0
        if other in "=<>≤≥≠≈→":
            off -= 7.0
        if other in "+×÷·:;/,." and not inside:
            off -= 5.0
        if other in ")]}":
            opened = sum(sign in "([{" for sign in inside) - sum(sign in ")]}" for sign in inside)
            off -= 0.0 if opened > 0 else 7.0
        if way == "down":
            off -= 3.0 if one in ")]}°'." else 0.0
            off -= 2.0 if other not in "0123456789nkijmabx" and not inside else 0.0
        elif other in ".,;":
            off -= 3.0
        return off
