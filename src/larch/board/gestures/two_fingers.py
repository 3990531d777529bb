"""Two fingers at what one of them carries already: they move it and turn it between them."""

from __future__ import annotations

from collections.abc import Mapping

from larch.board.gestures.base import Gesture, Stage
from larch.board.pointer import Sample
from larch.core.base.shape import Box
from larch.core.base.words import _
from larch.core.figures.settle import carried, followers, free_of
from larch.core.model.capabilities import TurnsOnto
from larch.core.model.page import Page
from larch.core.model.thing import Snap, Thing

NEAR = 700.0  # page units in which lines are looked for that a turn may fall onto
DEAD = 9.0  # degrees that two fingers may turn by mistake
STEP, FALL = 15.0, 3.0  # degrees: what a turn falls onto, and from how far


class TwoFingers(Gesture):
    """Moved and turned as one, whatever lies in a group or was selected together."""

    def __init__(
        self, stage: Stage, thing: Thing, ids: tuple[str, ...], start: Sample, first: Sample, second: Sample
    ) -> None:
        """start: where the first finger took hold; first: where it is by now."""
        self.stage, self.thing = stage, thing
        self.ids = ids
        things = [t for t in stage.page.some(free_of(stage.page, ids)) if not t.locked]
        self.moving = tuple(t.id for t in things)
        self.turns = all(t.turnable for t in things) and not any(t.hold for t in things)
        self.before = (start.page_pos, second.page_pos)
        self.at = {first.pointer: first.page_pos, second.pointer: second.page_pos}
        self.turn = 0.0
        self.middle, self.shift = first.page_pos, (0.0, 0.0)
        self.turning = isinstance(thing, TurnsOnto)
        self.done = False
        self.move(first)

    def move(self, sample: Sample) -> None:
        from larch.core.maths.plane.near import drag_two

        if sample.pointer not in self.at or self.done:
            return
        self.at[sample.pointer] = sample.page_pos
        one, other = self.at.values()
        turn, self.middle, self.shift = drag_two(self.before, (one, other))
        self.turning = self.turning or abs(turn) > DEAD
        self.turn, why = self._held(turn) if self.turning and self.turns else (0.0, "")
        self.stage.show_snap(self, Snap(0, 0, why, (one, other)) if why else None)
        self.stage.preview(self, self._change)

    def _held(self, turn: float) -> tuple[float, str]:
        """A turn that falls onto lines nearby, or onto every 15°; and why."""
        if isinstance(self.thing, TurnsOnto):
            near: Box = self.thing.box().grown(NEAR)
            others = [t for t in self.stage.things_in(near) if t.id not in self.ids]
            return self.thing.held_turn(self.stage.page, others, turn)
        base = self.thing.placement.turn if len(self.moving) == 1 else 0.0
        target = round((base + turn) / STEP) * STEP
        return (target - base, f"{round(target) % 360}°") if abs(base + turn - target) < FALL else (turn, "")

    def _change(self, page: Page) -> Mapping[str, Thing]:
        if not self.turn:
            return carried(page, self.ids, *self.shift)
        return followers(page, {t.id: t.turned(self.turn, self.middle).moved(*self.shift) for t in page.some(self.moving)})

    def release(self, sample: Sample) -> None:
        """The finger that stays does nothing more."""
        self.stage.show_snap(self, None)
        if self.done:
            return
        self.done = True
        self.stage.finish(self, _("Move and turn") if self.turn else _("Move"), self._change)

    def cancel(self) -> None:
        self.stage.show_snap(self, None)
        self.stage.end_preview(self)
