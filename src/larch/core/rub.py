"""Rubbing out and wiping: what is left of ink. Nothing but ink is ever touched, and none that is locked."""

from __future__ import annotations

import struct
from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import TYPE_CHECKING, Any

from larch.core.edit import Edit
from larch.core.page import Page
from larch.core.shape import Point
from larch.core.thing import Thing
from larch.core.things.ink import STRIDE, Ink, track
from larch.core.words import _

if TYPE_CHECKING:
    from numpy.typing import NDArray

Change = Callable[[Ink], Sequence[Thing] | None]
CLEAN = 0.4  # share of a line's width by which the rubber reaches further, so that its round end goes too
DUST = 0.4  # a piece shorter than this share of its width is dust
MOST_INSIDE = 0.5  # share of a stroke that must lie in a ring


def changed(things: Iterable[Thing], change: Change) -> dict[str, Sequence[Thing]]:
    """What is left of each thing that changes."""
    found = {}
    for thing in things:
        left = None if thing.locked else thing.rubbed(change)
        if left is not None:
            found[thing.id] = left
    return found


def rub_edit(page: Page, left: Mapping[str, Sequence[Thing]], label: str) -> Edit:
    return Edit(label, page, page.exchange(left) if left else page, select=())


def wipe(page: Page, hue: str = "") -> Edit:
    """Removes all ink, or that of one hue, and nothing else."""
    return rub_edit(page, changed(page.things, of_hue(hue)), _("Wipe ink"))


def of_hue(hue: str = "") -> Change:
    return lambda ink: () if not hue or ink.hue == hue else None


def part(path: Sequence[Point], radius: float) -> Change:
    """Rubs out what lies within `radius` of a path on the page; strokes fall into pieces."""
    return lambda ink: _cut(ink, path, radius)


def whole(path: Sequence[Point], radius: float) -> Change:
    """Takes every stroke that the path touches."""
    return lambda ink: () if _removed(ink, path, radius) else None


def inside(ring: Sequence[Point]) -> Change:
    """Takes the strokes that lie in a ring by more than half."""

    def take(ink: Ink) -> Sequence[Thing] | None:
        import numpy as np

        flat = np.frombuffer(track(ink), dtype="<f4").reshape(-1, 4)[:, :2].astype(float)
        points = _on_page(ink, flat)
        within = np.count_nonzero(winds_round(np.asarray(ring, dtype=float), points))
        return () if len(points) and within > MOST_INSIDE * len(points) else None

    return take


def beside(left: float, right: float) -> Change:
    """Takes the strokes of which anything lies between two upright lines of the page."""

    def take(ink: Ink) -> Sequence[Thing] | None:
        box = ink.box()
        return () if box.x1 >= left and box.x0 <= right else None

    return take


def both(first: Change, second: Change) -> Change:
    """Takes whole strokes that both would take."""
    return lambda ink: () if first(ink) is not None and second(ink) is not None else None


def _on_page(ink: Ink, points: NDArray[Any]) -> NDArray[Any]:
    import numpy as np

    place = ink.placement
    x0, y0 = place.to_page(0, 0)
    ax, ay = place.to_page(1, 0)
    bx, by = place.to_page(0, 1)
    turn = np.array([[ax - x0, ay - y0], [bx - x0, by - y0]])
    moved: NDArray[Any] = points @ turn + (x0, y0)
    return moved


def winds_round(ring: NDArray[Any], points: NDArray[Any]) -> NDArray[Any]:
    """Which points lie inside a closed ring, by the even-odd rule; shapes (n, 2) and (m, 2) give (m,)."""
    import numpy as np

    inside = np.zeros(len(points), dtype=bool)
    x, y = points[:, 0], points[:, 1]
    for (ax, ay), (bx, by) in zip(ring, np.roll(ring, -1, axis=0), strict=True):
        crosses = (ay > y) != (by > y)
        if crosses.any():
            at = ax + (y - ay) / (by - ay if by != ay else 1.0) * (bx - ax)
            inside ^= crosses & (x < at)
    return inside


def _removed(ink: Ink, path: Sequence[Point], radius: float) -> list[tuple[float, float]]:
    """Stretches of the stroke within `radius` of the path, counted in samples from its start."""
    import numpy as np

    data = np.frombuffer(track(ink), dtype="<f4").reshape(-1, 4)[:, :2].astype(float)
    if not len(data):
        return []
    place = ink.placement
    local = [place.to_local(*point) for point in path]
    reach = radius / place.scale + ink.width * CLEAN
    box = ink.extent().grown(reach)
    if not any(box.meets(_around(a, b)) for a, b in zip(local, local[1:] or local, strict=False)):
        return []
    start, way = data[:-1], np.diff(data, axis=0)
    if len(data) == 1:
        start, way = data, np.zeros((1, 2))
    found: list[tuple[float, float]] = []
    for a, b in zip(local, local[1:] or local, strict=False):
        low, high = _within_capsule(start, way, np.array(a), np.array(b), reach)
        for i in np.flatnonzero(low <= high):
            found.append((float(i + low[i]), float(i + high[i])))
    return _merged(found)


def _around(a: Point, b: Point) -> Any:
    from larch.core.shape import box_of

    return box_of([a, b])


def _within_capsule(
    start: NDArray[Any], way: NDArray[Any], a: NDArray[Any], b: NDArray[Any], radius: float
) -> tuple[NDArray[Any], NDArray[Any]]:
    """For steps `start + t·way`, 0 ≤ t ≤ 1, the first and last t within `radius` of the segment ab; low > high for none.

    The region round a segment is convex, so each step meets it in one stretch: the union of those with the two
    end discs and the rectangle between them.
    """
    import numpy as np

    low, high = np.ones(len(start)), np.zeros(len(start))
    for centre in (a, b):
        _widen(low, high, *_within_disc(start - centre, way, radius))
    along = b - a
    length = float(np.hypot(*along))
    if length > 1e-12:
        unit = along / length
        normal = np.array([-unit[1], unit[0]])
        first = _within_slab((start - a) @ unit, way @ unit, 0.0, length)
        second = _within_slab((start - a) @ normal, way @ normal, -radius, radius)
        _widen(low, high, np.maximum(first[0], second[0]), np.minimum(first[1], second[1]))
    return low, high


def _widen(low: NDArray[Any], high: NDArray[Any], more_low: NDArray[Any], more_high: NDArray[Any]) -> None:
    import numpy as np

    more_low, more_high = np.clip(more_low, 0, 2), np.clip(more_high, -1, 1)
    some = more_low <= more_high
    none = low > high
    low[some] = np.where(none[some], more_low[some], np.minimum(low[some], more_low[some]))
    high[some] = np.where(none[some], more_high[some], np.maximum(high[some], more_high[some]))


def _within_disc(offset: NDArray[Any], way: NDArray[Any], radius: float) -> tuple[NDArray[Any], NDArray[Any]]:
    import numpy as np

    a = (way * way).sum(axis=1)
    b = (offset * way).sum(axis=1)
    c = (offset * offset).sum(axis=1) - radius * radius
    root = b * b - a * c
    still = a < 1e-18
    with np.errstate(all="ignore"):
        spread = np.sqrt(np.maximum(root, 0))
        low, high = (-b - spread) / a, (-b + spread) / a
    low, high = np.where(root < 0, 2.0, low), np.where(root < 0, -1.0, high)
    return np.where(still, np.where(c <= 0, 0.0, 2.0), low), np.where(still, np.where(c <= 0, 1.0, -1.0), high)


def _within_slab(at: NDArray[Any], way: NDArray[Any], low: float, high: float) -> tuple[NDArray[Any], NDArray[Any]]:
    import numpy as np

    still = np.abs(way) < 1e-15
    with np.errstate(all="ignore"):
        one, other = (low - at) / way, (high - at) / way
    held = (at >= low) & (at <= high)
    first = np.where(still, np.where(held, 0.0, 2.0), np.minimum(one, other))
    last = np.where(still, np.where(held, 1.0, -1.0), np.maximum(one, other))
    return first, last


def _merged(spans: list[tuple[float, float]]) -> list[tuple[float, float]]:
    merged: list[tuple[float, float]] = []
    for low, high in sorted(spans):
        if merged and low <= merged[-1][1] + 1e-6:
            merged[-1] = (merged[-1][0], max(merged[-1][1], high))
        else:
            merged.append((low, high))
    return merged


def _cut(ink: Ink, path: Sequence[Point], radius: float) -> Sequence[Thing] | None:
    gone = _removed(ink, path, radius)
    if not gone:
        return None
    samples = list(struct.iter_unpack("<4f", track(ink)))
    last = float(len(samples) - 1)
    kept: list[tuple[float, float]] = []
    start = 0.0
    for low, high in gone:
        kept.append((start, low))
        start = high
    kept.append((start, last))
    pieces = []
    for low, high in kept:
        points = _between(samples, low, high)
        if high > low and _extent(points) > DUST * ink.width:
            pieces.append(_piece(ink, points, low <= 0, high >= last))
    return pieces


def _between(samples: list[tuple[Any, ...]], low: float, high: float) -> bytes:
    """The samples from one place to another, with new ones made at both cuts."""
    first, final = int(low) + 1, int(-(-high // 1))
    middle = samples[first:final]
    return b"".join(struct.pack("<4f", *s) for s in (_at(samples, low), *middle, _at(samples, high)))


def _at(samples: list[tuple[Any, ...]], place: float) -> tuple[float, ...]:
    i = min(int(place), len(samples) - 1)
    j = min(i + 1, len(samples) - 1)
    t = place - i
    return tuple(a + (b - a) * t for a, b in zip(samples[i], samples[j], strict=True))


def _extent(points: bytes) -> float:
    values = memoryview(points).cast("f")
    xs, ys = values[0::4].tolist(), values[1::4].tolist()
    return max(max(xs) - min(xs), max(ys) - min(ys))


def _piece(ink: Ink, points: bytes, has_start: bool, has_end: bool) -> Ink:
    """A piece keeps the look of the whole, and an arrow's head where it still has that end."""
    ends = "both" if ink.ends == "both" and has_start and has_end else ""
    if not ends and has_end and ink.ends in ("end", "both"):
        ends = "end"
    elif not ends and has_start and ink.ends in ("start", "both"):
        ends = "start"
    form = ink.form if ink.form == "line" else "free"
    if form == "line":
        points = points[:STRIDE] + points[-STRIDE:]
    made: Ink = ink.replace(points=points, ends=ends, form=form)
    return made
