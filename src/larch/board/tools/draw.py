"""Pen and eraser. Each pointer draws for itself; an eraser end always erases."""

from __future__ import annotations

import math
from typing import ClassVar

from larch.board.pointer import Sample
from larch.board.tools.base import Gesture, Stage, Tool
from larch.core.arrange import put
from larch.core.edit import Edit
from larch.core.things.ink import ink_from
from larch.core.words import _

FAST = 2.6  # pixels per ms at which a line without pressure is at its thinnest
CALM = 0.25  # how quickly the width follows the speed
WIDTHS = (3.0, 5.0, 9.0, 16.0)
MOST_SAMPLES = 20_000  # a longer stroke goes on as another


class PenTool(Tool):
    name: ClassVar[str] = "pen"
    icon: ClassVar[str] = "pencil"
    cursor: ClassVar[str] = "cross"
    shortcut: ClassVar[str] = "P"

    def __init__(self) -> None:
        self.width = WIDTHS[1]
        self.hue = "needle"

    def label(self) -> str:
        return _("pen")

    def press(self, stage: Stage, sample: Sample) -> Gesture:
        return Stroke(stage, sample, self.width, self.hue)


class Stroke(Gesture):
    """A stroke in the making: its newest piece is painted with every sample."""

    def __init__(self, stage: Stage, sample: Sample, width: float, hue: str) -> None:
        self.stage = stage
        self.width = width
        self.hue = hue
        self.samples = [sample]
        self.pressures = [sample.pressure if sample.senses_pressure else 0.75]
        stage.ink_to(self, self.samples, self.pressures, width, hue)

    def move(self, sample: Sample) -> None:
        last = self.samples[-1]
        if math.dist(sample.view_pos, last.view_pos) < 0.4:
            return
        self.pressures.append(self._pressure(last, sample))
        self.samples.append(sample)
        self.stage.ink_to(self, self.samples, self.pressures, self.width, self.hue)
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
        points = [(*s.page_pos, p, s.time) for s, p in zip(self.samples, self.pressures, strict=True)]
        edit = put(self.stage.page, [ink_from(points, self.width, self.hue)], _("Ink"))
        self.stage.commit(Edit(edit.label, edit.before, edit.after))
        self.stage.ink_end(self)

    def cancel(self) -> None:
        self.stage.ink_end(self)


class EraserTool(Tool):
    """Rubs out whole strokes of ink, and nothing but ink."""

    name: ClassVar[str] = "rub out"
    icon: ClassVar[str] = "eraser"
    cursor: ClassVar[str] = "cross"
    shortcut: ClassVar[str] = "E"

    def __init__(self) -> None:
        self.radius = 14.0  # pixels

    def label(self) -> str:
        return _("rub out")

    def press(self, stage: Stage, sample: Sample) -> Gesture:
        return Rubbing(stage, sample, self.radius)


class Rubbing(Gesture):
    def __init__(self, stage: Stage, sample: Sample, radius: float) -> None:
        self.stage = stage
        self.radius = radius
        self.last = sample
        self.found: list[str] = []
        self.move(sample)

    def move(self, sample: Sample) -> None:
        reach = self.radius / self.stage.camera.scale
        met = self.stage.ink_at(self.last.page_pos, sample.page_pos, reach)
        self.last = sample
        new = [id for id in met if id not in self.found]
        if new:
            self.found += new
            self.stage.hide_things(self, self.found)
        self.stage.show_eraser(self, sample.view_pos, self.radius)

    def release(self, sample: Sample) -> None:
        self.move(sample)
        self.stage.show_eraser(self, None, 0)
        page = self.stage.page
        if self.found:
            self.stage.commit(Edit(_("Rub out"), page, page.without(self.found)))
        self.stage.end_preview(self)

    def cancel(self) -> None:
        self.stage.show_eraser(self, None, 0)
        self.stage.end_preview(self)
