"""The way of a connector from one box to another, round what lies between."""

from __future__ import annotations

import heapq
import math
from collections.abc import Sequence
from itertools import pairwise

from larch.core.base.shape import Box, Point

CLEAR = 18.0  # page units kept from what is gone round
MOST_AROUND = 8  # obstacles whose corners are looked at
BEND = 24.0  # what a bend costs, as so much length
NEAR = 1e-6


def straight(a: Point, b: Point, obstacles: Sequence[Box]) -> list[Point]:
    """The shortest way that keeps clear of all obstacles; the straight one where there is none that does.

    A* on the visibility graph of the obstacles' corners; only obstacles that lie in the way are looked at, and
    those that the way round them meets.
    """
    around: list[Box] = []
    path = [a, b]
    for _round in range(3):
        met = [box for box in obstacles if box not in around and any(crosses(p, q, box) for p, q in pairwise(path))]
        if not met or len(around) + len(met) > MOST_AROUND:
            return path
        around += met
        found = _shortest(a, b, around)
        if found is None:
            return path
        path = found
    return path


def _shortest(a: Point, b: Point, around: Sequence[Box]) -> list[Point] | None:
    grown = [box.grown(CLEAR) for box in around]
    corners = [corner for box in grown for corner in box.corners()]
    nodes = [a, b, *(c for c in corners if not any(_deep(c, box) for box in grown))]
    inner = [box.grown(CLEAR - 1.0) for box in around]
    best: dict[int, float] = {0: 0.0}
    before: dict[int, int] = {}
    done: set[int] = set()
    waiting = [(math.dist(a, b), 0)]
    while waiting:
        _guess, here = heapq.heappop(waiting)
        if here == 1:
            path = [b]
            while here:
                here = before[here]
                path.append(nodes[here])
            return path[::-1]
        if here in done:
            continue
        done.add(here)
        at = nodes[here]
        for there, node in enumerate(nodes):
            if there in done:
                continue
            more = best[here] + math.dist(at, node) + BEND
            if more < best.get(there, math.inf) and not any(crosses(at, node, box) for box in inner):
                best[there] = more
                before[there] = here
                heapq.heappush(waiting, (more + math.dist(node, b), there))
    return None


def _deep(p: Point, box: Box) -> bool:
    return box.x0 + NEAR < p[0] < box.x1 - NEAR and box.y0 + NEAR < p[1] < box.y1 - NEAR


def crosses(a: Point, b: Point, box: Box) -> bool:
    """Whether a segment passes through the inside of a box (Liang and Barsky's clipping)."""
    if (
        (a[0] <= box.x0 and b[0] <= box.x0) or (a[0] >= box.x1 and b[0] >= box.x1)
        or (a[1] <= box.y0 and b[1] <= box.y0) or (a[1] >= box.y1 and b[1] >= box.y1)
    ):  # fmt: skip
        return False  # most are told by this alone
    low, high = 0.0, 1.0
    dx, dy = b[0] - a[0], b[1] - a[1]
    for p, q in ((-dx, a[0] - box.x0), (dx, box.x1 - a[0]), (-dy, a[1] - box.y0), (dy, box.y1 - a[1])):
        if p == 0:
            if q <= 0:
                return False
            continue
        t = q / p
        if p < 0:
            low = max(low, t)
        else:
            high = min(high, t)
        if low >= high:
            return False
    return high - low > 1e-9


def squared(a: Box, b: Box, obstacles: Sequence[Box]) -> list[Point]:
    """A way of level and upright pieces, from the middle of a side to the middle of a side: the first of the simple ways
    that meets nothing, or else the straight one round what is in the way."""
    for path in _simple(a, b):
        own = (a.grown(-1.0), b.grown(-1.0))
        if not any(crosses(p, q, box) for p, q in pairwise(path) for box in (*own, *obstacles)):
            return path
    return straight(a.centre, b.centre, obstacles)


def _simple(a: Box, b: Box) -> list[list[Point]]:
    (ax, ay), (bx, by) = a.centre, b.centre
    right, down = bx >= ax, by >= ay
    ends_a = {"x": (a.x1 if right else a.x0, ay), "y": (ax, a.y1 if down else a.y0)}
    ends_b = {"x": (b.x0 if right else b.x1, by), "y": (bx, b.y0 if down else b.y1)}
    gap_x = (b.x0 - a.x1) if right else (a.x0 - b.x1)
    gap_y = (b.y0 - a.y1) if down else (a.y0 - b.y1)
    ways: list[list[Point]] = []
    low, high = max(a.x0, b.x0), min(a.x1, b.x1)
    if high - low > 2 * CLEAR and gap_y > 0:  # one above the other: straight down
        x = ax if low + CLEAR <= ax <= high - CLEAR else (low + high) / 2
        ways.append([(x, ends_a["y"][1]), (x, ends_b["y"][1])])
    low, high = max(a.y0, b.y0), min(a.y1, b.y1)
    if high - low > 2 * CLEAR and gap_x > 0:
        y = ay if low + CLEAR <= ay <= high - CLEAR else (low + high) / 2
        ways.append([(ends_a["x"][0], y), (ends_b["x"][0], y)])
    if not down and gap_x > 0 and gap_y > 0:  # back up: round one corner
        ways.append([ends_a["y"], (ax, by), ends_b["x"]])
    middle_x, middle_y = (ends_a["x"][0] + ends_b["x"][0]) / 2, (ends_a["y"][1] + ends_b["y"][1]) / 2
    across = [ends_a["x"], (middle_x, ay), (middle_x, by), ends_b["x"]]
    upright = [ends_a["y"], (ax, middle_y), (bx, middle_y), ends_b["y"]]
    ways += [across, upright] if gap_x >= gap_y else [upright, across]
    ways += [[ends_a["x"], (bx, ay), ends_b["y"]], [ends_a["y"], (ax, by), ends_b["x"]]]
    level = min(a.y0, b.y0) - 2 * CLEAR
    below = max(a.y1, b.y1) + 2 * CLEAR
    ways += [[(ax, a.y0), (ax, level), (bx, level), (bx, b.y0)], [(ax, a.y1), (ax, below), (bx, below), (bx, b.y1)]]
    return [_without_doubles(way) for way in ways]


def _without_doubles(path: list[Point]) -> list[Point]:
    """Without points that follow on themselves or lie on the way."""
    kept = [path[0]]
    for k in range(1, len(path)):
        if math.dist(path[k], kept[-1]) > NEAR:
            kept.append(path[k])
    clean = [kept[0]]
    for before, here, after in zip(kept, kept[1:], kept[2:], strict=False):
        turn = (here[0] - before[0]) * (after[1] - here[1]) - (here[1] - before[1]) * (after[0] - here[0])
        if abs(turn) > NEAR:
            clean.append(here)
    return [*clean, kept[-1]] if len(kept) > 1 else kept


def leaves(box: Box, towards: Point, sort: str = "box") -> Point:
    """Where the way from the middle of a box to a place leaves it. sort: "box", "oval" or "diamond"."""
    cx, cy = box.centre
    dx, dy = towards[0] - cx, towards[1] - cy
    if dx == 0 and dy == 0:
        return (cx, cy)
    w, h = max(1e-9, box.width / 2), max(1e-9, box.height / 2)
    if sort == "oval":
        share = 1 / math.hypot(dx / w, dy / h)
    elif sort == "diamond":
        share = 1 / (abs(dx) / w + abs(dy) / h)
    else:
        share = min(w / abs(dx) if dx else math.inf, h / abs(dy) if dy else math.inf)
    share = min(share, 1.0)
    return (cx + dx * share, cy + dy * share)
