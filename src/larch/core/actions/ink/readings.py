"""Ink exchanged for what it was read as: shapes, mathematics, words. The ink stays behind type and can be brought back."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from itertools import pairwise
from typing import Any

from larch.core.actions.ink.near_truth import LEVEL, circle_near, levelled, line_near, marked
from larch.core.base.shape import Box, Placement, Point, box_of, union
from larch.core.base.words import N_, _
from larch.core.figures.settle import settle
from larch.core.model.action import Action, Things, put, register, through
from larch.core.model.capabilities import Joinable
from larch.core.model.edit import Edit, replaced_by
from larch.core.model.page import Page
from larch.core.model.paper import writing_line
from larch.core.model.thing import Thing
from larch.core.things.geometry.angle import Angle
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.ellipse import Ellipse
from larch.core.things.geometry.line import Line
from larch.core.things.geometry.polygon import polygon_on
from larch.core.things.geometry.polyline import Polyline
from larch.core.things.graphs.equation import Equation
from larch.core.things.ink.ink import Ink, track
from larch.core.things.ink.mark import Mark
from larch.core.things.organisers.brace import DEEP, LEAST, MOST, SHALLOW, Brace
from larch.core.things.organisers.connector import Connector
from larch.core.things.organisers.table import Table
from larch.core.things.words.text import Text

NEAR = 28.0  # page units from a box within which a line begins or ends at it
DIGIT, LETTER = 0.66, 0.5  # heights of a digit and of an x, of the size of type
SMALLEST, LARGEST = 14.0, 300.0
ON_LINE = 0.35  # of the distance of the lines of a paper, within which words stand on one
SHAPES = {
    "line": N_("line"), "arrow": N_("arrow"), "circle": N_("circle"), "ellipse": N_("ellipse"), "arc": N_("arc"),
    "angle": N_("angle"), "square": N_("square"), "rectangle": N_("rectangle"), "rhombus": N_("rhombus"),
    "parallelogram": N_("parallelogram"), "trapezium": N_("trapezium"), "kite": N_("kite"), "pentagon": N_("pentagon"),
    "hexagon": N_("hexagon"), "octagon": N_("octagon"), "star": N_("star"), "triangle_scalene": N_("triangle"),
    "triangle_isosceles": N_("isosceles triangle"), "triangle_right": N_("right-angled triangle"),
    "triangle_equilateral": N_("equilateral triangle"), "table": N_("table"), "polyline": N_("polyline"), "tick": N_("tick"),
    "brace": N_("brace"),
}  # fmt: skip
KEEPS = {  # while its corners are dragged
    "square": "regular", "rectangle": "rectangle", "rhombus": "rhombus", "parallelogram": "parallelogram",
    "triangle_equilateral": "regular", "pentagon": "regular", "hexagon": "regular", "octagon": "regular",
}  # fmt: skip


def inks_of(things: Things) -> list[Ink]:
    """The ink among things that can be read: written with anything but a highlighter, and free to be changed."""
    return [
        thing
        for thing in things
        if isinstance(thing, Ink) and thing.points and thing.nib != "highlighter" and not thing.locked
    ]


def strokes_of(inks: Sequence[Ink]) -> list[list[Point]]:
    """As runs of places of the page."""
    found = []
    for ink in inks:
        values = memoryview(track(ink)).cast("f")
        found.append([ink.placement.to_page(x, y) for x, y in zip(values[0::4], values[1::4], strict=True)])
    return found


def hue_of(inks: Sequence[Ink]) -> str:
    """The colour in which most was written."""
    counts: Counter[str] = Counter()
    for ink in inks:
        counts[ink.hue] += len(ink.points)
    return counts.most_common(1)[0][0]


def exchanged(page: Page, inks: Sequence[Ink], made: Sequence[Thing], label: str, said: str) -> Edit:
    edit = put(page.without([ink.id for ink in inks]), made, label)
    return Edit(label, page, edit.after, select=edit.select, said=said)


def _keeping(thing: Any, inks: Sequence[Ink]) -> Any:
    """With its ink behind it."""
    own = tuple(ink.replace(placement=ink.placement.within(thing.placement)) for ink in inks)
    return thing.replace(written=own)


# Shapes


def shaped(page: Page, inks: Sequence[Ink], reading: Mapping[str, Any]) -> Edit:
    """reading: as `shape_answer` gives it. Raises ValueError where it is none."""
    kind = reading["kind"]
    if kind not in SHAPES:
        raise ValueError(_("That is no shape that Larch knows."))
    joining = _joining(page, inks, reading) if kind in ("line", "arrow") else None
    if joining is not None:
        after = settle(page.without([ink.id for ink in inks]).put(joining))
        return Edit(_("True up"), page, after, select=(after.things[-1].id,))
    thing, near = _shape(page.without([ink.id for ink in inks]), kind, reading, hue_of(inks))
    assumed = [_(SHAPES[kind])] if near or kind not in ("line", "arrow", "star") else []
    said = _("Taken for: {shape}").format(shape=", ".join([*assumed, *([near] if near else [])])) if assumed else ""
    return exchanged(page, inks, [thing], _("True up"), said)


def _joining(page: Page, inks: Sequence[Ink], reading: Mapping[str, Any]) -> Connector | None:
    """A line from one box to another, which stays with them; None where it does not begin and end at two."""
    ids = {ink.id for ink in inks}
    joined = [thing for thing in page.things if isinstance(thing, Joinable) and thing.id not in ids]
    found = []
    for x, y in reading["vertices"]:
        near = [thing for thing in joined if thing.box().grown(NEAR).holds(x, y)]
        found.append(near[-1].id if near else "")
    if "" in found or found[0] == found[1]:
        return None
    arrows = "end" if reading["kind"] == "arrow" else "none"
    return Connector(rule="connect", of=(found[0], found[1]), arrows=arrows, hue=hue_of(inks))


def _shape(page: Page, kind: str, reading: Mapping[str, Any], hue: str) -> tuple[Thing, str]:
    """And what else was taken to be true of it, in words."""
    places = [tuple(place) for place in reading["vertices"]]
    match kind:
        case "circle":
            x, y = reading["center"]
            return circle_near(page, Circle(radius=reading["radii"][0], placement=Placement(x, y), hue=hue))
        case "ellipse":
            (x, y), (a, b) = reading["center"], reading["radii"]
            turn = -reading["angle"] % 180
            turn = next((level for level in (0.0, 90.0, 180.0) if abs(turn - level) < LEVEL), turn) % 180
            return Ellipse(rx=a, ry=b, placement=Placement(x, y, turn), hue=hue), ""
        case "line" | "arrow":
            (a, b), near = line_near(page, places)
            return Line(ends=(a, b), reach="vector" if kind == "arrow" else "segment", hue=hue), near
        case "arc":
            return _arc(places, hue), ""
        case "angle":
            one, corner, other = places
            arms = tuple((x - corner[0], y - corner[1]) for x, y in (one, other))
            return Angle(arms=(arms[0], arms[1]), way_round="inner", placement=Placement(*corner), hue=hue), ""
        case "table" | "polyline" | "tick" | "brace":
            return _marks_out(kind, reading, places, hue), ""
        case "star":
            places = _star(places)
    level = levelled(places) if kind != "star" else places
    made = polygon_on(page, level, keeps=KEEPS.get(kind, ""), hue=hue)
    return (made if kind == "star" else marked(made)), ""


def _marks_out(kind: str, reading: Mapping[str, Any], places: list[Point], hue: str) -> Thing:
    """What is told by a rule of its own."""
    if kind == "table":
        xs, ys = reading["xs"], reading["ys"]
        columns, rows = (_alike([b - a for a, b in pairwise(lines)]) for lines in (xs, ys))
        return Table(columns=columns, rows=rows, header=False, hue=hue, placement=Placement(xs[0], ys[0]))
    if kind == "polyline":
        return Polyline(vertices=tuple(places), hue=hue)
    if kind == "tick":
        box = box_of(places)
        size = min(LARGEST, max(SMALLEST, box.width, box.height))
        return Mark(shape="tick", size=size, hue=hue, placement=Placement(*box.centre))
    start, tip, end = places
    if (end[0] - start[0]) * (tip[1] - start[1]) - (end[1] - start[1]) * (tip[0] - start[0]) < 0:
        start, end = end, start  # so that the tip points down in its own coordinates
    long = math.dist(start, end)
    ux, uy = (end[0] - start[0]) / long, (end[1] - start[1]) / long
    deep = abs((tip[0] - start[0]) * uy - (tip[1] - start[1]) * ux)
    turn = math.degrees(math.atan2(-uy, ux))
    level = round(turn / 90) * 90
    turn = float(level) if abs(turn - level) < LEVEL else turn
    return Brace(
        long=min(max(long, LEAST), MOST), deep=min(max(deep, SHALLOW), DEEP), hue=hue, placement=Placement(*start, turn)
    )


def _alike(sizes: list[float]) -> tuple[float, ...]:
    """Sizes that a hand meant to be the same, as the same."""
    usual = sum(sizes) / len(sizes)
    return tuple([usual] * len(sizes) if all(abs(size - usual) < 0.25 * usual for size in sizes) else sizes)


def _arc(places: Sequence[Point], hue: str) -> Circle:
    (ax, ay), (mx, my), (bx, by) = places
    d = 2 * (ax * (my - by) + mx * (by - ay) + bx * (ay - my))
    if abs(d) < 1e-9:
        raise ValueError(_("That is no shape that Larch knows."))
    squares = [x * x + y * y for x, y in places]
    x = (squares[0] * (my - by) + squares[1] * (by - ay) + squares[2] * (ay - my)) / d
    y = (squares[0] * (bx - mx) + squares[1] * (ax - bx) + squares[2] * (mx - ax)) / d
    first, middle, last = (math.degrees(math.atan2(y - py, px - x)) % 360 for px, py in places)
    span = (last - first) % 360
    if (middle - first) % 360 > span:  # the other way round
        first, span = last, 360 - span
    return Circle(
        radius=math.dist((x, y), places[0]), piece="arc", start=first, span=span, placement=Placement(x, y), hue=hue
    )


def _star(tips: Sequence[Point]) -> list[Point]:
    """Ten corners from five tips, the inner ones where the lines from tip to tip cross."""
    x0, y0 = sum(x for x, _y in tips) / 5, sum(y for _x, y in tips) / 5
    share = math.cos(math.radians(72)) / math.cos(math.radians(36))
    made: list[Point] = []
    for k, tip in enumerate(tips):
        following = tips[(k + 1) % 5]
        mx, my = (tip[0] + following[0]) / 2 - x0, (tip[1] + following[1]) / 2 - y0
        grown = share / math.cos(math.radians(36))
        made += [tip, (x0 + mx * grown, y0 + my * grown)]
    return made


# Mathematics


def as_mathematics(page: Page, inks: Sequence[Ink], source: str, extent: Callable[[Thing], Box]) -> Edit:
    """As an equation of the height of the writing, in its place and colour. extent: of a thing as it is set."""
    from larch.core.actions.equations.plotting import plotted

    box = union(ink.box() for ink in inks)
    heights = sorted(ink.box().height for ink in inks)
    tall = max(heights[int(0.7 * (len(heights) - 1))], 0.25 * box.height, 8.0)
    size = min(LARGEST, max(SMALLEST, tall / DIGIT))
    made = Equation(source=source, size=size, hue=hue_of(inks))
    own = extent(made)
    middle = box.centre
    made = made.replace(placement=Placement(middle[0] - own.width / 2, middle[1] - own.height / 2))
    bare = page.without([ink.id for ink in inks])
    made = plotted(bare, _keeping(made, inks), (own.width, own.height))
    return exchanged(page, inks, [made], _("Tidy to mathematics"), "")


# Words


def as_words(page: Page, inks: Sequence[Ink], words: Sequence[Mapping[str, Any]], texts: Sequence[str]) -> Edit:
    """Each word a text of its own, on the line on which it was written, at the height of its small letters and in its
    colour. words: as `words_answer` gives them, `strokes` counting the inks; texts: what each is taken for."""
    made = []
    for word, text in zip(words, texts, strict=True):
        own = [inks[k] for k in word["strokes"]]
        size = min(LARGEST, max(SMALLEST, word["x_height"] / LETTER))
        base = word["baseline"]
        line = writing_line(page.paper, base)
        if line is not None and abs(line - base) <= ON_LINE * page.paper.step:
            base = line
        thing = Text(text=text, size=size, hue=hue_of(own))
        thing = thing.replace(placement=Placement(word["box"][0], base - thing.base()))
        made.append(_keeping(thing, own))
    return exchanged(page, inks, made, _("Tidy to words"), "")


# Back to ink


def _written(page: Page | None, things: Things) -> bool:
    return bool(things) and all(isinstance(thing, Text | Equation) and thing.written for thing in things)


def _back(page: Page, things: Things) -> Edit:
    instead = {}
    for thing in things:
        inks = getattr(thing, "written", ())
        instead[thing.id] = [ink.replace(placement=ink.placement.on(thing.placement)) for ink in inks]
    return replaced_by(page, instead, _("Bring the ink back"))


# Read otherwise


def written_in(things: Things) -> tuple[str, list[Ink]] | None:
    """How the one thing of a selection that was written by hand is read, and its ink as it lies on the page."""
    if len(things) != 1 or not _written(None, things):
        return None
    (thing,) = things
    inks = [ink.replace(placement=ink.placement.on(thing.placement)) for ink in getattr(thing, "written", ())]
    return ("maths" if isinstance(thing, Equation) else "words"), inks


def plain_of(thing: Thing) -> str:
    return thing.source if isinstance(thing, Equation) else thing.plain_text() if isinstance(thing, Text) else ""


def read_otherwise(page: Page, thing: Thing, text: str, extent: Callable[[Thing], Box] | None = None) -> Edit:
    """Its words or its source exchanged; an equation stays about its middle. extent: of a thing as it is set."""
    made: Any = thing
    if isinstance(thing, Text):
        made = thing.replace(text=text)
    elif isinstance(thing, Equation):
        made = thing.typed(text)
        if extent is not None:
            rise = (extent(thing).height - extent(made).height) / 2 * thing.placement.scale
            made = made.replace(placement=made.placement.moved(0.0, rise))
    return Edit(_("Read otherwise"), page, page.with_things({thing.id: made}))


def _reads(page: Page, things: Things) -> bool:
    return bool(things) and len(inks_of(things)) == len(things)


register(
    (
        through("read shape", N_("true up"), "shapes", _reads, 3),
        through("read maths", N_("to mathematics"), "square-function", _reads, 4),
        through("read words", N_("to words"), "type", _reads, 5),
    ),
    Ink,
)
for _kind in (Text, Equation):
    register(
        (
            Action("ink back", lambda p, ts: _("bring the ink back"), "pencil", _back, _written, rank=28, board=True,
                   words=N_("handwriting undo original")),
        ),
        _kind,
    )  # fmt: skip
    register(
        (through("read again", N_("other readings"), "list-ordered", lambda p, ts: written_in(ts) is not None, 27),), _kind
    )
