"""A page: a frozen value that holds its things in depth order, the lowest first."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import Any

import msgspec
from msgspec import Struct

from larch.core.base.memo import remember
from larch.core.base.shape import Box
from larch.core.base.words import N_
from larch.core.model.paper import Paper as Paper
from larch.core.model.scale import Scale as Scale
from larch.core.model.thing import Thing

SIZES = {N_("16:9"): (1280.0, 720.0), N_("4:3"): (960.0, 720.0), N_("A4"): (720.0, 1018.0), N_("A4 across"): (1018.0, 720.0)}

# What the class may do at the Board, as it follows "pupils may". Taps, such as a roll, are never forbidden.
PUPILS = {
    "move": N_("move things"), "write": N_("write and draw"), "paint": N_("paint"),
    "shelf": N_("use the shelf and the bin"), "turn": N_("turn pages"),
}  # fmt: skip

PUPILS_MAY = ("move", "write", "turn")  # on a fresh page: what does no harm


class Arrangement(Struct, frozen=True):
    """How a page was set out: its things without ink."""

    name: str
    things: tuple[Thing, ...]


class Page(Struct, frozen=True, kw_only=True, omit_defaults=True, weakref=True):
    """A page of a lesson.

    unit: page units to one centimetre; scale: what that stands for. size: of the printed part; the page itself has no edge.
    next: number of the next thing's id. seed and draws: where its chance stands (see `chance`).
    pupils: what the class may do with it at the Board, of PUPILS.
    """

    id: str
    title: str = ""
    paper: Paper = Paper()
    size: tuple[float, float] = SIZES["16:9"]
    unit: float = 32.0
    scale: Scale = Scale()
    things: tuple[Thing, ...] = ()
    next: int = 1
    seed: int = 0
    draws: int = 0
    setouts: tuple[Arrangement, ...] = ()
    pupils: tuple[str, ...] = PUPILS_MAY
    extra: tuple[tuple[str, bytes], ...] = ()

    def thing(self, id: str) -> Thing | None:
        found = positions(self).get(id)
        return None if found is None else self.things[found]

    def some(self, ids: Iterable[str]) -> tuple[Thing, ...]:
        """The things of these ids that exist, in depth order."""
        where = positions(self)
        return tuple(self.things[i] for i in sorted(where[id] for id in ids if id in where))

    def replace(self, **changes: Any) -> Page:
        return msgspec.structs.replace(self, **changes)

    def put(self, *new: Thing) -> Page:
        """With new things on top. Each gets an id of its own; see `put_ids` for which."""
        named = tuple(thing.replace(id=id) for thing, id in zip(new, self.put_ids(len(new)), strict=True))
        return self.replace(things=self.things + named, next=self.next + len(new))

    def put_ids(self, count: int) -> list[str]:
        return [f"t{self.next + i}" for i in range(count)]

    def with_things(self, changed: Mapping[str, Thing]) -> Page:
        """With some things replaced, each at its depth."""
        where = positions(self)
        things = list(self.things)
        for id, thing in changed.items():
            if id in where:
                things[where[id]] = thing
        return self.replace(things=tuple(things))

    def exchange(self, instead: Mapping[str, Sequence[Thing]]) -> Page:
        """With some things replaced by others, each at its depth. The first of several keeps the id."""
        things: list[Thing] = []
        following = self.next
        for thing in self.things:
            others = instead.get(thing.id)
            if others is None:
                things.append(thing)
                continue
            for number, other in enumerate(others):
                if number:
                    other = other.replace(id=f"t{following}")
                    following += 1
                things.append(other if number else other.replace(id=thing.id))
        return self.replace(things=tuple(things), next=following)

    def insert(self, at: int, *new: Thing) -> Page:
        """With new things at a depth, 0 for the lowest. They get the ids that `put_ids` tells."""
        named = tuple(thing.replace(id=id) for thing, id in zip(new, self.put_ids(len(new)), strict=True))
        return self.replace(things=(*self.things[:at], *named, *self.things[at:]), next=self.next + len(new))

    def changing(self, ids: Iterable[str], change: Callable[[Thing], Thing]) -> Page:
        return self.with_things({thing.id: change(thing) for thing in self.some(ids)})

    def without(self, ids: Iterable[str]) -> Page:
        gone = set(ids)
        return self.replace(things=tuple(thing for thing in self.things if thing.id not in gone))

    def printed(self) -> Box:
        return Box(0, 0, *self.size)


@remember
def positions(page: Page) -> dict[str, int]:
    """Depth of each thing by its id."""
    return {thing.id: i for i, thing in enumerate(page.things)}


def group_of(thing: Thing, opened: str = "") -> str:
    """The outermost group it belongs to, or the next one inside an opened group; "" if there is none."""
    groups = thing.groups
    if opened in groups:
        groups = groups[groups.index(opened) + 1 :]
    return groups[0] if groups else ""


def with_groups(page: Page, ids: Iterable[str], opened: str = "") -> tuple[str, ...]:
    """The ids and those of everything grouped with them, in depth order; an opened group does not hold together."""
    chosen = set(ids)
    groups = {group_of(thing, opened) for thing in page.some(chosen)} - {""}
    return tuple(t.id for t in page.things if t.id in chosen or (t.groups and group_of(t, opened) in groups))
