"""Turning and sizing the selection by the handles of its frame."""

from __future__ import annotations

import math
from collections.abc import Sequence

from larch.board.gestures.base import Change, Gesture, Stage, each, nothing
from larch.board.pointer import Sample
from larch.core.base.shape import Point
from larch.core.base.words import _
from larch.core.figures.settle import free_of
from larch.core.model.page import Page
from larch.core.model.thing import Snap, Thing

ANGLE_STEP = 15.0  # degrees
ANGLE_REACH = 3.0
LEAST, MOST = 0.02, 200.0  # scales


def movable(stage: Stage) -> list[Thing]:
    """What a drag moves: the selected things that are not locked, or what those hang on."""
    free = [thing.id for thing in stage.page.some(stage.selection) if not thing.locked]
    return [thing for thing in stage.page.some(free_of(stage.page, free)) if not thing.locked]


def one_of_several(things: Sequence[Thing], able: str) -> list[Thing]:
    """Those that can be turned or sized; points too, where there are several."""
    return [thing for thing in things if getattr(thing, able) or (len(things) > 1 and thing.kind() == "point")]


class TurnThings(Gesture):
    """Turns the selection about its centre, falling to every 15° with the angle shown."""

    def __init__(self, stage: Stage, sample: Sample, grabbed: Thing | None = None) -> None:
        self.stage = stage
        self.grabbed = grabbed
        things = one_of_several(movable(stage), "turnable")
        self.ids = tuple(thing.id for thing in things)
        self.base = things[0].placement.turn if len(things) == 1 else 0.0
        self.centre = stage.box_of(things).centre
        self.first = self._angle(sample.page_pos)
        self.by: float | None = None

    def _angle(self, pos: Point) -> float:
        return math.degrees(math.atan2(self.centre[1] - pos[1], pos[0] - self.centre[0]))

    def move(self, sample: Sample) -> None:
        if not self.ids:
            return
        by = self._angle(sample.page_pos) - self.first
        target = round((self.base + by) / ANGLE_STEP) * ANGLE_STEP
        snapped = not sample.alt and abs(self.base + by - target) < ANGLE_REACH
        self.by = target - self.base if snapped else by
        reason = f"{round(target) % 360}°"
        self.stage.show_snap(self, Snap(0, 0, reason, (self.centre, sample.page_pos)) if snapped else None)
        self.stage.preview(self, self._change())

    def _change(self) -> Change:
        by = self.by
        return nothing if by is None else each(self.ids, lambda thing: thing.turned(by, self.centre))

    def release(self, sample: Sample) -> None:
        self.stage.show_snap(self, None)
        if self.by is None and self.grabbed is not None:
            self.stage.tap(self.grabbed, sample.page_pos)
        self.stage.finish(self, _("Turn"), self._change())

    def cancel(self) -> None:
        self.stage.show_snap(self, None)
        self.stage.end_preview(self)


class SizeThings(Gesture):
    """size-tl, -tr, -bl, -br enlarge in proportion from the opposite corner; size-r and size-b stretch one thing."""

    def __init__(self, stage: Stage, sample: Sample, name: str) -> None:
        self.stage = stage
        self.name = name
        things = one_of_several(movable(stage), "resizable")
        self.ids = tuple(thing.id for thing in things)
        self.placed = things[0].placement if things else None
        self.box = stage.box_of(things)
        self.start = sample
        self.change: Change = nothing

    def _fixed(self) -> Point:
        box = self.box
        return {
            "size-tl": (box.x1, box.y1), "size-tr": (box.x0, box.y1),
            "size-bl": (box.x1, box.y0), "size-br": (box.x0, box.y0),
        }[self.name]  # fmt: skip

    def move(self, sample: Sample) -> None:
        if not self.ids:
            return
        self.change = self._stretching(sample) if self.name in ("size-r", "size-b") else self._enlarging(sample)
        self.stage.preview(self, self.change)

    def _enlarging(self, sample: Sample) -> Change:
        fixed, ids = self._fixed(), self.ids
        before = math.dist(fixed, self.start.page_pos)
        wanted = math.dist(fixed, sample.page_pos) / before if before else 1.0

        def change(page: Page) -> dict[str, Thing]:
            things = page.some(ids)  # all by one factor, within what each can bear as it is now
            smallest = max(1e-6, *(LEAST / thing.placement.scale for thing in things)) if things else 1.0
            largest = min((MOST / thing.placement.scale for thing in things), default=1.0)
            factor = min(max(wanted, smallest), largest)
            return {thing.id: thing.enlarged(factor, fixed) for thing in things}

        return change

    def _stretching(self, sample: Sample) -> Change:
        assert self.placed is not None
        x, y = self.placed.to_local(*sample.page_pos)
        x0, y0 = self.placed.to_local(*self.start.page_pos)
        across = max(0.02, x / x0) if self.name == "size-r" and x0 > 0 else 1.0
        down = max(0.02, y / y0) if self.name == "size-b" and y0 > 0 else 1.0
        return each(self.ids[:1], lambda thing: thing.stretched(across, down))

    def release(self, sample: Sample) -> None:
        self.stage.finish(self, _("Size"), self.change)

    def cancel(self) -> None:
        self.stage.end_preview(self)
