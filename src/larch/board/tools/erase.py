"""The eraser: parts of strokes, whole strokes, what a ring encloses, what a sweep passes. Ink, and only ink."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import TYPE_CHECKING, ClassVar

from larch.board.gestures.base import DRAG_START, RUB, Band, Caption, Gesture, Ring, Rubber, Stage
from larch.board.pointer import Sample
from larch.board.tools.base import Tool
from larch.core.base.hues import PAPER, hex_of, mixed
from larch.core.base.shape import Box, Point, box_of
from larch.core.base.words import _, many
from larch.core.model.capabilities import HasInk
from larch.core.model.thing import Thing

if TYPE_CHECKING:
    from larch.core.actions.ink import rub
    from larch.core.things.ink.ink import Ink

RADII = (8.0, 14.0, 26.0, 48.0)  # pixels
PALE = 0.22  # how much of its colour is left of ink that is about to go
MODES = ("part", "strokes", "ring", "sweep")


def mode_label(mode: str) -> str:
    return {
        "part": _("what it touches"), "strokes": _("whole strokes"), "ring": _("inside a ring"), "sweep": _("by a sweep")
    }[mode]  # fmt: skip


class EraserTool(Tool):
    """mode: one of MODES; radius in pixels; hue: only ink of this hue goes, "" for any."""

    name: ClassVar[str] = "rub out"
    icon: ClassVar[str] = "eraser"
    cursor: ClassVar[str] = "cross"
    shortcut: ClassVar[str] = "E"
    makes_marks: ClassVar[bool] = True

    def __init__(self, mode: str = "part", radius: float = RADII[1]) -> None:
        self.mode = mode
        self.radius = radius
        self.only_hue = ""

    def label(self) -> str:
        return _("rub out")

    def press(self, stage: Stage, sample: Sample) -> Gesture:
        under = stage.thing_at(sample.page_pos, 0.0)
        own = stage.gesture_for(sample, under, RUB) if under is not None and not under.supply else None
        if own is not None:
            return own
        if self.mode == "ring":
            return RingRound(stage, sample, self.only_hue)
        if self.mode == "sweep":
            return Sweep(stage, sample, self.only_hue)
        return Rubbing(stage, sample, self.radius, self.mode == "strokes", self.only_hue)


class Rubbing(Gesture):
    """Rubs along a path. What is left is shown at once; lifting the rubber makes it one step of undo."""

    def __init__(self, stage: Stage, sample: Sample, radius: float, whole: bool, hue: str = "") -> None:
        self.stage = stage
        self.radius = radius
        self.whole = whole
        self.hue = hue
        self.trail = [sample.page_pos]
        self.reach = radius / stage.camera.scale
        self.left: dict[str, Sequence[Thing]] = {}
        self.sources: dict[str, Thing] = {}
        self.move(sample)

    def move(self, sample: Sample) -> None:
        path = [self.trail[-1], sample.page_pos]
        self.trail.append(sample.page_pos)
        fresh = self._rub(path)
        if fresh and self.whole:
            self.stage.show_instead(self, self.left, [thing.box().grown(2) for thing in self.stage.page.some(fresh)])
        elif fresh:
            self.stage.rub_out(self, path, self.reach, self.left)
        self.stage.show_marks(self, Rubber(sample.view_pos, self.radius))

    def _rub(self, path: Sequence[Point]) -> list[str]:
        """Takes off what lies along a path; returns the ids of what changed."""
        from larch.core.actions.ink import rub

        change = rub.whole(path, self.reach) if self.whole else rub.part(path, self.reach)
        if self.hue:
            change = only(self.hue, change)
        fresh = []
        for thing in self.stage.things_in(box_of(path).grown(self.reach)):
            left = None if thing.locked else self._rubbed(thing, change)
            if left is not None:
                self.left[thing.id] = left
                self.sources.setdefault(thing.id, thing)
                fresh.append(thing.id)
        return fresh

    def _rubbed(self, thing: Thing, change: rub.Change) -> Sequence[Thing] | None:
        """What is left of what is left of it; None if this step takes nothing."""
        pieces: list[Thing] = []
        some = False
        for piece in self.left.get(thing.id, (thing,)):
            left = piece.rubbed(change) if isinstance(piece, HasInk) else None
            some = some or left is not None
            pieces += [piece] if left is None else left
        return pieces if some else None

    def release(self, sample: Sample) -> None:
        from larch.core.actions.ink import rub

        self.move(sample)
        page = self.stage.page
        if any(page.thing(id) is not source for id, source in self.sources.items()):
            self._rub_again()
        if self.left:
            self.stage.commit(rub.rub_edit(self.stage.page, self.left, _("Rub out")))
        self.stage.show_marks(self)
        self.stage.end_instead(self, committed=True)

    def _rub_again(self) -> None:
        """Somebody else changed the same ink meanwhile: the whole path is rubbed once more, over what is there now."""
        self.left, self.sources = {}, {}
        for a, b in pairwise(self.trail):
            self._rub([a, b])

    def cancel(self) -> None:
        self.stage.show_marks(self)
        self.stage.end_instead(self)


def only(hue: str, change: rub.Change) -> rub.Change:
    return lambda ink: change(ink) if ink.hue == hue else None


def paled(thing: Thing, change: rub.Change) -> Sequence[Thing] | None:
    """The thing with the ink that would go shown pale."""

    def pale(ink: Ink) -> Sequence[Thing] | None:
        return None if change(ink) is None else (ink.replace(hue=mixed(PAPER, hex_of(ink.hue), PALE)),)

    return thing.rubbed(pale) if isinstance(thing, HasInk) else None


class Doomed:
    """Ink that is about to go: shown pale, counted, and taken away in one step or left alone."""

    def __init__(self, stage: Stage, owner: object) -> None:
        self.stage = stage
        self.owner = owner
        self.left: dict[str, Sequence[Thing]] = {}
        self.count = 0

    def show(self, change: rub.Change, box: Box) -> None:
        from larch.core.actions.ink import rub

        seen = [thing for thing in self.stage.things_in(box) if not thing.locked]
        before = set(self.left)
        self.left = rub.changed(seen, change)
        shown = {thing.id: pale for thing in seen if (pale := paled(thing, change)) is not None}
        self.count = 0

        def tally(ink: Ink) -> None:
            self.count += change(ink) is not None

        for thing in self.stage.page.some(self.left):
            if isinstance(thing, HasInk):
                thing.rubbed(tally)
        differing = before ^ set(self.left)
        if differing:
            boxes = [thing.box().grown(4) for thing in self.stage.page.some(differing)]
            self.stage.show_instead(self.owner, shown, boxes)

    def take(self) -> None:
        from larch.core.actions.ink import rub

        if self.left:
            self.stage.commit(rub.rub_edit(self.stage.page, self.left, _("Rub out")))
        self.spare()

    def spare(self) -> None:
        self.stage.show_marks(self.owner)
        self.stage.end_instead(self.owner)


class RingRound(Gesture):
    """A ring is drawn round ink; what lies in it turns pale and goes when the chip at the ring is pressed."""

    def __init__(self, stage: Stage, sample: Sample, hue: str) -> None:
        self.stage = stage
        self.hue = hue
        self.path = [sample.page_pos]
        self.far = False
        self.start = sample

    def move(self, sample: Sample) -> None:
        self.path.append(sample.page_pos)
        self.far = self.far or math.dist(sample.view_pos, self.start.view_pos) > DRAG_START
        self.stage.show_marks(self, Ring(self.path))

    def release(self, sample: Sample) -> None:
        from larch.core.actions.ink import rub

        if not self.far or len(self.path) < 4:
            self.cancel()
            return
        doomed = Doomed(self.stage, self)
        ring = self.path[:: max(1, len(self.path) // 400)]
        change = rub.inside(ring)
        doomed.show(only(self.hue, change) if self.hue else change, box_of(ring))
        if not doomed.count:
            self.stage.show_marks(self)
            return
        text = many("rub out 1 stroke", "rub out {n} strokes", doomed.count)
        self.stage.offer(lowest(ring), text, "eraser", doomed.take, doomed.spare)

    def cancel(self) -> None:
        self.stage.show_marks(self)
        self.stage.end_instead(self)


def lowest(ring: Sequence[Point]) -> Point:
    """Below the middle of a ring."""
    box = box_of(ring)
    return ((box.x0 + box.x1) / 2, box.y1)


class Sweep(Gesture):
    """The hand sweeps over the page: all ink in the strip that it passed turns pale, and goes when it is lifted.
    Going back spares it again."""

    def __init__(self, stage: Stage, sample: Sample, hue: str) -> None:
        self.stage = stage
        self.hue = hue
        self.start = sample
        self.doomed = Doomed(stage, self)

    def move(self, sample: Sample) -> None:
        from larch.core.actions.ink import rub

        left, right = sorted((self.start.page_pos[0], sample.page_pos[0]))
        if abs(sample.view_pos[0] - self.start.view_pos[0]) <= 2 * DRAG_START:
            right = left  # so that going back to where it began spares everything
            self.doomed.show(lambda ink: None, Box(left, -1e6, right, 1e6))
            self.stage.show_marks(self)
            return
        change = rub.both(rub.beside(left, right), rub.of_hue(self.hue))
        self.doomed.show(change, Box(left, -1e6, right, 1e6))
        count = many("1 stroke", "{n} strokes", self.doomed.count)
        self.stage.show_marks(self, Band(left, right), Caption(sample.page_pos, count))

    def release(self, sample: Sample) -> None:
        self.move(sample)
        self.doomed.take()

    def cancel(self) -> None:
        self.doomed.spare()
