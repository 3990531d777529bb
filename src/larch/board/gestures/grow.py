"""Growing a joined neighbour from a box, or drawing a line from it to another thing."""

from __future__ import annotations

import math

from larch.board.gestures.base import DRAG_START, Gesture, Stage, nothing
from larch.board.pointer import Sample
from larch.core.actions.joining import grown
from larch.core.base.words import _
from larch.core.figures.settle import settle
from larch.core.model.capabilities import IsInk
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.organisers.box import like
from larch.core.things.organisers.connector import Connector


class Grow(Gesture):
    """A press grows a box on that side; a drag leads a line to another thing, or to a new box where there is none."""

    def __init__(self, stage: Stage, sample: Sample, box: Thing, side: str) -> None:
        self.stage = stage
        self.start = sample
        self.box = box
        self.side = side
        self.dragging = False

    def move(self, sample: Sample) -> None:
        if not self.dragging and math.dist(sample.view_pos, self.start.view_pos) < DRAG_START:
            return
        self.dragging = True
        target = self._target(sample)
        page = self.stage.page
        if target is not None:
            self.stage.preview(self, nothing, settle(page.put(self._line(target.id))).things[-1:])
        else:
            fresh = self._fresh(sample)
            self.stage.preview(self, nothing, settle(page.put(fresh, self._line(page.put_ids(1)[0]))).things[-2:])

    def _line(self, to: str) -> Connector:
        return Connector(rule="connect", of=(self.box.id, to), hue=self.box.hue)

    def _target(self, sample: Sample) -> Thing | None:
        thing = self.stage.thing_at(sample.page_pos, 4 / self.stage.camera.scale)
        return thing if thing is not None and thing.id != self.box.id and not isinstance(thing, IsInk) else None

    def _fresh(self, sample: Sample) -> Thing:
        """An empty box of the same sort under the pointer."""
        made = like(self.box)
        centre = made.box().centre
        moved: Thing = made.moved(sample.page_pos[0] - centre[0], sample.page_pos[1] - centre[1])
        return moved

    def release(self, sample: Sample) -> None:
        page = self.stage.page
        self.stage.end_preview(self)
        if not self.dragging:
            after, id = grown(page, self.box, self.side)
            self._commit(after, id)
            return
        target = self._target(sample)
        if target is not None:
            self.stage.commit(Edit(_("Join"), page, settle(page.put(self._line(target.id)))))
            return
        id = page.put_ids(1)[0]
        self._commit(settle(page.put(self._fresh(sample)).put(self._line(id))), id)

    def _commit(self, after: Page, id: str) -> None:
        self.stage.commit(Edit(_("Joined box"), self.stage.page, after, select=(id,)))
        made = self.stage.page.thing(id)
        if made is not None and not self.stage.at_board:
            self.stage.edit_thing(made)

    def cancel(self) -> None:
        self.stage.end_preview(self)
