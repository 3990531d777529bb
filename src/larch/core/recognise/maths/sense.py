"""Whether a row says something at all: of two likely readings the one that can be understood is meant."""

from __future__ import annotations

from larch.core.maths.expression.tree import ExpressionError
from larch.core.maths.layout.asked import plainly
from larch.core.maths.layout.rows import Fence, Item, Row, Sign
from larch.core.maths.layout.to_tree import read_row

GOES_ON = frozenset("=<>≤≥≠≈+−·⋅×÷:/")  # what a line may begin or end with that is written piece by piece


def says_something(row: Row) -> bool:
    """Also a piece of a line, such as ": 2" or "x =", and one sign by itself."""
    if (len(row) == 1 and isinstance(row[0], Sign)) or _is_point(row):
        return True
    if len(row) > 1 and _goes_on(row[0]) and row[0] not in (Sign("−"), Sign("+")):
        row = row[1:]
    if len(row) > 1 and _goes_on(row[-1]):
        row = row[:-1]
    try:
        read_row(plainly(row))
    except ExpressionError:
        return False
    return True


def _goes_on(item: Item) -> bool:
    return isinstance(item, Sign) and item.text in GOES_ON


def _is_point(row: Row) -> bool:
    """Whether it is a pair of coordinates with a bar between them, with or without the letter of the point."""
    if row and isinstance(row[0], Sign) and row[0].text.isupper():
        row = row[1:]
    match row:
        case (Fence("(", inner, ")"),):
            pass
        case (Sign("("), *_, Sign(")")):
            inner = row[1:-1]
        case _:
            return False
    bars = [k for k, item in enumerate(inner) if item == Sign("|")]
    return len(bars) == 1 and all(part and says_something(part) for part in (inner[: bars[0]], inner[bars[0] + 1 :]))
