"""Things that hold others: what lies in a table goes with it."""

from __future__ import annotations

from collections.abc import Iterable

from larch.core.model.capabilities import HoldsOthers
from larch.core.model.page import Page
from larch.core.model.thing import Thing


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
