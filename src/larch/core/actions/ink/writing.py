"""Where a new stroke goes: on top, under what it highlights, or into what it is written on."""

from __future__ import annotations

from larch.core.base.words import _
from larch.core.model.capabilities import HasWords, TakesInk
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.ink.ink import Ink


def write(page: Page, ink: Ink) -> Edit:
    """Puts a stroke on the page. A highlighter goes under the writing that it crosses."""
    label = _("Highlight") if ink.nib == "highlighter" else _("Ink")
    taker = _taker(page, ink)
    if taker is not None:
        return Edit(label, page, page.with_things({taker.id: taker}))
    if ink.nib != "highlighter":
        return Edit(label, page, page.put(ink))
    box = ink.box()
    under = next((i for i, t in enumerate(page.things) if _is_writing(t) and t.box().meets(box)), len(page.things))
    return Edit(label, page, page.insert(under, ink))


def _is_writing(thing: Thing) -> bool:
    if isinstance(thing, Ink):
        return thing.nib != "highlighter"
    return isinstance(thing, HasWords) and bool(thing.plain_text())


def _taker(page: Page, ink: Ink) -> Thing | None:
    """The topmost thing under the start of a stroke, with the stroke in it, if it takes ink."""
    start = ink.samples()[0]
    x, y = ink.placement.to_page(start[0], start[1])
    for thing in reversed(page.things):
        if isinstance(thing, TakesInk) and thing.touches(*thing.placement.to_local(x, y), 0):
            return thing.with_ink(ink)
    return None
