"""Writing mathematics where it stands: a row, a caret in it, and what keys and signs do to them. All of it is values.

A caret stands in the row at `path` (the part to go into and which of its inner rows, again and again), before its `at`-th
part. `anchor` is the other end of what is selected in the same row, or None.
"""

from __future__ import annotations

from msgspec import Struct

from larch.core.maths.expression.words import GREEK
from larch.core.maths.layout.rows import (
    WORDS,
    Fence,
    Fraction,
    Grid,
    Item,
    Limits,
    Lowered,
    Over,
    Raised,
    Root,
    Row,
    Sign,
    inner_rows,
    with_inner,
)

Path = tuple[tuple[int, int], ...]
MOST_PARTS = 400
BREAKS = frozenset("+−=<>≤≥≠≈±∓,;·⋅×÷:→ ") | {"and", "or", "mod", "if"}
# fmt: off
PAIRS = {
    ("<", "="): "≤", (">", "="): "≥", ("+", "−"): "±", ("−", "+"): "∓", ("−", ">"): "→", ("<", ">"): "≠",
    ("=", "<"): "≤",
}
SPELT = {"-": "−", "*": "⋅", "–": "−"}
TEMPLATES: dict[str, Item] = {
    "sqrt": Root(()), "root": Root((), ()), "cbrt": Root((), (Sign("3"),)), "sum": Limits("∑", (), ()),
    "prod": Limits("∏", (), ()), "int": Limits("∫", (), ()), "lim": Limits("lim", (), ()), "abs": Fence("|", (), "|"),
    "frac": Fraction((), ()), "floor": Fence("⌊", (), "⌋"), "ceil": Fence("⌈", (), "⌉"),
    "matrix": Grid((((), ()), ((), ()))), "cases": Grid((((), ()), ((), ())), "{", ""), "vec": Over("arrow", ()),
    "bar": Over("bar", ()),
}
SYMBOLS = {
    "deg": "°", "inf": "∞", "infty": "∞", "pm": "±", "times": "×", "cdot": "⋅", "div": "÷", "leq": "≤", "geq": "≥",
    "neq": "≠", "le": "≤", "ge": "≥", "ne": "≠", "to": "→", "tg": "tan", "sen": "sin", "lg": "log", "arcsin": "asin",
    "arccos": "acos", "arctan": "atan", "sgn": "sign",
}
BY_BACKSLASH_ONLY = frozenset({
    "le", "ge", "ne", "to", "pm", "div", "times", "cdot", "bar", "vec", "inf", "frac", "lim", "tg", "lg", "mu", "nu", "xi",
    "eta", "chi", "psi", "phi", "rho",
})
# fmt: on


class Writing(Struct, frozen=True):
    row: Row = ()
    path: Path = ()
    at: int = 0
    anchor: int | None = None

    def here(self) -> Row:
        """The row that the caret stands in."""
        return row_at(self.row, self.path)

    def selected(self) -> tuple[int, int]:
        """From and to, in the caret's row."""
        other = self.at if self.anchor is None else self.anchor
        return (min(self.at, other), max(self.at, other))

    def selection(self) -> Row:
        start, end = self.selected()
        return self.here()[start:end]

    def moved(self, path: Path, at: int) -> Writing:
        return Writing(self.row, path, max(0, min(at, len(row_at(self.row, path)))))

    def with_here(self, row: Row, at: int) -> Writing:
        """With another row where the caret is."""
        return Writing(with_row(self.row, self.path, row), self.path, at)


def row_at(row: Row, path: Path) -> Row:
    for part, inner in path:
        row = inner_rows(row[part])[inner]
    return row


def with_row(row: Row, path: Path, new: Row) -> Row:
    if not path:
        return new
    (part, inner), rest = path[0], path[1:]
    changed = with_row(inner_rows(row[part])[inner], rest, new)
    return (*row[:part], with_inner(row[part], inner, changed), *row[part + 1 :])


# Typing


def typed(writing: Writing, text: str) -> Writing:
    """One character typed, with what it makes of what stands before it."""
    if text in ("/", "÷/"):
        return fraction(writing)
    if text in ("^", "_"):
        return script(writing, text == "^")
    if text in ("(", "[", "{"):
        empty = not writing.here() and isinstance(_holder(writing), Fence | Root)
        return writing if empty else fenced(writing, "(")  # abs( and sqrt( have their place already
    if text in (")", "]", "}"):
        return out_of(writing, (Fence,))
    if text == "|":
        inside = writing.path and isinstance(_holder(writing), Fence) and _holder(writing).left == "|"  # type: ignore[union-attr]
        return out_of(writing, (Fence,)) if inside and writing.at == len(writing.here()) else fenced(writing, "|")
    if text == " ":
        return _space(writing)
    if text in "=<>≤≥≠" and writing.at == len(writing.here()):
        writing = _behind_scripts(writing)
    sign = SPELT.get(text, text)
    made = insert(writing, (Sign(sign),))
    return _with_words(_with_pairs(made)) if len(sign) == 1 else made


def insert(writing: Writing, row: Row) -> Writing:
    """Parts in place of what is selected; the caret goes into their first empty place, else behind them."""
    start, end = writing.selected()
    here = writing.here()
    if len(row) == 1 and end > start:
        row = (_filled(row[0], here[start:end]),)
    made = writing.with_here((*here[:start], *row, *here[end:]), start + len(row))
    if _size(made.row) > MOST_PARTS:
        return writing
    for k, item in enumerate(row):
        empty = next((i for i, inner in enumerate(inner_rows(item)) if not inner), None)
        if empty is not None:
            return made.moved((*writing.path, (start + k, empty)), 0)
    return made


def _filled(item: Item, content: Row) -> Item:
    """A part with what was selected in its first empty place."""
    for k, inner in enumerate(inner_rows(item)):
        if not inner:
            return with_inner(item, k, content)
    return item


def _size(row: Row) -> int:
    return sum(1 + sum(map(_size, inner_rows(item))) for item in row)


def _before(writing: Writing) -> int:
    """Where what stands before the caret begins: a product of signs and parts, as far as the last + or =."""
    here, start = writing.here(), writing.at
    while start > 0:
        item = here[start - 1]
        if isinstance(item, Sign) and item.text in BREAKS:
            break
        start -= 1
    return start


def fraction(writing: Writing) -> Writing:
    """What is selected or stands before the caret goes above the bar; the caret goes to what is empty."""
    start, end = writing.selected()
    if start == end:
        start = _before(writing)
    here = writing.here()
    above = here[start:end]
    if len(above) == 1 and isinstance(above[0], Fence) and above[0].left == "(":
        above = above[0].inner  # (x + 1)/ needs no brackets any more
    made = writing.with_here((*here[:start], Fraction(above, ()), *here[end:]), start + 1)
    return made.moved((*writing.path, (start, 1 if above else 0)), 0)


def script(writing: Writing, up: bool) -> Writing:
    start, end = writing.selected()
    here = writing.here()
    if start != end:  # of what is selected, in brackets if it is long
        inner = here[start:end]
        base: Row = inner if len(inner) == 1 else (Fence("(", inner, ")"),)
        made = writing.with_here(
            (*here[:start], *base, Raised(()) if up else Lowered(()), *here[end:]), start + len(base) + 1
        )
        return made.moved((*writing.path, (start + len(base), 0)), 0)
    following = here[start] if start < len(here) else None
    if isinstance(following, Raised if up else Lowered):
        return writing.moved((*writing.path, (start, 0)), len(following.inner))
    return insert(writing, (Raised(()) if up else Lowered(()),))


def fenced(writing: Writing, left: str) -> Writing:
    right = {"(": ")", "|": "|", "⌊": "⌋", "⌈": "⌉", "{": "}"}[left]
    start, end = writing.selected()
    if start != end:
        here = writing.here()
        made = writing.with_here((*here[:start], Fence(left, here[start:end], right), *here[end:]), start + 1)
        return made
    return insert(writing, (Fence(left, (), right),))


def _holder(writing: Writing) -> Item | None:
    """The part that holds the row that the caret is in."""
    if not writing.path:
        return None
    return row_at(writing.row, writing.path[:-1])[writing.path[-1][0]]


def out_of(writing: Writing, kinds: tuple[type[Item], ...]) -> Writing:
    """Behind the innermost part of some kinds that the caret is in; where there is none, nothing happens."""
    path = writing.path
    while path:
        holder = row_at(writing.row, path[:-1])[path[-1][0]]
        if isinstance(holder, kinds):
            return writing.moved(path[:-1], path[-1][0] + 1)
        path = path[:-1]
    return writing


def _space(writing: Writing) -> Writing:
    """At the end of a part, out of it; elsewhere it means nothing, but ends a word after a backslash."""
    if writing.path and writing.here() and writing.at == len(writing.here()):
        return writing.moved(writing.path[:-1], writing.path[-1][0] + 1)
    return writing


def _behind_scripts(writing: Writing) -> Writing:
    """A sign of comparison leaves powers, roots and fractions: 2^x=8."""
    while writing.path and writing.here() and isinstance(_holder(writing), Raised | Root | Fraction):
        writing = writing.moved(writing.path[:-1], writing.path[-1][0] + 1)
    return writing


def _with_pairs(writing: Writing) -> Writing:
    here, at = writing.here(), writing.at
    if at < 2:
        return writing
    first, second = here[at - 2], here[at - 1]
    if not (isinstance(first, Sign) and isinstance(second, Sign)):
        return writing
    pair = PAIRS.get((first.text, second.text))
    if first.text == "!" and second.text == "=" and at > 2 and isinstance(word := here[at - 3], Sign):
        pair = "≠" if word.text.isalpha() and word.text not in "nkmr" else None
    if pair is None:
        return writing
    return writing.with_here((*here[: at - 2], Sign(pair), *here[at:]), at - 1)


def _with_words(writing: Writing) -> Writing:
    """Letters that spell a function, a Greek letter or a part become that: sqrt, pi, sin."""
    here, at = writing.here(), writing.at
    start = at
    while start > 0 and isinstance(item := here[start - 1], Sign) and _is_letter(item.text):
        start -= 1
    slash = start > 0 and here[start - 1] == Sign("\\")
    letters = [item.text for item in here[start:at] if isinstance(item, Sign)]
    for k in range(len(letters)):
        word = "".join(letters[k:])
        found = _word(word, slash and k == 0)
        if found is not None and len(word) > 1:
            first = start + k - (1 if slash and k == 0 else 0)
            made = writing.with_here((*here[:first], *here[at:]), first)
            return insert(made, (found,))
    return writing


def _is_letter(text: str) -> bool:
    return text.isascii() and text.isalpha()


def _word(word: str, slash: bool) -> Item | None:
    if not slash and word in BY_BACKSLASH_ONLY:
        return None
    if word in TEMPLATES:
        return TEMPLATES[word]
    if word in SYMBOLS:
        return Sign(SYMBOLS[word])
    if word in GREEK and (slash or len(word) > 2 or word == "pi"):
        return Sign(GREEK[word])
    known = word in WORDS and (len(word) > 2 or word in ("ln", "or") or slash) and word not in ("if", "mod", "min", "sec")
    return Sign(word) if known or (slash and word in WORDS) else None


# Moving


def step(writing: Writing, forward: bool, extend: bool = False) -> Writing:
    """One place on, into parts and out of them; with `extend`, over whole parts, selecting them."""
    if extend:
        return _extended(writing, forward)
    if writing.anchor is not None and writing.anchor != writing.at:
        start, end = writing.selected()
        return writing.moved(writing.path, end if forward else start)
    here, at = writing.here(), writing.at
    if forward:
        if at < len(here):
            inner = inner_rows(here[at])
            return writing.moved((*writing.path, (at, 0)), 0) if inner else writing.moved(writing.path, at + 1)
        return _leave(writing, 1)
    if at > 0:
        inner = inner_rows(here[at - 1])
        if inner:
            return writing.moved((*writing.path, (at - 1, len(inner) - 1)), len(inner[-1]))
        return writing.moved(writing.path, at - 1)
    return _leave(writing, -1)


def _leave(writing: Writing, by: int) -> Writing:
    """From the end of an inner row to the next one of its part, or out."""
    if not writing.path:
        return writing.moved((), writing.at)
    part, inner = writing.path[-1]
    outer = writing.path[:-1]
    rows = inner_rows(row_at(writing.row, outer)[part])
    if 0 <= inner + by < len(rows):
        return writing.moved((*outer, (part, inner + by)), 0 if by > 0 else len(rows[inner + by]))
    return writing.moved(outer, part + 1 if by > 0 else part)


def _extended(writing: Writing, forward: bool) -> Writing:
    anchor = writing.at if writing.anchor is None else writing.anchor
    at = writing.at + (1 if forward else -1)
    if 0 <= at <= len(writing.here()):
        return Writing(writing.row, writing.path, at, anchor)
    if not writing.path:
        return Writing(writing.row, writing.path, writing.at, anchor)
    part = writing.path[-1][0]  # beyond its end: the whole part is selected
    return Writing(writing.row, writing.path[:-1], part + 1 if forward else part, part if forward else part + 1)


def home(writing: Writing, end: bool = False, extend: bool = False) -> Writing:
    """To the start or end of the row it is in, from there to that of the whole."""
    to = len(writing.here()) if end else 0
    if extend:
        return Writing(writing.row, writing.path, to, writing.at if writing.anchor is None else writing.anchor)
    if writing.at == to and writing.path:
        return writing.moved((), len(writing.row) if end else 0)
    return writing.moved(writing.path, to)


def next_place(writing: Writing, back: bool = False) -> Writing | None:
    """The next empty place, or None if there is none further on."""
    places = list(_places(writing.row, ()))
    if not places:
        return None
    here = _order(writing.path, writing.at)
    ahead = [path for path in places if (_order(path, 0) < here if back else _order(path, 0) > here)]
    if not ahead:
        return None
    return writing.moved(ahead[-1] if back else ahead[0], 0)


def _order(path: Path, at: int) -> tuple[int, ...]:
    return (*(n for part, inner in path for n in (part, inner + 1)), at, 0)


def _places(row: Row, path: Path) -> list[Path]:
    found: list[Path] = []
    for k, item in enumerate(row):
        for i, inner in enumerate(inner_rows(item)):
            if not inner:
                found.append((*path, (k, i)))
            found += _places(inner, (*path, (k, i)))
    return found


# Deleting


def rubbed(writing: Writing, forward: bool = False) -> Writing:
    """What is selected, or the part beside the caret; of a part with something in it, first the caret goes into it."""
    start, end = writing.selected()
    here = writing.here()
    if start != end:
        return writing.with_here((*here[:start], *here[end:]), start)
    if forward:
        if start < len(here):
            item = here[start]
            if any(inner_rows(item)):
                return writing.moved((*writing.path, (start, 0)), 0)
            return writing.with_here((*here[:start], *here[start + 1 :]), start)
        return writing
    if start > 0:
        item = here[start - 1]
        inner = inner_rows(item)
        if any(inner):
            last = max(k for k, row in enumerate(inner) if row)
            return writing.moved((*writing.path, (start - 1, last)), len(inner[last]))
        return writing.with_here((*here[: start - 1], *here[start:]), start - 1)
    return _unwrapped(writing)


def _unwrapped(writing: Writing) -> Writing:
    """At the start of an inner row: its part goes, what is in it stays."""
    if not writing.path:
        return writing
    (part, inner), outer = writing.path[-1], writing.path[:-1]
    row = row_at(writing.row, outer)
    rows = inner_rows(row[part])
    if inner > 0 and any(rows[:inner]):
        return writing.moved((*outer, (part, inner - 1)), len(rows[inner - 1]))
    content = tuple(item for one in rows for item in one)
    made = with_row(writing.row, outer, (*row[:part], *content, *row[part + 1 :]))
    return Writing(made, outer, part)
