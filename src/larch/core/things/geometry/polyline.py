"""Lines of several pieces."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import Any, ClassVar

from larch.core.base.shape import FARTHEST, Box, Placement, Point, box_of
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure
from larch.core.maths.plane.forms import Path
from larch.core.maths.plane.near import distance
from larch.core.model.capabilities import Constructible
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.scale import length_fact
from larch.core.model.thing import Handle, ShelfItem, Thing

WIDTH = 3.5


class Polyline(Constructible, Figure, frozen=True, kw_only=True, tag="polyline"):
    """Straight pieces through points in its own coordinates, in order."""

    vertices: tuple[Point, ...] = ((0.0, 128.0), (96.0, 0.0), (192.0, 96.0), (288.0, 32.0))
    hue: str = "lake"

    icon: ClassVar[str] = "spline"
    order: ClassVar[int] = 29

    def __post_init__(self) -> None:
        if not 2 <= len(self.vertices) <= 1000:
            raise ValueError("a polyline has two to a thousand points")
        if not all(abs(v) <= FARTHEST for vertex in self.vertices for v in vertex):
            raise ValueError("a corner must lie on the page")

    @classmethod
    def title(cls) -> str:
        return _("polyline")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        yield ShelfItem("polyline", _("polyline"), N_("Shapes"), cls, _("path open segments zigzag"))

    def form(self) -> Path:
        return Path(tuple(self.placement.to_page(*vertex) for vertex in self.vertices), closed=False)

    def formed(self, form: Any) -> Figure:
        changed: Figure = self.replace(vertices=form.corners, placement=Placement())
        return changed

    def extent(self) -> Box:
        return box_of(self.vertices)

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        yield self.vertices, False

    def touches(self, x: float, y: float, slack: float) -> bool:
        return distance(Path(self.vertices, False), (x, y)) <= slack + WIDTH

    def facts(self, page: Page) -> Iterator[Fact]:
        form = self.form()
        lengths = [math.dist(side.a, side.b) for side in form.sides()]
        yield length_fact(page, "length", math.fsum(lengths), _("length"), "length")
        for i, length in enumerate(lengths[:20]):
            yield length_fact(page, f"piece {i + 1}", length, _("piece {n}").format(n=i + 1), f"piece {i + 1}")
        yield from self.rule_facts(page)

    def handles(self) -> tuple[Handle, ...]:
        if self.rule or len(self.vertices) > 60:
            return ()
        return tuple(Handle(str(i), x, y, _("corner"), held=True) for i, (x, y) in enumerate(self.vertices))

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        if self.rule:
            return self
        vertices = list(self.vertices)
        vertices[int(name)] = (x, y)
        changed: Thing = self.replace(vertices=tuple(vertices))
        return changed
