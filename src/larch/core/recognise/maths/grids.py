"""Matrices, vectors and cases: tall brackets round signs that stand in rows."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import TYPE_CHECKING, Any, NamedTuple

from larch.core.recognise.maths.place import Box

if TYPE_CHECKING:
    from numpy.typing import NDArray

    from larch.core.recognise.maths.layout import Symbol

    Array = NDArray[Any]

OPENING, CLOSING = "([|{", ")]|}"
UPRIGHT = "()[]|{}1l/I"  # what tall brackets are taken for
TALL = 1.75  # times as high as what stands in it, a bracket of several rows at least
ALIKE = 0.62  # of the height of the other bracket
STRAIGHT = 0.04  # of its height, how wide a bracket is that bows
APART = 0.85  # heights of a sign between two cells of a row, at least
ASIDE, COMMON = 0.75, 0.4  # heights between the middles of two cells below each other, at most; or of their width
MOST_ROWS = 8


def bracket_of(points: Array) -> str:
    """Which bracket an upright stroke is, by how far it bows at its ends and its quarters: (, [, {, | or their partners.
    points: evenly spaced, shape (n, 2)."""
    import numpy as np

    order = points[np.argsort(points[:, 1])]
    high = float(order[-1, 1] - order[0, 1])
    left, right = float(order[:, 0].min()), float(order[:, 0].max())
    wide = right - left
    if wide < STRAIGHT * high:
        return "|"

    def at(share: float) -> float:
        y = order[0, 1] + share * high
        near = order[np.abs(order[:, 1] - y) < 0.04 * high]
        return float(near[:, 0].mean()) if len(near) else (left + right) / 2

    middle, ends, quarters = at(0.5), (at(0.0) + at(1.0)) / 2, (at(0.25) + at(0.75)) / 2
    opens = middle < ends
    bow = abs(quarters - middle) / max(wide, 1e-9)
    kind = 1 if bow < 0.1 else 0 if bow < 0.38 else 2
    return (OPENING if opens else CLOSING)[(0, 1, 3)[kind]]


class GridFound(NamedTuple):
    """opening, closing: its brackets, -1 where there is none behind it; rows: of cells, of symbols."""

    opening: int
    closing: int
    rows: list[list[list[int]]]


def first_of(symbol: Symbol, among: str) -> str:
    """The likeliest label among some."""
    return next((sign for sign, _odds in symbol.labels if sign in among), among[0])


def grid_in(members: Sequence[int], boxes: Sequence[Box], labels: Sequence[str]) -> GridFound | None:
    """The leftmost of these signs' brackets that hold several rows; None where there are none."""
    order = sorted(members, key=lambda k: boxes[k][0])
    signs = [k for k in order if labels[k] not in UPRIGHT]
    about = 0.8 * _usual(boxes, labels, signs) if signs else 0.0  # small signs, such as powers, make no bracket a tall one
    for opening in order:
        if labels[opening] not in UPRIGHT or labels[opening] in ")]}" or not _upright(boxes[opening]):
            continue
        top, bottom = boxes[opening][1], boxes[opening][3]
        beyond = [k for k in order if boxes[k][0] > boxes[opening][0] and _within(boxes[k], top, bottom)]
        closing = next((k for k in beyond if _closes(boxes[opening], boxes[k], labels[opening] + labels[k])), -1)
        if closing < 0 and labels[opening] != "{":
            continue
        inside = [k for k in beyond if k != closing and (closing < 0 or boxes[k][0] < boxes[closing][0])]
        if not inside:
            continue
        high = _usual(boxes, labels, inside)
        if bottom - top < TALL * max(high, about):
            continue
        rows = _rows(inside, boxes, labels, high)
        if not 2 <= len(rows) <= MOST_ROWS or not all(any(_is_full(boxes[k], high) for k in row) for row in rows):
            continue  # a comma hangs below its line, and is no row
        cells = [_cells(row, boxes, high) for row in rows]
        if closing < 0:
            cells = [[row] for row in rows]
        if len({len(row) for row in cells}) == 1 and _below(cells, boxes, high):
            return GridFound(opening, closing, cells)
    return None


def _below(rows: Sequence[Sequence[Sequence[int]]], boxes: Sequence[Box], high: float) -> bool:
    """Whether the cells of each row stand below those of the one before it; a power stands beside its base."""
    for upper, lower in pairwise(rows):
        for one, other in zip(upper, lower, strict=True):
            (a, b), (c, d) = ((min(boxes[k][0] for k in cell), max(boxes[k][2] for k in cell)) for cell in (one, other))
            common = min(b, d) - max(a, c)
            if abs(a + b - c - d) / 2 > ASIDE * high and common < COMMON * min(b - a, d - c):
                return False
    return True


def _is_full(box: Box, high: float) -> bool:
    return box[3] - box[1] > 0.5 * high or box[2] - box[0] > 1.2 * high


def _upright(box: Box) -> bool:
    return box[3] - box[1] > 1.5 * (box[2] - box[0])


def _within(box: Box, top: float, bottom: float) -> bool:
    return top - 0.1 * (bottom - top) < (box[1] + box[3]) / 2 < bottom + 0.1 * (bottom - top)


def _closes(one: Box, other: Box, labels: str) -> bool:
    """labels: of both; one of them at least is a bracket for certain."""
    fitting = labels[1] in UPRIGHT and labels[1] not in "([{" and any(sign in OPENING + CLOSING for sign in labels)
    return fitting and _upright(other) and other[3] - other[1] > ALIKE * (one[3] - one[1])


def _usual(boxes: Sequence[Box], labels: Sequence[str], inside: Sequence[int]) -> float:
    heights = sorted(boxes[k][3] - boxes[k][1] for k in inside if labels[k] not in "-=.,·:")
    return heights[len(heights) // 2] if heights else max(boxes[k][2] - boxes[k][0] for k in inside)


def _rows(inside: Sequence[int], boxes: Sequence[Box], labels: Sequence[str], high: float) -> list[list[int]]:
    """From the top down; none where a bar has something above and below it: that is a fraction."""
    for k in inside:
        x0, y0, x1, y1 = boxes[k]
        if labels[k] == "-" and x1 - x0 > 1.6 * (y1 - y0):
            over = [m for m in inside if m != k and x0 <= (boxes[m][0] + boxes[m][2]) / 2 <= x1
                    and min(abs(boxes[m][1] - y1), abs(boxes[m][3] - y0)) < 0.6 * high]  # fmt: skip
            if any(boxes[m][3] <= y0 for m in over) and any(boxes[m][1] >= y1 for m in over):
                return []
    rows: list[list[int]] = []
    edge = 0.0
    for k in sorted(inside, key=lambda k: boxes[k][1] + boxes[k][3]):
        middle = (boxes[k][1] + boxes[k][3]) / 2
        if rows and middle - edge < 0.6 * high:
            rows[-1].append(k)
            edge = sum((boxes[m][1] + boxes[m][3]) / 2 for m in rows[-1]) / len(rows[-1])
        else:
            rows.append([k])
            edge = middle
    return [sorted(row, key=lambda k: boxes[k][0]) for row in rows]


def _cells(row: Sequence[int], boxes: Sequence[Box], high: float) -> list[list[int]]:
    cells = [[row[0]]]
    right = boxes[row[0]][2]
    for k in row[1:]:
        if boxes[k][0] - right > APART * high:
            cells.append([])
        cells[-1].append(k)
        right = max(right, boxes[k][2])
    return cells
