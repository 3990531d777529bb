"""The branches of a graph as points, never across a pole or a jump, ends of domains exact."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import Any

from larch.core.maths.expression.precise import as_float
from larch.core.maths.expression.tree import Node
from larch.core.maths.plot.breaks import quick
from larch.core.maths.plot.features import Break, Features

POINTS = 480  # over the whole stretch
CLOSER = 14  # points more towards a break, each twice as near
FINEST = 3
Points = list[tuple[float, float]]


def branches(node: Node, name: str, low: float, high: float, found: Features) -> list[Points]:
    """Unbroken stretches of the graph, each from left to right."""
    apart = [one for one in found.breaks if one.kind != "bend"]
    edges: list[Break | None] = [None, *(one for one in apart if low < one.x < high), None]
    places = [low, *(float(one.x) for one in apart if low < one.x < high), high]
    special = [float(x) for x in (*found.roots, *(x for x, _kind in found.extrema), *(x for x, _y in found.inflections))]
    special += [float(one.x) for one in found.breaks if one.kind == "bend"]
    at = quick(node, name)
    made = []
    for (a, b), (before, after) in zip(pairwise(places), pairwise(edges), strict=True):
        made += _stretch(at, a, b, before, after, special, (high - low) / POINTS)
    return [branch for branch in made if len(branch) > 1]


def _stretch(
    at: Any, a: float, b: float, before: Break | None, after: Break | None, special: Sequence[float], step: float
) -> list[Points]:
    xs = {a + (b - a) * k / max(8, math.ceil((b - a) / step)) for k in range(1, max(8, math.ceil((b - a) / step)))}
    xs |= {x for x in special if a < x < b}
    wide = b - a
    for k in range(1, CLOSER + 20):
        near = wide * 0.02 * 0.5**k
        if before is not None:
            xs.add(a + near)
        if after is not None:
            xs.add(b - near)
    ends = [_end(at, a, before, True), _end(at, b, after, False)]
    points: list[Points] = [[]]
    for x in sorted(xs):
        y = at(x)
        if y is None:
            points.append([])
        else:
            points[-1].append((x, y))
    if ends[0] is not None and points[0]:
        points[0].insert(0, ends[0])
    if ends[1] is not None and points[-1]:
        points[-1].append(ends[1])
    return [_refined(at, branch) for branch in points if branch]


def _end(at: Any, x: float, one: Break | None, left: bool) -> tuple[float, float] | None:
    """The point at an end, where the graph goes up to it."""
    if one is None:
        y = at(x)
        return None if y is None else (x, y)
    side = one.right if left else one.left
    if side.kind == "finite":
        return (x, float(side.limit))
    if one.kind == "end" and one.value is not None:
        return (x, as_float(one.value))
    return None


def _refined(at: Any, branch: Points) -> Points:
    """With points between where the graph turns sharply."""
    for _round in range(FINEST):
        height = max(y for _x, y in branch) - min(y for _x, y in branch)
        made: Points = [branch[0]]
        for k in range(1, len(branch)):
            (x0, y0), (x1, y1) = branch[k - 1], branch[k]
            if len(branch) + len(made) < 6000 and abs(y1 - y0) > 0.02 * height and x1 - x0 > 1e-12:
                middle = (x0 + x1) / 2
                y = at(middle)
                if y is not None:
                    made.append((middle, y))
            made.append((x1, y1))
        if len(made) == len(branch):
            break
        branch = made
    return branch
