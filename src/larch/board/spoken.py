"""What a screen reader is told of the page."""

from __future__ import annotations

from collections.abc import Sequence

from larch.board.ticking import at_present
from larch.core.base.shape import Point
from larch.core.base.words import _, many
from larch.core.model.capabilities import IsInk
from larch.core.model.fact import number_text
from larch.core.model.page import Page
from larch.core.model.thing import Thing

MOST_THINGS = 5


def description(page: Page, chosen: Sequence[Thing]) -> str:
    """The selection with its facts, or how much there is on the page."""
    if not chosen:
        return many("1 thing on the page", "{n} things on the page", len(page.things))
    text = "; ".join(spoken(page, thing) for thing in chosen[:MOST_THINGS])
    if len(chosen) > MOST_THINGS:
        text += "; " + _("and {n} more").format(n=len(chosen) - MOST_THINGS)
    return text


def spoken(page: Page, thing: Thing) -> str:
    from larch.core.actions.arrange.holds import said

    facts = (
        []
        if isinstance(thing, IsInk)
        else [f"{fact.label} {fact.text}" for fact in at_present(thing).facts(page) if fact.text]
    )
    state = [_("locked")] if thing.locked else [held] if (held := said(thing)) else []
    return ", ".join([thing.label(page), place_of(page, thing.box().centre), *state, *facts])


def place_of(page: Page, at: Point) -> str:
    """Where something is on the page, in centimetres from its upper left corner."""
    x, y = (number_text(v / page.unit, 1) for v in at)
    return _("{x} cm from the left, {y} cm from the top").format(x=x, y=y)
