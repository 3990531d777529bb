"""Handles and parts: what a thing itself says can be dragged or tapped."""

from __future__ import annotations

import math
from collections.abc import Mapping

from larch.board.gestures.base import DRAG_START, Gesture, Stage
from larch.board.gestures.drag import tapped
from larch.board.pointer import Sample
from larch.core.base.shape import Point
from larch.core.base.words import _
from larch.core.model.capabilities import HasParts, HoldsOthers
from larch.core.model.page import Page
from larch.core.model.thing import Thing

FINE = 4.0  # pixels: shorter steps of a drag are put together
LONG = 400.0  # page units: no step is longer


class DragHandle(Gesture):
    """A corner, an end: whatever the thing itself says can be dragged to a place."""

    def __init__(self, stage: Stage, sample: Sample, id: str, name: str, under: Thing | None = None) -> None:
        self.stage = stage
        self.start = sample
        self.id = id
        self.name = name
        self.under = under  # what a tap means that moves nothing
        self.to: Point | None = None

    def move(self, sample: Sample) -> None:
        if self.under is not None and self.to is None and math.dist(sample.view_pos, self.start.view_pos) < DRAG_START:
            return
        x, y = sample.page_pos
        if sample.control:  # to the squares of the paper
            step = self.stage.page.paper.step
            x, y = round(x / step) * step, round(y / step) * step
        self.to = (x, y)
        self.stage.preview(self, self._change)

    def _change(self, page: Page) -> Mapping[str, Thing]:
        before = page.thing(self.id)
        if before is None or self.to is None:
            return {}
        after = before.with_handle(self.name, *before.placement.to_local(*self.to))
        if after is before:
            return {}
        others = after.rearranged(page, before) if isinstance(after, HoldsOthers) else {}
        return {self.id: after, **others}

    def release(self, sample: Sample) -> None:
        if self.to is None and self.under is not None:
            tapped(self.stage, self.under, sample)
        self.stage.finish(self, _("Drag a corner"), self._change)

    def cancel(self) -> None:
        self.stage.end_preview(self)


def _straight_on(a: Point, b: Point, c: Point, slack: float) -> bool:
    """Whether a way goes on from b to c as it went from a to b. Such steps are put together: another hand at the same thing
    has them all taken anew."""
    forth, on, length = (b[0] - a[0], b[1] - a[1]), (c[0] - b[0], c[1] - b[1]), math.dist(a, c)
    if forth[0] * on[0] + forth[1] * on[1] <= 0 or length > LONG:
        return False
    return abs(forth[0] * on[1] - forth[1] * on[0]) <= slack * length


class DragPart(Gesture):
    """A bead, a hand, a card: moved step by step, so that turns add up; a tap does what the thing says."""

    def __init__(self, stage: Stage, sample: Sample, thing: Thing, part: str) -> None:
        self.stage = stage
        self.start = sample
        self.id = thing.id
        self.part = part
        self.dragging = False
        self.steps: list[tuple[Point, Point]] = []  # on the page; the last one may still grow
        self._from: Thing | None = None  # what the thing was when `_so_far` was worked out from it
        self._so_far: Thing | None = None
        self._taken = 0  # steps that are in `_so_far`
        self._last: HasParts | None = None  # what `_from` came to by all steps, until there is another

    def move(self, sample: Sample) -> None:
        if not self.dragging and math.dist(sample.view_pos, self.start.view_pos) < DRAG_START:
            return
        if not self.dragging:
            self.dragging = True
            self.steps.append((self.start.page_pos, sample.page_pos))
        else:
            before, to = self.steps[-1]
            fine = FINE / self.stage.camera.scale
            if math.dist(before, to) < fine or _straight_on(before, to, sample.page_pos, fine / 2):
                self.steps[-1] = (before, sample.page_pos)
            else:
                self.steps.append((to, sample.page_pos))
        self._last = None
        self.stage.preview(self, self._change)

    def _dragged(self, thing: HasParts) -> HasParts:
        """The thing after all steps; those that were taken from the same value already are not taken again."""
        if self._from is not thing or self._so_far is None:
            self._from, self._so_far, self._taken, self._last = thing, thing, 0, None
        if self._last is not None:
            return self._last
        now = self._so_far
        assert isinstance(now, HasParts)
        for k in range(self._taken, len(self.steps)):
            if k == len(self.steps) - 1:  # it may still grow
                self._so_far, self._taken = now, k
            a, b = self.steps[k]
            now = now.drag_part(self.part, now.placement.to_local(*a), now.placement.to_local(*b))
        self._last = now
        return now

    def _change(self, page: Page) -> Mapping[str, Thing]:
        thing = page.thing(self.id)
        return {self.id: self._dragged(thing)} if isinstance(thing, HasParts) else {}

    def _settled(self, page: Page) -> Mapping[str, Thing]:
        thing = page.thing(self.id)
        return {self.id: self._dragged(thing).part_let_go(self.part)} if isinstance(thing, HasParts) else {}

    def release(self, sample: Sample) -> None:
        thing = self.stage.page.thing(self.id)
        if not isinstance(thing, HasParts):
            self.cancel()
        elif self.dragging:
            self.stage.finish(self, thing.part_label(self.part), self._settled)
        else:
            after = thing.tap_part(self.part, thing.placement.to_local(*self.start.page_pos))
            if after is None:
                tapped(self.stage, thing, sample)
            else:
                self.stage.finish(self, thing.part_label(self.part), lambda page: {self.id: after})

    def cancel(self) -> None:
        self.stage.end_preview(self)
