"""The graph of an equation on its axes, as a form that can be met and constructed on."""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache

from larch.core.base.shape import Point
from larch.core.base.words import N_
from larch.core.maths.expression import Undefined, value_at, values
from larch.core.maths.expression.tree import Call
from larch.core.maths.graph import Curve, branches
from larch.core.maths.plane.forms import Graph, NotThere
from larch.core.things.graphs.plane import OUTSIDE, Plane, window_of
from larch.core.things.graphs.run_form import run_form


def graph_on(curve: Curve, axes: Plane) -> Graph:
    """Raises NotThere if no part of the graph lies on the axes."""
    marks = {} if axes.has_log() else {"x_marks": "", "y_marks": ""}
    bare = axes.replace(id="", name="", hue="needle", grid=True, x_name="x", y_name="y", equal=False, rings=False, **marks)
    found = _graph(curve, bare)
    if not found.points:
        raise NotThere(N_("The graph is not to be seen on these axes."))
    return found


def place_of(curve: Curve) -> Point:
    """The coordinates of a curve that is a point. Raises NotThere where they have no value."""
    assert isinstance(curve.formula, Call)
    try:
        x, y = (float(value_at(argument)) for argument in curve.formula.arguments)
    except (Undefined, OverflowError):
        raise NotThere(OUTSIDE) from None
    return x, y


@lru_cache(64)
def _graph(curve: Curve, axes: Plane) -> Graph:
    """Dragging moves the same few graphs again and again, so they are kept."""
    if curve.along == "xy":
        return _implicit(curve, axes)
    if curve.along in ("t", "polar"):
        return run_form(curve, axes)
    if curve.along not in ("x", "y"):
        raise NotThere(N_("Nothing is constructed on a curve of this kind."))
    upright = curve.along == "x"
    low, high = (axes.x_min, axes.x_max) if upright else (axes.y_min, axes.y_max)
    bottom, top = (axes.y_min, axes.y_max) if upright else (axes.x_min, axes.x_max)
    slack = 1e-9 * max(top - bottom, high - low)

    def page_at(t: float, height: float) -> Point:
        return axes.page_of((t, height) if upright else (height, t))

    def place(t: float) -> Point:
        try:
            height = value_at(curve.formula, **{curve.along: t})
        except Undefined:
            raise NotThere(OUTSIDE) from None
        if not (low - slack <= t <= high + slack and math.isfinite(height)):
            raise NotThere(OUTSIDE)
        return page_at(t, float(height))

    def offs(points: Sequence[Point]) -> list[float]:
        """Heights above the graph, in page units; not a number where the function has no value."""
        import numpy as np

        plane = np.array([axes.to_plane(*axes.placement.to_local(*point)) for point in points])
        along, height = (plane[:, 0], plane[:, 1]) if upright else (plane[:, 1], plane[:, 0])
        scale = axes.units()[1 if upright else 0] * abs(axes.placement.scale)
        found: list[float] = ((height - values(curve.formula, **{curve.along: along})) * scale).tolist()
        return found

    ts: list[tuple[float, ...]] = []
    runs: list[tuple[Point, ...]] = []
    for branch in branches(curve.formula, low, high, curve.along):
        for run in _within(branch.tolist(), bottom, top):
            ts.append(tuple(t for t, _height in run))
            runs.append(tuple(page_at(t, height) for t, height in run))
    return Graph(tuple(ts), tuple(runs), place, offs, window_of(axes, slack), curve.along)


def _implicit(curve: Curve, axes: Plane) -> Graph:
    """A curve that is not solved for a letter: the parameter counts its corners, and between them it is the nearest place
    on the curve itself."""
    import numpy as np

    from larch.core.maths.implicit import gradient, nearer, traced

    window = (axes.x_min, axes.x_max, axes.y_min, axes.y_max)
    lines = traced(curve.formula, window)
    starts = np.concatenate([[0], np.cumsum([len(line) for line in lines])]) if lines else np.zeros(1)
    slack = 1e-9 * max(window[1] - window[0], window[3] - window[2])
    units = [unit * abs(axes.placement.scale) for unit in axes.units()]

    def place(t: float) -> Point:
        which = int(np.searchsorted(starts, t, side="right")) - 1
        if not 0 <= which < len(lines) or t > starts[which + 1] - 1:
            raise NotThere(OUTSIDE)
        line = lines[which]
        share, k = t - math.floor(t), int(math.floor(t) - starts[which])
        if not share:
            return axes.page_of((float(line[k, 0]), float(line[k, 1])))
        between = line[k] * (1 - share) + line[k + 1] * share
        x, y = nearer(curve.formula, between[None, :], window)[0]
        return axes.page_of((float(x), float(y)))

    def offs(points: Sequence[Point]) -> list[float]:
        """How far from the curve, about, in page units, with the sign of the formula."""
        plane = np.array([axes.to_plane(*axes.placement.to_local(*point)) for point in points])
        x, y = plane[:, 0], plane[:, 1]
        across, down = gradient(curve.formula, x, y, window)
        size = np.hypot(across / units[0], down / units[1])
        with np.errstate(all="ignore"):
            found: list[float] = (values(curve.formula, x=x, y=y) / np.where(size > 0, size, np.nan)).tolist()
        return found

    ts = tuple(tuple(float(starts[k] + i) for i in range(len(line))) for k, line in enumerate(lines))
    points = tuple(tuple(axes.page_of((float(x), float(y))) for x, y in line) for line in lines)
    return Graph(ts, points, place, offs, window_of(axes, slack))


def _within(branch: list[list[float]], bottom: float, top: float) -> list[list[tuple[float, float]]]:
    """The stretches of a branch that lie in the window, each with one sample beyond its edges."""
    inside = [bottom <= height <= top for _t, height in branch]
    runs: list[list[tuple[float, float]]] = []
    last = -2
    for k, (t, height) in enumerate(branch):
        near = inside[k] or (k > 0 and inside[k - 1]) or (k + 1 < len(branch) and inside[k + 1])
        crosses = k > 0 and not inside[k] and not inside[k - 1] and (branch[k - 1][1] < bottom) != (height < bottom)
        if crosses:  # so steep that no sample lies between
            runs.append([(branch[k - 1][0], branch[k - 1][1]), (t, height)])
        if near:
            if last != k - 1 or not runs:
                runs.append([])
            runs[-1].append((t, height))
            last = k
    return [run for run in runs if len(run) > 1]
