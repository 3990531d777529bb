"""Straight-edged and round shapes of a standard SVG, in the user units of its outermost viewBox.

Reads polygon, polyline, line, rect, circle, ellipse and paths of straight edges, with nested transforms, nested viewBoxes
and units (CSS: 96 px to an inch). What is only defined (defs, symbols, clips, masks, markers, patterns) is not drawn and so
not read. Nothing outside the file is ever fetched, and entities are refused.
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Iterator
from typing import Any, NamedTuple
from xml.parsers import expat

from larch.core.base.shape import Point
from larch.core.base.words import _

LARGEST = 64 * 2**20  # bytes
DEEPEST = 500  # elements within elements
MOST_SHAPES, MOST_POINTS = 20_000, 200_000
UNDRAWN = {
    "defs",
    "symbol",
    "clipPath",
    "mask",
    "marker",
    "pattern",
    "linearGradient",
    "radialGradient",
    "filter",
    "metadata",
}
PIXELS = {"": 1.0, "px": 1.0, "in": 96.0, "cm": 96 / 2.54, "mm": 9.6 / 2.54, "q": 2.4 / 2.54, "pt": 4 / 3, "pc": 16.0,
          "em": 16.0, "ex": 8.0}  # fmt: skip
NUMBER = r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?"
LENGTH = re.compile(rf"\s*({NUMBER})\s*([a-zA-Z%]*)\s*$")
NUMBERS = re.compile(NUMBER)
TRANSFORM = re.compile(r"\s*,?\s*(\w+)\s*\(([^()]*)\)")
PATH_TOKEN = re.compile(rf"([A-Za-z])|({NUMBER})|([^\s,])")
STRAIGHT = set("MmLlHhVvZz")


class SvgError(ValueError):
    """Can't be read; the message is one sentence."""


class Matrix(NamedTuple):
    """x' = a·x + c·y + e, y' = b·x + d·y + f."""

    a: float = 1.0
    b: float = 0.0
    c: float = 0.0
    d: float = 1.0
    e: float = 0.0
    f: float = 0.0

    def then(self, inner: Matrix) -> Matrix:
        """This one applied after `inner`."""
        return Matrix(
            self.a * inner.a + self.c * inner.b, self.b * inner.a + self.d * inner.b,
            self.a * inner.c + self.c * inner.d, self.b * inner.c + self.d * inner.d,
            self.a * inner.e + self.c * inner.f + self.e, self.b * inner.e + self.d * inner.f + self.f,
        )  # fmt: skip

    def at(self, point: Point) -> Point:
        x, y = point
        return (self.a * x + self.c * y + self.e, self.b * x + self.d * y + self.f)


class Outline(NamedTuple):
    """A figure with straight edges."""

    id: str
    points: tuple[Point, ...]
    closed: bool


class Round(NamedTuple):
    """An ellipse: its centre and two conjugate half diameters as vectors; a circle has them equal and square."""

    id: str
    centre: Point
    first: Point
    second: Point


class Left(NamedTuple):
    """What was left out, and why."""

    id: str
    why: str


class _Frame(NamedTuple):
    matrix: Matrix
    width: float  # of the viewport, for percentages
    height: float
    drawn: bool


def read_svg(data: bytes) -> tuple[list[Outline | Round], list[Left]]:
    """The shapes in the order in which they are drawn, and what had to be left out. Raises SvgError."""
    if len(data) > LARGEST:
        raise SvgError(_("The picture is too large."))
    reader = _Reader()
    parser = expat.ParserCreate(namespace_separator=" ")
    parser.StartElementHandler = reader.start
    parser.EndElementHandler = reader.end
    parser.EntityDeclHandler = reader.refuse
    try:
        parser.Parse(data, True)
    except expat.ExpatError as error:
        raise SvgError(_("It is not sound XML, at line {n}.").format(n=error.lineno)) from error
    except (OverflowError, RecursionError) as error:
        raise SvgError(_("Its numbers can't be computed with.")) from error
    if not reader.is_svg:
        raise SvgError(_("It is not an SVG picture."))
    return reader.found, reader.left


class _Reader:
    def __init__(self) -> None:
        self.found: list[Outline | Round] = []
        self.left: list[Left] = []
        self.is_svg = False
        self._frames: list[_Frame] = []
        self._number = 0

    def refuse(self, *_args: Any) -> None:
        raise SvgError(_("It declares entities, which are not read."))

    def start(self, qualified: str, attributes: dict[str, str]) -> None:
        name = qualified.rpartition(" ")[2]
        if not self._frames:
            self.is_svg = name == "svg"
        if len(self._frames) > DEEPEST:
            raise SvgError(_("It is nested too deeply."))
        outer = self._frames[-1] if self._frames else _Frame(Matrix(), 0.0, 0.0, True)
        try:
            frame = self._enter(name, attributes, outer)
        except _LeftOut as error:  # of what has no size nothing is drawn
            self.left.append(Left(attributes.get("id") or name, str(error)))
            frame = outer._replace(drawn=False)
        self._frames.append(frame)
        make = _SHAPES.get(name)
        if frame.drawn and self.is_svg and make is not None:
            self._number += 1
            id = attributes.get("id") or f"{name}{self._number}"
            self._take(id, make, attributes, frame)

    def end(self, _qualified: str) -> None:
        self._frames.pop()

    def _enter(self, name: str, attributes: dict[str, str], outer: _Frame) -> _Frame:
        hidden = attributes.get("display") == "none" or "display:none" in attributes.get("style", "").replace(" ", "")
        drawn = outer.drawn and name not in UNDRAWN and not hidden
        matrix = outer.matrix.then(transform(attributes.get("transform", "")))
        if name == "svg":
            return self._viewport(attributes, outer, matrix, drawn)
        return _Frame(matrix, outer.width, outer.height, drawn)

    def _viewport(self, attributes: dict[str, str], outer: _Frame, matrix: Matrix, drawn: bool) -> _Frame:
        box = [float(v) for v in NUMBERS.findall(attributes.get("viewBox", ""))]
        sound = len(box) == 4 and box[2] > 0 and box[3] > 0
        wide = _length(attributes.get("width", "100%"), outer.width)
        tall = _length(attributes.get("height", "100%"), outer.height)
        if not self._frames:  # user units are those of the outermost viewBox, whatever size it is shown at
            return _Frame(matrix, box[2] if sound else wide, box[3] if sound else tall, drawn)
        x, y = _length(attributes.get("x", "0"), outer.width), _length(attributes.get("y", "0"), outer.height)
        matrix = matrix.then(Matrix(e=x, f=y))
        if not sound:
            return _Frame(matrix, wide, tall, drawn)
        return _Frame(
            matrix.then(_fitted(box, wide, tall, attributes.get("preserveAspectRatio", ""))), box[2], box[3], drawn
        )

    def _take(self, id: str, make: Maker, attributes: dict[str, str], frame: _Frame) -> None:
        try:
            for number, shape in enumerate(make(attributes, frame)):
                if len(self.found) >= MOST_SHAPES:
                    raise SvgError(_("It holds more than {n} shapes.").format(n=MOST_SHAPES))
                self.found.append(_placed(shape, id if not number else f"{id}.{number + 1}", frame.matrix))
        except _LeftOut as why:
            self.left.append(Left(id, str(why)))


class _LeftOut(Exception):
    """A shape that can't be measured here; the message says why."""


Bare = tuple[tuple[Point, ...], bool] | tuple[Point, float, float]
Maker = Callable[[dict[str, str], _Frame], Iterator[Bare]]


def _placed(shape: Bare, id: str, matrix: Matrix) -> Outline | Round:
    if len(shape) == 3:
        (cx, cy), rx, ry = shape
        centre = matrix.at((cx, cy))
        placed = Round(id, centre, (matrix.a * rx, matrix.b * rx), (matrix.c * ry, matrix.d * ry))
        _finite([centre, placed.first, placed.second])
        return placed
    points, closed = shape
    if len(points) > MOST_POINTS:
        raise _LeftOut(_("it has too many points"))
    moved = tuple(matrix.at(point) for point in points)
    _finite(moved)
    return Outline(id, moved, closed)


def _finite(points: Any) -> None:
    if not all(math.isfinite(v) and abs(v) < 1e150 for point in points for v in point):
        raise _LeftOut(_("its numbers are too large"))


def _length(text: str, whole: float) -> float:
    """A length in pixels; percentages are of `whole`."""
    match = LENGTH.match(text)
    if match is None:
        raise _LeftOut(_("“{text}” is not a length").format(text=text[:30]))
    value, unit = float(match.group(1)), match.group(2).lower()
    if unit == "%":
        return value / 100 * whole
    if unit not in PIXELS:
        raise _LeftOut(_("the unit {unit} is not known").format(unit=unit[:10]))
    return value * PIXELS[unit]


def _fitted(box: list[float], wide: float, tall: float, ratio: str) -> Matrix:
    """Carries a nested viewBox into its viewport, by the rules of preserveAspectRatio."""
    across, down = wide / box[2], tall / box[3]
    words = (ratio or "xMidYMid meet").split()
    if words[0] == "none":
        return Matrix(across, 0, 0, down, -box[0] * across, -box[1] * down)
    scale = max(across, down) if "slice" in words[1:] else min(across, down)
    free_x, free_y = wide - box[2] * scale, tall - box[3] * scale
    share = {"Min": 0.0, "Mid": 0.5, "Max": 1.0}
    x, y = share.get(words[0][1:4], 0.5), share.get(words[0][5:8], 0.5)
    return Matrix(scale, 0, 0, scale, free_x * x - box[0] * scale, free_y * y - box[1] * scale)


def transform(text: str) -> Matrix:
    """The matrix of a transform attribute; what is not understood stops it there, as browsers do."""
    matrix = Matrix()
    for match in TRANSFORM.finditer(text):
        values = [float(v) for v in NUMBERS.findall(match.group(2))]
        step = _step(match.group(1), values)
        if step is None:
            break
        matrix = matrix.then(step)
    return matrix


def _step(name: str, v: list[float]) -> Matrix | None:
    match name, len(v):
        case "matrix", 6:
            return Matrix(*v)
        case "translate", 1 | 2:
            return Matrix(e=v[0], f=v[1] if len(v) == 2 else 0.0)
        case "scale", 1 | 2:
            return Matrix(v[0], 0, 0, v[-1])
        case "rotate", 1 | 3:
            from larch.core.base.shape import turn_factors

            c, s = turn_factors(v[0])
            turned = Matrix(c, s, -s, c)
            return turned if len(v) == 1 else Matrix(e=v[1], f=v[2]).then(turned).then(Matrix(e=-v[1], f=-v[2]))
        case "skewX", 1:
            return Matrix(c=math.tan(math.radians(v[0])))
        case "skewY", 1:
            return Matrix(b=math.tan(math.radians(v[0])))
    return None


def _points(text: str) -> tuple[Point, ...]:
    values = [float(v) for v in NUMBERS.findall(text)]
    return tuple(zip(values[0::2], values[1::2], strict=False))


def _polygon(attributes: dict[str, str], _frame: _Frame) -> Iterator[Bare]:
    points = _points(attributes.get("points", ""))
    if points:
        yield points, True


def _polyline(attributes: dict[str, str], _frame: _Frame) -> Iterator[Bare]:
    points = _points(attributes.get("points", ""))
    if points:
        closed = len(points) > 3 and points[0] == points[-1]
        yield (points[:-1] if closed else points), closed


def _line(attributes: dict[str, str], frame: _Frame) -> Iterator[Bare]:
    ends = [
        (_length(attributes.get(f"x{n}", "0"), frame.width), _length(attributes.get(f"y{n}", "0"), frame.height))
        for n in (1, 2)
    ]
    yield tuple(ends), False


def _rect(attributes: dict[str, str], frame: _Frame) -> Iterator[Bare]:
    x, wide = (_length(attributes.get(name, "0"), frame.width) for name in ("x", "width"))
    y, tall = (_length(attributes.get(name, "0"), frame.height) for name in ("y", "height"))
    rounding = [_length(attributes[name], frame.width) for name in ("rx", "ry") if attributes.get(name, "auto") != "auto"]
    if any(value > 0 for value in rounding):
        raise _LeftOut(_("its corners are rounded"))
    if wide <= 0 or tall <= 0:
        raise _LeftOut(_("it has no size"))
    yield ((x, y), (x + wide, y), (x + wide, y + tall), (x, y + tall)), True


def _diagonal(frame: _Frame) -> float:
    return math.hypot(frame.width, frame.height) / math.sqrt(2)


def _circle(attributes: dict[str, str], frame: _Frame) -> Iterator[Bare]:
    radius = _length(attributes.get("r", "0"), _diagonal(frame))
    yield from _oval(attributes, frame, radius, radius)


def _ellipse(attributes: dict[str, str], frame: _Frame) -> Iterator[Bare]:
    rx, ry = (attributes.get(name, "auto") for name in ("rx", "ry"))
    rx, ry = (rx if rx != "auto" else ry), (ry if ry != "auto" else rx)
    if rx == "auto":
        raise _LeftOut(_("it has no size"))
    yield from _oval(attributes, frame, _length(rx, frame.width), _length(ry, frame.height))


def _oval(attributes: dict[str, str], frame: _Frame, rx: float, ry: float) -> Iterator[Bare]:
    if rx <= 0 or ry <= 0:
        raise _LeftOut(_("it has no size"))
    centre = (_length(attributes.get("cx", "0"), frame.width), _length(attributes.get("cy", "0"), frame.height))
    yield centre, rx, ry


def _path(attributes: dict[str, str], _frame: _Frame) -> Iterator[Bare]:
    text = attributes.get("d", "")
    letters = set(re.findall(r"[A-DF-Za-df-z]", text))  # an e belongs to a number
    if letters - STRAIGHT:
        raise _LeftOut(_("it has curved edges"))
    for points, closed in _subpaths(text):
        closing = len(points) > 3 and points[0] == points[-1]
        if closed or closing:
            points = points[:-1] if closing else points
        if len(points) > 1:
            yield tuple(points), closed or closing


def _subpaths(text: str) -> Iterator[tuple[list[Point], bool]]:
    """The stretches of a path of straight edges; a broken one is read as far as it goes, as browsers do."""
    here, start = (0.0, 0.0), (0.0, 0.0)
    points: list[Point] = []
    command, waiting = "", list[float]()
    for found in PATH_TOKEN.finditer(text):
        letter, number, other = found.groups("")
        if other:
            break
        if letter:
            if letter in "Zz":
                if points:
                    yield points, True
                points, here = [], start
            command, waiting = letter, []
            continue
        waiting.append(float(number))
        if len(waiting) < (1 if command in "HhVv" and command else 2):
            continue
        if not command or command in "Zz":
            break
        here = _moved(command, waiting, here)
        if command in "Mm":
            if len(points) > 1:
                yield points, False
            points, start = [here], here
            command = "L" if command == "M" else "l"
        else:
            if not points:
                points.append(start)
            points.append(here)
            if len(points) > MOST_POINTS:
                raise _LeftOut(_("it has too many points"))
        waiting = []
    if points:
        yield points, False


def _moved(command: str, v: list[float], here: Point) -> Point:
    x, y = here
    match command:
        case "H":
            return (v[0], y)
        case "h":
            return (x + v[0], y)
        case "V":
            return (x, v[0])
        case "v":
            return (x, y + v[0])
        case "m" | "l":
            return (x + v[0], y + v[1])
    return (v[0], v[1])


_SHAPES: dict[str, Maker] = {
    "polygon": _polygon, "polyline": _polyline, "line": _line, "rect": _rect, "circle": _circle, "ellipse": _ellipse,
    "path": _path,
}  # fmt: skip
