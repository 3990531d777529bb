"""Signs that a class knows the meaning of and that the reader of expressions doesn't: what is asked for, and about equal."""

from __future__ import annotations

from larch.core.maths.layout.rows import Item, Row, Sign, inner_rows, with_inner

STANDS_FOR = {"?": "x", "≈": "="}  # they are understood where these are; one character each, so that places stay


def plainly(row: Row) -> Row:
    """With what is understood in their place."""
    return tuple(_plain(item) for item in row)


def _plain(item: Item) -> Item:
    if isinstance(item, Sign):
        return Sign(STANDS_FOR[item.text], item.hue) if item.text in STANDS_FOR else item
    for k, inner in enumerate(inner_rows(item)):
        item = with_inner(item, k, plainly(inner))
    return item
