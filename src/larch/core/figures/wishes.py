"""Wishes for a polygon: a side, an angle, an area that a person types. Each gives corners and says which moved, or raises
ValueError with one sentence that says why it can't be."""

from __future__ import annotations

import math
import re
from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

from larch.core.base.shape import Point
from larch.core.base.words import _
from larch.core.maths import geometry
from larch.core.maths.special import drag
from larch.core.model.fact import number_text, read_number

CLOSE = 1e-7
MOST_LOOKED_AT = 120  # corners up to which it is looked whether sides cross
Corners = tuple[Point, ...]


class Wish(NamedTuple):
    """corners: as wished; said: what moved, in one sentence."""

    corners: Corners
    said: str


def _moved(before: Corners, after: Corners, names: Sequence[str]) -> str:
    size = max(math.dist(before[0], corner) for corner in before) or 1.0
    moved = [n for n, a, b in zip(names, before, after, strict=False) if math.dist(a, b) > CLOSE * size]
    if not moved:
        return _("Nothing had to move.")
    if len(moved) == len(names) > 3:
        return _("All corners moved.")
    return _("{corners} moved.").format(corners=_(" and ").join([", ".join(moved[:-1]), moved[-1]] if moved[1:] else moved))


def _told(before: Corners, after: Corners, names: Sequence[str]) -> Wish:
    return Wish(after, _moved(before, after, names))


def set_side(corners: Corners, keeps: str, i: int, length: float, names: Sequence[str], unit: float = 1.0) -> Wish:
    """Side i, from corner i to the next. A free triangle keeps its two other sides; other shapes let the second end move
    along the side, and those that stay special follow their rule. unit: of what a person reads to one of the corners'."""
    if not length > 0:
        raise ValueError(_("A side must be longer than nothing."))
    count = len(corners)
    j = (i + 1) % count
    a, b = corners[i], corners[j]
    now = math.dist(a, b)
    if now == 0:
        raise ValueError(_("The two ends lie on one spot; drag them apart first."))
    if count == 3 and not keeps:
        return _triangle_side(corners, i, length, names, unit)
    if keeps:
        return _told(corners, _special_side(corners, keeps, i, length), names)
    grows = ((b[0] - a[0]) * (length / now - 1), (b[1] - a[1]) * (length / now - 1))
    for moving, (dx, dy) in _ways_along(count, i, grows):
        made = tuple((x + dx, y + dy) if k in moving else (x, y) for k, (x, y) in enumerate(corners))
        if not _spoiled(corners, made):
            return _told(corners, made, names)
    raise ValueError(_("With a side of that length its sides would cross; move a corner out of the way first."))


def _ways_along(count: int, i: int, grows: Point) -> list[tuple[set[int], Point]]:
    """Which corners can go along a side so that it gets its length: its end, its beginning, or either with those next to
    it, one after the other."""
    back = (-grows[0], -grows[1])
    ends = [{(i + 1 + k) % count for k in range(n)} for n in range(1, count - 1)]
    starts = [{(i - k) % count for k in range(n)} for n in range(1, count - 1)]
    return [way for end, start in zip(ends, starts, strict=True) for way in ((end, grows), (start, back))]


def _spoiled(before: Corners, after: Corners) -> bool:
    """Whether sides cross now that did not before, or a corner has come to lie on another."""
    if any(math.dist(a, b) == 0 for a, b in geometry.pairs(after)) and all(map(bool, geometry.sides(before))):
        return True
    if len(after) > MOST_LOOKED_AT or not geometry.crosses_itself(after):
        return False
    return not geometry.crosses_itself(before)


def _triangle_side(corners: Corners, i: int, length: float, names: Sequence[str], unit: float) -> Wish:
    a, b, c = corners[i], corners[(i + 1) % 3], corners[(i + 2) % 3]
    other, third = math.dist(b, c), math.dist(c, a)
    closing(length, other, third, unit)
    way = ((b[0] - a[0]) / math.dist(a, b), (b[1] - a[1]) / math.dist(a, b))
    side = 1.0 if (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) >= 0 else -1.0
    along = (length * length + third * third - other * other) / (2 * length)
    up = side * math.sqrt(max(0.0, third * third - along * along))
    fresh = {
        i: a,
        (i + 1) % 3: (a[0] + way[0] * length, a[1] + way[1] * length),
        (i + 2) % 3: (a[0] + way[0] * along - way[1] * up, a[1] + way[1] * along + way[0] * up),
    }
    return _told(corners, tuple(fresh[k] for k in range(3)), names)


def closing(a: float, b: float, c: float, unit: float = 1.0) -> None:
    """Raises ValueError unless three sides close to a triangle."""
    long = max(a, b, c)
    if long >= (a + b + c - long) * (1 - 1e-12):
        sides = ", ".join(number_text(v * unit, 2) for v in sorted((a, b, c)))
        why = _("Sides {sides} can't close: the longest must be shorter than the other two together.")
        raise ValueError(why.format(sides=sides))


def _special_side(corners: Corners, keeps: str, i: int, length: float) -> Corners:
    """Drags the one end, then the other, as the rule of the shape allows; else the whole shape grows."""
    count = len(corners)
    j = (i + 1) % count
    for moving, fixed in ((j, i), (i, j)):
        a, b = corners[fixed], corners[moving]
        k = length / math.dist(a, b)
        for _round in range(60):  # the fixed end may give way as well: come closer step by step
            to = (a[0] + (b[0] - a[0]) * k, a[1] + (b[1] - a[1]) * k)
            made = drag(keeps, corners, moving, to)
            got = math.dist(made[i], made[j])
            if abs(got - length) <= CLOSE * length:
                if _spoiled(corners, made):
                    break
                return made
            if got <= 0:
                break
            k *= length / got
    return grown(corners, length / math.dist(corners[i], corners[j]))


def grown(corners: Corners, factor: float) -> Corners:
    """Enlarged from the first corner."""
    ox, oy = corners[0]
    return tuple((ox + (x - ox) * factor, oy + (y - oy) * factor) for x, y in corners)


def set_angle(corners: Corners, keeps: str, i: int, degrees: float, names: Sequence[str]) -> Wish:
    """The angle at corner i: the corner after it turns about it, or that before it."""
    count = len(corners)
    if not 0 < degrees < (180 if count == 3 else 360):
        most = 180 if count == 3 else 360
        raise ValueError(_("An angle here lies between 0° and {most}°.").format(most=most))
    now = geometry.interior_angles(corners)[i]
    if now is None:
        raise ValueError(_("Two corners coincide; drag them apart first."))
    if keeps in FIXED_ANGLES or keeps == "regular":
        wanted = FIXED_ANGLES.get(keeps, 180 * (count - 2) / count)
        if abs(wanted - degrees) > 1e-9:
            why = _("Every angle of it is {size}°; set its corners free to change that.")
            raise ValueError(why.format(size=number_text(wanted, 2)))
        return _told(corners, corners, names)
    more = degrees - now
    for moving, turn in (
        ((i + 1) % count, more),
        ((i + 1) % count, -more),
        ((i - 1) % count, more),
        ((i - 1) % count, -more),
    ):
        made = drag(keeps, corners, moving, _turned(corners[moving], corners[i], turn))
        got = geometry.interior_angles(made)[i]
        if got is not None and abs(got - degrees) < 1e-6 and not _spoiled(corners, made):
            return _told(corners, made, names)
    found = _searched(corners, keeps, i, degrees)
    if found is not None:
        return _told(corners, found, names)
    if keeps:
        why = _("It can't have {size}° at {corner} and stay what it is; set its corners free first.")
        raise ValueError(why.format(size=number_text(degrees, 1), corner=names[i]))
    raise ValueError(
        _("With {size}° at {corner} its sides would cross.").format(size=number_text(degrees, 1), corner=names[i])
    )


FIXED_ANGLES = {"square": 90.0, "rectangle": 90.0, "equilateral triangle": 60.0}


def _turned(point: Point, about: Point, degrees: float) -> Point:
    """Turned so that y times x grows with the angle: the sense of `geometry.signed_area`."""
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    x, y = point[0] - about[0], point[1] - about[1]
    return (about[0] + c * x + s * y, about[1] - s * x + c * y)


def _searched(corners: Corners, keeps: str, i: int, degrees: float) -> Corners | None:
    """Where a rule moves several corners at once: turns of a neighbour are tried, and halved down between two of them."""
    if not keeps:
        return None
    count = len(corners)

    def off(moving: int, about: int, turn: float) -> tuple[float, Corners] | None:
        made = drag(keeps, corners, moving, _turned(corners[moving], corners[about], turn))
        got = geometry.interior_angles(made)[i]
        return None if got is None else (got - degrees, made)

    for moving, about in (((i + 1) % count, i), ((i - 1) % count, i), (i, (i + 1) % count), (i, (i - 1) % count)):
        turns = [k * 3.0 for k in range(-59, 60)]
        tried = [(turn, off(moving, about, turn)) for turn in turns]
        for (low, one), (high, other) in pairwise(tried):
            if one is None or other is None or (one[0] < 0) == (other[0] < 0) or abs(one[0] - other[0]) > 60:
                continue
            rising = one[0] < 0
            for _round in range(60):
                middle = (low + high) / 2
                half = off(moving, about, middle)
                if half is None:
                    break
                low, high = (middle, high) if (half[0] < 0) == rising else (low, middle)
            end = off(moving, about, (low + high) / 2)
            if end is not None and abs(end[0]) < 1e-6 and not _spoiled(corners, end[1]):
                return end[1]
    return None


def set_area(corners: Corners, area: float, names: Sequence[str]) -> Wish:
    """Enlarged from the first corner."""
    now = geometry.area(corners)
    if now <= 0:
        raise ValueError(_("Its corners lie in a line; drag one away first."))
    return _told(corners, grown(corners, math.sqrt(area / now)), names)


def set_perimeter(corners: Corners, perimeter: float, names: Sequence[str]) -> Wish:
    now = geometry.perimeter(corners)
    if now <= 0 or perimeter <= 0:
        raise ValueError(_("A perimeter must be more than nothing."))
    return _told(corners, grown(corners, perimeter / now), names)


def set_height(corners: Corners, side: int, height: float, names: Sequence[str]) -> Wish:
    """Of a triangle, on a side: the corner across from it moves away from that side or towards it."""
    a, b, top = corners[side], corners[(side + 1) % 3], corners[(side + 2) % 3]
    base = math.dist(a, b)
    now = 2 * geometry.area(corners) / base if base else 0.0
    if not height > 0 or now <= 0:
        raise ValueError(_("A height must be more than nothing."))
    share = ((top[0] - a[0]) * (b[0] - a[0]) + (top[1] - a[1]) * (b[1] - a[1])) / base**2
    foot = (a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1]))
    k = height / now
    fresh = (foot[0] + (top[0] - foot[0]) * k, foot[1] + (top[1] - foot[1]) * k)
    after = list(corners)
    after[(side + 2) % 3] = fresh
    return _told(corners, tuple(after), names)


def triangle_from(typed: str, unit: float) -> tuple[Corners, str]:
    """A triangle from three given sizes in a row round it: "3 4 5", "5, 40°, 6" (side, angle between, side),
    "40°, 5, 60°" or "5, 40°, 60°". unit: page units to one of the lengths. Returns corners and what is to be said."""
    parts = [part for part in re.split(r"[;\s]+|,\s+|,(?=[^,]*°)", typed.strip()) if part]
    if len(parts) != 3:
        raise ValueError(_("Write three sizes: 3 4 5, or 5 40° 6, or 40° 5 60°."))
    angles = ["°" in part for part in parts]
    a, b, c = (read_number(part) for part in parts)
    if not all(v > 0 for v in (a, b, c)):
        raise ValueError(_("Sides and angles must be more than nothing."))
    match tuple(angles):
        case (False, False, False):
            closing(a, b, c)
            base, left, third = a, math.degrees(math.acos((a * a + c * c - b * b) / (2 * a * c))), c
        case (False, True, False):
            _open(b)
            base, left, third = a, b, c
        case (True, False, True):
            _open(a + c)
            base, left, third = b, a, b * math.sin(math.radians(c)) / math.sin(math.radians(a + c))
        case (False, True, True):
            _open(b + c)
            base, left, third = a, b, a * math.sin(math.radians(180 - b - c)) / math.sin(math.radians(c))
        case (True, True, False):
            _open(a + b)
            base, left, third = c, b, c * math.sin(math.radians(180 - a - b)) / math.sin(math.radians(a))
        case (False, False, True) | (True, False, False):
            return _two_and_across(*((a, b, c) if angles[2] else (c, b, a)), unit)
        case _:
            raise ValueError(_("Three angles leave the size open: give one side at least."))
    return _laid(base, left, third, unit), ""


def _open(angle: float) -> None:
    if not 0 < angle < 180:
        raise ValueError(_("The angles of a triangle make 180° together; that is too much."))


def _two_and_across(a: float, b: float, angle: float, unit: float) -> tuple[Corners, str]:
    """Two sides and the angle across from the first: none, one or two triangles."""
    _open(angle)
    ratio = b * math.sin(math.radians(angle)) / a
    if ratio > 1 + 1e-12 or (a <= b and angle >= 90):
        why = _("No triangle has these: the side across from {angle}° is too short.")
        raise ValueError(why.format(angle=number_text(angle, 1)))
    other = math.degrees(math.asin(min(1.0, ratio)))
    third = 180 - angle - other
    said = ""
    if a < b and ratio < 1 - 1e-12:
        said = _("Two triangles have these sizes; this is the one with {angle}°.").format(angle=number_text(other, 1))
    return _laid(b, angle, a * math.sin(math.radians(third)) / math.sin(math.radians(angle)), unit), said


def _laid(base: float, left: float, third: float, unit: float) -> Corners:
    """With its base level; y points down."""
    turn = math.radians(left)
    top = (third * math.cos(turn) * unit, -third * math.sin(turn) * unit)
    return ((0.0, 0.0), (base * unit, 0.0), top)
