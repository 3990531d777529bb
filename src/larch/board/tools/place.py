"""Move the page, type text, write an equation."""

from __future__ import annotations

import math
from typing import ClassVar

from larch.board.gestures.base import Gesture, Stage
from larch.board.pointer import Sample
from larch.board.tools.base import Tool
from larch.core.base.shape import Placement, Point
from larch.core.base.words import _
from larch.core.model.capabilities import snap_of
from larch.core.model.thing import Thing

FALL = 40.0  # pixels within which words that are placed fall onto a line


class HandTool(Tool):
    name: ClassVar[str] = "move page"
    icon: ClassVar[str] = "hand"
    cursor: ClassVar[str] = "hand"
    shortcut: ClassVar[str] = "H"

    def label(self) -> str:
        return _("move page")

    def press(self, stage: Stage, sample: Sample) -> Gesture:
        return Panning(stage, sample)


class Panning(Gesture):
    pinches: ClassVar[bool] = True

    def __init__(self, stage: Stage, sample: Sample) -> None:
        self.stage = stage
        self.last = sample.view_pos

    def move(self, sample: Sample) -> None:
        self.stage.pan_by(sample.view_pos[0] - self.last[0], sample.view_pos[1] - self.last[1])
        self.last = sample.view_pos


class Pinch(Gesture):
    """Two fingers move and magnify the page between them."""

    def __init__(self, stage: Stage, first: Sample, second: Sample) -> None:
        self.stage = stage
        self.at = {first.pointer: first.view_pos, second.pointer: second.view_pos}

    def move(self, sample: Sample) -> None:
        if sample.pointer not in self.at:
            return
        before = list(self.at.values())
        self.at[sample.pointer] = sample.view_pos
        after = list(self.at.values())
        middles = [((a[0] + b[0]) / 2, (a[1] + b[1]) / 2) for a, b in (before, after)]
        self.stage.pan_by(middles[1][0] - middles[0][0], middles[1][1] - middles[0][1])
        apart = math.dist(*before)
        if apart > 8:
            self.stage.zoom_by(math.dist(*after) / apart, middles[1])


class _PlacingTool(Tool):
    """A tap on a thing of its kind opens that; anywhere else a new one is begun there."""

    cursor: ClassVar[str] = "text"
    places: ClassVar[bool] = True
    opens: ClassVar[str]  # the editor that its things open in

    def press(self, stage: Stage, sample: Sample) -> Gesture:
        return _Placing(stage, self)


class _Placing(Gesture):
    pinches: ClassVar[bool] = True

    def __init__(self, stage: Stage, tool: _PlacingTool) -> None:
        self.stage = stage
        self.tool = tool

    def release(self, sample: Sample) -> None:
        found = self.stage.thing_at(sample.page_pos, 4 / self.stage.camera.scale)
        if found is not None and found.editor == self.tool.opens and not found.locked:
            self.stage.edit_thing(found)
        else:
            fresh = self.tool.fresh(sample.page_pos)
            assert fresh is not None
            snap = None if sample.alt else snap_of(fresh, self.stage.page, [], FALL / self.stage.camera.scale)
            if snap is not None:  # words stand on the lines of the paper
                fresh = fresh.moved(snap.dx, snap.dy)
            self.stage.edit_thing(fresh)


class TextTool(_PlacingTool):
    name: ClassVar[str] = "text"
    icon: ClassVar[str] = "type"
    shortcut: ClassVar[str] = "T"
    opens: ClassVar[str] = "words"

    def __init__(self) -> None:
        self.size = 40.0
        self.hue = "needle"

    def label(self) -> str:
        return _("text")

    def fresh(self, at: Point) -> Thing:
        from larch.core.things.words.rich import LINE
        from larch.core.things.words.text import Text

        x, y = at
        return Text(size=self.size, hue=self.hue, placement=Placement(x, y - self.size * LINE / 2))


class EquationTool(_PlacingTool):
    name: ClassVar[str] = "equation"
    icon: ClassVar[str] = "square-function"
    shortcut: ClassVar[str] = "Q"
    opens: ClassVar[str] = "equation"

    def __init__(self) -> None:
        self.hue = "plum"

    def label(self) -> str:
        return _("equation")

    def fresh(self, at: Point) -> Thing:
        from larch.core.things.graphs.equation import Equation

        x, y = at
        return Equation(source="", hue=self.hue, placement=Placement(x, y - 30))
