"""Tables, braces, ticks and bent lines, drawn by a hand that shakes; what is none of them is left alone."""

from __future__ import annotations

import gzip
import json
import math
import random
from itertools import pairwise
from pathlib import Path

import numpy as np
import pytest

from larch.core.recognise.ink import clean
from larch.core.recognise.shapes.reading import read_shape, shape_choices
from larch.core.recognise.shapes.special import bends_of, brace_of, table_of, tick_of

INK = json.loads(gzip.decompress((Path(__file__).parents[2] / "data" / "ink.json.gz").read_bytes()))
Stroke = list[tuple[float, float]]


def drawn(*corners: tuple[float, float], shake: float = 1.5, seed: int = 1) -> Stroke:
    """Straight pieces from corner to corner, by a hand that shakes by so much."""
    r = random.Random(seed)
    made = []
    for (ax, ay), (bx, by) in pairwise(corners):
        count = max(4, int(math.dist((ax, ay), (bx, by)) / 8))
        made += [(ax + (bx - ax) * k / count + r.gauss(0, shake), ay + (by - ay) * k / count + r.gauss(0, shake))
                 for k in range(count)]  # fmt: skip
    return [*made, corners[-1]]


def table(columns: int, rows: int, frame: int) -> list[Stroke]:
    """frame: in how many strokes the outer edge is drawn, 1 or 4."""
    wide, high = 90.0 * columns, 60.0 * rows
    outer = [(0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high), (0.0, 0.0)]
    strokes = [drawn(*outer)] if frame == 1 else [drawn(a, b) for a, b in pairwise(outer)]
    strokes += [drawn((90.0 * k, 3.0), (90.0 * k + 4, high - 2), seed=k) for k in range(1, columns)]
    return strokes + [drawn((2.0, 60.0 * k), (wide - 3, 60.0 * k + 3), seed=9 + k) for k in range(1, rows)]


@pytest.mark.parametrize(("columns", "rows", "frame"), [(3, 2, 1), (2, 4, 4), (1, 3, 1), (4, 1, 4), (5, 5, 1), (2, 1, 1)])
def test_a_table_with_its_lines(columns: int, rows: int, frame: int) -> None:
    strokes = table(columns, rows, frame)
    found = read_shape(strokes)
    assert found.kind == "table" and (len(found.xs), len(found.ys)) == (columns + 1, rows + 1)
    assert found.xs[-1] - found.xs[0] == pytest.approx(90 * columns, abs=8)
    assert np.allclose(found.vertices[0], (0, 0), atol=6)


def test_a_frame_alone_or_lines_that_stop_short_are_no_table() -> None:
    assert table_of(clean(table(1, 1, 4))) is None
    short = [*table(2, 1, 4), drawn((20.0, 30.0), (60.0, 30.0))]
    assert table_of(clean(short)) is None
    crossed = [drawn((0.0, 30.0), (200.0, 30.0)), drawn((0.0, 60.0), (200.0, 60.0)), drawn((60.0, 0.0), (60.0, 90.0))]
    assert table_of(clean(crossed)) is None


def test_a_bent_line_has_its_corners() -> None:
    corners = [(0.0, 100.0), (60.0, 10.0), (150.0, 90.0), (230.0, 30.0)]
    found = bends_of(clean([drawn(*corners)]))
    assert found is not None and np.allclose(found, corners, atol=8)
    (first, *_rest) = shape_choices([drawn(*corners)])["readings"]
    assert first["kind"] == "polyline"
    assert all(one["kind"] != "polyline" for one in shape_choices([drawn(*corners)], asked=False)["readings"])
    assert read_shape([drawn(*corners)]).kind != "polyline"  # unasked it might be a scribble


@pytest.mark.parametrize("one", [one for one in INK["shapes"] if one["kind"] == "none"][:12])
def test_scribbles_are_left_alone_by_pens(one: dict) -> None:  # type: ignore[type-arg]
    assert table_of(clean(one["strokes"])) is None and brace_of(clean(one["strokes"])) is None


def test_a_tick_goes_down_a_little_and_up_far() -> None:
    stroke = drawn((0.0, 60.0), (25.0, 90.0), (90.0, 0.0), shake=0.8)
    assert tick_of(clean([stroke])) is not None
    assert "tick" in [one["kind"] for one in shape_choices([stroke])["readings"]]
    assert tick_of(clean([drawn((0.0, 0.0), (40.0, 90.0), (90.0, 0.0))])) is None  # a V
    assert tick_of(clean([drawn((0.0, 60.0), (25.0, 30.0), (90.0, 90.0))])) is None  # turned over


def brace(long: float, deep: float, turn: float) -> Stroke:
    half, bow = deep / 2, long / 10
    ts = np.linspace(0, 1, 20)

    def bend(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> Stroke:
        return [((1 - t) ** 2 * a[0] + 2 * t * (1 - t) * b[0] + t * t * c[0],
                 (1 - t) ** 2 * a[1] + 2 * t * (1 - t) * b[1] + t * t * c[1]) for t in ts]  # fmt: skip

    middle = long / 2
    points = [
        *bend((0, 0), (0, half), (bow, half)), *drawn((bow, half), (middle - bow, half), shake=0.6),
        *bend((middle - bow, half), (middle, half), (middle, deep)),
        *bend((middle, deep), (middle, half), (middle + bow, half)),
        *drawn((middle + bow, half), (long - bow, half), shake=0.6), *bend((long - bow, half), (long, half), (long, 0)),
    ]  # fmt: skip
    c, s = math.cos(turn), math.sin(turn)
    return [(x * c - y * s, x * s + y * c) for x, y in points]


@pytest.mark.parametrize("turn", [0.0, math.pi / 2, math.pi, -math.pi / 2, 0.4])
def test_a_brace_in_any_direction(turn: float) -> None:
    stroke = brace(300, 50, turn)
    found = brace_of(clean([stroke]))
    assert found is not None
    c, s = math.cos(turn), math.sin(turn)
    assert np.allclose(found[1], (150 * c - 50 * s, 150 * s + 50 * c), atol=8)
    assert shape_choices([stroke])["readings"][0]["kind"] == "brace"


@pytest.mark.parametrize("asked", [True, False])
def test_nothing_is_offered_twice(asked: bool) -> None:
    zigzag = drawn((0.0, 100.0), (60.0, 10.0), (150.0, 90.0), (230.0, 30.0))
    tick = drawn((0.0, 60.0), (25.0, 90.0), (90.0, 0.0), shake=0.8)
    for stroke in (brace(300, 50, 0.0), zigzag, tick, *(one["strokes"][0] for one in INK["shapes"][:20])):
        kinds = [one["kind"] for one in shape_choices([stroke], asked)["readings"]]
        assert len(kinds) == len(set(kinds)) <= 3 and "none" not in kinds


def test_an_arc_a_line_and_an_angle_are_no_braces() -> None:
    arc = [(150 - 150 * math.cos(t / 20), 60 * math.sin(t / 20)) for t in range(64)]
    for stroke in (arc, drawn((0.0, 0.0), (300.0, 10.0)), drawn((0.0, 0.0), (150.0, 60.0), (300.0, 0.0))):
        assert brace_of(clean([stroke])) is None
