"""Settling a page: what follows from other things is worked out again, in the order in which it follows."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from functools import cache
from typing import Any, TypeVar

from larch.core.base.memo import remember
from larch.core.base.shape import Point
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure, part_of, split_ref
from larch.core.figures.settling import Plan
from larch.core.maths.plane.forms import Form, NotThere, Spot
from larch.core.model.capabilities import Geometric, Plots, Tells
from larch.core.model.edit import Edit
from larch.core.model.guarded import hold
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page, positions
from larch.core.model.page_list import PageList, Slot
from larch.core.model.thing import Thing

ROUNDABOUT = ("locus", "connect")  # depend on more than what they follow from
T = TypeVar("T")
FAILS = N_("It can't be worked out from its numbers.")
CIRCLE = N_("It hangs on itself.")
GONE = N_("What it hangs on is gone.")
MISFIT = N_("Its rule makes something of another kind.")
NOT_THERE = N_("What it hangs on is not there.")


@remember
def plan_of(page: Page) -> Plan:
    """In which order the things of a page are settled."""
    follows = {t.id: t for t in page.things if isinstance(t, Figure) and t.rule}
    parents = {id: _parents(page, thing) for id, thing in follows.items()}
    children: dict[str, list[str]] = {}
    for id, above in parents.items():
        for parent in above:
            children.setdefault(parent, []).append(id)
    order, looped = _sorted(parents)
    telling = tuple(t.id for t in page.things if isinstance(t, Tells) and t.tells())
    return Plan(order, parents, {id: tuple(below) for id, below in children.items()}, looped, telling)


def _parents(page: Page, figure: Figure) -> tuple[str, ...]:
    ids = dict.fromkeys(split_ref(ref)[0] for ref in figure.of)
    for id in tuple(ids):
        thing = page.thing(id)
        if isinstance(thing, Geometric) and not isinstance(thing, Figure):
            ids.update(dict.fromkeys(thing.rests_on(page)))
    return tuple(ids)


def _sorted(parents: Mapping[str, tuple[str, ...]]) -> tuple[tuple[str, ...], frozenset[str]]:
    """Depth first, without recursion: a chain may be long. What is met again while it is still open hangs on itself."""
    done: dict[str, None] = {}
    looped: set[str] = set()
    for start in parents:
        open_: dict[str, None] = {}
        waiting = [(start, False)]
        while waiting:
            id, leaving = waiting.pop()
            if leaving:
                open_.pop(id, None)
                done[id] = None
                continue
            if id in done or id not in parents:
                continue
            if id in open_:
                continue
            open_[id] = None
            waiting.append((id, True))
            waiting += [(parent, False) for parent in parents[id] if parent not in done]
            for parent in parents[id]:
                if parent in open_:  # all that was entered since then hangs on itself
                    path = list(open_)
                    looped.update(path[path.index(parent) :])
    return tuple(done), frozenset(looped)


class Settler:
    """Works out forms, one by one. things: what has changed so far against the page."""

    def __init__(self, page: Page, plan: Plan, things: dict[str, Thing]) -> None:
        from larch.core.figures.rules import made_by  # once, for it is asked for thing by thing

        self._made_by = made_by
        self.page = page
        self.plan = plan
        self.things = things
        self._forms: dict[str, Form | None] = {}
        self._where = positions(page)
        self._kept: dict[str, Any] = {}

    def thing(self, id: str) -> Thing | None:
        found = self.things.get(id)
        if found is not None:
            return found
        where = self._where.get(id)
        return None if where is None else self.page.things[where]

    def remembered(self, name: str, make: Callable[[], T]) -> T:
        """Something that many things ask for while a page is settled, made once."""
        if name not in self._kept:
            self._kept[name] = make()
        found: T = self._kept[name]
        return found

    def form(self, ref: str) -> Form:
        id, sign, k = split_ref(ref)
        if id not in self._forms:
            thing = self.thing(id)
            if thing is None:
                raise NotThere(GONE)
            # Axes may have been changed together with the equations on them.
            page = self.page.with_things(self.things) if self.things and not isinstance(thing, Figure) else self.page
            self._forms[id] = thing.form_on(page) if isinstance(thing, Geometric) else None
        form = self._forms[id]
        if form is None:
            raise NotThere(NOT_THERE)
        return part_of(form, sign, k)

    def settle(self, id: str) -> None:
        """Works out one thing anew; keeps the value as it is if nothing about it changes."""
        thing = self.thing(id)
        assert isinstance(thing, Figure)
        try:
            if id in self.plan.looped:
                raise NotThere(CIRCLE)
            form = self.made(thing)
            fresh = thing if not thing.why and thing.form() == form else _formed(thing, form)
            if fresh.rule == "polygon":
                fresh = self._lettered(fresh)
            self._forms[id] = form
        except NotThere as reason:
            fresh = thing if thing.why == str(reason) else thing.replace(why=str(reason))
            self._forms[id] = None
        except Exception as error:  # whatever is wrong with a rule or its numbers, the page goes on without this figure
            hold(thing, error)
            fresh = thing if thing.why == FAILS else thing.replace(why=FAILS)
            self._forms[id] = None
        if fresh is not thing:
            self.things[id] = fresh

    def _lettered(self, figure: Figure) -> Figure:
        """A polygon on points has the letters of its points."""
        names = [getattr(self.thing(ref), "name", "") for ref in figure.of]
        letters = "".join(names) if all(names) else ""
        if letters == getattr(figure, "letters", letters):
            return figure
        changed: Figure = figure.replace(letters=letters)
        return changed

    def made(self, thing: Figure) -> Form:
        own = thing.worked_out(self)
        if own is not None:
            return own
        if thing.rule == "plotted":
            axes = self.thing(thing.of[0]) if thing.of else None
            if not isinstance(axes, Plots):
                raise NotThere(GONE)
            if len(thing.values) < 2:
                raise NotThere(FAILS)
            return axes.plotted(*thing.values[:2])
        if thing.rule in ROUNDABOUT:
            raise NotThere(MISFIT)
        return self._made_by(thing.rule, [self.form(ref) for ref in thing.of], thing.values)


def _formed(thing: Figure, form: Form) -> Figure:
    """The thing with another form. Raises NotThere if a thing of its kind can't have that, as only a file can ask for."""
    try:
        return (thing.replace(why="") if thing.why else thing).formed(form)
    except (AttributeError, TypeError, ValueError) as error:
        raise NotThere(MISFIT) from error


def settle(page: Page, before: Page | None = None) -> Page:
    """The page with all that follows from other things worked out; the same page if nothing changes.

    What has not changed since `before`, which is settled, is not looked at again.
    """
    plan = plan_of(page)
    if not plan.order and not plan.telling:
        return page
    changed: dict[str, Thing] = {}
    dirty = _dirty(page, before)
    _work(page, plan, changed, dirty)
    return page.with_things(changed) if changed else page


def _dirty(page: Page, before: Page | None) -> set[str] | None:
    """The ids whose things differ; None for all."""
    if before is None or before.unit != page.unit or before.scale != page.scale:
        return None
    old = {thing.id: thing for thing in before.things}
    dirty = {thing.id for thing in page.things if old.pop(thing.id, None) is not thing}
    for id in plan_of(page).children if dirty or old else ():
        thing = page.thing(id)
        if isinstance(thing, Figure) or not isinstance(thing, Geometric):
            continue
        if thing.rests_on(page) != thing.rests_on(before):
            dirty.add(id)  # an equation that has come to lie on other axes
    return dirty | set(old)


def _work(page: Page, plan: Plan, changed: dict[str, Thing], dirty: set[str] | None) -> None:
    settler = Settler(page, plan, changed)
    for id in plan.order:
        if dirty is not None and id not in dirty and dirty.isdisjoint(plan.parents[id]):
            thing = settler.thing(id)
            if not (isinstance(thing, Figure) and thing.rule in ROUNDABOUT and dirty):
                continue
        settler.settle(id)
        if dirty is not None and id in changed:
            dirty.add(id)
    if plan.telling and (dirty is None or dirty):
        now = page.with_things(changed) if changed else page
        for id in plan.telling:
            thing = now.thing(id)
            fresh = thing.told_on(now) if isinstance(thing, Tells) else thing
            if fresh is not None and fresh is not thing:
                changed[id] = fresh


class Followed(dict[str, Thing]):
    """Changed things with all that comes out differently for that, so that nobody need work it out once more.
    roots: the ids of those that were changed."""

    roots: frozenset[str]

    def __init__(self, changed: Mapping[str, Thing]) -> None:
        super().__init__(changed)
        self.roots = frozenset(changed)


def followers(page: Page, changed: Mapping[str, Thing]) -> Followed:
    """What comes out differently on a settled page when some of its things are replaced; and those things."""
    plan = plan_of(page)
    found = Followed(changed)
    if plan.telling or any(id in plan.children or id in plan.parents for id in changed):
        _work(page, _with(plan, page, changed), found, set(changed))
    return found


def _with(plan: Plan, page: Page, changed: Mapping[str, Thing]) -> Plan:
    """The plan still holds unless a thing now follows from others than before."""
    for id, thing in changed.items():
        if getattr(thing, "of", ()) != getattr(page.thing(id), "of", ()):
            return plan_of(page.with_things(changed))
    return plan


def carried(page: Page, ids: Iterable[str], dx: float, dy: float) -> Followed:
    """Things shifted by a drag, with all that follows from them. What follows takes along what it hangs on; a point
    that lies on a line slides along it."""
    plan = plan_of(page)
    chosen = list(ids)
    moved: dict[str, Thing] = {}
    if len(chosen) == 1:
        slid = _slid(page, chosen[0], dx, dy)
        if slid is not None:
            return followers(page, slid)
    for id in free_of(page, chosen):
        thing = page.thing(id)
        if thing is not None and not (thing.locked and id not in chosen):
            moved[id] = thing.moved(dx, dy)
    if not plan.order and not plan.telling:
        return Followed(moved)
    return followers(page, moved)


def free_of(page: Page, ids: Sequence[str]) -> list[str]:
    """The free things that some things hang on in the end, or are themselves."""
    plan = plan_of(page)
    if not any(id in plan.parents for id in ids):
        return list(ids)
    found: dict[str, None] = {}
    seen: set[str] = set()
    waiting = list(reversed(ids))
    while waiting:
        id = waiting.pop()
        if id in seen:
            continue
        seen.add(id)
        if id in plan.parents:
            waiting += reversed(plan.parents[id])
        else:
            found[id] = None
    return list(found)


def _slid(page: Page, id: str, dx: float, dy: float) -> dict[str, Thing] | None:
    thing = page.thing(id)
    if not isinstance(thing, Figure) or thing.rule not in (*sliding(), "plotted"):
        return None
    if not isinstance(thing.form(), Spot):
        return None
    at = (thing.placement.x + dx, thing.placement.y + dy)
    fresh = dragged_to(page, thing, at)
    return None if fresh is None else {id: fresh}


@cache
def sliding() -> tuple[str, ...]:
    """The rules by which a point slides along what it lies on."""
    from larch.core.figures.rules import RULES

    return tuple(name for name, rule in RULES.items() if rule.slides is not None)


def dragged_to(page: Page, thing: Figure, at: Point) -> Figure | None:
    """A figure that follows, with its numbers changed so that it comes nearest to a place; None if it has none."""
    settler = Settler(page, plan_of(page), {})
    try:
        if thing.rule == "plotted":
            axes = settler.thing(thing.of[0])
            if not isinstance(axes, Plots):
                return None
            plotted: Figure = thing.replace(values=axes.coordinates(at))
            return plotted
        from larch.core.figures.rules import RULES

        slides = RULES[thing.rule].slides
        if slides is None:
            return None
        values = tuple(slides([settler.form(ref) for ref in thing.of], thing.values, at))
    except (NotThere, LookupError, ValueError, TypeError, ArithmeticError):
        return None
    changed: Figure = thing.replace(values=values)
    return changed


def settle_lesson(lesson: Lesson, before: Lesson | None = None) -> Lesson:
    """A lesson with all its pages settled; those shared with `before` are, and so are those that are still to be made."""
    old = {slot.id: slot for slot in before.pages.slots} if before is not None else {}
    slots: list[Slot] = []
    for slot in lesson.pages.slots:
        was = old.get(slot.id)
        if not slot.ready or (was is not None and was.is_same(slot)):
            slots.append(slot)
            continue
        page = settle(slot.page(), was.page() if was is not None else None)
        slots.append(slot if page is slot.page() else Slot(slot.id, None, page))
    same = all(a is b for a, b in zip(slots, lesson.pages.slots, strict=True))
    return lesson if same else lesson.replace(pages=PageList(slots))


def descendants(page: Page, ids: Iterable[str]) -> list[str]:
    """All that hangs on some things, in the order in which it follows."""
    plan = plan_of(page)
    below: set[str] = set(ids)
    found = []
    for id in plan.order:
        if not below.isdisjoint(plan.parents[id]):
            below.add(id)
            found.append(id)
    return found


def without(page: Page, ids: Iterable[str]) -> Page:
    """The page without some things and without what hangs on them."""
    gone = list(ids)
    return page.without([*gone, *descendants(page, gone)])


def set_free(page: Page, things: Sequence[Thing]) -> Edit:
    """Figures that follow become free ones, just where they are."""
    changed = {t.id: t.replace(rule="", of=(), values=()) for t in things if isinstance(t, Figure) and t.rule and not t.why}
    return Edit(_("Set free"), page, page.with_things(changed))
