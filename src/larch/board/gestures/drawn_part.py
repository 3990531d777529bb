"""A part of a thing that is drawn with the pen: it follows the pen from the beginning, and no ink is left."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from larch.board.gestures.base import Gesture, Stage
from larch.board.pointer import Sample
from larch.core.base.shape import Point
from larch.core.model.page import Page
from larch.core.model.thing import Thing


class DrawPart(Gesture):
    """change: what a thing is when the pen has come to a place of its own coordinates."""

    def __init__(self, stage: Stage, thing: Thing, label: str, change: Callable[[Any, Point], Thing]) -> None:
        self.stage = stage
        self.thing = thing
        self.label = label
        self.change = change
        self.to: Point | None = None

    def move(self, sample: Sample) -> None:
        self.to = sample.page_pos
        self.stage.preview(self, self._change)

    def _change(self, page: Page) -> Mapping[str, Thing]:
        now = page.thing(self.thing.id)
        if now is None or type(now) is not type(self.thing) or self.to is None:
            return {}
        after = self.change(now, now.placement.to_local(*self.to))
        return {} if after is now else {now.id: after}

    def release(self, sample: Sample) -> None:
        self.stage.finish(self, self.label, self._change)

    def cancel(self) -> None:
        self.stage.end_preview(self)
