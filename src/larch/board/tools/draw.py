"""The pen. Each pointer draws for itself: by hand, in straight lines, in curves through three points."""

from __future__ import annotations

import math
from typing import ClassVar

from larch.board.gestures.base import DRAG_START, Gesture, Spots, Stage, nothing
from larch.board.pointer import Sample
from larch.board.tools.base import Tool
from larch.core.base.shape import Box, Point
from larch.core.base.words import _
from larch.core.model.edit import Edit
from larch.core.model.nibs import KEPT_PENS, Pen
from larch.core.model.snapping import Held, hold_direction, hold_point
from larch.core.model.thing import Snap

FAST = 2.6  # pixels per ms at which a line without pressure is at its thinnest
CALM = 0.25  # how quickly the width follows the speed
MOST_SAMPLES = 20_000  # a longer stroke goes on as another
REACH = 11.0  # pixels within which the end of a line falls onto a corner
FINE_TOUCH, BROAD_TOUCH = 14.0, 44.0  # pixels of contact that part a fine tip from a finger and a finger from a broad one


def tip_of(sample: Sample) -> str:
    """Which tip this is: the mouse, each pen by itself, touches by the size of their contact."""
    if sample.kind != "touch":
        return sample.pointer
    if 0 < sample.contact < FINE_TOUCH:
        return "touch fine"
    return "touch broad" if sample.contact > BROAD_TOUCH else "touch finger"


class PenTool(Tool):
    """pen: the one in hand; kept: those that lie ready. With `by_tip`, each tip keeps the pen that it was last given:
    a pen that is chosen belongs to the tip that writes next."""

    name: ClassVar[str] = "pen"
    icon: ClassVar[str] = "pencil"
    cursor: ClassVar[str] = "cross"
    shortcut: ClassVar[str] = "P"
    makes_marks: ClassVar[bool] = True

    def __init__(self) -> None:
        self.pen = Pen()
        self.kept: list[Pen] = list(KEPT_PENS)
        self.by_tip = False
        self.tips: dict[str, Pen] = {}
        self._just_chosen = False
        self.tapped: dict[str, list[Point]] = {}  # places of curves that are still to be finished, by tip

    @property
    def hue(self) -> str:
        return self.pen.hue

    def label(self) -> str:
        return _("pen")

    def choose(self, pen: Pen) -> None:
        self.pen = pen
        self._just_chosen = True

    def pen_of(self, sample: Sample) -> Pen:
        """The pen that this pointer writes with."""
        if not self.by_tip:
            return self.pen
        tip = tip_of(sample)
        if self._just_chosen or tip not in self.tips:
            self.tips[tip] = self.pen
            self._just_chosen = False
        return self.tips[tip]

    def press(self, stage: Stage, sample: Sample) -> Gesture:
        on_instrument = stage.pen_gesture(sample, self.pen_of(sample))
        if on_instrument is not None:
            return on_instrument
        pen = self.pen_of(sample)
        if pen.form == "line":
            return DrawLine(stage, sample, pen)
        if pen.form == "curve":
            return DrawCurve(stage, sample, pen, self)
        return Stroke(stage, sample, pen)

    def put_down(self, stage: Stage) -> None:
        self.tapped.clear()
        stage.show_marks(self)


class Stroke(Gesture):
    """A stroke in the making: its newest piece is painted with every sample."""

    def __init__(self, stage: Stage, sample: Sample, pen: Pen) -> None:
        self.stage = stage
        self.pen = pen
        self.samples = [sample]
        self.pressures = [sample.pressure if sample.senses_pressure else 0.75]
        stage.ink_to(self, self.samples, self.pressures, pen)

    def move(self, sample: Sample) -> None:
        last = self.samples[-1]
        if math.dist(sample.view_pos, last.view_pos) < 0.4:
            return
        self.pressures.append(self._pressure(last, sample))
        self.samples.append(sample)
        self.stage.ink_to(self, self.samples, self.pressures, self.pen)
        if len(self.samples) >= MOST_SAMPLES:
            self._keep()
            self.samples, self.pressures = [sample], [self.pressures[-1]]

    def _pressure(self, last: Sample, sample: Sample) -> float:
        if sample.senses_pressure:
            return sample.pressure
        speed = math.dist(sample.view_pos, last.view_pos) / max(1.0, sample.time - last.time)
        target = 1.0 - 0.6 * min(1.0, speed / FAST)
        return self.pressures[-1] + (target - self.pressures[-1]) * CALM

    def release(self, sample: Sample) -> None:
        self.move(sample._replace(pressure=self.pressures[-1]))
        self._keep()

    def _keep(self) -> None:
        from larch.core.actions.ink.writing import write
        from larch.core.things.ink.ink import ink_from

        points = [(*s.page_pos, p, s.time) for s, p in zip(self.samples, self.pressures, strict=True)]
        self.stage.commit(write(self.stage.page, ink_from(points, pen=self.pen)))
        self.stage.ink_end(self)

    def cancel(self) -> None:
        self.stage.ink_end(self)


class DrawLine(Gesture):
    """A straight line from press to release. Ends meet corners and the paper's crossings; Shift holds it to every
    15°, Alt lets it go free."""

    def __init__(self, stage: Stage, sample: Sample, pen: Pen) -> None:
        self.stage = stage
        self.pen = pen
        self.start = self._held(sample, sample.page_pos).at
        self.end = self.start

    def _held(self, sample: Sample, at: Point) -> Held:
        if sample.alt:
            return Held(at, "")
        reach = REACH / self.stage.camera.scale
        return hold_point(self.stage.page, self.stage.things_in(Box(*at, *at).grown(reach)), at, reach)

    def move(self, sample: Sample) -> None:
        from larch.core.things.ink.ink import line_from

        held = hold_direction(self.start, sample.page_pos, True) if sample.shift else self._held(sample, sample.page_pos)
        if not held.reason and not sample.alt:
            held = hold_direction(self.start, sample.page_pos, False)
        self.end = held.at
        snap = Snap(0, 0, held.reason, (self.start, held.at)) if held.reason and held.at != self.start else None
        self.stage.show_snap(self, snap)
        self.stage.preview(self, nothing, [line_from([self.start, self.end], self.pen)])

    def release(self, sample: Sample) -> None:
        from larch.core.actions.ink.writing import write
        from larch.core.things.ink.ink import line_from

        self.stage.show_snap(self, None)
        if self.end != self.start:
            self.stage.commit(write(self.stage.page, line_from([self.start, self.end], self.pen)))
        self.stage.end_preview(self)

    def cancel(self) -> None:
        self.stage.show_snap(self, None)
        self.stage.end_preview(self)


class DrawCurve(Gesture):
    """Drawn in one sweep, it becomes the smooth curve through its start, its middle and its end; or three taps."""

    def __init__(self, stage: Stage, sample: Sample, pen: Pen, tool: PenTool) -> None:
        self.stage = stage
        self.pen = pen
        self.tool = tool
        self.start = sample
        self.path = [sample.page_pos]

    def move(self, sample: Sample) -> None:
        from larch.core.things.ink.ink import line_from

        self.path.append(sample.page_pos)
        if self._swept(sample):
            self.stage.preview(self, nothing, [line_from(self._points(), self.pen)])

    def _swept(self, sample: Sample) -> bool:
        return math.dist(sample.view_pos, self.start.view_pos) > 2 * DRAG_START

    def _points(self) -> list[Point]:
        """Start, the place halfway along the path, end."""
        lengths = [0.0]
        for a, b in zip(self.path, self.path[1:], strict=False):
            lengths.append(lengths[-1] + math.dist(a, b))
        half = next(i for i, length in enumerate(lengths) if length >= lengths[-1] / 2)
        return [self.path[0], self.path[half], self.path[-1]]

    def release(self, sample: Sample) -> None:
        self.move(sample)
        if self._swept(sample):
            self._lay(self._points())
        else:
            self._tap(self.start)
        self.stage.end_preview(self)

    def _tap(self, sample: Sample) -> None:
        tapped = self.tool.tapped.setdefault(tip_of(sample), [])
        tapped.append(sample.page_pos)
        if len(tapped) == 3:
            self._lay(list(tapped))
            tapped.clear()
        waiting = [place for places in self.tool.tapped.values() for place in places]
        self.stage.show_marks(self.tool, *([Spots(waiting)] if waiting else []))

    def _lay(self, points: list[Point]) -> None:
        from larch.core.actions.ink.writing import write
        from larch.core.things.ink.ink import line_from

        edit = write(self.stage.page, line_from(points, self.pen))
        self.stage.commit(Edit(_("Curve"), edit.before, edit.after))

    def cancel(self) -> None:
        self.stage.end_preview(self)
