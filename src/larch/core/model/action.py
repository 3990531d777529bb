"""Actions: what can be done, stated once for the tag, the menus, the Finder, the keyboard and the screen reader."""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Callable, Iterable, Sequence
from functools import cache
from typing import Any, NamedTuple

from msgspec import Struct

from larch.core.base.words import _
from larch.core.model.capabilities import TakesNames
from larch.core.model.edit import Edit
from larch.core.model.guarded import hold
from larch.core.model.page import Page
from larch.core.model.thing import Thing

Things = Sequence[Thing]
OPERATIONS = "larch.core.actions"  # the package whose modules register what they do


class Fold(NamedTuple):
    """A menu within the menu, in which actions lie together. label: marked with N_."""

    name: str
    label: str
    icon: str


class Action(Struct, frozen=True):
    """A pure function of a page and the selected things of it, with its name and looks.

    fits: whether it makes sense for this selection. rank: lower comes sooner on the tag.
    board: offered to students at the Board. label may depend on the selection. fold: the menu within the menu that it lies
    in. words: what else it is called, for the Finder; marked with N_. by_clock: instead of `run`, of what needs the time
    (seconds since 1970). command: the name of what the window does instead of `run`, where that takes the worker or a
    place to type in; the command itself is what the Finder lists.
    """

    name: str
    label: Callable[[Page, Things], str]
    icon: str
    run: Callable[[Page, Things], Edit]
    fits: Callable[[Page, Things], bool] = lambda page, things: bool(things)
    shortcut: str = ""
    rank: int = 50
    board: bool = False
    words: str = ""
    fold: Fold | None = None
    by_clock: Callable[[Page, Things, float], Edit] | None = None
    command: str = ""

    def edit(self, page: Page, things: Things, now: float) -> Edit:
        """What it does at a time. Raises ValueError with one sentence where it can't be done."""
        return self.run(page, things) if self.by_clock is None else self.by_clock(page, things, now)


class _Registered(NamedTuple):
    at: int
    of: type[Any] | None
    actions: tuple[Action, ...]


_registered: list[_Registered] = []
_wishes: dict[str, Callable[[Page, Any, str], Any]] = {}


def register(actions: Iterable[Action], of: type[Any] | None = None, at: int = 50) -> None:
    """Operations of a module: for things of a kind or with a capability, or, with none given, for anything.

    at: their place among those for the same things; the lower, the sooner, where ranks are equal.
    """
    _registered.append(_Registered(at, of, tuple(actions)))
    _registered.sort(key=lambda one: one.at)


def grants(wish: str) -> Callable[[Callable[[Page, Any, str], Any]], Callable[[Page, Any, str], Any]]:
    """Marks the operation that does what a person typed into a fact of a kind, which itself knows no operations."""

    def keep(run: Callable[[Page, Any, str], Any]) -> Callable[[Page, Any, str], Any]:
        _wishes[wish] = run
        return run

    return keep


def wished(wish: str, page: Page, thing: Thing, typed: str) -> Any:
    """What the operation makes of what was typed: as `Fact.set` returns it. Raises ValueError with one sentence."""
    load_operations()
    return _wishes[wish](page, thing, typed)


@cache
def load_operations() -> None:
    """Imports every module of operations, once, when something is first to be done."""
    package = importlib.import_module(OPERATIONS)
    for module in pkgutil.walk_packages(package.__path__, f"{OPERATIONS}."):
        importlib.import_module(module.name)


def actions_for(page: Page, things: Things) -> list[Action]:
    """All that fits the selection, likeliest first: the kinds' own actions, then those for anything."""
    if not things:
        return []
    load_operations()
    found: dict[str, Action] = {}
    for thing in things:
        for action in thing.actions():
            found.setdefault(action.name, action)
        for one in _registered:
            if one.of is not None and isinstance(thing, one.of):
                found.update((action.name, action) for action in one.actions if action.name not in found)
    for one in _registered:
        if one.of is None:
            found.update((action.name, action) for action in one.actions if action.name not in found)
    fitting = [action for action in found.values() if _fits(action, page, things)]
    return sorted(fitting, key=lambda action: action.rank)


def _fits(action: Action, page: Page, things: Things) -> bool:
    try:
        return action.fits(page, things)
    except Exception as error:
        hold(things[0], error)
        return False


def ids_of(things: Things) -> list[str]:
    return [thing.id for thing in things]


def named(page: Page, thing: Thing) -> Thing:
    """A thing that is to be put on a page, with names that are still free there."""
    return thing.christened(page) if isinstance(thing, TakesNames) else thing


def put(page: Page, new: Sequence[Thing], label: str) -> Edit:
    """Puts new things on top of the page and selects them."""
    after = page
    for thing in new:  # one by one, so that each gets names that the others have not taken
        after = after.put(named(after, thing))
    return Edit(label, page, after, select=tuple(page.put_ids(len(new))))


def toggle(page: Page, things: Things, field: str, on: str, off: str) -> Edit:
    """Sets a truth on all, or clears it if all have it."""
    value = not all(getattr(thing, field) for thing in things)
    changed = page.changing(ids_of(things), lambda thing: thing.replace(**{field: value}))
    return Edit(on if value else off, page, changed)


def set_all(page: Page, things: Things, label: str, **fields: Any) -> Edit:
    """Gives all the same values for some fields."""
    return Edit(label, page, page.changing(ids_of(things), lambda thing: thing.replace(**fields)))


def toggle_shown(page: Page, things: Things, what: str, label: str) -> Edit:
    """Shows something on all, or hides it if all show it."""
    on = not all(what in thing.shown for thing in things)
    return Edit(label, page, page.changing(ids_of(things), lambda thing: thing.replace(shown=(what,) if on else ())))


def only(kind: type[Any]) -> Callable[[Page, Things], bool]:
    """Fits where every selected thing is of one kind, or has a capability."""
    return lambda page, things: bool(things) and all(isinstance(thing, kind) for thing in things)


def through(command: str, label: str, icon: str, fits: Callable[[Page, Things], bool], rank: int) -> Action:
    """What a command of the window does with the selection, for its tag and its menu. label: marked with N_."""
    return Action(command, lambda p, ts: _(label), icon, lambda p, ts: Edit(_(label), p, p), fits, rank=rank, board=True,
                  command=command)  # fmt: skip
