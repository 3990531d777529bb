"""Words in the cells of tables."""

from __future__ import annotations

from larch.board.views import view_of
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.organisers.table import Table, first_line
from larch.core.things.words.text import Text


def with_room(page: Page, words: Thing) -> Page:
    """In a cell of a table words stand in the middle, and their row grows with them."""
    if not isinstance(words, Text):
        return page
    table = table_at(page, words)
    tall = view_of(words).extent(words).height * words.placement.scale
    return table.making_room(page, words, tall) if table is not None else page


def table_at(page: Page, words: Thing) -> Table | None:
    """The topmost table in which something lies."""
    at = first_line(words)
    tables = [t for t in page.things if isinstance(t, Table) and t.extent().holds(*t.placement.to_local(*at))]
    return tables[-1] if tables else None
