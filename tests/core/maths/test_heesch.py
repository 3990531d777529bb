"""Tilings by turns and glide reflections: outlines made for each sort of tiling are found to tile, and cover."""

from __future__ import annotations

import cmath
import math
import random

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from larch.core.figures.tiling import Cannot, placements, tiling_of
from larch.core.maths import geometry
from larch.core.maths.heesch import KINDS, Outline
from larch.core.maths.plane.forms import Line
from larch.core.maths.plane.moves import Move, glide, reflection, rotation
from tests.core.figures.test_tiling import ROOM, assert_covers

TURNED = {4: (90, 90), 5: (120, 120, 120), 6: (120, 60)}


def bulged(p: complex, q: complex, by: float) -> complex:
    return (p + q) / 2 + (q - p) / abs(q - p) * 1j * by


def straight(kind: int, rnd: random.Random) -> list[complex]:
    """A polygon with one side for each piece of the kind, of the fewest conditions that the kind has."""
    r = rnd.uniform
    b = complex(r(-20, 20), 60)
    if kind == 0:
        c = b + complex(r(30, 60), r(10, 25))
        d = c + complex(r(30, 60), r(-25, -10))
        return [0j, b, c, d, d - b, bulged(d - b, 0j, r(5, 20))]
    if kind == 1:
        c = b + complex(r(70, 110), r(-20, 20))
        return [0j, b, bulged(b, c, r(5, 20)), c, c - b, bulged(c - b, 0j, r(5, 20))]
    if kind == 2:
        c = b + complex(r(30, 60), r(5, 25))
        d = c + complex(r(30, 60), r(-10, 20))
        way = (d - b) / abs(d - b)
        return [0j, b, c, d, d - b, way * way * (c - b).conjugate()]
    if kind == 3:
        one, two, first = complex(r(10, 30), r(40, 60)), complex(r(20, 40), -r(40, 60)), complex(r(-10, 10), r(20, 40))
        c = first + one
        d = -two - one.conjugate() + two.conjugate()
        return [0j, first, c, d, d + two, d + two + one.conjugate()]
    corners = [0j, complex(r(60, 90), r(-10, 10)), complex(r(20, 60), r(60, 90))]
    ring: list[complex] = []
    turns = TURNED[kind]
    for k, p in enumerate(corners):
        q = corners[(k + 1) % 3]
        ring.append(p)
        angle = ([0] * (3 - len(turns)) + list(turns))[k]
        if angle:
            w = cmath.exp(complex(0, -math.radians(angle)))
            ring.append((q - w * p) / (1 - w))
    return ring


def bent(kind: int, corners: list[complex], rnd: random.Random) -> list[tuple[float, float]]:
    """Every side made crooked, its partner by the same move of the plane."""
    outline = Outline([(p.real, p.imag) for p in corners])
    pieces = KINDS[kind].pieces
    ring: list[complex] = []
    first: dict[tuple[str, int], tuple[int, list[complex]]] = {}
    for k, word in enumerate(pieces):
        p, q = corners[k], corners[(k + 1) % len(corners)]
        side = 1j * (q - p) / abs(q - p)
        if word[0] == "C":
            knot = p + (q - p) * rnd.uniform(0.15, 0.35) + side * rnd.uniform(-7, 7)
            chain = [p, knot, p + q - knot, q]
        elif word not in first:
            chain = [p, *(p + (q - p) * t + side * rnd.uniform(-7, 7) for t in (rnd.uniform(0.2, 0.4), 0.7)), q]
            first[word] = (k, chain)
        else:
            move = outline.pairing(word[0], (first[word][0], 1), (k, 1))
            assert move is not None
            chain = [complex(*move.point((z.real, z.imag))) for z in first[word][1]]
            if word[0] != "G":
                chain.reverse()
        ring += chain[:-1]
    return [(z.real, z.imag) for z in ring]


@pytest.mark.parametrize("kind", range(len(KINDS)))
@settings(max_examples=6, deadline=None)
@given(seed=st.integers(0, 10_000))
def test_an_outline_made_for_a_sort_of_tiling_tiles(kind: int, seed: int) -> None:
    rnd = random.Random(seed)
    ring = tuple(bent(kind, straight(kind, rnd), rnd))
    assume(not geometry.crosses_itself(ring) and geometry.area(ring) > 1500)
    tiling = tiling_of(ring)
    assert_covers([tuple(move.point(p) for p in ring) for move, _k in placements(ring, tiling, ROOM)], ROOM)
    # Straight sides may fit in more than one way, crooked ones only as they were made.
    assert tiling.how == KINDS[kind].words


def test_a_pair_that_does_not_fit_spoils_it() -> None:
    rnd = random.Random(3)
    ring = bent(4, straight(4, rnd), rnd)
    x, y = ring[4]
    ring[4] = (x + 4, y - 3)
    with pytest.raises(Cannot, match="can't be split"):
        tiling_of(tuple(ring))


@given(st.floats(-170, 170), st.floats(-50, 50), st.floats(1, 40))
def test_a_move_and_its_inverse_leave_all_where_it_was(degrees: float, along: float, off: float) -> None:
    line = Line((along, off), (along + 3, off - 7))
    for move in (rotation((along, off), degrees), reflection(line), glide(line, off), Move(2j, complex(along, off))):
        x, y = move.then(move.inverse()).point((12.5, -7.25))
        assert (x, y) == pytest.approx((12.5, -7.25), abs=1e-8)
