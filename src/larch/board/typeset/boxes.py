"""Boxes of type, in ems of the body size, x rightwards and y downwards from the baseline; and how they are painted."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from itertools import pairwise
from typing import NamedTuple

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QFont, QPainter, QPainterPath, QPen, QRawFont

from larch.board.look import ASSETS, load_fonts, text_colour
from larch.board.typeset.mathtable import MathTable
from larch.core.base.memo import cache_in_thread

EM = 100.0  # pixel size of the raw font; all is scaled from it
Path = tuple[tuple[int, int], ...]  # into inner rows: the part of a row, and which of its inner rows


class Glyph(NamedTuple):
    """A character, painted as text."""

    character: str
    x: float
    y: float
    size: float
    hue: str = ""


class Outline(NamedTuple):
    """A form of a sign that has no character of its own: a larger bracket, a piece of a root."""

    glyph: int
    x: float
    y: float
    size: float
    hue: str = ""


class Bar(NamedTuple):
    x: float
    y: float
    width: float
    height: float
    hue: str = ""


class Place(NamedTuple):
    """A place that is still empty."""

    x: float
    y: float
    width: float
    height: float
    path: Path


Mark = Glyph | Outline | Bar | Place


class Stop(NamedTuple):
    """Where a caret can stand: before the `part`-th part of the row at `path`. top and bottom of the caret."""

    path: Path
    part: int
    x: float
    top: float
    bottom: float


class Setting(NamedTuple):
    """A box of type: width, height above and depth below the baseline, what is in it, where a caret can stand; by how much
    its last letter leans over its edge."""

    width: float
    above: float
    below: float
    marks: tuple[Mark, ...] = ()
    stops: tuple[Stop, ...] = ()
    lean: float = 0.0

    def shifted(self, dx: float, dy: float) -> tuple[Mark, ...]:
        if not dx and not dy:
            return self.marks
        return tuple(mark._replace(x=mark.x + dx, y=mark.y + dy) for mark in self.marks)

    def stops_at(self, dx: float, dy: float) -> tuple[Stop, ...]:
        return tuple(s._replace(x=s.x + dx, top=s.top + dy, bottom=s.bottom + dy) for s in self.stops)


@cache_in_thread
def font() -> QRawFont:
    """For measuring and outlines. A raw font may only be used in the thread it was made in."""
    return QRawFont(str(ASSETS / "fonts/STIXTwoMath-Regular.ttf"), EM)


@cache
def table() -> MathTable:
    raw = font()
    return MathTable(bytes(raw.fontTable("MATH").data()), raw.unitsPerEm())


def constant(name: str) -> float:
    return table().constant[name]


@cache_in_thread
def text_font() -> QFont:
    """For painting, so that an exported equation stays text."""
    load_fonts()
    made = QFont("STIX Two Math")
    made.setPixelSize(int(EM))
    made.setHintingPreference(QFont.HintingPreference.PreferNoHinting)
    return made


@cache
def index_of(character: str) -> int:
    found = font().glyphIndexesForString(character)
    return int(found[0]) if found else 0


@cache
def measured(index: int) -> tuple[float, float, float]:
    """Advance, height above and depth below the baseline of a glyph, in ems."""
    raw = font()
    box = raw.boundingRect(index)
    return raw.advancesForGlyphIndexes([index])[0].x() / EM, -box.top() / EM, box.bottom() / EM


@cache_in_thread
def _outlines() -> dict[int, QPainterPath]:
    return {}


def outline(index: int) -> QPainterPath:
    known = _outlines()
    if index not in known:
        known[index] = font().pathForGlyph(index)
    return known[index]


def typed(text: str, size: float = 1.0, hue: str = "") -> Setting:
    """Characters side by side."""
    x = above = below = lean = 0.0
    marks: list[Mark] = []
    for character in text:
        if character == " ":
            x += 0.25 * size
            continue
        index = index_of(character)
        advance, up, down = measured(index)
        marks.append(Glyph(character, x, 0, size, hue))
        x += advance * size
        above, below = max(above, up * size), max(below, down * size)
        lean = table().italic.get(index, 0.0) * size
    return Setting(x, above, below, tuple(marks), (), lean)


def beside(*parts: Setting) -> Setting:
    x = above = below = 0.0
    marks: list[Mark] = []
    stops: list[Stop] = []
    for part in parts:
        marks += part.shifted(x, 0)
        stops += part.stops_at(x, 0)
        x += part.width
        above, below = max(above, part.above), max(below, part.below)
    return Setting(x, above, below, tuple(marks), tuple(stops), parts[-1].lean if parts else 0.0)


def space(width: float) -> Setting:
    return Setting(width, 0, 0)


def raised(part: Setting, by: float) -> Setting:
    return Setting(part.width, part.above + by, part.below - by, part.shifted(0, -by), part.stops_at(0, -by))


def stretched(character: str, needed: float, size: float, hue: str = "") -> Setting:
    """A sign at least so tall: one of its larger forms, else put together from its pieces. It hangs about the axis."""
    index = index_of(character)
    growth = table().tall.get(index)
    forms = (growth.variants if growth else ()) or ((index, sum(measured(index)[1:])),)
    for form, tall in forms:
        if tall * size >= needed:
            return _about_axis(form, size, hue)
    if growth is None or not growth.parts:
        return _about_axis(forms[-1][0], size, hue)
    return _assembled(growth.parts, needed, size, hue)


def _about_axis(index: int, size: float, hue: str) -> Setting:
    advance, up, down = measured(index)
    shift = (up - down) / 2 * size - constant("axis_height") * size  # downwards
    half = (up + down) / 2 * size
    axis = constant("axis_height") * size
    return Setting(advance * size, axis + half, half - axis, (Outline(index, 0, shift, size, hue),))


def _assembled(parts: tuple[object, ...], needed: float, size: float, hue: str) -> Setting:
    from larch.board.typeset.mathtable import Part

    pieces = [part for part in parts if isinstance(part, Part)]
    least = table().overlap
    repeats = 0
    while repeats < 200:
        chosen = [piece for piece in pieces for _k in range(repeats if piece.repeats else 1)]
        total = sum(piece.advance for piece in chosen) - least * max(0, len(chosen) - 1)
        if total * size >= needed:
            break
        repeats += 1
    extra = total - needed / size
    joints = max(1, len(chosen) - 1)
    overlaps = [max(least, min(least + extra / joints, one.end, other.start)) for one, other in pairwise(chosen)]
    height = sum(piece.advance for piece in chosen) - sum(overlaps)
    axis = constant("axis_height") * size
    y = height * size / 2 - axis  # of the lower end, downwards from the baseline
    marks: list[Mark] = []
    width = 0.0
    for k, piece in enumerate(chosen):
        advance, _up, down = measured(piece.glyph)
        marks.append(Outline(piece.glyph, 0, y - down * size, size, hue))
        width = max(width, advance)
        y -= (piece.advance - (overlaps[k] if k < len(overlaps) else 0)) * size
    half = height * size / 2
    return Setting(width * size, axis + half, half - axis, tuple(marks))


Shade = Callable[[str], QColor]


def paint_setting(painter: QPainter, made: Setting, at: QPointF, size: float, shade: QColor) -> None:
    """Paints with the baseline's left end at a point, `size` to the em. Characters stay text in a PDF."""
    painter.save()
    painter.translate(at)
    painter.scale(size, size)
    for mark in made.marks:
        tint = text_colour(mark.hue) if not isinstance(mark, Place) and mark.hue else shade
        match mark:
            case Bar():
                painter.fillRect(QRectF(mark.x, mark.y, mark.width, mark.height), tint)
            case Glyph():
                painter.setPen(tint)
                _paint_glyph(painter, mark)
            case Outline():
                painter.save()
                painter.translate(mark.x, mark.y)
                painter.scale(mark.size / EM, mark.size / EM)
                painter.fillPath(outline(mark.glyph), tint)
                painter.restore()
            case Place():
                painter.setPen(QPen(tint, 0.035, Qt.PenStyle.DashLine))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRoundedRect(QRectF(mark.x, mark.y, mark.width, mark.height), 0.08, 0.08)
    painter.restore()


def _paint_glyph(painter: QPainter, mark: Glyph) -> None:
    painter.save()
    painter.translate(mark.x, mark.y)
    painter.scale(mark.size / EM, mark.size / EM)
    painter.setFont(text_font())
    painter.drawText(QPointF(0, 0), mark.character)
    painter.restore()
