"""Hands that nobody has lent: glyphs between two hands, and glyphs as they come out of small pictures that were thinned."""

from __future__ import annotations

import random
from itertools import permutations
from typing import Any

import numpy as np
from PIL import Image, ImageDraw, ImageFilter
from strokes_of import drawn, strokes_of

Array = np.ndarray[Any, Any]
Glyph = list[Array]
POINTS = 40
FAR = 0.17  # of the size: glyphs that differ by more are of another form, and what lies between them is none


def _even(run: Array, count: int = POINTS) -> Array:
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(run, axis=0).T))])
    at = np.linspace(0, along[-1], count)
    return np.column_stack([np.interp(at, along, run[:, k]) for k in (0, 1)])


def _placed(glyph: Glyph) -> tuple[list[Array], Array]:
    """In a box of its own (of the larger side 1), and that box: left, top, and how large."""
    runs = [_even(run) for run in glyph]
    points = np.concatenate(runs)
    low, size = points.min(axis=0), float(max(np.ptp(points, axis=0).max(), 0.1))
    return [(run - low) / size for run in runs], np.array([*low, size])


def between(one: Glyph, other: Glyph, share: float) -> Glyph | None:
    """A glyph that lies `share` of the way from one to the other (beyond either, below 0 and above 1); None where they are
    not written alike: other strokes, or the same ones far off."""
    if len(one) != len(other) or len(one) > 4 or min(map(len, (*one, *other))) < 2:
        return None
    (first, here), (second, there) = _placed(one), _placed(other)
    costs: dict[tuple[int, int], tuple[float, Array]] = {}
    for i, a in enumerate(first):
        for j, b in enumerate(second):
            ways = [(float(np.hypot(*(a - way).T).mean()), way) for way in (b, b[::-1])]
            costs[i, j] = min(ways, key=lambda way: way[0])
    best = min(permutations(range(len(one))), key=lambda order: sum(costs[i, j][0] for i, j in enumerate(order)))
    if max(costs[i, j][0] for i, j in enumerate(best)) > FAR:
        return None
    left, top, size = here + min(max(share, 0.0), 1.0) * (there - here)
    return [(a + share * (costs[i, best[i]][1] - a)) * size + (left, top) for i, a in enumerate(first)]


def thinned(glyph: Glyph, r: random.Random) -> Glyph | None:
    """As it comes out of a small picture with a thick pen, enlarged and thinned: with all that is lost and added thereby."""
    points = np.concatenate(glyph)
    low, high = points.min(axis=0), points.max(axis=0)
    size = float(max(high[1] - low[1], 0.7 * (high[0] - low[0]), 0.3))
    small = r.choice((20, 24, 28, 40))
    fine = 6  # drawn so much larger, for soft edges
    inner = 0.72 * small
    scale = inner / size * fine
    shift = np.array([small * fine / 2, small * fine / 2]) - (low + high) / 2 * scale
    picture = Image.new("L", (2 * small * fine, small * fine))
    pen = ImageDraw.Draw(picture)
    thick = r.uniform(0.06, 0.15) * inner * fine
    for run in glyph:
        places = [tuple(map(float, point)) for point in run * scale + shift + (small * fine / 2, 0)]
        if len(places) == 1:
            places *= 2
        pen.line(places, fill=255, width=max(1, round(thick)), joint="curve")
        for x, y in (places[0], places[-1]):
            pen.ellipse((x - thick / 2, y - thick / 2, x + thick / 2, y + thick / 2), fill=255)
    picture = picture.filter(ImageFilter.GaussianBlur(r.uniform(0.2, 0.6) * fine))
    picture = picture.resize((2 * small, small), Image.Resampling.BOX)
    large = picture.resize((8 * small, 4 * small), Image.Resampling.BICUBIC)
    made = list(drawn(strokes_of(np.asarray(large) > r.choice((80, 110, 130)))))
    if not made:
        return None
    middle = np.array([4.0 * small, 2.0 * small])
    return [(run - middle) / (4 * inner / size) + (low + high) / 2 for run in made]
