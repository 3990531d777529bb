"""Select: tap, drag, drag a handle, draw a box round things."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import ClassVar

from larch.board.pointer import Sample
from larch.board.tools.base import DRAG_START, TOUCH_SLACK, Gesture, Ring, Stage, Tool
from larch.board.tools.grow import Grow
from larch.board.tools.instruments import grip_of
from larch.board.tools.rubbing import RubFrost
from larch.core.actions.arrange.arrange import copies, exhausted
from larch.core.actions.arrange.guides import guide
from larch.core.actions.arrange.holds import BOARD, TURN, allowed, untouchable
from larch.core.base.shape import Box, Point, box_of
from larch.core.base.words import _, many
from larch.core.figures.figure import Figure
from larch.core.figures.settle import carried, free_of
from larch.core.maths.geometry import inside
from larch.core.model.edit import Edit
from larch.core.model.holders import with_held
from larch.core.model.page import group_of
from larch.core.model.thing import Snap, Thing
from larch.core.things.instruments.instrument import Instrument
from larch.core.things.pictures.frost import Frost

SNAP_REACH = 11.0  # pixels
GUIDE_SHARE = 0.6  # of that reach, within which things fall into line
MOST_BESIDE = 300
ANGLE_STEP = 15.0  # degrees
ANGLE_REACH = 3.0


class SelectTool(Tool):
    name: ClassVar[str] = "select"
    icon: ClassVar[str] = "mouse-pointer-2"
    shortcut: ClassVar[str] = "V"

    def __init__(self) -> None:
        self.mode = "box"  # or "ring": what a drag over the empty page draws round things

    def label(self) -> str:
        return _("select")

    def press(self, stage: Stage, sample: Sample) -> Gesture:
        handle = stage.handle_at(sample.view_pos)
        if handle is not None:
            return _grip(stage, sample, *handle)
        slack = TOUCH_SLACK / stage.camera.scale if sample.kind == "touch" else 4 / stage.camera.scale
        thing = stage.thing_at(sample.page_pos, slack)
        if thing is None:
            return self._round(stage, sample, None)
        if stage.at_board and isinstance(thing, Frost) and not thing.supply:
            return RubFrost(stage, sample, thing)
        held = untouchable(thing) if stage.at_board else thing.locked
        if held and not thing.supply:  # a locked background must not keep anyone from drawing a box over it
            return self._round(stage, sample, thing)
        if thing.supply and not sample.control:
            return TakeOne(stage, sample, thing)
        if thing.hold == TURN and (stage.at_board or thing.id in stage.selection):
            stage.select(stage.whole([thing.id]))
            return TurnThings(stage, sample, thing)
        return DragThings(stage, sample, thing)

    def _round(self, stage: Stage, sample: Sample, thing: Thing | None) -> Gesture:
        return RingSelect(stage, sample, thing) if self.mode == "ring" else Marquee(stage, sample, thing)


def _grip(stage: Stage, sample: Sample, id: str, name: str) -> Gesture:
    if name == "turn":
        return TurnThings(stage, sample)
    if name.startswith("size"):
        return SizeThings(stage, sample, name)
    if name == "carry":
        thing = stage.page.thing(id)
        if thing is not None:
            return DragThings(stage, sample, thing)
    held = stage.page.thing(id)
    if held is not None and name.startswith("grow "):
        return Grow(stage, sample, held, name.removeprefix("grow "))
    grip = grip_of(stage, sample, held, name) if isinstance(held, Instrument) else None
    return grip or DragHandle(stage, sample, id, name)


def movable(stage: Stage) -> list[Thing]:
    """What a drag moves: the selected things that are not locked, or what those hang on."""
    free = [thing.id for thing in stage.page.some(stage.selection) if not thing.locked]
    return [thing for thing in stage.page.some(free_of(stage.page, free)) if not thing.locked]


def one_of_several(things: Sequence[Thing], able: str) -> list[Thing]:
    """Those that can be turned or sized; points too, where there are several."""
    return [thing for thing in things if getattr(thing, able) or (len(things) > 1 and thing.kind() == "point")]


class DragThings(Gesture):
    """A tap selects; a drag moves the selection and falls into place beside others."""

    def __init__(self, stage: Stage, sample: Sample, thing: Thing) -> None:
        self.stage = stage
        self.start = sample
        self.thing = thing
        self.dragging = False
        self.shift = (0.0, 0.0)
        self.ids: tuple[str, ...] = ()
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
        self.ids = tuple(thing.id for thing in free if thing.hold in ways)
        if self.ids and not isinstance(self.thing, Figure | Instrument):
            self.box = stage.box_of(stage.page.some(self.ids))
            self.others = self._beside()

    def _beside(self) -> list[Box]:
        """The boxes of what is seen, with which the dragged things may fall into line."""
        stage, ids = self.stage, set(self.ids)
        seen = [t for t in stage.things_in(stage.seen()) if not t.is_ink and t.id not in ids][-MOST_BESIDE:]
        return [stage.box_of([thing]) for thing in seen]

    def _snap(self, dx: float, dy: float) -> Snap | None:
        if self.thing.locked or not self.ids:
            return None
        reach = SNAP_REACH / self.stage.camera.scale
        box = self.thing.moved(dx, dy).box().grown(reach)
        others = [thing for thing in self.stage.things_in(box) if thing.id not in self.ids]
        own = self.thing.moved(dx, dy).snap(self.stage.page, others, reach)
        if own is not None or self.box is None:
            return own
        return guide(self.stage.page, self.box.moved(dx, dy), self.others, reach * GUIDE_SHARE)

    def release(self, sample: Sample) -> None:
        self.stage.show_snap(self, None)
        if not self.dragging:
            self._tapped(sample)
            return
        page = self.stage.page
        dx, dy = self.shift
        outside = self.stage.drag_over(sample.view_pos)
        self.stage.drag_over(None)
        if outside:
            self.stage.end_preview(self)
            self.stage.let_go.emit(outside, self.ids)
            return
        moved = page.with_things(carried(page, self.ids, dx, dy))
        if (dx or dy) and self.ids:
            self.stage.commit(Edit(_("Move"), page, moved))
        self.stage.end_preview(self)

    def _tapped(self, sample: Sample) -> None:
        stage = self.stage
        if sample.clicks > 1 or (stage.at_board and not sample.shift):
            if sample.clicks >= (self.thing.taps if stage.at_board else 1) and stage.tap(self.thing):
                return
            if sample.clicks > 1 and not stage.at_board:
                stage.edit_at = sample.page_pos
                group = group_of(self.thing, stage.opened)
                if group:
                    stage.open_group(group)
                    stage.select(stage.whole([self.thing.id]))
                else:
                    stage.edit_thing(self.thing)
                return
        if stage.opened and stage.opened not in self.thing.groups:
            stage.open_group("")
        ids = stage.whole([self.thing.id])
        if not sample.shift:
            stage.select(ids)
        elif self.thing.id in stage.selection:
            stage.select([id for id in stage.selection if id not in ids])
        else:
            stage.select([*stage.selection, *ids])

    def cancel(self) -> None:
        self.stage.show_snap(self, None)
        self.stage.drag_over(None)
        self.stage.end_preview(self)


class TakeOne(Gesture):
    """Dragging from a supply brings a fresh copy along; a tap selects the supply itself."""

    def __init__(self, stage: Stage, sample: Sample, thing: Thing) -> None:
        self.stage = stage
        self.start = sample
        self.supply = thing
        ids = stage.whole([thing.id])
        self.empty = exhausted(stage.page, thing)
        self.sources = list(stage.page.some(ids))
        self.taken: list[Thing] = []

    def move(self, sample: Sample) -> None:
        if not self.taken and math.dist(sample.view_pos, self.start.view_pos) < DRAG_START:
            return
        if self.empty:
            return
        dx = sample.page_pos[0] - self.start.page_pos[0]
        dy = sample.page_pos[1] - self.start.page_pos[1]
        made = [copy.replace(supply=False) for copy in copies(self.stage.page, self.sources, dx, dy)]
        reach = SNAP_REACH / self.stage.camera.scale
        near = self.stage.things_in(made[0].box().grown(reach))
        snap = None if sample.alt or len(made) > 1 else made[0].snap(self.stage.page, near, reach)
        if snap is not None:
            made = [copy.moved(snap.dx, snap.dy) for copy in made]
        self.taken = made
        self.stage.drag_over(sample.view_pos)
        self.stage.show_snap(self, snap)
        self.stage.preview(self, {}, made)

    def release(self, sample: Sample) -> None:
        self.stage.show_snap(self, None)
        if self.empty and math.dist(sample.view_pos, self.start.view_pos) >= DRAG_START:
            self.stage.said.emit(many("It gives only one.", "It gives only {n}.", self.supply.limit))
            return
        if not self.taken:
            if not (self.stage.at_board and self.stage.tap(self.supply)):
                self.stage.select([thing.id for thing in self.sources])
            return
        outside = self.stage.drag_over(sample.view_pos)
        self.stage.drag_over(None)
        if outside:  # back to where it came from
            self.stage.end_preview(self)
            return
        page = self.stage.page
        edit = Edit(_("Take from a supply"), page, page.put(*self.taken), select=tuple(page.put_ids(len(self.taken))))
        self.stage.commit(edit)
        self.stage.end_preview(self)

    def cancel(self) -> None:
        self.stage.show_snap(self, None)
        self.stage.end_preview(self)


class DragHandle(Gesture):
    """A corner, an end, a hand: whatever the thing itself says can be dragged."""

    def __init__(self, stage: Stage, sample: Sample, id: str, name: str) -> None:
        self.stage = stage
        self.id = id
        self.name = name
        self.before = stage.page.thing(id)
        self.after = self.before

    def move(self, sample: Sample) -> None:
        if self.before is None:
            return
        page = self.stage.page
        x, y = sample.page_pos
        if sample.control:  # to the squares of the paper
            step = self.stage.page.paper.step
            x, y = round(x / step) * step, round(y / step) * step
        self.after = self.before.with_handle(self.name, *self.before.placement.to_local(x, y))
        self.stage.preview(self, {self.id: self.after, **self.after.rearranged(page, self.before)})

    def release(self, sample: Sample) -> None:
        page = self.stage.page
        if self.after is not None and self.after is not self.before:
            changed = {self.id: self.after, **self.after.rearranged(page, self.before)}
            self.stage.commit(Edit(_("Drag a corner"), page, page.with_things(changed)))
        self.stage.end_preview(self)

    def cancel(self) -> None:
        self.stage.end_preview(self)


class TurnThings(Gesture):
    """Turns the selection about its centre, falling to every 15° with the angle shown."""

    def __init__(self, stage: Stage, sample: Sample, grabbed: Thing | None = None) -> None:
        self.stage = stage
        self.grabbed = grabbed
        self.things = one_of_several(movable(stage), "turnable")
        self.centre = stage.box_of(self.things).centre
        self.first = self._angle(sample.page_pos)
        self.turned: dict[str, Thing] = {}

    def _angle(self, pos: Point) -> float:
        return math.degrees(math.atan2(self.centre[1] - pos[1], pos[0] - self.centre[0]))

    def move(self, sample: Sample) -> None:
        if not self.things:
            return
        by = self._angle(sample.page_pos) - self.first
        base = self.things[0].placement.turn if len(self.things) == 1 else 0.0
        target = round((base + by) / ANGLE_STEP) * ANGLE_STEP
        snapped = not sample.alt and abs(base + by - target) < ANGLE_REACH
        if snapped:
            by = target - base
        self.turned = {t.id: t.turned(by, self.centre) for t in self.things}
        reason = f"{round(target) % 360}°"
        self.stage.show_snap(self, Snap(0, 0, reason, (self.centre, sample.page_pos)) if snapped else None)
        self.stage.preview(self, self.turned)

    def release(self, sample: Sample) -> None:
        page = self.stage.page
        if not self.turned and self.grabbed is not None:
            self.stage.tap(self.grabbed)
        if self.turned:
            self.stage.commit(Edit(_("Turn"), page, page.with_things(self.turned)))
        self.cancel()

    def cancel(self) -> None:
        self.stage.show_snap(self, None)
        self.stage.end_preview(self)


class SizeThings(Gesture):
    """size-tl, -tr, -bl, -br enlarge in proportion from the opposite corner; size-r and size-b stretch one thing."""

    def __init__(self, stage: Stage, sample: Sample, name: str) -> None:
        self.stage = stage
        self.name = name
        self.things = one_of_several(movable(stage), "resizable")
        self.box = stage.box_of(self.things)
        self.start = sample
        self.sized: dict[str, Thing] = {}

    def _fixed(self) -> Point:
        box = self.box
        return {
            "size-tl": (box.x1, box.y1), "size-tr": (box.x0, box.y1),
            "size-bl": (box.x1, box.y0), "size-br": (box.x0, box.y0),
        }[self.name]  # fmt: skip

    def move(self, sample: Sample) -> None:
        if not self.things:
            return
        self.sized = self._stretched(sample) if self.name in ("size-r", "size-b") else self._enlarged(sample)
        self.stage.preview(self, self.sized)

    def _enlarged(self, sample: Sample) -> dict[str, Thing]:
        fixed = self._fixed()
        before = math.dist(fixed, self.start.page_pos)
        wanted = math.dist(fixed, sample.page_pos)
        smallest = max(1e-6, *(0.02 / thing.placement.scale for thing in self.things))
        largest = min(200 / thing.placement.scale for thing in self.things)
        factor = min(max(wanted / before if before else 1.0, smallest), largest)
        return {t.id: t.enlarged(factor, fixed) for t in self.things}

    def _stretched(self, sample: Sample) -> dict[str, Thing]:
        thing = self.things[0]
        x, y = thing.placement.to_local(*sample.page_pos)
        x0, y0 = thing.placement.to_local(*self.start.page_pos)
        across = max(0.02, x / x0) if self.name == "size-r" and x0 > 0 else 1.0
        down = max(0.02, y / y0) if self.name == "size-b" and y0 > 0 else 1.0
        changed = thing.stretched(across, down)
        return {} if changed is None else {thing.id: changed}

    def release(self, sample: Sample) -> None:
        page = self.stage.page
        if self.sized:
            self.stage.commit(Edit(_("Size"), page, page.with_things(self.sized)))
        self.stage.end_preview(self)

    def cancel(self) -> None:
        self.stage.end_preview(self)


class Marquee(Gesture):
    """A box drawn over the empty page selects what lies in it. A tap selects nothing."""

    pinches: ClassVar[bool] = True

    def __init__(self, stage: Stage, sample: Sample, tapped: Thing | None = None) -> None:
        self.stage = stage
        self.start = sample
        self.tapped = tapped
        self.box: Box | None = None

    def move(self, sample: Sample) -> None:
        if self.box is None and math.dist(sample.view_pos, self.start.view_pos) < DRAG_START:
            return
        self.box = box_of([self.start.page_pos, sample.page_pos])
        self.stage.show_marquee(self, self.box)

    def release(self, sample: Sample) -> None:
        before: Sequence[str] = self.stage.selection if sample.shift else ()
        found: list[str] = []
        if self.box is not None:
            inside = [t for t in self.stage.things_in(self.box) if self.box.covers(self.stage.box_of([t]))]
            found = [thing.id for thing in inside if not thing.locked]
        elif self.tapped is not None and not self.stage.at_board:
            found = [self.tapped.id]
        elif self.tapped is not None and self.stage.tap(self.tapped):
            return
        if self.box is None and self.tapped is None:
            self.stage.open_group("")
        ids = self.stage.whole([*before, *found])
        self.stage.show_marquee(self, None)
        self.stage.select(ids)

    def cancel(self) -> None:
        self.stage.show_marquee(self, None)


class RingSelect(Marquee):
    """A ring drawn by hand selects what has its middle inside."""

    def __init__(self, stage: Stage, sample: Sample, tapped: Thing | None = None) -> None:
        super().__init__(stage, sample, tapped)
        self.path = [sample.page_pos]

    def move(self, sample: Sample) -> None:
        if self.box is None and math.dist(sample.view_pos, self.start.view_pos) < DRAG_START:
            return
        self.path.append(sample.page_pos)
        self.box = box_of(self.path)
        self.stage.show_marks(self, Ring(self.path))

    def release(self, sample: Sample) -> None:
        self.stage.show_marks(self)
        if self.box is None:
            super().release(sample)
            return
        ring = self.path[:: max(1, len(self.path) // 400)]
        met = [thing for thing in self.stage.things_in(self.box) if not thing.locked]
        found = [thing.id for thing in met if inside(ring, *self.stage.box_of([thing]).centre)]
        before: Sequence[str] = self.stage.selection if sample.shift else ()
        self.stage.select(self.stage.whole([*before, *found]))

    def cancel(self) -> None:
        self.stage.show_marks(self)
