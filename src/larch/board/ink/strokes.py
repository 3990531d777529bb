"""Lines of varying width as filled polygons: smoothed, dashed, grained like crayon, headed like arrows."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Any, NamedTuple

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QPolygonF

if TYPE_CHECKING:
    from numpy.typing import NDArray

PIECE = 32  # outlines are filled in pieces: the cost of one grows faster than its length
OVERLAP = 2
STEPS = 4  # points on each smoothing curve
FINEST = 1.2  # page units between the points of a smoothing curve, where a stroke was drawn fast
MOST_STEPS = 16
ENDLESS = 8000  # samples; a stroke that has more is fine enough as it is
SHARP = 0.4  # cosine of the turn beyond which a corner gets a round of its own
DASH, DASH_GAP = 4.0, 3.0  # widths of the line
DOT_GAP = 2.2
BRISTLES = 9
GRAIN = 0.85  # length of a grain of crayon, in widths of the line
SPREAD = 25.0  # degrees between the shaft of an arrow and each side of its head

Round = tuple[QPointF, float]


class Track(NamedTuple):
    """A centre line, shape (n, 2), and its half width along it, shape (n,)."""

    along: NDArray[Any]
    radius: NDArray[Any]


def ribbon(along: NDArray[Any], radius: NDArray[Any]) -> tuple[list[QPolygonF], list[Round]]:
    """A line of varying half width as polygons, and rounds for its sharp corners. Far faster than a thick pen."""
    import numpy as np

    steps = along[1:] - along[:-1]
    length = np.sqrt((steps * steps).sum(axis=1))
    if not (length > 1e-9).all():
        keep = np.append(True, length > 1e-9)
        along, radius = along[keep], radius[keep]
        if len(along) < 2:
            return [], []
        steps, length = along[1:] - along[:-1], length[keep[1:]]
    normal = normals(along) * radius[:, None]
    both = np.concatenate([along + normal, (along - normal)[::-1]])
    last = len(both)
    polygons = []
    for start in range(0, len(along) - 1, PIECE):
        stop = min(len(along), start + PIECE + OVERLAP)
        polygons.append(polygon_of(np.concatenate([both[start:stop], both[last - stop : last - start]])))
    return polygons, _corner_rounds(along, radius, steps, length)


def normals(along: NDArray[Any]) -> NDArray[Any]:
    """Unit vectors square to a line at each of its points."""
    import numpy as np

    way = np.empty_like(along)
    way[1:-1] = along[2:] - along[:-2]
    way[0], way[-1] = along[1] - along[0], along[-1] - along[-2]
    size = np.sqrt((way * way).sum(axis=1))
    size[size == 0] = 1
    square = np.empty_like(way)
    square[:, 0], square[:, 1] = -way[:, 1] / size, way[:, 0] / size
    return square


def smoothed(points: NDArray[Any], half: NDArray[Any]) -> Track:
    """Quadratic curves from the middle of each step to the middle of the next, as the live stroke is drawn."""
    import numpy as np

    if len(points) < 3:
        return Track(points, half)
    values = np.empty((len(points), 3))
    values[:, :2], values[:, 2] = points, half
    middles = (values[:-1] + values[1:]) / 2
    longest = float(np.abs(points[1:] - points[:-1]).max())
    steps = int(min(MOST_STEPS, max(STEPS, longest / FINEST / 4))) if len(points) < 2000 else STEPS
    if len(points) > ENDLESS:
        return Track(points, half)
    t = (np.arange(steps) / steps)[None, :, None]
    a, b, c = middles[:-1, None, :], values[1:-1, None, :], middles[1:, None, :]
    curve = ((1 - t) ** 2 * a + 2 * t * (1 - t) * b + t * t * c).reshape(-1, 3)
    whole = np.concatenate([values[:1], curve, middles[-1:], values[-1:]])
    return Track(whole[:, :2], whole[:, 2])


def _corner_rounds(along: NDArray[Any], radius: NDArray[Any], steps: NDArray[Any], size: NDArray[Any]) -> list[Round]:
    sharp = (steps[:-1] * steps[1:]).sum(axis=1) < SHARP * size[:-1] * size[1:]
    if not sharp.any():
        return []
    return [(QPointF(*along[i + 1]), float(radius[i + 1])) for i in sharp.nonzero()[0].tolist()]


def distances(along: NDArray[Any]) -> NDArray[Any]:
    """How far along the line each of its points is."""
    import numpy as np

    steps = np.diff(along, axis=0)
    return np.append(0.0, np.cumsum(np.hypot(steps[:, 0], steps[:, 1])))


def stretch(track: Track, at: NDArray[Any], low: float, high: float) -> Track:
    """The part of a line between two distances from its start; `at` are the distances of its points."""
    import numpy as np

    inner = (at > low) & (at < high)
    where = np.concatenate([[low], at[inner], [high]])
    along = np.column_stack([np.interp(where, at, track.along[:, k]) for k in (0, 1)])
    return Track(along, np.interp(where, at, track.radius))


def dash_spans(dash: str, width: float, length: float) -> list[tuple[float, float]]:
    """Where a dashed line is drawn, as distances from its start; a whole number of dashes, ending with one."""
    on, off = (DASH * width, DASH_GAP * width) if dash == "dash" else (0.01 * width, DOT_GAP * width)
    count = max(1, round((length + off) / (on + off)))
    if count > 5000:
        return [(0.0, length)]
    stretched = (length - count * on) / (count - 1) if count > 1 else 0.0
    return [(k * (on + stretched), min(length, k * (on + stretched) + on)) for k in range(count)]


def dashed(track: Track, dash: str, width: float) -> list[Track]:
    if dash not in ("dash", "dots") or len(track.along) < 2:
        return [track]
    at = distances(track.along)
    return [stretch(track, at, low, high) for low, high in dash_spans(dash, width, float(at[-1]))]


def scatter(bristle: int, cell: int) -> float:
    """A number from 0 to 1 that looks like chance and is always the same for the same place of a stroke."""
    mixed = (bristle * 73856093 ^ cell * 19349663) & 0xFFFFFFFF
    mixed = (mixed ^ mixed >> 13) * 0x5BD1E995 & 0xFFFFFFFF
    return (mixed ^ mixed >> 15) % 4096 / 4096


def bristle_at(bristle: int) -> tuple[float, float]:
    """Where a bristle lies across the line, from -1 to 1, and how seldom it leaves a grain out."""
    across = (bristle + 0.5) / BRISTLES * 2 - 1
    return across * 0.92, 0.93 - 0.5 * abs(across) ** 3


def grained(track: Track, width: float) -> list[Track]:
    """Crayon: bristles side by side, each leaving grains out, more of them towards the edge."""
    at = distances(track.along)
    length, cell = float(at[-1]), max(1.0, GRAIN * width)
    cells = int(length / cell) + 1
    if cells > 3000:
        return [track]
    side = normals(track.along) * track.radius[:, None]
    made = []
    for bristle in range(BRISTLES):
        across, share = bristle_at(bristle)
        shifted = Track(track.along + side * across, track.radius * (1.35 / BRISTLES))
        start = None
        for k in range(cells + 1):
            on = k < cells and scatter(bristle, k) < share
            if on and start is None:
                start = k
            elif not on and start is not None:
                begin = start * cell + scatter(bristle + 40, start) * cell * 0.4
                made.append(stretch(shifted, at, min(begin, length), min(length, k * cell)))
                start = None
    return made


def head(track: Track, size: float, at_start: bool) -> tuple[list[QPolygonF], list[Round]]:
    """The head of an arrow as two sides that meet at the tip."""
    import numpy as np

    along, radius = (track.along[::-1], track.radius[::-1]) if at_start else (track.along, track.radius)
    at = distances(along)
    length = float(at[-1])
    if length <= 0:
        return [], []
    behind = [float(np.interp(max(0.0, length - size * 0.8), at, along[:, k])) for k in (0, 1)]
    tip = along[-1]
    way = math.atan2(behind[1] - tip[1], behind[0] - tip[0])
    half = float(radius[-1])
    polygons: list[QPolygonF] = []
    rounds: list[Round] = [(QPointF(*tip), half)]
    for turn in (SPREAD, -SPREAD):
        angle = way + math.radians(turn)
        end = np.array([tip[0] + size * math.cos(angle), tip[1] + size * math.sin(angle)])
        polygons += ribbon(np.array([tip, end]), np.array([half, half]))[0]
        rounds.append((QPointF(*end), half))
    return polygons, rounds


def polygon_of(points: NDArray[Any]) -> QPolygonF:
    """An array of shape (n, 2) as a QPolygonF, without a Python loop."""
    import numpy as np

    polygon = QPolygonF()
    polygon.resize(len(points))
    buffer = polygon.data()
    assert buffer is not None
    buffer.setsize(len(points) * 16)
    np.frombuffer(buffer, dtype=np.float64).reshape(-1, 2)[:] = points  # type: ignore[call-overload]
    return polygon
