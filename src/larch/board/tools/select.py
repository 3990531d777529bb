"""Select: tap, drag, drag a part, draw a box round things."""

from __future__ import annotations

from typing import ClassVar

from larch.board.gestures.base import TOUCH_SLACK, Gesture, Stage
from larch.board.gestures.drag import DragThings, TakeOne, TapOnly
from larch.board.gestures.marquee import Marquee, RingSelect
from larch.board.gestures.part import DragHandle
from larch.board.gestures.turn import SizeThings, TurnThings
from larch.board.pointer import Sample
from larch.board.tools.base import Tool
from larch.board.views.measure_labels import slip_at
from larch.core.actions.arrange.holds import TURN, untouchable
from larch.core.base.words import _
from larch.core.model.capabilities import HoldsOthers
from larch.core.model.holders import holder_of
from larch.core.model.thing import Thing


class TapMeasure(Gesture):
    """A second tap on a measure opens it where it stands."""

    def __init__(self, stage: Stage, id: str, name: str) -> None:
        self.stage, self.id, self.name = stage, id, name

    def release(self, sample: Sample) -> None:
        self.stage.select((self.id,))
        self.stage.measure_wanted.emit(self.id, self.name)


class SelectTool(Tool):
    name: ClassVar[str] = "select"
    icon: ClassVar[str] = "mouse-pointer-2"
    shortcut: ClassVar[str] = "V"

    def __init__(self) -> None:
        self.mode = "box"  # or "ring": what a drag over the empty page draws round things

    def label(self) -> str:
        return _("select")

    def press(self, stage: Stage, sample: Sample) -> Gesture:
        if sample.clicks > 1 and not stage.at_board and (measure := slip_at(stage.page, sample.page_pos)) is not None:
            return TapMeasure(stage, measure[0], measure[1].slip.name)
        handle = stage.handle_at(sample.view_pos)
        if handle is not None:
            return _grip(stage, sample, *handle)
        slack = TOUCH_SLACK / stage.camera.scale if sample.kind == "touch" else 4 / stage.camera.scale
        thing = stage.thing_at(sample.page_pos, slack)
        if thing is not None and not stage.may("move") and stage.gesture_for(sample, thing, "") is None:
            return TapOnly(stage, thing)
        corner = stage.held_corner_at(sample, thing) if stage.may("move") else None
        if corner is not None:
            return DragHandle(stage, sample, *corner, under=thing)
        if thing is None:
            return self._round(stage, sample, None)
        own = stage.gesture_for(sample, thing, stage.part_at(thing, sample))
        if own is not None and not thing.supply:
            return own
        held = untouchable(thing) if stage.at_board else thing.locked
        if held and not thing.supply:  # a locked background must not keep anyone from drawing a box over it
            return self._round(stage, sample, thing)
        if thing.supply and not sample.control:
            return TakeOne(stage, sample, thing)
        if thing.hold == TURN and (stage.at_board or thing.id in stage.selection):
            stage.select(stage.whole([thing.id]))
            return TurnThings(stage, sample, thing)
        holder = None if sample.control else holder_of(stage.page, thing)
        if isinstance(holder, HoldsOthers) and holder.keeps(thing) and not holder.locked:
            return DragThings(stage, sample, holder, tapping=thing)
        return DragThings(stage, sample, thing)

    def _round(self, stage: Stage, sample: Sample, thing: Thing | None) -> Gesture:
        return RingSelect(stage, sample, thing) if self.mode == "ring" else Marquee(stage, sample, thing)


def _grip(stage: Stage, sample: Sample, id: str, name: str) -> Gesture:
    """What dragging a handle of the selection begins."""
    if name == "turn":
        return TurnThings(stage, sample)
    if name.startswith("size"):
        return SizeThings(stage, sample, name)
    thing = stage.page.thing(id)
    if thing is None:
        return Gesture()
    if name == "carry":
        return DragThings(stage, sample, thing)
    return stage.gesture_for(sample, thing, name) or DragHandle(stage, sample, id, name)
