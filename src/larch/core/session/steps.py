"""Lessons worked at by steps that are written down: what `larch act` does, through the same `Session.commit` as the window.

A step is a dictionary with one verb: put, set, do, tap, drag, seed, undo, page, ask, check, facts (docs/headless.md). Things
are called by keys of one's own, given by `as`. Raises StepError, with the number of the step; nothing is kept then.
"""

from __future__ import annotations

import contextlib
import time
from collections.abc import Callable, Iterator, Mapping, Sequence
from itertools import pairwise
from typing import Any

from larch.core.actions.arrange.arrange import brought, copies, exhausted, laid_out, risen
from larch.core.actions.arrange.common_facts import common_facts
from larch.core.actions.asking import asked, check_edit, checked
from larch.core.base.shape import Point, along
from larch.core.figures.settle import carried
from larch.core.model.action import actions_for, put
from larch.core.model.capabilities import HasParts, Tappable, snap_of
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, Told
from larch.core.model.holders import fitted_in, in_cells, merged_in, with_held
from larch.core.model.kinds import kinds, shelf_items
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page, with_groups
from larch.core.model.thing import ShelfItem, Thing
from larch.core.session.session import Session

REACH = 11.0  # page units in which a thing that was let go falls into place
SLACK = 12.0  # beside a part in which a finger takes hold of it
STRIDE = 12.0  # page units of a step of the finger: turns are counted on the way
MOST_TIMES = 1_000_000
VERBS = ("put", "set", "do", "tap", "drag", "seed", "undo", "page", "ask", "check", "facts")


class StepError(ValueError):
    """One sentence."""


class Doing:
    """A lesson and the page that is worked at."""

    def __init__(self, lesson: Lesson, clock: Callable[[], float] = time.time) -> None:
        self.session = Session(lesson, time.monotonic)
        self.session.refused = self._refused
        self.clock = clock
        self.page_id = self.session.lesson.pages.ids[-1]
        self.keys: dict[str, tuple[str, str]] = {}  # page and thing
        self.answers: list[dict[str, Any]] = []

    @property
    def page(self) -> Page:
        page = self.session.lesson.page(self.page_id)
        assert page is not None
        return page

    def run(self, steps: Sequence[Any]) -> list[dict[str, Any]]:
        """Does all steps; returns the answers. Raises StepError."""
        for number, step in enumerate(steps, 1):
            try:
                self._step(step)
            except (ValueError, OverflowError) as error:
                raise StepError(f"Step {number}: {error}") from error
        return self.answers

    def _refused(self, why: str) -> None:
        raise StepError(why)

    def _step(self, step: Any) -> None:
        if not isinstance(step, dict):
            raise StepError("a step is an object with a verb such as put.")
        verbs = [verb for verb in VERBS if verb in step]
        verb = next((v for v in ("set", "ask", "drag", "do") if v in verbs), verbs[0] if verbs else "")
        if not verb:
            raise StepError(f"it says none of {', '.join(VERBS)}.")
        getattr(self, f"_{verb}")(step)

    # Verbs

    def _put(self, step: Mapping[str, Any]) -> None:
        name = _text(step, "put")
        item = _shelf_item(name)
        if item is None:
            raise StepError(f"the shelf has no “{name[:60]}”.")
        if item.instead is not None:
            self.session.commit(item.instead(self.page))
            return
        made = item.things()
        at = _place(step["at"]) if "at" in step else self.page.printed().centre
        laid = laid_out(made)
        boxes = [thing.box() for thing in laid.things]
        x0, y0 = min(box.x0 for box in boxes), min(box.y0 for box in boxes)
        x1, y1 = max(box.x1 for box in boxes), max(box.y1 for box in boxes)
        dx, dy = at[0] - (x0 + x1) / 2, at[1] - (y0 + y1) / 2
        moved = [made[0].moved(dx, dy)] if len(made) == 1 else brought(self.page, list(laid.things), dx, dy)
        edit = in_cells(put(self.page, moved, "Put out"))
        self.session.commit(edit)
        self._name(step, (edit.select or ("",))[0])

    def _set(self, step: Mapping[str, Any]) -> None:
        thing = self._thing(_text(step, "set"))
        name, typed = _text(step, "fact"), step.get("to")
        if isinstance(typed, bool) or not isinstance(typed, str | int | float):
            raise StepError("“to” says what the fact is to be.")
        fact = self._fact(thing, name)
        if fact.set is None:
            raise StepError(f"{name} can't be set.")
        changed = fact.set(str(typed))
        if isinstance(changed, Told):
            changed = changed.result
        after = changed if isinstance(changed, Page) else self.page.with_things({thing.id: changed})
        self.session.commit(Edit(f"Set {name}", self.page, after))

    def _do(self, step: Mapping[str, Any]) -> None:
        name, keys, times = _text(step, "do"), step.get("on", []), step.get("times", 1)
        keys = [keys] if isinstance(keys, str) else keys
        if not isinstance(keys, list):
            raise StepError("“on” lists keys.")
        if isinstance(times, bool) or not isinstance(times, int) or not 0 <= times <= MOST_TIMES:
            raise StepError(f"“times” is a whole number up to {MOST_TIMES}.")
        for _k in range(times):
            things = [self._thing(key) for key in keys]
            action = next((a for a in actions_for(self.page, things) if a.name == name), None)
            if action is None:
                raise StepError(f"“{name[:60]}” can't be done with that.")
            self.session.commit(action.edit(self.page, things, self.clock()))

    def _tap(self, step: Mapping[str, Any]) -> None:
        thing = self._thing(_text(step, "tap"))
        at = thing.box().centre
        part = step.get("part", "")
        if isinstance(thing, HasParts):
            if part:
                part = _part_named(thing, str(part))
                at = thing.placement.to_page(*self._part_place(thing, part))
            local = thing.placement.to_local(*at)
            found = part or thing.part_at(*local, SLACK)
            after = thing.tap_part(found, local) if found else None
            if after is not None:
                self.session.commit(Edit(thing.part_label(found), self.page, self.page.with_things({thing.id: after})))
                return
        name = thing.tap_action(thing.placement.to_local(*at)) if isinstance(thing, Tappable) else ""
        action = next((a for a in actions_for(self.page, [thing]) if a.name == name), None) if name else None
        if action is not None:
            self.session.commit(action.edit(self.page, [thing], self.clock()))

    def _drag(self, step: Mapping[str, Any]) -> None:
        thing, to = self._thing(_text(step, "drag")), _place(step.get("to"))
        if "part" in step:
            self._drag_part(thing, _text(step, "part"), to)
        elif thing.supply:
            self._take(step, thing, to)
        elif thing.locked:
            raise StepError("it is locked.")
        else:
            self._move(thing, to)

    def _drag_part(self, thing: Thing, part: str, to: Point) -> None:
        """As a finger: from where the part is straight to the place, in steps; round the middle, by the shorter way."""
        if not isinstance(thing, HasParts):
            raise StepError("it has no parts.")
        part = _part_named(thing, part)
        start = thing.placement.to_page(*self._part_place(thing, part))
        way = along(start, to, STRIDE)
        now = thing
        for a, b in pairwise(way):
            now = now.drag_part(part, now.placement.to_local(*a), now.placement.to_local(*b))
        now = now.part_let_go(part)
        self.session.commit(Edit(thing.part_label(part), self.page, self.page.with_things({thing.id: now})))

    def _part_place(self, thing: HasParts, part: str) -> Point:
        if part not in thing.parts():
            raise StepError(f"it has no part “{part[:60]}”; it has {', '.join(thing.parts()[:12])}.")
        return thing.part_place(part)

    def _take(self, step: Mapping[str, Any], supply: Thing, to: Point) -> None:
        if exhausted(self.page, supply):
            raise StepError("the supply has given all it has.")
        centre = supply.box().centre
        made = [c.replace(supply=False) for c in copies(self.page, [supply], to[0] - centre[0], to[1] - centre[1])]
        made = [self._snapped(one, ()) for one in made]
        edit = put(self.page, made, "Take from a supply")
        after = edit.after
        assert isinstance(after, Page)
        ids = edit.select or ()
        self.session.commit(Edit(edit.label, self.page, merged_in(fitted_in(after, ids), ids)))
        self._name(step, (edit.select or ("",))[0])

    def _snapped(self, thing: Thing, left: Sequence[str]) -> Thing:
        near = thing.box().grown(REACH)
        others = [o for o in self.page.things if o.id not in left and not o.hidden and o.box().meets(near)]
        snap = snap_of(thing, self.page, others, REACH)
        moved: Thing = thing if snap is None else thing.moved(snap.dx, snap.dy)
        return moved

    def _move(self, thing: Thing, to: Point) -> None:
        ids = with_held(self.page, with_groups(self.page, [thing.id]))
        centre = thing.box().centre
        placed = self._snapped(thing.moved(to[0] - centre[0], to[1] - centre[1]), ids)
        dx, dy = placed.placement.x - thing.placement.x, placed.placement.y - thing.placement.y
        free = [one.id for one in self.page.some(ids) if not one.locked]
        after = self.page.with_things(carried(self.page, free, dx, dy))
        self.session.commit(Edit("Move", self.page, merged_in(fitted_in(risen(after, free), free), free)))

    def _seed(self, step: Mapping[str, Any]) -> None:
        seed = step["seed"]
        if isinstance(seed, bool) or not isinstance(seed, int) or not 0 <= seed < 2**63:
            raise StepError("a seed is a whole number from 0.")
        self.session.commit(Edit("Seed", self.page, self.page.replace(seed=seed, draws=0)))

    def _undo(self, step: Mapping[str, Any]) -> None:
        count = step["undo"]
        if isinstance(count, bool) or not isinstance(count, int) or count < 0:
            raise StepError("“undo” says how many steps.")
        for _k in range(count):
            if self.session.undo() is None:
                raise StepError("there is nothing more to undo.")
        if self.session.lesson.page(self.page_id) is None:
            self.page_id = self.session.lesson.pages.ids[-1]

    def _page(self, step: Mapping[str, Any]) -> None:
        lesson = self.session.lesson
        wanted = step["page"]
        if wanted == "new":
            blank = Page(id="", paper=self.page.paper, size=self.page.size, unit=self.page.unit, seed=self.page.seed + 1)
            at = lesson.pages.ids.index(self.page_id) + 1
            self.session.commit(Edit("New page", lesson, lesson.insert(blank, at)))
            self.page_id = self.session.lesson.pages.ids[at]
        elif isinstance(wanted, int) and not isinstance(wanted, bool) and 1 <= wanted <= len(lesson.pages):
            self.page_id = lesson.pages.ids[wanted - 1]
        else:
            raise StepError('“page” is "new" or the number of a page.')

    def _ask(self, step: Mapping[str, Any]) -> None:
        thing = self._thing(_text(step, "ask"))
        name = _text(step, "fact")
        self._fact(thing, name)
        modes = [mode for mode in ("wanted", "within", "one of", "at least") if mode in step]
        if len(modes) > 1 and set(modes) != {"wanted", "within"}:
            raise StepError("say one of wanted, within, one of and at least.")
        given = {mode: _listed(step[mode]) for mode in modes}
        edit = asked(self.page, thing, name, given)
        self.session.commit(edit)
        self._name(step, (edit.select or ("",))[0])

    def _check(self, step: Mapping[str, Any]) -> None:
        key = _text(step, "check")
        found = checked(self.page, self._thing(key))
        self.session.commit(check_edit(self.page, [found]))
        self.answers.append({key: {"right": found.right, "says": found.says}})

    def _facts(self, step: Mapping[str, Any]) -> None:
        keys = step["facts"]
        keys = [keys] if isinstance(keys, str) else keys
        if not isinstance(keys, list):
            raise StepError("“facts” lists keys.")
        self.answers.append({key: {f.name: f.value for f in self._thing(key).facts(self.page)} for key in keys})

    # Helpers

    def _name(self, step: Mapping[str, Any], id: str) -> None:
        if "as" in step and id:
            self.keys[_text(step, "as")] = (self.page_id, id)

    def _thing(self, key: Any) -> Thing:
        if not isinstance(key, str) or (key not in self.keys and self.page.thing(key) is None):
            raise StepError(f"nothing is called “{str(key)[:60]}”.")
        page, id = self.keys.get(key, (self.page_id, key))
        thing = self.page.thing(id) if page == self.page_id else None
        if thing is None:
            raise StepError(f"“{key[:60]}” is not on this page any more.")
        return thing

    def _fact(self, thing: Thing, name: str) -> Fact:
        facts = [*thing.facts(self.page), *common_facts(self.session.lesson, self.page, [thing])]
        found = next((fact for fact in facts if fact.name == name), None)
        if found is None:
            raise StepError(f"it has no fact “{name[:60]}”.")
        return found


def _text(step: Mapping[str, Any], name: str) -> str:
    value = step.get(name)
    if not isinstance(value, str) or not value:
        raise StepError(f"“{name}” is missing.")
    return value


def _place(given: Any) -> Point:
    fits = isinstance(given, list) and len(given) == 2
    if not fits or not all(isinstance(c, int | float) and not isinstance(c, bool) and abs(c) < 1e6 for c in given):
        raise StepError("a place is [x, y], in units of the page.")
    return (float(given[0]), float(given[1]))


def _listed(given: Any) -> str:
    return "; ".join(map(str, given)) if isinstance(given, list) else str(given)


def _part_named(thing: HasParts, name: str) -> str:
    """A part by its name, also as its fact is called ("minute hand")."""
    return name if name in thing.parts() else next((p for p in thing.parts() if name.startswith(f"{p} ")), name)


def _shelf_item(name: str) -> ShelfItem | None:
    items = shelf_items()
    found = next((item for item in items if item.name == name), None)
    return found or next((item for item in items if item.label.casefold() == name.casefold()), None)


def _after_each(page: Page, thing: Thing) -> Iterator[Page]:
    """The page after each of the things that can be done with it, one by one."""
    for action in thing.actions():
        with contextlib.suppress(ValueError):
            after = action.edit(page, [thing], 0.0).after if action.fits(page, [thing]) else None
            if isinstance(after, Page):
                yield after


def described() -> list[dict[str, Any]]:
    """Every kind with what it can do, as `larch things --json` prints it."""
    page = Page(id="p1")
    listed = []
    for tag, kind in kinds().items():
        items = list(kind.shelf())
        samples = [thing for item in items for thing in item.things() if thing.kind() == tag]
        actions: dict[str, str] = {}
        facts: dict[str, dict[str, Any]] = {}
        parts: dict[str, None] = {}
        for sample in samples:
            here = page.put(sample)
            thing = here.things[0]
            actions.update({action.name: action.label(here, [thing]) for action in thing.actions()})
            for seen in (here, *_after_each(here, thing)):  # some facts are there only when something has been done
                for fact in (fact for one in seen.some([thing.id]) for fact in one.facts(seen)):
                    facts.setdefault(fact.name, {"name": fact.name, "unit": fact.unit, "settable": fact.set is not None})
            if isinstance(thing, HasParts):
                parts.update(dict.fromkeys(thing.parts()))
        listed.append({
            "kind": tag,
            "title": kind.title(),
            "help": kind.help,
            "shelf": [{"name": item.name, "tray": item.tray, "words": item.words} for item in items],
            "actions": [{"name": name, "label": label} for name, label in actions.items()],
            "facts": list(facts.values()),
            "parts": list(parts),
        })  # fmt: skip
    return listed
