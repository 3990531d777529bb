"""What a polygon says of itself: sides, angles inside and out, area, heights, diagonals, symmetry, coordinates."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING, Any

from larch.core.base.memo import remember
from larch.core.base.words import _
from larch.core.figures.figure import split_letters
from larch.core.figures.on_axes import coordinate_facts
from larch.core.figures.reshape import follows, reshaped
from larch.core.figures.wishes import Wish, set_angle, set_area, set_height, set_perimeter, set_side, triangle_from
from larch.core.maths import geometry
from larch.core.maths.classify import symmetry
from larch.core.maths.plane.forms import Path
from larch.core.maths.special import regular_corners
from larch.core.model.action import wished
from larch.core.model.fact import Fact, Told, read_number
from larch.core.model.scale import angle_fact, area_fact, factor, length_fact, read_area, read_length
from larch.core.things.geometry.cornered import Cornered, sorted_out

if TYPE_CHECKING:
    from larch.core.model.page import Page

MOST_REGULAR = 20
MOST_FOLDED = 40  # corners up to which its fold lines are looked for
MOST_STATED = 24  # corners up to which each side and angle is stated


@remember
def fold_lines(polygon: Cornered) -> tuple[int, int]:
    """Number of mirror axes, and in how many positions it fits itself in a full turn."""
    if len(polygon.vertices) > MOST_FOLDED or polygon.holes:
        return (0, 1)
    found = symmetry(polygon.vertices)
    return (found.axes, found.turns)


def polygon_facts(polygon: Cornered, page: Page) -> Iterator[Fact]:
    names, place = polygon.fact_names(), polygon.placement.scale
    corners = polygon.vertices
    setter = _Setter(polygon, page, names)
    if polygon.keeps == "regular":
        yield Fact("corners", len(corners), "", str(len(corners)), _("corners"), set=setter.count)
    yield Fact("sort", polygon.sort(), text=polygon.sort(), label=_("it is"))
    if len(corners) <= MOST_STATED and not polygon.drawn and polygon.rule != "polygon":
        letters = "".join(polygon.corner_names()).strip()
        yield Fact("letters", letters, text=letters, label=_("corners are called"), set=setter.letters)
    axes, turns = fold_lines(polygon)
    if axes:
        yield Fact("symmetry axes", axes, text=str(axes), label=_("fold lines"), badge="fold lines")
    if turns > 1:
        yield Fact("fits itself", turns, text=str(turns), label=_("fits itself in a turn"))
    crossed = not polygon.holes and sorted_out(polygon).kind.startswith("crossed")
    if len(corners) <= MOST_STATED and not polygon.drawn:
        for i, length in enumerate(geometry.sides(corners)):
            name = names[i] + names[(i + 1) % len(names)]
            yield length_fact(page, name, length * place, badge=name, set=setter.side(i))
        yield from _angles(polygon, page, names, crossed, setter)
    around = geometry.perimeter(corners) + math.fsum(map(geometry.perimeter, polygon.holes))
    perimeter = None if polygon.holes else setter.typed(read_length, lambda value: set_perimeter(corners, value, names))
    yield length_fact(page, "perimeter", around * place, _("perimeter"), "perimeter", perimeter)
    if crossed:
        yield Fact("area", None, f"{page.scale.unit}²", _("its sides cross"), _("area"))
    else:
        inside = geometry.area(corners) - math.fsum(map(geometry.area, polygon.holes))
        wish = None if polygon.holes else setter.area
        yield area_fact(page, "area", inside * place * place, _("area"), "area", wish, about=polygon.about)
    if polygon.part is not None and polygon.part.n:
        yield Fact("share", f"1/{polygon.part.n}", text=f"1/{polygon.part.n}", label=_("share"), badge="share")
    if polygon.part is None and not crossed:
        yield Fact("share into", "", text="", label=_("share into"), set=setter.share, hint=_("such as 3"))
    if not polygon.drawn:
        yield from _lines_within(polygon, page, names, setter)
        yield from coordinate_facts(page, polygon.form(), names)
        if len(corners) <= MOST_STATED and not crossed:
            yield from _outer_angles(polygon, page, names)
    yield from polygon.rule_facts(page)


def _angles(polygon: Cornered, page: Page, names: list[str], crossed: bool, setter: _Setter) -> Iterator[Fact]:
    for i, angle in enumerate(geometry.interior_angles(polygon.vertices)):
        name, label = f"angle {names[i]}", _("angle {corner}").format(corner=names[i])
        if angle is None or crossed:
            why = _("its sides cross") if crossed else _("two corners coincide")
            yield Fact(name, None, "°", why, label)
            continue
        yield angle_fact(page, name, angle, label, name, setter.angle(i))


def _outer_angles(polygon: Cornered, page: Page, names: list[str]) -> Iterator[Fact]:
    """Exterior angles, below nothing where the shape is dented, and the way round the outside of each corner."""
    for i, angle in enumerate(geometry.interior_angles(polygon.vertices)):
        if angle is None:
            continue
        outer = f"exterior angle {names[i]}"
        yield angle_fact(page, outer, 180 - angle, _("exterior angle {corner}").format(corner=names[i]), outer)
        if angle < 180:
            name = f"reflex angle {names[i]}"
            yield angle_fact(page, name, 360 - angle, _("reflex angle {corner}").format(corner=names[i]), name)


def _lines_within(polygon: Cornered, page: Page, names: list[str], setter: _Setter) -> Iterator[Fact]:
    """Heights of a triangle, diagonals of a quadrilateral."""
    corners, place = polygon.vertices, polygon.placement.scale
    if len(corners) == 3:
        yield Fact("three sizes", "", text="", label=_("build from"), set=setter.triangle, hint=_("such as 3 4 5"))
        for i, side in enumerate(geometry.sides(corners)):
            top, base = names[(i + 2) % 3], names[i] + names[(i + 1) % 3]
            label = _("height on {side}").format(side=base)
            if side == 0:
                yield Fact(f"height {top}", None, page.scale.unit, _("two corners coincide"), label)
                continue
            height = 2 * geometry.area(corners) / side * place
            wish = None if polygon.keeps else setter.height(i)
            yield length_fact(page, f"height {top}", height, label, f"height {top}", wish)
    elif len(corners) == 4:
        for i in (0, 1):
            name = f"diagonal {names[i]}{names[i + 2]}"
            length = math.dist(corners[i], corners[i + 2]) * place
            yield length_fact(page, name, length, _("diagonal {ends}").format(ends=names[i] + names[i + 2]), name)


class _Setter:
    """Turns what a person types into another polygon, or into a page whose points have moved."""

    def __init__(self, polygon: Cornered, page: Page, names: list[str]) -> None:
        self.polygon, self.page, self.names = polygon, page, names
        self.scale = polygon.placement.scale

    def _done(self, wish: Wish) -> Any:
        polygon = self.polygon
        if not polygon.rule:
            return Told(polygon.replace(vertices=wish.corners), wish.said)
        place = polygon.placement
        form = Path(tuple(place.to_page(*corner) for corner in wish.corners))
        return Told(reshaped(self.page, polygon, form), wish.said)

    def typed(self, read: Callable[[str, Page], float], wish: Callable[[float], Wish]) -> Callable[[str], Any]:
        return lambda typed: self._done(wish(read(typed, self.page) / self.scale))

    def side(self, i: int) -> Callable[[str], Any]:
        p = self.polygon
        return self.typed(
            read_length, lambda length: set_side(p.vertices, p.keeps, i, length, self.names, self.scale * factor(self.page))
        )

    def height(self, i: int) -> Callable[[str], Any]:
        return self.typed(read_length, lambda height: set_height(self.polygon.vertices, i, height, self.names))

    def angle(self, i: int) -> Callable[[str], Any]:
        p = self.polygon
        return lambda typed: self._done(set_angle(p.vertices, p.keeps, i, read_number(typed), self.names))

    def area(self, typed: str) -> Any:
        wanted = read_area(typed, self.page) / self.scale**2
        return self._done(set_area(self.polygon.vertices, wanted, self.names))

    def triangle(self, typed: str) -> Any:
        if not typed.strip():
            return self.polygon
        corners, said = triangle_from(typed, 1 / factor(self.page) / self.scale)
        if self.polygon.rule and any(self.polygon.of):
            raise ValueError(follows(self.page, self.polygon))
        (ox, oy), (x, y) = self.polygon.vertices[0], corners[0]
        moved = tuple((cx - x + ox, cy - y + oy) for cx, cy in corners)
        changed = self.polygon.replace(vertices=moved, keeps="")
        return Told(changed, said or _("{name} stayed; the others moved.").format(name=self.names[0]))

    def letters(self, typed: str) -> Any:
        names = split_letters(typed.replace(",", "").replace(" ", "").strip())
        if not names:
            return self.polygon.replace(letters=" " * len(self.polygon.vertices))
        if len(names) != len(self.polygon.vertices):
            raise ValueError(_("Give one letter for each of its {n} corners.").format(n=len(self.polygon.vertices)))
        return self.polygon.replace(letters="".join(names))

    def share(self, typed: str) -> Any:
        return wished("share", self.page, self.polygon, typed)

    def count(self, typed: str) -> Any:
        count = read_number(typed)
        if count != int(count) or not 3 <= count <= MOST_REGULAR:
            raise ValueError(_("A regular polygon here has 3 to {most} corners.").format(most=MOST_REGULAR))
        return self.polygon.replace(vertices=regular_corners(int(count)), letters="")
