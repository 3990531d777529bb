"""Setting an expression in type: boxes over STIX Two Math, with the heights of its OpenType MATH table.

Everything is in ems of the body size, x rightwards and y downwards from the baseline.
"""

from __future__ import annotations

from functools import cache
from typing import NamedTuple

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QColor, QFont, QPainter, QPainterPath, QPen, QRawFont

from larch.board.look import ASSETS, load_fonts
from larch.core.base.memo import cache_in_thread, remember
from larch.core.maths.expression.tree import (
    Binary,
    Call,
    Name,
    Negative,
    Node,
    Number,
    Relation,
    strength,
)

EM = 100.0  # pixel size of the raw font; all is scaled from it
SCRIPT = 0.7
FRACTION = 0.86
THIN, MEDIUM, THICK = 0.14, 0.24, 0.3
# Constants of the font's MATH table: AxisHeight, SuperscriptShiftUp; its rule and gap are taken a little lighter.
AXIS, SUPERSCRIPT, RULE, GAP = 0.258, 0.36, 0.05, 0.13
ITALIC = 0x1D44E


class Glyph(NamedTuple):
    character: str
    x: float
    y: float
    across: float
    down: float


class Bar(NamedTuple):
    x: float
    y: float
    width: float
    height: float


class Root(NamedTuple):
    """A root sign: from its left foot, over a content of this size."""

    x: float
    top: float
    bottom: float
    width: float


class Setting(NamedTuple):
    """A box of type: width, height above and depth below the baseline, and what is in it."""

    width: float
    above: float
    below: float
    marks: tuple[Glyph | Bar | Root, ...] = ()

    def shifted(self, dx: float, dy: float) -> tuple[Glyph | Bar | Root, ...]:
        return tuple(_shift(mark, dx, dy) for mark in self.marks)


def _shift(mark: Glyph | Bar | Root, dx: float, dy: float) -> Glyph | Bar | Root:
    if isinstance(mark, Root):
        return Root(mark.x + dx, mark.top + dy, mark.bottom + dy, mark.width)
    return mark._replace(x=mark.x + dx, y=mark.y + dy)


@cache_in_thread
def font() -> QRawFont:
    """For measuring. A raw font may only be used in the thread it was made in."""
    return QRawFont(str(ASSETS / "fonts/STIXTwoMath-Regular.ttf"), EM)


@cache_in_thread
def text_font() -> QFont:
    """For painting, so that an exported equation stays text."""
    load_fonts()
    made = QFont("STIX Two Math")
    made.setPixelSize(int(EM))
    made.setHintingPreference(QFont.HintingPreference.PreferNoHinting)
    return made


@cache
def _glyph(character: str) -> tuple[float, float, float]:
    """Advance, height above and depth below the baseline, in ems."""
    raw = font()
    index = raw.glyphIndexesForString(character)[0]
    advance = raw.advancesForGlyphIndexes([index])[0].x() / EM
    box = raw.boundingRect(index)
    return advance, max(0.0, -box.top() / EM), max(0.0, box.bottom() / EM)


def typed(text: str, size: float = 1.0) -> Setting:
    """Upright characters side by side."""
    x = above = below = 0.0
    marks = []
    for character in text:
        if character == " ":
            x += 0.22 * size
            continue
        advance, up, down = _glyph(character)
        marks.append(Glyph(character, x, 0, size, size))
        x += advance * size
        above, below = max(above, up * size), max(below, down * size)
    return Setting(x, above, below, tuple(marks))


def row(*parts: Setting) -> Setting:
    x = above = below = 0.0
    marks: list[Glyph | Bar | Root] = []
    for part in parts:
        marks += part.shifted(x, 0)
        x += part.width
        above, below = max(above, part.above), max(below, part.below)
    return Setting(x, above, below, tuple(marks))


def space(width: float) -> Setting:
    return Setting(width, 0, 0)


def raised(part: Setting, by: float) -> Setting:
    return Setting(part.width, part.above + by, part.below - by, part.shifted(0, -by))


def over(top: Setting, bottom: Setting, size: float) -> Setting:
    """A fraction: its rule on the mathematical axis."""
    pad = 0.08 * size
    width = max(top.width, bottom.width) + 2 * pad
    rule, gap, axis = RULE * size, GAP * size, AXIS * size
    up = axis + rule / 2 + gap + top.below
    down = axis - rule / 2 - gap - bottom.above
    marks = (
        *top.shifted((width - top.width) / 2, -up),
        *bottom.shifted((width - bottom.width) / 2, -down),
        Bar(0, -axis - rule / 2, width, rule),
    )
    side = 0.06 * size
    inner = Setting(width, up + top.above, bottom.below - down, marks)
    return row(space(side), inner, space(side))


def fenced(inner: Setting, left: str, right: str, size: float) -> Setting:
    """Brackets or bars as tall as what they hold."""
    axis = AXIS * size
    reach = max(inner.above - axis, inner.below + axis, 0.42 * size)
    fences = [_fence(mark, reach, size) for mark in (left, right)]
    return row(fences[0], inner, fences[1])


def _fence(mark: str, reach: float, size: float) -> Setting:
    axis = AXIS * size
    if mark == "|":
        width = 0.24 * size
        bar = Bar(width / 2 - 0.025 * size, -axis - reach, 0.05 * size, 2 * reach)
        return Setting(width, axis + reach, reach - axis, (bar,))
    advance, up, down = _glyph(mark)
    tall = max(1.0, 2 * reach / ((up + down) * size))
    wide = 1 + (tall - 1) * 0.12
    middle = (up - down) / 2 * size * tall
    glyph = Glyph(mark, 0, middle - axis, size * wide, size * tall)
    half = (up + down) / 2 * size * tall
    return Setting(advance * size * wide, axis + half, half - axis, (glyph,))


def root(inner: Setting, size: float, degree: Setting | None = None) -> Setting:
    gap, rule = 0.1 * size, RULE * size
    top = -(inner.above + gap + rule)
    sign = 0.62 * size
    marks = (Root(0, top, inner.below, sign + inner.width + 0.06 * size), *inner.shifted(sign, 0))
    made = Setting(sign + inner.width + 0.1 * size, -top, inner.below, marks)
    if degree is None:
        return made
    lift = max(0.0, (made.above - made.below) * 0.5)
    pushed = max(0.0, degree.width - 0.3 * size)
    mark = degree.shifted(0, -lift)
    return Setting(pushed + made.width, max(made.above, lift + degree.above), made.below, (*made.shifted(pushed, 0), *mark))


SIGNS = {"+": "+", "-": "−", "*": "×"}


def setting(node: Node, size: float = 1.0) -> Setting:
    """Sets a tree in type."""
    match node:
        case Number(_, text):
            return _number(text, size)
        case Name(name):
            return typed(_italic(name), size)
        case Negative(of):
            return row(typed("−", size), _held(of, 3, size))
        case Relation(op, left, right):
            gap = space(THICK * size)
            return row(setting(left, size), gap, typed(op, size), gap, setting(right, size))
        case Call(function, arguments):
            return _call(function, arguments, size)
        case Binary("/", left, right):
            return over(setting(left, size * FRACTION), setting(right, size * FRACTION), size)
        case Binary("^", left, right):
            return _power(left, right, size)
        case Binary("*", left, right):
            return _product(node, left, right, size)
        case Binary(op, left, right):
            gap = space(MEDIUM * size)
            return row(setting(left, size), gap, typed(SIGNS[op], size), gap, _held(right, 2, size))
    raise TypeError(node)


def _italic(name: str) -> str:
    if len(name) == 1 and "a" <= name <= "z" and name != "h":
        return chr(ITALIC + ord(name) - ord("a"))
    return "ℎ" if name == "h" else name


def _number(text: str, size: float) -> Setting:
    if "/" not in text:
        return typed(text, size)
    whole, _space, fraction = text.rpartition(" ")
    top, _slash, bottom = fraction.partition("/")
    made = over(typed(top, size * FRACTION), typed(bottom, size * FRACTION), size)
    return row(typed(whole, size), made) if whole else made


def _held(node: Node, needed: int, size: float) -> Setting:
    """A part of something tighter: in brackets if it is looser. A fraction's rule holds it together by itself."""
    drawn = setting(node, size)
    is_fraction = isinstance(node, Binary) and node.op == "/"
    holds = 4 if is_fraction else strength(node)
    return drawn if holds >= needed else fenced(drawn, "(", ")", size)


def _product(node: Binary, left: Node, right: Node, size: float) -> Setting:
    parts = [_held(left, 2, size)]
    if not node.implied or isinstance(right, Number):
        sign, gap = ("×", MEDIUM) if isinstance(right, Number) else ("⋅", THIN)
        parts += [space(gap * size), typed(sign, size), space(gap * size)]
    elif isinstance(right, Call) and right.function not in ("abs", "sqrt"):
        parts.append(space(THIN * size))
    return row(*parts, _held(right, 3, size))


def _power(left: Node, right: Node, size: float) -> Setting:
    if isinstance(left, Call) and left.function in ("sin", "cos", "tan", "ln", "log"):
        name = typed(left.function, size)
        power = raised(setting(right, size * SCRIPT), 0.4 * size)
        return row(name, power, space(THIN * size), _argument(left.arguments[0], size))
    base = _held(left, 5, size)
    script = setting(right, size * SCRIPT)
    lift = max(SUPERSCRIPT * size, base.above - SUPERSCRIPT * size + script.below)
    return row(base, space(0.03 * size), raised(script, lift))


def _argument(node: Node, size: float) -> Setting:
    simple = isinstance(node, Name | Number) or (isinstance(node, Call) and node.function == "degrees")
    simple = simple or (isinstance(node, Binary) and node.op == "*" and node.implied)
    inner = setting(node, size)
    return inner if simple else fenced(inner, "(", ")", size)


def _call(function: str, arguments: tuple[Node, ...], size: float) -> Setting:
    inner = arguments[0]
    if function == "abs":
        return fenced(setting(inner, size), "|", "|", size)
    if function in ("floor", "ceil"):
        return fenced(setting(inner, size), "⌊" if function == "floor" else "⌈", "⌋" if function == "floor" else "⌉", size)
    if function == "sqrt":
        return root(setting(inner, size), size)
    if function == "cbrt":
        return root(setting(inner, size), size, typed("3", size * 0.6))
    if function == "root":
        return root(setting(inner, size), size, setting(arguments[1], size * 0.6))
    if function in ("factorial", "degrees"):
        return row(_held(inner, 5, size), typed("!" if function == "factorial" else "°", size))
    if len(arguments) == 1 and function in ("sin", "cos", "tan", "ln", "log", "asin", "acos", "atan"):
        return row(typed(function, size), space(THIN * size), _argument(inner, size))
    listed = [setting(inner, size)]
    for more in arguments[1:]:
        listed += [typed(",", size), space(THIN * size), setting(more, size)]
    return row(typed(function, size), fenced(row(*listed), "(", ")", size))


@remember
def set_node(node: Node) -> Setting:
    return setting(node)


def paint_setting(painter: QPainter, made: Setting, at: QPointF, size: float, shade: QColor) -> None:
    """Paints with the baseline's left end at a point, `size` to the em. Glyphs stay text in a PDF."""
    painter.save()
    painter.translate(at)
    painter.scale(size, size)
    painter.setPen(shade)
    for mark in made.marks:
        if isinstance(mark, Bar):
            painter.fillRect(QRectF(mark.x, mark.y, mark.width, mark.height), shade)
        elif isinstance(mark, Root):
            _paint_root(painter, mark, shade)
        else:
            _paint_glyph(painter, mark)
    painter.restore()


def _paint_glyph(painter: QPainter, mark: Glyph) -> None:
    painter.save()
    painter.translate(mark.x, mark.y)
    painter.scale(mark.across / EM, mark.down / EM)
    painter.setFont(text_font())
    painter.drawText(QPointF(0, 0), mark.character)
    painter.restore()


def _paint_root(painter: QPainter, mark: Root, shade: QColor) -> None:
    tall = mark.bottom - mark.top
    hook = min(0.42, tall * 0.45)
    path = QPainterPath(QPointF(mark.x + 0.05, mark.bottom - hook))
    path.lineTo(mark.x + 0.17, mark.bottom - hook - 0.06)
    path.lineTo(mark.x + 0.32, mark.bottom)
    path.lineTo(mark.x + 0.54, mark.top + RULE / 2)
    path.lineTo(mark.x + mark.width, mark.top + RULE / 2)
    painter.save()
    painter.setPen(QPen(shade, RULE))
    painter.drawPath(path)
    painter.restore()
