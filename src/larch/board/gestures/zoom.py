"""Two fingers on what scales within its own frame: each holds the place that it came down on."""

from __future__ import annotations

from collections.abc import Mapping

from larch.board.gestures.base import Gesture, Stage
from larch.board.pointer import Sample
from larch.core.base.words import _
from larch.core.model.capabilities import Zooms
from larch.core.model.page import Page
from larch.core.model.thing import Thing


class ZoomThing(Gesture):
    def __init__(self, stage: Stage, thing: Thing, first: Sample, second: Sample) -> None:
        self.stage, self.id = stage, thing.id
        self.before = (first.page_pos, second.page_pos)
        self.at = {first.pointer: first.page_pos, second.pointer: second.page_pos}
        self.done = False

    def move(self, sample: Sample) -> None:
        if sample.pointer in self.at and not self.done:
            self.at[sample.pointer] = sample.page_pos
            self.stage.preview(self, self._change)

    def _change(self, page: Page) -> Mapping[str, Thing]:
        thing = page.thing(self.id)
        if not isinstance(thing, Zooms):
            return {}
        (a, b), (c, d) = self.before, self.at.values()
        local = thing.placement.to_local
        after = thing.zoomed((local(*a), local(*b)), (local(*c), local(*d)))
        return {} if after is thing else {self.id: after}

    def release(self, sample: Sample) -> None:
        """The finger that stays does nothing more."""
        if not self.done:
            self.done = True
            self.stage.finish(self, _("Scale the axes"), self._change)

    def cancel(self) -> None:
        self.stage.end_preview(self)
