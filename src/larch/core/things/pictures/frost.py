"""Frost: it covers what lies under it until it is rubbed off."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import ClassVar

from msgspec import Struct

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.maths.geometry import inside as within_ring
from larch.core.model.action import Action, Things, only
from larch.core.model.capabilities import Covers, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, measure
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

RADIUS = 34.0  # of a rubbing finger, page units
FINENESS = 0.45  # of the radius: between the points that are kept of a rubbing
GRID = 24  # cells a side in which it is counted how much is cleared
GONE = 0.9  # share cleared at which the rest melts by itself
MARGIN = 10.0
EDGE = 6.0
MOST_RUBS, MOST_POINTS = 400, 4000


class Rub(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True, gc=False):
    """Where a finger went, in the frost's own coordinates, and how wide it was."""

    points: tuple[Point, ...]
    radius: float = RADIUS


class Frost(Covers, WorksLocked, Thing, frozen=True, kw_only=True, tag="frost"):
    """width and height in its own units. rubs: what has been rubbed off. melted: all of it is gone, for now."""

    width: float = 320.0
    height: float = 200.0
    rubs: tuple[Rub, ...] = ()
    melted: bool = False
    hue: str = "slate"

    icon: ClassVar[str] = "snowflake"
    order: ClassVar[int] = 62
    help: ClassVar[str] = N_(
        "Lay frost over an answer; at the Board it is rubbed off with a finger or the eraser, and comes back with "
        "“freeze again”. At the Desk, rub with the eraser and drag with the select tool."
    )

    def __post_init__(self) -> None:
        if not (1 <= self.width <= 1e5 and 1 <= self.height <= 1e5):
            raise ValueError("frost must have a size")
        if len(self.rubs) > MOST_RUBS or sum(len(rub.points) for rub in self.rubs) > MOST_POINTS * 10:
            raise ValueError("that is more rubbing than frost can bear")
        if not all(0 < rub.radius <= 1e4 and rub.points for rub in self.rubs):
            raise ValueError("a rub must be somewhere")

    @classmethod
    def title(cls) -> str:
        return _("frost")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        yield ShelfItem("frost", _("frost"), N_("Words"), cls, _("hide cover answer reveal scratch rub uncover curtain"))

    def extent(self) -> Box:
        return Box(0, 0, self.width, self.height)

    def touches(self, x: float, y: float, slack: float) -> bool:
        """Where it has been rubbed off, what lies under it can be touched; melted, only its edge can be taken."""
        box = self.extent()
        if not box.grown(slack).holds(x, y):
            return False
        if self.melted:
            return not box.grown(-(slack + EDGE)).holds(x, y)
        return not self.clear_at(x, y)

    def clear_at(self, x: float, y: float) -> bool:
        return any(_near(rub, x, y) for rub in self.rubs)

    def stretched(self, across: float, down: float) -> Thing | None:
        changed: Thing = self.replace(width=max(24.0, self.width * across), height=max(24.0, self.height * down))
        return changed

    def rubbed_off(self, path: Sequence[Point], radius: float = RADIUS) -> Frost:
        """With a path of the page rubbed off; melted if hardly any is left."""
        changed = self.with_rub(path, radius)
        melted: Frost = changed.replace(rubs=(), melted=True)
        return melted if changed.cleared() >= GONE else changed

    def with_rub(self, path: Sequence[Point], radius: float = RADIUS) -> Frost:
        """With a path of the page rubbed off, as it looks while the finger is still on it."""
        own: list[Point] = []
        reach = radius / self.placement.scale
        for k, point in enumerate(path):
            x, y = self.placement.to_local(*point)
            at = (round(x, 1), round(y, 1))
            last = k == len(path) - 1
            if not own or math.dist(own[-1], at) >= reach * FINENESS or (last and own[-1] != at):
                own.append(at)
        if not own:
            return self
        changed: Frost = self.replace(rubs=(*self.rubs, Rub(tuple(own[:MOST_POINTS]), reach))[-MOST_RUBS:])
        return changed

    def cleared(self) -> float:
        """The share that has been rubbed off, counted on a grid."""
        if self.melted:
            return 1.0
        if not self.rubs:
            return 0.0
        import numpy as np

        middles = (np.arange(GRID) + 0.5) / GRID
        cells = np.stack(np.meshgrid(middles * self.width, middles * self.height), axis=-1).reshape(-1, 1, 2)
        left = cells
        for rub in self.rubs:
            points = np.array(rub.points if len(rub.points) > 1 else rub.points * 2)
            low, high = points.min(axis=0) - rub.radius, points.max(axis=0) + rub.radius
            beside = ((left < low) | (left > high)).any(axis=(1, 2))
            near = left[~beside]
            ways = points[1:] - points[:-1]
            sizes = np.maximum((ways**2).sum(axis=1), 1e-12)
            shares = np.clip(((near - points[:-1]) * ways).sum(axis=2) / sizes, 0, 1)
            away = np.hypot(*np.moveaxis(points[:-1] + shares[..., None] * ways - near, -1, 0))
            left = np.concatenate([left[beside], near[away.min(axis=1) > rub.radius]])
        return 1 - len(left) / len(cells)

    def facts(self, page: Page) -> Iterator[Fact]:
        yield measure("cleared", round(100 * self.cleared()), "%", _("rubbed off"), 0)
        under = covered(page, self)
        yield measure("under", len(under), "", _("things under it"), 0)

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _near(rub: Rub, x: float, y: float) -> bool:
    """Whether a place lies within the radius of where the finger went."""
    r = rub.radius
    before = rub.points[0]
    if math.dist(before, (x, y)) <= r:
        return True
    for point in rub.points[1:]:
        wx, wy = point[0] - before[0], point[1] - before[1]
        size = wx * wx + wy * wy
        t = min(1.0, max(0.0, ((x - before[0]) * wx + (y - before[1]) * wy) / size)) if size else 0.0
        if math.hypot(before[0] + t * wx - x, before[1] + t * wy - y) <= r:
            return True
        before = point
    return False


def covered(page: Page, frost: Frost) -> list[Thing]:
    """What lies under it with its middle."""
    ring = [frost.placement.to_page(*corner) for corner in frost.extent().corners()]
    below = []
    for thing in page.things:
        if thing.id == frost.id:
            break
        if within_ring(ring, *thing.box().centre):
            below.append(thing)
    return below


def _set(melted: bool, label: str) -> Action:
    def run(page: Page, things: Things) -> Edit:
        return Edit(_(label).capitalize(), page, page.with_things({t.id: t.replace(rubs=(), melted=melted) for t in things}))

    def fits(page: Page, things: Things) -> bool:
        frosts = [t for t in things if isinstance(t, Frost)]
        return only(Frost)(page, things) and any(t.melted != melted or t.rubs for t in frosts)

    return Action("melt" if melted else "freeze", lambda p, ts: _(label), "droplets" if melted else "snowflake", run, fits,
                  rank=10 if melted else 9, board=True, words=N_("reveal show cover hide answer"))  # fmt: skip


ACTIONS = (_set(False, N_("freeze again")), _set(True, N_("melt it all")))
