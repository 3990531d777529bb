"""The path that a point traces while another moves."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, ClassVar

from larch.core.base.shape import Box, Placement, Point, box_of
from larch.core.base.words import _
from larch.core.figures.figure import Figure
from larch.core.figures.locus import traced
from larch.core.figures.settling import Settling
from larch.core.maths.plane.forms import Path
from larch.core.maths.plane.near import distance
from larch.core.model.capabilities import Constructible
from larch.core.model.fact import Fact
from larch.core.model.page import Page


class Locus(Constructible, Figure, frozen=True, kw_only=True, tag="locus"):
    """of: the point that traces, and the point on a line that moves. lines: the traced branches, page coordinates."""

    lines: tuple[tuple[Point, ...], ...] = ()
    hue: str = "plum"

    icon: ClassVar[str] = "waves"
    order: ClassVar[int] = 29
    resizable: ClassVar[bool] = False
    turnable: ClassVar[bool] = False

    @classmethod
    def title(cls) -> str:
        return _("locus")

    def form(self) -> Any:
        return self.lines

    def form_on(self, page: Page) -> Path | None:
        longest = max(self.lines, key=len, default=())
        if len(longest) < 2 or self.why:
            return None
        return Path(tuple(self.placement.to_page(*point) for point in longest), closed=False)

    def worked_out(self, settler: Settling) -> Any:
        return traced(self, settler) if self.rule == "locus" else None

    def formed(self, form: Any) -> Figure:
        changed: Figure = self.replace(lines=form, placement=Placement())
        return changed

    def extent(self) -> Box:
        return box_of([point for line in self.lines for point in line])

    def touches(self, x: float, y: float, slack: float) -> bool:
        return any(distance(Path(line, False), (x, y)) <= slack + 4 for line in self.lines if len(line) > 1)

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("branches", len(self.lines), text=str(len(self.lines)), label=_("pieces"))
        yield from self.rule_facts(page)
