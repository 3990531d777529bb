"""Setting rows of mathematics in type by the rules of STIX Two Math's MATH table.

Spacing by class after Knuth, The TeXbook (1984), chapter 18; shifts, gaps and growth from the table. Ems, y downwards.
"""

from __future__ import annotations

from functools import lru_cache

from larch.board.typeset.boxes import (
    Bar,
    Mark,
    Path,
    Place,
    Setting,
    Stop,
    beside,
    constant,
    index_of,
    measured,
    paint_setting,
    raised,
    space,
    stretched,
    table,
    typed,
)
from larch.core.base.memo import remember
from larch.core.base.signs import AS_WRITTEN, signs_in_use
from larch.core.maths.expression.tree import Node
from larch.core.maths.expression.words import UNITS
from larch.core.maths.layout.as_seen import as_seen
from larch.core.maths.layout.from_tree import row_of
from larch.core.maths.layout.rows import Fence, Fraction, Grid, Item, Limits, Lowered, Over, Raised, Root, Row, Sign

PART = 0.8  # of the size, for the parts of a fraction
LEAST = 0.45  # no sign is set smaller
RULE = 0.055
THIN, MEDIUM, THICK = 3 / 18, 4 / 18, 5 / 18
EMPTY = (0.62, 0.72, 0.06)  # width, height and depth of an empty place
WORDS = frozenset({"and", "or", "if", "otherwise", "mod"})
BINARY = frozenset("+−⋅×÷±∓·*∘:")
RELATION = frozenset("=<>≤≥≠→≈∈")
OPENING, CLOSING, PUNCTUATION = frozenset("([{⌊⌈"), frozenset(")]}⌋⌉!%°‰'"), frozenset(",;")
# Space between neighbours by their classes: ordinary, operator, binary, relation, opening, closing, punctuation, inner.
SPACES = {
    ("o", "l"): THIN, ("l", "o"): THIN, ("l", "l"): THIN, ("l", "x"): THIN, ("x", "l"): THIN, ("c", "l"): THIN,
    ("x", "o"): 0.06, ("o", "x"): 0.06, ("x", "x"): 0.1, ("c", "x"): 0.06, ("x", "p"): 0.06, ("t", "o"): THIN,
    ("t", "l"): THIN, ("t", "p"): THIN, ("t", "x"): THIN, ("t", "b"): THIN, ("o", "u"): 0.2, ("c", "u"): 0.2,
    ("x", "u"): 0.2, ("u", "u"): 0.1,
}  # fmt: skip


def italic(character: str) -> str:
    """The slanted form of a letter."""
    if character == "h":
        return "ℎ"
    if "a" <= character <= "z":
        return chr(0x1D44E + ord(character) - ord("a"))
    if "A" <= character <= "Z":
        return chr(0x1D434 + ord(character) - ord("A"))
    if "α" <= character <= "ω":
        return chr(0x1D6FC + ord(character) - ord("α"))
    return character


def set_row(row: Row) -> Setting:
    """A row in type, with the signs of the lesson, and a caret's places in it and in all its inner rows."""
    signs = signs_in_use()
    return _whole(row if signs is AS_WRITTEN else as_seen(row, signs))


@lru_cache(512)
def _whole(row: Row) -> Setting:
    """While something is dragged the same rows are set in every frame."""
    return _set(row)


def _set(row: Row, size: float = 1.0, path: Path = (), level: int = 0) -> Setting:
    """`level`: how many scripts deep."""
    if not row:
        wide, up, down = (part * size for part in EMPTY)
        hollow = Place(0, -up, wide, up + down, path)
        return Setting(wide, up, down, (hollow,), (Stop(path, 0, wide / 2, -up, down),))
    boxes: list[tuple[str, Setting, int]] = []
    k = 0
    while k < len(row):
        item = row[k]
        if isinstance(item, Raised | Lowered):  # at nothing: at an empty place
            base, start = Setting(0.0, 0.45 * size, 0.0), k
            kind = "o"
        else:
            kind, base = _class_of(item, row, k), _item(item, size, (*path, (k, 0))[:-1], k, level)
            start, k = k, k + 1
        while k < len(row) and isinstance(row[k], Raised | Lowered):
            second = row[k + 1] if k + 1 < len(row) else None
            both = isinstance(second, Raised | Lowered) and type(second) is not type(row[k])
            base = _scripts(base, row, k, both, size, path, level)
            k += 2 if both else 1
        boxes.append((kind, base, start))
    return _spaced(boxes, row, size, path, level)


def _spaced(boxes: list[tuple[str, Setting, int]], row: Row, size: float, path: Path, level: int) -> Setting:
    x = above = below = 0.0
    marks: list[Mark] = []
    stops: list[Stop] = []
    before = ""
    starts: dict[int, float] = {}
    for position, (kind, box, start) in enumerate(boxes):
        following = boxes[position + 1][0] if position + 1 < len(boxes) else ""
        if kind == "b" and (before in ("", "b", "r", "p", "t", "l") or following in ("", "r", "t", "c")):
            kind = "s"  # a sign before a number
        gap = _gap(before, kind, size) if level == 0 else (0.5 * _gap(before, kind, size) if "r" in (before, kind) else 0.0)
        x += gap
        starts[start] = x - gap / 2
        marks += box.shifted(x, 0)
        stops += box.stops_at(x, 0)
        x += box.width
        above, below = max(above, box.above), max(below, box.below)
        before = kind
    top, bottom = -max(above, 0.72 * size), max(below, 0.2 * size)
    own = [Stop(path, k, at, top, bottom) for k, at in starts.items()]
    own.append(Stop(path, len(row), x, top, bottom))
    known = {stop.part for stop in own}
    for k in range(len(row)):  # before a script: where it begins
        if k not in known:
            inner = [stop.x for stop in stops if stop.path[: len(path)] == path and stop.path[len(path) :][:1] == ((k, 0),)]
            own.append(Stop(path, k, min(inner, default=x) - 0.04 * size, top, bottom))
    lean = boxes[-1][1].lean if boxes else 0.0
    return Setting(x, above, below, tuple(marks), (*sorted(own, key=lambda s: s.part), *stops), lean)


def _gap(before: str, kind: str, size: float) -> float:
    if not before:
        return 0.0
    if "w" in (before, kind):
        return 0.3 * size
    if "r" in (before, kind):
        return 0.0 if before == kind else THICK * size
    if "b" in (before, kind):
        return MEDIUM * size
    return SPACES.get((before, kind), 0.0) * size


def _class_of(item: Item, row: Row, k: int) -> str:
    """o ordinary, s a sign before a number, l operator, b binary, r relation, p opening, c closing, t punctuation, x inner,
    w word."""
    match item:
        case Sign(text):
            if text in WORDS:
                return "w"
            if len(text) > 1 and text.isalpha():
                return "u" if text in UNITS else "l"
            if text == "," and signs_in_use().decimal == "," and 0 < k < len(row) - 1:
                return "o"  # whatever else parts numbers is a semicolon
            if text in BINARY:
                return "b"
            if text in RELATION:
                return "r"
            return "p" if text in OPENING else "c" if text in CLOSING else "t" if text in PUNCTUATION else "o"
        case Fraction() | Grid():
            return "x"
        case Limits():
            return "l"
        case Fence():
            function = k and isinstance(before := row[k - 1], Sign) and len(before.text) > 1
            return "c" if function else "o"
    return "o"


def _smaller(size: float, level: int) -> float:
    share = constant("script_scale") if level == 0 else constant("script_script_scale") / constant("script_scale")
    return max(LEAST, size * share)


def _item(item: Item, size: float, path: Path, k: int, level: int) -> Setting:
    def inner(index: int, row: Row, share: float = 1.0, deeper: int = 0) -> Setting:
        return _set(row, max(LEAST, size * share), (*path, (k, index)), level + deeper)

    match item:
        case Sign(text, hue):
            return _sign(text, size, hue)
        case Fraction(above, below, hue):
            share = PART if size * PART >= LEAST else 1.0
            return _fraction(inner(0, above, share), inner(1, below, share), size, hue)
        case Root(of, None, hue):
            return _root(inner(0, of), size, None, hue)
        case Root(of, degree, hue):
            return _root(inner(1, of), size, inner(0, degree or (), 0.6, 1), hue)
        case Fence(left, of, right, hue):
            return _fenced(inner(0, of), left, right, size, hue)
        case Limits(sign, low, high, hue):
            return _limits(sign, low, high, size, (*path, (k, 0)), level, hue)
        case Grid(cells, left, right, hue):
            return _grid(cells, left, right, size, path, k, level, "" if hue == "choose" else hue)
        case Over(mark, of, hue):
            return _over(mark, inner(0, of), size, hue)
    return Setting(0, 0, 0)


def _sign(text: str, size: float, hue: str) -> Setting:
    if len(text) == 1:
        return typed(italic(text), size, hue)
    return typed(text, size, hue)


def _fraction(top: Setting, bottom: Setting, size: float, hue: str) -> Setting:
    rule, axis = RULE * size, constant("axis_height") * size
    gap = max(constant("fraction_num_display_style_gap_min"), 0.12) * size
    up = max(constant("fraction_numerator_shift_up") * size, axis + rule / 2 + gap + top.below)
    down = max(constant("fraction_denominator_shift_down") * size, gap + rule / 2 - axis + bottom.above)
    width = max(top.width, bottom.width) + 0.16 * size
    at, under = (width - top.width) / 2, (width - bottom.width) / 2
    marks = (*top.shifted(at, -up), *bottom.shifted(under, down), Bar(0, -axis - rule / 2, width, rule, hue))
    stops = (*top.stops_at(at, -up), *bottom.stops_at(under, down))
    made = Setting(width, up + top.above, down + bottom.below, marks, stops)
    return beside(space(0.06 * size), made, space(0.06 * size))


def _scripts(base: Setting, row: Row, k: int, both: bool, size: float, path: Path, level: int) -> Setting:
    """A power, an index or both at what stands before them."""
    small = _smaller(size, level)

    def script(at: int) -> Setting:
        item = row[at]
        assert isinstance(item, Raised | Lowered)
        return _set(item.inner, small, (*path, (at, 0)), level + 1)

    places = {type(row[at]): at for at in ((k, k + 1) if both else (k,))}
    up = down = 0.0
    high = script(places[Raised]) if Raised in places else None
    low = script(places[Lowered]) if Lowered in places else None
    if high is not None:
        drop = constant("superscript_baseline_drop_max") * size
        up = max(
            constant("superscript_shift_up") * size,
            base.above - drop,
            high.below + constant("superscript_bottom_min") * size,
        )
    if low is not None:
        drop = constant("subscript_baseline_drop_min") * size
        down = max(
            constant("subscript_shift_down") * size, base.below + drop, low.above - constant("subscript_top_max") * size
        )
    if high is not None and low is not None:
        least = constant("sub_superscript_gap_min") * size
        down = max(down, least - (up - high.below) + low.above)
    after = constant("space_after_script") * size
    width, marks, stops, above, below = base.width, [*base.marks], [*base.stops], base.above, base.below
    for part, rise, lean in ((high, up, base.lean), (low, -down, 0.0)):
        if part is not None:
            marks += part.shifted(base.width + lean, -rise)
            stops += part.stops_at(base.width + lean, -rise)
            width = max(width, base.width + lean + part.width + after)
            above, below = max(above, part.above + rise), max(below, part.below - rise)
    return Setting(width, above, below, tuple(marks), tuple(stops))


def _fenced(inner: Setting, left: str, right: str, size: float, hue: str) -> Setting:
    axis = constant("axis_height") * size
    reach = max(inner.above - axis, inner.below + axis, 0.45 * size)
    needed = 2 * reach * 0.92
    parts = [stretched(mark, needed, size, hue) if mark else space(0) for mark in (left, right)]
    return beside(parts[0], inner, parts[1])


def _root(inner: Setting, size: float, degree: Setting | None, hue: str) -> Setting:
    rule, gap = RULE * size, constant("radical_display_style_vertical_gap") * size
    needed = max(inner.above, 0.5 * size) + inner.below + gap + rule
    sign = stretched("√", needed, size, hue)
    tall = sign.above + sign.below
    top = max(inner.above, 0.5 * size) + gap + rule + max(0.0, (tall - needed) / 2)
    drop = sign.above - top  # so much the sign is moved downwards
    x = sign.width
    bar = Bar(x - 0.02 * size, -top, inner.width + 0.1 * size, rule, hue)
    marks = (*sign.shifted(0, drop), bar, *inner.shifted(x + 0.03 * size, 0))
    made = Setting(
        x + inner.width + 0.14 * size, top, max(inner.below, tall - top), marks, inner.stops_at(x + 0.03 * size, 0)
    )
    if degree is None:
        return made
    lift = constant("radical_degree_raise") * tall - (tall - top)
    pushed = max(0.0, degree.width + constant("radical_kern_after_degree") * size)
    both = (*made.shifted(pushed, 0), *degree.shifted(0, -lift))
    stops = (*degree.stops_at(0, -lift), *made.stops_at(pushed, 0))
    return Setting(pushed + made.width, max(made.above, lift + degree.above), made.below, both, stops)


def _limits(sign: str, low: Row, high: Row, size: float, path: Path, level: int, hue: str) -> Setting:
    k = path[-1][0]
    small = _smaller(size, level)
    under = _set(low, small, (*path[:-1], (k, 0)), level + 1) if low or sign != "∫" else Setting(0, 0, 0)
    over = _set(high, small, (*path[:-1], (k, 1)), level + 1) if high or sign in "∑∏" else Setting(0, 0, 0)
    if sign == "lim":
        base = typed("lim", size, hue)
    else:
        tall = constant("display_operator_min_height") if level == 0 else 1.2
        base = stretched(sign, tall * size, size, hue)
    if sign == "∫":
        up, down = base.above - 0.3 * small, base.below - 0.05 * small
        lean = table().italic.get(index_of("∫"), 0.2) * size
        marks = (*base.marks, *over.shifted(base.width + 0.4 * lean, -up), *under.shifted(base.width - 0.5 * lean, down))
        stops = (*under.stops_at(base.width - 0.5 * lean, down), *over.stops_at(base.width + 0.4 * lean, -up))
        width = base.width + max(over.width + 0.4 * lean, under.width - 0.5 * lean, 0.1 * size)
        return Setting(width, max(base.above, up + over.above), max(base.below, down + under.below), marks, stops)
    rise = base.above + constant("upper_limit_gap_min") * size + over.below
    drop = base.below + constant("lower_limit_gap_min") * size + under.above
    width = max(base.width, over.width, under.width)
    at = [(width - part.width) / 2 for part in (base, over, under)]
    marks = (*base.shifted(at[0], 0), *over.shifted(at[1], -rise), *under.shifted(at[2], drop))
    stops = (*under.stops_at(at[2], drop), *over.stops_at(at[1], -rise))
    above = rise + over.above if over.marks else base.above
    return Setting(width, above, drop + under.below if under.marks else base.below, marks, stops)


def _grid(
    cells: tuple[tuple[Row, ...], ...], left: str, right: str, size: float, path: Path, k: int, level: int, hue: str
) -> Setting:
    wide = max(len(line) for line in cells)
    boxes = [
        [_set(cell, size, (*path, (k, i * wide + j)), level) for j, cell in enumerate(line)] for i, line in enumerate(cells)
    ]
    columns = [max(line[j].width for line in boxes if j < len(line)) for j in range(wide)]
    gap_x, gap_y = 0.6 * size, 0.28 * size
    marks: list[Mark] = []
    stops: list[Stop] = []
    y = 0.0
    for line in boxes:
        up, down = max(0.7 * size, *(box.above for box in line)), max(0.2 * size, *(box.below for box in line))
        y += up
        x = 0.0
        for j, box in enumerate(line):
            at = x if left == "{" else x + (columns[j] - box.width) / 2
            marks += box.shifted(at, y)
            stops += box.stops_at(at, y)
            x += columns[j] + gap_x
        y += down + gap_y
    height = y - gap_y
    axis = constant("axis_height") * size
    shift = -height / 2 - axis
    width = sum(columns) + gap_x * (wide - 1)
    inner = Setting(width, height / 2 + axis, height / 2 - axis, tuple(marks), tuple(stops))
    moved = Setting(width, inner.above, inner.below, inner.shifted(0, shift), inner.stops_at(0, shift))
    pad = space(0.12 * size)
    return _fenced(beside(pad, moved, pad), left, right, size, hue)


def _over(mark: str, inner: Setting, size: float, hue: str) -> Setting:
    gap, rule = constant("overbar_vertical_gap") * 0.6 * size, RULE * size
    height = inner.above + gap
    if mark == "bar":
        bar = Bar(0, -height - rule, inner.width, rule, hue)
        return Setting(inner.width, height + 2 * rule, inner.below, (*inner.marks, bar), inner.stops)
    arrow = typed("→", 0.7 * size, hue)
    _advance, up, _down = measured(index_of("→"))
    at = (inner.width - arrow.width) / 2
    lift = height - 0.35 * up * size + 0.1 * size
    return Setting(inner.width, lift + arrow.above, inner.below, (*inner.marks, *arrow.shifted(at, -lift)), inner.stops)


@remember
def set_node(node: Node) -> Setting:
    """The type of a tree."""
    return set_row(row_of(node))


__all__ = ["Bar", "Setting", "paint_setting", "raised", "set_node", "set_row"]
