"""The page as a stage for tools: what is selected, lifted, hidden and snapped, and how edits reach the picture."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import NamedTuple

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QWidget

from larch.board import chrome
from larch.board.dependents import dependents
from larch.board.gestures.base import TOUCH_SLACK, Gesture
from larch.board.gestures.part import DragPart
from larch.board.in_hand import graph_handles
from larch.board.layers import AT_ONCE, PageLayers
from larch.board.pointer import Sample
from larch.board.pointers import Pointers
from larch.board.spoken import description
from larch.board.ticking import Ticking
from larch.board.views import view_of
from larch.board.views.measure_labels import slips_moved
from larch.core.actions.arrange.holds import untouchable
from larch.core.base.bounds import MANY
from larch.core.base.shape import Box, Point
from larch.core.base.words import _
from larch.core.model.action import Action, actions_for
from larch.core.model.capabilities import HasParts, Sounds, Speaks, Tappable, WorksLocked
from larch.core.model.edit import Changes, Edit
from larch.core.model.nibs import Pen
from larch.core.model.page import Page, with_groups
from larch.core.model.thing import Thing
from larch.core.session.session import Session
from larch.services.clock import clock
from larch.services.threads import run_in_pool

CORNER = 15.0  # pixels round a corner in which a hand at the Board takes hold of it
BESIDE = 64.0  # page units from something in which it may still guide a pen


class Offer(NamedTuple):
    """Something that a gesture has prepared and a person is to confirm, at a place of the page."""

    at: Point
    text: str
    icon: str
    run: Callable[[], None]
    drop: Callable[[], None]


class Covered(NamedTuple):
    """Pixels along the edges of the view that drawers and cards cover."""

    left: int = 0
    top: int = 0
    right: int = 0
    below: int = 0


def _outcome(action: Action, page: Page, things: Sequence[Thing], now: float) -> Edit | str:
    """An edit, or why there is none."""
    try:
        return action.edit(page, things, now)
    except ValueError as error:
        return str(error)


class PageStage(PageLayers):
    """Signals: selection_changed, viewed (camera, page or preview moved), dragging_changed, edit_wanted (open a
    thing's editor), offered (an Offer, or None when it lapses), fill_wanted (place, hue, gap), committed (after any
    change of the lesson), said (a sentence about what an action did, or why it could not), link_wanted (a link to
    follow), over_changed (the place outside the page over which something is dragged), let_go (such a place, and the ids of
    what was let go there), sound_wanted (its name), aloud_wanted (what is to be said), command_wanted (the
    name of what the window is to do), measure_wanted (the id of a thing and the name of a fact, whose measure is to be typed
    where it stands), ticked (the ids of things that look different by now), working (what takes long, and at how many
    things; "" when that is over)."""

    selection_changed = pyqtSignal()
    edit_wanted = pyqtSignal(object)
    offered = pyqtSignal(object)
    fill_wanted = pyqtSignal(object, str, float)
    committed = pyqtSignal()
    said = pyqtSignal(str)
    link_wanted = pyqtSignal(str)
    over_changed = pyqtSignal(str)
    let_go = pyqtSignal(str, object)
    sound_wanted = pyqtSignal(str)
    aloud_wanted = pyqtSignal(str)
    measure_wanted = pyqtSignal(str, str)
    command_wanted = pyqtSignal(str)
    working = pyqtSignal(str, int)
    _worked_out = pyqtSignal(object, object, object)

    def __init__(self, session: Session, page_id: str, parent: QWidget | None = None) -> None:
        super().__init__(session, page_id, parent)
        self.selection: tuple[str, ...] = ()
        self.at_board = False
        self.editing = False  # something is being typed on the page
        self.covered = Covered()
        self.handle_focus = ""
        self.gathered: tuple[str, ...] = ()  # of the selection, what stays selected while Tab goes on
        self.edit_at: Point | None = None  # where a thing was pressed to open its editor
        self.opened = ""  # the group that is open, whose members are chosen one by one
        self.place_outside: Callable[[Point], str] = lambda at: ""
        self._over = ""
        self.pointers = Pointers(self)
        self._asked: object = None  # stands for what is being worked out
        self._worked_out.connect(self._take_outcome)
        self._offer: Offer | None = None
        self.ticking = Ticking(self, lambda: session.lesson, lambda: self.page_id, self)
        self.ticking.sounded.connect(self.sound_wanted)
        self._unsubscribe = session.subscribe(self._lesson_changed)
        self.surface.load()
        self._describe()
        self.ticking.look()

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

    def free(self) -> Box:
        """The part of the view that nothing covers, in pixels."""
        left, top, right, below = self.covered
        return Box(left, top, max(left + 1, self.width() - right), max(top + 1, self.height() - below))

    def things(self) -> tuple[Thing, ...]:
        """The selected things."""
        return self.page.some(self.selection)

    def _lesson_changed(self, changes: Changes) -> None:
        if self.session.lesson.page(self.page_id) is None:
            self.committed.emit()  # whoever shows it turns to another page
            return
        before, after = self._shown, self.page
        self._shown = after
        ids = set(changes.things.get(self.page_id, ()))
        if changes.signs:
            self.surface.load_anew()
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
            self._sound(before, after, ids, others)
            kept = tuple(id for id in self.selection if after.thing(id) is not None)
            if kept != self.selection:
                self.select(kept)
        self.surface.sharpen(AT_ONCE)
        self._refresh()
        self._describe()
        self.ticking.look()
        self.committed.emit()

    def _sound(self, before: Page, after: Page, ids: set[str], others: set[str]) -> None:
        for id in ids:
            old, new = before.thing(id), after.thing(id)
            if isinstance(new, Sounds) and type(old) is type(new) and old is not new:
                for name in new.sounds_since(old):
                    self.sound_wanted.emit(name)
        for id in ids | others:
            old, new = before.thing(id), after.thing(id)
            text = new.says(after) if isinstance(new, Speaks) else ""
            if text and isinstance(old, Speaks) and text != old.says(before):
                self.aloud_wanted.emit(text)

    def commit(self, edit: Edit) -> None:
        """Commits an edit of this page and selects what it asks for."""
        self.session.commit(edit)
        if edit.select is not None:
            self.select(edit.select)

    def tool_writes(self) -> bool:
        """Whether the tool in hand makes marks, so that nothing should hang in its way."""
        return self.pointers.tool.name not in ("select", "move page")

    def select(self, ids: Sequence[str]) -> None:
        there = {thing.id for thing in self.page.some(ids)}
        chosen = (
            tuple(dict.fromkeys(id for id in ids if id in there))
            if self.gathered
            else tuple(thing.id for thing in self.page.some(ids))
        )
        if not set(self.gathered) <= there:
            self.gathered = ()
        if chosen != self.selection:
            self.selection = chosen
            self.handle_focus = ""
            self._describe()
            self.selection_changed.emit()
        self.update()

    def may(self, what: str) -> bool:
        """Whether something of PUPILS can be done here: at the Desk everything, at the Board what the page allows."""
        return not self.at_board or what in self.page.pupils

    def thing_at(self, pos: Point, slack: float) -> Thing | None:
        """The topmost thing that can be touched there. At the Board locked things can't, but supplies can."""
        for thing in reversed(self.seen_in(Box(*pos, *pos).grown(slack))):
            if self.at_board and untouchable(thing) and not (thing.link or isinstance(thing, WorksLocked)):
                continue
            local = thing.placement.to_local(*pos)
            if view_of(thing).touches(thing, *local, slack / thing.placement.scale):
                return thing
        return None

    def handle_at(self, view_pos: Point) -> tuple[str, str] | None:
        things = self.things()
        own = chrome.own_handles(things, self.camera)
        if len(things) == 1:
            own += graph_handles(things[0], self.page, self.camera)
        return chrome.handle_at([*own, *chrome.frame_handles(things, self.camera, self.at_board)], view_pos)

    def held_corner_at(self, sample: Sample, under: Thing | None) -> tuple[str, str] | None:
        """At the Board: the corner under a pointer that can be taken hold of though nothing is selected. `under`: what is
        touched there; what lies below something else can't be reached."""
        if not self.at_board:
            return None
        reach = (CORNER + (TOUCH_SLACK if sample.kind == "touch" else 0.0) / 2) / self.camera.scale
        near = [under] if under is not None else self.seen_in(Box(*sample.page_pos, *sample.page_pos).grown(reach))
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
        self.commit(action.edit(self.page, (thing,), clock.now()))
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
        """Runs an action on the selection, or says why it can't be done. What may take long is worked out in a thread."""
        page, things, now = self.page, self.things(), clock.now()
        if action.command:
            self.command_wanted.emit(action.command)
        elif len(things) > MANY:
            asked = self._asked = object()
            self.working.emit(action.label(page, things), len(things))
            run_in_pool(lambda: self._worked_out.emit(asked, page, _outcome(action, page, things, now)))
        else:
            self._done(_outcome(action, page, things, now))

    def stop_working(self) -> None:
        """What is being worked out is not wanted any more."""
        self._asked = None

    def _take_outcome(self, asked: object, page: Page, outcome: Edit | str) -> None:
        if asked is not self._asked:
            return
        self._asked = None
        self.working.emit("", 0)
        self._done(outcome if self.page is page else _("The page has changed meanwhile; nothing was done."))

    def _done(self, outcome: Edit | str) -> None:
        if isinstance(outcome, str):
            self.said.emit(outcome)
            return
        self.commit(outcome)
        if outcome.said:
            self.said.emit(outcome.said)

    def _describe(self) -> None:
        page = self.page
        number = (self.session.lesson.index(page.id) or 0) + 1
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
        self.ticking.stop()
        self._unsubscribe()

    def pan_by(self, dx: float, dy: float) -> None:
        """Given by the canvas, which owns the view."""

    def zoom_by(self, factor: float, view_pos: Point) -> None:
        """Given by the canvas, which owns the view."""
