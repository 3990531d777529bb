"""Rubbing out and wiping: what is left of ink. Nothing but ink is ever touched, and none that is locked."""

from __future__ import annotations

import math
import struct
from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import TYPE_CHECKING, Any

from larch.core.base.shape import Point, box_of
from larch.core.base.words import _
from larch.core.model.capabilities import HasInk
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.ink.ink import STRIDE, Ink, steps, track

if TYPE_CHECKING:
    from numpy.typing import NDArray

Step = tuple[float, float, float, float]  # where it starts and how far it goes: x, y, dx, dy
Change = Callable[[Ink], Sequence[Thing] | None]
CLEAN = 0.4  # share of a line's width by which the rubber reaches further, so that its round end goes too
DUST = 0.4  # a piece shorter than this share of its width is dust
MOST_INSIDE = 0.5  # share of a stroke that must lie in a ring


def changed(things: Iterable[Thing], change: Change) -> dict[str, Sequence[Thing]]:
    """What is left of each thing that changes."""
    found = {}
    for thing in things:
        left = thing.rubbed(change) if isinstance(thing, HasInk) and not thing.locked else None
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

    place = ink.placement
    local = [place.to_local(*point) for point in path]
    reach = radius / place.scale + ink.width * CLEAN
    if not ink.points or not ink.extent().meets(box_of(local).grown(reach)):
        return []
    start, way, lower, upper = steps(ink)
    found: list[tuple[float, float]] = []
    for a, b in zip(local, local[1:] or local, strict=False):
        x0, x1 = min(a[0], b[0]) - reach, max(a[0], b[0]) + reach
        y0, y1 = min(a[1], b[1]) - reach, max(a[1], b[1]) + reach
        near = (upper[:, 0] >= x0) & (lower[:, 0] <= x1) & (upper[:, 1] >= y0) & (lower[:, 1] <= y1)
        for i in np.flatnonzero(near).tolist():
            span = _within_capsule((*start[i].tolist(), *way[i].tolist()), a, b, reach)
            if span is not None:
                found.append((i + span[0], i + span[1]))
    return _merged(found)


def _within_capsule(step: Step, a: Point, b: Point, radius: float) -> tuple[float, float] | None:
    """The first and last t, 0 ≤ t ≤ 1, at which a step (x + t·dx, y + t·dy) is within `radius` of the segment ab.

    The region round a segment is convex, so the step meets it in one stretch: the union of those with the two
    end discs and the rectangle between them. Plain numbers: a rubber meets only a few steps at a time, and for those
    an array costs more than the arithmetic.
    """
    x, y, dx, dy = step
    low, high = 2.0, -1.0
    for cx, cy in (a, b):
        span = _within_disc(x - cx, y - cy, dx, dy, radius)
        if span is not None:
            low, high = min(low, span[0]), max(high, span[1])
    along_x, along_y = b[0] - a[0], b[1] - a[1]
    length = math.hypot(along_x, along_y)
    if length > 1e-12:
        ux, uy = along_x / length, along_y / length
        px, py = x - a[0], y - a[1]
        first = _within_slab(px * ux + py * uy, dx * ux + dy * uy, 0.0, length)
        second = _within_slab(py * ux - px * uy, dy * ux - dx * uy, -radius, radius)
        inner_low, inner_high = max(first[0], second[0]), min(first[1], second[1])
        if inner_low <= inner_high:
            low, high = min(low, inner_low), max(high, inner_high)
    low, high = max(0.0, low), min(1.0, high)
    return (low, high) if low <= high else None


def _within_disc(x: float, y: float, dx: float, dy: float, radius: float) -> tuple[float, float] | None:
    a = dx * dx + dy * dy
    b = x * dx + y * dy
    c = x * x + y * y - radius * radius
    if a < 1e-18:
        return (0.0, 1.0) if c <= 0 else None
    root = b * b - a * c
    if root < 0:
        return None
    spread = math.sqrt(root)
    return ((-b - spread) / a, (-b + spread) / a)


def _within_slab(at: float, way: float, low: float, high: float) -> tuple[float, float]:
    if abs(way) < 1e-15:
        return (0.0, 1.0) if low <= at <= high else (2.0, -1.0)
    one, other = (low - at) / way, (high - at) / way
    return (one, other) if one < other else (other, one)


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
