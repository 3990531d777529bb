"""Graphs as polylines in the coordinates of their axes, thinned out to what is seen; and which of them a pointer is near."""

from __future__ import annotations

import math
from functools import lru_cache
from typing import Any

from larch.board.views.graphs.swinging import bands, outside
from larch.core.base.memo import remember
from larch.core.base.shape import Placement
from larch.core.maths.expression import values
from larch.core.maths.graph import Curve, branches
from larch.core.maths.implicit import traced
from larch.core.maths.parametric import run_through, terms
from larch.core.model.page import Page
from larch.core.things.graphs.axes import BEYOND, LOG, Axes
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.graph_form import place_of

ORIGIN = Placement()
RATIOS = 600  # samples of a branch along a logarithmic axis
QUARTERS = 4
THIN = 8  # points looked at together when a curve is thinned out


def curve_polylines(axes: Axes, curve: Curve) -> list[Any]:
    """The branches in the axes' own coordinates, as arrays of shape (n, 2), which nobody changes."""
    return polylines(bare(axes), curve)


def curve_bands(axes: Axes, curve: Curve) -> list[Any]:
    """Where it swings too fast to be followed, see `bands`."""
    return bands(bare(axes), curve)


@remember
def bare(axes: Axes) -> Axes:
    """What of axes decides how a graph runs on them."""
    looks = {"id": "", "name": "", "hue": "needle", "placement": ORIGIN, "x_name": "", "y_name": ""}
    marks = {name: kind if (kind := getattr(axes, name)) == LOG else "" for name in ("x_marks", "y_marks")}
    kept: Axes = axes.replace(**looks, **marks, grid=True, rings=False, equal=False)
    return kept


@lru_cache(64)
def polylines(axes: Axes, curve: Curve) -> list[Any]:
    """Remembered: while one curve is moved the others on its axes stay as they are."""
    if curve.along == "xy":
        return [on_axes(axes, line[:, 0], line[:, 1]) for line in traced(curve.formula, window_of(axes))]
    if curve.along == "field":
        return []
    if curve.along in ("t", "polar"):
        return [on_axes(axes, line[:, 0], line[:, 1]) for line in run_through(curve)]
    if curve.along in ("n", "rule"):
        members = terms(curve, axes.x_min, axes.x_max)
        return [on_axes(axes, members[k : k + 1, 0], members[k : k + 1, 1]) for k in range(len(members))]
    upright = curve.along == "y"
    low, high = (axes.y_min, axes.y_max) if upright else (axes.x_min, axes.x_max)
    found = []
    log = (axes.y_marks if upright else axes.x_marks) == LOG  # else a little more is worked out than is seen
    reach = (low, high) if log else _beyond(low, high)
    for branch in branches_round(curve, *reach):
        branch = _by_ratios(curve, branch) if log else branch
        x, y = (branch[:, 1], branch[:, 0]) if upright else (branch[:, 0], branch[:, 1])
        found.append(on_axes(axes, x, y))
    return outside(found, bands(axes, curve), not upright)


def _beyond(low: float, high: float) -> tuple[float, float]:
    """A stretch to the next quarters outside a window: it stays the same while axes are pushed about within it."""
    step = float(f"{(high - low) / QUARTERS:.9g}")
    return math.floor(low / step) * step, math.ceil(high / step) * step


@lru_cache(64)
def branches_round(curve: Curve, low: float, high: float) -> list[Any]:
    """Remembered, since it does not depend on where just the window is."""
    return branches(curve.formula, low, high, curve.along)


@lru_cache(64)
def runs(axes: Axes, curve: Curve) -> list[Any]:
    """What of the branches is to be seen on bare axes, thinned out."""
    return [thinned(run) for line in polylines(axes, curve) for run in visible_runs(line, axes)]


def window_of(axes: Axes) -> tuple[float, float, float, float]:
    return (axes.x_min, axes.x_max, axes.y_min, axes.y_max)


def _by_ratios(curve: Curve, branch: Any) -> Any:
    """A branch sampled evenly along a logarithmic axis."""
    import numpy as np

    at = np.geomspace(max(branch[0, 0], 1e-300), branch[-1, 0], RATIOS)
    at[0], at[-1] = branch[0, 0], branch[-1, 0]
    with np.errstate(all="ignore"):
        made = np.column_stack([at, values(curve.formula, **{curve.along: at})])
    return made[np.isfinite(made[:, 1])]


def _along(at: Any, low: float, high: float, log: bool) -> Any:
    """How far along an axis numbers lie, 0 to 1 within its range."""
    import numpy as np

    if not log:
        return (at - low) / (high - low)
    with np.errstate(all="ignore"):
        share = np.log10(at / low) / np.log10(high / low)
    return np.where(np.isfinite(share), share, -BEYOND)


def on_axes(axes: Axes, x: Any, y: Any) -> Any:
    import numpy as np

    across = _along(x, axes.x_min, axes.x_max, axes.x_marks == LOG) * axes.width
    down = (1.0 - _along(y, axes.y_min, axes.y_max, axes.y_marks == LOG)) * axes.height
    # Far outside the window a line only needs its direction; Qt's rasteriser overflows on huge numbers.
    far = 20 * (axes.width + axes.height)
    return np.column_stack([np.clip(across, -far, far), np.clip(down, -far, far)])


def end_near(axes: Axes, page: Page, at: tuple[float, float], reach: float) -> tuple[str, int] | None:
    """The shaded area of which an upright edge runs near to a place, and which of its two."""
    for area in axes.areas(page):
        if area.locked:
            continue
        parts = [*area.shaded(page), *(line for line, dashed in area.lines_on(page) if not dashed)]
        corners = [point for part in parts for point in part]
        for which, x in enumerate(area.ends()):
            heights = [axes.to_local(x, y)[1] for a, y in corners if abs(a - x) < 1e-9] or [axes.origin()[1]]
            along = axes.to_local(x, 0)[0]
            if abs(along - at[0]) <= reach and min(heights) - reach <= at[1] <= max(heights) + reach:
                return area.id, which
    return None


def curve_near(axes: Axes, page: Page, at: tuple[float, float], slack: float) -> Equation | None:
    """The equation whose graph runs nearest to a place of the axes' own coordinates, within a distance."""
    import numpy as np

    best: tuple[float, Equation] | None = None
    for equation in axes.curves(page):
        curve = equation.curve()
        if curve is None:
            continue
        lines = [np.array([axes.to_local(*place_of(curve))])] if curve.along == "point" else curve_polylines(axes, curve)
        for line in lines:
            near = float(_distance(line, np.array(at)))
            if near <= slack and (best is None or near < best[0]):
                best = (near, equation)
    return best[1] if best is not None else None


def _distance(line: Any, at: Any) -> Any:
    """From a place to a polyline of shape (n, 2)."""
    import numpy as np

    if len(line) < 2:
        return np.hypot(*(line[0] - at))
    start, along = line[:-1], np.diff(line, axis=0)
    length = np.maximum((along**2).sum(axis=1), 1e-12)
    share = np.clip(((at - start) * along).sum(axis=1) / length, 0, 1)
    return np.hypot(*(start + share[:, None] * along - at).T).min()


def dot_near(axes: Axes, page: Page, at: tuple[float, float], reach: float) -> tuple[str, int] | None:
    """The table and row whose point lies nearest to a place, within a distance."""
    near = [(math.dist(axes.to_local(x, y), at), table.id, row) for table in axes.tables(page) if not table.locked
            for row, x, y in table.points_on(page)]  # fmt: skip
    best = min(near, default=None)
    return (best[1], best[2]) if best is not None and best[0] <= reach else None


def visible_runs(line: Any, axes: Axes) -> list[Any]:
    """The parts of a branch near the window; what lies wholly above, below or beside it is not worth drawing."""
    import numpy as np

    x, y = line[:, 0], line[:, 1]
    out = (y < 0) * 1 + (y > axes.height) * 2 + (x < 0) * 4 + (x > axes.width) * 8
    drawn = (out[:-1] & out[1:]) == 0
    edges = np.flatnonzero(np.diff(np.concatenate([[0], drawn.astype(np.int8), [0]])))
    return [line[start : stop + 1] for start, stop in edges.reshape(-1, 2)]


def thinned(run: Any) -> Any:
    """Leaves out points where every one of them lies within a twentieth of a unit of the line without them."""
    import numpy as np

    whole = (len(run) - 1) // THIN
    if whole < 2:
        return run
    blocks = np.stack([run[k : (whole - 1) * THIN + k + 1 : THIN] for k in range(THIN + 1)])
    start, end = blocks[0], blocks[-1]
    along = end - start
    length = np.hypot(along[:, 0], along[:, 1]) + 1e-12
    off = np.abs(along[:, 0] * (blocks[:, :, 1] - start[:, 1]) - along[:, 1] * (blocks[:, :, 0] - start[:, 0])) / length
    keep = np.ones(len(run), dtype=bool)
    straight = np.flatnonzero(off.max(axis=0) < 0.05)
    for k in range(1, THIN):
        keep[straight * THIN + k] = False
    return run[keep]
