"""Which gesture each pointer that is down belongs to. No Qt."""

from __future__ import annotations

from larch.board.gestures.base import Gesture, Stage
from larch.board.gestures.two_fingers import TwoFingers
from larch.board.gestures.zoom import ZoomThing
from larch.board.pointer import Sample
from larch.board.tools.base import Tool
from larch.board.tools.draw import Stroke
from larch.board.tools.erase import EraserTool
from larch.board.tools.place import HandTool, Pinch
from larch.board.tools.select import SelectTool
from larch.core.model.capabilities import Zooms

PALM = 90.0  # pixels of contact from which a touch is a flat hand, where the screen's size is not known
LANDING = 220.0  # ms in which a hand comes down flat


class Pointers:
    """One gesture per pointer, so several people can work at once.

    An eraser end always erases, and so does a flat hand while a tool is held that makes marks: a touch at least `palm`
    pixels across, which may begin as a smaller one while the hand comes down.
    The middle button, or a held space bar, always moves the page.
    """

    def __init__(self, stage: Stage) -> None:
        self.stage = stage
        self.tool: Tool = SelectTool()
        self.space_held = False
        self.palm = PALM
        self._down: dict[str, tuple[Gesture, Sample]] = {}

    @property
    def busy(self) -> bool:
        """Whether a pointer is down."""
        return bool(self._down)

    def cancel(self) -> None:
        """Gives up all that is under way."""
        gestures = [gesture for gesture, _sample in self._down.values()]
        self._down.clear()
        for gesture in gestures:
            gesture.cancel()

    def press(self, sample: Sample) -> None:
        """A pointer went down. Two fingers that both could pan pinch together instead."""
        if self._zooms(sample) or self._second_finger(sample):
            return
        partner = self._pinch_partner(sample)
        if partner is not None:
            first, at = self._down[partner]
            first.cancel()
            pinch = Pinch(self.stage, at, sample)
            self._down[partner] = (pinch, at)
            self._down[sample.pointer] = (pinch, sample)
            return
        if sample.pointer in self._down:
            self._down.pop(sample.pointer)[0].cancel()
        self._down[sample.pointer] = (self._tool_for(sample).press(self.stage, sample), sample)

    def _zooms(self, sample: Sample) -> bool:
        """A second finger on what scales within its frame: the two scale it."""
        if sample.kind != "touch" or not isinstance(self.tool, SelectTool) or not self.stage.may("move"):
            return False
        thing = self.stage.thing_at(sample.page_pos, 0)
        if not isinstance(thing, Zooms) or thing.locked:
            return False
        for pointer, (gesture, at) in self._down.items():
            under = self.stage.thing_at(at.page_pos, 0) if at.kind == "touch" else None
            if under is not None and under.id == thing.id and not isinstance(gesture, ZoomThing):
                gesture.cancel()
                both = ZoomThing(self.stage, thing, at, sample)
                self._down[pointer], self._down[sample.pointer] = (both, at), (both, sample)
                return True
        return False

    def _second_finger(self, sample: Sample) -> bool:
        """A second finger on what another carries, or on what goes along with that: the two move and turn it."""
        if sample.kind != "touch" or self.stage.handle_at(sample.view_pos) is not None:
            return False
        holding = {p: held for p, held in self._down.items() if held[1].kind == "touch" and held[0].carried}
        thing = self.stage.thing_at(sample.page_pos, 0) if holding else None
        if thing is None or thing.locked or self.stage.part_at(thing, sample):
            return False
        if self.stage.held_corner_at(sample, thing) is not None:
            return False
        for pointer, (gesture, at) in holding.items():
            if thing.id not in gesture.carried:
                continue
            ids = gesture.carried
            gesture.cancel()
            both = TwoFingers(self.stage, thing, ids, gesture.pressed or at, at, sample)
            self._down[pointer], self._down[sample.pointer] = (both, at), (both, sample)
            return True
        return False

    def _tool_for(self, sample: Sample) -> Tool:
        if self._is_palm(sample):
            return EraserTool("part", sample.contact / 2)
        if sample.kind == "eraser":
            return self.tool if isinstance(self.tool, EraserTool) else EraserTool()
        if sample.button == "middle" or self.space_held:
            return HandTool()
        return self.tool

    def _is_palm(self, sample: Sample) -> bool:
        return sample.kind == "touch" and self.tool.makes_marks and sample.contact >= self.palm

    def _pinch_partner(self, sample: Sample) -> str | None:
        if sample.kind != "touch" or self.stage.handle_at(sample.view_pos) is not None:
            return None
        for pointer, (gesture, at) in self._down.items():
            if at.kind == "touch" and gesture.pinches and self._is_free(sample):
                return pointer
        return None

    def _is_free(self, sample: Sample) -> bool:
        """Nothing lies under a finger that it would rather drag."""
        if not isinstance(self.tool, SelectTool):
            return True
        thing = self.stage.thing_at(sample.page_pos, 0)
        return thing is None or thing.locked

    def move(self, sample: Sample) -> None:
        found = self._down.get(sample.pointer)
        lands = found is not None and isinstance(found[0], Stroke) and sample.time - found[1].time < LANDING
        if found is not None and lands and self._is_palm(sample):
            found[0].cancel()
            self._down[sample.pointer] = (self._tool_for(sample).press(self.stage, sample), sample)
            return
        if found is not None:
            self._down[sample.pointer] = (
                found[0],
                found[1]._replace(view_pos=sample.view_pos, page_pos=sample.page_pos),
            )
            found[0].move(sample)

    def release(self, sample: Sample) -> None:
        """A pointer was lifted. It keeps the number of clicks that it was pressed with."""
        found = self._down.pop(sample.pointer, None)
        if found is None:
            return
        if isinstance(found[0], Pinch):  # the finger that stays does nothing more
            for pointer in [p for p, (gesture, _at) in self._down.items() if gesture is found[0]]:
                self._down[pointer] = (Gesture(), sample)
            return
        found[0].release(sample._replace(clicks=found[1].clicks))
