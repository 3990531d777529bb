"""Shapes drawn roughly, and scribbles of many sorts, for training and for measuring."""

from __future__ import annotations

import math
import random
from itertools import pairwise
from typing import Any, NamedTuple

import numpy as np

Array = np.ndarray[Any, Any]
KINDS = (
    "line",
    "arrow",
    "circle",
    "ellipse",
    "triangle_scalene",
    "triangle_isosceles",
    "triangle_right",
    "triangle_equilateral",
    "square",
    "rectangle",
    "rhombus",
    "parallelogram",
    "trapezium",
    "kite",
    "pentagon",
    "hexagon",
    "octagon",
    "star",
    "arc",
    "angle",
    "none",
)


class Drawn(NamedTuple):
    kind: str
    strokes: list[Array]
    vertices: list[tuple[float, float]]


def outline(kind: str, r: random.Random, rough: float, glyphs: list[list[Array]]) -> Drawn:
    """In units of about 200 across. rough: 1 for a careful hand, 2 for a hurried one."""
    if kind == "none":
        return Drawn(kind, scribble(r, glyphs), [])
    turn = r.choice((0.0, r.gauss(0, 0.06), r.uniform(0, 2 * math.pi), r.uniform(0, 2 * math.pi)))
    size = r.uniform(60, 220)
    c, s = math.cos(turn), math.sin(turn)
    flip = r.choice((1, -1))
    made, open_line, curve = _model(kind, r)
    frame = np.array([[c, s], [-s, c]]) * size * np.array([[1.0], [flip]])
    points = made @ frame + (r.uniform(0, 900), r.uniform(0, 600))
    hand = _Hand(r, rough, size)
    if kind == "arrow":
        tail, tip, left, right = points
        style = r.random()
        if style < 0.4:
            strokes = [hand.line(tail, tip), hand.path([left, tip, right])]
        elif style < 0.6:
            strokes = [hand.line(tail, tip), hand.line(tip, left), hand.line(tip, right)]
        elif style < 0.85:
            strokes = [hand.path([tail, tip, left, np.add(tip, (r.gauss(0, 0.02) * size, r.gauss(0, 0.02) * size)), right])]
        else:
            strokes = [hand.path([tail, tip, left]), hand.line(tip, right)]
        return Drawn(kind, strokes, [tuple(tail), tuple(tip)])
    if curve:
        return Drawn(
            kind, [hand.curve(points, not open_line)], [tuple(points[0]), tuple(points[len(points) // 2]), tuple(points[-1])]
        )
    if open_line:
        strokes = (
            [hand.path(list(points))]
            if kind != "angle" or r.random() < 0.75
            else [hand.line(points[1], points[0]), hand.line(points[1], points[2])]
        )
        return Drawn(kind, strokes, [tuple(p) for p in points])
    start, way = r.randrange(len(points)), r.choice((1, -1))
    ring = [points[(start + way * k) % len(points)] for k in range(len(points))]
    if kind == "star":
        tips = [tuple(p) for p in ring]
        if r.random() < 0.55:  # in one line, over itself
            order = [ring[(2 * k) % 5] for k in range(5)]
            return Drawn(kind, [hand.path([*order, order[0]], closed=True)], tips)
        middle = np.mean(ring, axis=0)
        share = r.uniform(0.36, 0.52)
        around: list[Any] = []
        for k in range(5):
            around += [ring[k], middle + (ring[k] + ring[(k + 1) % 5] - 2 * middle) / 2 * share / math.cos(math.pi / 5)]
        shift = r.randrange(10)
        around = around[shift:] + around[:shift]
        return Drawn(kind, [hand.path([*around, around[0]], closed=True)], tips)
    pieces = r.random()
    closed = [*ring, ring[0]]
    if pieces < 0.68 or len(ring) > 4:
        strokes = [hand.path(closed, closed=True)]
    elif pieces < 0.85:
        cut = r.randrange(1, len(ring))
        strokes = [hand.path(closed[: cut + 1]), hand.path(closed[cut:])]
    else:
        strokes = [hand.line(closed[k], closed[k + 1]) for k in range(len(ring))]
    return Drawn(kind, strokes, [tuple(p) for p in ring])


def _model(kind: str, r: random.Random) -> tuple[Array, bool, bool]:
    """Corners (or a fine curve), whether it is open, whether it is curved; about 1 in size."""

    def regular(n: int) -> Array:
        turn = np.arange(n) * 2 * math.pi / n - math.pi / 2
        return np.column_stack([np.cos(turn), np.sin(turn)]) / 2

    match kind:
        case "line":
            return np.array([[-0.6, 0], [0.6, 0.0]]), True, False
        case "arrow":
            h, w = r.uniform(0.12, 0.32), r.uniform(0.08, 0.22)
            return (
                np.array([[-0.6, 0], [0.6, 0], [0.6 - h, -w], [0.6 - h * r.uniform(0.85, 1.15), w * r.uniform(0.8, 1.2)]]),
                True,
                False,
            )
        case "circle" | "ellipse":
            b = 1.0 if kind == "circle" else r.uniform(0.3, 0.76)
            start = r.uniform(0, 2 * math.pi)
            turn = np.linspace(start, start + 2 * math.pi, 73)
            return np.column_stack([np.cos(turn), b * np.sin(turn)]) / 2, False, True
        case "arc":
            sweep = r.uniform(0.9, 4.4)
            turn = np.linspace(-sweep / 2, sweep / 2, 60)
            return np.column_stack([np.cos(turn), np.sin(turn)]) / 2, True, True
        case "angle":
            opening = math.radians(r.uniform(22, 145))
            a, b = r.uniform(0.5, 0.9), r.uniform(0.5, 0.9)
            return np.array([[a, 0], [0, 0], [b * math.cos(opening), b * math.sin(opening)]]), True, False
        case "pentagon" | "hexagon" | "octagon":
            return regular({"pentagon": 5, "hexagon": 6, "octagon": 8}[kind]), False, False
        case "star":
            return regular(5), False, False
        case "square":
            return np.array([[0, 0], [1, 0], [1, 1], [0, 1.0]]) * 0.75, False, False
        case "rectangle":
            return np.array([[0, 0], [1, 0], [1, 1], [0, 1.0]]) * (1, r.uniform(0.28, 0.78)), False, False
        case "rhombus":
            half = math.radians(r.uniform(23, 37)) if r.random() < 0.9 else math.radians(r.uniform(16, 23))
            return (
                np.array([[-math.cos(half), 0], [0, -math.sin(half)], [math.cos(half), 0], [0, math.sin(half)]]) * 0.65,
                False,
                False,
            )
        case "parallelogram":
            w, h = r.uniform(0.45, 0.72), math.radians(r.uniform(42, 74))
            side = w * r.uniform(0.5, 0.78) if r.random() < 0.8 else w * r.uniform(1.25, 1.7)
            one, two = np.array([w, 0]), np.array([math.cos(h), math.sin(h)]) * side
            return np.array([[0, 0], one, one + two, two]), False, False
        case "trapezium":
            top = r.uniform(0.25, 0.68)
            left = r.choice((0.0, (1 - top) / 2, r.uniform(0.02, 0.9) * (1 - top)))
            height = r.uniform(0.35, 0.8)
            return np.array([[0, 0], [1, 0], [left + top, -height], [left, -height]]), False, False
        case "kite":
            up, down, w = r.uniform(0.2, 0.35), r.uniform(0.55, 0.95), r.uniform(0.24, 0.42)
            return np.array([[0, -up], [w, 0], [0, down], [-w, 0.0]]), False, False
        case "triangle_equilateral":
            return regular(3), False, False
        case "triangle_isosceles":
            top = r.choice((r.uniform(24, 47), r.uniform(72, 79), r.uniform(101, 125)))
            half = math.radians(top / 2)
            return (
                np.array([[0, 0], [math.sin(half), math.cos(half)], [-math.sin(half), math.cos(half)]]) * 0.85,
                False,
                False,
            )
        case "triangle_right":
            ratio = r.uniform(0.36, 0.82) if r.random() < 0.82 else 1.0
            return np.array([[0, 0], [1, 0], [0, ratio]]) * 0.85, False, False
    while True:  # scalene: nothing of it nearly equal or right
        a, b = r.uniform(28, 120), r.uniform(25, 80)
        angles = sorted((a, b, 180 - a - b))
        if (
            angles[0] > 21
            and min(angles[1] - angles[0], angles[2] - angles[1]) > 11.5
            and min(abs(x - 90) for x in angles) > 11.5
        ):
            break
    one, two = math.radians(a), math.radians(b)
    side = math.sin(two) / math.sin(one + two)
    return np.array([[0, 0], [1, 0], [side * math.cos(one), side * math.sin(one)]]) * 0.9, False, False


class _Hand:
    def __init__(self, r: random.Random, rough: float, size: float) -> None:
        self.r, self.rough, self.size = r, rough, size
        self.wave = abs(r.gauss(0.006, 0.005)) * rough * size
        self.tremor = abs(r.gauss(0.002, 0.0015)) * rough * size
        self.corner = abs(r.gauss(0.012, 0.009)) * rough * size
        self.round = r.choice((0.0, r.uniform(0.0, 0.05) * rough))
        self.bow = abs(r.gauss(0, 0.012)) * rough

    def _moved(self, at: Any) -> Array:
        return np.add(np.asarray(at, dtype=float), (self.r.gauss(0, self.corner), self.r.gauss(0, self.corner)))

    def line(self, a: Any, b: Any) -> Array:
        return self.path([a, b])

    def path(self, corners: list[Any], closed: bool = False) -> Array:
        r = self.r
        places = [self._moved(at) for at in corners]
        if closed:
            gap = r.choice((0.0, 1.0, 1.0)) * abs(r.gauss(0, 0.03)) * self.rough * self.size
            turn = r.uniform(0, 2 * math.pi)
            places[-1] = places[0] + (gap * math.cos(turn), gap * math.sin(turn))
            if r.random() < 0.25:  # beyond where it began
                way = places[1] - places[0]
                places.append(places[-1] + way * r.uniform(0.02, 0.08) * self.rough)
        parts = []
        for a, b in pairwise(places):
            count = max(6, int(np.hypot(*(b - a)) / (self.size * 0.02)))
            t = np.linspace(0, 1, count)[:, None]
            across = np.array([-(b - a)[1], (b - a)[0]])
            bow = r.gauss(0, self.bow) * 4 * t * (1 - t)
            parts.append(a + (b - a) * t + across * bow)
        return self.shaken(self._rounded(np.concatenate(parts)))

    def curve(self, points: Array, closed: bool) -> Array:
        r = self.r
        n = len(points)
        t = np.linspace(0, 2 * math.pi, n)
        middle = points.mean(axis=0) if closed else points[n // 2]
        swell = 1 + sum(r.gauss(0, 0.016 * self.rough) * np.cos(k * t + r.uniform(0, 6)) for k in (2, 3, 4))
        made = middle + (points - middle) * np.asarray(swell)[:, None]
        if closed:
            drift = np.array([r.gauss(0, 0.022), r.gauss(0, 0.022)]) * self.rough * self.size
            made = made + np.linspace(-0.5, 0.5, n)[:, None] * drift
            if r.random() < 0.3:
                extra = max(2, int(n * r.uniform(0.02, 0.1)))
                made = np.concatenate([made, made[1:extra] + drift])
        return self.shaken(made)

    def _rounded(self, points: Array) -> Array:
        width = int(self.round * len(points))
        if width < 2:
            return points
        kernel = np.ones(2 * width + 1) / (2 * width + 1)
        padded = np.concatenate([np.repeat(points[:1], width, 0), points, np.repeat(points[-1:], width, 0)])
        made = np.column_stack([np.convolve(padded[:, k], kernel, mode="valid") for k in (0, 1)])
        made[0], made[-1] = points[0], points[-1]
        return made

    def shaken(self, points: Array) -> Array:
        rng = np.random.default_rng(self.r.getrandbits(32))
        n = len(points)
        slow = rng.normal(0, 1, (max(4, n // 12), 2))
        at = np.linspace(0, len(slow) - 1, n)
        wave = np.column_stack([np.interp(at, np.arange(len(slow)), slow[:, k]) for k in (0, 1)])
        return points + wave * self.wave + rng.normal(0, 1, (n, 2)) * self.tremor


def scribble(r: random.Random, glyphs: list[list[Array]]) -> list[Array]:
    """Of many sorts: what is no shape."""
    rng = np.random.default_rng(r.getrandbits(32))
    size = r.uniform(60, 240)
    sort = r.choice(
        (
            "zigzag",
            "spiral",
            "cloud",
            "walk",
            "word",
            "word",
            "wave",
            "knot",
            "figure",
            "heart",
            "hatching",
            "several",
            "blob",
            "loops",
            "hook",
            "flower",
            "cross",
            "tangle",
            "question",
            "snake",
        )
    )
    t = np.linspace(0, 1, 140)
    match sort:
        case "zigzag":
            n = r.randint(4, 14)
            x = np.linspace(0, 1, n) + rng.normal(0, 0.03, n)
            made = np.column_stack([x, np.where(np.arange(n) % 2, 1, -1) * r.uniform(0.1, 0.5) * rng.uniform(0.6, 1.2, n)])
            made = _fine(made)
        case "spiral":
            turns = r.uniform(1.7, 5)
            made = np.column_stack(
                [t * np.cos(2 * math.pi * turns * t), t * np.sin(2 * math.pi * turns * t) * r.uniform(0.6, 1)]
            )
        case "cloud" | "flower":
            n = r.randint(5, 11)
            radius = 1 + (r.uniform(0.1, 0.3) if sort == "cloud" else r.uniform(0.3, 0.7)) * np.abs(
                np.sin(n * math.pi * t + r.random())
            )
            made = np.column_stack(
                [radius * np.cos(2 * math.pi * t), radius * np.sin(2 * math.pi * t) * r.uniform(0.45, 0.9)]
            )
        case "walk" | "tangle":
            n = r.randint(6, 9 if sort == "walk" else 26)
            made = _smooth(rng.normal(0, 1, (n, 2)).cumsum(axis=0) if sort == "walk" else rng.uniform(-1, 1, (n, 2)))
        case "word":
            strokes: list[Array] = []
            x = 0.0
            for _k in range(r.randint(1, 6)):
                for run in r.choice(glyphs):
                    strokes.append(run * size / 3 + (x, 0))
                x += size / 3 * r.uniform(0.7, 1.1)
            return strokes
        case "wave" | "snake":
            n = r.uniform(1.2, 6)
            made = np.column_stack([t * 2.4, r.uniform(0.15, 0.5) * np.sin(2 * math.pi * n * t) * (1 + rng.normal(0, 0.1))])
        case "knot" | "loops":
            a, b = r.randint(1, 4), r.randint(2, 5)
            made = np.column_stack([np.sin(2 * math.pi * a * t + r.random() * 3), np.sin(2 * math.pi * (b + (a == b)) * t)])
            made = made + t[:, None] * (r.uniform(0, 2 if sort == "loops" else 0.3), 0)
        case "figure":
            made = np.column_stack([np.sin(2 * math.pi * t), np.sin(4 * math.pi * t) * r.uniform(0.3, 0.8)])
        case "heart":
            a = 2 * math.pi * t
            made = (
                np.column_stack(
                    [16 * np.sin(a) ** 3, -(13 * np.cos(a) - 5 * np.cos(2 * a) - 2 * np.cos(3 * a) - np.cos(4 * a))]
                )
                / 17
            )
        case "hatching":
            return [
                np.column_stack([np.linspace(k * 0.12, k * 0.12 + 0.5, 12), np.linspace(0, 0.7, 12)]) * size
                + rng.normal(0, 1.5, (12, 2))
                for k in range(r.randint(3, 8))
            ]
        case "several":
            return [_smooth(rng.uniform(0, 1, (r.randint(2, 5), 2))) * size for _ in range(r.randint(2, 5))]
        case "blob":
            radius = 1 + sum(rng.normal(0, 0.17) * np.cos(k * 2 * math.pi * t + rng.uniform(0, 6)) for k in (1, 2, 3, 4, 5))
            made = np.column_stack(
                [np.asarray(radius) * np.cos(2 * math.pi * t), np.asarray(radius) * np.sin(2 * math.pi * t)]
            )
        case "hook" | "question":
            made = _smooth(
                np.array([[0.1, 0.3], [0.2, 0], [0.6, 0], [0.65, 0.4], [0.35, 0.65], [0.35, 1.0]])
                + rng.normal(0, 0.06, (6, 2))
            )
        case _:
            return [
                _fine(np.array([[0, 0], [1, 1.0]])) * size + rng.normal(0, 1.5, (30, 2)),
                _fine(np.array([[1, 0], [0, 1.0]])) * size,
            ]
    turn = r.uniform(0, 2 * math.pi)
    made = made @ np.array([[math.cos(turn), math.sin(turn)], [-math.sin(turn), math.cos(turn)]]) * size / 2
    return [made + rng.normal(0, 0.8, made.shape)]


def _fine(corners: Array) -> Array:
    at = np.linspace(0, len(corners) - 1, 30 if len(corners) == 2 else 14 * len(corners))
    return np.column_stack([np.interp(at, np.arange(len(corners)), corners[:, k]) for k in (0, 1)])


def _smooth(points: Array) -> Array:
    from signs import soft

    return soft(*map(tuple, points)) if len(points) > 2 else _fine(points)
