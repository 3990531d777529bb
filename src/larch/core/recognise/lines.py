"""Writing in lines: which strokes stand on one, where its baseline runs, and the line as a picture for a line reader."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any, NamedTuple

from larch.core.recognise.ink import boxes_of, evenly, height_of

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

HIGH = 48  # pixels of a line's picture
PEN = 2.6  # pixels of its strokes
EDGE = 5.0
FINER = 2  # drawn so many times larger first


class WrittenLine(NamedTuple):
    """strokes: numbers, from left to right. baseline: its height at x = 0 and how much it rises with x; x_height: of small
    letters."""

    strokes: tuple[int, ...]
    baseline: float
    slope: float
    x_height: float

    def base_at(self, x: float) -> float:
        return self.baseline + self.slope * x


def lines_of(strokes: Sequence[Array]) -> list[WrittenLine]:
    """From top to bottom. Strokes that overlap upright belong together, small ones to the line that is nearest."""
    import numpy as np

    boxes = boxes_of(strokes)
    height = height_of(strokes, boxes)
    middle = (boxes[:, 1] + boxes[:, 3]) / 2
    large = [k for k in range(len(strokes)) if boxes[k, 3] - boxes[k, 1] > 0.35 * height]
    rows: list[list[int]] = []
    for k in sorted(large or range(len(strokes)), key=lambda k: middle[k]):
        best: tuple[float, int] | None = None
        for m, row in enumerate(rows):
            near = sorted(row, key=lambda j: abs(boxes[j, 0] - boxes[k, 0]))[:6]
            top, bottom = np.median(boxes[near, 1]), np.median(boxes[near, 3])
            shared = min(bottom, boxes[k, 3]) - max(top, boxes[k, 1])
            share = shared / max(1e-9, min(bottom - top, boxes[k, 3] - boxes[k, 1]))
            if share > 0.35 and (best is None or share > best[0]):
                best = (share, m)
        if best is None:
            rows.append([k])
        else:
            rows[best[1]].append(k)
    rows = _without_bits(rows, boxes, height)
    for k in range(len(strokes)):
        if large and k not in large:
            away = [min(abs(middle[k] - middle[j]) + 0.25 * abs(boxes[k, 0] - boxes[j, 0]) for j in row) for row in rows]
            rows[int(np.argmin(away))].append(k)
    made = [_line(row, boxes, height) for row in rows]
    return sorted(made, key=lambda line: line.base_at(float(boxes[list(line.strokes), 0].mean())))


def _without_bits(rows: list[list[int]], boxes: Array, height: float) -> list[list[int]]:
    """A comma that hangs low, an accent that stands high: one or two small strokes close to a line are no line."""
    import numpy as np

    def is_bit(row: list[int]) -> bool:
        return len(row) < 3 and bool((boxes[row, 3] - boxes[row, 1]).max() < 0.75 * height)

    kept = [row for row in rows if not is_bit(row)]
    for row in rows:
        if not is_bit(row):
            continue
        x, y = float(boxes[row, 0].mean()), float(boxes[row, 1:4:2].mean())
        near: list[tuple[float, int]] = []
        for m, other in enumerate(kept):
            beside = sorted(other, key=lambda j: abs(boxes[j, 0] - x))[:6]
            away = abs(y - float(np.median(boxes[beside, 1:4:2])))
            if abs(float(boxes[beside[0], 0]) - x) < 2 * height:
                near.append((away, m))
        away, m = min(near, default=(np.inf, -1))
        if away < 1.1 * height:
            kept[m].extend(row)
        else:
            kept.append(row)
    return kept


def _line(row: list[int], boxes: Array, height: float) -> WrittenLine:
    """The baseline lies where most strokes end below, fitted twice, then without what hangs down or stands off."""
    import numpy as np

    order = sorted(row, key=lambda k: boxes[k, 0])
    own = boxes[[k for k in order if boxes[k, 3] - boxes[k, 1] > 0.35 * height] or order]
    x, bottom, top = (own[:, 0] + own[:, 2]) / 2, own[:, 3], own[:, 1]
    base, slope = float(np.median(bottom)), 0.0
    if len(own) > 4 and np.ptp(x) > 3 * height:
        for _turn in range(2):
            off = bottom - (base + slope * x)
            near = np.abs(off - np.median(off)) < 0.22 * height
            if near.sum() > 3:
                slope, base = (float(v) for v in np.polyfit(x[near], bottom[near], 1))
                slope = max(-0.25, min(0.25, slope))
                base = float(np.median(bottom[near] - slope * x[near]))
    tall = base + slope * x - top
    small = np.sort(tall[tall > 0.2 * height])
    return WrittenLine(tuple(order), base, slope, float(small[len(small) // 3]) if len(small) else height)


def picture_of(strokes: Sequence[Array], line: WrittenLine) -> tuple[Array, float, float]:
    """Grey, 1 for paper and 0 for ink, HIGH pixels high; the left edge and the scale, by which its columns are places."""
    import numpy as np

    turned = [stroke - np.column_stack([np.zeros(len(stroke)), line.slope * stroke[:, 0]]) for stroke in strokes]
    whole = np.concatenate(turned)
    low, high = whole.min(axis=0), whole.max(axis=0)
    tall = max(high[1] - low[1], 1.6 * line.x_height, 1e-9)
    scale = (HIGH - 2 * EDGE) / tall
    wide = int((high[0] - low[0]) * scale + 2 * EDGE) + 1
    size = (HIGH * FINER, min(wide, 3200) * FINER)
    image = np.zeros(size, dtype=bool)
    top = low[1] - (tall - (high[1] - low[1])) / 2
    radius = PEN * FINER / 2
    span = int(radius) + 1
    dy, dx = (part.ravel() for part in np.mgrid[-span : span + 1, -span : span + 1])
    disc = dy * dy + dx * dx <= radius * radius
    dy, dx = dy[disc], dx[disc]
    for stroke in turned:
        dense = evenly((stroke - (low[0], top)) * scale * FINER + EDGE * FINER, 1.5)
        y = (dense[:, 1].round().astype(int)[:, None] + dy).clip(0, size[0] - 1)
        x = (dense[:, 0].round().astype(int)[:, None] + dx).clip(0, size[1] - 1)
        image[y, x] = True
    ink = image.reshape(HIGH, FINER, -1, FINER).mean(axis=(1, 3))
    return (1.0 - ink).astype(np.float32), float(low[0] - EDGE / scale), float(scale)
