"""What is selected while mathematics is written: terms, sides, their colours and ways; and how it is kept."""

from __future__ import annotations

import msgspec

from larch.core.maths.layout.rows import Item, Row, Sign
from larch.core.maths.layout.writing import Writing, with_row


def term_at(writing: Writing) -> Writing:
    """The term that the caret is in."""
    here, start = writing.here(), _term_start(writing)
    end = writing.at
    while end < len(here) and not (isinstance(item := here[end], Sign) and item.text in "+−=<>≤≥≠≈"):
        end += 1
    return Writing(writing.row, writing.path, end, start)


def _term_start(writing: Writing) -> int:
    here, start = writing.here(), writing.at
    while start > 0 and not (isinstance(item := here[start - 1], Sign) and item.text in "+−=<>≤≥≠≈"):
        start -= 1
    return start


def side_at(writing: Writing) -> Writing:
    """The side of an equation that the caret is in."""
    row = writing.row
    at = writing.path[0][0] if writing.path else writing.at
    start, end = at, at
    while start > 0 and not (isinstance(item := row[start - 1], Sign) and item.text in "=<>≤≥≠≈"):
        start -= 1
    while end < len(row) and not (isinstance(item := row[end], Sign) and item.text in "=<>≤≥≠≈"):
        end += 1
    return Writing(row, (), end, start)


def everything(writing: Writing) -> Writing:
    return Writing(writing.row, (), len(writing.row), 0)


def brought_over(writing: Writing) -> Writing:
    """The term that is selected, or that the caret is in, on the other side with the other sign: 2x + 5 = 15 as 2x = 15 − 5.

    Nothing happens where there is no other side, or where it is not a term of the whole row.
    """
    here = writing if writing.anchor is not None and writing.anchor != writing.at else term_at(writing)
    row = writing.row
    signs_at = [k for k, item in enumerate(row) if isinstance(item, Sign) and item.text in "=<>≤≥≠≈"]
    if here.path or len(signs_at) != 1:
        return writing
    start, end = here.selected()
    while start < end and isinstance(item := row[start], Sign) and item.text in "+−":
        start += 1
    if start == end or start <= signs_at[0] < end:
        return writing
    before = row[start - 1] if start > 0 else None
    signed = isinstance(before, Sign) and before.text in "+−"
    negative = isinstance(before, Sign) and before.text == "−"
    term, first = row[start:end], start - (1 if signed else 0)
    rest = (*row[:first], *row[end:])
    at = next(k for k, item in enumerate(rest) if isinstance(item, Sign) and item.text in "=<>≤≥≠≈")
    left, right = _without_plus(rest[:at]), _without_plus(rest[at + 1 :])
    moved = (Sign("+" if negative else "−"), *term)
    if start < signs_at[0]:
        right = (*_unless_zero(right), *moved)
    else:
        left = (*_unless_zero(left), *moved)
    zero: Row = (Sign("0"),)
    made = (*(_without_plus(left) or zero), rest[at], *(_without_plus(right) or zero))
    return Writing(made, (), len(made))


def _without_plus(row: Row) -> Row:
    return row[1:] if row and row[0] == Sign("+") else row


def _unless_zero(row: Row) -> Row:
    return () if row == (Sign("0"),) else row


def coloured(writing: Writing, hue: str) -> Writing:
    """What is selected, or all of it, in a hue."""
    start, end = writing.selected()
    if start == end:
        row = tuple(msgspec.structs.replace(item, hue=hue) for item in writing.row)
        return Writing(row, writing.path, writing.at, writing.anchor)
    here = writing.here()
    tinted = tuple(msgspec.structs.replace(item, hue=hue) for item in here[start:end])
    made = with_row(writing.row, writing.path, (*here[:start], *tinted, *here[end:]))
    return Writing(made, writing.path, writing.at, writing.anchor)


# Keeping


def source_of(row: Row) -> str:
    """How a row is kept: plain text while it is nothing but signs, else LaTeX."""
    from larch.core.maths.layout.latex import latex

    if not all(isinstance(item, Sign) and not item.hue for item in row):
        return latex(row)
    text = ""
    for k, item in enumerate(row):
        assert isinstance(item, Sign)
        binary = item.text in "=<>≤≥≠≈→" or (item.text in "+−±⋅×÷" and k and _is_operand(row[k - 1]))
        wordy = len(item.text) > 1
        text += f" {item.text} " if (binary or wordy) and k else item.text + (" " if wordy else "")
    return " ".join(text.split())


def _is_operand(item: Item) -> bool:
    return isinstance(item, Sign) and (item.text[-1:].isalnum() or item.text in "!°%")
