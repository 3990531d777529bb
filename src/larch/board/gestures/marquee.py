"""A box or a ring drawn over the empty page selects things."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import ClassVar

from larch.board.gestures.base import DRAG_START, Gesture, Ring, Stage
from larch.board.pointer import Sample
from larch.core.base.shape import Box, box_of
from larch.core.model.thing import Thing


class Marquee(Gesture):
    """A box drawn over the empty page selects what lies in it. A tap selects nothing."""

    pinches: ClassVar[bool] = True

    def __init__(self, stage: Stage, sample: Sample, tapped: Thing | None = None) -> None:
        self.stage = stage
        self.start = sample
        self.tapped = tapped
        self.box: Box | None = None

    def move(self, sample: Sample) -> None:
        if self.box is None and math.dist(sample.view_pos, self.start.view_pos) < DRAG_START:
            return
        self.box = box_of([self.start.page_pos, sample.page_pos])
        self.stage.show_marquee(self, self.box)

    def release(self, sample: Sample) -> None:
        before: Sequence[str] = self.stage.selection if sample.shift else ()
        found: list[str] = []
        if self.box is not None:
            inside = [t for t in self.stage.things_in(self.box) if self.box.covers(self.stage.box_of([t]))]
            found = [thing.id for thing in inside if not thing.locked]
        elif self.tapped is not None and not self.stage.at_board:
            found = [self.tapped.id]
        elif self.tapped is not None and self.stage.tap(self.tapped, sample.page_pos):
            return
        if self.box is None and self.tapped is None:
            self.stage.open_group("")
        ids = self.stage.whole([*before, *found])
        self.stage.show_marquee(self, None)
        self.stage.select(ids)

    def cancel(self) -> None:
        self.stage.show_marquee(self, None)


class RingSelect(Marquee):
    """A ring drawn by hand selects what has its middle inside."""

    def __init__(self, stage: Stage, sample: Sample, tapped: Thing | None = None) -> None:
        super().__init__(stage, sample, tapped)
        self.path = [sample.page_pos]

    def move(self, sample: Sample) -> None:
        if self.box is None and math.dist(sample.view_pos, self.start.view_pos) < DRAG_START:
            return
        self.path.append(sample.page_pos)
        self.box = box_of(self.path)
        self.stage.show_marks(self, Ring(self.path))

    def release(self, sample: Sample) -> None:
        from larch.core.maths.geometry import inside

        self.stage.show_marks(self)
        if self.box is None:
            super().release(sample)
            return
        ring = self.path[:: max(1, len(self.path) // 400)]
        met = [thing for thing in self.stage.things_in(self.box) if not thing.locked]
        found = [thing.id for thing in met if inside(ring, *self.stage.box_of([thing]).centre)]
        before: Sequence[str] = self.stage.selection if sample.shift else ()
        self.stage.select(self.stage.whole([*before, *found]))

    def cancel(self) -> None:
        self.stage.show_marks(self)
