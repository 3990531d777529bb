"""Paint: a tap fills the region that lines enclose there."""

from __future__ import annotations

from typing import ClassVar

from larch.board.gestures.base import Gesture, Stage
from larch.board.pointer import Sample
from larch.board.tools.base import Tool
from larch.core.base.words import _

GAPS = (4.0, 16.0, 40.0, 80.0)  # page units that are bridged


class BrushTool(Tool):
    """gap: the widest opening between lines that is bridged, page units."""

    name: ClassVar[str] = "paint"
    icon: ClassVar[str] = "paint-bucket"
    cursor: ClassVar[str] = "cross"
    shortcut: ClassVar[str] = "F"
    makes_marks: ClassVar[bool] = True

    def __init__(self) -> None:
        self.hue = "straw"
        self.gap = GAPS[1]

    def label(self) -> str:
        return _("paint")

    def press(self, stage: Stage, sample: Sample) -> Gesture:
        return _Painting(stage, self)


class _Painting(Gesture):
    pinches: ClassVar[bool] = True

    def __init__(self, stage: Stage, tool: BrushTool) -> None:
        self.stage = stage
        self.tool = tool

    def release(self, sample: Sample) -> None:
        self.stage.fill_at(sample.page_pos, self.tool.hue, self.tool.gap)
