"""The page as a stage for tools: what is selected, lifted, hidden and snapped, and how edits reach the picture."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import NamedTuple

from PyQt6.QtCore import QTimer, pyqtSignal
from PyQt6.QtWidgets import QWidget

from larch.board import chrome
from larch.board.camera import Camera
from larch.board.dependents import dependents
from larch.board.gestures.base import TOUCH_SLACK, Change, Gesture, OverlayMark, Rubber
from larch.board.gestures.part import DragPart
from larch.board.ink.live_ink import LiveInk
from larch.board.live import Lift, Motion
from larch.board.overlay import Overlay, rubber_rect
from larch.board.pointer import Sample
from larch.board.pointers import Pointers
from larch.board.spoken import description
from larch.board.surface import Surface
from larch.board.views import view_of
from larch.board.views.measure_labels import slips_moved
from larch.core.actions.arrange.holds import untouchable
from larch.core.base.shape import Box, Point, union
from larch.core.base.words import _
from larch.core.figures.settle import carried, plan_of
from larch.core.model.action import Action, actions_for
from larch.core.model.capabilities import HasParts, Tappable, WorksLocked
from larch.core.model.edit import Changes, Edit
from larch.core.model.nibs import Pen
from larch.core.model.page import Page, with_groups
from larch.core.model.thing import Snap, Thing
from larch.core.session.session import Session

SLICE = 6.0  # ms of painting at rest between two events
NEW = "new "  # begins the ids of things that are still being put out
CORNER = 15.0  # pixels round a corner in which a hand at the Board takes hold of it
BESIDE = 64.0  # page units from something in which it may still guide a pen
LIFTING = 5.0  # ms a frame for taking many dragged things into one picture
AT_ONCE = 12.0  # ms of painting before the frame that shows an edit


class Offer(NamedTuple):
    """Something that a gesture has prepared and a person is to confirm, at a place of the page."""

    at: Point
    text: str
    icon: str
    run: Callable[[], None]
    drop: Callable[[], None]


class PageStage(QWidget):
    """Signals: selection_changed, viewed (camera, page or preview moved), dragging_changed, edit_wanted (open a
    thing's editor), offered (an Offer, or None when it lapses), fill_wanted (place, hue, gap), committed (after any
    change of the lesson), said (a sentence about what an action did, or why it could not), link_wanted (a link to
    follow), over_changed (the place outside the page over which something is dragged), let_go (such a place, and the ids of
    what was let go there)."""

    selection_changed = pyqtSignal()
    viewed = pyqtSignal()
    dragging_changed = pyqtSignal(bool)
    edit_wanted = pyqtSignal(object)
    offered = pyqtSignal(object)
    fill_wanted = pyqtSignal(object, str, float)
    committed = pyqtSignal()
    said = pyqtSignal(str)
    link_wanted = pyqtSignal(str)
    over_changed = pyqtSignal(str)
    let_go = pyqtSignal(str, object)

    def __init__(self, session: Session, page_id: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session = session
        self.page_id = page_id
        self.camera = Camera()
        self.selection: tuple[str, ...] = ()
        self.at_board = False
        self.still = False  # no motions
        self.editing = False  # something is being typed on the page
        self.covered_below = 0  # pixels at the foot of the view that the shelf covers
        self.handle_focus = ""
        self.edit_at: Point | None = None  # where a thing was pressed to open its editor
        self.opened = ""  # the group that is open, whose members are chosen one by one
        self.place_outside: Callable[[Point], str] = lambda at: ""
        self._over = ""
        self.pointers = Pointers(self)
        self.surface = Surface(lambda: self.page)
        self._ink = LiveInk()
        self.overlay = Overlay()
        self._offer: Offer | None = None
        self._instead: dict[object, Mapping[str, Sequence[Thing]]] = {}
        self._lifts: dict[object, Lift] = {}
        self._retiring: list[Lift] = []
        self._motions: dict[str, Motion] = {}
        self._preview: tuple[Page, Page] | None = None
        self._snaps: dict[object, Snap] = {}
        self._marquees: dict[object, Box] = {}
        self._shown = self.page
        self._slicer = QTimer(self, interval=0, timeout=self._sharpen_slice)
        self._ticker = QTimer(self, interval=16, timeout=self._tick)
        self._unsubscribe = session.subscribe(self._lesson_changed)
        self.surface.load()
        self._describe()

    @property
    def page(self) -> Page:
        found = self.session.lesson.page(self.page_id)
        return found if found is not None else self.session.lesson.pages[0]

    def show_page(self, id: str) -> None:
        """Turns to a page; what was being done on the old one is given up."""
        self.pointers.cancel()
        self.withdraw()
        self.pointers.tool.put_down(self)
        self.surface.leave(self._shown)
        self.page_id = id
        self._shown = self.page
        self._motions.clear()
        self.opened = ""
        self.surface.hidden = set()
        self._retiring.clear()
        self.select(())
        self.surface.load()
        self.camera = self.surface.camera
        self.surface.sharpen(40)
        self._refresh()
        self._describe()
        self.viewed.emit()

    def things(self) -> tuple[Thing, ...]:
        """The selected things."""
        return self.page.some(self.selection)

    def _lesson_changed(self, changes: Changes) -> None:
        if self.session.lesson.page(self.page_id) is None:
            return  # the window turns to another page
        before, after = self._shown, self.page
        self._shown = after
        ids = set(changes.things.get(self.page_id, ()))
        if self.page_id in changes.heads and (before.paper, before.size) != (after.paper, after.size):
            self.surface.invalidate_all()
        if ids:
            self._start_motions(before, after, ids)
            self.surface.change(before, after, ids)
            others = dependents(before, ids) | dependents(after, ids)
            for id in (others - ids) & self.surface.index.boxes.keys():
                self.surface.invalidate(self.surface.index.boxes[id])
            for box in slips_moved(before, after, ids):
                self.surface.invalidate(box)
            self._work_out_again(ids)
            kept = tuple(id for id in self.selection if after.thing(id) is not None)
            if kept != self.selection:
                self.select(kept)
        self.surface.sharpen(AT_ONCE)
        self._refresh()
        self._describe()
        self.committed.emit()

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

    def commit(self, edit: Edit) -> None:
        """Commits an edit of this page and selects what it asks for."""
        self.session.commit(edit)
        if edit.select is not None:
            self.select(edit.select)

    def tool_writes(self) -> bool:
        """Whether the tool in hand makes marks, so that nothing should hang in its way."""
        return self.pointers.tool.name not in ("select", "move page")

    def select(self, ids: Sequence[str]) -> None:
        chosen = tuple(thing.id for thing in self.page.some(ids))
        if chosen != self.selection:
            self.selection = chosen
            self.handle_focus = ""
            self._describe()
            self.selection_changed.emit()
        self.update()

    def thing_at(self, pos: Point, slack: float) -> Thing | None:
        """The topmost thing that can be touched there. At the Board locked things can't, but supplies can."""
        for thing in reversed(self.things_in(Box(*pos, *pos).grown(slack))):
            if self.at_board and untouchable(thing) and not (thing.link or isinstance(thing, WorksLocked)):
                continue
            local = thing.placement.to_local(*pos)
            if view_of(thing).touches(thing, *local, slack / thing.placement.scale):
                return thing
        return None

    def things_in(self, box: Box) -> list[Thing]:
        return list(self.page.some(self.surface.index.meeting(box)))

    def handle_at(self, view_pos: Point) -> tuple[str, str] | None:
        things = self.things()
        own = chrome.own_handles(things, self.camera)
        return chrome.handle_at([*own, *chrome.frame_handles(things, self.camera, self.at_board)], view_pos)

    def held_corner_at(self, sample: Sample, under: Thing | None) -> tuple[str, str] | None:
        """At the Board: the corner under a pointer that can be taken hold of though nothing is selected. `under`: what is
        touched there; what lies below something else can't be reached."""
        if not self.at_board:
            return None
        reach = (CORNER + (TOUCH_SLACK if sample.kind == "touch" else 0.0) / 2) / self.camera.scale
        near = [under] if under is not None else self.things_in(Box(*sample.page_pos, *sample.page_pos).grown(reach))
        for thing in reversed(near):
            if thing.locked or thing.supply or thing.hold or thing.groups or thing.hidden:
                continue
            own = chrome.own_handles((thing,), self.camera, held=True)
            found = chrome.handle_at(own, sample.view_pos, reach * self.camera.scale)
            if found is not None:
                return found
        return None

    def part_at(self, thing: Thing, sample: Sample) -> str:
        """The part of a thing that a pointer takes hold of, or "": at the Board always, at the Desk if it is selected."""
        if not isinstance(thing, HasParts) or thing.supply or not (self.at_board or self.selection == (thing.id,)):
            return ""
        slack = (TOUCH_SLACK if sample.kind == "touch" else 4.0) / (self.camera.scale * thing.placement.scale)
        return thing.part_at(*thing.placement.to_local(*sample.page_pos), slack)

    def gesture_for(self, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        """What a press on a part of a thing begins, where that is something of its own; "" for its body."""
        own = view_of(thing).gesture(self, sample, thing, part)
        if own is None and isinstance(thing, HasParts) and part and self.part_at(thing, sample) == part:
            return DragPart(self, sample, thing, part)
        return own

    def pen_gesture(self, sample: Sample, pen: Pen) -> Gesture | None:
        """What a pen that comes down begins on what lies there; None if it writes."""
        top = self.thing_at(sample.page_pos, 0.0)
        if isinstance(top, HasParts) and top.pen_moves_parts and (part := self.part_at(top, sample)):
            return DragPart(self, sample, top, part)
        near = Box(*sample.page_pos, *sample.page_pos).grown(BESIDE)
        for thing in reversed(self.things_in(near)):
            own = view_of(thing).pen_gesture(self, sample, thing, pen)
            if own is not None:
                return own
        return None

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

    def finish(self, owner: object, label: str, change: Change) -> None:
        """Commits what a gesture made of things as they are now, and ends what it showed."""
        page = self.page
        made = change(page)
        if owner in self._lifts:
            self._lifts[owner].change = None  # it stays as it is until the page shows it
        if made:
            self.commit(Edit(label, page, page.with_things(made)))
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

    def offer(self, at: Point, text: str, icon: str, run: Callable[[], None], drop: Callable[[], None]) -> None:
        """Asks on the page whether to do what was prepared; a press anywhere else means no."""
        self.withdraw()
        self._offer = Offer(at, text, icon, run, drop)
        self.offered.emit(self._offer)

    def withdraw(self, accepted: bool = False) -> None:
        """Ends what is offered, if anything is: done or given up."""
        offer, self._offer = self._offer, None
        if offer is not None:
            (offer.run if accepted else offer.drop)()
            self.offered.emit(None)

    def fill_at(self, at: Point, hue: str, gap: float) -> None:
        self.fill_wanted.emit(at, hue, gap)

    def ink_to(self, owner: object, samples: Sequence[Sample], pressures: Sequence[float], pen: Pen) -> None:
        self.update(self._ink.extend(owner, samples, pressures, pen, self.camera.scale))

    def ink_end(self, owner: object) -> None:
        self.update(self._ink.end(owner).adjusted(-2, -2, 2, 2))

    def edit_thing(self, thing: Thing) -> None:
        self.edit_wanted.emit(thing)

    def tap(self, thing: Thing, at: Point) -> bool:
        """Does what a tap on it means at a place of the page; False if it means nothing."""
        if thing.link and self.at_board:
            self.link_wanted.emit(thing.link)
            return True
        name = thing.tap_action(thing.placement.to_local(*at)) if isinstance(thing, Tappable) else ""
        action = next((a for a in actions_for(self.page, (thing,)) if a.name == name), None) if name else None
        if action is None or thing.supply:
            return False
        self.commit(action.run(self.page, (thing,)))
        return True

    def whole(self, ids: Sequence[str]) -> tuple[str, ...]:
        """Things with all that is grouped with them; the members of an opened group by themselves."""
        return with_groups(self.page, ids, self.opened)

    def open_group(self, name: str) -> None:
        """Opens a group, so that its members can be chosen one by one, or closes it with ""."""
        if name != self.opened:
            self.opened = name
            self.update()

    def drag_over(self, view_pos: Point | None) -> str:
        """Told while things are dragged: where outside the page that is ("bin", "shelf"), or ""."""
        place = self.place_outside(view_pos) if view_pos is not None else ""
        if place != self._over:
            self._over = place
            self.over_changed.emit(place)
        return place

    def do(self, action: Action) -> None:
        """Runs an action on the selection, or says why it can't be done."""
        try:
            edit = action.run(self.page, self.things())
        except ValueError as error:
            self.said.emit(str(error))
            return
        self.commit(edit)
        if edit.said:
            self.said.emit(edit.said)

    def _describe(self) -> None:
        page = self.page
        number = next((i for i, p in enumerate(self.session.lesson.pages, 1) if p.id == page.id), 1)
        self.setAccessibleName(_("Page {n}: {title}").format(n=number, title=page.title or _("untitled")))
        text = description(page, self.things())
        if text != self.accessibleDescription():
            self.setAccessibleDescription(text)

    def close_session(self) -> None:
        """Stops listening, when another lesson takes over."""
        self.pointers.cancel()
        self.withdraw()
        self._slicer.stop()
        self._ticker.stop()
        self._unsubscribe()

    def pan_by(self, dx: float, dy: float) -> None:
        """Given by the canvas, which owns the view."""

    def zoom_by(self, factor: float, view_pos: Point) -> None:
        """Given by the canvas, which owns the view."""
