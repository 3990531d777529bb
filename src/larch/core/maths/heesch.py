"""Tilings in which every tile lies the same way among its neighbours, by turns and glide reflections too.

Heesch's classification (Heesch and Kienzle, Flächenschluss, 1963): the outline of such a tile splits into pieces that go
over into each other by a translation (T), a turn about the point between two neighbouring pieces (R3, R4, R6), or a
glide reflection (G), or each into itself by a half turn (C). His 28 types are the nine here and what is left of them if
pieces shrink to nothing; the two that need only translations and half turns are found faster in `larch.core.figures.tiling`.
"""

from __future__ import annotations

import cmath
import math
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from larch.core.base.shape import Point
from larch.core.maths.plane.moves import Move

SAME = 1e-7
MOST_MOVES = 600  # of the group, looked through for its translations

Piece = tuple[int, int]


class Kind(NamedTuple):
    """pieces: in order round the outline, each with the number of its pair; 0 for a piece that fits itself.
    mirrors: how two glide reflections lie to each other: "same", "across" or "" for no condition."""

    pieces: tuple[tuple[str, int], ...]
    mirrors: str
    words: str


def _kind(word: str, words: str, mirrors: str = "") -> Kind:
    return Kind(tuple((p[:-1], int(p[-1])) for p in word.split()), mirrors, words)


KINDS = (
    _kind("T1 C0 C0 T1 G2 G2", "half turns and glide reflections"),
    _kind("T1 G2 G2 T1 G3 G3", "glide reflections"),
    _kind("T1 G2 G3 T1 G3 G2", "glide reflections", "same"),
    _kind("C0 G1 C0 G2 G1 G2", "half turns and glide reflections", "across"),
    _kind("C0 R41 R41 R42 R42", "quarter turns"),
    _kind("R31 R31 R32 R32 R33 R33", "turns by a third"),
    _kind("C0 R31 R31 R62 R62", "turns by a third and a sixth"),
)
TURNS = {"R3": 3, "R4": 4, "R6": 6}


class Tiling(NamedTuple):
    """tiles: the moves that make the tiles of one unit; u and v: by which the unit is repeated. how: in words."""

    tiles: tuple[Move, ...]
    u: Point
    v: Point
    how: str


def unit_of(ring: Sequence[Point]) -> Tiling | None:
    """The tiles of one unit and the two translations that repeat it; None if the shape tiles in none of these ways."""
    outline = Outline(ring)
    for kind in KINDS:
        for pieces in outline.splits(kind):
            unit = outline.unit(kind, pieces)
            if unit is not None:
                return unit
    return None


class Outline:
    """A ring as ways in the complex plane, with which of its pieces fit which others. Pieces are (first side, sides)."""

    def __init__(self, ring: Sequence[Point]) -> None:
        self.at = [complex(*point) for point in ring]
        self.count = len(self.at)
        self.ways = [self.at[(k + 1) % self.count] - self.at[k] for k in range(self.count)]
        self.size = SAME * max(abs(p - self.at[0]) for p in self.at)
        twice = sum((a.conjugate() * b).imag for a, b in zip(self.at, self.at[1:] + self.at[:1], strict=True))
        self.area = abs(twice) / 2
        self.sense = 1 if twice > 0 else -1
        self._paired_at_all: dict[tuple[str, int, int], bool] = {}
        self._known: dict[tuple[str, Piece, Piece], Move | None] = {}

    def corner(self, k: int) -> complex:
        return self.at[k % self.count]

    def splits(self, kind: Kind) -> Iterator[tuple[Piece, ...]]:
        """All ways to split the outline into pieces of a kind of tiling; pieces may be empty."""
        for start in range(self.count):
            yield from self._rest(kind, start, 0, ())

    def _rest(self, kind: Kind, start: int, used: int, done: tuple[Piece, ...]) -> Iterator[tuple[Piece, ...]]:
        here = len(done)
        if here == len(kind.pieces):
            if used == self.count:
                yield done
            return
        sort, pair = kind.pieces[here]
        partner = next((k for k in range(here) if pair and kind.pieces[k] == (sort, pair)), None)
        later = kind.pieces[here + 1 :]
        owed = sum(done[kind.pieces.index(piece)][1] for piece in later if piece[1] and piece in kind.pieces[:here])
        room = self.count - used - owed
        if partner is not None:
            lengths: Sequence[int] = (done[partner][1],)
        elif pair:
            lengths = range(room // 2 + 1)
        else:
            lengths = range(room + 1)
        for length in lengths:
            piece = (start + used, length)
            if length and sort == "C" and self.pairing("C", piece, piece) is None:
                continue
            if length and partner is not None and self.pairing(sort, done[partner], piece) is None:
                continue
            if length and pair and partner is None and not self._has_partner(sort, piece):
                if sort in TURNS:
                    continue
                break  # nor has a longer one: its first part would fit as well
            yield from self._rest(kind, start, used + length, (*done, piece))

    def _has_partner(self, sort: str, piece: Piece) -> bool:
        key = (sort, piece[0] % self.count, piece[1])
        if key not in self._paired_at_all:
            first, length = piece
            others = [first + length] if sort in TURNS else range(first + length, first + self.count - length + 1)
            self._paired_at_all[key] = any(self.pairing(sort, piece, (other, length)) is not None for other in others)
        return self._paired_at_all[key]

    def pairing(self, sort: str, one: Piece, other: Piece) -> Move | None:
        """The move of the tile by which its piece `one` comes to lie on its piece `other`; None if it does not fit."""
        key = (sort, (one[0] % self.count, one[1]), (other[0] % self.count, other[1]))
        if key not in self._known:
            self._known[key] = self._paired(sort, one, other)
        return self._known[key]

    def _paired(self, sort: str, one: Piece, other: Piece) -> Move | None:
        length = one[1]
        first = [self.ways[(one[0] + k) % self.count] for k in range(length)]
        second = [self.ways[(other[0] + k) % self.count] for k in range(length)]
        begin, end = self.corner(one[0]), self.corner(other[0] + length)
        if sort == "G":
            if abs(first[0]) < self.size or abs(abs(first[0]) - abs(second[0])) > self.size:
                return None
            a = second[0] / first[0].conjugate()
            a /= abs(a)
            if any(abs(a * p.conjugate() - q) > self.size for p, q in zip(first, second, strict=True)):
                return None
            return Move(a, self.corner(other[0]) - a * begin.conjugate(), True)
        if sort in TURNS:
            if (one[0] + length - other[0]) % self.count:
                return None
            a = cmath.exp(complex(0, -self.sense * 2 * math.pi / TURNS[sort]))
        else:
            a = {"T": 1 + 0j, "C": -1 + 0j}[sort]
        # Neighbours run through a shared piece in opposite senses.
        if any(abs(a * p + q) > self.size for p, q in zip(first, reversed(second), strict=True)):
            return None
        return Move(a, end - a * begin)

    def unit(self, kind: Kind, pieces: tuple[Piece, ...]) -> Tiling | None:
        """The tiling that a split stands for, if its moves make a group whose unit is just filled by its tiles."""
        moves: list[Move] = []
        seen: dict[tuple[str, int], Piece] = {}
        for word, piece in zip(kind.pieces, pieces, strict=True):
            if not piece[1]:
                continue
            partner = piece if word == ("C", 0) else seen.get(word)
            seen[word] = piece
            if partner is not None and (move := self.pairing(word[0], partner, piece)) is not None:
                moves.append(move)
        mirrors = [move.a for move in moves if move.over]
        if len(mirrors) > 1 and kind.mirrors:
            sign = 1 if kind.mirrors == "same" else -1
            if abs(mirrors[0] - sign * mirrors[1]) > 1e-6:
                return None
        return self._unit(kind, moves) if moves else None

    def _unit(self, kind: Kind, moves: list[Move]) -> Tiling | None:
        group = _group(moves, self.size)
        linear: dict[tuple[int, int, bool], Move] = {}
        shifts: list[complex] = []
        for move in group:
            linear.setdefault((round(move.a.real * 1e4), round(move.a.imag * 1e4), move.over), move)
            if not move.over and abs(move.a - 1) < 1e-6 and abs(move.b) > 10 * self.size:
                shifts.append(move.b)
        if len(linear) > 12:
            return None
        shifts.sort(key=abs)
        whole = self.area * len(linear)
        for k, v in enumerate(shifts[:60]):
            for u in shifts[:k]:
                cross = abs((u.conjugate() * v).imag)
                if cross > 1e-6 * whole:
                    if abs(cross - whole) > 1e-5 * whole:
                        return None  # the shortest two span the lattice: its cell is what a unit must fill
                    return Tiling(tuple(linear.values()), (u.real, u.imag), (v.real, v.imag), kind.words)
        return None


def _group(moves: Sequence[Move], size: float) -> list[Move]:
    """Moves that follow from some, the ones of fewest steps first."""
    steps = [*moves, *(move.inverse() for move in moves)]
    found: dict[tuple[int, int, int, int, bool], Move] = {}

    def key(move: Move) -> tuple[int, int, int, int, bool]:
        a, b = move.a * 1e5, move.b * (1e5 * SAME / size)
        return (round(a.real), round(a.imag), round(b.real), round(b.imag), move.over)

    waiting = [Move()]
    found[key(Move())] = Move()
    for move in waiting:
        if len(found) > MOST_MOVES:
            break
        for step in steps:
            fresh = step.then(move)
            if key(fresh) not in found:
                found[key(fresh)] = fresh
                waiting.append(fresh)
    return list(found.values())
