"""Stamp: a mark for each tap, a row with even gaps for a drag."""

from __future__ import annotations

from collections.abc import Sequence
from typing import ClassVar

from larch.board.gestures.base import Caption, Gesture, Stage, nothing
from larch.board.pointer import Sample
from larch.board.tools.base import Tool
from larch.core.base.shape import Point
from larch.core.base.words import _
from larch.core.model.snapping import hold_direction
from larch.core.model.thing import Thing

SIZES = (28.0, 44.0, 64.0, 96.0)  # page units
GAPS = (1.0, 1.3, 2.0, 3.0)  # between middles, in sizes
ALL_SHOWN = 120  # marks that are drawn while the row is dragged


class MarkTool(Tool):
    """shape: one of MARKS, or "own" for the things in `own`; size in page units; gap: between middles, in sizes."""

    name: ClassVar[str] = "stamp"
    icon: ClassVar[str] = "stamp"
    cursor: ClassVar[str] = "cross"
    shortcut: ClassVar[str] = "S"
    makes_marks: ClassVar[bool] = True

    def __init__(self) -> None:
        self.shape = "dot"
        self.size = SIZES[1]
        self.gap = GAPS[1]
        self.hue = "clay"
        self.own: tuple[Thing, ...] = ()

    def label(self) -> str:
        return _("stamp")

    def pattern(self) -> Sequence[Thing]:
        from larch.core.things.ink.mark import Mark

        if self.shape == "own" and self.own:
            return self.own
        return (Mark(shape="dot" if self.shape == "own" else self.shape, hue=self.hue),)

    def press(self, stage: Stage, sample: Sample) -> Gesture:
        return Stamping(stage, sample, self)


class Stamping(Gesture):
    def __init__(self, stage: Stage, sample: Sample, tool: MarkTool) -> None:
        self.stage = stage
        self.start = sample.page_pos
        self.pattern, self.size, self.gap = tool.pattern(), tool.size, tool.size * tool.gap
        self.places: list[Point] = []
        self.move(sample)

    def move(self, sample: Sample) -> None:
        from larch.core.things.ink.mark import placed, row

        end = sample.page_pos
        if not sample.alt:
            end = hold_direction(self.start, end, sample.shift).at
        self.places = row(self.start, end, self.gap)
        shown = [thing for place in self.places[:ALL_SHOWN] for thing in placed(self.pattern, place, self.size)]
        self.stage.preview(self, nothing, shown)
        if len(self.places) > 1:
            self.stage.show_marks(self, Caption(self.places[-1], str(len(self.places))))
        else:
            self.stage.show_marks(self)

    def release(self, sample: Sample) -> None:
        from larch.core.things.ink.mark import stamped

        self.move(sample)
        self.stage.commit(stamped(self.stage.page, self.places, self.pattern, self.size))
        self.cancel()

    def cancel(self) -> None:
        self.stage.show_marks(self)
        self.stage.end_preview(self)
