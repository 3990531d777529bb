"""Which shape an outline was meant to be."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import TYPE_CHECKING, Any, NamedTuple

from larch.core.recognise.ink import clean
from larch.core.recognise.shapes.features import Fits, features, fits_of
from larch.core.recognise.shapes.forest import shape_forest
from larch.core.recognise.shapes.ideal import vertices
from larch.core.recognise.shapes.path import outline_of
from larch.core.recognise.shapes.special import bends_of, brace_of, table_of, tick_of

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

NONE = "none"
MOST_STROKES = 12
LIKELY = 0.02  # votes from which a kind is offered, too
WIDER = {  # what is offered beside a kind, in any case
    "square": "rectangle", "circle": "ellipse", "rhombus": "parallelogram", "triangle_equilateral": "triangle_isosceles",
    "triangle_isosceles": "triangle_scalene", "triangle_right": "triangle_scalene", "rectangle": "parallelogram",
    "kite": "rhombus", "parallelogram": "trapezium", "arc": "circle", "line": "arrow",
}  # fmt: skip
OFFERED = {"polyline": bends_of, "tick": tick_of, "brace": brace_of}
OVALS = ("circle", "ellipse")


class ShapeReading(NamedTuple):
    """kind; vertices, in the units of the ink; of a circle and an ellipse instead center, radii and angle (degrees of the
    first radius from the x-axis). alternatives: the next kinds. xs, ys: where the lines of a table stand."""

    kind: str
    vertices: list[list[float]]
    confidence: float
    alternatives: list[str]
    center: list[float]
    radii: list[float]
    angle: float
    xs: Sequence[float] = ()
    ys: Sequence[float] = ()


def read_shape(strokes: Sequence[Any], kind: str = "") -> ShapeReading:
    """kind: what it is to be, "" for what it most likely is."""
    cleaned = [stroke for stroke in clean(strokes) if len(stroke)]
    special = _special(kind, cleaned)
    if special is not None:
        return special
    outline = outline_of(cleaned) if 0 < len(cleaned) <= MOST_STROKES else None
    if outline is None:
        return _nothing()
    fits = fits_of(outline)
    forest = shape_forest()
    votes = forest.ask(features(fits))
    order = sorted(range(len(votes)), key=lambda k: -votes[k])
    ranked = [forest.kinds[k] for k in order]
    chosen = kind or ranked[0]
    share = float(votes[forest.kinds.index(chosen)]) if chosen in forest.kinds else 0.0
    likely = [one for k, one in zip(order, ranked, strict=True) if votes[k] >= LIKELY or one == WIDER.get(chosen)]
    others = [one for one in likely if one not in (chosen, NONE)][:3]
    made = _made(chosen, fits)
    if made is None:
        return _nothing(1.0 - share, others)
    return made._replace(confidence=round(share, 4), alternatives=others)


def _special(kind: str, strokes: Sequence[Array]) -> ShapeReading | None:
    """Kinds that have a rule of their own. A table is told unasked; the others look too much like scribbles, letters or
    angles, and are only offered."""
    if kind in ("", "table"):
        grid = table_of(strokes)
        if grid is not None:
            (left, *_xs, right), (top, *_ys, bottom) = grid
            frame = [[left, top], [right, top], [right, bottom], [left, bottom]]
            return ShapeReading("table", frame, 1.0, ["rectangle"], [], [], 0.0, grid.xs, grid.ys)
    if kind in OFFERED:
        found = OFFERED[kind](strokes)
        if found is not None:
            return ShapeReading(kind, [[float(x), float(y)] for x, y in found], 0.5, [], [], [], 0.0)
    return None


def _nothing(confidence: float = 1.0, others: list[str] | None = None) -> ShapeReading:
    return ShapeReading(NONE, [], round(confidence, 4), others or [], [], [], 0.0)


def _made(kind: str, fits: Fits) -> ShapeReading | None:
    if kind == NONE:
        return None
    outline = fits.outline
    if kind in OVALS:
        oval = fits.oval if kind == "ellipse" and fits.oval is not None else fits.circle
        x, y = (oval.x * outline.size + outline.middle[0], oval.y * outline.size + outline.middle[1])
        radii = [oval.a * outline.size, oval.b * outline.size]
        return ShapeReading(kind, [], 0.0, [], [float(x), float(y)], [float(r) for r in radii], math.degrees(oval.turn))
    found = vertices(kind, fits)
    if found is None:
        return None
    return ShapeReading(kind, [[float(x), float(y)] for x, y in outline.back(found)], 0.0, [], [], [], 0.0)


def shape_answer(strokes: Sequence[Any]) -> dict[str, Any]:
    """As plain values."""
    return _plain(read_shape(strokes))


def _plain(found: ShapeReading) -> dict[str, Any]:
    made: dict[str, Any] = {"kind": found.kind}
    if found.kind == "table":
        made |= {"xs": list(found.xs), "ys": list(found.ys)}
    if found.kind in OVALS:
        made |= {"center": found.center, "radii": found.radii, "angle": round(found.angle, 4)}
    return made | {"vertices": found.vertices, "confidence": found.confidence, "alternatives": found.alternatives}


def shape_choices(strokes: Sequence[Any], asked: bool = True) -> dict[str, Any]:
    """{"readings": […]}: as `shape_answer`, of the likeliest kind and the next two; none where it is no shape. asked: a
    shape is wanted of it; else what might be a scribble is left alone."""
    first = read_shape(strokes)
    cleaned = [stroke for stroke in clean(strokes) if len(stroke)]
    tried = OFFERED if asked else ("tick",)
    rules = [kind for kind in tried if len(cleaned) < 4 and OFFERED[kind](cleaned) is not None]
    known = [] if first.kind == NONE else [first.kind, *(k for k in rules if k == "tick"), *first.alternatives]
    kinds = dict.fromkeys([*(k for k in rules if k == "brace"), *known, *(rules if asked else ())])
    made = [first if kind == first.kind else read_shape(strokes, kind) for kind in list(kinds)[:3]]
    return {"readings": [_plain(one) for one in made if one.kind != NONE]}
