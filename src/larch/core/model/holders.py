"""Things that hold others: what lies in a table goes with it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from larch.core.model.capabilities import HasMedia, HoldsOthers, Merges
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing

FEW = 12  # things that a hand brings to others


def inside(page: Page, holder: Thing) -> list[Thing]:
    """What lies in a holder: things above it in depth whose middle is within it."""
    above = False
    found = []
    extent = holder.extent()
    for thing in page.things:
        if thing.id == holder.id:
            above = True
        elif above and not thing.locked and extent.holds(*holder.placement.to_local(*thing.box().centre)):
            found.append(thing)
    return found


def with_held(page: Page, ids: Iterable[str]) -> list[str]:
    """Some things and all that they hold, in depth order."""
    chosen = dict.fromkeys(ids)
    holders = [thing for thing in page.some(chosen) if isinstance(thing, HoldsOthers)]
    if not holders:
        return list(chosen)
    for holder in holders:
        chosen.update(dict.fromkeys(thing.id for thing in inside(page, holder)))
    return [thing.id for thing in page.some(chosen)]


def holder_of(page: Page, thing: Thing) -> Thing | None:
    """What holds a thing: the topmost holder below it in depth that its middle is in."""
    found = None
    for other in page.things:
        if other.id == thing.id:
            break
        holds = isinstance(other, HoldsOthers) and not other.hidden
        if holds and other.extent().holds(*other.placement.to_local(*thing.box().centre)):
            found = other
    return found


def fitted_in(page: Page, ids: Sequence[str]) -> Page:
    """The page with those pictures that lie in a holder as large as their place in it."""
    changed = {}
    for thing in page.some(ids):
        holder = holder_of(page, thing) if isinstance(thing, HasMedia) and not thing.locked else None
        if isinstance(holder, HoldsOthers) and (fitted := holder.fitted(thing)) is not None:
            changed[thing.id] = fitted
    return page.with_things(changed) if changed else page


def merged_in(page: Page, ids: Sequence[str]) -> Page:
    """The page with what things make together with others beside which they were laid: ten ones a ten. Not where many are
    moved at once, as a whole."""
    for id in ids if len(ids) <= FEW else ():
        thing = page.thing(id)
        after = thing.merged(page) if isinstance(thing, Merges) and not thing.locked else None
        page = page if after is None else after
    return page


def in_cells(edit: Edit) -> Edit:
    """An edit that put something out, with pictures in cells made to fit them."""
    if not isinstance(edit.after, Page) or not edit.select:
        return edit
    after = fitted_in(edit.after, edit.select)
    return edit if after is edit.after else Edit(edit.label, edit.before, after, select=edit.select)
