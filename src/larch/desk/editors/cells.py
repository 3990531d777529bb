"""Words in the cells of tables."""

from __future__ import annotations

from larch.board.views import view_of
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.organisers.table import Table, first_line
from larch.core.things.words.text import Text

EDGE = 16.0  # page units between words and the edge of the page
LEAST_WRAP = 240.0  # of room in which words are wrapped; with less they are shifted


def with_room(page: Page, words: Thing) -> Page:
    """In a cell of a table words stand in the middle, and their row grows with them."""
    if not isinstance(words, Text):
        return page
    table = table_at(page, words)
    tall = view_of(words).extent(words).height * words.placement.scale
    return table.making_room(page, words, tall) if table is not None else page


def kept_on(page: Page, words: Thing) -> Thing:
    """Words that were begun on the printed part of a page and hang off it: wrapped at its edge, or shifted onto it."""
    seen = page.printed()
    if not isinstance(words, Text) or words.placement.turn or not seen.holds(words.placement.x, words.placement.y):
        return words
    kept = words
    box = view_of(kept).box(kept)
    room = seen.x1 - EDGE - box.x0
    if box.x1 > seen.x1 and not kept.width:
        if room >= LEAST_WRAP:
            kept = kept.replace(width=room / kept.placement.scale)
        else:
            kept = kept.moved(max(seen.x0 + EDGE - box.x0, seen.x1 - EDGE - box.x1), 0.0)
        box = view_of(kept).box(kept)
        if box.x1 > seen.x1:
            kept = kept.replace(width=(seen.x1 - EDGE - box.x0) / kept.placement.scale)
            box = view_of(kept).box(kept)
    if box.y1 > seen.y1:
        kept = kept.moved(0.0, max(seen.y0 - box.y0, seen.y1 - box.y1))
    return kept


def table_at(page: Page, words: Thing) -> Table | None:
    """The topmost table in which something lies."""
    at = first_line(words)
    tables = [t for t in page.things if isinstance(t, Table) and t.extent().holds(*t.placement.to_local(*at))]
    return tables[-1] if tables else None
