"""Papers: what is printed under a page, as lines and dots that are computed for any part of it at any size."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from typing import NamedTuple, TypeVar

import msgspec
from msgspec import Struct

from larch.core.base.hues import HUES, hex_of, is_hex, mixed
from larch.core.base.hues import PAPER as SHEET
from larch.core.base.shape import Box, Point
from larch.core.base.words import _
from larch.core.model.fact import Fact, measure, read_number

CLOSEST = 7.0  # pixels; ruling that is closer is thinned out
FINEST, COARSEST = 4.0, 2000.0  # page units a step may be
SPOKE = 15.0  # degrees between the spokes of polar paper
MOST_COLUMNS, MOST_DECIMALS = 7, 3
PALEST = 0.55  # of its strength that ruling keeps, however small it is seen
HEADING = 52.0  # height of the headings of columns
GAP = 0.2  # room above and below a set of four lines, in heights of a capital letter

Whole = TypeVar("Whole")


class Paper(Struct, frozen=True, omit_defaults=True):
    """A pattern and its measures, in page units.

    step: side of a square, height of a line, distance of rings. margin: of a line down the left, 0 for none.
    top: where ruling begins, 0 for everywhere. share: height of an x over that of a capital (handwriting).
    columns, decimals: of a place-value paper. colour: of the paper, lines: of its ruling; a hue's name, #rrggbb or "".
    """

    pattern: str = "plain"
    step: float = 32.0
    margin: float = 0.0
    top: float = 0.0
    share: float = 0.5
    columns: int = 4
    decimals: int = 0
    colour: str = ""
    lines: str = ""

    def replace(self, **changes: object) -> Paper:
        return msgspec.structs.replace(self, **changes)

    def sheet(self) -> str:
        """The colour of the paper itself as #rrggbb: a hue's name means a pale tint of it."""
        if self.colour in HUES:
            return mixed(SHEET, hex_of(self.colour), 0.16)
        return self.colour if is_hex(self.colour) else SHEET

    def ink(self, role: str, scale: float = 1.0) -> str:
        """The colour of a kind of mark as #rrggbb. Seen small, a hairline is as wide as ever, so it is paler."""
        hue = hex_of(self.lines or "slate") if role != "margin" else hex_of(self.lines or "berry")
        strength = {"fine": 0.16, "line": 0.24, "strong": 0.5, "guide": 0.42, "margin": 0.55, "word": 0.9}[role]
        faded = 1.0 if role == "word" else min(1.0, max(PALEST, scale * 1.6))
        return mixed(self.sheet(), hue, strength * faded)


class Pattern(NamedTuple):
    """What a person is told of a pattern: its word, what else it is called, the step it starts with and its measures."""

    label: Callable[[], str]
    words: Callable[[], str]
    icon: str
    step: float
    measures: tuple[str, ...] = ("step",)


PATTERNS: dict[str, Pattern] = {
    "plain": Pattern(lambda: _("plain"), lambda: _("blank empty paper"), "square", 32.0, ()),
    "squared": Pattern(lambda: _("squared"), lambda: _("squares grid paper"), "grid-3x3", 32.0),
    "ruled": Pattern(
        lambda: _("ruled"), lambda: _("lines lined paper writing margin"), "align-justify", 72.0, ("step", "margin", "top")
    ),
    "handwriting": Pattern(
        lambda: _("handwriting"), lambda: _("guide lines four letters writing paper"), "pen-line", 160.0,
        ("step", "share", "margin", "top"),
    ),
    "dotted": Pattern(lambda: _("dotted"), lambda: _("dots points paper geoboard"), "grip", 32.0),
    "isometric": Pattern(lambda: _("isometric"), lambda: _("triangles solids drawing paper"), "box", 40.0),
    "isometric dots": Pattern(lambda: _("isometric dots"), lambda: _("triangles dots solids paper"), "box", 40.0),
    "polar": Pattern(lambda: _("polar"), lambda: _("rings circles angles spokes paper"), "crosshair", 40.0),
    "graph": Pattern(lambda: _("graph paper"), lambda: _("millimetre heavy fives squares"), "chart-line", 16.0),
    "place value": Pattern(
        lambda: _("place value"), lambda: _("columns hundreds tens ones decimals paper"), "columns-3", 32.0,
        ("columns", "decimals", "top"),
    ),
}  # fmt: skip


def fresh_paper(pattern: str) -> Paper:
    """A paper with the measures it usually has."""
    paper = Paper(pattern, PATTERNS[pattern].step)
    if pattern == "ruled":
        return paper.replace(margin=112.0)
    return paper.replace(top=96.0) if pattern == "place value" else paper


class Ruling(NamedTuple):
    """Marks of one kind. lines: x0, y0, x1, y1; rings: x, y, radius; labels: the middle, a text and its size."""

    role: str
    lines: list[tuple[float, float, float, float]] = []
    dots: list[Point] = []
    rings: list[tuple[float, float, float]] = []
    labels: list[tuple[float, float, str, float]] = []


def rulings(paper: Paper, size: tuple[float, float], box: Box, scale: float) -> list[Ruling]:
    """The marks of a paper that meet a box, for a printed part of `size` seen at `scale` pixels to a unit.

    Marks that would stand closer than CLOSEST pixels are thinned out or left away. Unknown patterns are plain.
    """
    make = _MAKERS.get(paper.pattern)
    if make is None or not (FINEST <= paper.step <= COARSEST) or scale <= 0:
        return []
    found = make(paper, size, box, scale)
    if paper.margin > 0 and "margin" in PATTERNS[paper.pattern].measures and box.x0 <= paper.margin <= box.x1:
        found.append(Ruling("margin", [(paper.margin, box.y0, paper.margin, box.y1)]))
    return found


def _thinned(step: float, scale: float, by: int) -> float:
    """The step, or a multiple of it that can be told apart; 0 if none of them can."""
    for _again in range(3):
        if step * scale >= CLOSEST:
            return step
        step *= by
    return 0.0


def _multiples(step: float, low: float, high: float) -> range:
    return range(math.ceil(low / step), math.floor(high / step) + 1)


def _squares(step: float, box: Box) -> list[tuple[float, float, float, float]]:
    lines = [(k * step, box.y0, k * step, box.y1) for k in _multiples(step, box.x0, box.x1)]
    return lines + [(box.x0, k * step, box.x1, k * step) for k in _multiples(step, box.y0, box.y1)]


def _squared(paper: Paper, size: tuple[float, float], box: Box, scale: float) -> list[Ruling]:
    step = _thinned(paper.step, scale, 5)
    return [Ruling("line", _squares(step, box))] if step else []


def _graph(paper: Paper, size: tuple[float, float], box: Box, scale: float) -> list[Ruling]:
    """Fine squares, every fifth line heavier and every tenth heavier still."""
    made = []
    for role, factor in (("fine", 1), ("line", 5), ("strong", 10)):
        if paper.step * factor * scale >= CLOSEST:
            made.append(Ruling(role, _squares(paper.step * factor, box)))
    return made


def _rows(paper: Paper, box: Box, above: float) -> range:
    """Numbers of the rows that meet a box, where row k ends at top + k · step; rows begin below `top` if there is one."""
    rows = range(math.floor((box.y0 - paper.top) / paper.step), math.ceil((box.y1 - paper.top + above) / paper.step) + 1)
    return range(max(rows.start, 0), rows.stop) if paper.top > 0 else rows


def _ruled(paper: Paper, size: tuple[float, float], box: Box, scale: float) -> list[Ruling]:
    if paper.step * scale < CLOSEST:
        return []
    rows = _rows(paper, box, 0)
    return [Ruling("strong", [(box.x0, paper.top + k * paper.step, box.x1, paper.top + k * paper.step) for k in rows])]


def four_lines(paper: Paper) -> tuple[float, float, float, float]:
    """Heights of the lines of a set below the top of its row: capital, x, base, descender."""
    share = min(0.9, max(0.1, paper.share))
    capital = paper.step / (2 + 2 * GAP - share)
    first = GAP * capital
    return (first, first + (1 - share) * capital, first + capital, first + (2 - share) * capital)


def writing_line(paper: Paper, y: float) -> float | None:
    """The height of the line on which letters stand that is nearest to a height; None on paper that is not written on."""
    if paper.pattern == "ruled":
        first = 0.0
    elif paper.pattern == "handwriting":
        first = four_lines(paper)[2]
    else:
        return None
    row = max(0, round((y - paper.top - first) / paper.step))
    return paper.top + first + row * paper.step


def _handwriting(paper: Paper, size: tuple[float, float], box: Box, scale: float) -> list[Ruling]:
    if paper.step * scale < 3 * CLOSEST:
        return []
    made = []
    rows = _rows(paper, box, paper.step)
    for role, down in zip(("line", "guide", "strong", "line"), four_lines(paper), strict=True):
        heights = [paper.top + k * paper.step + down for k in rows]
        made.append(Ruling(role, [(box.x0, y, box.x1, y) for y in heights if box.y0 <= y <= box.y1]))
    return made


def _dotted(paper: Paper, size: tuple[float, float], box: Box, scale: float) -> list[Ruling]:
    step = _thinned(paper.step, scale / 2, 2)
    if not step:
        return []
    down = _multiples(step, box.y0, box.y1)
    return [Ruling("strong", dots=[(i * step, j * step) for i in _multiples(step, box.x0, box.x1) for j in down])]


RISE = 1 / math.sqrt(3)


def _isometric(paper: Paper, size: tuple[float, float], box: Box, scale: float) -> list[Ruling]:
    """Three families of lines through the corners of equilateral triangles with one side upright."""
    step = _thinned(paper.step, scale / 2, 2)  # slanting lines cost more and crowd sooner
    if not step:
        return []
    across = step * math.sqrt(3) / 2
    lines = [(k * across, box.y0, k * across, box.y1) for k in _multiples(across, box.x0, box.x1)]
    for rise in (RISE, -RISE):
        starts = [y - rise * x for x in (box.x0, box.x1) for y in (box.y0, box.y1)]
        for k in _multiples(step, min(starts), max(starts)):
            lines.append((box.x0, rise * box.x0 + k * step, box.x1, rise * box.x1 + k * step))
    return [Ruling("line", lines)]


def _isometric_dots(paper: Paper, size: tuple[float, float], box: Box, scale: float) -> list[Ruling]:
    step = _thinned(paper.step, scale / 2, 2)
    if not step:
        return []
    across = step * math.sqrt(3) / 2
    dots = []
    for i in _multiples(across, box.x0, box.x1):
        shift = step / 2 if i % 2 else 0.0
        dots += [(i * across, j * step + shift) for j in _multiples(step, box.y0 - shift, box.y1 - shift)]
    return [Ruling("strong", dots=dots)]


def _polar(paper: Paper, size: tuple[float, float], box: Box, scale: float) -> list[Ruling]:
    """Rings about the middle of the printed part, and spokes that leave the innermost ring free for their crossing."""
    step = _thinned(paper.step, scale, 2)
    if not step:
        return []
    cx, cy = size[0] / 2, size[1] / 2
    nearest = math.hypot(max(box.x0 - cx, 0, cx - box.x1), max(box.y0 - cy, 0, cy - box.y1))
    farthest = max(math.hypot(x - cx, y - cy) for x, y in box.corners())
    rings = [(cx, cy, k * step) for k in _multiples(step, max(nearest, step), farthest)]
    spokes: dict[str, list[tuple[float, float, float, float]]] = {"line": [], "strong": []}
    for k in range(round(360 / SPOKE)):
        angle = math.radians(k * SPOKE)
        main = k * SPOKE % 90 == 0
        start, c, s = 0.0 if main else step, math.cos(angle), math.sin(angle)
        end = max(farthest, step)
        spokes["strong" if main else "line"].append((cx + c * start, cy + s * start, cx + c * end, cy + s * end))
    return [Ruling("line", spokes["line"], rings=rings), Ruling("strong", spokes["strong"])]


def column_names(columns: int, decimals: int) -> list[str]:
    """Headings of place-value columns, the largest first."""
    whole = [
        _("ones"), _("tens"), _("hundreds"), _("thousands"), _("ten thousands"), _("hundred thousands"), _("millions")
    ]  # fmt: skip
    parts = [_("tenths"), _("hundredths"), _("thousandths")]
    return [*reversed(whole[: max(1, min(columns, MOST_COLUMNS))]), *parts[: max(0, min(decimals, MOST_DECIMALS))]]


def column_edges(paper: Paper, size: tuple[float, float]) -> list[float]:
    """Where the columns begin and end, from left to right."""
    count = len(column_names(paper.columns, paper.decimals))
    return [size[0] * k / count for k in range(count + 1)]


def _place_value(paper: Paper, size: tuple[float, float], box: Box, scale: float) -> list[Ruling]:
    names, edges = column_names(paper.columns, paper.decimals), column_edges(paper, size)
    wide = edges[1] - edges[0]
    below = paper.top + HEADING
    lines = [(x, paper.top, x, max(box.y1, below)) for x in edges[1:-1]]
    point = edges[len(names) - max(0, min(paper.decimals, MOST_DECIMALS))]
    strong = [(0.0, below, size[0], below)]
    dots: list[Point] = []
    if paper.decimals > 0:
        lines = [line for line in lines if line[0] != point]
        strong.append((point, paper.top, point, max(box.y1, below)))
        dots = [(point, below - HEADING / 2)]
    letters = max(len(name) for name in names)
    type_size = min(30.0, wide * 0.9 / (letters * 0.56))
    middle = paper.top + HEADING / 2
    labels = [(edges[i] + wide / 2, middle, name, type_size) for i, name in enumerate(names)]
    return [Ruling("line", lines), Ruling("strong", strong, dots), Ruling("word", labels=labels)]


_MAKERS: dict[str, Callable[[Paper, tuple[float, float], Box, float], list[Ruling]]] = {
    "squared": _squared, "ruled": _ruled, "handwriting": _handwriting, "dotted": _dotted, "isometric": _isometric,
    "isometric dots": _isometric_dots, "polar": _polar, "graph": _graph, "place value": _place_value,
}  # fmt: skip


def paper_facts(paper: Paper, unit: float, whole: Callable[[Paper], Whole]) -> Iterator[Fact]:
    """What can be said of a paper and set. `whole` puts a changed paper into what it belongs to."""

    def of(**changes: object) -> Whole:
        return whole(paper.replace(**changes))

    def length(field: str, least: float, most: float) -> Callable[[str], Whole]:
        def set_length(typed: str) -> Whole:
            value = read_number(typed) * unit
            if not least <= value <= most:
                limits = _("It can be from {least} to {most} cm.")
                raise ValueError(limits.format(least=f"{least / unit:.3g}", most=f"{most / unit:.3g}"))
            return of(**{field: value})

        return set_length

    def count(field: str, least: int, most: int) -> Callable[[str], Whole]:
        def set_count(typed: str) -> Whole:
            value = read_number(typed)
            if value != int(value) or not least <= value <= most:
                raise ValueError(_("It can be a whole number from {least} to {most}.").format(least=least, most=most))
            return of(**{field: int(value)})

        return set_count

    def share(typed: str) -> Whole:
        value = read_number(typed.strip().rstrip("%")) / 100
        if not 0.1 <= value <= 0.9:
            raise ValueError(_("An x can be 10 % to 90 % as tall as a capital letter."))
        return of(share=value)

    def pattern(typed: str) -> Whole:
        if typed not in PATTERNS:
            raise ValueError(_("There is no paper called “{typed}”.").format(typed=typed[:40]))
        return whole(fresh_paper(typed).replace(colour=paper.colour, lines=paper.lines))

    known = PATTERNS.get(paper.pattern)
    patterns = tuple((name, one.label()) for name, one in PATTERNS.items())
    yield Fact("paper", paper.pattern, "", known.label() if known else paper.pattern, _("paper"), "", pattern, patterns)
    wanted = known.measures if known else ()
    step = {"ruled": _("line height"), "handwriting": _("line height"), "polar": _("ring distance")}
    if "step" in wanted:
        label = step.get(paper.pattern, _("side"))
        yield measure("step", paper.step / unit, "cm", label, 3, set=length("step", FINEST, COARSEST))
    if "share" in wanted:
        yield measure("share", paper.share * 100, "%", _("height of an x"), 0, set=share)
    if "margin" in wanted:
        yield measure("margin", paper.margin / unit, "cm", _("margin"), 3, set=length("margin", 0, 4000))
    if "top" in wanted:
        yield measure("top", paper.top / unit, "cm", _("free at the top"), 3, set=length("top", 0, 4000))
    if "columns" in wanted:
        yield measure("columns", paper.columns, "", _("columns"), 0, set=count("columns", 1, MOST_COLUMNS))
    if "decimals" in wanted:
        yield measure("decimals", paper.decimals, "", _("decimal columns"), 0, set=count("decimals", 0, MOST_DECIMALS))
    yield from _colour_facts(paper, of, bool(known and paper.pattern != "plain"))


def _colour_facts(paper: Paper, of: Callable[..., Whole], ruled: bool) -> Iterator[Fact]:
    def colour(field: str) -> Callable[[str], Whole]:
        def set_colour(typed: str) -> Whole:
            chosen = typed.strip().lower()
            if chosen not in HUES and not is_hex(chosen) and chosen:
                raise ValueError(_("A colour is one of the hues, or written like #f4efe0."))
            return of(**{field: chosen})

        return set_colour

    hues = tuple((hue, _(hue)) for hue in HUES)
    own = () if not is_hex(paper.colour) else ((paper.colour, paper.colour),)
    text = _(paper.colour) if paper.colour else _("natural")
    natural = (("", _("natural")), *hues, *own)
    yield Fact("paper colour", paper.colour, "", text, _("paper colour"), "", colour("colour"), natural)
    if ruled:
        own = () if not is_hex(paper.lines) else ((paper.lines, paper.lines),)
        quiet = (("", _("quiet")), *hues, *own)
        text = _(paper.lines) if paper.lines else _("quiet")
        yield Fact("line colour", paper.lines, "", text, _("line colour"), "", colour("lines"), quiet)
