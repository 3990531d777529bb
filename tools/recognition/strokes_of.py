"""Strokes from pictures of letters: thinned to a line, its pieces joined where a pen would go on, its ends given back."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

import numpy as np
from scipy.ndimage import distance_transform_edt
from skimage.morphology import skeletonize

Array = np.ndarray[Any, Any]
Pixel = tuple[int, int]
BEND = math.radians(55)  # by which a stroke that goes on at a crossing may turn
ROUND = ((0, 1), (1, 0), (0, -1), (-1, 0), (1, 1), (1, -1), (-1, 1), (-1, -1))


def strokes_of(picture: Array) -> list[Array]:
    """The strokes of a black picture (true where there is ink), each of shape (n, 2), x and y in pixels, in an order in
    which they could be written."""
    thin = skeletonize(picture)
    deep = distance_transform_edt(picture)
    pieces = [piece for piece in _pieces(thin) if not _spur(piece, thin, deep)]
    joined = _joined(pieces)
    found = [_lengthened(np.array(run, dtype=float)[:, ::-1], deep) for run in joined]
    return sorted((_turned(run) for run in found), key=lambda run: run[0, 0] + 0.3 * run[0, 1])


def _near(thin: Array, at: Pixel) -> list[Pixel]:
    """Neighbours on the line; over a corner only where the straight way is not there."""
    row, column = at
    found: list[Pixel] = []
    for dr, dc in ROUND:
        r, c = row + dr, column + dc
        if not (0 <= r < thin.shape[0] and 0 <= c < thin.shape[1]) or not thin[r, c]:
            continue
        if dr and dc and (thin[row + dr, column] or thin[row, column + dc]):
            continue
        found.append((r, c))
    return found


def _pieces(thin: Array) -> list[list[Pixel]]:
    """The lines between ends and crossings."""
    pixels = [tuple(map(int, at)) for at in np.argwhere(thin)]
    degree = {at: len(_near(thin, at)) for at in pixels}
    seen: set[frozenset[Pixel]] = set()
    found: list[list[Pixel]] = []

    def follow(start: Pixel, second: Pixel) -> None:
        if frozenset((start, second)) in seen:
            return
        run = [start, second]
        seen.add(frozenset((start, second)))
        while degree[run[-1]] == 2:
            ahead = [at for at in _near(thin, run[-1]) if frozenset((run[-1], at)) not in seen]
            if not ahead:
                break
            seen.add(frozenset((run[-1], ahead[0])))
            run.append(ahead[0])
        found.append(run)

    for at in pixels:
        if degree[at] != 2:
            for beside in _near(thin, at):
                follow(at, beside)
            if degree[at] == 0:
                found.append([at, at])
    for at in pixels:  # rings
        for beside in _near(thin, at):
            if degree[at] == 2:
                follow(at, beside)
    return found


def _spur(piece: list[Pixel], thin: Array, deep: Array) -> bool:
    """A short hair that thinning leaves at corners."""
    free = [len(_near(thin, at)) == 1 for at in (piece[0], piece[-1])]
    if free.count(True) != 1:
        return False
    root = piece[-1] if free[0] else piece[0]
    return len(piece) < 1.2 * deep[root]


def _way(run: list[Pixel], at_end: bool, reach: int = 9) -> Array:
    """The direction in which a piece leaves its end."""
    part = run[-reach:] if at_end else run[:reach][::-1]
    way = np.subtract(part[-1], part[0]).astype(float)
    return way / (np.hypot(*way) or 1.0)


def _joined(pieces: list[list[Pixel]]) -> list[list[Pixel]]:
    """Pieces made one where they meet and go on straight, the straightest first."""
    runs = [piece for piece in pieces if len(piece) > 1]
    while True:
        best: tuple[float, int, int, bool, bool] | None = None
        ends = [(k, end, runs[k][-1 if end else 0]) for k in range(len(runs)) for end in (False, True)]
        for i, (k, end, at) in enumerate(ends):
            for m, other, there in ends[i + 1 :]:
                if k == m or max(abs(at[0] - there[0]), abs(at[1] - there[1])) > 2:
                    continue
                turn = math.acos(float(np.clip(np.dot(_way(runs[k], end), -_way(runs[m], other)), -1, 1)))
                if turn < BEND and (best is None or turn < best[0]):
                    best = (turn, k, m, end, other)
        if best is None:
            return runs
        _turn, k, m, end, other = best
        first = runs[k] if end else runs[k][::-1]
        second = runs[m][::-1] if other else runs[m]
        runs = [run for index, run in enumerate(runs) if index not in (k, m)] + [first + second]


def _lengthened(run: Array, deep: Array) -> Array:
    """With what thinning took from its ends."""
    if len(run) < 4:
        return run
    parts = [run]
    for end in (0, -1):
        inner = run[min(6, len(run) - 1)] if end == 0 else run[-min(7, len(run))]
        way = run[end] - inner
        size = np.hypot(*way)
        if size == 0 or np.hypot(*(run[0] - run[-1])) < 3:
            continue
        column, row = run[end].astype(int)
        more = run[end] + way / size * 0.8 * float(deep[row, column])
        parts = [more[None], *parts] if end == 0 else [*parts, more[None]]
    return np.concatenate(parts)


def _turned(run: Array) -> Array:
    """From the end at which a pen would begin: above, and left."""
    first, last = run[0], run[-1]
    return run[::-1] if last[1] + 0.6 * last[0] < first[1] + 0.6 * first[0] else run


def smoothed(run: Array, step: float) -> Array:
    """Evenly spaced, about `step` apart, without the stairs of pixels."""
    if len(run) < 3:
        return run
    window = 5 if len(run) > 10 else 3
    padded = np.concatenate([np.repeat(run[:1], window // 2, 0), run, np.repeat(run[-1:], window // 2, 0)])
    kernel = np.ones(window) / window
    soft = np.column_stack([np.convolve(padded[:, k], kernel, mode="valid") for k in (0, 1)])
    soft[0], soft[-1] = run[0], run[-1]
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(soft, axis=0).T))])
    count = max(2, int(along[-1] / step) + 1)
    at = np.linspace(0, along[-1], count)
    return np.column_stack([np.interp(at, along, soft[:, k]) for k in (0, 1)])


def drawn(strokes: list[Array]) -> Iterator[Array]:
    for run in strokes:
        yield smoothed(run, 3.0)
