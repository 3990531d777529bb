"""A row with the signs that its lesson writes in the place of those that were typed; part for part: a caret fits both."""

from __future__ import annotations

import msgspec

from larch.core.base.signs import Signs
from larch.core.maths.layout.rows import Fence, Fraction, Grid, Item, Limits, Lowered, Over, Raised, Root, Row, Sign


def as_seen(row: Row, signs: Signs, fenced: bool = False) -> Row:
    """fenced: whether it stands in brackets, where (2,3) is a pair and not two and three tenths."""
    listed = signs.decimal == "," and _lists(row, fenced)
    return tuple(_seen(row, k, signs, listed) for k in range(len(row)))


def _text(row: Row, k: int) -> str:
    item = row[k] if 0 <= k < len(row) else None
    return item.text if isinstance(item, Sign) else ""


def _lists(row: Row, fenced: bool) -> bool:
    """Whether every comma in it parts two numbers."""
    texts = [_text(row, k) for k in range(len(row))]
    points = any(t == "." and _text(row, k - 1).isdigit() and _text(row, k + 1).isdigit() for k, t in enumerate(texts))
    bare = fenced and all(t.isdigit() or t in (",", "−", "-") for t in texts)
    return points or bare


def _seen(row: Row, k: int, signs: Signs, listed: bool) -> Item:
    match row[k]:
        case Sign(text, hue):
            before, after = ("", "") if listed and text == "," else (_text(row, k - 1), _text(row, k + 1))
            unfinished = text == "," and k in (0, len(row) - 1)
            shown = text if unfinished else signs.seen(text, before, after)
            return row[k] if shown == text else Sign(shown, hue)
        case Fence(left, inner, _right) as fence:
            return msgspec.structs.replace(fence, inner=as_seen(inner, signs, left in "([{"))
        case Fraction(above, below) as part:
            return msgspec.structs.replace(part, above=as_seen(above, signs), below=as_seen(below, signs))
        case Root(inner, degree) as part:
            return msgspec.structs.replace(
                part, inner=as_seen(inner, signs), degree=None if degree is None else as_seen(degree, signs)
            )
        case Limits(_sign, low, high) as part:
            return msgspec.structs.replace(part, low=as_seen(low, signs), high=as_seen(high, signs))
        case Grid(cells) as part:
            return msgspec.structs.replace(part, cells=tuple(tuple(as_seen(cell, signs) for cell in line) for line in cells))
        case Raised() | Lowered() | Over() as part:
            return msgspec.structs.replace(part, inner=as_seen(part.inner, signs))
    return row[k]
