"""What polygons are made of: their corners, the letters of these, and what sort of shape they make."""

from __future__ import annotations

from typing import Any

from larch.core.base.memo import remember
from larch.core.base.shape import FARTHEST, Box, Placement, Point, box_of
from larch.core.base.words import _
from larch.core.figures.figure import LETTERS, Figure, split_letters
from larch.core.figures.sort_names import sort_name
from larch.core.maths.classify import Sort, classify
from larch.core.maths.plane.forms import Path

MOST_ALSO = 3  # further words that are said of a shape


class Cornered(Figure, frozen=True, kw_only=True, tag="_cornered"):
    """Fields as `Polygon` says; what its facts, marks and snapping need to know of it."""

    vertices: tuple[Point, ...] = ((0.0, 160.0), (224.0, 160.0), (150.0, 0.0))
    letters: str = ""
    keeps: str = ""
    holes: tuple[tuple[Point, ...], ...] = ()
    drawn: bool = False
    about: bool = False

    def __post_init__(self) -> None:
        if not 3 <= len(self.vertices) <= 1000:
            raise ValueError("a polygon has three to a thousand corners")
        if not all(abs(v) <= FARTHEST for ring in (self.vertices, *self.holes) for corner in ring for v in corner):
            raise ValueError("a corner must lie on the page")

    def corner_names(self) -> list[str]:
        """A, B, C …; or the letters it was given."""
        if self.letters:
            split = split_letters(self.letters)
            if len(split) == len(self.vertices):
                return split
        if self.drawn:
            return [" "] * len(self.vertices)
        if len(self.vertices) <= len(LETTERS):
            return list(LETTERS[: len(self.vertices)])
        return [f"P{i + 1}" for i in range(len(self.vertices))]

    def fact_names(self) -> list[str]:
        """What its facts call the corners: their letters, or the customary ones where some have none or share one."""
        names = self.corner_names()
        sound = all(map(str.strip, names)) and len(set(names)) == len(names)
        return names if sound else self.replace(letters="").corner_names()

    def sort(self) -> str:
        """What kind of shape it is, in words, as precisely as it is true; or why it is none."""
        if self.drawn or self.holes:
            return _("shape drawn by hand") if self.drawn else _("shape with a hole")
        found = sorted_out(self)
        if found.why:
            return _(found.why).rstrip(".")
        also = ", ".join(sort_name(word) for word in found.also[:MOST_ALSO])
        return _("{kind}; also {others}").format(kind=sort_name(found.kind), others=also) if also else sort_name(found.kind)

    def extent(self) -> Box:
        return box_of(self.vertices)

    def form(self) -> Path:
        return Path(tuple(self.placement.to_page(*vertex) for vertex in self.vertices))

    def formed(self, form: Any) -> Figure:
        changed: Figure = self.replace(vertices=form.corners, placement=Placement(), keeps="")
        return changed


@remember
def sorted_out(polygon: Cornered) -> Sort:
    """What the polygon is; worked out once for each shape of it."""
    return classify(polygon.vertices)
