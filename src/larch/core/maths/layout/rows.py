"""The parts of a line of mathematics as it looks. A row is a tuple of them; what is not yet filled in is an empty row.

`hue` is the colour of a part, "" for that of the whole.
"""

from __future__ import annotations

from collections.abc import Iterator

import msgspec
from msgspec import Struct


class Sign(Struct, frozen=True):
    """A character, or a word that stands as one: x, 7, +, sin."""

    text: str
    hue: str = ""


class Fraction(Struct, frozen=True):
    above: Row
    below: Row
    hue: str = ""


class Raised(Struct, frozen=True):
    """A power, at what stands before it."""

    inner: Row
    hue: str = ""


class Lowered(Struct, frozen=True):
    """An index, at what stands before it."""

    inner: Row
    hue: str = ""


class Root(Struct, frozen=True):
    """degree: None of a square root."""

    inner: Row
    degree: Row | None = None
    hue: str = ""


class Fence(Struct, frozen=True):
    """Brackets, bars: one of ( [ { | ⌊ ⌈ and its partner."""

    left: str
    inner: Row
    right: str
    hue: str = ""


class Limits(Struct, frozen=True):
    """∑, ∏, ∫ or lim with what stands below and above it."""

    sign: str
    low: Row
    high: Row
    hue: str = ""


class Grid(Struct, frozen=True):
    """Cells in rows: a matrix in brackets, or cases behind a brace (left "{", right "")."""

    cells: tuple[tuple[Row, ...], ...]
    left: str = "("
    right: str = ")"
    hue: str = ""


class Over(Struct, frozen=True):
    """Something over a row: "bar" for digits that recur and for lines, "arrow" for vectors."""

    mark: str
    inner: Row
    hue: str = ""


Item = Sign | Fraction | Raised | Lowered | Root | Fence | Limits | Grid | Over
Row = tuple[Item, ...]

# fmt: off
WORDS = frozenset({
    "sin", "cos", "tan", "cot", "sec", "csc", "asin", "acos", "atan", "sinh", "cosh", "tanh", "ln", "log", "lim", "min",
    "max", "gcd", "lcm", "mod", "and", "or", "if", "otherwise", "sign", "exp", "round", "arcsin", "arccos", "arctan",
})
# fmt: on


def inner_rows(item: Item) -> tuple[Row, ...]:
    """The rows within a part, in the order in which a caret goes through them."""
    match item:
        case Fraction(above, below):
            return (above, below)
        case Raised(inner) | Lowered(inner) | Over(_, inner) | Fence(_, inner):
            return (inner,)
        case Root(inner, degree):
            return (inner,) if degree is None else (degree, inner)
        case Limits(_, low, high):
            return (low, high)
        case Grid(cells):
            return tuple(cell for line in cells for cell in line)
    return ()


def with_inner(item: Item, index: int, row: Row) -> Item:
    """The part with one of its inner rows replaced."""
    replace = msgspec.structs.replace
    match item:
        case Fraction():
            return replace(item, above=row) if index == 0 else replace(item, below=row)
        case Root(_, degree) if degree is not None:
            return replace(item, degree=row) if index == 0 else replace(item, inner=row)
        case Raised() | Lowered() | Over() | Fence() | Root():
            return replace(item, inner=row)
        case Limits():
            return replace(item, low=row) if index == 0 else replace(item, high=row)
        case Grid(cells):
            wide = len(cells[0])
            lines = [list(line) for line in cells]
            lines[index // wide][index % wide] = row
            return replace(item, cells=tuple(map(tuple, lines)))
    raise IndexError(index)


def signs(text: str) -> Row:
    """A row of single characters."""
    return tuple(Sign(character) for character in text if not character.isspace())


def is_complete(row: Row) -> bool:
    """Whether no place is empty."""
    return bool(row) and all(is_complete(inner) for item in row for inner in inner_rows(item))


def depth(row: Row) -> int:
    return 1 + max((depth(inner) for item in row for inner in inner_rows(item)), default=0)


def count(row: Row) -> int:
    """How many parts there are in all."""
    return sum(1 + sum(map(count, inner_rows(item))) for item in row)


def walk(row: Row) -> Iterator[Item]:
    for item in row:
        yield item
        for inner in inner_rows(item):
            yield from walk(inner)
