"""Polygons that know their sides and angles."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from typing import Any, ClassVar

from larch.core import geometry
from larch.core.action import Action, Things, only
from larch.core.arrange import ids_of
from larch.core.classify import Sort, classify, polygon_name, symmetry
from larch.core.edit import Edit
from larch.core.fact import Fact, measure, read_number
from larch.core.memo import remember
from larch.core.page import Page
from larch.core.shape import FARTHEST, Box, Placement, Point, box_of
from larch.core.special import STARTS, drag, regular_corners, star_corners
from larch.core.thing import Handle, ShelfItem, Thing
from larch.core.words import _

MOST_REGULAR = 20
MOST_ALSO = 3  # further words that are said of a shape
MOST_FOLDED = 40  # corners up to which its fold lines are looked for
LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ"


class Polygon(Thing, frozen=True, kw_only=True, tag="polygon"):
    """Corners in its own coordinates, in order. keeps: what it stays while a corner is dragged (see `core.special`), ""
    for nothing. Raises ValueError for fewer than three or ones out of range."""

    vertices: tuple[Point, ...] = ((0.0, 160.0), (224.0, 160.0), (150.0, 0.0))
    letters: str = ""
    keeps: str = ""

    icon: ClassVar[str] = "triangle"
    order: ClassVar[int] = 30
    help: ClassVar[str] = (
        "Drag a corner and watch its sides and angles. The eye beside a fact shows it on the page. "
        "A rhombus stays a rhombus, and so on, until its corners are set free."
    )

    def __post_init__(self) -> None:
        if not 3 <= len(self.vertices) <= 1000:
            raise ValueError("a polygon has three to a thousand corners")
        if not all(abs(v) <= FARTHEST for vertex in self.vertices for v in vertex):
            raise ValueError("a corner must lie on the page")

    @classmethod
    def title(cls) -> str:
        return _("polygon")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        tray, measures = "Shapes", ("sides", "angles")
        yield ShelfItem("triangle", _("triangle"), tray, lambda: cls(shown=measures), _("three sides measure angle"))
        for name, (keeps, corners) in STARTS.items():
            yield ShelfItem(name, _(name), tray, _maker(corners, keeps, "moss"), _("shape sides angles special measure"))
        panel = ((0.0, 0.0), (160.0, 0.0), (224.0, 128.0), (0.0, 128.0))
        yield ShelfItem("quadrilateral", _("quadrilateral"), tray, _maker(panel, "", "lake"), _("four sides"))
        for count in (5, 6, 8, 10, 12):
            name = f"regular {polygon_name(count)}"
            yield ShelfItem(name, _(name), tray, _maker(regular_corners(count), "regular", "plum"), _("equal sides polygon"))
        for points in (5, 6):
            label = _("star with {n} points").format(n=points)
            yield ShelfItem(f"star {points}", label, tray, _maker(star_corners(points), "", "straw"), _("star polygon"))

    def corner_names(self) -> list[str]:
        """A, B, C …; or the letters it was given."""
        if len(self.letters) == len(self.vertices):
            return list(self.letters)
        if len(self.vertices) <= len(LETTERS):
            return list(LETTERS[: len(self.vertices)])
        return [f"P{i + 1}" for i in range(len(self.vertices))]

    def fact_names(self) -> list[str]:
        """What its facts call the corners: their letters, or the customary ones where some have none or share one."""
        names = self.corner_names()
        sound = all(map(str.strip, names)) and len(set(names)) == len(names)
        return names if sound else self.replace(letters="").corner_names()

    def label(self, page: Page) -> str:
        words = {3: _("Triangle"), 4: _("Quadrilateral"), 5: _("Pentagon"), 6: _("Hexagon")}
        word = words.get(len(self.vertices), _("Polygon"))
        return self.name or (f"{word} {''.join(self.corner_names())}" if len(self.vertices) < 9 else word)

    def sort(self) -> str:
        """What kind of shape it is, in words, as precisely as it is true; or why it is none."""
        found = sorted_out(self)
        if found.why:
            return _(found.why).rstrip(".")
        also = ", ".join(_(word) for word in found.also[:MOST_ALSO])
        return _("{kind}; also {others}").format(kind=_(found.kind), others=also) if also else _(found.kind)

    def extent(self) -> Box:
        return box_of(self.vertices)

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        yield self.vertices, True

    def touches(self, x: float, y: float, slack: float) -> bool:
        if geometry.inside(self.vertices, x, y):
            return True
        return any(geometry.distance_to_side(a, b, x, y) <= slack for a, b in geometry.pairs(self.vertices))

    def facts(self, page: Page) -> Iterator[Fact]:
        names = self.fact_names()
        cm = self.placement.scale / page.unit
        if self.keeps == "regular":
            yield measure("corners", len(self.vertices), "", _("corners"), 0, set=self._set_corners)
        yield Fact("sort", self.sort(), text=self.sort(), label=_("it is"))
        axes = symmetry(self.vertices).axes if len(self.vertices) <= MOST_FOLDED else 0
        if axes:
            yield Fact("symmetry axes", axes, text=str(axes), label=_("fold lines"))
        for i, length in enumerate(geometry.sides(self.vertices)):
            name = names[i] + names[(i + 1) % len(names)]
            yield measure(name, length * cm, "cm", badge="sides", set=self._side_setter(i, page))
        crossed = geometry.crosses_itself(self.vertices)
        for i, angle in enumerate(geometry.interior_angles(self.vertices)):
            label = _("angle {corner}").format(corner=names[i])
            if angle is None or crossed:
                why = _("its sides cross") if crossed else _("two corners coincide")
                yield Fact(f"angle {names[i]}", None, "°", why, label)
            else:
                yield measure(f"angle {names[i]}", angle, "°", label, badge="angles")
        yield measure("perimeter", geometry.perimeter(self.vertices) * cm, "cm", _("perimeter"), badge="perimeter")
        if crossed:
            yield Fact("area", None, "cm²", _("its sides cross"), _("area"))
        else:
            yield measure("area", geometry.area(self.vertices) * cm * cm, "cm²", _("area"), badge="area")

        yield from self._lines_within(names, cm)

    def _set_corners(self, typed: str) -> Thing:
        count = read_number(typed)
        if count != int(count) or not 3 <= count <= MOST_REGULAR:
            raise ValueError(_("A regular polygon here has 3 to {most} corners.").format(most=MOST_REGULAR))
        changed: Thing = self.replace(vertices=regular_corners(int(count)), letters="")
        return changed

    def _lines_within(self, names: list[str], cm: float) -> Iterator[Fact]:
        """Heights of a triangle, diagonals of a quadrilateral."""
        if len(self.vertices) == 3:
            for i, side in enumerate(geometry.sides(self.vertices)):
                top, base = names[(i + 2) % 3], names[i] + names[(i + 1) % 3]
                label = _("height on {side}").format(side=base)
                if side == 0:
                    yield Fact(f"height {top}", None, "cm", _("two corners coincide"), label)
                else:
                    yield measure(f"height {top}", 2 * geometry.area(self.vertices) / side * cm, "cm", label)
        elif len(self.vertices) == 4:
            for i in (0, 1):
                label = _("diagonal {ends}").format(ends=names[i] + names[i + 2])
                yield measure(f"diagonal {names[i]}{names[i + 2]}", math.dist(self.vertices[i], self.vertices[i + 2]) * cm,
                              "cm", label)  # fmt: skip

    def _side_setter(self, i: int, page: Page) -> Callable[[str], Thing]:
        """Sets a side's length by moving its second end along it."""

        def set_length(typed: str) -> Thing:
            wanted = read_number(typed) * page.unit / self.placement.scale
            if not 0 < wanted <= FARTHEST:
                raise ValueError(_("A side must be longer than nothing."))
            j = (i + 1) % len(self.vertices)
            (ax, ay), (bx, by) = self.vertices[i], self.vertices[j]
            length = math.dist((ax, ay), (bx, by))
            if length == 0:
                raise ValueError(_("The two ends lie on one spot; drag them apart first."))
            k = wanted / length
            return self.with_handle(str(j), ax + (bx - ax) * k, ay + (by - ay) * k)

        return set_length

    def handles(self) -> tuple[Handle, ...]:
        if len(self.vertices) > 60:
            return ()
        names = self.corner_names()
        return tuple(
            Handle(str(i), x, y, _("corner {name}").format(name=names[i])) for i, (x, y) in enumerate(self.vertices)
        )

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        moved = drag(self.keeps, self.vertices, int(name), (x, y))
        if not all(abs(v) <= FARTHEST for corner in moved for v in corner):
            return self
        changed: Thing = self.replace(vertices=moved)
        return changed

    def stretched(self, across: float, down: float) -> Thing | None:
        if self.keeps:  # stretched, it would be something else
            return None
        changed: Thing = self.replace(vertices=tuple((x * across, y * down) for x, y in self.vertices))
        return changed

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _maker(corners: tuple[Point, ...], keeps: str, hue: str) -> Callable[[], Thing]:
    return lambda: Polygon(vertices=corners, keeps=keeps, hue=hue)


def _set_free(page: Page, things: Things) -> Edit:
    return Edit(_("Set free"), page, page.changing(ids_of(things), lambda thing: thing.replace(keeps="")))


def _keeps_something(page: Page, things: Things) -> bool:
    return bool(things) and all(isinstance(thing, Polygon) and bool(thing.keeps) for thing in things)


@remember
def sorted_out(polygon: Polygon) -> Sort:
    """What the polygon is; worked out once for each shape of it."""
    return classify(polygon.vertices)


def _toggle_measures(what: str, label: Callable[[], str]) -> Callable[[Page, Things], Edit]:
    def run(page: Page, things: Things) -> Edit:
        on = not all(what in thing.shown for thing in things)

        def change(thing: Thing) -> Any:
            rest = tuple(name for name in thing.shown if name != what)
            return thing.replace(shown=(*rest, what) if on else rest)

        return Edit(label(), page, page.changing(ids_of(things), change))

    return run


def polygon_on(page: Page, corners: list[Point], **fields: Any) -> Polygon:
    """A polygon from corners on the page, with its own origin at its top left."""
    box = box_of(corners)
    local = tuple((x - box.x0, y - box.y0) for x, y in corners)
    return Polygon(vertices=local, placement=Placement(box.x0, box.y0), **fields)


ACTIONS = (
    Action("sides", lambda p, ts: _("hide sides") if all("sides" in t.shown for t in ts) else _("show sides"),
           "ruler", _toggle_measures("sides", lambda: _("Show or hide sides")), only(Polygon), rank=10, board=True,
           words="measure length"),
    Action("angles", lambda p, ts: _("hide angles") if all("angles" in t.shown for t in ts) else _("show angles"),
           "triangle", _toggle_measures("angles", lambda: _("Show or hide angles")), only(Polygon), rank=11,
           board=True, words="measure degrees"),
    Action("set free", lambda p, ts: _("set its corners free"), "unlink", _set_free, _keeps_something, rank=55,
           words="special shape corners loose"),
)  # fmt: skip
