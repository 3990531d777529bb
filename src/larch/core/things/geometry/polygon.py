"""Polygons that know their sides and angles."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from typing import Any, ClassVar, Self

from larch.core.base.shape import FARTHEST, Placement, Point, box_of
from larch.core.base.words import N_, _
from larch.core.figures.figure import free_letters, used_letters
from larch.core.figures.sort_names import sort_name
from larch.core.maths import geometry
from larch.core.maths.classify import polygon_name
from larch.core.maths.special import STARTS, drag, regular_corners, star_corners
from larch.core.model.action import Action, Things, ids_of, only
from larch.core.model.capabilities import Constructible, Snaps, TakesNames
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.thing import Handle, ShelfItem, Snap, Thing
from larch.core.things.geometry.corner_snap import corner_snap
from larch.core.things.geometry.cornered import Cornered, sorted_out
from larch.core.things.geometry.polygon_facts import polygon_facts

MOST_SNAPPING = 40  # corners


class Polygon(Constructible, Snaps, TakesNames, Cornered, frozen=True, kw_only=True, tag="polygon"):
    """Corners in its own coordinates, in order. keeps: what it stays while a corner is dragged (see `maths.special`), ""
    for nothing. holes: rings cut out of it. drawn: its outline came from a hand. about: its area is known nearly only,
    since an arc was made of short sides. Raises ValueError for fewer than three corners or ones out of range."""

    icon: ClassVar[str] = "triangle"
    order: ClassVar[int] = 27
    help: ClassVar[str] = N_(
        "Drag a corner and watch its sides and angles. The eye beside a fact shows it on the page. "
        "A rhombus stays a rhombus, and so on, until its corners are set free."
    )

    @classmethod
    def title(cls) -> str:
        return _("polygon")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        tray, measures = "Shapes", ("sides", "angles")
        yield ShelfItem("triangle", _("triangle"), tray, lambda: cls(shown=measures), _("three sides measure angle"))
        three = ((0.0, 96.0), (128.0, 96.0), (0.0, 0.0))
        by = _("three sides lengths SSS build given"), _("side and angles given ASA SAS build")
        yield ShelfItem(
            "triangle by sides", _("triangle by sides"), tray, lambda: cls(vertices=three, shown=("sides",)), by[0]
        )
        yield ShelfItem("triangle by angles", _("triangle by side and angles"), tray,
                        lambda: cls(shown=("AB", "angle A", "angle B")), by[1])  # fmt: skip
        for name, (keeps, corners) in STARTS.items():
            yield ShelfItem(name, _(name), tray, _maker(corners, keeps, "moss"), _("shape sides angles special measure"))
        panel = ((0.0, 0.0), (160.0, 0.0), (224.0, 128.0), (0.0, 128.0))
        yield ShelfItem("quadrilateral", _("quadrilateral"), tray, _maker(panel, "", "lake"), _("four sides"))
        for count in (5, 6, 8, 10, 12):
            name = f"regular {polygon_name(count)}"
            yield ShelfItem(
                name, sort_name(name), tray, _maker(regular_corners(count), "regular", "plum"), _("equal sides polygon")
            )
        for points in (5, 6):
            label = _("star with {n} points").format(n=points)
            yield ShelfItem(f"star {points}", label, tray, _maker(star_corners(points), "", "straw"), _("star polygon"))

    def label(self, page: Page) -> str:
        if self.name or self.drawn:
            return self.name or _("Shape")
        word = sort_name(
            sorted_out(self).kind if len(self.vertices) <= 4 and not self.why else polygon_name(len(self.vertices))
        )
        word = (word if not sorted_out(self).why else sort_name(polygon_name(len(self.vertices)))).capitalize()
        return f"{word} {''.join(self.corner_names())}".rstrip() if len(self.vertices) < 13 else word

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        yield self.vertices, True
        for hole in self.holes:
            yield hole, True

    def touches(self, x: float, y: float, slack: float) -> bool:
        holed = any(geometry.inside(hole, x, y) for hole in self.holes)
        if geometry.inside(self.vertices, x, y) and not holed:
            return True
        rings = (self.vertices, *self.holes)
        return any(geometry.distance_to_side(a, b, x, y) <= slack for ring in rings for a, b in geometry.pairs(ring))

    def facts(self, page: Page) -> Iterator[Fact]:
        return polygon_facts(self, page)

    def christened(self, page: Page) -> Self:
        """Letters follow on those that are on the page; those of an image have a prime already."""
        used = used_letters(page)
        if self.letters or self.drawn or len(self.vertices) > 12 or used.isdisjoint(self.corner_names()):
            return self
        changed: Self = self.replace(letters="".join(free_letters(page, len(self.vertices))))
        return changed

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """A corner falls onto a corner: shapes fit together, and into outlines."""
        if self.rule or len(self.vertices) > MOST_SNAPPING:
            return None
        return corner_snap(self, page, others, reach)

    def handles(self) -> tuple[Handle, ...]:
        if len(self.vertices) > 60 or self.rule:
            return ()
        names = self.corner_names()
        return tuple(
            Handle(str(i), x, y, _("corner {name}").format(name=names[i]), held=self.part is None)
            for i, (x, y) in enumerate(self.vertices)
        )

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        if self.rule:
            return self
        moved = drag(self.keeps, self.vertices, int(name), (x, y))
        if not all(abs(v) <= FARTHEST for corner in moved for v in corner):
            return self
        changed: Thing = self.replace(vertices=moved)
        return changed

    def stretched(self, across: float, down: float) -> Thing | None:
        if self.keeps or self.rule:  # stretched, it would be something else
            return None
        changed: Thing = self.replace(
            vertices=_stretched(self.vertices, across, down), holes=tuple(_stretched(h, across, down) for h in self.holes)
        )
        return changed

    def all_shown(self) -> tuple[str, ...]:
        """The facts shown on it, each by its own name; "sides" and "angles" stand for all of them."""
        found: list[str] = []
        for name in self.shown:
            found += measures_of(self, name) if name in ("sides", "angles") else [name]
        return tuple(found)

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _stretched(ring: Sequence[Point], across: float, down: float) -> tuple[Point, ...]:
    return tuple((x * across, y * down) for x, y in ring)


def _maker(corners: tuple[Point, ...], keeps: str, hue: str) -> Callable[[], Thing]:
    return lambda: Polygon(vertices=corners, keeps=keeps, hue=hue)


def _set_free(page: Page, things: Things) -> Edit:
    return Edit(_("Set free"), page, page.changing(ids_of(things), lambda thing: thing.replace(keeps="")))


def _keeps_something(page: Page, things: Things) -> bool:
    return bool(things) and all(isinstance(thing, Polygon) and bool(thing.keeps) for thing in things)


def measures_of(polygon: Polygon, what: str) -> list[str]:
    """The names of its sides or of its angles."""
    names = polygon.fact_names()
    if what == "angles":
        return [f"angle {name}" for name in names]
    return [names[i] + names[(i + 1) % len(names)] for i in range(len(names))]


def shows(polygon: Thing, what: str) -> bool:
    """Whether all sides or all angles are shown on it."""
    return isinstance(polygon, Polygon) and set(measures_of(polygon, what)) <= set(polygon.all_shown())


def _toggle_measures(what: str, label: Callable[[], str]) -> Callable[[Page, Things], Edit]:
    def run(page: Page, things: Things) -> Edit:
        on = not all(shows(thing, what) for thing in things)

        def change(thing: Thing) -> Any:
            assert isinstance(thing, Polygon)
            names = measures_of(thing, what)
            rest = tuple(name for name in thing.all_shown() if name not in names)
            return thing.replace(shown=(*rest, *names) if on else rest)

        return Edit(label(), page, page.changing(ids_of(things), change))

    return run


def _toggle_marks(page: Page, things: Things) -> Edit:
    on = not all("marks" in thing.shown for thing in things)

    def change(thing: Thing) -> Any:
        rest = tuple(name for name in thing.shown if name != "marks")
        return thing.replace(shown=(*rest, "marks") if on else rest)

    return Edit(_("Show or hide marks"), page, page.changing(ids_of(things), change))


def polygon_on(page: Page, corners: list[Point], **fields: Any) -> Polygon:
    """A polygon from corners on the page, with its own origin at its top left."""
    box = box_of(corners)
    local = tuple((x - box.x0, y - box.y0) for x, y in corners)
    return Polygon(vertices=local, placement=Placement(box.x0, box.y0), **fields)


ACTIONS = (
    Action("sides", lambda p, ts: _("hide sides") if all(shows(t, "sides") for t in ts) else _("show sides"),
           "ruler", _toggle_measures("sides", lambda: _("Show or hide sides")), only(Polygon), rank=10, board=True,
           words=N_("measure length")),
    Action("angles", lambda p, ts: _("hide angles") if all(shows(t, "angles") for t in ts) else _("show angles"),
           "triangle", _toggle_measures("angles", lambda: _("Show or hide angles")), only(Polygon), rank=11,
           board=True, words=N_("measure degrees")),
    Action("marks", lambda p, ts: _("hide marks") if all("marks" in t.shown for t in ts) else _("show marks"),
           "list-checks", _toggle_marks, only(Polygon), rank=53, board=True,
           words=N_("equal sides parallel right angle ticks")),
    Action("set free", lambda p, ts: _("set its corners free"), "unlink", _set_free, _keeps_something, rank=55,
           words=N_("special shape corners loose")),
)  # fmt: skip
