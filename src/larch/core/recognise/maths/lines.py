"""Lines of mathematics that stand below each other, and sums in columns."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any, NamedTuple

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

INNER = 0.15  # of a stroke's height at either end that does not count: lines may reach into each other a little
THIN = 0.5  # heights: what is lower is no sign of its own
BAR = 1.3  # heights: a ruled line is longer
CLOSE = 0.9  # heights from a fraction's bar to what stands at it, at most
MEETS, COVERED = 0.06, 0.45  # heights between strokes of one sign; of a level one of them, how much the other covers
FAR = 1.15  # heights between the middles of two lines, at least
UNDER = 0.25  # of the strokes of a line that have something of the other below or above them
SMALLER = 0.45  # times as high: what is lower is raised or lowered


class Band(NamedTuple):
    strokes: list[int]
    top: float
    bottom: float

    def middle(self) -> float:
        return (self.top + self.bottom) / 2


def lines_of(boxes: Array, height: float) -> list[list[int]]:
    """Strokes by lines, from the top down. A fraction is one line, and so is a power. boxes: of all strokes."""
    bands = _bands(boxes, height)
    full = [band for band in bands if not _is_thin(band, boxes, height)]
    if len(full) < 2 or len(boxes) < 4:
        return [list(range(len(boxes)))]
    thin = [band for band in bands if _is_thin(band, boxes, height)]
    lines: list[Band] = [full[0]]
    for band in full[1:]:
        if _apart(lines[-1], band, thin, boxes, height):
            lines.append(band)
        else:
            lines[-1] = _both(lines[-1], band)
    for band in thin:
        nearest = min(range(len(lines)), key=lambda k: _away(lines[k], band))
        lines[nearest] = lines[nearest]._replace(strokes=[*lines[nearest].strokes, *band.strokes])
    return [sorted(line.strokes) for line in lines]


class Column(NamedTuple):
    """rows: strokes of the numbers, from the top down; result: those below the ruled line, none where it is still empty."""

    rows: list[list[int]]
    result: list[int]


def column_of(boxes: Array, height: float) -> Column | None:
    """A ruled line below at least two rows that end at its right; None where there is none."""
    bars = [k for k, (x0, y0, x1, y1) in enumerate(boxes.tolist()) if x1 - x0 > BAR * height and y1 - y0 < THIN * height]
    for bar in sorted(bars, key=lambda k: boxes[k, 0] - boxes[k, 2]):
        level = float(boxes[bar, 1] + boxes[bar, 3]) / 2
        middles = (boxes[:, 1] + boxes[:, 3]) / 2
        above = [k for k in range(len(boxes)) if k != bar and middles[k] < level]
        below = [k for k in range(len(boxes)) if k != bar and middles[k] > level]
        if not above or any(boxes[k, 0] > boxes[bar, 2] + 0.6 * height for k in above):
            continue
        rows = [[above[k] for k in line] for line in lines_of(boxes[above], height)]
        under = lines_of(boxes[below], height) if below else []
        if len(rows) >= 2 and len(under) <= 1:
            ends = [float(boxes[row, 2].max()) for row in rows]
            if max(ends) - min(ends) < 0.9 * height:
                return Column(rows, below)
    return None


def _bands(boxes: Array, height: float) -> list[Band]:
    """Strokes that share heights, each without its ends."""
    inner = [(y0 + INNER * (y1 - y0), y1 - INNER * (y1 - y0)) for _x0, y0, _x1, y1 in boxes.tolist()]
    bands: list[Band] = []
    for k in sorted(range(len(inner)), key=lambda k: inner[k][0]):
        low, high = inner[k]
        if bands and low <= bands[-1].bottom:
            bands[-1] = Band([*bands[-1].strokes, k], bands[-1].top, max(bands[-1].bottom, high))
        else:
            bands.append(Band([k], low, high))
    return bands


def _is_thin(band: Band, boxes: Array, height: float) -> bool:
    own = boxes[band.strokes]
    return bool((own[:, 3] - own[:, 1]).max() < THIN * height)


def _both(one: Band, other: Band) -> Band:
    return Band([*one.strokes, *other.strokes], min(one.top, other.top), max(one.bottom, other.bottom))


def _away(line: Band, band: Band) -> float:
    return max(line.top - band.middle(), band.middle() - line.bottom, 0.0)


def _apart(one: Band, other: Band, thin: Sequence[Band], boxes: Array, height: float) -> bool:
    """Whether two bands, the second below the first, are lines of their own."""
    import numpy as np

    upper, lower = boxes[one.strokes], boxes[other.strokes]
    between = [k for band in thin for k in band.strokes if one.bottom <= band.middle() <= other.top]
    bars = boxes[[*one.strokes, *other.strokes, *between]]
    flat = bars[(bars[:, 2] - bars[:, 0] > 0.7 * height) & (bars[:, 3] - bars[:, 1] < THIN * height)]
    every = np.concatenate([upper, lower])
    if any(_parts(bar, upper, lower, height) for bar in flat if not _is_of_a_sign(bar, every, height)):
        return False
    last = [k for k in range(len(upper)) if upper[k, 3] > one.bottom - 1.2 * height]
    first = [k for k in range(len(lower)) if lower[k, 1] < other.top + 1.2 * height]
    upper, lower = upper[last], lower[first]
    if _line(lower) - _line(upper) < FAR * height:
        return False
    tall = [float(sorted(part[:, 3] - part[:, 1])[-(len(part) // 3 + 1)]) for part in (upper, lower)]
    if min(tall) < SMALLER * max(tall):
        return False
    return max(_stacked(upper, lower), _stacked(lower, upper)) >= UNDER


def _parts(bar: Array, upper: Array, lower: Array, height: float) -> bool:
    """Whether a level stroke has signs of one band closely above it and signs of the other closely below: a fraction's."""
    slack = 0.1 * (bar[2] - bar[0]) + 0.1 * height
    level = (bar[1] + bar[3]) / 2

    def near(part: Array, above: bool) -> bool:
        for x0, y0, x1, y1 in part.tolist():
            gap = level - y1 if above else y0 - level
            within = bar[0] - slack <= (x0 + x1) / 2 <= bar[2] + slack and -0.3 * (y1 - y0) <= gap <= CLOSE * height
            if within and y1 - y0 > 0.2 * height:
                return True
        return False

    return near(upper, True) and near(lower, False)


def _is_of_a_sign(bar: Array, strokes: Array, height: float) -> bool:
    """Whether it is the foot of a 2, the top of a 7 or what lies across a plus: another stroke meets it there."""
    level, near = (bar[1] + bar[3]) / 2, MEETS * height
    for x0, y0, x1, y1 in strokes.tolist():
        if y1 - y0 < SMALLER * height or y0 - near > bar[3] or y1 + near < bar[1]:
            continue
        across = y0 + near < level < y1 - near and bar[0] < x0 and x1 < bar[2]
        if across or min(x1, bar[2]) - max(x0, bar[0]) > COVERED * (bar[2] - bar[0]):
            return True
    return False


def _line(part: Array) -> float:
    """The height at which signs stand: the middle of the usual one."""
    middles = sorted(((y0 + y1) / 2 for _x0, y0, _x1, y1 in part.tolist()))
    return float(middles[len(middles) // 2])


def _stacked(one: Array, other: Array) -> float:
    """The share of strokes that have a stroke of the other part above or below them."""
    found = 0
    for x0, _y0, x1, _y1 in one.tolist():
        wide = max(x1 - x0, 1e-6)
        found += any(min(x1, b) - max(x0, a) > 0.25 * min(wide, max(b - a, 1e-6)) for a, _c, b, _d in other.tolist())
    return found / len(one)
