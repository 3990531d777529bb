"""How a sign stands to another: on the same line, raised or lowered."""

from __future__ import annotations

import math
from collections.abc import Mapping

from larch.core.recognise.maths.signs import FLAT, Stand, relations, stands

Box = tuple[float, float, float, float]  # x0, y0, x1, y1
USUAL = Stand(-1.45, 0.0)
UNSURE = 0.35  # of a shift between two signs neither of which says how large it is written
LEAST = 0.25  # heights of an x: what is lower says nothing of the size


def framed(table: Mapping[str, Stand], sign: str, box: Box) -> tuple[float, float | None]:
    """Where its baseline runs (or, where its size says nothing, its middle), and the height of an x beside it, or None."""
    stand = table.get(sign, USUAL)
    height = stand.bottom - stand.top
    if sign in FLAT or height < LEAST:
        return (box[1] + box[3]) / 2, None
    scale = (box[3] - box[1]) / height
    return box[3] - stand.bottom * scale, scale


def shift_and_size(table: Mapping[str, Stand], one: str, box: Box, other: str, second: Box) -> tuple[float, float]:
    """By how much the baseline of the second sign lies below that of the first, in heights of an x of the first, and the
    logarithm of the ratio of their sizes (0 where one of them says nothing)."""
    base, scale = framed(table, one, box)
    below, size = framed(table, other, second)
    if scale is None and size is None:
        wide = max(box[2] - box[0], second[2] - second[0], 1e-9)
        return UNSURE * (below - base) / wide, 0.0
    unit = scale if scale is not None else size
    assert unit is not None
    unit = max(unit, 1e-9)
    if scale is None:
        stand = table.get(one, USUAL)
        base -= (stand.top + stand.bottom) / 2 * unit
    if size is None:
        stand = table.get(other, USUAL)
        below -= (stand.top + stand.bottom) / 2 * unit
    ratio = math.log(max(size, 1e-9) / unit) if scale is not None and size is not None else 0.0
    return (below - base) / unit, ratio


def placed(one: str, box: Box, other: str, second: Box) -> dict[str, float]:
    """The logarithm of how likely it stands "same", "up" and "down"."""
    shift, ratio = shift_and_size(stands(), one, box, other, second)
    shift, ratio = max(-3.0, min(3.0, shift)), max(-3.0, min(3.0, ratio))
    found = {}
    for way, (share, a, b, p, q, r) in relations().items():
        x, y = shift - a, ratio - b
        det = p * r - q * q
        distance = (r * x * x - 2 * q * x * y + p * y * y) / det
        found[way] = math.log(share) - 0.5 * min(distance, 40.0) - 0.5 * math.log(det)
    return found
