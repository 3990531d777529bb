"""Moving things: a tap selects, a drag carries; a supply gives a copy; two fingers move and turn."""

from __future__ import annotations

import math
from collections.abc import Sequence

from larch.board.gestures.base import DRAG_START, Gesture, Stage, nothing
from larch.board.pointer import Sample
from larch.core.actions.arrange.holds import BOARD, allowed
from larch.core.base.shape import Box
from larch.core.base.words import _, many
from larch.core.figures.settle import carried
from larch.core.model.capabilities import IsInk, Tappable, Unaligned, snap_of
from larch.core.model.edit import Edit
from larch.core.model.holders import fitted_in, merged_in, with_held
from larch.core.model.page import Page, group_of
from larch.core.model.thing import Snap, Thing

SNAP_REACH = 11.0  # pixels
GUIDE_SHARE = 0.6  # of that reach, within which things fall into line
MOST_BESIDE = 300


def tapped(stage: Stage, thing: Thing, sample: Sample) -> None:
    """What a tap on a thing does: its action at the Board, selecting, opening."""
    if sample.clicks > 1 or (stage.at_board and not sample.shift):
        taps = thing.taps if isinstance(thing, Tappable) and stage.at_board else 1
        if sample.clicks >= taps and stage.tap(thing, sample.page_pos):
            return
        if sample.clicks > 1 and not stage.at_board:
            stage.edit_at = sample.page_pos
            group = group_of(thing, stage.opened)
            if group:
                stage.open_group(group)
                stage.select(stage.whole([thing.id]))
            else:
                stage.edit_thing(thing)
            return
    if stage.opened and stage.opened not in thing.groups:
        stage.open_group("")
    ids = stage.whole([thing.id])
    if not sample.shift:
        stage.select(ids)
    elif thing.id in stage.selection:
        stage.select([id for id in stage.selection if id not in ids])
    else:
        stage.select([*stage.selection, *ids])


def _laid_down(page: Page, ids: Sequence[str]) -> Page:
    """What was let go lies above what it lies on; a picture in a cell has the size of the cell."""
    from larch.core.actions.arrange.arrange import risen

    return fitted_in(risen(page, ids), ids)


def _laid_at_board(page: Page, ids: Sequence[str]) -> Page:
    """By a class: what belongs together becomes one."""
    return merged_in(_laid_down(page, ids), ids)


class TapOnly(Gesture):
    """A tap does what it means; a drag leaves everything where it is."""

    def __init__(self, stage: Stage, thing: Thing) -> None:
        self.stage = stage
        self.thing = thing
        self.start: Sample | None = None
        self.far = False

    def move(self, sample: Sample) -> None:
        self.start = self.start or sample
        self.far = self.far or math.dist(sample.view_pos, self.start.view_pos) > 2 * DRAG_START

    def release(self, sample: Sample) -> None:
        if not self.far:
            tapped(self.stage, self.thing, sample)


class DragThings(Gesture):
    """A tap selects; a drag moves the selection and falls into place beside others. tapping: what a tap means, where that is
    not what a drag moves: words in a cell."""

    def __init__(self, stage: Stage, sample: Sample, thing: Thing, tapping: Thing | None = None) -> None:
        self.stage = stage
        self.tapping = tapping or thing
        self.start = self.pressed = sample
        self.thing = thing
        self.dragging = False
        self.shift = (0.0, 0.0)
        self.ids: tuple[str, ...] = ()
        self.carried = stage.whole([thing.id])
        self.box: Box | None = None
        self.others: list[Box] = []

    def move(self, sample: Sample) -> None:
        if not self.dragging and math.dist(sample.view_pos, self.start.view_pos) < DRAG_START:
            return
        if not self.dragging:
            self._begin()
        dx = sample.page_pos[0] - self.start.page_pos[0]
        dy = sample.page_pos[1] - self.start.page_pos[1]
        if sample.shift:
            dx, dy = (dx, 0.0) if abs(dx) > abs(dy) else (0.0, dy)
        snap = None if sample.alt or sample.shift else self._snap(dx, dy)
        if snap is not None:
            dx, dy = dx + snap.dx, dy + snap.dy
        dx, dy = allowed(self.thing, dx, dy)
        self.shift = (dx, dy)
        self.stage.show_snap(self, snap if self.thing.hold in ("", BOARD) else None)
        self.stage.drag_over(sample.view_pos)
        self.stage.carry(self, self.ids, dx, dy)

    def _begin(self) -> None:
        self.dragging = True
        stage = self.stage
        if self.thing.id not in stage.selection:
            stage.select(stage.whole([self.thing.id]))
        chosen = with_held(stage.page, stage.selection)
        free = [thing for thing in stage.page.some(chosen) if not thing.locked]
        # What is held keeps to its way: it goes along only if it is what the hand has hold of.
        ways = {"", self.thing.hold} if stage.at_board else {"", BOARD, self.thing.hold}
        self.ids = self.carried = tuple(thing.id for thing in free if thing.hold in ways)
        if self.ids and not isinstance(self.thing, Unaligned):
            self.box = stage.box_of(stage.page.some(self.ids))
            self.others = self._beside()

    def _beside(self) -> list[Box]:
        """The boxes of what is seen, with which the dragged things may fall into line."""
        stage, ids = self.stage, set(self.ids)
        seen = [t for t in stage.things_in(stage.seen()) if not isinstance(t, IsInk) and t.id not in ids][-MOST_BESIDE:]
        return [stage.box_of([thing]) for thing in seen]

    def _snap(self, dx: float, dy: float) -> Snap | None:
        from larch.core.actions.arrange.guides import guide

        if self.thing.locked or not self.ids:
            return None
        reach = SNAP_REACH / self.stage.camera.scale
        box = self.thing.moved(dx, dy).box().grown(reach)
        others = [thing for thing in self.stage.things_in(box) if thing.id not in self.ids]
        own = snap_of(self.thing.moved(dx, dy), self.stage.page, others, reach)
        if own is not None or self.box is None:
            return own
        return guide(self.stage.page, self.box.moved(dx, dy), self.others, reach * GUIDE_SHARE)

    def release(self, sample: Sample) -> None:
        self.stage.show_snap(self, None)
        if not self.dragging:
            tapped(self.stage, self.tapping, sample)
            return
        dx, dy = self.shift
        outside = self.stage.drag_over(sample.view_pos)
        self.stage.drag_over(None)
        if outside:
            self.stage.end_preview(self)
            self.stage.let_go.emit(outside, self.ids)
            return
        ids = self.ids if dx or dy else ()
        laid = _laid_at_board if self.stage.at_board else _laid_down
        self.stage.finish(self, _("Move"), lambda page: carried(page, ids, dx, dy) if ids else {}, laid)

    def cancel(self) -> None:
        self.stage.show_snap(self, None)
        self.stage.drag_over(None)
        self.stage.end_preview(self)


class TakeOne(Gesture):
    """Dragging from a supply brings a fresh copy along; a tap selects the supply itself."""

    def __init__(self, stage: Stage, sample: Sample, thing: Thing) -> None:
        from larch.core.actions.arrange.arrange import exhausted

        self.stage = stage
        self.start = sample
        self.supply = thing
        ids = stage.whole([thing.id])
        self.empty = exhausted(stage.page, thing)
        self.sources = list(stage.page.some(ids))
        self.taken: list[Thing] = []

    def move(self, sample: Sample) -> None:
        from larch.core.actions.arrange.arrange import copies

        if not self.taken and math.dist(sample.view_pos, self.start.view_pos) < DRAG_START:
            return
        if self.empty:
            return
        dx = sample.page_pos[0] - self.start.page_pos[0]
        dy = sample.page_pos[1] - self.start.page_pos[1]
        made = [copy.replace(supply=False) for copy in copies(self.stage.page, self.sources, dx, dy)]
        reach = SNAP_REACH / self.stage.camera.scale
        near = self.stage.things_in(made[0].box().grown(reach))
        snap = None if sample.alt or len(made) > 1 else snap_of(made[0], self.stage.page, near, reach)
        if snap is not None:
            made = [copy.moved(snap.dx, snap.dy) for copy in made]
        self.taken = made
        self.stage.drag_over(sample.view_pos)
        self.stage.show_snap(self, snap)
        self.stage.preview(self, nothing, made)

    def release(self, sample: Sample) -> None:
        self.stage.show_snap(self, None)
        if self.empty and math.dist(sample.view_pos, self.start.view_pos) >= DRAG_START:
            self.stage.said.emit(many("It gives only one.", "It gives only {n}.", self.supply.limit))
            return
        if not self.taken:
            if not (self.stage.at_board and self.stage.tap(self.supply, sample.page_pos)):
                self.stage.select([thing.id for thing in self.sources])
            return
        outside = self.stage.drag_over(sample.view_pos)
        self.stage.drag_over(None)
        if outside:  # back to where it came from
            self.stage.end_preview(self)
            return
        page = self.stage.page
        new = tuple(page.put_ids(len(self.taken)))
        after = page.put(*self.taken)
        edit = Edit(_("Take from a supply"), page, merged_in(after, new) if self.stage.at_board else after, select=new)
        self.stage.commit(edit)
        self.stage.end_preview(self)

    def cancel(self) -> None:
        self.stage.show_snap(self, None)
        self.stage.end_preview(self)
