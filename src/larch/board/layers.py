"""What is seen of a page: the picture at rest, and over it what gestures show, motions, signs and live ink."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QGroupBox, QWidget

from larch.board.camera import Camera
from larch.board.dependents import dependents
from larch.board.gestures.base import Change, OverlayMark, Rubber
from larch.board.ink.live_ink import LiveInk
from larch.board.live import Lift, Motion
from larch.board.overlay import Overlay, rubber_rect
from larch.board.pointer import Sample
from larch.board.surface import Surface
from larch.board.timers import timer
from larch.board.views import view_of
from larch.core.base.shape import Box, Point, union
from larch.core.figures.settle import carried, plan_of
from larch.core.model.edit import Edit
from larch.core.model.nibs import Pen
from larch.core.model.page import Page
from larch.core.model.thing import Snap, Thing
from larch.core.session.session import Session

SLICE = 6.0  # ms of painting at rest between two events
NEW = "new "  # begins the ids of things that are still being put out
LIFTING = 5.0  # ms a frame for taking many dragged things into one picture
AT_ONCE = 12.0  # ms of painting before the frame that shows an edit


class PageLayers(QGroupBox):
    """A group by its class, which is what a screen reader takes it for.

    Signals: viewed (camera, page or preview moved), dragging_changed, ticked (the ids of things that look different by
    now)."""

    viewed = pyqtSignal()
    dragging_changed = pyqtSignal(bool)
    ticked = pyqtSignal(object)

    def __init__(self, session: Session, page_id: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session = session
        self.page_id = page_id
        self.camera = Camera()
        self.still = False  # no motions
        self.surface = Surface(lambda: self.page)
        self._ink = LiveInk()
        self.overlay = Overlay()
        self._instead: dict[object, Mapping[str, Sequence[Thing]]] = {}
        self._lifts: dict[object, Lift] = {}
        self._retiring: list[Lift] = []
        self._motions: dict[str, Motion] = {}
        self._preview: tuple[Page, Page] | None = None
        self._snaps: dict[object, Snap] = {}
        self._marquees: dict[object, Box] = {}
        self._shown = self.page
        self._slicer = timer(self, self._sharpen_slice)
        self._ticker = timer(self, self._tick, 16)

    def commit(self, edit: Edit) -> None:
        raise TypeError("given by the stage")

    @property
    def page(self) -> Page:
        found = self.session.lesson.page(self.page_id)
        return found if found is not None else self.session.lesson.pages[0]

    def tick(self, ids: set[str]) -> None:
        """Things that run look different by now."""
        boxes = self.surface.index.boxes
        self.surface.invalidate_each([boxes[id] for id in ids if id in boxes])
        self.surface.sharpen(AT_ONCE)
        self._refresh()
        self.ticked.emit(ids)

    def _work_out_again(self, changed: set[str]) -> None:
        """The page was changed by another hand: gestures that go on work at it as it is now."""
        for lift in list(self._lifts.values()):
            if lift.change is not None and not changed.isdisjoint(lift.things):
                lift.put_down_picture()
                self._show_lifted(self._work_out(lift))

    def _start_motions(self, before: Page, after: Page, ids: set[str]) -> None:
        if self.still:
            return
        for id in ids:
            old, new = before.thing(id), after.thing(id)
            if old is None or new is None or type(old) is not type(new):
                continue
            length = view_of(new).motion(old, new)
            if length:
                self._motions[id] = Motion(old, new, length)
                self.surface.hidden.add(id)
                self._ticker.start()

    def _tick(self) -> None:
        done = [id for id, motion in self._motions.items() if motion.progress() >= 1]
        for id in done:
            del self._motions[id]
            self._rehide()
            if id in self.surface.index.boxes:
                self.surface.invalidate(self.surface.index.boxes[id])
        if done:
            self.surface.sharpen(AT_ONCE)
        if not self._motions:
            self._ticker.stop()
        self._refresh()

    def preview_page(self) -> Page:
        """The page with whatever is being dragged as it looks just now; the same value until that changes."""
        if self._preview is None or self._preview[0] is not self.page:
            self._preview = (self.page, self._previewed())
        return self._preview[1]

    def _previewed(self) -> Page:
        lifts = [lift for lift in self._lifts.values() if lift.picture is None]  # as a picture, things are as they were
        changed = {id: thing for lift in lifts for id, thing in lift.things.items()}
        new = [thing for lift in self._lifts.values() for thing in lift.new]
        page = self.page.with_things(changed) if changed else self.page
        if new:
            named = tuple(thing.replace(id=f"{NEW}{k}") for k, thing in enumerate(new))
            page = page.replace(things=page.things + named)
        return page

    def _refresh(self, everything: bool = True) -> None:
        """Goes on painting what is out of date, and shows the view anew, or only what is painted from now on."""
        if not self.surface.sharp and not self._slicer.isActive() and self.camera is self.surface.camera:
            self._slicer.start()
        elif self.surface.sharp:
            self._retiring.clear()
        if everything:
            self.update()

    def _sharpen_slice(self) -> None:
        if self.camera is not self.surface.camera:
            self._slicer.stop()
            return
        gathering = any(lift.gathering for lift in self._lifts.values())
        rects = self.surface.sharpen(SLICE / 3 if gathering or self._instead else SLICE / 2 if self._lifts else SLICE)
        if self.surface.sharp:
            self._slicer.stop()
            self._retiring.clear()
            self.update()
        for rect in rects:
            self.update(rect)

    def things_in(self, box: Box) -> list[Thing]:
        return list(self.page.some(self.surface.index.meeting(box)))

    def seen_in(self, box: Box) -> list[Thing]:
        """Those whose shown place meets a box: what other hands hold lies where they have it by now."""
        held = {id for lift in self._lifts.values() for id in lift.things if lift.change is not None}
        if not held:
            return self.things_in(box)
        page = self.preview_page()
        ids = set(self.surface.index.meeting(box)) - held
        ids |= {thing.id for thing in page.some(held) if view_of(thing).box(thing).meets(box)}
        return list(page.some(ids))

    def seen(self) -> Box:
        """The part of the page that is seen."""
        return self.camera.box_to_page(Box(0, 0, self.width(), self.height()))

    def box_of(self, things: Sequence[Thing]) -> Box:
        return union(view_of(thing).box(thing) for thing in things)

    def preview(self, owner: object, change: Change, new: Sequence[Thing] = ()) -> None:
        """Shows what a gesture makes of things, and what is new; `owner` keeps it until it ends."""
        lift = self._lift(owner)
        lift.change, lift.new = change, list(new)
        self._show_lifted(self._work_out(lift))

    def _work_out(self, lift: Lift) -> list[Lift]:
        """What a gesture makes of things. Where others work at the same things, each goes on from what the one before it
        left; returns all that were worked out."""
        lift.things = lift.made_of(self.page)
        lifts = list(self._lifts.values())
        together = [lift]
        for _round in lifts:
            ids = {id for one in together for id in one.things}
            more = [o for o in lifts if o not in together and o.change is not None and not ids.isdisjoint(o.things)]
            if not more:
                break
            together += more
        if len(together) > 1:
            page = self.page
            for one in lifts:  # in the order in which they began
                if one in together:
                    one.put_down_picture()
                    one.things = one.made_of(page)
                    page = page.with_things(one.things)
        return together

    def finish(
        self, owner: object, label: str, change: Change, then: Callable[[Page, Sequence[str]], Page] | None = None
    ) -> None:
        """Commits what a gesture made of things as they are now, and ends what it showed. then: what becomes of the page
        with them besides."""
        page = self.page
        made = change(page)
        if owner in self._lifts:
            self._lifts[owner].change = None  # it stays as it is until the page shows it
        if made:
            after = page.with_things(made)
            self.commit(Edit(label, page, after if then is None else then(after, tuple(made))))
        self.end_preview(owner)

    def _show_lifted(self, lifts: Sequence[Lift]) -> None:
        self._preview = None
        for lift in lifts:
            if lift.picture is None and lift.hidden != set(lift.things):
                self._hide(lift, set(lift.things))
        self.update()
        self.viewed.emit()

    def carry(self, owner: object, ids: Sequence[str], dx: float, dy: float) -> None:
        """Shows things moved; many of them as one picture, where nothing follows from them and no other hand is at them."""
        plan = plan_of(self.page)
        chosen = set(ids)
        shared = any(
            o.change is not None and not chosen.isdisjoint(o.things) for k, o in self._lifts.items() if k is not owner
        )
        if shared or plan.telling or any(id in plan.children or id in plan.parents for id in ids):
            self.preview(owner, lambda page: carried(page, ids, dx, dy))
            return
        lift = self._lifts.get(owner)
        if lift is None:
            lift = self._lift(owner)
            lift.carry(self.page.some(ids), self.page, self.camera, self.seen(), self.devicePixelRatioF())
            hidden, lift.hidden = lift.hidden, set()
            self._hide(lift, hidden)
        lift.change = lambda page: {t.id: t.moved(dx, dy) for t in page.some(ids)}
        before = set(lift.hidden)
        if lift.advance(self.page, LIFTING):
            hidden, lift.hidden = lift.hidden, before
            self._hide(lift, hidden, at_once=False)
        lift.shift = (dx, dy)
        if lift.picture is None:
            lift.things = {t.id: t.moved(dx, dy) for t in self.page.some(ids)}
            lift.shift = (0.0, 0.0)
        self._preview = None
        self.update()

    def _lift(self, owner: object) -> Lift:
        if owner not in self._lifts:
            self._lifts[owner] = Lift()
            self.dragging_changed.emit(True)
        return self._lifts[owner]

    def _hide(self, lift: Lift, ids: set[str], at_once: bool = True) -> None:
        """Takes things off the picture at rest, in this frame or in the slices to come."""
        changed = ids ^ lift.hidden
        lift.hidden = ids
        self._rehide()
        others = dependents(self.page, changed)
        self.surface.hidden |= others
        boxes = self.surface.index.boxes
        self.surface.invalidate_each([boxes[id] for id in changed | others if id in boxes])
        if at_once:
            self.surface.sharpen(SLICE)
        self._refresh()

    def _rehide(self) -> None:
        lifted = {id for lift in self._lifts.values() for id in lift.hidden}
        self.surface.hidden = lifted | dependents(self.page, lifted) | set(self._motions)

    def end_preview(self, owner: object) -> None:
        lift = self._lifts.pop(owner, None)
        if lift is None:
            return
        self._preview = None
        was_hidden = set(self.surface.hidden)
        self._rehide()
        if lift.picture is not None or lift.things:
            self._retiring.append(lift)
        boxes = self.surface.index.boxes
        self.surface.invalidate_each([boxes[id] for id in was_hidden - self.surface.hidden if id in boxes])
        self.surface.sharpen(AT_ONCE)
        self._refresh()
        self.dragging_changed.emit(bool(self._lifts))
        self.viewed.emit()

    def show_snap(self, owner: object, snap: Snap | None) -> None:
        if snap is None:
            self._snaps.pop(owner, None)
        else:
            self._snaps[owner] = snap

    def show_marquee(self, owner: object, box: Box | None) -> None:
        if box is None:
            self._marquees.pop(owner, None)
        else:
            self._marquees[owner] = box
        self.update()

    def show_marks(self, owner: object, *marks: OverlayMark) -> None:
        changed = (*self.overlay.marks.get(owner, ()), *marks)
        self.overlay.show(owner, marks)
        if all(isinstance(mark, Rubber) for mark in changed):
            for mark in changed:
                self.update(rubber_rect(mark))
        else:
            self.update()

    def show_instead(self, owner: object, instead: Mapping[str, Sequence[Thing]], boxes: Sequence[Box]) -> None:
        """Paints other things in the place of some, at rest; `boxes` are where that differs from what is shown."""
        self._instead[owner] = instead
        self._replace()
        for box in boxes:
            self.surface.invalidate(box)
        for rect in self.surface.sharpen(SLICE / 3):
            self.update(rect)
        self._refresh(everything=False)

    def rub_out(self, owner: object, path: Sequence[Point], radius: float, instead: Mapping[str, Sequence[Thing]]) -> None:
        """Takes ink off the picture along a path; `instead` is what is left of it, for when more is painted anew."""
        self._instead[owner] = instead
        self._replace()
        self.update(self.surface.rub_out(path, radius))

    def end_instead(self, owner: object, committed: bool = False) -> None:
        """Shows the page as it is. What was committed is being painted anew already."""
        gone = self._instead.pop(owner, None)
        if gone:
            self._replace()
        if gone and not committed:
            for id in gone:
                if id in self.surface.index.boxes:
                    self.surface.invalidate(self.surface.index.boxes[id])
            self.surface.sharpen(AT_ONCE)
            self._refresh()

    def repaint_page(self) -> None:
        self.surface.invalidate_all()
        self.surface.sharpen(AT_ONCE)
        self._refresh()

    def _replace(self) -> None:
        if len(self._instead) == 1:
            self.surface.instead = next(iter(self._instead.values()))
        else:
            self.surface.instead = {id: things for shown in self._instead.values() for id, things in shown.items()}

    def ink_to(self, owner: object, samples: Sequence[Sample], pressures: Sequence[float], pen: Pen) -> None:
        self.update(self._ink.extend(owner, samples, pressures, pen, self.camera.scale))

    def ink_end(self, owner: object) -> None:
        self.update(self._ink.end(owner).adjusted(-2, -2, 2, 2))
