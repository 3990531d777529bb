"""Which strokes may belong together as one sign: single ones, and up to four that lie close, in whatever order written."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from larch.core.recognise.crossings import crossing, hanging, touching

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

Box = tuple[float, float, float, float]
MOST = 4  # strokes of a sign
MOST_PIECES = 12  # of one whose strokes all cross or touch
NEAR = 0.05  # heights between strokes that touch
CLOSE = 0.3  # heights of a usual sign between strokes that touch or nearly do
HAT = 0.55  # heights from a 5 to its upper stroke, at most
STACKED = 0.85  # heights between those that stand above each other, as in = ÷ i
SMALL = 0.6  # heights of the lower of two strokes that stand above each other without touching
DOT = 0.4  # heights: what is smaller is a dot, or a mark that is meant as one
WIDE, TALL = 2.2, 2.6  # heights: no sign of several strokes is larger
BROKEN = 0.12  # heights between the pieces of one sign, at most, from left to right
WIDE_ALONE = 1.9  # of its height, of a sign with nothing beside it
MOST_FOR_ONE = 40  # candidates that a stroke takes part in


def candidates(strokes: Sequence[Array], boxes: Array, height: float, across: Array | None = None) -> list[tuple[int, ...]]:
    """Each as stroke numbers in rising order. strokes: evenly spaced; boxes: theirs, shape (n, 4). across: which strokes
    cross, where that is known."""
    placed: list[Box] = [(x0, y0, x1, y1) for x0, y0, x1, y1 in boxes.tolist()]
    beside = _neighbours(strokes, placed, height)
    found: dict[tuple[int, ...], None] = {(k,): None for k in range(len(strokes))}
    for k in range(len(strokes)):
        grown: list[tuple[int, ...]] = [(k,)]
        own = 0
        for _size in range(MOST - 1):
            larger: dict[tuple[int, ...], None] = {}
            for group in grown:
                for other in sorted({n for member in group for n in beside[member] if n > k and n not in group}):
                    made = tuple(sorted((*group, other)))
                    if made not in larger and _fits(placed, made, height):
                        larger[made] = None
            grown = list(larger)[: MOST_FOR_ONE - own]
            own += len(grown)
            found.update(dict.fromkeys(grown))
            if own >= MOST_FOR_ONE:
                break
    across = crossing(strokes, boxes) if across is None else across
    for group in (*hanging(across), *hanging(across | touching(strokes, boxes, NEAR * height))):
        if MOST < len(group) <= MOST_PIECES:  # one sign in many pieces
            found[group] = None
    for group in (*_columns(placed, 0.0), *_columns(placed, BROKEN * height)):
        if 1 < len(group) <= MOST_PIECES and _fits(placed, group, height):  # one sign in pieces that nothing joins
            found[group] = None
    if 1 < len(strokes) <= MOST_PIECES and _is_one_sign(placed):
        found[tuple(range(len(strokes)))] = None
    return list(found)


def _is_one_sign(boxes: Sequence[Box]) -> bool:
    """Whether all that is written might be: no wider than a loose 5 is, by its own height."""
    wide, tall = _extent(boxes)
    return wide <= WIDE_ALONE * tall


def _extent(boxes: Sequence[Box]) -> tuple[float, float]:
    """Width and height of all together."""
    return (max(box[2] for box in boxes) - min(box[0] for box in boxes),
            max(box[3] for box in boxes) - min(box[1] for box in boxes))  # fmt: skip


def _columns(boxes: Sequence[Box], gap: float) -> list[tuple[int, ...]]:
    """Strokes that have a part of the line to themselves, by gaps larger than that; from left to right."""
    columns: list[list[int]] = []
    end = float("-inf")
    for k in sorted(range(len(boxes)), key=lambda k: boxes[k][0]):
        if boxes[k][0] > end + gap:
            columns.append([])
        columns[-1].append(k)
        end = max(end, boxes[k][2])
    return [tuple(sorted(column)) for column in columns]


def _fits(boxes: Sequence[Box], group: Sequence[int], height: float) -> bool:
    wide, tall = _extent([boxes[k] for k in group])
    return wide <= WIDE * height and tall <= TALL * height


def _neighbours(strokes: Sequence[Array], boxes: Sequence[Box], height: float) -> list[list[int]]:
    import numpy as np

    count = len(strokes)
    beside: list[list[int]] = [[] for _ in range(count)]
    sparse = [stroke[:: max(1, len(stroke) // 24)] for stroke in strokes]
    dots = [max(x1 - x0, y1 - y0) < DOT * height for x0, y0, x1, y1 in boxes]
    for i in range(count):
        a = boxes[i]
        for j in range(i + 1, count):
            b = boxes[j]
            gap_x, gap_y = max(a[0], b[0]) - min(a[2], b[2]), max(a[1], b[1]) - min(a[3], b[3])
            if gap_y > STACKED * height or gap_x > HAT * height:
                continue
            least = min(a[2] - a[0], b[2] - b[0])
            if gap_x > CLOSE * height:
                close = False
            elif gap_y > CLOSE * height:  # one above the other: a dot or a level stroke is one of them
                close = -gap_x >= 0.4 * least and min(a[3] - a[1], b[3] - b[1]) < SMALL * height
            else:
                apart = sparse[i][:, None] - sparse[j][None]
                close = float(np.sqrt((apart**2).sum(axis=2).min())) <= CLOSE * height or (
                    -gap_x >= 0.4 * least and gap_y <= STACKED * height
                )
            if dots[i] and dots[j] and gap_x <= CLOSE * height:  # a colon's, also where it slants
                close = close or abs(a[0] + a[2] - b[0] - b[2]) / 2 < CLOSE * height
            close = close or _is_hat(a, b, height) or _is_hat(b, a, height)
            if close:
                beside[i].append(j)
                beside[j].append(i)
    return beside


def _is_hat(mark: Box, body: Box, height: float) -> bool:
    """Whether a mark could be the upper stroke of a 5, which is often put down apart."""
    x0, y0, x1, y1 = mark
    left, top, right, bottom = body
    if x1 - x0 < 1.3 * (y1 - y0) or not DOT * height < x1 - x0 < 1.8 * height or bottom - top < DOT * height:
        return False
    return x0 > (left + right) / 2 and abs((y0 + y1) / 2 - top) < 0.35 * (bottom - top)
