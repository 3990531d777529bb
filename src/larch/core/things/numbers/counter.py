"""A counter with two sides; it falls into the cells of frames and grids."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial
from typing import ClassVar

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only
from larch.core.model.capabilities import Counts, HasPlaces, Snaps, Tappable
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Snap, Thing

ACROSS = 60.0


class Counter(Counts, Snaps, Tappable, Thing, frozen=True, kw_only=True, tag="counter"):
    """second: its second side is up."""

    second: bool = False

    icon: ClassVar[str] = "circle-dot"
    order: ClassVar[int] = 11
    help: ClassVar[str] = N_("Drag counters from the supply; they fall into the cells of a frame. A tap turns one over.")

    @classmethod
    def title(cls) -> str:
        return _("counter")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("counter disc token two-sided two colours chip count")
        yield ShelfItem("counter", _("counter"), N_("Blocks"), cls, words)
        yield ShelfItem("counters", _("supply of counters"), N_("Blocks"), partial(cls, supply=True), words)

    def label(self, page: Page) -> str:
        return self.name or (_("counter, second side") if self.second else _("counter"))

    def extent(self) -> Box:
        return Box(0, 0, ACROSS, ACROSS)

    def touches(self, x: float, y: float, slack: float) -> bool:
        return math.dist((x, y), (ACROSS / 2, ACROSS / 2)) <= ACROSS / 2 + slack

    def worth(self) -> int | None:
        return 1

    def facts(self, page: Page) -> Iterator[Fact]:
        text = _("second") if self.second else _("first")
        options = (("first", _("first")), ("second", _("second")))
        yield Fact("side", "second" if self.second else "first", text=text, label=_("side up"), options=options,
                   set=lambda typed: self.replace(second=typed == "second"))  # fmt: skip

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """Into the nearest free cell: a drop within a cell counts."""
        centre = self.box().centre
        taken = [o.box().centre for o in page.things if isinstance(o, Counter) and o.id != self.id and not o.supply]
        best: tuple[float, Snap] | None = None
        for other in others:
            if not isinstance(other, HasPlaces):
                continue
            scale = other.placement.scale
            for place in other.places():
                x, y = other.placement.to_page(*place)
                away = math.dist((x, y), centre)
                if away > max(reach, 0.7 * ACROSS * scale) or any(
                    math.dist((x, y), c) < 0.4 * ACROSS * scale for c in taken
                ):
                    continue
                if best is None or away < best[0]:
                    best = (away, Snap(x - centre[0], y - centre[1], _("in its cell")))
        return best[1] if best else None

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS

    def tap_action(self, at: Point) -> str:
        return "turn over"


def turn_over(page: Page, things: Things) -> Edit:
    changed = {t.id: t.replace(second=not t.second) for t in things if isinstance(t, Counter)}
    return Edit(_("Turn over"), page, page.with_things(changed))


ACTIONS = (
    Action("turn over", lambda p, ts: _("turn over"), "refresh-cw", turn_over, only(Counter), rank=5, board=True,
           words=N_("flip other side colour")),
)  # fmt: skip
